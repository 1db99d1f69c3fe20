"""Where each of a person's projects stands."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from django.db.models import Count, Exists, OuterRef, Q

from vinetag.apps.accounts.joining import joined
from vinetag.apps.accounts.models import User
from vinetag.apps.availability.models import Lookup
from vinetag.apps.naming.models import Candidate, Dismissed, Project
from vinetag.apps.naming.services import own_projects
from vinetag.core.make.listing import GOOD_ENOUGH

__all__ = ["Standing", "standings"]


@dataclass(frozen=True, slots=True)
class Standing:
    """The funnel of a project, and what the apps count of it."""

    project: Project
    listed: int
    good: int
    open: int
    joined: Mapping[str, int]


def standings(owner: User) -> Sequence[Standing]:
    """All projects of the person, the last changed first; six queries, however many there are."""
    projects = list(own_projects(owner))
    gone = Dismissed.objects.filter(project=OuterRef("project"), label=OuterRef("label"))
    shown = Candidate.objects.filter(~Exists(gone), project__in=projects).order_by()
    listed = {
        project: (count, good)
        for project, count, good in shown.values_list("project").annotate(
            listed=Count("id"), good=Count("id", filter=Q(grade__gte=GOOD_ENOUGH))
        )
    }
    # As the sheet counts them: listed names that are open under an extension of the brief.
    mine = Q()
    for p in projects:
        mine |= Q(project=p, extension__in=p.brief["extensions"])
    free = Lookup.objects.filter(mine, status="open", project=OuterRef("project"))
    is_open = Exists(free.filter(label=OuterRef("label")))
    opened = dict(shown.filter(is_open).values_list("project").annotate(count=Count("id")))
    counts = [one.counted.count(projects) for one in joined() if one.counted]
    return [
        Standing(
            p,
            *listed.get(p.pk, (0, 0)),
            opened.get(p.pk, 0),
            {name: by.get(p.pk, 0) for counted in counts for name, by in counted.items()},
        )
        for p in projects
    ]
