"""Rules and transactions of the shortlist."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from django.db import transaction
from django.db.models import Max, QuerySet
from django.utils import timezone

from vinetag.apps.accounts.errors import ConflictError, NotFoundError, RefusedError
from vinetag.apps.availability.models import Lookup
from vinetag.apps.naming.models import Candidate, Project
from vinetag.apps.naming.services import brief_of, grader_for
from vinetag.apps.shortlists.models import Entry
from vinetag.core.candidates import Candidate as MadeName
from vinetag.core.candidates import Part
from vinetag.core.errors import Problem
from vinetag.core.names import parse_label

__all__ = ["MAX_ENTRIES", "Kept", "entries", "keep", "kept_names", "note", "reorder", "unkeep"]

MAX_ENTRIES = 300
MAX_NOTE = 2_000


@dataclass(frozen=True, slots=True)
class Kept:
    """An entry with its grade, 0 to 100 (None when too little of it could be judged), and what is
    known of its full names, by extension.
    """

    entry: Entry
    grade: float | None
    statuses: dict[str, Lookup]

    @property
    def cells(self) -> list[Lookup]:
        """The statuses as a list."""
        return list(self.statuses.values())


def entries(project: Project) -> QuerySet[Entry]:
    """The kept names in the person's order."""
    return Entry.objects.filter(project=project, removed_at=None).order_by("position", "id")


def keep(*, project: Project, label: str) -> Entry:
    """Keep a name, made or typed. Keeping it again changes nothing; a removed one comes back with
    its note to its old place. Raises LabelError, or ConflictError when the list is full.
    """
    label = parse_label(label)
    with transaction.atomic():
        Project.objects.select_for_update().get(pk=project.pk)
        entry = Entry.objects.filter(project=project, label=label).first()
        if entry and entry.removed_at is None:
            return entry
        if entries(project).count() >= MAX_ENTRIES:
            message = f"A shortlist holds at most {MAX_ENTRIES} names. Remove some first."
            raise ConflictError("shortlist_full", message)
        if entry:
            entry.removed_at = None
            entry.save(update_fields=["removed_at"])
            return entry
        last = Entry.objects.filter(project=project).aggregate(Max("position"))["position__max"]
        made = Candidate.objects.filter(project=project, label=label).first()
        return Entry.objects.create(
            project=project,
            label=label,
            position=(last or 0) + 1,
            recipes=made.recipes if made else [],
            parts=made.parts if made else [],
            strength=made.strength if made else 0,
        )


def unkeep(*, project: Project, label: str) -> None:
    """Take a name off; keep() undoes it. Raises NotFoundError."""
    if not entries(project).filter(label=label).update(removed_at=timezone.now()):
        raise NotFoundError


def note(*, project: Project, label: str, text: str) -> Entry:
    """Write the note of a kept name. Raises NotFoundError or RefusedError."""
    if len(text) > MAX_NOTE:
        args = {"limit": f"{MAX_NOTE:,}", "length": len(text)}
        raise RefusedError([Problem("note", "too_long", args)])
    entry = entries(project).filter(label=label).first()
    if entry is None:
        raise NotFoundError
    entry.note = text
    entry.save(update_fields=["note"])
    return entry


def reorder(*, project: Project, labels: Sequence[str]) -> None:
    """Put the kept names in this order. Raises ConflictError when they are not the names kept."""
    with transaction.atomic():
        Project.objects.select_for_update().get(pk=project.pk)
        kept = {entry.label: entry for entry in entries(project)}
        if sorted(kept) != sorted(labels):
            message = "The shortlist has changed meanwhile. It was loaded again."
            raise ConflictError("order_stale", message)
        for place, label in enumerate(labels, start=1):
            kept[label].position = place
        Entry.objects.bulk_update(kept.values(), ["position"], batch_size=100)


def kept_names(project: Project) -> list[Kept]:
    """The shortlist with grades and statuses, in order; three queries, however long it is."""
    brief = brief_of(project)
    grader = grader_for(brief)
    rows = list(entries(project))
    found: dict[str, dict[str, Lookup]] = {}
    lookups = project.lookups.filter(label__in=[r.label for r in rows])
    for lookup in lookups.filter(extension__in=brief.extensions):
        found.setdefault(lookup.label, {})[lookup.extension] = lookup
    graded = [grader.grade(grader.read_any(_made(row))) for row in rows]
    return [
        Kept(row, grade.grade if grade.whole else None, found.get(row.label, {}))
        for row, grade in zip(rows, graded, strict=True)
    ]


def _made(row: Entry) -> MadeName:
    parts = tuple(Part(*part) for part in row.parts)
    return MadeName(row.label, tuple(row.recipes), parts, row.strength)
