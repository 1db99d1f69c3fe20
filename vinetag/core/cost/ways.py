"""The ways to hold a full name over some years, and the cheapest: a dynamic programme.

A way begins with a registration and goes on, each year on the day of it, with renewals and moves to
other sellers. Its state is the seller, how many years are paid ahead, and which sellers' offers to
new customers are used up; every way of these steps is weighed, so that the result is exact.
Bellman, Dynamic Programming (1957), is where the method comes from.
"""

from __future__ import annotations

from collections.abc import Collection, Mapping
from dataclasses import dataclass, field
from datetime import date
from decimal import Decimal
from itertools import combinations
from typing import Final, NamedTuple

from vinetag.core.cost.market import Market, Priced, Term
from vinetag.core.cost.prices import Action, Quoted
from vinetag.core.cost.sellers import LONGEST_AHEAD

__all__ = [
    "LONGEST_HORIZON", "Start", "Step", "Way", "Ways", "Wish", "cheapest_way", "years_after",
]  # fmt: skip

LONGEST_HORIZON: Final = 10
NEVER: Final = 1 << 62
# An objective is in billionths, so that a discount can be weighed in whole numbers.
FINE: Final = 1_000_000


@dataclass(frozen=True)
class Wish:
    """What is wanted: a full name held for `years` (1 to LONGEST_HORIZON) from the day `start`.

    `quotes` are the prices sellers ask for this name itself. `trouble` is what a move costs the
    person beside its price, in thousandths of the market's currency; `ahead` the percent a year by
    which a payment made later weighs less. Without `moving` the first seller stays; `sellers` are
    those that may be used, all of them where it is None. In some extensions a move adds no year.
    """

    extension: str
    years: int
    start: date
    quotes: Mapping[str, Quoted] = field(default_factory=dict)
    trouble: int = 0
    ahead: Decimal = Decimal(0)
    moving: bool = True
    sellers: frozenset[str] | None = None
    move_adds_year: bool = True


@dataclass(frozen=True, slots=True)
class Step:
    """One payment: on which day, for what, where, how many years, and until when that lasts."""

    on: date
    action: Action
    seller: str
    years: int
    until: date
    priced: Priced


@dataclass(frozen=True, slots=True)
class Way:
    """Steps in order of time; `total` in thousandths of the market's currency."""

    steps: tuple[Step, ...]
    total: int

    def by_year(self, wish: Wish) -> list[int]:
        """What falls due in each year of the horizon, in thousandths."""
        days = [years_after(wish.start, n) for n in range(wish.years)]
        paid = [0] * wish.years
        for step in self.steps:
            paid[max(n for n, day in enumerate(days) if day <= step.on)] += step.priced.amount
        return paid


def years_after(day: date, years: int) -> date:
    """The same day some years later; the 28th for a 29th of February that is not there."""
    try:
        return day.replace(year=day.year + years)
    except ValueError:
        return day.replace(year=day.year + years, day=28)


class _Choice(NamedTuple):
    """What to do: an action at a seller for some years, or "wait" for the next year."""

    cost: int
    action: str = "wait"
    seller: str = ""
    years: int = 0


def cheapest_way(market: Market, wish: Wish) -> Way | None:
    """The cheapest way, of equally cheap ones one that pays later and stays where it is; None
    where no seller offers one. Raises ValueError for a horizon that cannot be, RateError for a
    currency without a rate.
    """
    return Ways(market, wish).cheapest()


class Start(NamedTuple):
    """A way to begin: a registration at a seller for some years, what that costs alone, and what
    the cheapest rest of the way weighs with it, in thousandths.
    """

    seller: str
    years: int
    cost: int
    rest: int

    @property
    def whole(self) -> int:
        return self.cost + self.rest


class Ways:
    """Every way to a wish, worked out once. Raises ValueError for a horizon that cannot be,
    RateError for a currency without a rate.
    """

    def __init__(self, market: Market, wish: Wish) -> None:
        if not 1 <= wish.years <= LONGEST_HORIZON:
            raise ValueError(f"a horizon is of 1 to {LONGEST_HORIZON} years, not {wish.years}")
        chosen = {*market.sellers} if wish.sellers is None else wish.sellers & {*market.sellers}
        codes = sorted(code for code in chosen if code in market.prices)
        self.market, self.wish, self.codes = market, wish, codes
        self.days = [years_after(wish.start, n) for n in range(wish.years + 1)]
        self.weights = [
            int(FINE / (1 + wish.ahead / 100) ** n) if wish.ahead else FINE
            for n in range(wish.years)
        ]
        self.adds = 1 if wish.move_adds_year else 0
        self.renews = [
            {code: self._terms(code, "renew", n) for code in codes} for n in range(wish.years)
        ]
        # Who has offers to new customers that a move could use: only those are kept account of.
        self.watched = [code for code in codes if self._has_offers(code)] if wish.moving else []
        self._plans = self._planned()

    def _cost(self, code: str, action: Action, year: int, years: int, new: bool) -> int | None:
        term = Term(
            code, self.wish.extension, action, years, self.days[year], new,
            self.wish.quotes.get(code),
        )  # fmt: skip
        priced = self.market.price(term)
        return None if priced is None else priced.amount * self.weights[year]

    def _terms(self, code: str, action: Action, year: int) -> list[tuple[int, int]]:
        """(years, cost) of every term that is offered."""
        new = action == "register" and code not in self.market.buyer.customer_of
        found = ((n, self._cost(code, action, year, n, new)) for n in range(1, LONGEST_AHEAD + 1))
        return [(n, cost) for n, cost in found if cost is not None]

    def _has_offers(self, code: str) -> bool:
        if code in self.market.buyer.customer_of:
            return False
        return any(
            self._cost(code, "move", year, 1, True) != self._cost(code, "move", year, 1, False)
            for year in range(1, self.wish.years)
        )

    def _moves(self, year: int, used: Collection[str]) -> list[tuple[str, int]]:
        if not self.wish.moving or not year:
            return []
        found = []
        for code in self.codes:
            new = code not in self.market.buyer.customer_of and code not in used
            cost = self._cost(code, "move", year, 1, new)
            if cost is not None:
                found.append((code, cost + self.wish.trouble * self.weights[year]))
        return found

    def starts(self) -> list[Start]:
        """Every registration a way can begin with."""
        found = []
        for code in self.codes:
            used = frozenset({code} & {*self.watched})
            for years, cost in self._terms(code, "register", 0):
                rest = 0
                if years < self.wish.years:
                    rest = self._plans[0][used][0][code][years].cost
                if rest < NEVER:
                    found.append(Start(code, years, cost // FINE, -(-rest // FINE)))
        return found

    def cheapest(self) -> Way | None:
        """The way that begins with the cheapest start, the shortest of them."""
        best = min(self.starts(), key=lambda s: (s.whole, s.years, s.seller), default=None)
        return best and self.way(best)

    def _planned(self) -> list[dict[frozenset[str], tuple[_Table, _Table]]]:
        """By year and by the offers that are used up: what to do for those who have just come, and
        for all others.
        """
        horizon = self.wish.years
        subsets = [
            frozenset(chosen)
            for size in range(len(self.watched), -1, -1)
            for chosen in combinations(self.watched, size)
        ]
        plans: list[dict[frozenset[str], tuple[_Table, _Table]]] = [{} for _ in range(horizon)]
        for year in range(horizon - 1, -1, -1):
            later = plans[year + 1] if year + 1 < horizon else None
            settled = {
                used: self._table(year, later[used][1] if later else None, None, used)
                for used in subsets
            }
            for used in subsets:
                after = later[used][1] if later else None
                plans[year][used] = settled[used], self._table(year, after, settled, used)
        return plans

    def _table(
        self,
        year: int,
        after: _Table | None,
        settled: Mapping[frozenset[str], _Table] | None,
        used: frozenset[str],
    ) -> _Table:
        """What to do in a year with each seller and so many years ahead; `settled` are the tables
        of those who have just moved, None while these are made: they cannot move again.
        """
        left = self.wish.years - year
        moves = self._moves(year, used) if settled is not None else []
        table: _Table = {}
        for code in self.codes:
            row = [_Choice(0)] * (LONGEST_AHEAD + 1)
            for ahead in range(min(left - 1, LONGEST_AHEAD), -1, -1):
                best = _Choice(NEVER)
                if ahead:
                    best = _Choice(after[code][ahead - 1].cost if after else 0)
                for years, cost in self.renews[year][code]:
                    if ahead + years > LONGEST_AHEAD:
                        break
                    whole = cost + (row[ahead + years].cost if ahead + years < left else 0)
                    if whole < best.cost:
                        best = _Choice(whole, "renew", code, years)
                for other, cost in moves:
                    if other == code or ahead + self.adds > LONGEST_AHEAD:
                        continue
                    there = (settled or {})[used | ({other} & {*self.watched})]
                    then = ahead + self.adds
                    rest = there[other][then].cost if then < left else 0
                    if cost + rest < best.cost:
                        best = _Choice(cost + rest, "move", other, self.adds)
                row[ahead] = best
            table[code] = row
        return table

    def way(self, start: Start) -> Way:
        """The cheapest way with that beginning."""
        code, years = start.seller, start.years
        used = frozenset({code} & {*self.watched})
        new = code not in self.market.buyer.customer_of
        steps = [self._step("register", code, 0, years, years, new)]
        year, ahead, just_came = 0, years, True
        while year + ahead < self.wish.years:
            choice = self._plans[year][used][0 if just_came else 1][code][ahead]
            if choice.action == "wait":
                year, ahead, just_came = year + 1, ahead - 1, False
            elif choice.action == "renew":
                ahead += choice.years
                steps.append(self._step("renew", code, year, choice.years, year + ahead, False))
            else:
                code = choice.seller
                fresh = code not in self.market.buyer.customer_of and code not in used
                used |= {code} & {*self.watched}
                ahead, just_came = ahead + self.adds, True
                steps.append(self._step("move", code, year, 1, year + ahead, fresh))
        return Way(tuple(steps), sum(step.priced.amount for step in steps))

    def _step(
        self, action: Action, code: str, year: int, years: int, until: int, new: bool
    ) -> Step:
        quoted = self.wish.quotes.get(code)
        on = self.days[year]
        term = Term(code, self.wish.extension, action, years, on, new, quoted)
        priced = self.market.price(term)
        if priced is None:
            raise ValueError(f"{code} does not offer what the plan chose of it")
        return Step(on, action, code, years, years_after(self.wish.start, until), priced)


_Table = dict[str, list[_Choice]]
