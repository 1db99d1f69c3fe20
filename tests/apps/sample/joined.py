"""What it adds."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Any

from rest_framework import serializers

from vinetag.apps.accounts.joining import Bringing, Counted, Filed, Joined, Shown
from vinetag.core.documents import Between

__all__ = ["JOINED", "brought"]

brought: list[tuple[int, int, bool]] = []


@dataclass(frozen=True)
class SampleFields:
    weather: Annotated[int, Between(0, 9)] = 0


def bring(what: Bringing) -> None:
    brought.append((what.project.pk, what.file.weather, what.imported))


def count(projects: Any) -> dict[str, dict[int, int]]:
    return {"raindrops": {project.pk: 7 for project in projects}}


JOINED = Joined(
    filed=Filed(SampleFields, lambda _project: {"weather": 5}, bring),
    counted=Counted({"raindrops": serializers.IntegerField()}, count),
    shown=Shown(
        {"umbrella": serializers.CharField()},
        lambda project, label: {"umbrella": f"{label} of {project.name}"},
    ),
    words={"drizzle": "It drizzles on {value}."},
)
