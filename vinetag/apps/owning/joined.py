"""What owning adds: under which extensions a name is owned."""

from __future__ import annotations

from typing import Any

from rest_framework import serializers

from vinetag.apps.accounts.joining import Joined, Shown
from vinetag.apps.naming.models import Project
from vinetag.apps.owning.models import OwnedName

__all__ = ["JOINED"]


def show(project: Project, label: str) -> dict[str, Any]:
    """Whatever it was put on the list by."""
    rows = OwnedName.objects.filter(owner=project.owner_id, left_at=None, label=label)
    return {"owned": sorted(rows.values_list("extension", flat=True))}


JOINED = Joined(
    shown=Shown(
        {
            "owned": serializers.ListField(
                child=serializers.CharField(), help_text="Extensions it is owned with"
            )
        },
        show,
    )
)
