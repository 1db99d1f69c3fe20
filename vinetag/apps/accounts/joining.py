"""What each app adds to what they make up together: a project's file, the overview of projects, the
page of a name, addresses, and words for what can be wrong.

An app says so in its `joined.py`; JOINED_APPS in the settings is the list, and a new app touches
nothing else.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from copy import deepcopy
from dataclasses import dataclass, field
from datetime import date, datetime
from functools import cache
from importlib import import_module
from typing import Any

from django.conf import settings
from rest_framework import serializers

__all__ = [
    "Bringing",
    "CalendarDay",
    "Counted",
    "Fields",
    "Filed",
    "Joined",
    "JoinedSerializer",
    "Shown",
    "joined",
]

Field = serializers.Field[Any, Any, Any, Any]
Fields = Mapping[str, Field]


@dataclass(frozen=True, slots=True)
class Bringing:
    """A project being made of a file or a copy: the `file` as its model has it; whether somebody
    brought it (`imported`); `on_progress` hears how far it is, from 0 to 1.
    """

    project: Any
    file: Any
    imported: bool
    on_progress: Callable[[float], None]


@dataclass(frozen=True)
class Filed:
    """The app's share of a project's file: `fields`, a frozen dataclass each of whose fields has a
    default; `write` gives their values as documents have them, `bring` stores what was read.
    """

    fields: type[Any]
    write: Callable[[Any], Mapping[str, Any]]
    bring: Callable[[Bringing], None]


@dataclass(frozen=True)
class Counted:
    """What the overview tells of projects: `count` gives each field's values by project, 0 where
    there is none.
    """

    fields: Fields
    count: Callable[[Sequence[Any]], Mapping[str, Mapping[int, int]]]


@dataclass(frozen=True)
class Shown:
    """What the page of a name tells: `show` gives each field's value for a label of a project."""

    fields: Fields
    show: Callable[[Any, str], Mapping[str, Any]]


@dataclass(frozen=True, slots=True)
class CalendarDay:
    """A whole day in a person's calendar: `uid` stays while the day moves; `known_at` is since when
    it is known.
    """

    uid: str
    summary: str
    description: str
    day: date
    address: str
    known_at: datetime | None = None


@dataclass(frozen=True)
class Joined:
    """All that an app adds; `words` by the code of what can be wrong, `dates` to the calendar of a
    person.
    """

    filed: Filed | None = None
    counted: Counted | None = None
    shown: Shown | None = None
    words: Mapping[str, str] = field(default_factory=dict)
    dates: Callable[[Any], Iterable[CalendarDay]] | None = None


@cache
def joined() -> tuple[Joined, ...]:
    """What every app adds, in the order of the settings."""
    return tuple(import_module(f"{app}.joined").JOINED for app in settings.JOINED_APPS)


class JoinedSerializer(serializers.Serializer[Any]):
    """The fields declared, and those the apps add, whose values are in the mapping `joined`."""

    def added(self, one: Joined) -> Fields:
        """The fields an app adds here."""
        raise NotImplementedError

    def get_fields(self) -> dict[str, Field]:
        """By name, those declared first."""
        fields = super().get_fields()
        for one in joined():
            for name, kind in self.added(one).items():
                # A field knows the serializer it is in: each has its own.
                fields[name] = deepcopy(kind)
                fields[name].source = f"joined.{name}"
        return fields
