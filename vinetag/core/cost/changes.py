"""What changed between two versions of a price list."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from datetime import date
from decimal import Decimal
from typing import Literal, NamedTuple

from vinetag.core.cost.prices import Action, PriceList, PriceRow
from vinetag.core.cost.sellers import LONGEST_AHEAD

__all__ = ["PriceChange", "changes_between"]

ChangeKind = Literal["rose", "fell", "came", "went"]


class PriceChange(NamedTuple):
    """That a price rose or fell, or that a seller began or ceased to offer something; for terms of
    `years_from` to `years_to` years. `before` and `after` are for a year of the shortest of them,
    None where it was not offered.
    """

    kind: ChangeKind
    extension: str
    action: Action
    years_from: int
    years_to: int
    before: Decimal | None
    after: Decimal | None


def changes_between(
    earlier: PriceList, later: PriceList, on: date, until: date | None = None
) -> list[PriceChange]:
    """What somebody who buys at the usual price pays differently, by the earlier list on the day
    `on` and by the later on the day `until` (the same, unless given). Promotions come and go, and
    are no change; terms in a row that change alike are told once.
    """
    found: list[PriceChange] = []
    for extension, action in sorted({*_offered(earlier.rows), *_offered(later.rows)}):
        found += _together(extension, action, _of(earlier, extension, action, on),
                           _of(later, extension, action, until or on))  # fmt: skip
    return found


def _offered(rows: Iterable[PriceRow]) -> Iterator[tuple[str, Action]]:
    return ((row.extension, row.action) for row in rows)


def _of(listed: PriceList, extension: str, action: Action, on: date) -> list[Decimal | None]:
    """The price of a year, by the years of the term."""
    prices: list[Decimal | None] = []
    for years in range(1, LONGEST_AHEAD + 1):
        row = listed.find(extension, action, years, on)
        # What is not listed for an extension may be for all of them, and is told of there.
        own = row is not None and row.extension == extension
        prices.append(row.of(years) / years if row is not None and own else None)
    return prices


def _together(
    extension: str, action: Action, before: list[Decimal | None], after: list[Decimal | None]
) -> Iterator[PriceChange]:
    place = 0
    while place < len(before):
        last = place
        same = (before[place], after[place])
        while last + 1 < len(before) and (before[last + 1], after[last + 1]) == same:
            last += 1
        one, other = same
        if one != other:
            kind: ChangeKind
            if one is None or other is None:
                kind = "came" if one is None else "went"
            else:
                kind = "rose" if other > one else "fell"
            yield PriceChange(kind, extension, action, place + 1, last + 1, one, other)
        place = last + 1
