"""What checking adds: answers in a project's file and on a name's page, how many are asked and
stale.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any, Final

from django.db.models import Count, Q
from django.utils import timezone
from rest_framework import serializers

from vinetag.apps.accounts.joining import Counted, Filed, Joined, Shown
from vinetag.apps.availability.api.serializers import (
    CellSerializer,
    EvidenceSerializer,
    PastAnswerSerializer,
    evidence_of,
)
from vinetag.apps.availability.catalogue import catalogue
from vinetag.apps.availability.checks import awaited
from vinetag.apps.availability.filed import AvailabilityFields, bring, write
from vinetag.apps.availability.models import Check, Lookup
from vinetag.apps.naming.models import Project
from vinetag.core.checking import LIFETIMES
from vinetag.core.names import FullName

__all__ = ["JOINED"]

MOST_PAST: Final = 200


def count(projects: Sequence[Project]) -> Mapping[str, Mapping[int, int]]:
    """Full names with an answer, those of them that are older than they last, and checks that run;
    two queries.
    """
    now = timezone.now()
    stale = Q()
    for status, lifetime in LIFETIMES.items():
        if not lifetime:
            continue  # worked out anew every time
        stale |= Q(status=status, asked_at__lt=now - lifetime)
    rows = (
        Lookup.objects.filter(project__in=projects)
        .order_by()
        .values_list("project")
        .annotate(asked=Count("id"), stale=Count("id", filter=stale))
    )
    answers = list(rows)
    active = Check.objects.filter(project__in=projects, state__in=Check.ACTIVE).order_by()
    return {
        "asked": {project: asked for project, asked, _ in answers},
        "stale": {project: old for project, _, old in answers},
        "checking": dict(active.values_list("project").annotate(count=Count("id"))),
    }


def show(project: Project, label: str) -> dict[str, Any]:
    """What is known of a name under each extension, who said so, and what was so before."""
    cells = _cells_with_evidence(project, label)
    history = project.past_answers.filter(label=label).order_by("-asked_at")[:MOST_PAST]
    return {"cells": cells, "evidence": evidence_of(cells), "history": list(history)}


def _cells_with_evidence(project: Project, label: str) -> list[Lookup]:
    """All that is known of a name, and what of it is being asked."""
    found = {row.extension: row for row in project.lookups.filter(label=label)}
    extensions = {*project.brief["extensions"], *(entry.extension for entry in catalogue())}
    for name in awaited(project, {FullName(label, e) for e in extensions}):
        fresh = Lookup(project=project, label=label, extension=name.extension)
        found.setdefault(name.extension, fresh).pending = True
    return [found[extension] for extension in sorted(found)]


JOINED = Joined(
    filed=Filed(AvailabilityFields, write, bring),
    counted=Counted(
        {
            "asked": serializers.IntegerField(help_text="Full names with an answer"),
            "stale": serializers.IntegerField(help_text="Of these, answers older than they last"),
            "checking": serializers.BooleanField(),
        },
        count,
    ),
    shown=Shown(
        {
            "cells": CellSerializer(many=True),
            "evidence": EvidenceSerializer(many=True, help_text="What each source said, as asked"),
            "history": PastAnswerSerializer(
                many=True, help_text="What was so before, the latest first"
            ),
        },
        show,
    ),
)
