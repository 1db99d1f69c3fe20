"""What to hold for protection: of the names people land on who mean another, those that catch most
of them within a budget.

Which to take is the 0-1 knapsack problem, solved exactly by dynamic programming over the budget in
steps of STEP (R. Bellman, Dynamic Programming, 1957); what the best choice catches at every budget
is the curve of the trade-off.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
import numpy.typing as npt

__all__ = ["STEP", "Chosen", "Offer", "Point", "choose", "curve"]

# Thousandths of the currency: budgets and prices are weighed in tenths, prices rounded up.
STEP: Final = 100
MOST_STEPS: Final = 20_000
MOST_POINTS: Final = 60
Floats = npt.NDArray[np.float64]
Flags = npt.NDArray[np.bool_]


@dataclass(frozen=True, slots=True)
class Offer:
    """A full name that can be had: the share it would catch, 0 to 1, and what it costs a year in
    thousandths of the currency.
    """

    full_name: str
    share: float
    yearly: int


@dataclass(frozen=True, slots=True)
class Point:
    """What the best choice at a cost a year catches."""

    yearly: int
    share: float
    names: int


@dataclass(frozen=True, slots=True)
class Chosen:
    """The offers to take, the ones that catch most first; their cost a year and share together."""

    offers: tuple[Offer, ...]
    yearly: int
    share: float


def choose(offers: Sequence[Offer], budget: int) -> Chosen:
    """Those that catch most within a budget of thousandths a year; of choices that catch the same,
    the cheaper.
    """
    steps = _steps(offers, budget)
    best, taken = _best(offers, steps)
    if not len(best):
        return Chosen((), 0, 0.0)
    at = int(np.argmax(best >= best[-1] - 1e-12))
    return _chosen(offers, taken, at)


def curve(offers: Sequence[Offer], most: int) -> list[Point]:
    """What the best choice catches, from nothing up to a cost of `most` thousandths a year: a point
    wherever a euro more catches more, at most MOST_POINTS.
    """
    best, taken = _best(offers, _steps(offers, most))
    found = [Point(0, 0.0, 0)]
    rises = np.flatnonzero(np.diff(best) > 1e-9) + 1
    if len(rises) > MOST_POINTS:
        rises = rises[np.unique(np.linspace(0, len(rises) - 1, MOST_POINTS).astype(int))]
    for at in rises.tolist():
        chosen = _chosen(offers, taken, at)
        if chosen.yearly > found[-1].yearly and chosen.share > found[-1].share:
            found.append(Point(chosen.yearly, chosen.share, len(chosen.offers)))
    return found


def _steps(offers: Sequence[Offer], budget: int) -> int:
    whole = sum(_cost(offer) for offer in offers)
    return max(0, min(budget // STEP, whole, MOST_STEPS))


def _cost(offer: Offer) -> int:
    return -(-offer.yearly // STEP)


def _best(offers: Sequence[Offer], steps: int) -> tuple[Floats, Flags]:
    """By cost, the most that can be caught; and by offer and cost, whether it is taken there."""
    best = np.zeros(steps + 1)
    taken = np.zeros((len(offers), steps + 1), bool)
    for i, offer in enumerate(offers):
        cost = _cost(offer)
        if cost > steps:
            continue
        shifted = np.concatenate([np.full(cost, -1.0), best[: steps + 1 - cost]]) + offer.share
        shifted[:cost] = -1.0
        taken[i] = shifted > best + 1e-12
        best = np.maximum(best, shifted)
    return best, taken


def _chosen(offers: Sequence[Offer], taken: Flags, at: int) -> Chosen:
    found = []
    for i in range(len(offers) - 1, -1, -1):
        if taken[i, at]:
            found.append(offers[i])
            at -= _cost(offers[i])
    found.sort(key=lambda offer: (-offer.share, offer.full_name))
    return Chosen(tuple(found), sum(o.yearly for o in found), min(1.0, sum(o.share for o in found)))
