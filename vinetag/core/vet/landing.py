"""Where those land who mistype a name, and what to hold so that fewer do."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Final

from vinetag.core.concepts import Weight
from vinetag.core.names import FullName, unicode_label
from vinetag.core.vet.findings import Finding, Row
from vinetag.core.vet.mistypes import Land, Mistype, Shares, elsewhere
from vinetag.core.vet.protect import Chosen, Offer, choose

__all__ = ["held_finding", "land_of", "mistyped_finding", "protection"]

# Of a hundred who mean the name, from so many on it is a reason to think, or to stop.
THINK, STOP = 3.0, 12.0
SELDOM: Final = 1.0
# Of those who mean the name, what a euro a year must catch to be spent well: one of 3,000.
LEAST_PER_EURO: Final = 1 / 3_000
SOURCE: Final = "the registries"
HELD: Final = frozenset({"taken", "dropping"})
NOBODYS: Final = frozenset({"open", "premium", "reserved", "barred"})


def land_of(status: str) -> Land | None:
    """With whom one lands on a full name of a status, None where that is not known."""
    if status in HELD:
        return "taken"
    if status == "offered":
        return "parked"
    return "free" if status in NOBODYS else None


def mistyped_finding(
    name: FullName,
    found: Sequence[Mistype],
    statuses: Mapping[FullName, str],
    holders: Mapping[FullName, str],
    *,
    foreign: bool = False,
) -> Finding:
    """What becomes of people who mean a name; `holders` are those whom the public record names."""
    if foreign:
        return Finding("mistyped", "unknown", "mistyped_foreign", _label(name), (), SOURCE)
    lands = {n: land for n, status in statuses.items() if (land := land_of(status))}
    shares = elsewhere(found, lands)
    rows = tuple(_row(one, statuses, holders) for one in found)
    code, weight = _weighed(shares)
    taken = [one for one in found if lands.get(one.full_name) in ("taken", "parked")]
    args = {
        "full_name": name.shown,
        "whole": _hundredth(shares.whole),
        "taken": _hundredth(shares.taken + shares.parked),
        "unknown": _hundredth(shares.unknown),
        "most": taken[0].full_name.shown if taken else "",
    }
    return Finding("mistyped", weight, code, args, rows, SOURCE)


def _label(name: FullName) -> Row:
    return {"label": unicode_label(name.label)}


def _weighed(shares: Shares) -> tuple[str, Weight]:
    elsewhere_ = 100 * (shares.taken + shares.parked)
    if shares.whole and shares.unknown > shares.whole / 2:
        return "mistyped_unknown", "unknown"
    if elsewhere_ >= SELDOM:
        weight: Weight = (
            "stop" if elsewhere_ >= STOP else "think" if elsewhere_ >= THINK else "note"
        )
        return "mistyped_held", weight
    if 100 * shares.whole >= SELDOM:
        return "mistyped_open", "note"
    return "mistyped_few", "clear"


def _row(one: Mistype, statuses: Mapping[FullName, str], holders: Mapping[FullName, str]) -> Row:
    status = statuses.get(one.full_name, "unknown")
    return {
        "full_name": one.full_name.shown,
        "kind": one.kind,
        "share": round(one.share, 6),
        "status": status,
        "holder": holders.get(one.full_name, ""),
    }


def _hundredth(share: float) -> str:
    value = 100 * share
    return f"{value:.0f}" if value >= 10 else f"{value:.1f}"


def protection(
    found: Sequence[Mistype], statuses: Mapping[FullName, str], yearly: Mapping[FullName, int]
) -> list[Offer]:
    """What can be had of what people land on, the most typed first; `yearly` has what a year of
    each costs in thousandths, as far as that is known.
    """
    offers = []
    for one in found:
        price = yearly.get(one.full_name)
        open_ = statuses.get(one.full_name) in ("open", "premium")
        if open_ and price is not None and one.share * 1_000 >= price * LEAST_PER_EURO:
            offers.append(Offer(str(one.full_name), one.share, price))
    return offers


def held_finding(
    name: FullName,
    found: Sequence[Mistype],
    statuses: Mapping[FullName, str],
    offers: Sequence[Offer],
    budget: int,
    currency: str,
    *,
    priced: bool = True,
    foreign: bool = False,
) -> tuple[Finding, Chosen]:
    """What to hold within a budget a year, in thousandths of a currency. Names whose status is not
    known are not offered; `priced`: there are prices of sellers.
    """
    whole = sum(one.share for one in found)
    unknown = sum(one.share for one in found if land_of(statuses.get(one.full_name, "")) is None)
    chosen = choose(offers, budget)
    rows: tuple[Row, ...] = tuple(
        {"full_name": offer.full_name, "share": round(offer.share, 6),
         "yearly": f"{offer.yearly / 1000:.2f}", "currency": currency,
         "held": offer in chosen.offers}
        for offer in offers
    )  # fmt: skip
    args = {
        "full_name": name.shown,
        "count": len(chosen.offers),
        "budget": _money(budget, currency),
        "cost": _money(chosen.yearly, currency),
        "share": round(100 * chosen.share / whole) if whole else 0,
    }
    if foreign:
        whose = _label(name)
        return Finding("protection", "unknown", "mistyped_foreign", whose, (), SOURCE), chosen
    if whole and unknown > whole / 2:
        return Finding("protection", "unknown", "hold_unknown", args, rows, SOURCE), chosen
    if not priced:
        return Finding("protection", "unknown", "hold_no_prices", args, rows, SOURCE), chosen
    if not offers:
        return Finding("protection", "clear", "hold_none", args, rows, SOURCE), chosen
    if not chosen.offers:
        args["cost"] = _money(min(offer.yearly for offer in offers), currency)
        return Finding("protection", "note", "hold_dear", args, rows, SOURCE), chosen
    return Finding("protection", "note", "hold_some", args, rows, SOURCE), chosen


def _money(thousandths: int, currency: str) -> str:
    return f"{thousandths / 1000:,.2f} {currency}"
