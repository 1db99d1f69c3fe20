"""How fast names like one go: from what this installation has seen of all names it follows."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from django.db.models import QuerySet
from django.db.models.functions import Length

from vinetag.apps.availability.models import Lookup
from vinetag.core.names import unicode_label

__all__ = ["GoingLike", "going_like"]

# Letters that are alike: from each to before the next.
LENGTHS: Final = (1, 4, 6, 8, 11, 15, 64)
MOST: Final = 50_000
DAY: Final = 86_400


@dataclass(frozen=True, slots=True)
class GoingLike:
    """Of `names` like it that were open, the share taken within `days`, from 0 to 1, with its
    range; which names: under its `extension` ("" for all), with so many letters.
    """

    days: int
    share: float
    low: float
    high: float
    names: int
    extension: str
    letters_from: int
    letters_to: int


def going_like(label: str, extension: str) -> list[GoingLike]:
    """After 7, 30 and 90 days, as far as names were followed; of names under the same extension
    where enough of them were, else under any. Nothing where too few were.
    """
    # Only who asks needs what it is worked out with.
    from vinetag.core.market.going import Seen, going

    letters = len(unicode_label(label).replace("-", ""))
    place = next(n for n in range(len(LENGTHS)) if letters < LENGTHS[n + 1])
    low, high = LENGTHS[place], LENGTHS[place + 1] - 1
    rows = (
        Lookup.objects.filter(open_since__isnull=False, imported=False)
        .annotate(letters=Length("label"))
        .filter(letters__gte=low, letters__lte=high)
    )
    for which, those in ((extension, rows.filter(extension=extension)), ("", rows)):
        found = going([Seen(days, taken) for days, taken in _followed(those)])
        if found:
            return [
                GoingLike(g.days, g.share, g.low, g.high, g.names, which, low, high) for g in found
            ]
    return []


def _followed(rows: QuerySet[Lookup]) -> list[tuple[float, bool]]:
    """For how many days each was followed, and whether it was taken then: a full name once,
    whichever project asked.
    """
    found: dict[tuple[str, str], tuple[float, bool]] = {}
    fields = ("label", "extension", "open_since", "open_until", "asked_at")
    for label, extension, since, until, asked in rows.values_list(*fields)[:MOST]:
        days = ((until or asked or since) - since).total_seconds() / DAY
        before = found.get((label, extension))
        if before is None or days > before[0]:
            found[label, extension] = days, until is not None
    return list(found.values())
