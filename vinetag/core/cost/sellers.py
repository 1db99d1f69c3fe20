"""Who sells names, and on what terms."""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal
from typing import Final, Literal

__all__ = ["LONGEST_AHEAD", "Buyer", "Extra", "Privacy", "Seller", "TaxShown"]

Privacy = Literal["included", "charged", "none"]
TaxShown = Literal["added", "included"]

# Registries let nobody hold a name for more than so many years ahead.
LONGEST_AHEAD: Final = 10


@dataclass(frozen=True, slots=True)
class Extra:
    """Something that is ticked in advance: what it is, `yearly` what a year of it costs, and
    whether somebody who only wants to hold the name needs it.
    """

    name: str
    about: str
    yearly: Decimal
    needed: bool = False


@dataclass(frozen=True, slots=True)
class Seller:
    """A seller's terms.

    `code` is its name in addresses and files; `country` an ISO 3166-1 code; `currency` one of ISO
    4217, in which all its prices are. A registration is for `years_min` to `years_max` years, and
    `years_chosen` of them are chosen in advance. `tax` says whether prices hold the seller's home
    tax. Amounts are rounded to multiples of `rounding`, half up, line by line. Where orders are
    paid from an account, at least `top_up` has to be paid into it at a time; 0 where they are not.
    """

    code: str
    name: str
    country: str
    currency: str
    years_min: int = 1
    years_max: int = LONGEST_AHEAD
    years_chosen: int = 1
    privacy: Privacy = "included"
    tax: TaxShown = "added"
    rounding: Decimal = Decimal("0.01")
    extras: tuple[Extra, ...] = ()
    top_up: Decimal = Decimal(0)

    def paid_in(self, amount: Decimal) -> Decimal:
        """What has to be paid at once for an order of that amount; what is more stays in the
        account and pays later ones.
        """
        return max(amount, self.top_up) if amount > 0 else amount

    def rounded(self, amount: Decimal) -> Decimal:
        """As the seller writes an amount."""
        steps = (amount / self.rounding).quantize(Decimal(1), "ROUND_HALF_UP")
        return (steps * self.rounding).quantize(self.rounding)


@dataclass(frozen=True, slots=True)
class Buyer:
    """Who pays: the country (ISO 3166-1), whether a business with a valid VAT number, which country
    gave that number, whether the holder is to stay out of the public record, and the sellers whose
    customer the buyer is already.
    """

    country: str = ""
    business: bool = False
    vat_country: str = ""
    privacy: bool = True
    customer_of: frozenset[str] = frozenset()
