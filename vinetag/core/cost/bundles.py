"""Several full names at once: planned together, within a budget, and paid by year."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

from vinetag.core.cost.market import Market
from vinetag.core.cost.members import Bundle, Member
from vinetag.core.cost.searching import Search
from vinetag.core.cost.ways import Wish

__all__ = ["MOST_NAMES", "paid_by_year", "plan_bundle", "within_budget"]

MOST_NAMES: Final = 200


def plan_bundle(market: Market, members: Sequence[Member]) -> Bundle:
    """A plan for all of them. Raises ValueError for more than MOST_NAMES, or wishes with unlike
    beginnings, RateError for a currency without a rate.
    """
    if len(members) > MOST_NAMES:
        raise ValueError(f"at most {MOST_NAMES} names, not {len(members)}")
    if len({member.wish.start for member in members}) > 1:
        raise ValueError("the names of a plan begin on one day")
    return Search(market, members).bundle()


def within_budget(
    market: Market, members: Sequence[Member], budget: int
) -> tuple[Bundle, tuple[str, ...]]:
    """The plan that keeps a budget (thousandths), and the full names left out for it: of those held
    for protection the dearest ones, as few as are enough. Where even what is used is above the
    budget, all that is held is left out.
    """
    plan = plan_bundle(market, members)
    if plan.total <= budget:
        return plan, ()
    held = [member for member in members if not member.used and member.full_name in plan.ways]
    held.sort(key=lambda m: (plan.ways[m.full_name].total, m.full_name), reverse=True)
    few, many = 0, len(held)
    plans = {0: plan}

    def without(count: int) -> Bundle:
        left_out = {member.full_name for member in held[:count]}
        if count not in plans:
            kept = [member for member in members if member.full_name not in left_out]
            plans[count] = plan_bundle(market, kept)
        return plans[count]

    while few + 1 < many:
        middle = (few + many) // 2
        if without(middle).total > budget:
            few = middle
        else:
            many = middle
    return without(many), tuple(member.full_name for member in held[:many])


def paid_by_year(market: Market, bundle: Bundle, wish: Wish) -> list[int]:
    """What falls due in each year of the horizon of `wish`, which all names of the plan share, in
    thousandths; their sum is the plan's total.
    """
    paid = [0] * wish.years
    for way in bundle.ways.values():
        for year, amount in enumerate(way.by_year(wish)):
            paid[year] += amount
        # On the first day orders are paid, not names one by one.
        paid[0] -= way.steps[0].priced.amount
    paid[0] += sum(market.amount(order) for order in bundle.orders.values())
    return paid
