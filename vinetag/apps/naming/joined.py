"""What naming adds: marks and views of a project's file, how a name was looked at, words."""

from __future__ import annotations

from typing import Any

from rest_framework import serializers

from vinetag.apps.accounts.joining import Filed, Joined, Shown
from vinetag.apps.naming.filed import NamingFields, bring, write
from vinetag.apps.naming.models import Project

__all__ = ["JOINED"]


def show(project: Project, label: str) -> dict[str, Any]:
    """How a name was looked at last."""
    found = project.looks.filter(label=label).values_list("verdict", flat=True).first()
    return {"verdict": found or ""}


JOINED = Joined(
    filed=Filed(NamingFields, write, bring),
    shown=Shown(
        {"verdict": serializers.ChoiceField(choices=("", "seen", "later"), allow_blank=True)}, show
    ),
    words={
        "too_many_projects": (
            "At most {limit} projects, those removed within the last {days} days among them."
        ),
    },
)
