"""Where each of a person's projects stands."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from django.db.models import Count, Exists, OuterRef, Q
from django.utils import timezone

from vinetag.apps.accounts.models import User
from vinetag.apps.availability.models import Check, Lookup
from vinetag.apps.naming.models import Candidate, Dismissed, Project
from vinetag.apps.naming.services import own_projects
from vinetag.apps.shortlists.models import Entry
from vinetag.core.checking import LIFETIMES
from vinetag.core.make.planner import GOOD_ENOUGH

__all__ = ["Standing", "standings"]


@dataclass(frozen=True, slots=True)
class Standing:
    """The funnel of a project, whether a check is running, and how many of its answers are older
    than they last.
    """

    project: Project
    listed: int
    good: int
    kept: int
    open: int
    asked: int
    stale: int
    checking: bool


def standings(owner: User) -> Sequence[Standing]:
    """All projects of the person, the last changed first; six queries, however many there are."""
    projects = list(own_projects(owner))
    pks = [p.pk for p in projects]
    now = timezone.now()
    gone = Dismissed.objects.filter(project=OuterRef("project"), label=OuterRef("label"))
    shown = Candidate.objects.filter(~Exists(gone), project__in=pks).order_by().values("project")
    listed: dict[int, dict[str, Any]] = {
        row["project"]: {**row}
        for row in shown.annotate(
            listed=Count("id"), good=Count("id", filter=Q(grade__gte=GOOD_ENOUGH))
        )
    }
    # As the sheet counts them: listed names that are open under an extension of the brief.
    mine = Q()
    for p in projects:
        mine |= Q(project=p, extension__in=p.brief["extensions"])
    free = Lookup.objects.filter(mine, status="open", project=OuterRef("project"))
    is_open = Exists(free.filter(label=OuterRef("label")))
    opened = _counted(shown.filter(is_open)) if projects else {}
    kept = _counted(Entry.objects.filter(project__in=pks, removed_at=None))
    stale = Q()
    for status, lifetime in LIFETIMES.items():
        if not lifetime:
            continue  # worked out anew every time
        stale |= Q(status=status, asked_at__lt=now - lifetime)
    answers: dict[int, dict[str, Any]] = {
        row["project"]: {**row}
        for row in Lookup.objects.filter(project__in=pks)
        .order_by()
        .values("project")
        .annotate(
            asked=Count("id"),
            stale=Count("id", filter=stale),
        )
    }
    active = Check.objects.filter(project__in=pks, state__in=Check.ACTIVE)
    running = set(active.values_list("project", flat=True))
    return [
        Standing(
            project=p,
            listed=listed.get(p.pk, {}).get("listed", 0),
            good=listed.get(p.pk, {}).get("good", 0),
            kept=kept.get(p.pk, 0),
            open=opened.get(p.pk, 0),
            asked=answers.get(p.pk, {}).get("asked", 0),
            stale=answers.get(p.pk, {}).get("stale", 0),
            checking=p.pk in running,
        )
        for p in projects
    ]


def _counted(rows: Any) -> dict[int, int]:
    return dict(rows.order_by().values_list("project").annotate(count=Count("id")))
