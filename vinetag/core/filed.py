"""Kinds of fields a project's file has, for whichever app they are of. Nothing a file says is
believed further than this.
"""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, datetime
from decimal import Decimal
from typing import Annotated, Any, ClassVar, Final

import msgspec
from pydantic import AfterValidator, Field
from pydantic_core import CoreSchema, core_schema

from vinetag.core.checking import Evidence, read_evidence
from vinetag.core.documents import UNREADABLE, Marker, Read, each_once, refusal
from vinetag.core.extensions import parse_extension
from vinetag.core.money import amount_of
from vinetag.core.names import parse_label

__all__ = [
    "AnyExtension", "Currency", "Extension", "JsonObject", "Label", "Moment", "Once", "Past",
    "PlainObject", "Price", "Said", "YesNo",
]  # fmt: skip

EARLIEST: Final = datetime(1970, 1, 1, tzinfo=UTC)
LATEST: Final = datetime(9990, 1, 1, tzinfo=UTC)
LONGEST_LABEL: Final = 253


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


class Said(_Anything):
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


class JsonObject(_Anything):
    """An object that is read elsewhere."""

    def read(self, value: Any) -> dict[str, Any]:
        if isinstance(value, dict):
            return value
        raise refusal("not_object")

    def described(self) -> dict[str, Any]:
        return {"type": "object"}


class PlainObject(_Anything):
    """An object of texts, numbers, yes and no, within bounds."""

    MOST_FIELDS: ClassVar = 40
    LONGEST_FIELD: ClassVar = 40
    LONGEST_TEXT: ClassVar = 2_000
    LARGEST: ClassVar = 1e15

    def read(self, value: Any) -> dict[str, Any]:
        if not isinstance(value, dict):
            raise refusal("not_object")
        if len(value) > self.MOST_FIELDS or not all(map(self._holds, value, value.values())):
            raise refusal(UNREADABLE)
        return value

    def _holds(self, field: object, value: object) -> bool:
        if not isinstance(field, str) or len(field) > self.LONGEST_FIELD:
            return False
        if isinstance(value, str):
            return len(value) <= self.LONGEST_TEXT
        return value is None or (isinstance(value, int | float) and abs(value) <= self.LARGEST)

    def described(self) -> dict[str, Any]:
        plain = ["string", "number", "boolean", "null"]
        return {"type": "object", "additionalProperties": {"type": plain}}


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
YesNo = Annotated[bool, Field(strict=True)]
Once = AfterValidator(each_once)
