"""What names cost in a sheet: by the lists of sellers, and by the quotes that are known."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from decimal import Decimal
from typing import Final, Literal, NamedTuple

from vinetag.core.checking import buyable
from vinetag.core.money import thousandths

__all__ = [
    "NOT_ASKED", "OPEN_TO_LISTS", "SPANS", "ListPrice", "NameCost", "NameQuote", "SheetPrices",
    "Span", "name_costs",
]  # fmt: skip

Span = Literal["first", "later", "whole"]
# A year alone, each later one, and all the years a name is meant to be kept.
SPANS: Final[tuple[Span, ...]] = ("first", "later", "whole")
NOT_ASKED: Final = "not asked"
BUYABLE: Final = frozenset(buyable())
# What costs as the lists say, as far as is known.
OPEN_TO_LISTS: Final = frozenset({"open", NOT_ASKED, "unsure", "waiting"})


class ListPrice(NamedTuple):
    """What a usual name costs, in thousandths of the sheet's currency, and at which seller."""

    first: int
    later: int | None
    whole: int
    seller: str = ""

    def of(self, span: Span) -> int | None:
        """One of the three."""
        return getattr(self, span)  # type: ignore[no-any-return]


class NameQuote(NamedTuple):
    """What is known of one full name: its status, and a seller's price for it, in its currency."""

    status: str
    first: Decimal | None = None
    later: Decimal | None = None
    currency: str = ""


@dataclass(frozen=True)
class SheetPrices:
    """Prices of extensions by the lists, over `years`, all in `currency`. `worth` is what one of
    another currency is in it, with the tax that comes on it; of currencies not in there no price is
    known. Two of one `edition` are the same.
    """

    currency: str = ""
    years: int = 5
    listed: Mapping[str, ListPrice] = field(default_factory=dict)
    worth: Mapping[str, float] = field(default_factory=dict)
    edition: str = ""


class NameCost(NamedTuple):
    """The least a name costs under any of some extensions, in thousandths of the sheet's currency:
    under which, at which seller by its list ("" for a quote), and whether as a premium name.
    """

    amount: int
    extension: str
    seller: str
    premium: bool


def name_costs(
    prices: SheetPrices,
    known: Mapping[str, NameQuote],
    extensions: Sequence[str],
    *,
    premium: bool = True,
) -> dict[Span, NameCost | None]:
    """What a name costs, by span; of two as cheap the extension that stands first. Under an
    extension it is what a list or a quote says, whichever comes to less over all the years; of a
    premium name the quote alone, unless `premium` prices are left out. None where none is known.
    """
    # Pages have hundreds of names: this is as plain as it can be.
    least: list[NameCost | None] = [None] * len(SPANS)
    for extension in extensions:
        quote = known.get(extension)
        if quote is None:
            price, is_premium = prices.listed.get(extension), False
        else:
            price, is_premium = _under(prices, extension, quote), quote.status == "premium"
        if price is None or (is_premium and not premium):
            continue
        for place, amount in enumerate((price.first, price.later, price.whole)):
            best = least[place]
            if amount is not None and (best is None or amount < best.amount):
                least[place] = NameCost(amount, extension, price.seller, is_premium)
    return dict(zip(SPANS, least, strict=True))


def _under(prices: SheetPrices, extension: str, quote: NameQuote) -> ListPrice | None:
    listed = prices.listed.get(extension) if quote.status in OPEN_TO_LISTS else None
    quoted = _quoted(prices, quote) if quote.status in BUYABLE else None
    if quoted and (listed is None or quoted.whole < listed.whole):
        return quoted
    return listed


def _quoted(prices: SheetPrices, quote: NameQuote) -> ListPrice | None:
    """A quote in the sheet's currency; each later year costs what the first does, where that is
    all that is said.
    """
    worth = prices.worth.get(quote.currency)
    if quote.first is None or worth is None:
        return None
    first = round(thousandths(quote.first) * worth)
    later = first if quote.later is None else round(thousandths(quote.later) * worth)
    return ListPrice(first, later, first + (prices.years - 1) * later)
