"""The recipes: what each does, in a line, and what it shares the places of a screen with."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

__all__ = ["RECIPE_KINDS", "RECIPE_NAMES", "RecipeKind"]


@dataclass(frozen=True, slots=True)
class RecipeKind:
    """`summary`: what it does, for a person; `group`: recipes that share places
    (vinetag.core.make.variety). The work is done by the module of this name in
    vinetag.core.make.recipes.
    """

    name: str
    summary: str
    group: str


# In the order they are tried and shown.
RECIPE_KINDS: Final[tuple[RecipeKind, ...]] = (
    RecipeKind("saying", "a phrase of your world, as people say it", "saying"),
    RecipeKind("couple", "two things of your world, joined by and", "couple"),
    RecipeKind("call", "what one does in your world: ring the bell, roll on", "call"),
    RecipeKind("plain", "your word and the trade's own: roof survey, piano movers", "plain"),
    RecipeKind("task", "what is done to what: tune my piano, roofs inspected", "plain"),
    RecipeKind("quality", "a quality with a thing of your world", "combined"),
    RecipeKind("moment", "a thing of your world with a moment, a place or an act", "combined"),
    RecipeKind("exact", "the phrase or name as it is", "asked"),
    RecipeKind("pair", "two of your words, or one and a word they lead to, either order", "asked"),
    RecipeKind("lead", "a short word in front", "added"),
    RecipeKind("tail", "a word behind", "added"),
    RecipeKind("affix", "a beginning or ending on a word", "ended"),
    RecipeKind("form", "plural, verb form, doer or trade of a word", "changed"),
    RecipeKind("blend", "two words overlapped where they share letters or sounds", "coined"),
    RecipeKind("clip", "a word shortened", "changed"),
    RecipeKind("respell", "the same sound in other letters", "coined"),
    RecipeKind("mirror", "read backwards", "changed"),
    RecipeKind("invent", "a new word with the sound of yours", "coined"),
    RecipeKind(
        "initials", "first letters, alone when they can be said, or carried by a word", "changed"
    ),
    RecipeKind("acrossdot", "the extension completes the word", "asked"),
    RecipeKind("hyphen", "two parts with a hyphen between", "asked"),
    RecipeKind("place", "with a word for the place", "asked"),
)
RECIPE_NAMES: Final = tuple(kind.name for kind in RECIPE_KINDS)
