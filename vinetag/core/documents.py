"""Documents from outside (JSON as dicts and lists) read and written by one typed model each, with
every problem told at once, at its path. The JSON Schemas in docs/ are made from the same models.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Final, Generic, TypeVar

from pydantic import GetCoreSchemaHandler, GetJsonSchemaHandler, TypeAdapter, ValidationError
from pydantic.json_schema import GenerateJsonSchema, JsonSchemaValue
from pydantic_core import CoreSchema, PydanticCustomError, core_schema

from vinetag.core.errors import CoreError, Problem

__all__ = [
    "UNREADABLE", "Amount", "Between", "Document", "Line", "Marker", "Named", "OneOf", "Read",
    "Text", "each_once", "refusal", "valid_items", "valid_part",
]  # fmt: skip

T = TypeVar("T")
LONGEST_TOLD: Final = 40
CHOICES_TOLD: Final = 25
REFUSED: Final = "refused"
UNREADABLE: Final = "entry_unreadable"
DIALECT: Final = "https://json-schema.org/draft/2020-12/schema"

# What the library calls it, and our code.
_CODES: Final[Mapping[str, str]] = {
    "string_type": "not_text",
    "missing": "blank",
    "int_type": "not_number",
    "float_type": "not_number",
    "finite_number": "not_number",
    "bool_type": "not_yes_no",
    "tuple_type": "not_list",
    "list_type": "not_list",
    "dict_type": "not_object",
    "dataclass_type": "not_object",
    "unexpected_keyword_argument": "unknown_field",
    "too_long": "too_many",
    "too_short": "too_few",
}


def refusal(code: str, **args: object) -> PydanticCustomError:
    """What a validator raises: a code of core/errors.py and its arguments."""
    return PydanticCustomError(REFUSED, "refused", {"code": code, "args": args})


class Document(Generic[T]):
    """A kind of document: how it is read, written and described.

    `fault` is the error raised for one that cannot be read; `across` tells what is wrong between
    parts that are each right, of documents that may be wrong elsewhere.
    """

    def __init__(
        self,
        model: type[T],
        fault: type[CoreError],
        across: Callable[[object], Sequence[Problem]] = lambda _: (),
    ) -> None:
        self._adapter: TypeAdapter[T] = TypeAdapter(model)
        self._fault, self._across = fault, across

    def read(self, document: object, context: Mapping[str, object] | None = None) -> T:
        """Raises the fault with every problem; what is missing takes its default. `context` is
        what validators of the model may ask for.
        """
        try:
            read, problems = self._adapter.validate_python(document, context=context), []
        except ValidationError as error:
            read, problems = None, _problems(error)
        problems += self._across(document)
        if problems or read is None:
            raise self._fault(*problems)
        return read

    def write(self, value: T) -> dict[str, Any]:
        """The document's form: `read` gives the same back."""
        written: dict[str, Any] = self._adapter.dump_python(value, mode="json", by_alias=True)
        return written

    def schema(self, title: str, description: str) -> dict[str, Any]:
        """Its JSON Schema (draft 2020-12)."""
        made = self._adapter.json_schema(schema_generator=_Schema)
        return {"$schema": DIALECT, **made, "title": title, "description": description}


def valid_part(adapter: TypeAdapter[T], document: object, part: str) -> T | None:
    """A part of a document if it can be read."""
    try:
        return adapter.validate_python(document.get(part)) if isinstance(document, dict) else None
    except ValidationError:
        return None


def valid_items(adapter: TypeAdapter[T], document: object, part: str) -> list[tuple[int, T]]:
    """The entries of a list in a document that can be read, each with its place."""
    given = document.get(part) if isinstance(document, dict) else None
    found = []
    for i, item in enumerate(given if isinstance(given, list) else ()):
        try:
            found.append((i, adapter.validate_python(item)))
        except ValidationError:
            continue
    return found


def _problems(error: ValidationError) -> list[Problem]:
    return [_problem(fault) for fault in error.errors(include_url=False)]


def _problem(fault: Any) -> Problem:
    said, where = fault.get("ctx", {}), [str(step)[:LONGEST_TOLD] for step in fault["loc"]]
    if where and where[-1] == "[key]":
        where.pop()
    path = ".".join(where)
    if fault["type"] == REFUSED:
        return Problem(path, said["code"], said["args"])
    code = _CODES.get(fault["type"], UNREADABLE)
    match code:
        case "unknown_field":
            return Problem(path, code, {"field": where[-1]})
        case "too_many":
            return Problem(path, code, {"limit": said["max_length"], "count": len(fault["input"])})
        case "too_few":
            return Problem(path, code, {"limit": said["min_length"]})
    return Problem(path, code)


class _Schema(GenerateJsonSchema):
    """Without titles made of the fields' names, which say nothing."""

    def field_title_should_be_set(self, schema: Any) -> bool:  # noqa: ARG002 - the library's
        return False

    def default_schema(self, schema: Any) -> JsonSchemaValue:
        """A mapping is kept as pairs, and without any is an empty mapping."""
        made = super().default_schema(schema)
        pairs = made.get("type") == "object" and made.get("default") == []
        return {**made, "default": {}} if pairs else made


class Marker:
    """An annotation that reads a value by its own rule, after the library has seen to its type."""

    def base(self) -> CoreSchema:
        return core_schema.str_schema(strict=True)

    def read(self, value: Any) -> Any:
        """The value as it is kept; raises a refusal."""
        raise NotImplementedError

    def read_in(self, value: Any, _context: Mapping[str, Any], /) -> Any:
        """The same by what the reader was told, where that matters."""
        return self.read(value)

    def written(self, value: Any) -> Any:
        """The value as documents have it."""
        return value

    def described(self) -> JsonSchemaValue:
        """The JSON Schema of the value in documents."""
        raise NotImplementedError

    def __get_pydantic_core_schema__(self, _: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        written = core_schema.plain_serializer_function_ser_schema(self.written)
        if type(self).read_in is Marker.read_in:
            return core_schema.no_info_after_validator_function(
                self.read, self.base(), serialization=written
            )
        return core_schema.with_info_after_validator_function(
            lambda value, info: self.read_in(value, info.context or {}),
            self.base(),
            serialization=written,
        )

    def __get_pydantic_json_schema__(
        self, schema: CoreSchema, handler: GetJsonSchemaHandler
    ) -> JsonSchemaValue:
        return self.described()


@dataclass(frozen=True)
class Between(Marker):
    """A whole number, both bounds included."""

    low: float
    high: float

    def base(self) -> CoreSchema:
        return core_schema.int_schema(strict=True)

    def read(self, value: float) -> float:
        if not self.low <= value <= self.high:
            raise refusal("out_of_range", value=value, low=self.low, high=self.high)
        return value

    def described(self) -> JsonSchemaValue:
        return {"type": "integer", "minimum": self.low, "maximum": self.high}


@dataclass(frozen=True)
class Amount(Between):
    """A number that need not be whole, both bounds included."""

    def base(self) -> CoreSchema:
        return core_schema.float_schema(strict=True, allow_inf_nan=False)

    def described(self) -> JsonSchemaValue:
        return {"type": "number", "minimum": self.low, "maximum": self.high}


@dataclass(frozen=True)
class Text(Marker):
    """Text as it is, of so many characters at most."""

    limit: int

    def read(self, value: str) -> str:
        if len(value) > self.limit:
            raise refusal("too_long", limit=self.limit, length=len(value))
        return value

    def described(self) -> JsonSchemaValue:
        return {"type": "string", "maxLength": self.limit}


@dataclass(frozen=True)
class Line(Text):
    """The same on one line; spaces in a row count as one."""

    def read(self, value: str) -> str:
        return super().read(" ".join(value.split()))


@dataclass(frozen=True)
class OneOf(Marker):
    """One of some words, and of those the context of reading has under `more`."""

    choices: tuple[str, ...]
    more: str = ""

    def base(self) -> CoreSchema:
        return core_schema.any_schema()

    def read_in(self, value: Any, context: Mapping[str, Any], /) -> str:
        choices = (*self.choices, *context.get(self.more, ()))
        if isinstance(value, str) and value in choices:
            return value
        raise self.refused(str(value)[:LONGEST_TOLD], [choice for choice in choices if choice])

    def read(self, value: Any) -> str:
        return self.read_in(value, {})

    def refused(self, value: str, choices: Sequence[str], /) -> PydanticCustomError:
        """What is told of another word."""
        listed = ", ".join(choices[:CHOICES_TOLD]) + (" …" if len(choices) > CHOICES_TOLD else "")
        return refusal("unknown_choice", value=value, choices=listed)

    def described(self) -> JsonSchemaValue:
        return {"type": "string"} if self.more else {"type": "string", "enum": [*self.choices]}


@dataclass(frozen=True)
class Named(OneOf):
    """The name of a field, one of some."""

    def refused(self, value: str, _choices: Sequence[str], /) -> PydanticCustomError:
        return refusal("unknown_field", field=value)


@dataclass(frozen=True)
class Read(Marker):
    """Text by a rule: `rule` gives what is read or raises a refusal, or an error of the core with
    the problems. In documents it is written by `write`.
    """

    rule: Callable[[str], Any]
    schema: Mapping[str, Any]
    write: Callable[[Any], Any] = str

    def read(self, value: str) -> Any:
        try:
            return self.rule(value)
        except CoreError as error:
            first = error.problems[0]
            raise refusal(first.code, **first.args) from None

    def written(self, value: Any) -> Any:
        return self.write(value)

    def described(self) -> JsonSchemaValue:
        return dict(self.schema)


def each_once(values: tuple[T, ...]) -> tuple[T, ...]:
    """In their order, without blanks and repetitions."""
    return tuple(dict.fromkeys(value for value in values if value))
