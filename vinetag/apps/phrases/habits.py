"""How the columns of a table are understood: as they seem, or as the person said of one like it."""

from __future__ import annotations

import hashlib
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final, cast

from vinetag.apps.accounts.models import User
from vinetag.apps.phrases.models import ColumnHabit
from vinetag.core.demand import KINDS, Column, Kind, Preview, look_at

__all__ = ["SHOWN_START", "Looked", "look", "parse_column", "said_columns", "usual_columns"]

# Bytes by which a table is understood.
SHOWN_START: Final = 400_000
# For how many headings columns are known.
MOST_HABITS: Final = 200
MONTH: Final = re.compile("[12][0-9]{3}-(0[1-9]|1[0-2])")


@dataclass(frozen=True, slots=True)
class Looked:
    """How a file is understood; `habit` is whether its columns are as was said of one before."""

    preview: Preview
    columns: Sequence[Column]
    habit: bool


def _sign(preview: Preview) -> str:
    return hashlib.sha256(preview.sign.encode()).hexdigest() if preview.sign.strip(";") else ""


def usual_columns(person: User, preview: Preview) -> tuple[Sequence[Column], bool]:
    """What the columns hold: as the person said of such a file before, else as they seem to."""
    sign = _sign(preview)
    habit = ColumnHabit.objects.filter(owner=person, sign=sign).first() if sign else None
    if habit and len(habit.columns) == len(preview.guess.columns):
        return [Column(one["kind"], one["month"]) for one in habit.columns], True
    return preview.guess.columns, False


def look(person: User, start: bytes) -> Looked:
    """How a file is understood, by how it begins."""
    preview = look_at(start[:SHOWN_START])
    columns, habit = usual_columns(person, preview)
    return Looked(preview, columns, habit)


def said_columns(
    person: User, preview: Preview, given: Sequence[Mapping[str, str]]
) -> list[Column]:
    """Columns as a person put them right, remembered for the next file of the kind."""
    chosen = [parse_column(one) for one in given][:80]
    sign = _sign(preview)
    if sign and tuple(chosen) != tuple(preview.guess.columns):
        document = [{"kind": one.kind, "month": one.month} for one in chosen]
        ColumnHabit.objects.update_or_create(
            owner=person, sign=sign, defaults={"columns": document}
        )
        said = ColumnHabit.objects.filter(owner=person).order_by("-said_at", "-pk")
        oldest = list(said.values_list("pk", flat=True)[MOST_HABITS:])
        ColumnHabit.objects.filter(pk__in=oldest).delete()
    elif sign:
        ColumnHabit.objects.filter(owner=person, sign=sign).delete()
    return chosen


def parse_column(given: Mapping[str, str]) -> Column:
    """A column as a document has it; what is none of its kinds holds nothing."""
    kind, month = given.get("kind", ""), given.get("month", "")
    if kind not in KINDS or (kind == "month") != bool(MONTH.fullmatch(month)):
        return Column("")
    return Column(cast(Kind, kind), month)
