"""A project as one document: the typed schema both its file and its copy are read by.

docs/project.schema.json describes the same for others. Nothing a file says is believed further than
this: what is longer, larger, of another kind or at no possible time is told with its place.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from datetime import UTC, datetime
from decimal import Decimal
from typing import Annotated, Any, Final, Literal, TypeVar

import msgspec
from msgspec import Meta, Raw, Struct

from vinetag.core.checking import Purpose, Says, Source, Status, Trouble
from vinetag.core.errors import CoreError, Problem
from vinetag.core.extensions import parse_extension
from vinetag.core.money import amount_of
from vinetag.core.names import parse_label

__all__ = [
    "FORMAT", "VERSION", "Answer", "Document", "Duel", "Kept", "Listed", "PastAnswer", "View",
    "read_document",
]  # fmt: skip

FORMAT: Final = "vinetag-project"
VERSION: Final = 1
EARLIEST: Final = datetime(1970, 1, 1, tzinfo=UTC)
LATEST: Final = datetime(9990, 1, 1, tzinfo=UTC)
MOST_TOLD: Final = 50

Label = Annotated[str, Meta(max_length=253)]
Text = Annotated[str, Meta(max_length=300)]


class Price(Decimal):
    """An amount as a file has it: digits as text, or a number as earlier versions wrote it."""


PartKind = Literal[
    "keyword", "kin", "name", "lead", "tail", "place", "hyphen", "form", "affix", "blend", "clip",
    "respell", "mirror", "invent", "initials", "acrossdot", "word", "world", "small", "ending",
]  # fmt: skip
T = TypeVar("T", bound=Struct)


class View(Struct):
    name: Annotated[str, Meta(max_length=40)]
    search: Annotated[str, Meta(max_length=2_000)]


class Part(Struct, array_like=True):
    text: Annotated[str, Meta(max_length=63)]
    kind: PartKind
    keyword: Text
    start: Annotated[int, Meta(ge=0, le=62)]
    change: Text = ""


class Kept(Struct):
    label: Label
    extension: Annotated[str, Meta(max_length=63)] = ""
    note: Annotated[str, Meta(max_length=2_000)] = ""
    tags: Annotated[list[Annotated[str, Meta(max_length=30)]], Meta(max_length=10)] = []
    recipes: Annotated[list[Annotated[str, Meta(max_length=20)]], Meta(max_length=20)] = []
    parts: Annotated[list[Part], Meta(max_length=20)] = []
    strength: Annotated[float, Meta(ge=0, le=1)] = 0.0


class Duel(Struct):
    winner: Label
    loser: Label
    tie: bool = False


class Listed(Struct):
    label: Label
    extensions: Annotated[
        list[Annotated[str, Meta(max_length=64)]], Meta(min_length=1, max_length=40)
    ]


class Quote(Struct):
    currency: Annotated[str, Meta(pattern=r"^[A-Z]{3}\Z")]
    first_year: Price | None = None
    renewal: Price | None = None
    asked: Price | None = None


class EvidenceItem(Struct):
    source: Source
    says: Says
    at: datetime
    address: Annotated[str, Meta(max_length=1_000)] = ""
    trouble: Trouble = ""
    detail: Text = ""
    registrar: Text = ""
    holder: Text = ""
    registered: datetime | None = None
    expires: datetime | None = None
    changed: datetime | None = None
    statuses: Annotated[list[Annotated[str, Meta(max_length=60)]], Meta(max_length=40)] = []
    drops: tuple[datetime, datetime] | None = None
    quote: Quote | None = None


class PastAnswer(Struct):
    label: Label
    extension: Annotated[str, Meta(max_length=63)]
    status: Status
    asked_at: datetime
    likely: bool = False
    trouble: Trouble = ""


class Answer(Struct):
    label: Label
    extension: Annotated[str, Meta(max_length=63)]
    status: Status
    asked_at: datetime | None = None
    likely: bool = False
    trouble: Trouble = ""
    purpose: Purpose = "scan"
    evidence: Annotated[list[EvidenceItem], Meta(max_length=8)] = []
    registered: datetime | None = None
    expires: datetime | None = None
    drops_from: datetime | None = None
    drops_to: datetime | None = None
    currency: Annotated[str, Meta(pattern=r"^([A-Z]{3})?\Z")] = ""
    first_year: Price | None = None
    renewal: Price | None = None
    holder_asks: Price | None = None


class Looked(Struct):
    seen: list[Label] = []
    later: list[Label] = []


class Document(Struct):
    """A project as it is read: every label parsed, every moment aware and possible."""

    name: str
    brief: dict[str, Any]
    seed: int
    view: str
    views: Sequence[View]
    shortlist: Sequence[Kept]
    duels: Sequence[Duel]
    dismissed: Sequence[str]
    looked: Looked
    pasted: Sequence[Listed]
    answers: Sequence[Answer]
    past_answers: Sequence[PastAnswer]


class _Envelope(Struct):
    """The file with its lists unread, so that one bad entry does not hide the others."""

    format: Raw = Raw(b"null")
    version: Raw = Raw(b"null")
    name: Raw = Raw(b'""')
    brief: Raw = Raw(b"{}")
    seed: Raw = Raw(b"1")
    view: Raw = Raw(b'""')
    views: Raw = Raw(b"[]")
    shortlist: Raw = Raw(b"[]")
    duels: Raw = Raw(b"[]")
    dismissed: Raw = Raw(b"[]")
    looked: Raw = Raw(b"{}")
    pasted: Raw = Raw(b"[]")
    answers: Raw = Raw(b"[]")
    past_answers: Raw = Raw(b"[]")


MOST: Final = {
    "views": 30, "shortlist": 300, "duels": 5_000, "dismissed": 20_000, "looked": 50_000,
    "pasted": 5_000, "answers": 200_000, "past_answers": 200_000,
}  # fmt: skip


def read_document(content: bytes) -> tuple[Document | None, list[Problem]]:
    """The document, or what is wrong with it, each problem with its path, up to MOST_TOLD."""
    try:
        envelope = msgspec.json.decode(content, type=_Envelope)
    except msgspec.ValidationError:
        return None, [Problem("file", "not_project")]
    except (msgspec.DecodeError, UnicodeDecodeError, RecursionError) as error:
        return None, [Problem("file", "not_json", {"detail": str(error)[:120]})]
    if bytes(envelope.format) != b'"%s"' % FORMAT.encode():
        return None, [Problem("file", "not_project")]
    if bytes(envelope.version) != b"%d" % VERSION:
        said = bytes(envelope.version)[:20].decode("utf-8", "replace")
        return None, [Problem("version", "version_unknown", {"version": said, "known": VERSION})]
    return _Reader(envelope).read()


def _amount(kind: type, given: object) -> Price:
    if kind is not Price or isinstance(given, bool):
        raise ValueError("not an amount")
    return Price(amount_of(given))


class _Reader:
    def __init__(self, envelope: _Envelope) -> None:
        self._envelope = envelope
        self.problems: list[Problem] = []

    def read(self) -> tuple[Document | None, list[Problem]]:
        text = Annotated[str, Meta(max_length=2_000)]
        looked = self._one("looked", Looked, "entry_unreadable") or Looked()
        document = Document(
            name=self._one("name", Annotated[str, Meta(max_length=80)], "not_text") or "",
            brief=self._one("brief", dict[str, Any], "not_object") or {},
            seed=self._one("seed", Annotated[int, Meta(ge=0, lt=2**31)], "not_number") or 0,
            view=self._one("view", text, "not_text") or "",
            views=self._items("views", View),
            shortlist=self._items("shortlist", Kept, _kept),
            duels=self._items("duels", Duel, _duel),
            dismissed=[one.label for one in self._items("dismissed", _Bare, _labelled)],
            looked=Looked(self._labels("seen", looked.seen), self._labels("later", looked.later)),
            pasted=self._items("pasted", Listed, _listed),
            answers=self._items("answers", Answer, _answer),
            past_answers=self._items("past_answers", PastAnswer, _past),
        )
        return (None if self.problems else document), self.problems

    def _one(self, name: str, kind: Any, code: str) -> Any:
        try:
            return msgspec.json.decode(getattr(self._envelope, name), type=kind)
        except (msgspec.DecodeError, RecursionError):
            self._tell(Problem(name, code))
            return None

    def _items(
        self, name: str, kind: type[T], check: Callable[[T], None] = lambda _: None
    ) -> list[T]:
        """A list, each entry read; entries that cannot be are told by their place."""
        try:
            given = msgspec.json.decode(getattr(self._envelope, name), type=list[Raw])
        except msgspec.DecodeError:
            self._tell(Problem(name, "not_list"))
            return []
        if len(given) > MOST[name]:
            self._tell(Problem(name, "too_many", {"limit": MOST[name], "count": len(given)}))
            return []
        decoder, found = msgspec.json.Decoder(kind, dec_hook=_amount), []
        for i, raw in enumerate(given):
            try:
                one = decoder.decode(raw if kind is not _Bare else b'{"label":%s}' % bytes(raw))
                check(one)
                found.append(one)
            except CoreError as error:
                told = {"text": error.problems[0].text()}
                self._tell(Problem(f"{name}.{i}", "as_told", told))
            except (msgspec.DecodeError, ValueError, OverflowError, RecursionError):
                self._tell(Problem(f"{name}.{i}", "entry_unreadable"))
        return found

    def _labels(self, name: str, labels: Sequence[str]) -> list[str]:
        if len(labels) > MOST["looked"]:
            much = {"limit": MOST["looked"], "count": len(labels)}
            self._tell(Problem(f"looked.{name}", "too_many", much))
            return []
        found = []
        for i, label in enumerate(labels):
            try:
                found.append(parse_label(label))
            except CoreError as error:
                told = {"text": error.problems[0].text()}
                self._tell(Problem(f"looked.{name}.{i}", "as_told", told))
        return list(dict.fromkeys(found))

    def _tell(self, problem: Problem) -> None:
        if len(self.problems) < MOST_TOLD:
            self.problems.append(problem)


class _Bare(Struct):
    label: Label


def _labelled(one: Any) -> None:
    one.label = parse_label(one.label)


def _kept(one: Kept) -> None:
    _labelled(one)
    one.extension = parse_extension(one.extension) if one.extension else ""
    for part in one.parts:
        if not one.label.startswith(part.text, part.start):
            raise ValueError("a part that is not in the name")


def _duel(one: Duel) -> None:
    one.winner, one.loser = parse_label(one.winner), parse_label(one.loser)


def _listed(one: Listed) -> None:
    _labelled(one)
    one.extensions = list(dict.fromkeys(parse_extension(e) for e in one.extensions))


def _past(one: PastAnswer) -> None:
    _labelled(one)
    one.extension = parse_extension(one.extension)
    one.asked_at = _possible(one.asked_at, past=True)


def _answer(one: Answer) -> None:
    _labelled(one)
    one.extension = parse_extension(one.extension)
    if one.asked_at:
        one.asked_at = _possible(one.asked_at, past=True)
    for holder in (one, *one.evidence):
        for name in ("registered", "expires", "changed", "drops_from", "drops_to"):
            if moment := getattr(holder, name, None):
                setattr(holder, name, _possible(moment))
    for evidence in one.evidence:
        evidence.at = _possible(evidence.at, past=True)
        if evidence.drops:
            evidence.drops = _possible(evidence.drops[0]), _possible(evidence.drops[1])


def _possible(moment: datetime, *, past: bool = False) -> datetime:
    """The moment in UTC; what is said to have been asked in the future was asked now at the
    latest. Raises ValueError or OverflowError for one no calendar here can hold.
    """
    aware = moment.astimezone(UTC) if moment.tzinfo else moment.replace(tzinfo=UTC)
    if not EARLIEST <= aware <= LATEST:
        raise ValueError("a moment at the ends of time")
    return min(aware, datetime.now(UTC)) if past else aware
