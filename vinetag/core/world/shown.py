"""A brief's world as a person sees it, and the small questions that help them to more of it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from vinetag.core.brief import FACETS, WORD_FACETS, Brief
from vinetag.core.lexicon import Lexicon
from vinetag.core.world.fields import entry_words, read_fields
from vinetag.core.world.world import OWN, TOLD, World, world_of

__all__ = [
    "FACET_WORDS", "QUESTIONS", "Question", "ShownEntry", "ShownField", "ShownWorld",
    "find_fields", "shown_world",
]  # fmt: skip

MOST_A_FACET: Final = 60
OTHERS: Final = 8
FACET_WORDS: Final[Mapping[str, str]] = {
    "things": "Things", "tools": "Tools", "stuff": "What it is made of", "places": "Places",
    "moments": "Moments", "acts": "What one does", "qualities": "What it is like",
    "beings": "Who is there", "sounds": "What it sounds like", "fresh": "Insiders' words",
    "phrases": "What people say", "pairs": "What goes together", "does": "What one calls out",
    "plain": "The trade's own words",
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Question:
    """A question to the person; the answer, a few words with commas, goes to `facet`."""

    facet: str
    asks: str
    example: str


QUESTIONS: Final[Sequence[Question]] = (
    Question("tools", "What is in your hands at work?", "bone folder, brayer"),
    Question("phrases", "What is said when it is done?", "hot off the press"),
    Question("moments", "When is the best moment?", "first pull, unwrapping"),
    Question("sounds", "What does it sound like?", "clunk, rustle"),
    Question("qualities", "What does it feel or smell like?", "crisp, deckled"),
    Question("things", "What do customers ask for by name?", "the winter box"),
    Question("does", "What does one do with it, in two or three words?", "seal the letter"),
    Question("pairs", "Which two things always go together?", "ink & blotter"),
    Question("fresh", "Which word do only insiders know?", "quoin, makeready"),
)


@dataclass(frozen=True, slots=True)
class ShownField:
    """A field and how near it is to the brief, 0 to 1; whether it is on, and by whose choice."""

    title: str
    near: float
    on: bool
    chosen: bool


@dataclass(frozen=True, slots=True)
class ShownEntry:
    """A word or phrase: where it is from, what it is worth (0 to 1), the person's weight (1 to 5),
    whether they dropped it.
    """

    text: str
    field: str
    worth: float
    weight: int
    dropped: bool


@dataclass(frozen=True, slots=True)
class ShownWorld:
    """The whole. `fits`: a field says what the brief is about; otherwise automatic words help."""

    fields: Sequence[ShownField]
    facets: Mapping[str, Sequence[ShownEntry]]
    fits: bool
    informed: bool


def shown_world(brief: Brief, lexicon: Lexicon) -> ShownWorld:
    """The fields that are on, then the nearest others; entries by facet, the worthiest first, with
    those the person dropped.
    """
    world = world_of(brief, lexicon)
    on = {f.field.title for f in world.fields}
    fields = [ShownField(f.field.title, f.share, True, f.chosen) for f in world.fields]
    others = (f for f in world.ranked if f.field.title not in on)
    fields += [
        ShownField(f.field.title, f.share, False, f.field.title in brief.world.off)
        for _, f in zip(range(OTHERS), others, strict=False)
    ] if world.informed else []  # fmt: skip
    listed = {f.title for f in fields}
    fields += [ShownField(t, 0.0, False, True) for t in brief.world.off if t not in listed]
    facets = {facet: _facet(facet, brief, world) for facet in FACETS}
    return ShownWorld(fields, facets, world.fits, world.informed)


def _facet(facet: str, brief: Brief, world: World) -> list[ShownEntry]:
    weights, dropped = dict(brief.world.weights), set(brief.world.drop)
    own = {e for f, entries in brief.world.own if f == facet for e in entries}
    found: dict[str, ShownEntry] = {
        text: ShownEntry(text, OWN, 1.0, weights.get(text, 3), text in dropped)
        for text in sorted(own)
    }
    for near in world.fields:
        for text in near.field.facets[facet]:
            if text not in found and (text in dropped or not world.against & {*text.split()}):
                worth = _worth(text, facet, near.share, world)
                entry = ShownEntry(
                    text, near.field.title, worth, weights.get(text, 3), text in dropped
                )
                found[text] = entry
    for word in world.words.values():
        if word.field in ("", TOLD) and word.facet == facet and word.text not in found:
            weight = weights.get(word.text, 3)
            found[word.text] = ShownEntry(word.text, word.field, word.worth, weight, False)
    for said in world.entries.values():
        if said.facet == facet and said.text not in found:
            worth, weight = (said.mark - 1) / 4, weights.get(said.text, 3)
            found[said.text] = ShownEntry(said.text, said.field, worth, weight, False)
    ranked = sorted(found.values(), key=lambda e: (e.field != OWN, -e.worth, e.text))
    first = ranked[:MOST_A_FACET]
    return [*first, *(e for e in ranked[MOST_A_FACET:] if e.dropped)]


def _worth(text: str, facet: str, share: float, world: World) -> float:
    if facet in WORD_FACETS:
        word = world.words.get(text)
        return word.worth if word else 0.0
    entry = world.entries.get("".join(entry_words(text)))
    return (entry.mark - 1) / 4 if entry else share / 2


def find_fields(text: str, limit: int = 12) -> list[str]:
    """Titles of fields that hold the text, those in whose title it stands first."""
    wanted = " ".join(text.lower().split())
    if len(wanted) < 2:
        return []
    titled = [f.title for f in read_fields() if wanted in f.title]
    about = [f.title for f in read_fields() if any(wanted in a for a in f.facets["about"])]
    return list(dict.fromkeys([*titled, *about]))[:limit]
