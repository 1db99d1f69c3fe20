"""What the hunt adds: how fast names like one go."""

from __future__ import annotations

from typing import Any

from vinetag.apps.accounts.joining import Joined, Shown
from vinetag.apps.hunting.api.serializers import GoingSerializer
from vinetag.apps.hunting.going import going_like
from vinetag.apps.naming.models import Project

__all__ = ["JOINED"]


def show(project: Project, label: str) -> dict[str, Any]:
    """Under the first extension of the brief."""
    return {"going": going_like(project, label, project.brief["extensions"][0])}


JOINED = Joined(
    shown=Shown(
        {"going": GoingSerializer(many=True, help_text="How fast names like it are taken")}, show
    )
)
