"""Which extensions to prefer, for a country, a kind of work and a budget, and why."""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal
from typing import Final

from vinetag.core.extensions.catalogue import WORKS, Catalogue, Entry
from vinetag.core.extensions.eligibility import COUNTRIES, EU, eligible

__all__ = ["Proposed", "propose"]

EVERYWHERE: Final = 30.0
HOME: Final = 34.0
HOME_USUAL: Final = 36.0
AREA: Final = 14.0
SUITS: Final = 22.0
SUITS_ANY: Final = 6.0
SHORT: Final = 1.0
UNSURE_WHETHER: Final = 12.0
DEAR: Final = 0.12
FOREIGN: Final = 16.0


@dataclass(frozen=True, slots=True)
class Proposed:
    """One extension with what speaks for it, and against."""

    entry: Entry
    points: float
    reasons: tuple[str, ...]


def propose(
    catalogue: Catalogue,
    *,
    country: str = "",
    work: str = "any",
    budget: Decimal | None = None,
    kind: str = "",
    limit: int = 12,
) -> list[Proposed]:
    """The extensions that suit best, the best first, at most `limit`.

    `country` is where the people to be reached are, also taken as the owner's; `work` a key of
    WORKS; `budget` the most a year may cost, in euros. Extensions the owner may not have, and those
    over the budget, are left out. Points: what people there type, then what suits the work, less
    for the price.
    """
    found = [p for e in catalogue if (p := _weigh(e, country, work, budget, kind))]
    return sorted(found, key=lambda p: (-p.points, p.entry.extension))[:limit]


def _weigh(
    entry: Entry, country: str, work: str, budget: Decimal | None, kind: str
) -> Proposed | None:
    may = eligible(entry.eligibility, country, kind)
    if may.may == "no" or (
        budget is not None and entry.yearly is not None and entry.yearly > budget
    ):
        return None
    points, reasons = 0.0, []
    if entry.extension == "com":
        points += EVERYWHERE
        reasons.append("What people type first, wherever they are.")
    suits = work in entry.works or "any" in entry.works
    if entry.country and entry.country == country and suits:
        points += HOME_USUAL if entry.kind == "second-level" else HOME
        reasons.append(f"Shows that it is at home in {COUNTRIES[country]}.")
    elif entry.extension == "eu" and country in EU:
        points += AREA
        reasons.append("Shows that it is at home in the European Union.")
    elif entry.kind == "second-level":
        return None
    elif entry.country and (work == "any" or work not in entry.works):
        points -= FOREIGN
    if work != "any" and work in entry.works:
        points += SUITS / (1 if len(entry.works) < 3 else 1.3)
        reasons.append(f"Chosen for {WORKS[work]}: {entry.use[0].lower()}{entry.use[1:]}")
    elif "any" in entry.works:
        points += SUITS_ANY
    if entry.kind == "generic":
        points += SUITS_ANY
    points -= SHORT * max(0, len(entry.extension) - 4)
    if entry.yearly is None:
        reasons.append("What a year costs is not known.")
    else:
        points -= DEAR * min(float(entry.yearly), 150.0)
        if budget is not None:
            reasons.append(f"About €{entry.yearly:,.0f} a year, within your €{budget:,.0f}.")
    if may.may == "ask":
        points -= UNSURE_WHETHER
        reasons.append(may.sentence)
    elif entry.eligibility != "open":
        reasons.append(may.sentence)
    return Proposed(entry, round(points, 2), tuple(reasons or [entry.use]))
