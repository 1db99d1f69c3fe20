"""What owning adds: under which extensions a name is owned, and the days names run out."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from django.utils import timezone
from rest_framework import serializers

from vinetag.apps.accounts.joining import CalendarDay, Joined, Shown
from vinetag.apps.accounts.models import User
from vinetag.apps.naming.models import Project
from vinetag.apps.owning.listing import LONGEST_AFTER, mine
from vinetag.apps.owning.models import OwnedName

__all__ = ["JOINED"]


def show(project: Project, label: str) -> dict[str, Any]:
    """Whatever it was put on the list by."""
    rows = OwnedName.objects.filter(owner=project.owner_id, left_at=None, label=label)
    return {"owned": sorted(rows.values_list("extension", flat=True))}


def dates(person: User) -> Iterator[CalendarDay]:
    """When each name runs out, those that do so first at the front; what was lost long ago is
    left out.
    """
    rows = mine(person).filter(expires_at__gt=timezone.now() - LONGEST_AFTER)
    for row in rows.order_by("expires_at").iterator(1_000):
        assert row.expires_at is not None  # noqa: S101 - asked for above
        cost = (
            "" if row.yearly is None else f" A year costs {row.yearly:,.2f} {row.yearly_currency}."
        )
        how = "Renewed by itself." if row.renewal == "itself" else "You are asked first."
        yield CalendarDay(
            f"owned-{row.name}", f"Your name {row.name.shown} runs out", f"{how}{cost}",
            row.expires_at.date(), f"/owned?text={row.name}", row.asked_at or row.added_at,
        )  # fmt: skip


JOINED = Joined(
    dates=dates,
    shown=Shown(
        {
            "owned": serializers.ListField(
                child=serializers.CharField(), help_text="Extensions it is owned with"
            )
        },
        show,
    ),
)
