"""The shortlist and its duels in a project's file."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, Any, Final

from pydantic import AfterValidator, BeforeValidator, Field

from vinetag.apps.accounts.joining import Bringing
from vinetag.apps.naming.models import Project
from vinetag.apps.shortlists.models import DuelRow, Entry
from vinetag.apps.shortlists.services import entries, keep, note, tag
from vinetag.core.candidates import Part, part_document
from vinetag.core.concepts import CHANGES, PART_KINDS, Change, PartName
from vinetag.core.documents import UNREADABLE, Amount, Between, OneOf, Text, refusal
from vinetag.core.filed import AnyExtension, Label, YesNo

__all__ = ["ShortlistFields", "bring", "write"]

BATCH: Final = 500


@dataclass(frozen=True, slots=True)
class ChangeItem:
    """What was done to a word, as vinetag.core.concepts has it."""

    code: Annotated[str, OneOf(tuple(CHANGES))]
    args: Annotated[dict[str, Annotated[str, Text(300)]], Field(max_length=8)]


def _has_its_arguments(change: ChangeItem) -> ChangeItem:
    try:
        Change(change.code, change.args).text()
    except (KeyError, IndexError):
        raise refusal(UNREADABLE) from None
    return change


def _named(value: Any) -> Any:
    """Earlier versions wrote a part's fields in a row, with a sentence for the change."""
    if not isinstance(value, list):
        return value
    fields = dict(zip(("text", "kind", "keyword", "start"), value, strict=False))
    if len(value) > 4 and value[4]:
        fields["change"] = {"code": "as_told", "args": {"text": value[4]}}
    return fields


@dataclass(frozen=True, slots=True)
class PartItem:
    """A stretch of a name: where its letters come from."""

    text: Annotated[str, Text(63)]
    kind: Annotated[PartName, OneOf(tuple(PART_KINDS))]
    start: Annotated[int, Between(0, 62)]
    keyword: Annotated[str, Text(300)] = ""
    change: Annotated[ChangeItem, AfterValidator(_has_its_arguments)] | None = None

    @property
    def part(self) -> Part:
        """As the core has it."""
        change = Change(self.change.code, self.change.args) if self.change else None
        return Part(self.text, self.kind, self.keyword, self.start, change)


@dataclass(frozen=True, slots=True)
class Kept:
    """A name on the shortlist."""

    label: Label
    extension: Annotated[AnyExtension, Field(description="Of a full name; empty for a name")] = ""
    note: Annotated[str, Text(2_000)] = ""
    tags: Annotated[tuple[Annotated[str, Text(30)], ...], Field(max_length=10)] = ()
    recipes: Annotated[tuple[Annotated[str, Text(20)], ...], Field(max_length=20)] = ()
    parts: Annotated[
        tuple[Annotated[PartItem, BeforeValidator(_named)], ...], Field(max_length=20)
    ] = ()
    strength: Annotated[float, Amount(0, 1)] = 0.0
    kept_at: Annotated[str, Text(40)] = ""


def _of_its_parts(kept: Kept) -> Kept:
    if not all(kept.label.startswith(part.text, part.start) for part in kept.parts):
        raise refusal(UNREADABLE)
    return kept


@dataclass(frozen=True, slots=True)
class Duel:
    """What was preferred to what."""

    winner: Label
    loser: Label
    tie: YesNo = False


@dataclass(frozen=True)
class ShortlistFields:
    """What the file has of the shortlist."""

    shortlist: Annotated[
        tuple[Annotated[Kept, AfterValidator(_of_its_parts)], ...],
        Field(max_length=300, description="In the person's order"),
    ] = ()
    duels: Annotated[tuple[Duel, ...], Field(max_length=5_000)] = ()


def write(project: Project) -> dict[str, Any]:
    """The fields' values as documents have them."""
    return {
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
    }  # fmt: skip


def bring(brought: Bringing) -> None:
    """Store what a file had of them."""
    project = brought.project
    _shelve(project, brought.file.shortlist)
    DuelRow.objects.bulk_create(
        [
            DuelRow(project=project, winner=d.winner, loser=d.loser, tie=d.tie)
            for d in brought.file.duels
        ],
        BATCH,
    )


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
