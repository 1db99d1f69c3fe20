"""The pasted list and what is known of full names, in a project's file."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from typing import Annotated, Any, Final, get_args

from pydantic import AliasChoices, Field

from vinetag.apps.accounts.joining import Bringing
from vinetag.apps.availability.lists import pasted_list, put_list
from vinetag.apps.availability.models import Lookup
from vinetag.apps.availability.models import PastAnswer as PastRow
from vinetag.apps.naming.models import Project
from vinetag.core.checking import STATUSES, Aim, Evidence, Status, Trouble, write_evidence
from vinetag.core.documents import OneOf
from vinetag.core.filed import Currency, Extension, Label, Moment, Once, Past, Price, Said, YesNo
from vinetag.core.money import neat

__all__ = ["AvailabilityFields", "bring", "write"]

BATCH: Final = 500
ANSWER: Final = (
    "label", "extension", "status", "likely", "trouble", "aim", "evidence", "asked_at",
    "registered", "expires", "drops_from", "drops_to", "currency", "first_year", "renewal",
    "holder_asks",
)  # fmt: skip
PAST: Final = ("label", "extension", "status", "likely", "trouble", "asked_at")

Troubled = Annotated[Trouble, OneOf(get_args(Trouble))]


@dataclass(frozen=True, slots=True)
class Listed:
    """A name of the list that was pasted."""

    label: Label
    extensions: Annotated[tuple[Extension, ...], Field(min_length=1, max_length=40), Once]


@dataclass(frozen=True, slots=True)
class PastAnswer:
    """What was known before it was found to be otherwise."""

    label: Label
    extension: Extension
    status: Annotated[Status, OneOf(STATUSES)]
    asked_at: Past
    likely: Annotated[YesNo, Field(description="No source with authority has said so")] = False
    trouble: Annotated[Troubled, Field(description="Why it was unsure")] = ""


@dataclass(frozen=True, slots=True)
class Answer:
    """What is known of a full name."""

    label: Label
    extension: Extension
    status: Annotated[Status, OneOf(STATUSES)]
    asked_at: Past | None = None
    likely: Annotated[YesNo, Field(description="No source with authority has said so")] = False
    trouble: Annotated[Troubled, Field(description="Why it was unsure")] = ""
    # Files of before call it the purpose.
    aim: Annotated[
        Aim, OneOf(get_args(Aim)), Field(validation_alias=AliasChoices("aim", "purpose"))
    ] = "scan"
    evidence: Annotated[
        tuple[Annotated[Evidence, Said()], ...],
        Field(max_length=8, description="What each source said, when"),
    ] = ()
    registered: Moment = None
    expires: Moment = None
    drops_from: Moment = None
    drops_to: Moment = None
    currency: Currency = ""
    first_year: Price = None
    renewal: Price = None
    holder_asks: Price = None


@dataclass(frozen=True)
class AvailabilityFields:
    """What the file has of checks."""

    pasted: Annotated[tuple[Listed, ...], Field(max_length=5_000)] = ()
    answers: Annotated[
        tuple[Answer, ...],
        Field(
            max_length=200_000,
            description="What is known of full names, in the order the answers came",
        ),
    ] = ()
    past_answers: Annotated[
        tuple[PastAnswer, ...],
        Field(max_length=200_000, description="What was known before it was found to be otherwise"),
    ] = ()


def write(project: Project) -> dict[str, Any]:
    """The fields' values as documents have them."""
    return {
        "pasted": [
            {"label": label, "extensions": extensions}
            for label, extensions in pasted_list(project).items()
        ],
        "answers": [_written(row) for row in project.lookups.order_by("number").values(*ANSWER)],
        "past_answers": [
            _written(row) for row in project.past_answers.order_by("asked_at").values(*PAST)
        ],
    }


def bring(brought: Bringing) -> None:
    """Store what a file had of them."""
    project, file = brought.project, brought.file
    if file.pasted:
        put_list(project, {one.label: list(one.extensions) for one in file.pasted})
    past = (
        PastRow(project=project, **{name: getattr(one, name) for name in PAST})
        for one in file.past_answers
    )
    PastRow.objects.bulk_create(past, batch_size=BATCH)
    _answered(project, file.answers, brought.imported, brought.on_progress)


def _plain(value: Any) -> Any:
    if isinstance(value, datetime):
        return value.isoformat()
    return str(neat(value)) if isinstance(value, Decimal) else value


def _written(row: Mapping[str, Any]) -> dict[str, Any]:
    return {k: _plain(v) for k, v in row.items() if v is not None and v != "" and v != []}


def _answered(
    project: Project,
    answers: Sequence[Answer],
    imported: bool,
    on_progress: Callable[[float], None],
) -> None:
    unique = list({(one.label, one.extension): one for one in answers}.values())
    step = 20 * BATCH
    for start in range(0, len(unique), step):
        rows = [
            Lookup(project=project, number=n, imported=imported, **_row(one))
            for n, one in enumerate(unique[start : start + step], start + 1)
        ]
        Lookup.objects.bulk_create(rows, batch_size=BATCH)
        on_progress(min(1.0, (start + step) / len(unique)))
    project.answers = len(unique)
    project.save(update_fields=["answers"])


def _row(answer: Answer) -> dict[str, Any]:
    row = {name: getattr(answer, name) for name in ANSWER}
    row["evidence"] = [write_evidence(said) for said in answer.evidence]
    return row
