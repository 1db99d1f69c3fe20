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
    world, words = world_of(brief, lexicon), lexicon.words
    said = [[p.text for p in c.parts if p.kind != "hyphen"] for c in candidates]
    near = world.nears(said) if candidates else ()
    outright = sense.OUTRIGHT[brief.purpose]
    weighed = []
    for candidate, texts, cosine in zip(candidates, said, near, strict=True):
        entry = world.entries.get(candidate.label)
        keywords = sum(p.kind == "keyword" for p in candidate.parts)
        worldly = any(t in world.words for t in texts)
        if entry:
            guess = sense.ENTRY * (entry.mark - sense.ENTRY_AT)
        else:
            guess = sense.NEAR * (min(float(cosine), sense.NEAR_ENOUGH) - sense.USUAL_NEAR)
            guess -= outright * bool(keywords)
            known = [words[t].zipf for t in texts if t in words and t not in SMALL]
            new = [p for p in candidate.parts if p.text not in words and p.kind != "hyphen"]
            guess -= sum(-OWN_WORD if p.kind == "keyword" else NEW_WORD for p in new)
            if known:
                rare = sense.RARE * (sense.RARE_AT - min(known))
                guess += min(sense.MOST_RARE, max(-sense.MOST_RARE, rare))
            guess -= sense.TACKED * sum(p.kind in ("lead", "tail") for p in candidate.parts)
            guess += sense.ENDED * any(p.kind == "ending" for p in candidate.parts)
        guess += FIT_KEYWORD * bool(keywords) + FIT_WORLD * worldly
        guess -= A_LETTER * max(0, candidate.letters - LONG)
        weighed.append(guess + STRENGTH * candidate.strength)
    return weighed
