"""A project as one document: the typed model both its file and its copy are read by.

docs/project.schema.json is made from it. Nothing a file says is believed further than this: what is
longer, larger, of another kind or at no possible time is told with its place.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import UTC, datetime
from decimal import Decimal
from typing import Annotated, Any, Final, get_args

import msgspec
from pydantic import AfterValidator, BeforeValidator, Field
from pydantic_core import CoreSchema, core_schema

from vinetag.core.candidates import Part
from vinetag.core.checking import STATUSES, Evidence, Purpose, Status, Trouble, read_evidence
from vinetag.core.concepts import CHANGES, PART_KINDS, Change, PartName
from vinetag.core.documents import (
    Amount,
    Between,
    Document,
    Line,
    Marker,
    OneOf,
    Read,
    Text,
    each_once,
    refusal,
)
from vinetag.core.errors import CoreError, Problem
from vinetag.core.extensions import parse_extension
from vinetag.core.money import amount_of
from vinetag.core.names import parse_label

__all__ = [
    "FORMAT", "VERSION", "Answer", "Duel", "Kept", "Listed", "PastAnswer", "ProjectFile", "View",
    "project_schema", "read_document",
]  # fmt: skip

FORMAT: Final = "vinetag-project"
VERSION: Final = 1
EARLIEST: Final = datetime(1970, 1, 1, tzinfo=UTC)
LATEST: Final = datetime(9990, 1, 1, tzinfo=UTC)
MOST_TOLD: Final = 50
LONGEST_LABEL: Final = 253
UNREADABLE: Final = "entry_unreadable"
SCHEMA_SAYS: Final = (
    "A project as one file. Made names are not in it: the brief and the seed make them again."
)


class FileError(CoreError):
    """A project's file cannot be read, each problem at its place."""


class _Anything(Marker):
    """A value of more than one type in documents."""

    def base(self) -> CoreSchema:
        return core_schema.any_schema()


@dataclass(frozen=True)
class _Moment(_Anything):
    """A date and time, in UTC; with `past`, what is said to lie in the future was now."""

    past: bool = False

    def read(self, value: Any) -> datetime:
        try:
            return _possible(datetime.fromisoformat(value), past=self.past)
        except (TypeError, ValueError, OverflowError):
            raise refusal(UNREADABLE) from None

    def described(self) -> dict[str, Any]:
        return {"type": "string", "format": "date-time"}


class _Price(_Anything):
    """An amount: digits as text, or a number as earlier versions wrote it."""

    def read(self, value: Any) -> Decimal:
        try:
            if isinstance(value, str | int | float) and not isinstance(value, bool):
                return amount_of(value)
        except ValueError:
            pass
        raise refusal(UNREADABLE)

    def described(self) -> dict[str, Any]:
        return {"type": ["string", "number"], "pattern": r"^[0-9]+(\.[0-9]{1,3})?$"}


class _Said(_Anything):
    """What one source said, as vinetag.core.checking writes it, within bounds."""

    def read(self, value: Any) -> Evidence:
        try:
            said = read_evidence(value)
            texts = (said.detail, said.registrar, said.holder, *said.statuses)
            long = len(said.address) > 1_000 or any(len(text) > 300 for text in texts)
            if long or len(said.statuses) > 40:
                raise refusal(UNREADABLE)
            return _dated(said)
        except (ValueError, OverflowError, TypeError):
            raise refusal(UNREADABLE) from None

    def described(self) -> dict[str, Any]:
        return {"type": "object"}


class _JsonObject(_Anything):
    """An object that is read elsewhere."""

    def read(self, value: Any) -> dict[str, Any]:
        if isinstance(value, dict):
            return value
        raise refusal("not_object")

    def described(self) -> dict[str, Any]:
        return {"type": "object"}


def _label(typed: str) -> str:
    if len(typed) > LONGEST_LABEL:
        raise refusal("too_long", limit=LONGEST_LABEL, length=len(typed))
    return parse_label(typed)


def _possible(moment: datetime, *, past: bool = False) -> datetime:
    """The moment in UTC; what is said to have been asked in the future was asked now at the
    latest. Raises ValueError or OverflowError for one no calendar here can hold.
    """
    aware = moment.astimezone(UTC) if moment.tzinfo else moment.replace(tzinfo=UTC)
    if not EARLIEST <= aware <= LATEST:
        raise ValueError("a moment at the ends of time")
    return min(aware, datetime.now(UTC)) if past else aware


def _dated(said: Evidence) -> Evidence:
    moments: dict[str, Any] = {"at": _possible(said.at, past=True)}
    for name in ("registered", "expires", "changed"):
        if moment := getattr(said, name):
            moments[name] = _possible(moment)
    if said.drops:
        moments["drops"] = (_possible(said.drops[0]), _possible(said.drops[1]))
    return msgspec.structs.replace(said, **moments)


LABEL_SCHEMA: Final = {
    "type": "string",
    "maxLength": 63,
    "description": "A name without extension, as in the DNS (RFC 1035; RFC 5891 for other letters)",
}
EXTENSION_SCHEMA: Final = {"type": "string", "description": "Without its first dot"}
CURRENCY_SCHEMA: Final = {
    "type": "string",
    "pattern": "^([A-Z]{3})?$",
    "description": "ISO 4217",
}


def _extension_or_none(typed: str) -> str:
    return parse_extension(typed) if typed else ""


def _currency(typed: str) -> str:
    if typed and not (len(typed) == 3 and typed.isascii() and typed.isalpha() and typed.isupper()):
        raise refusal(UNREADABLE)
    return typed


Label = Annotated[str, Read(_label, LABEL_SCHEMA)]
Extension = Annotated[str, Read(parse_extension, EXTENSION_SCHEMA)]
AnyExtension = Annotated[str, Read(_extension_or_none, EXTENSION_SCHEMA)]
Currency = Annotated[str, Read(_currency, CURRENCY_SCHEMA)]
Price = Annotated[Annotated[Decimal, _Price()] | None, Field()]
Past = Annotated[datetime, _Moment(past=True)]
Moment = Annotated[Annotated[datetime, _Moment()] | None, Field()]
Troubled = Annotated[Trouble, OneOf(get_args(Trouble))]
YesNo = Annotated[bool, Field(strict=True)]
Once = AfterValidator(each_once)


@dataclass(frozen=True, slots=True)
class View:
    """A view of the sheet kept under a name."""

    name: Annotated[str, Text(40)]
    search: Annotated[str, Text(2_000)]


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
    purpose: Annotated[Purpose, OneOf(get_args(Purpose))] = "scan"
    evidence: Annotated[
        tuple[Annotated[Evidence, _Said()], ...],
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


Labels = Annotated[tuple[Label, ...], Field(max_length=50_000), Once]


@dataclass(frozen=True, slots=True)
class Looked:
    """Names somebody has looked at, and put off."""

    seen: Labels = ()
    later: Labels = ()


@dataclass(frozen=True, slots=True)
class ProjectFile:
    """A project as it is read: every label parsed, every moment aware and possible."""

    format: Annotated[str, OneOf((FORMAT,))] = FORMAT
    version: Annotated[int, Between(VERSION, VERSION)] = VERSION
    written_at: Annotated[str, Text(40), Field(description="When the file was made")] = ""
    name: Annotated[str, Line(80)] = ""
    brief: Annotated[dict[str, Any], _JsonObject()] = field(default_factory=dict)
    seed: Annotated[
        int,
        Between(0, 2**31 - 1),
        Field(description="With the brief it makes the same names again"),
    ] = 1
    view: Annotated[
        str,
        Text(2_000),
        Field(description="The sheet as looked at last, the query of an address"),
    ] = ""
    views: Annotated[tuple[View, ...], Field(max_length=30)] = ()
    shortlist: Annotated[
        tuple[Annotated[Kept, AfterValidator(_of_its_parts)], ...],
        Field(max_length=300, description="In the person's order"),
    ] = ()
    duels: Annotated[tuple[Duel, ...], Field(max_length=5_000)] = ()
    dismissed: Annotated[tuple[Label, ...], Field(max_length=20_000)] = ()
    looked: Looked = Looked()
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


_DOCUMENT: Final = Document(ProjectFile, FileError)


def read_document(content: bytes) -> tuple[ProjectFile | None, list[Problem]]:
    """The document, or what is wrong with it, each problem with its path, up to MOST_TOLD."""
    try:
        given = msgspec.json.decode(content)
    except (msgspec.DecodeError, UnicodeDecodeError, RecursionError) as error:
        return None, [Problem("file", "not_json", {"detail": str(error)[:120]})]
    if not isinstance(given, dict) or given.get("format") != FORMAT:
        return None, [Problem("file", "not_project")]
    if (said := given.get("version")) != VERSION:
        told = {"version": str(said)[:20], "known": VERSION}
        return None, [Problem("version", "version_unknown", told)]
    try:
        return _DOCUMENT.read(given), []
    except FileError as error:
        return None, list(error.problems[:MOST_TOLD])


def project_schema() -> dict[str, Any]:
    """The JSON Schema of a project's file, as docs/project.schema.json has it: of a file as it is
    written. When it is read, what is missing takes its default.
    """
    schema = _DOCUMENT.schema("Project", SCHEMA_SAYS)
    schema["properties"]["brief"] = {"$ref": "brief.schema.json"}
    return {**schema, "required": [*schema["properties"]]}
