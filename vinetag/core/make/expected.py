"""A cheap guess at every name's grade, to choose those worth grading in full."""

from __future__ import annotations

from collections.abc import Sequence

from vinetag.core.brief import Brief
from vinetag.core.candidates import Candidate
from vinetag.core.grade.measures import sense
from vinetag.core.lexicon import Lexicon
from vinetag.core.world.incidental import SMALL
from vinetag.core.world.world import world_of

__all__ = ["expected"]

# What other measures take off a coined word, and for letters beyond so many.
NEW_WORD = 14.0
OWN_WORD = 14.0
LONG = 12
A_LETTER = 1.0
STRENGTH = 6.0
FIT_WORLD = 8.0
FIT_KEYWORD = 10.0


def expected(candidates: Sequence[Candidate], brief: Brief, lexicon: Lexicon) -> list[float]:
    """About what each will be graded: what the sense measure sees at a glance, the nearness of all
    at once, and what kinds of parts there are.
    """
    world = world_of(brief, lexicon)
    said = [[p.text for p in c.parts if p.kind != "hyphen"] for c in candidates]
    near = world.nears(said).tolist() if candidates else ()
    known = {text: lexicon.words.get(text) for texts in said for text in texts}
    zipf = {text: word.zipf for text, word in known.items() if word and text not in SMALL}
    worldly = known.keys() & world.words.keys()
    weighed = []
    for candidate, texts, cosine in zip(candidates, said, near, strict=True):
        kinds = [p.kind for p in candidate.parts]
        asked = "keyword" in kinds
        entry = world.entries.get(candidate.label)
        if entry:
            guess = sense.ENTRY * (entry.mark - sense.ENTRY_AT)
        else:
            guess = sense.NEAR * (min(cosine, sense.NEAR_ENOUGH) - sense.USUAL_NEAR)
            guess -= sense.OUTRIGHT[brief.purpose] * asked
            for part in candidate.parts:
                if part.kind != "hyphen" and known[part.text] is None:
                    guess -= -OWN_WORD if part.kind == "keyword" else NEW_WORD
            least = min((zipf[text] for text in texts if text in zipf), default=None)
            if least is not None:
                rare = sense.RARE * (sense.RARE_AT - least)
                guess += min(sense.MOST_RARE, max(-sense.MOST_RARE, rare))
            guess -= sense.TACKED * (kinds.count("lead") + kinds.count("tail"))
            guess += sense.ENDED * ("ending" in kinds)
        guess += FIT_KEYWORD * asked + FIT_WORLD * (not worldly.isdisjoint(texts))
        guess -= A_LETTER * max(0, candidate.letters - LONG)
        weighed.append(guess + STRENGTH * candidate.strength)
    return weighed
