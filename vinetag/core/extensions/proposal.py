"""Which extensions to prefer, for a country, a kind of work and a budget, and why."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from decimal import Decimal
from typing import Final, NamedTuple

from vinetag.core.extensions.catalogue import WORKS, Catalogue, Entry
from vinetag.core.extensions.eligibility import COUNTRIES, EU, eligible

__all__ = ["Costing", "Means", "Proposed", "propose"]

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


class Costing(NamedTuple):
    """What an extension costs by sellers' lists, in euros: the first year, each later one (None
    where that is not known), and all the years a name is kept; `seller` is where.
    """

    first: Decimal
    later: Decimal | None
    whole: Decimal
    seller: str

    @property
    def dearest(self) -> Decimal:
        """The dearest year."""
        return max(self.first, self.later or self.first)


@dataclass(frozen=True)
class Means:
    """The most a year may cost, and all the `years` together, in euros, None for no limit; what
    extensions cost by sellers' lists, as far as that is known.
    """

    budget: Decimal | None = None
    whole: Decimal | None = None
    years: int = 5
    costs: Mapping[str, Costing] = field(default_factory=dict)


NO_LIMIT: Final = Means()


def propose(
    catalogue: Catalogue,
    *,
    country: str = "",
    work: str = "any",
    means: Means = NO_LIMIT,
    kind: str = "",
    limit: int = 12,
) -> list[Proposed]:
    """The extensions that suit best, the best first, at most `limit`.

    `country` is where the people to be reached are, also taken as the owner's; `work` a key of
    WORKS. Extensions the owner may not have, and those over what they mean to spend, are left out:
    by sellers' lists where there are any, by the catalogue's guide elsewhere. Points: what people
    there type, then what suits the work, less for the price.
    """
    found = [p for e in catalogue if (p := _weigh(e, country, work, means, kind))]
    return sorted(found, key=lambda p: (-p.points, p.entry.extension))[:limit]


def _is_over(entry: Entry, means: Means) -> bool:
    cost = means.costs.get(entry.extension)
    year = cost.dearest if cost else entry.yearly
    if year is None:
        return False
    whole = cost.whole if cost else year * means.years
    return (means.budget is not None and year > means.budget) or (
        means.whole is not None and whole > means.whole
    )


def _weigh(entry: Entry, country: str, work: str, means: Means, kind: str) -> Proposed | None:
    may = eligible(entry.eligibility, country, kind)
    if may.may == "no" or _is_over(entry, means):
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
    cost = means.costs.get(entry.extension)
    year = cost.dearest if cost else entry.yearly
    reasons += _prices(entry, means)
    if year is not None:
        points -= DEAR * min(float(year), 150.0)
    if may.may == "ask":
        points -= UNSURE_WHETHER
        reasons.append(may.sentence)
    elif entry.eligibility != "open":
        reasons.append(may.sentence)
    return Proposed(entry, round(points, 2), tuple(reasons or [entry.use]))


def _prices(entry: Entry, means: Means) -> list[str]:
    """What it costs, and that this is within what may be spent."""
    cost = means.costs.get(entry.extension)
    found = []
    if cost:
        later = "" if cost.later is None else f", then €{cost.later:,.2f} a year"
        found.append(
            f"€{cost.first:,.2f} the first year{later}; "
            f"€{cost.whole:,.2f} over {means.years} years, staying with {cost.seller}."
        )
    elif entry.yearly is None:
        found.append("What a year costs is not known.")
    elif means.budget is not None or means.whole is not None:
        found.append(f"About €{entry.yearly:,.0f} a year.")
    limits = [
        f"€{limit:,.0f} {span}"
        for limit, span in ((means.budget, "a year"), (means.whole, f"over {means.years} years"))
        if limit is not None
    ]
    if limits and (cost or entry.yearly is not None):
        found.append(f"Within your {' and '.join(limits)}.")
    return found
