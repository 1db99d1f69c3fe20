"""How the fields of an address are read: every one of them a text."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from decimal import Decimal
from typing import Annotated, Any, Final

from vinetag.core.documents import Marker, OneOf, refusal
from vinetag.core.money import amount_of

__all__ = [
    "EITHER",
    "MOST_TEXT",
    "Bound",
    "Extensions",
    "Flag",
    "Letters",
    "Number",
    "Price",
    "Several",
]

MOST_TEXT: Final = 63
EITHER: Final = ("", "yes", "no")
Context = Mapping[str, Any]


@dataclass(frozen=True)
class _Letters(Marker):
    """Letters of a label."""

    def read(self, value: str) -> str:
        if len(value) > MOST_TEXT:
            raise refusal("too_long", limit=MOST_TEXT, length=len(value))
        return value.lower()

    def described(self) -> dict[str, Any]:
        return {"type": "string", "maxLength": MOST_TEXT}


@dataclass(frozen=True)
class _Flag(Marker):
    def read(self, value: str) -> bool:
        return OneOf(("1", "true", "0", "false")).read(value.lower()) in ("1", "true")

    def described(self) -> dict[str, Any]:
        return {"type": "boolean"}


@dataclass(frozen=True)
class Number(Marker):
    """A number as text, both bounds included; `kind` makes of it what is kept."""

    low: int
    high: int
    kind: Callable[[float], Any]

    def read(self, value: str) -> Any:
        try:
            number = float(value)
        except ValueError:
            raise refusal("not_number") from None
        if not self.low <= number <= self.high:
            raise refusal("out_of_range", low=self.low, high=self.high, value=value)
        return self.kind(number)

    def described(self) -> dict[str, Any]:
        number = "integer" if self.kind is int else "number"
        return {"type": number, "minimum": self.low, "maximum": self.high}


@dataclass(frozen=True)
class Several(Marker):
    """Any of some words, set apart by commas."""

    one: OneOf

    def read_in(self, value: str, context: Context, /) -> tuple[str, ...]:
        return tuple(self.one.read_in(part, context) for part in value.split(","))

    def described(self) -> dict[str, Any]:
        return {"type": "string"}


@dataclass(frozen=True)
class Extensions(Several):
    """With or without the leading dot."""

    def read_in(self, value: str, context: Context, /) -> tuple[str, ...]:
        bare = (part.removeprefix(".") for part in value.lower().split(","))
        return super().read_in(",".join(bare), context)


Letters = Annotated[str, _Letters()]
Bound = Annotated[int | None, Number(0, MOST_TEXT, int)]
Price = Annotated[Decimal | None, Number(0, 1_000_000, amount_of)]
Flag = Annotated[bool, _Flag()]
