"""When a name on its way out may become open: by what the registry says of it (EPP statuses, RFC
5731 and 3915) and the rules of its extension, as a range.
"""

from __future__ import annotations

import csv
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from functools import lru_cache
from importlib.resources import files
from typing import Final

from vinetag.core.concepts import Leaving

__all__ = ["LEAVING", "DropRule", "Drops", "drop_rules", "likely_drop"]

# Status words of RFC 8056, for the grace periods of RFC 3915.
REDEMPTION: Final = "redemption period"
DELETE: Final = "pending delete"
LEAVING: Final = frozenset({REDEMPTION, DELETE, "pending restore"})

DATA: Final = "drops.csv"
OTHER: Final = "*"
DAY: Final = timedelta(days=1)


@dataclass(frozen=True, slots=True)
class DropRule:
    """Days a name of an extension spends in each state at the least and the most: after it ran out,
    in redemption, and until it is released; `hour`s of a day (UTC) between which it is released.
    """

    extension: str
    grace: tuple[int, int]
    redemption: tuple[int, int]
    pending: tuple[int, int]
    hours: tuple[int, int]


@dataclass(frozen=True, slots=True)
class Drops:
    """A name may become open between two moments, aware and in UTC; `state` is where it is on its
    way; `known`: the extension's own rules say so, not what is usual.
    """

    earliest: datetime
    latest: datetime
    state: Leaving
    known: bool

    @property
    def middle(self) -> datetime:
        """The likeliest moment, if all of the range are alike."""
        return self.earliest + (self.latest - self.earliest) / 2


@lru_cache(1)
def drop_rules() -> Mapping[str, DropRule]:
    """By extension; OTHER for those that have none of their own."""
    text = files("vinetag.core.checking").joinpath(DATA).read_text("utf-8")

    def pair(row: Mapping[str, str], name: str) -> tuple[int, int]:
        low, _, high = row[name].partition("-")
        return int(low), int(high or low)

    return {
        row["extension"]: DropRule(
            row["extension"],
            pair(row, "grace"),
            pair(row, "redemption"),
            pair(row, "pending"),
            pair(row, "hours"),
        )
        for row in csv.DictReader(line for line in text.splitlines() if not line.startswith("#"))
    }


def _state(statuses: Collection[str], expires: datetime | None, now: datetime) -> Leaving | None:
    """Where it is on its way out by the status words of RFC 8056; None when it is not."""
    words = set(statuses)
    if DELETE in words:
        return "pending"
    if REDEMPTION in words:
        return "redemption"
    if "auto renew period" in words or (expires is not None and expires <= now):
        return "expired"
    return None


def likely_drop(
    extension: str,
    statuses: Collection[str],
    now: datetime,
    *,
    expires: datetime | None = None,
    changed: datetime | None = None,
) -> Drops | None:
    """When a name may become open; None when nothing says that it is on its way out. `expires` and
    `changed` as the public record has them: what is missing makes the range wider, for then the
    state may have begun at any time up to `now`. A name that has run out may be renewed at any
    moment, so its range says when it becomes open if it is not.
    """
    state = _state(statuses, expires, now)
    if state is None:
        return None
    rules = drop_rules()
    rule = rules.get(extension, rules[OTHER])
    known = extension in rules
    order: tuple[Leaving, ...] = ("expired", "redemption", "pending")
    place = order.index(state)
    try:
        begun = _begun(
            rule, order[:place], expires, expires if state == "expired" else changed, now
        )
        return _range(rule, order[place:], begun, now, known=known)
    except OverflowError:
        return None  # of dates at the end of the calendar


def _begun(
    rule: DropRule, passed: Sequence[Leaving], expires: datetime | None, changed: datetime | None,
    now: datetime,
) -> tuple[datetime, datetime] | None:  # fmt: skip
    """Between which moments the state began it is in: that of the record, or so long after it ran
    out as the states before may last. None where nothing says so.
    """
    if changed is not None and changed <= now:
        return changed, changed
    if expires is None or expires > now:
        return None
    low, high = _days(rule, passed)
    return min(now, expires + low * DAY), min(now, expires + high * DAY)


def _days(rule: DropRule, states: Sequence[Leaving]) -> tuple[int, int]:
    spans = {"expired": rule.grace, "redemption": rule.redemption, "pending": rule.pending}
    return sum(spans[one][0] for one in states), sum(spans[one][1] for one in states)


def _range(
    rule: DropRule, left: Sequence[Leaving], begun: tuple[datetime, datetime] | None, now: datetime,
    *, known: bool,
) -> Drops:  # fmt: skip
    """From the states that are left, and between which moments the first of them began."""
    least, most = _days(rule, left)
    if begun is not None:
        first, last = begun[0] + least * DAY, begun[1] + most * DAY
    else:
        # It began at some time within the longest it can last.
        first, last = now + (least - _days(rule, left[:1])[0]) * DAY, now + most * DAY
    first, last = max(first, now), max(last, now + DAY)
    return Drops(_at(first, rule.hours[0]), _at(last, rule.hours[1]), left[0], known)


def _at(moment: datetime, hour: int) -> datetime:
    """The same day at an hour; 24 is its end."""
    return moment.replace(hour=0, minute=0, second=0, microsecond=0) + timedelta(hours=hour)
