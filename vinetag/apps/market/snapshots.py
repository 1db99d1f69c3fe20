"""Snapshots of zones: brought or fetched, counted, and asked which names were delegated."""

from __future__ import annotations

import asyncio
import shutil
from collections.abc import Callable, Iterable, Mapping
from datetime import UTC, date, datetime, time, timedelta
from functools import lru_cache
from pathlib import Path
from typing import Final

import numpy as np
import numpy.typing as npt
from django.conf import settings
from django.core.cache import cache
from django.utils import timezone

from vinetag.apps.market.lists import lake, workshop
from vinetag.apps.market.models import SnapshotRow
from vinetag.core.errors import Problem
from vinetag.core.market.short_names import shape_counts
from vinetag.core.names import FullName
from vinetag.lake.duck import open_duck, shared_duck
from vinetag.lake.unpacking import FeedError
from vinetag.lake.zones import delegated, short_bits, snapshot_folder, write_snapshot
from vinetag.lookup.zones import FoundZones, fetch_zones

__all__ = [
    "bits_of", "bring_zone", "delegated_names", "followed_in_zones", "latest_days",
    "refresh_zones", "zones_due",
]  # fmt: skip

FIRST_DAY: Final = date(1985, 1, 1)
# Days of each extension whose names are kept; figures of earlier ones stay.
KEPT_DAYS: Final = 8
EVERY: Final = timedelta(hours=6)
AGAIN: Final = timedelta(minutes=20)
UNDER_WAY: Final = "zones-under-way"
ASKED: Final = "zones-asked"
LONGEST_REFRESH: Final = 7_200


def zones_folder() -> Path:
    """Where snapshots stand."""
    return lake() / "zones"


def bring_zone(
    extension: str, day: date, file: Path, on_step: Callable[[str], None] = lambda _: None
) -> SnapshotRow:
    """Keep the delegated names of a zone file. Raises FeedError; then what there was stays."""
    if not FIRST_DAY <= day <= timezone.now().date() + timedelta(days=1):
        raise FeedError(Problem("day", "zone_day", {"value": day.isoformat()}))
    with workshop() as work, open_duck(work) as duck:
        found = write_snapshot(duck, file, extension, day, zones_folder(), on_step)
    bits = short_bits(zones_folder(), extension, day)
    row, _ = SnapshotRow.objects.update_or_create(
        extension=extension, day=day,
        defaults={"names": found.names, "short": shape_counts(bits), "brought_at": timezone.now()},
    )  # fmt: skip
    _forget_old(extension)
    return row


def _forget_old(extension: str) -> None:
    rows = SnapshotRow.objects.filter(extension=extension, there=True).order_by("-day")
    for row in rows[KEPT_DAYS:]:
        SnapshotRow.objects.filter(pk=row.pk).update(there=False)
        shutil.rmtree(snapshot_folder(zones_folder(), extension, row.day), ignore_errors=True)


def latest_days() -> dict[str, date]:
    """The newest snapshot there is, by extension."""
    found: dict[str, date] = {}
    for extension, day in (
        SnapshotRow.objects.filter(there=True).order_by("day").values_list("extension", "day")
    ):
        found[extension] = day
    return found


def taken_at(day: date) -> datetime:
    """The moment a snapshot of a day stands for: its end, or now while that is to come."""
    end = datetime.combine(day, time.max, UTC)
    return min(end, timezone.now())


def delegated_names(names: Iterable[FullName]) -> Mapping[FullName, tuple[bool, date]]:
    """Of those names whose extension has a snapshot: whether it had them, and of which day."""
    days = latest_days()
    by_extension: dict[str, set[str]] = {}
    for name in names:
        if name.extension in days:
            by_extension.setdefault(name.extension, set()).add(name.label)
    if not by_extension:
        return {}
    with shared_duck() as duck:
        found = delegated(duck, zones_folder(), days, by_extension)
    return {
        FullName(label, extension): (label in found.get(extension, ()), days[extension])
        for extension, labels in by_extension.items()
        for label in labels
    }


def followed_in_zones(
    extension: str, asked: Mapping[str, datetime]
) -> Mapping[str, tuple[datetime, bool]]:
    """Of labels that were open when they were `asked` about: until which later snapshot each was
    followed, and whether that had it. Labels no later snapshot tells of are missing.
    """
    days = SnapshotRow.objects.filter(extension=extension, there=True).order_by("day")
    found: dict[str, tuple[datetime, bool]] = {}
    with shared_duck() as duck:
        for day in days.values_list("day", flat=True):
            at = taken_at(day)
            # A zone file of the very day may be older than the answer.
            left = {
                label
                for label, before in asked.items()
                if before.date() < day and not found.get(label, (at, False))[1]
            }
            if not left:
                continue
            had = delegated(duck, zones_folder(), {extension: day}, {extension: left})
            taken = had.get(extension, set())
            found |= {label: (at, label in taken) for label in left}
    return found


def bits_of(extension: str, day: date) -> npt.NDArray[np.bool_]:
    """By number, whether a short name was delegated on the day."""
    # A zone file of the same day may have been brought again.
    brought = snapshot_folder(zones_folder(), extension, day).stat().st_mtime_ns
    return _bits_of(extension, day, brought)


@lru_cache(6)
def _bits_of(extension: str, day: date, _brought: int) -> npt.NDArray[np.bool_]:
    return short_bits(zones_folder(), extension, day)


def zones_due() -> bool:
    """Whether the zones of the settings are to be asked for again."""
    return bool(settings.LOOKUP.zones) and cache.get(ASKED) is None


def refresh_zones() -> FoundZones | None:
    """Fetch the zone files that are new, and keep their names. None when somebody else is at it."""
    if not cache.add(UNDER_WAY, 1, LONGEST_REFRESH):
        return None
    try:
        known = set(SnapshotRow.objects.values_list("extension", "day"))
        found = asyncio.run(fetch_zones(settings.LOOKUP, lake() / "inbox", known))
        for (extension, day), file in found.files.items():
            try:
                bring_zone(extension, day, file)
            except FeedError as error:
                found.troubles[extension] = str(error)[:300]
            file.unlink(missing_ok=True)
        cache.set(ASKED, 1, (AGAIN if found.troubles else EVERY).total_seconds())
        return found
    finally:
        cache.delete(UNDER_WAY)
