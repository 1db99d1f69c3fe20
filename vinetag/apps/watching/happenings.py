"""What happened, for a person: in words, and read or not."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from typing import Final
from zoneinfo import ZoneInfo

from django.utils import timezone

from vinetag.apps.accounts.models import User
from vinetag.apps.watching.models import Happening
from vinetag.apps.watching.zones import zone_of
from vinetag.core.watching import sentence

__all__ = ["MOST_SHOWN", "happenings_of", "mark_read", "texts_of", "unread_of"]

MOST_SHOWN: Final = 100


def happenings_of(person: User, before: int | None = None, limit: int = 50) -> Sequence[Happening]:
    """The newest first; those before one, where it is given."""
    rows = Happening.objects.filter(owner=person, watch__project__removed_at=None)
    if before is not None:
        rows = rows.filter(pk__lt=before)
    rows = rows.select_related("watch__project").order_by("-pk")
    return list(rows[: min(limit, MOST_SHOWN)])


def unread_of(person: User) -> int:
    """How many the person has not read."""
    rows = Happening.objects.filter(owner=person, read_at=None, watch__project__removed_at=None)
    return rows.count()


def mark_read(person: User, upto: int) -> int:
    """All up to one are read; how many were not."""
    rows = Happening.objects.filter(owner=person, read_at=None, pk__lte=upto)
    return rows.update(read_at=timezone.now())


def texts_of(happened: Iterable[Happening], zone: str) -> Iterator[str]:
    """Each as a sentence, with moments in a zone."""
    here = zone_of(zone) or ZoneInfo("UTC")
    return (sentence(one.what, one.args, here) for one in happened)
