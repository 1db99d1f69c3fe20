"""What is watched, in a project's file: what for, why and until when; not what was told."""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import date, timedelta
from typing import Annotated, Any, Final, cast

from django.utils import timezone
from pydantic import Field

from vinetag.apps.accounts.errors import AppError
from vinetag.apps.accounts.joining import Bringing
from vinetag.apps.naming.models import Project
from vinetag.apps.watching.watches import MOST_DAYS, Wish, start_watch
from vinetag.core.concepts import WATCH_NAMES, WatchName
from vinetag.core.documents import OneOf, Text
from vinetag.core.errors import CoreError

__all__ = ["WatchingFields", "bring", "write"]

MOST: Final = 500


@dataclass(frozen=True, slots=True)
class AskedItem:
    """Of a search its question, of a price whose and of what."""

    question: Annotated[dict[str, Annotated[str, Text(400)]], Field(max_length=60)] = field(
        default_factory=dict
    )
    seller: Annotated[str, Text(40)] = ""
    extension: Annotated[str, Text(80)] = ""
    action: Annotated[str, Text(20)] = "renew"


@dataclass(frozen=True, slots=True)
class WatchItem:
    """Something watched; `names` are full names."""

    kind: Annotated[str, OneOf(WATCH_NAMES)]
    title: Annotated[str, Text(120)] = ""
    reason: Annotated[str, Text(200)] = ""
    ends_on: Annotated[str, Text(10), Field(description="YYYY-MM-DD")] = ""
    names: Annotated[tuple[Annotated[str, Text(300)], ...], Field(max_length=10_000)] = ()
    asked: AskedItem = AskedItem()


@dataclass(frozen=True)
class WatchingFields:
    """What the file has of watching."""

    watches: Annotated[
        tuple[WatchItem, ...], Field(max_length=MOST, description="What is watched, and why")
    ] = ()


def write(project: Project) -> dict[str, Any]:
    """The fields' values as documents have them."""
    rows = project.watches.filter(ended_at=None).prefetch_related("names").order_by("id")
    return {
        "watches": [
            {
                "kind": row.kind, "title": row.title, "reason": row.reason,
                "ends_on": row.ends_on.isoformat(),
                "names": [str(name) for name in row.names.all()],
                "asked": row.asked,
            }
            for row in rows[:MOST]
        ]
    }  # fmt: skip


def bring(brought: Bringing) -> None:
    """Watch what a file had of it; what cannot be watched here, or is too much, is left out."""
    for item in brought.file.watches:
        wish = Wish(
            cast(WatchName, item.kind), item.title, item.reason, _end(item.ends_on), item.names, (),
            item.asked.question, item.asked.seller, item.asked.extension, item.asked.action,
        )  # fmt: skip
        try:
            start_watch(brought.project, wish)
        except (AppError, CoreError):
            continue


def _end(text: str) -> date | None:
    """The day, where it is one that can be; else the usual time."""
    try:
        day = date.fromisoformat(text)
    except ValueError:
        return None
    today = timezone.localdate()
    return day if today < day <= today + timedelta(days=MOST_DAYS) else None
