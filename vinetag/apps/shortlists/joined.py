"""What the shortlist adds: itself in a project's file, how many are kept, what a kept name has."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from django.db.models import Count
from rest_framework import serializers

from vinetag.apps.accounts.joining import Counted, Filed, Joined, Shown
from vinetag.apps.naming.models import Project
from vinetag.apps.shortlists.filed import ShortlistFields, bring, write
from vinetag.apps.shortlists.models import Entry
from vinetag.apps.shortlists.services import entries

__all__ = ["JOINED"]


def count(projects: Sequence[Project]) -> Mapping[str, Mapping[int, int]]:
    """Names kept, by project; one query."""
    rows = Entry.objects.filter(project__in=projects, removed_at=None).order_by()
    return {"kept": dict(rows.values_list("project").annotate(count=Count("id")))}


def show(project: Project, label: str) -> dict[str, Any]:
    """What is kept with a name, and its place in the shortlist, from 1."""
    kept = list(entries(project))
    at = next((i for i, entry in enumerate(kept) if entry.label == label), None)
    if at is None:
        return {"kept": False, "extension": "", "note": "", "tags": [], "place": None}
    entry = kept[at]
    return {
        "kept": True,
        "extension": entry.extension,
        "note": entry.note,
        "tags": entry.tags,
        "place": at + 1,
    }


JOINED = Joined(
    filed=Filed(ShortlistFields, write, bring),
    counted=Counted({"kept": serializers.IntegerField()}, count),
    shown=Shown(
        {
            "kept": serializers.BooleanField(),
            "extension": serializers.CharField(allow_blank=True),
            "note": serializers.CharField(allow_blank=True),
            "tags": serializers.ListField(child=serializers.CharField()),
            "place": serializers.IntegerField(
                allow_null=True, help_text="In the shortlist, from 1"
            ),
        },
        show,
    ),
    words={"not_kept": "“{value}” is not on the shortlist."},
)
