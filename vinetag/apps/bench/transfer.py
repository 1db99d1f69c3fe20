"""A project as one open file, and back: nothing is locked in. docs/project.schema.json says what is
in it.
"""

from __future__ import annotations

import json
from collections.abc import Callable, Mapping, Sequence
from datetime import datetime
from typing import Any, Final

from django.db import transaction
from django.utils import timezone

from vinetag.apps.accounts.errors import RefusedError
from vinetag.apps.accounts.models import User
from vinetag.apps.availability.lists import pasted_list, put_list
from vinetag.apps.availability.models import Lookup, PastAnswer
from vinetag.apps.naming.marks import MOST_DISMISSED, dismiss, look
from vinetag.apps.naming.models import Look, Project
from vinetag.apps.naming.services import create_project, keep_views
from vinetag.apps.shortlists.models import DuelRow, Entry
from vinetag.apps.shortlists.services import MAX_ENTRIES, entries, keep, note, tag
from vinetag.core.checking import STATUSES
from vinetag.core.errors import CoreError, Problem
from vinetag.core.extensions import parse_extension
from vinetag.core.names import parse_label

__all__ = ["FORMAT", "MOST_BYTES", "duplicate", "project_document", "read_project"]

FORMAT: Final = "vinetag-project"
VERSION: Final = 1
MOST_BYTES: Final = 60_000_000
MOST_ANSWERS: Final = 200_000
BATCH: Final = 500
MARKS: Final = ("seen", "later")
ANSWER: Final = (
    "label", "extension", "status", "likely", "trouble", "purpose", "evidence", "asked_at",
    "registered", "expires", "drops_from", "drops_to", "currency", "first_year", "renewal",
    "holder_asks",
)  # fmt: skip
PAST: Final = ("label", "extension", "status", "likely", "trouble", "asked_at")
MOMENTS: Final = frozenset({"asked_at", "registered", "expires", "drops_from", "drops_to"})


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


def _written(row: Mapping[str, Any]) -> dict[str, Any]:
    return {
        k: v.isoformat() if isinstance(v, datetime) else v
        for k, v in row.items()
        if v is not None and v != "" and v != []
    }


def read_project(*, owner: User, content: bytes) -> Project:
    """Make a project of a file. Raises RefusedError, each problem with its path in the file;
    nothing is made then.
    """
    if len(content) > MOST_BYTES:
        raise RefusedError([Problem("file", "file_large", {"limit": MOST_BYTES // 1_000_000})])
    try:
        document = json.loads(content)
    except (ValueError, RecursionError) as error:
        raise RefusedError([Problem("file", "not_json", {"detail": str(error)[:120]})]) from error
    if not isinstance(document, dict) or document.get("format") != FORMAT:
        raise RefusedError([Problem("file", "not_project")])
    if document.get("version") != VERSION:
        told = {"version": document.get("version"), "known": VERSION}
        raise RefusedError([Problem("version", "version_unknown", told)])
    return _make(owner, _Reader(document))


def duplicate(*, owner: User, project: Project) -> Project:
    """A second project like the first, with everything of it but the links."""
    document = {**project_document(project), "name": f"{project.name[:73]} (copy)"}
    return _make(owner, _Reader(document))


class _Reader:
    """Reads parts of a document, collecting what is wrong with them."""

    def __init__(self, document: Mapping[str, Any]) -> None:
        self.document, self.problems = document, list[Problem]()

    def items(self, name: str, most: int, read: Callable[[Any, str], Any]) -> list[Any]:
        """A list, each entry read; entries that cannot be are told by their path."""
        given = self.document.get(name, [])
        if not isinstance(given, list):
            self.problems.append(Problem(name, "not_list"))
            return []
        if len(given) > most:
            told = {"limit": most, "count": len(given)}
            self.problems.append(Problem(name, "too_many", told))
            return []
        found = []
        for i, item in enumerate(given):
            try:
                found.append(read(item, f"{name}.{i}"))
            except (TypeError, ValueError, KeyError, AttributeError):
                self.problems.append(Problem(f"{name}.{i}", "entry_unreadable"))
            except CoreError as error:
                self.problems.append(Problem(f"{name}.{i}", "as_told", {"text": str(error)}))
        return found

    def text(self, name: str) -> str:
        value = self.document.get(name, "")
        if not isinstance(value, str):
            self.problems.append(Problem(name, "not_text"))
            return ""
        return value


def _label(item: Any, _path: str) -> str:
    return parse_label(item if isinstance(item, str) else item["label"])


def _kept(item: Any, path: str) -> dict[str, Any]:
    parts = [[str(p[0]), str(p[1]), str(p[2]), int(p[3]), *map(str, p[4:5])] for p in item["parts"]]
    return {
        "label": _label(item, path),
        "extension": parse_extension(item["extension"]) if item.get("extension") else "",
        "note": str(item.get("note", "")),
        "tags": [str(t) for t in item.get("tags", [])],
        "recipes": [str(r) for r in item.get("recipes", [])],
        "parts": parts,
        "strength": float(item.get("strength", 0)),
    }


def _duel(item: Any, _path: str) -> tuple[str, str, bool]:
    return parse_label(item["winner"]), parse_label(item["loser"]), bool(item.get("tie"))


def _listed(item: Any, path: str) -> tuple[str, list[str]]:
    return _label(item, path), [str(e)[:63] for e in item["extensions"]]


def _answer(item: Any, path: str) -> dict[str, Any]:
    row = {k: _moment(v) if k in MOMENTS else v for k, v in item.items() if k in ANSWER}
    row["label"] = _label(item, path)
    row["extension"] = str(row["extension"])[:63]
    if row["status"] not in STATUSES or not isinstance(row.get("evidence", []), list):
        raise ValueError
    for name in ("first_year", "renewal", "holder_asks"):
        row[name] = None if row.get(name) is None else float(row[name])
    for name in ("trouble", "purpose", "currency"):
        row[name] = str(row.get(name, ""))[:20]
    row["currency"], row["purpose"] = row["currency"][:3], row["purpose"][:8] or "scan"
    row["likely"] = bool(row.get("likely"))
    return row


def _past(item: Any, path: str) -> dict[str, Any]:
    row = {k: v for k, v in _answer(item, path).items() if k in PAST}
    if row.get("asked_at") is None:
        raise ValueError
    return row


def _moment(text: str) -> datetime:
    read = datetime.fromisoformat(text)
    return read if read.tzinfo else read.replace(tzinfo=timezone.get_current_timezone())


def _make(owner: User, reader: _Reader) -> Project:
    kept = reader.items("shortlist", MAX_ENTRIES, _kept)
    duels = reader.items("duels", 5_000, _duel)
    gone = reader.items("dismissed", MOST_DISMISSED, _label)
    listed = reader.items("pasted", 5_000, _listed)
    answers = reader.items("answers", MOST_ANSWERS, _answer)
    past = reader.items("past_answers", MOST_ANSWERS, _past)
    views = reader.items("views", 30, lambda v, _: {"name": v["name"], "search": v["search"]})
    looked = reader.document.get("looked", {})
    seed = reader.document.get("seed", 1)
    if not isinstance(seed, int) or not 0 <= seed < 2**31:
        reader.problems.append(Problem("seed", "not_number"))
    name, view = reader.text("name"), reader.text("view")
    if reader.problems:
        raise RefusedError(reader.problems[:50])
    with transaction.atomic():
        brief = reader.document.get("brief", {})
        project = create_project(owner=owner, name=name, brief=brief, seed=seed)
        keep_views(project=project, view=view, views=views)
        _shelve(project, kept)
        DuelRow.objects.bulk_create(
            [DuelRow(project=project, winner=w, loser=o, tie=t) for w, o, t in duels], BATCH
        )
        if gone:
            dismiss(project=project, labels=gone)
        for mark in MARKS:
            labels = looked.get(mark, []) if isinstance(looked, dict) else []
            if labels:
                look(project=project, labels=labels, verdict=Look.Verdict(mark))
        if listed:
            put_list(project, dict(listed))
        _answered(project, answers, past)
    return Project.objects.get(pk=project.pk)


def _shelve(project: Project, kept: Sequence[Mapping[str, Any]]) -> None:
    keep(project=project, labels=[k["label"] for k in kept])
    for item in kept:
        if item["note"]:
            note(project=project, label=item["label"], text=item["note"])
        if item["tags"]:
            tag(project=project, label=item["label"], tags=item["tags"])
        Entry.objects.filter(project=project, label=item["label"]).update(
            recipes=item["recipes"],
            parts=item["parts"],
            strength=item["strength"],
            extension=item["extension"],
        )


def _answered(
    project: Project, answers: Sequence[Mapping[str, Any]], past: Sequence[Mapping[str, Any]]
) -> None:
    unique = {(row["label"], row["extension"]): row for row in answers}
    Lookup.objects.bulk_create(
        (Lookup(project=project, number=n, **row) for n, row in enumerate(unique.values(), 1)),
        batch_size=BATCH,
    )
    PastAnswer.objects.bulk_create(
        (PastAnswer(project=project, **row) for row in past), batch_size=BATCH
    )
    project.answers = len(unique)
    project.save(update_fields=["answers"])
