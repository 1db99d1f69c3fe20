"""What is asked of the sheet."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, fields
from decimal import Decimal
from typing import Any, Final

from vinetag.core.brief import MEASURE_NAMES, RECIPE_NAMES
from vinetag.core.errors import Problem, QuestionError
from vinetag.core.money import amount_of
from vinetag.core.sheet.columns import ADDED_NAMES, STATUS_NAMES

__all__ = ["MARKS", "RANGES", "SORTS", "Question", "parse_question"]

RANGES: Final = ("letters", "syllables", "words")
MARKS: Final = ("", "kept", "later", "fresh", "dismissed")
# Beside these, an extension with its dot orders by status there.
SORTS: Final = ("best", "grade", "name", *RANGES, "price", *MEASURE_NAMES)
MOST_TEXT = 63
EITHER: Final = ("", "yes", "no")


@dataclass(frozen=True, slots=True)
class Question:
    """Which names, in which order; the filters combine.

    `text`, `starts`, `ends`: letters of the label; the bounds are inclusive, None for none;
    `least`: (measure, the lowest score); `recipes` and `added` (parts of speech of an added word)
    and `status` (in any of the brief's extensions): any of them; `open_in`: extensions, or "any" or
    "all" for the brief's; `open_all`: open in every one of them; `price_max`: the most the first
    year costs anywhere it is known; `hyphen`, `digit`: "yes", "no" or ""; `mark`: "kept", "later",
    "fresh" (not looked at yet), "dismissed", or "" for all but those dismissed.
    """

    sort: str = "best"
    reverse: bool = False
    text: str = ""
    starts: str = ""
    ends: str = ""
    letters_min: int | None = None
    letters_max: int | None = None
    syllables_min: int | None = None
    syllables_max: int | None = None
    words_min: int | None = None
    words_max: int | None = None
    grade_min: float | None = None
    least: tuple[tuple[str, float], ...] = ()
    recipes: tuple[str, ...] = ()
    added: tuple[str, ...] = ()
    open_in: tuple[str, ...] = ()
    open_all: bool = False
    status: tuple[str, ...] = ()
    price_max: Decimal | None = None
    hyphen: str = ""
    digit: str = ""
    mark: str = ""


def parse_question(given: Mapping[str, str], extensions: tuple[str, ...]) -> Question:
    """Read an address's fields; lists are set apart by commas, least scores written measure:score.

    Raises QuestionError with a problem at each field that makes no sense. `extensions` are the
    brief's. Fields of other names are none of its business and passed over.
    """
    problems: list[Problem] = []
    read: dict[str, Any] = {}
    known = {field.name for field in fields(Question)}
    for name, raw in given.items():
        text = raw.strip()
        if name not in known or not text:
            continue
        try:
            read[name] = _value(name, text, extensions)
        except _Wrong as wrong:
            problems.append(Problem(name, wrong.code, wrong.told))
    if problems:
        raise QuestionError(*problems)
    return Question(**read)


class _Wrong(Exception):
    def __init__(self, code: str, told: Mapping[str, object]) -> None:
        self.code, self.told = code, told


def _value(name: str, text: str, extensions: tuple[str, ...]) -> object:
    if name in ("text", "starts", "ends"):
        if len(text) > MOST_TEXT:
            raise _Wrong("too_long", {"limit": MOST_TEXT, "length": len(text)})
        return text.lower()
    if name in ("reverse", "open_all"):
        return _one_of(text.lower(), ("1", "true", "0", "false")) in ("1", "true")
    if name in ("hyphen", "digit"):
        return _one_of(text, EITHER)
    if name == "mark":
        return _one_of(text, MARKS)
    if name == "sort":
        return _one_of(text, (*SORTS, *(f".{e}" for e in extensions)))
    if name == "least":
        pairs = [part.partition(":") for part in text.split(",")]
        return tuple((_one_of(m, MEASURE_NAMES), _number(score, 0, 100)) for m, _, score in pairs)
    if name == "open_in":
        parts = [part.removeprefix(".").lower() for part in text.split(",")]
        return tuple(_one_of(part, ("any", "all", *extensions)) for part in parts)
    choices = {"recipes": RECIPE_NAMES, "added": ADDED_NAMES, "status": STATUS_NAMES}.get(name)
    if choices:
        return tuple(_one_of(part, choices) for part in text.split(","))
    if name == "grade_min":
        return _number(text, 0, 100)
    if name == "price_max":
        return amount_of(_number(text, 0, 1_000_000))
    return int(_number(text, 0, MOST_TEXT))


def _one_of(value: str, choices: tuple[str, ...]) -> str:
    if value not in choices:
        told = {"value": value, "choices": ", ".join(choice for choice in choices if choice)}
        raise _Wrong("unknown_choice", told)
    return value


def _number(text: str, low: int, high: int) -> float:
    try:
        number = float(text)
    except ValueError:
        raise _Wrong("not_number", {}) from None
    if not low <= number <= high:
        raise _Wrong("out_of_range", {"low": low, "high": high, "value": text})
    return number
