"""Endings a reader takes for what they say, and the words they are put on."""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType
from typing import TYPE_CHECKING, Final

if TYPE_CHECKING:
    from vinetag.core.lexicon.store import Lexicon

__all__ = ["ENDINGS", "takes"]

# What each says. All are words of their own as well, so that a typed name is read the same way.
ENDINGS: Final[Mapping[str, str]] = MappingProxyType(
    {
        "kin": "a small one, or one of the family", "ling": "a small or young one",
        "let": "a small one", "folk": "its people", "ward": "towards it",
        "smith": "who works it", "wright": "who makes it", "wise": "in its manner",
        "craft": "the skill of it",
    }
)  # fmt: skip
PICTURED: Final = frozenset(
    "artifact substance food plant animal object phenomenon location shape".split()
)
# Only what is worked or made has a smith, and one goes towards what stands out of doors (WordNet's
# fields of the word).
MADE: Final = frozenset(("artifact", "substance", "food"))
FIELDS: Final[Mapping[str, frozenset[str]]] = MappingProxyType(
    {
        "smith": MADE, "wright": frozenset(("artifact",)), "craft": MADE,
        "ward": frozenset(("location", "object", "phenomenon", "plant")),
    }
)  # fmt: skip
LONGEST: Final = 6
SHORTEST: Final = 3


def takes(word: str, ending: str, lexicon: Lexicon) -> bool:
    """Whether the word can carry the ending: short, something one can picture, one of it, and
    letters that do not run into the ending's.
    """
    known = lexicon.words.get(word)
    if known is None or not SHORTEST <= len(word) <= LONGEST or known.pos[:1] != "n":
        return False
    if known.lemma or word.endswith(("ing", "er", "s")) or word in ENDINGS:
        return False
    return (
        known.field in FIELDS.get(ending, PICTURED)
        and word[-1] != ending[0]
        and word[-1] not in "aiou"
    )
