"""What names are wanted for."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final, Literal, get_args

__all__ = ["PURPOSES", "PURPOSE_KINDS", "Purpose", "PurposeKind"]

Purpose = Literal["brand", "descriptive", "mix"]
PURPOSES: Final[tuple[Purpose, ...]] = get_args(Purpose)


@dataclass(frozen=True, slots=True)
class PurposeKind:
    """`word`: as a person chooses it; `help`: what counts then."""

    name: Purpose
    word: str
    help: str


PURPOSE_KINDS: Final[Mapping[Purpose, PurposeKind]] = {
    kind.name: kind
    for kind in (
        PurposeKind("brand", "Brand-like", "Remembered, short and easy to say counts most"),
        PurposeKind("mix", "A mix", "Your words count most, the rest nearly as much"),
        PurposeKind("descriptive", "Descriptive", "Carrying your words counts most"),
    )
}
