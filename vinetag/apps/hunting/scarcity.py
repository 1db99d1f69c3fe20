"""How many short names are left under an extension, from one zone file to the next."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from vinetag.apps.market.models import SnapshotRow
from vinetag.core.market.short_names import shape_size

__all__ = ["Scarcity", "scarcity"]


@dataclass(frozen=True, slots=True)
class Scarcity:
    """Of all names of a shape (a to z) under an extension how many were not there on each of the
    days; and the day at which half are gone if it goes on so, with its range, where that can be
    said.
    """

    extension: str
    shape: str
    whole: int
    days: Sequence[date]
    free: Sequence[int]
    projected: bool
    half_gone: date | None
    earliest: date | None
    latest: date | None


def scarcity(shape: str) -> list[Scarcity]:
    """By extension, all of which there are snapshots; `shape` of C and V, or of ? alone."""
    # Only who asks needs what it is worked out with.
    from vinetag.core.market.going import half_gone

    whole = shape_size(shape)
    if not whole or ("?" in shape and set(shape) != {"?"}):
        return []
    found = []
    by_extension: dict[str, list[tuple[date, int]]] = {}
    for row in SnapshotRow.objects.order_by("extension", "day"):
        if shape in row.short:
            by_extension.setdefault(row.extension, []).append((row.day, int(row.short[shape])))
    for extension, points in by_extension.items():
        days, taken = [day for day, _ in points], [count for _, count in points]
        half = half_gone(days, taken, whole)
        found.append(
            Scarcity(
                extension, shape, whole, days, [whole - count for count in taken],
                half is not None,
                half.day if half else None, half.earliest if half else None,
                half.latest if half else None,
            )
        )  # fmt: skip
    return found
