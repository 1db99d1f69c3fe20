"""Reading a brief from a document, in the interface and on the command line alike. Every problem is
collected, not the first.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from typing import Any, Final

from pydantic import TypeAdapter

from vinetag.core.brief.fields import Extension, Rung, Word
from vinetag.core.brief.model import AnyKeyword, Brief, Keyword, Limits
from vinetag.core.documents import Document, valid_items, valid_part
from vinetag.core.errors import BriefError, Problem

__all__ = ["brief_document", "brief_schema", "parse_brief", "parse_what_is_valid"]

_KEYWORD: Final[TypeAdapter[Keyword]] = TypeAdapter(AnyKeyword)
_LIMITS: Final[TypeAdapter[Limits]] = TypeAdapter(Limits)
_LISTED: Final[Mapping[str, TypeAdapter[str]]] = {
    "avoid": TypeAdapter(Word),
    "extensions": TypeAdapter(Extension),
    "fallback": TypeAdapter(Rung),
}
SCHEMA_SAYS: Final = (
    "What is being named, and within which limits. Everything left out takes its default."
)


def _across(document: object) -> list[Problem]:
    """What is wrong between parts that can be read, whatever else is wrong."""
    keywords = [(i, k.text) for i, k in valid_items(_KEYWORD, document, "keywords")]
    avoided = {word for _, word in valid_items(_LISTED["avoid"], document, "avoid")}
    problems = [
        *_repeated("fallback", valid_items(_LISTED["fallback"], document, "fallback")),
        *_repeated("keywords", keywords),
        *_repeated("extensions", valid_items(_LISTED["extensions"], document, "extensions")),
    ]
    limits = valid_part(_LIMITS, document, "limits")
    if limits and limits.letters_min > limits.letters_max:
        args = {"low": limits.letters_min, "high": limits.letters_max}
        problems.append(Problem("limits.letters_min", "min_over_max", args))
    problems += (
        Problem(f"keywords.{i}.text", "avoided_keyword", {"value": text})
        for i, text in keywords
        if text in avoided
    )
    return problems


def _repeated(part: str, entries: Sequence[tuple[int, str]]) -> Iterator[Problem]:
    met: set[str] = set()
    for i, value in entries:
        if value in met:
            yield Problem(f"{part}.{i}", "repeated", {"value": value})
        met.add(value)


_DOCUMENT: Final = Document(Brief, BriefError, _across)


def parse_brief(document: object) -> Brief:
    """Read a brief document; what is missing takes its default.

    Raises BriefError with every problem and its path (`keywords.3.text`).
    """
    return _DOCUMENT.read(document)


def brief_document(brief: Brief) -> dict[str, Any]:
    """The document form of a brief: `parse_brief` gives the same brief back."""
    return _DOCUMENT.write(brief)


def brief_schema() -> dict[str, Any]:
    """The JSON Schema of a brief's document, as docs/brief.schema.json has it."""
    return _DOCUMENT.schema("Brief", SCHEMA_SAYS)


def parse_what_is_valid(document: object, before: Brief) -> tuple[Brief, Sequence[Problem]]:
    """Read as much of a brief document as makes sense: an entry of a list that does not is left
    out, any other part is as it was `before`. The problems are those parse_brief would raise.
    """
    try:
        return parse_brief(document), ()
    except BriefError as error:
        problems = error.problems
    if not isinstance(document, dict):
        return before, problems
    kept = brief_document(before)
    tried, wrong = {k: v for k, v in document.items() if k in kept}, list(problems)
    for _ in range(3):
        places: dict[str, set[int]] = {}
        for problem in wrong:
            part, _, rest = problem.path.partition(".")
            at = rest.partition(".")[0]
            if at.isdecimal() and isinstance(tried.get(part), list):
                places.setdefault(part, set()).add(int(at))
            elif part in kept:
                tried[part] = kept[part]
                places.pop(part, None)
        for part, bad in places.items():
            tried[part] = [item for i, item in enumerate(tried[part]) if i not in bad]
        try:
            return parse_brief(tried), problems
        except BriefError as error:
            wrong = list(error.problems)
    return before, problems
