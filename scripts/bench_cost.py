"""How fast costs are worked out: totals of a sheet's names, the cheapest way, and a plan.

python -m scripts.bench_cost [--names 2000]. The baseline is pricing each name by itself, without
what the market keeps; ends with a JSON object.
"""

from __future__ import annotations

import argparse
import json
import time
from collections.abc import Callable
from dataclasses import replace
from datetime import date
from decimal import Decimal

from standins.sellers import SELLERS, coupons_of, prices_of
from vinetag.core.cost import (
    Buyer,
    Market,
    Member,
    PriceList,
    Quoted,
    Wish,
    cheapest_way,
    plan_bundle,
    totals,
)
from vinetag.core.cost.bank_rates import shipped_rates
from vinetag.core.cost.coupon_files import read_coupons
from vinetag.core.cost.price_files import read_price_list
from vinetag.core.cost.seller_documents import read_sellers
from vinetag.core.extensions import shipped_catalogue

TODAY = date(2026, 11, 29)
EXTENSIONS = ("com", "net", "org", "shop", "studio", "club")
PREMIUM_EVERY = 40


def market() -> Market:
    """The six simulated sellers, for a buyer in Ireland."""
    known = {e.extension for e in shipped_catalogue()}
    entries = read_sellers({"sellers": [seller.terms() for seller in SELLERS]}).entries
    lists, coupons = {}, {}
    for entry, seller in zip(entries, SELLERS, strict=True):
        rows = read_price_list(prices_of(seller, TODAY), entry.currency, known).rows
        lists[entry.code] = PriceList(entry.code, TODAY, rows)
        found = read_coupons(coupons_of(seller, TODAY), entry.code, known)
        coupons[entry.code] = found.coupons
    sellers = {entry.code: entry.seller() for entry in entries}
    return Market(sellers, lists, coupons, shipped_rates(), Buyer("IE"), "EUR", TODAY)


def forgetful(of: Market) -> Market:
    """The same market, with nothing worked out yet."""
    return replace(of, kept={}, _known={}, _edges={})


def sheet(of: Market, names: int) -> int:
    """What each name costs over ten years under each extension at each seller; how many there are.
    Some have a price of their own.
    """
    found = 0
    for number in range(names):
        quotes = {}
        if number % PREMIUM_EVERY == 0:
            tier = Decimal(100 * (1 + number // PREMIUM_EVERY % 5))
            quotes = {"lantern": Quoted(tier, tier)}
        for extension in EXTENSIONS:
            found += sum(total is not None for total in totals(of, extension, 10, quotes).values())
    return found


def timed(work: Callable[[], object], rounds: int = 5) -> float:
    """Milliseconds of the quickest of some rounds."""
    best = float("inf")
    for _ in range(rounds):
        began = time.perf_counter()
        work()
        best = min(best, time.perf_counter() - began)
    return best * 1000


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.split("\n")[0])
    parser.add_argument("--names", type=int, default=2_000)
    args = parser.parse_args()
    of = market()
    began = time.perf_counter()
    counted = sheet(of, args.names)
    cold = (time.perf_counter() - began) * 1000
    warm = timed(lambda: sheet(of, args.names))
    few = max(1, args.names // 200)
    naive = timed(lambda: [sheet(forgetful(of), 1) for _ in range(few)], 1) * args.names / few
    wish = Wish("com", 10, TODAY)
    way = timed(lambda: cheapest_way(of, wish), 20)
    members = [
        Member(f"name{n}", Wish(EXTENSIONS[n % 4], 5, TODAY), used=n == 0) for n in range(40)
    ]
    plan = plan_bundle(of, members)
    planned = timed(lambda: plan_bundle(of, members), 3)
    print(f"totals of {args.names:,} names: {warm:.0f} ms warm, {cold:.0f} ms cold")
    print(f"cheapest way of one full name over ten years: {way:.1f} ms")
    print(f"a plan of {len(members)} full names: {planned:.0f} ms")
    print(
        json.dumps(
            {
                "totals": counted,
                "totals_warm_ms": round(warm, 1),
                "totals_cold_ms": round(cold, 1),
                "times_quicker_than_each_alone": round(naive / warm, 1),
                "way_ms": round(way, 2),
                "plan_ms": round(planned, 1),
                "plan": plan.weight,
                "bound": plan.bound,
                "within_percent": round(100 * (plan.weight / plan.bound - 1), 2),
            }
        )
    )


if __name__ == "__main__":
    main()
