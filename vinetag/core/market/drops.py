"""When a name on its way out may become open: by what the registry says of it (EPP statuses, RFC
5731 and 3915) and the rules of its extension, as a range.
"""

from __future__ import annotations

import csv
from collections.abc import Collection, Mapping
from dataclasses import dataclass
from datetime import datetime, timedelta
from functools import lru_cache
from importlib.resources import files
from typing import Final

from vinetag.core.concepts import Leaving

__all__ = ["DropRule", "Drops", "drop_rules", "likely_drop"]

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
    text = files("vinetag.core.market").joinpath(DATA).read_text("utf-8")

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
    if "pending delete" in words:
        return "pending"
    if "redemption period" in words:
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
    spans = {"expired": rule.grace, "redemption": rule.redemption, "pending": rule.pending}
    order: tuple[Leaving, ...] = ("expired", "redemption", "pending")
    begun = expires if state == "expired" else changed
    left = order[order.index(state) :]
    least = sum((spans[one][0] for one in left), start=0)
    most = sum((spans[one][1] for one in left), start=0)
    if begun is not None and begun <= now:
        first, last = begun + least * DAY, begun + most * DAY
    else:
        # It began at some time within the longest it can last.
        first, last = now + (least - spans[state][0]) * DAY, now + most * DAY
    first, last = max(first, now), max(last, now + DAY)
    return Drops(_at(first, rule.hours[0]), _at(last, rule.hours[1]), state, known)


def _at(moment: datetime, hour: int) -> datetime:
    """The same day at an hour; 24 is its end."""
    return moment.replace(hour=0, minute=0, second=0, microsecond=0) + timedelta(hours=hour)
