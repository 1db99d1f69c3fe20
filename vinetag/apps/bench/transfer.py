"""A project as one open file, and back: nothing is locked in. docs/project.schema.json says what is
in it.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from datetime import datetime
from decimal import Decimal
from typing import Any, Final

import msgspec
from django.utils import timezone

from vinetag.apps.accounts.errors import RefusedError
from vinetag.apps.accounts.models import User
from vinetag.apps.availability.lists import pasted_list, put_list
from vinetag.apps.availability.models import Lookup, PastAnswer
from vinetag.apps.bench.document import FORMAT, VERSION, Answer, Kept, ProjectFile, read_document
from vinetag.apps.naming.marks import dismiss, look
from vinetag.apps.naming.models import Look, Project
from vinetag.apps.naming.services import create_project, keep_views, show_project
from vinetag.apps.shortlists.models import DuelRow, Entry
from vinetag.apps.shortlists.services import entries, keep, note, tag
from vinetag.core.candidates import part_document
from vinetag.core.checking import write_evidence
from vinetag.core.money import neat

__all__ = ["FORMAT", "duplicate", "project_document", "read_project"]

BATCH: Final = 500
MARKS: Final = ("seen", "later")
ANSWER: Final = (
    "label", "extension", "status", "likely", "trouble", "purpose", "evidence", "asked_at",
    "registered", "expires", "drops_from", "drops_to", "currency", "first_year", "renewal",
    "holder_asks",
)  # fmt: skip
PAST: Final = ("label", "extension", "status", "likely", "trouble", "asked_at")
Told = Callable[[int], None]


def project_document(project: Project) -> dict[str, Any]:
    """Everything of the project but the made names, which the brief and the seed make again."""
    looks = {
        mark: list(
            project.looks.filter(verdict=mark).order_by("id").values_list("label", flat=True)
        )
        for mark in MARKS
    }
    return {
        "format": FORMAT,
        "version": VERSION,
        "written_at": timezone.now().isoformat(),
        "name": project.name,
        "brief": project.brief,
        "seed": project.seed,
        "view": project.view,
        "views": project.views,
        "shortlist": [
            {
                "label": e.label, "extension": e.extension,
                "note": e.note, "tags": e.tags, "recipes": e.recipes,
                "parts": e.parts, "strength": e.strength, "kept_at": e.kept_at.isoformat(),
            }
            for e in entries(project)
        ],
        "duels": [
            {"winner": d.winner, "loser": d.loser, "tie": d.tie}
            for d in project.duels.order_by("id")
        ],
        "dismissed": list(project.dismissed.order_by("id").values_list("label", flat=True)),
        "looked": looks,
        "pasted": [
            {"label": label, "extensions": extensions}
            for label, extensions in pasted_list(project).items()
        ],
        "answers": [_written(row) for row in project.lookups.order_by("number").values(*ANSWER)],
        "past_answers": [
            _written(row) for row in project.past_answers.order_by("asked_at").values(*PAST)
        ],
    }  # fmt: skip


def _plain(value: Any) -> Any:
    if isinstance(value, datetime):
        return value.isoformat()
    return str(neat(value)) if isinstance(value, Decimal) else value


def _written(row: Mapping[str, Any]) -> dict[str, Any]:
    return {k: _plain(v) for k, v in row.items() if v is not None and v != "" and v != []}


def read_project(*, owner: User, content: bytes, told: Told = lambda _: None) -> Project:
    """Make a project of a file; `told` hears how far it is, in percent. What the file says of
    answers is marked as such. Raises RefusedError, each problem with its path in the file; nothing
    is made then.
    """
    document, problems = read_document(content)
    if document is None:
        raise RefusedError(problems)
    told(20)
    return _make(owner, document, told, imported=True)


def duplicate(*, owner: User, project: Project, told: Told = lambda _: None) -> Project:
    """A second project like the first, with everything of it but the links."""
    whole = {**project_document(project), "name": f"{project.name[:73]} (copy)"}
    document, problems = read_document(msgspec.json.encode(whole))
    if document is None:
        raise RefusedError(problems)
    told(20)
    return _make(owner, document, told, imported=False)


def _make(owner: User, document: ProjectFile, told: Told, *, imported: bool) -> Project:
    """Make it out of sight, and show it once it is whole: it takes longer than a transaction
    should. What is left of one that was broken off is deleted with other removed projects.
    """
    project = create_project(
        owner=owner, name=document.name, brief=document.brief, seed=document.seed, hidden=True
    )
    told(40)
    views = [{"name": v.name, "search": v.search} for v in document.views]
    keep_views(project=project, view=document.view, views=views)
    _shelve(project, document.shortlist)
    DuelRow.objects.bulk_create(
        [
            DuelRow(project=project, winner=d.winner, loser=d.loser, tie=d.tie)
            for d in document.duels
        ],
        BATCH,
    )
    if document.dismissed:
        dismiss(project=project, labels=document.dismissed)
    for mark in MARKS:
        if labels := getattr(document.looked, mark):
            look(project=project, labels=labels, verdict=Look.Verdict(mark))
    if document.pasted:
        put_list(project, {one.label: list(one.extensions) for one in document.pasted})
    told(50)
    past = (
        PastAnswer(project=project, **{name: getattr(one, name) for name in PAST})
        for one in document.past_answers
    )
    PastAnswer.objects.bulk_create(past, batch_size=BATCH)
    _answered(project, document.answers, imported, lambda share: told(50 + int(45 * share)))
    return show_project(project)


def _shelve(project: Project, kept: Sequence[Kept]) -> None:
    keep(project=project, labels=[k.label for k in kept])
    for entry in kept:
        if entry.note:
            note(project=project, label=entry.label, text=entry.note)
        if entry.tags:
            tag(project=project, label=entry.label, tags=list(entry.tags))
        Entry.objects.filter(project=project, label=entry.label).update(
            recipes=list(entry.recipes),
            parts=[part_document(item.part) for item in entry.parts],
            strength=entry.strength,
            extension=entry.extension,
        )


def _answered(
    project: Project, answers: Sequence[Answer], imported: bool, told: Callable[[float], None]
) -> None:
    unique = list({(one.label, one.extension): one for one in answers}.values())
    step = 20 * BATCH
    for start in range(0, len(unique), step):
        rows = [
            Lookup(project=project, number=n, imported=imported, **_row(one))
            for n, one in enumerate(unique[start : start + step], start + 1)
        ]
        Lookup.objects.bulk_create(rows, batch_size=BATCH)
        told(min(1.0, (start + step) / len(unique)))
    project.answers = len(unique)
    project.save(update_fields=["answers"])


def _row(answer: Answer) -> dict[str, Any]:
    row = {name: getattr(answer, name) for name in ANSWER}
    row["evidence"] = [write_evidence(said) for said in answer.evidence]
    return row
