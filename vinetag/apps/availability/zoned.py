"""What zone files tell of names before anybody is asked: all of a project at once."""

from __future__ import annotations

from collections.abc import Collection, Mapping
from datetime import UTC, datetime
from typing import Final

from django.utils import timezone

from vinetag.apps.availability.models import LastAnswer
from vinetag.apps.market.snapshots import delegated_names, taken_at
from vinetag.core.checking import LIFETIMES, Evidence
from vinetag.core.names import FullName
from vinetag.lookup import Answer

__all__ = ["answers_by_zone", "evidence_by_zone"]

# As long as a registry's word that a name is taken.
HOLDS: Final = LIFETIMES["taken"]


def evidence_by_zone(names: Collection[FullName]) -> Mapping[FullName, Evidence]:
    """What the newest snapshots say of those names they cover; they are of their day, and say
    nothing against a name being registered.
    """
    found = {}
    for name, (there, day) in delegated_names(names).items():
        says = "delegated" if there else "absent"
        address = f"{name.extension} zone of {day.isoformat()}"
        found[name] = Evidence("zone", says, taken_at(day), address)  # type: ignore[arg-type]
    return found


def answers_by_zone(
    evidence: Mapping[FullName, Evidence], not_before: datetime | None
) -> list[Answer]:
    """Answers about names that were delegated so lately that nobody has to be asked: as old as the
    snapshot. Where something younger is known, and where answers from before `not_before` do not
    count, it has to be asked.
    """
    since = max(timezone.now() - HOLDS, not_before or datetime.min.replace(tzinfo=UTC))
    taken = {n: e for n, e in evidence.items() if e.says == "delegated" and e.at >= since}
    younger = {
        FullName(row.label, row.extension): row.asked_at
        for row in LastAnswer.objects.filter(
            label__in={name.label for name in taken},
            extension__in={name.extension for name in taken},
        ).only("label", "extension", "asked_at")
    }
    return [
        Answer(name, "taken", one.at, evidence=(one,))
        for name, one in taken.items()
        if (known := younger.get(name)) is None or known <= one.at
    ]
