"""Amounts of money: decimal, each in one currency, never set against one of another."""

from __future__ import annotations

import re
from dataclasses import dataclass
from decimal import Decimal, InvalidOperation
from typing import Final

__all__ = [
    "DEAREST",
    "PLACES",
    "Money",
    "UnlikeCurrenciesError",
    "amount_of",
    "neat",
    "thousandths",
]

# No currency of ISO 4217 in use has more decimal places.
PLACES: Final = 3
DEAREST: Final = Decimal(10**9)


class UnlikeCurrenciesError(TypeError):
    """Amounts of two currencies were compared or added."""


@dataclass(frozen=True, slots=True)
class Money:
    """An amount from 0 to DEAREST, at most PLACES decimal places, and its currency: the three
    letters of ISO 4217. Raises ValueError for anything else.
    """

    amount: Decimal
    currency: str

    def __post_init__(self) -> None:
        if amount_of(self.amount) != self.amount:
            raise ValueError(f"{self.amount} has more than {PLACES} decimal places")
        if not re.fullmatch("[A-Z]{3}", self.currency):
            raise ValueError(f"{self.currency!r} is no currency: it has three capital letters")

    def __lt__(self, other: Money) -> bool:
        return self.amount < self._like(other)

    def __le__(self, other: Money) -> bool:
        return self.amount <= self._like(other)

    def __add__(self, other: Money) -> Money:
        return Money(self.amount + self._like(other), self.currency)

    def _like(self, other: Money) -> Decimal:
        if other.currency != self.currency:
            raise UnlikeCurrenciesError(f"{self.currency} and {other.currency}")
        return other.amount


def amount_of(value: object) -> Decimal:
    """A number, or one written in digits, as an exact amount of at most PLACES decimal places, the
    rest rounded half to even. A float is taken for what it prints as. Raises ValueError when it is
    no number, not finite, below 0 or above DEAREST.
    """
    try:
        amount = Decimal(str(value))
        if not amount.is_finite() or not 0 <= amount <= DEAREST:
            raise ValueError(f"{value!s:.40} is no amount from 0 to {DEAREST:,}")
        exact = amount.quantize(Decimal(1).scaleb(-PLACES))
    except InvalidOperation as error:
        raise ValueError(f"{value!s:.40} is no amount") from error
    return neat(exact)


def neat(amount: Decimal) -> Decimal:
    """The same amount without noughts at its end, and never in powers of ten: 12.500 is 12.5."""
    short = amount.normalize()
    return short.quantize(Decimal(1)) if short.as_tuple().exponent > 0 else short  # type: ignore[operator]


def thousandths(amount: Decimal) -> int:
    """The amount in thousandths of its currency, exactly."""
    return int(amount_of(amount).scaleb(PLACES))
