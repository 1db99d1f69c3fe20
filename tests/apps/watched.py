"""Watching something, and what happened."""

from __future__ import annotations

from typing import Any

from django.utils import timezone

from vinetag.apps.accounts.models import User
from vinetag.apps.naming.models import Project
from vinetag.apps.watching.models import Happening, Watch
from vinetag.apps.watching.watches import (
    Wish,
    start_watch,
)

NOW = timezone.now()


def watch(project: Project, *names: str, kind: str = "name", **more: Any) -> Watch:
    return start_watch(project, Wish(kind, names=names or ("inkpost.com",), **more))  # type: ignore[arg-type]


def happened(person: User) -> list[tuple[str, str]]:
    rows = Happening.objects.filter(owner=person).order_by("pk")
    return [(f"{one.label}.{one.extension}" if one.label else "", one.what) for one in rows]


def happens(watch: Watch, after: str = "open") -> Happening:
    count = Happening.objects.count()
    return Happening.objects.create(
        owner_id=watch.project.owner_id, watch=watch, label="inkpost", extension="com",
        what="status", args={"name": "inkpost.com", "before": "taken", "after": after},
        sign=f"sign {count}", at=NOW,
    )  # fmt: skip
