"""Rules and transactions of the shortlist."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from django.db import transaction
from django.db.models import Max, QuerySet
from django.utils import timezone

from vinetag.apps.accounts.errors import ConflictError, NotFoundError, RefusedError
from vinetag.apps.accounts.seen import Seen, require_seen
from vinetag.apps.availability.models import Lookup
from vinetag.apps.naming.deadlocks import again_when_deadlocked
from vinetag.apps.naming.marks import next_mark
from vinetag.apps.naming.models import Candidate, Project
from vinetag.apps.naming.services import brief_of, grader_for
from vinetag.apps.shortlists.models import Entry
from vinetag.core.candidates import Candidate as MadeName
from vinetag.core.candidates import read_part
from vinetag.core.checking.pasted import read_typed
from vinetag.core.errors import Problem
from vinetag.core.extensions import parse_extension

__all__ = [
    "MAX_ENTRIES",
    "Kept",
    "entries",
    "keep",
    "kept_names",
    "note",
    "reorder",
    "settle",
    "tag",
    "unkeep",
]

MAX_ENTRIES = 300
MAX_NOTE = 2_000
MAX_TAGS = 10
MAX_TAG = 30


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


@again_when_deadlocked
def keep(*, project: Project, labels: Sequence[str]) -> list[str]:
    """Keep names or full names, made or typed; the labels that were not kept before. Keeping one
    again changes nothing but its extension, where one is given; a removed one comes back with its
    note to its old place. Raises LabelError or ExtensionError, or ConflictError when the list would
    be too long.
    """
    given = dict(map(read_typed, labels))
    labels = list(given)
    with transaction.atomic():
        next_mark(project)
        known = {e.label: e for e in Entry.objects.filter(project=project, label__in=labels)}
        gone = [e for e in known.values() if e.removed_at]
        new = [label for label in labels if label not in known]
        if entries(project).count() + len(gone) + len(new) > MAX_ENTRIES:
            message = f"A shortlist holds at most {MAX_ENTRIES} names. Remove some first."
            raise ConflictError("shortlist_full", message)
        Entry.objects.filter(pk__in=[e.pk for e in gone]).update(removed_at=None)
        last = Entry.objects.filter(project=project).aggregate(Max("position"))["position__max"]
        made = {c.label: c for c in project.candidates.filter(label__in=new)}
        Entry.objects.bulk_create(
            _entry(project, label, place, made.get(label))
            for place, label in enumerate(new, start=(last or 0) + 1)
        )
        for label, extension in given.items():
            if extension:
                entries(project).filter(label=label).update(extension=extension)
    return [*(e.label for e in gone), *new]


def _entry(project: Project, label: str, place: int, made: Candidate | None) -> Entry:
    entry = Entry(project=project, label=label, position=place)
    if made:
        entry.recipes, entry.parts, entry.strength = made.recipes, made.parts, made.strength
    return entry


@again_when_deadlocked
def unkeep(*, project: Project, labels: Sequence[str]) -> int:
    """Take names off, how many were on; keep() undoes it."""
    with transaction.atomic():
        next_mark(project)
        return entries(project).filter(label__in=labels).update(removed_at=timezone.now())


def note(*, project: Project, label: str, text: str, seen: Seen = None) -> Entry:
    """Write the note of a kept name. Raises NotFoundError or RefusedError, or require_seen's error
    when there is another `note` than the one `seen`.
    """
    if len(text) > MAX_NOTE:
        args = {"limit": f"{MAX_NOTE:,}", "length": len(text)}
        raise RefusedError([Problem("note", "too_long", args)])
    return _write(project, label, "note", text, seen)


def tag(*, project: Project, label: str, tags: Sequence[str], seen: Seen = None) -> Entry:
    """Set the tags of a kept name, each once. Raises NotFoundError or RefusedError, or
    require_seen's error when there are other `tags` than those `seen`.
    """
    clean = list(dict.fromkeys(" ".join(t.split()).lower() for t in tags))
    problems = []
    if len(clean) > MAX_TAGS:
        problems.append(Problem("tags", "too_many", {"limit": MAX_TAGS, "count": len(clean)}))
    for i, one in enumerate(clean):
        if not one:
            problems.append(Problem(f"tags.{i}", "blank"))
        elif len(one) > MAX_TAG:
            args = {"limit": MAX_TAG, "length": len(one)}
            problems.append(Problem(f"tags.{i}", "too_long", args))
    if problems:
        raise RefusedError(problems)
    return _write(project, label, "tags", clean, seen)


def settle(*, project: Project, label: str, extension: str, seen: Seen = None) -> Entry:
    """Make a kept name a full name, or with no extension a name again. Raises NotFoundError or
    ExtensionError, or require_seen's error when its `extension` is not the one `seen`.
    """
    parsed = parse_extension(extension) if extension else ""
    return _write(project, label, "extension", parsed, seen)


def _write(project: Project, label: str, field: str, value: object, seen: Seen) -> Entry:
    with transaction.atomic():
        entry = entries(project).select_for_update().filter(label=label).first()
        if entry is None:
            raise NotFoundError
        now = getattr(entry, field)
        # What is there already was written by the same change, sent again.
        if now != value:
            require_seen(seen, {field: now})
            setattr(entry, field, value)
            entry.save(update_fields=[field])
    return entry


def reorder(*, project: Project, labels: Sequence[str], seen: Seen = None) -> None:
    """Put the kept names in this order. Raises require_seen's error when they are not the names
    kept, or not in the order of `labels` that was `seen`.
    """
    with transaction.atomic():
        Project.objects.select_for_update().get(pk=project.pk)
        kept = {entry.label: entry for entry in entries(project)}
        now = {"labels": list(kept)}
        require_seen(seen, now)
        if sorted(kept) != sorted(labels):
            require_seen({"labels": labels}, now)
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
    wanted = {*brief.extensions, *(r.extension for r in rows)}
    for lookup in lookups.filter(extension__in=wanted):
        found.setdefault(lookup.label, {})[lookup.extension] = lookup
    graded = grader.grades([grader.read_any(_made(row)) for row in rows])
    return [
        Kept(row, grade.grade if grade.whole else None, found.get(row.label, {}))
        for row, grade in zip(rows, graded, strict=True)
    ]


def _made(row: Entry) -> MadeName:
    parts = tuple(read_part(part) for part in row.parts)
    return MadeName(row.label, tuple(row.recipes), parts, row.strength)
