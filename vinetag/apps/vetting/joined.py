"""What vetting adds: findings in a project's file, and what weighs on a name's page."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from django.db.models import Count
from rest_framework import serializers

from vinetag.apps.accounts.joining import Counted, Filed, Joined, Shown
from vinetag.apps.naming.models import Project
from vinetag.apps.vetting.api.serializers import GlanceSerializer, glances
from vinetag.apps.vetting.filed import VettingFields, bring, write
from vinetag.apps.vetting.models import Vetting
from vinetag.apps.vetting.reports import known_of

__all__ = ["JOINED"]


def count(projects: Sequence[Project]) -> Mapping[str, Mapping[int, int]]:
    """Projects whose names are being vetted; one query."""
    active = Vetting.objects.filter(project__in=projects, state__in=Vetting.ACTIVE).order_by()
    return {"vetting": dict(active.values_list("project").annotate(count=Count("id")))}


def show(project: Project, label: str) -> dict[str, Any]:
    """What was found of a name, kind by kind."""
    return {"vetted": glances(known_of(project, [label]).get(label, {}))}


JOINED = Joined(
    filed=Filed(VettingFields, write, bring),
    counted=Counted({"vetting": serializers.BooleanField()}, count),
    shown=Shown({"vetted": GlanceSerializer(many=True)}, show),
)
