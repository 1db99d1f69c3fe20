"""Coupons: what each takes off an order, which go together, and how likely one is to work."""

from __future__ import annotations

import math
from collections.abc import Collection, Iterable, Sequence
from dataclasses import dataclass
from datetime import date, datetime
from decimal import Decimal
from itertools import combinations
from typing import Final, Literal, NamedTuple

from vinetag.core.cost.prices import Action

__all__ = ["Coupon", "Eligible", "Odds", "Report", "best_coupons", "odds_of", "taken_off"]

CouponKind = Literal["percent", "amount", "price"]
# A report counts half as much after so many days, a tenth after some three times as many.
HALF_LIFE_DAYS: Final = 45.0
# Before any report: as if one had worked and one had not.
PRIOR: Final = (1.0, 1.0)
# Of the coupons that can be combined, so many of the best are tried together.
MOST_TOGETHER: Final = 8


@dataclass(frozen=True, slots=True)
class Coupon:
    """`kind` "percent" takes `value` in a hundred off, "amount" so much off the whole, "price"
    makes the first year of each name cost so much. It is for `extensions` (none: all), `actions`,
    terms of `years_from` to `years_to`, orders of `least_names` and of a `least_sum` before tax,
    and for those who buy for the first time where `new_customers`. `combines` with other coupons,
    `on_promotions` with promotional prices.
    """

    code: str
    seller: str
    kind: CouponKind
    value: Decimal
    extensions: frozenset[str] = frozenset()
    actions: frozenset[Action] = frozenset({"register"})
    years_from: int = 1
    years_to: int = 10
    least_names: int = 1
    least_sum: Decimal = Decimal(0)
    new_customers: bool = False
    combines: bool = False
    on_promotions: bool = False
    starts: date = date.min
    ends: date = date.max

    def holds(self, on: date) -> bool:
        """Whether it can be used on that day, the last one included."""
        return self.starts <= on <= self.ends


class Eligible(NamedTuple):
    """A line a coupon may take something off: the `amount` it has, that of its first year."""

    extension: str
    action: Action
    years: int
    amount: Decimal
    first_year: Decimal
    promotional: bool


def _lines(coupon: Coupon, lines: Sequence[Eligible]) -> list[Eligible]:
    return [
        line
        for line in lines
        if (not coupon.extensions or line.extension in coupon.extensions)
        and line.action in coupon.actions
        and coupon.years_from <= line.years <= coupon.years_to
        and (coupon.on_promotions or not line.promotional)
    ]


def taken_off(coupon: Coupon, lines: Sequence[Eligible], *, new_customer: bool) -> Decimal:
    """What it takes off an order alone, not rounded; 0 where its conditions do not hold."""
    chosen = _lines(coupon, lines)
    whole = sum((line.amount for line in chosen), Decimal(0))
    if not chosen or len(chosen) < coupon.least_names or whole < coupon.least_sum:
        return Decimal(0)
    if coupon.new_customers and not new_customer:
        return Decimal(0)
    if coupon.kind == "percent":
        return whole * coupon.value / 100
    if coupon.kind == "amount":
        return min(coupon.value, whole)
    less = (max(Decimal(0), line.first_year - coupon.value) for line in chosen)
    return sum(less, Decimal(0))


def best_coupons(
    coupons: Iterable[Coupon], lines: Sequence[Eligible], *, new_customer: bool
) -> list[tuple[Coupon, Decimal]]:
    """Those that together take most off an order, with what each does; exact among MOST_TOGETHER
    that can be combined. Together they never take more than there is: the last takes what is left.
    """
    worth = [(c, taken_off(c, lines, new_customer=new_customer)) for c in coupons]
    useful = sorted(((c, w) for c, w in worth if w > 0), key=lambda one: (-one[1], one[0].code))
    together = [one for one in useful if one[0].combines][:MOST_TOGETHER]
    whole = sum((line.amount for line in lines), Decimal(0))
    best: list[tuple[Coupon, Decimal]] = []
    most = Decimal(0)
    choices: list[Sequence[tuple[Coupon, Decimal]]] = [[one] for one in useful]
    choices += [chosen for n in range(2, len(together) + 1) for chosen in combinations(together, n)]
    for chosen in choices:
        off = min(whole, sum((w for _, w in chosen), Decimal(0)))
        if off > most:
            most, best = off, _within(chosen, whole)
    return best


def _within(
    chosen: Sequence[tuple[Coupon, Decimal]], whole: Decimal
) -> list[tuple[Coupon, Decimal]]:
    kept = []
    for coupon, off in chosen:
        kept.append((coupon, min(off, whole)))
        whole -= kept[-1][1]
    return [one for one in kept if one[1] > 0]


class Report(NamedTuple):
    """That a coupon worked, or did not, and when (aware)."""

    worked: bool
    at: datetime


class Odds(NamedTuple):
    """How likely it is that a coupon works: the mean, the range in which nine in ten would lie, and
    how many reports there are.
    """

    mean: float
    low: float
    high: float
    reports: int


def odds_of(reports: Collection[Report], now: datetime) -> Odds:
    """The posterior of a Beta distribution with a flat prior (Gelman and others, Bayesian Data
    Analysis, 2.4), in which a report counts 2 ** (-age / HALF_LIFE_DAYS).
    """
    worked, failed = PRIOR
    for report in reports:
        days = max(0.0, (now - report.at).total_seconds() / 86_400)
        weight = 2.0 ** (-days / HALF_LIFE_DAYS)
        if report.worked:
            worked += weight
        else:
            failed += weight
    mean = worked / (worked + failed)
    return Odds(
        mean, _quantile(0.05, worked, failed), _quantile(0.95, worked, failed), len(reports)
    )


def _quantile(share: float, a: float, b: float) -> float:
    """Where `share` of a Beta distribution lies below: by halving."""
    low, high = 0.0, 1.0
    for _ in range(40):
        middle = (low + high) / 2
        if _below(middle, a, b) < share:
            low = middle
        else:
            high = middle
    return (low + high) / 2


def _below(x: float, a: float, b: float) -> float:
    """The regularised incomplete beta function, by its continued fraction (Abramowitz and Stegun,
    26.5.8, with Lentz's evaluation).
    """
    if x <= 0 or x >= 1:
        return float(x >= 1)
    if x > (a + 1) / (a + b + 2):
        return 1 - _below(1 - x, b, a)
    front = math.exp(
        math.lgamma(a + b) - math.lgamma(a) - math.lgamma(b) + a * math.log(x) + b * math.log1p(-x)
    )
    tiny = 1e-300
    c, d = 1.0, 1 / max(tiny, 1 - (a + b) * x / (a + 1))
    value = d
    for m in range(1, 200):
        for term in (
            m * (b - m) * x / ((a + 2 * m - 1) * (a + 2 * m)),
            -(a + m) * (a + b + m) * x / ((a + 2 * m) * (a + 2 * m + 1)),
        ):
            d = 1 / (1 + term * d or tiny)
            c = 1 + term / c or tiny
            value *= c * d
        if abs(c * d - 1) < 1e-12:
            break
    return front * value / a
