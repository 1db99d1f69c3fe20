"""A name as the measures see it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import TYPE_CHECKING, NamedTuple

from vinetag.core.brief import Purpose
from vinetag.core.candidates import Part
from vinetag.core.lexicon import Lexicon
from vinetag.core.names import unicode_label

if TYPE_CHECKING:
    from vinetag.core.grade.hearing import Hearing
    from vinetag.core.world.world import World

__all__ = ["Reading"]


class Reading(NamedTuple):
    """A name as the measures see it. `words`: (first letter's place, word) from left to right;
    `keywords`: the brief's keywords with weights; `carried`: the keyword each stretch came from;
    `added`: letters from no keyword; `strength`: how well the parts belong together, 0 to 1;
    `is_name`: it is the name the person gave; `foreign`: it is written in other letters than a to
    z, and only its length can be judged; `accented`: how it is written when it has accents, which
    `label` has not; `world`: the brief's, None where there is nothing to compare with.
    """

    label: str
    words: Sequence[tuple[int, str]]
    keywords: Mapping[str, int]
    carried: Sequence[Part]
    added: int
    strength: float
    is_name: bool
    lexicon: Lexicon
    hearing: Hearing
    purpose: Purpose = "mix"
    extension: str = "com"
    foreign: bool = False
    accented: str = ""
    world: World | None = None

    @property
    def shown(self) -> str:
        """As a person writes it."""
        return self.accented or unicode_label(self.label)
