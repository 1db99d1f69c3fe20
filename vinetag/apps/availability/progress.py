"""How far a check is, and the answers since a moment."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import timedelta

from django.db.models import Count
from django.utils import timezone

from vinetag.apps.availability.checks import awaited, latest_check
from vinetag.apps.availability.models import Check, Lookup
from vinetag.apps.naming.models import Project
from vinetag.core.names import FullName

__all__ = ["SEEN_AT_ONCE", "Progress", "Watched", "cells_of", "progress", "watch"]

SEEN_AT_ONCE = 1_000
# Seconds: over how many the rate is measured, and after how many it is told.
RATE_OVER = 10.0
RATE_AFTER = 3.0


@dataclass(frozen=True, slots=True)
class Progress:
    """How far a check is. `left` can be gone on with when it was stopped; `rate` is answers a
    second of late, None while that cannot be said; `troubles` counts its unsure
    answers by why they are.
    """

    check: Check
    done: int
    left: int
    unsure: int
    troubles: Mapping[str, int]
    rate: float | None


@dataclass(frozen=True, slots=True)
class Watched:
    """The last check, if any; the answers after a number, in order; the number to ask from next."""

    check_run: Progress | None
    cells: Sequence[Lookup]
    number: int
    more: bool


def progress(check: Check) -> Progress:
    """How far the check is."""
    answers = Lookup.objects.filter(check_run=check)
    ended = check.state == Check.State.DONE
    done = check.total if ended else min(check.total, answers.count())
    end = check.ended_at or timezone.now()
    seconds = (end - check.began_at).total_seconds()
    troubles = dict(
        answers.filter(status="unsure", trouble__gt="")
        .order_by()
        .values_list("trouble")
        .annotate(count=Count("id"))
    )
    # What is asked takes a moment to begin, and goes slower and faster: the last seconds tell.
    window = min(RATE_OVER, seconds)
    since = end - timedelta(seconds=window)
    recent = answers.filter(asked_at__gte=since).count() if seconds >= RATE_AFTER else 0
    rate = recent / window if recent else None
    return Progress(check, done, check.total - done, sum(troubles.values()), troubles, rate)


def cells_of(project: Project, names: Sequence[FullName]) -> dict[str, list[Lookup]]:
    """What is known of the names by label, without evidence; those an active check is still to
    answer are marked as pending, with a cell that waits where nothing is known.
    """
    wanted = set(names)
    waiting = awaited(project, wanted)
    cells: dict[str, list[Lookup]] = {}
    rows = project.lookups.filter(
        label__in={name.label for name in names}, extension__in={name.extension for name in names}
    )
    for row in rows.defer("evidence"):
        name = FullName(row.label, row.extension)
        if name in wanted:
            row.pending = name in waiting
            waiting -= {name}
            cells.setdefault(row.label, []).append(row)
    for name in sorted(waiting):
        row = Lookup(project=project, label=name.label, extension=name.extension)
        row.pending = True
        cells.setdefault(name.label, []).append(row)
    return cells


def watch(project: Project, number: int | None) -> Watched:
    """The last check, and the answers after `number`, up to SEEN_AT_ONCE; None for no answers, only
    where to begin.
    """
    check = latest_check(project)
    latest = progress(check) if check else None
    if number is None:
        return Watched(latest, (), Project.objects.get(pk=project.pk).answers, False)
    rows = project.lookups.filter(number__gt=number).defer("evidence").order_by("number")
    cells = list(rows[:SEEN_AT_ONCE])
    last = cells[-1].number if cells else number
    return Watched(latest, cells, last, len(cells) == SEEN_AT_ONCE)
