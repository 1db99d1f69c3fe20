"""Exchange rates, each of a day: nothing is added across currencies without one."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date
from decimal import Decimal
from typing import NamedTuple

from vinetag.core.money import Money

__all__ = ["BASE", "Converted", "RateError", "Rates"]

BASE = "EUR"


class RateError(LookupError):
    """There is no rate for that currency on that day or any day before."""


class Converted(NamedTuple):
    """Money in another currency, not rounded, and the day of the rate, None where none was
    needed.
    """

    money: Money
    day: date | None


@dataclass(frozen=True)
class Rates:
    """What one euro was on each day: the days a bank publishes, in order."""

    by_day: Mapping[date, Mapping[str, Decimal]]
    _days: list[date] = field(init=False, repr=False, compare=False, default_factory=list)

    def __post_init__(self) -> None:
        self._days.extend(sorted(self.by_day))

    @property
    def newest(self) -> date | None:
        """The last day with rates."""
        return self._days[-1] if self._days else None

    def of(self, currency: str, on: date) -> tuple[Decimal, date]:
        """The rate of the last day with one, up to `on`. Raises RateError."""
        if currency == BASE:
            return Decimal(1), on
        for place in range(bisect_right(self._days, on) - 1, -1, -1):
            day = self._days[place]
            if (rate := self.by_day[day].get(currency)) is not None:
                return rate, day
        raise RateError(currency)

    def convert(self, money: Money, to: str, on: date) -> Converted:
        """The money in the currency `to`, by the rates of the last day up to `on`. Raises
        RateError.
        """
        currency = str(money.currency.code)
        if currency == to:
            return Converted(money, None)
        one, day = self.of(currency, on)
        other, other_day = self.of(to, on)
        days = [d for c, d in ((currency, day), (to, other_day)) if c != BASE]
        return Converted(Money(money.amount / one * other, to), min(days))
