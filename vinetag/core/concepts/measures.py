"""The measures: their words, what each asks and how it is worked out, and how much it weighs."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

from vinetag.core.concepts.purposes import Purpose

__all__ = ["MEASURE_KINDS", "MEASURE_NAMES", "MeasureKind"]


@dataclass(frozen=True, slots=True)
class MeasureKind:
    """`word`: as a person sees it, `short` where there is little room; `asks`: its question; `how`:
    paragraphs on how it is worked out; `weights`: by purpose, from 0 (not counted) to 10, where the
    person set none. The work is done by the module of this name in vinetag.core.grade.measures.
    """

    name: str
    word: str
    asks: str
    weights: Mapping[Purpose, int]
    how: tuple[str, ...]
    short: str = ""


MEASURE_KINDS: Final[tuple[MeasureKind, ...]] = (
    MeasureKind(
        "length",
        "Length",
        "How much is there to type and to say?",
        {"brand": 1, "mix": 1, "descriptive": 1},
        (
            "Letters are counted without hyphens. Full marks go to 5 to 9 for a brand-like "
            "name, 5 to 10 for a mix and 6 to 14 for a descriptive one, because a brand is "
            "typed and said many times a day and a descriptive name is found rather than typed. "
            "Each letter beyond costs 7, 6 or 4.5 points.",
            "Beats (syllables), words and hyphens beyond the usual cost a little more, and so "
            "does a first extension of more than three letters.",
        ),
    ),
    MeasureKind(
        "spelling",
        "Spelling",
        "Would someone who hears it write it right?",
        {"brand": 2, "mix": 2, "descriptive": 2},
        (
            "The telephone test, computed: of 100 people who hear the name, how many write it "
            "as it is? Words are said by a pronouncing dictionary; words nobody listed, by a "
            "model that learned from it which letters stand for which sounds.",
            "Then the other way round. Who knows a word writes it, or a commoner one that "
            "sounds the same; who does not spells the sounds one by one, by how often English "
            "spells each so in that place. Letters doubled at a join, hyphens, digits and "
            "accents are not heard, and lose some more.",
        ),
    ),
    MeasureKind(
        "fit",
        "Keyword fit",
        "How much does it say of your words and your world?",
        {"brand": 3, "mix": 3, "descriptive": 6},
        (
            "What the name says of the brief: a keyword, whole, in another form, changed or by "
            "its sound; a word of your world; a meaning near your sentence. The best counts "
            "most, others add a little, and so does how near the whole name is to the sentence. "
            "Words for the kind of venture carry little unless you weigh them up.",
            "Closeness in meaning is measured between word vectors, less what every word has "
            "with its neighbours. Letters that belong neither to your words nor to your world "
            "cost a point each. A made-up name carries little, and that is what it gets.",
        ),
        short="Fit",
    ),
    MeasureKind(
        "sense",
        "Sense",
        "Does it mean something here, in natural English?",
        {"brand": 10, "mix": 10, "descriptive": 10},
        (
            "Does it mean something here, in natural English? What people of your world say, "
            "what goes together there and what one does there is known from its fields, and "
            "counts by how near it is to your sentence. For other names the nearness of all "
            "words together counts, whether they are put as people speak, and a rarer word that "
            "is known more than a common one.",
            "What spoils it: a phrase known as something else, a word that goes with anything, "
            "a keyword glued to a word it has no tie to, two words that say the same, an order "
            "nobody uses, a stub, and what works against what you promise. The points were "
            "weighed on marks of readers who did not know where a name came from.",
        ),
    ),
    MeasureKind(
        "sound",
        "Sound",
        "Can it be said, and in one way?",
        {"brand": 2, "mix": 1, "descriptive": 1},
        (
            "Known words count as easy to say. For new ones a model of which letters and sounds "
            "follow each other in English says how usual they are, and whether readers would "
            "say them in two ways.",
            "Then the joins: four consonants in a row, two vowels, or one sound twice. More "
            "than four beats are long; strong and weak beats that take turns are a gain.",
        ),
    ),
    MeasureKind(
        "memory",
        "Memory",
        "Is it remembered?",
        {"brand": 2, "mix": 2, "descriptive": 1},
        (
            "What research says: rhyme and alliteration help, things that can be pictured are "
            "recalled better, and fewer and shorter items are kept better. How many points each "
            "brings is our judgement.",
            "Two everyday words together are easily mixed up with others and lose some; a new "
            "word has to be learnt first.",
        ),
    ),
    MeasureKind(
        "clarity",
        "Clarity",
        "Is it read in one way only?",
        {"brand": 1, "mix": 1, "descriptive": 1},
        (
            "An address has no spaces. All ways to cut the letters into words are weighed by "
            "how common the words are, and the score falls by the share of readers who would "
            "see another reading.",
            "Words nobody wants to read across a join, letters taken for others (rn and m, l "
            "and 1) and short forms few can guess cost more.",
        ),
    ),
)
MEASURE_NAMES: Final = tuple(kind.name for kind in MEASURE_KINDS)
