"""What a brief says is done, and to what: its verbs with their things."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from typing import Final, NamedTuple

from vinetag.core.lexicon import Lexicon
from vinetag.core.lexicon.morphology import gerund
from vinetag.core.world.incidental import SMALL, says

__all__ = ["Told", "told", "verbs_of"]

# What comes between a verb and its thing.
BETWEEN: Final = frozenset("a an all any every her his its my our own the their your".split())
# Words after which a verb in the third person or its base stands.
BEFORE: Final = frozenset("that to we which who".split())
REACH: Final = 5
# What anybody does, or what is no service to anybody.
NO_SERVICES: Final = frozenset(
    """appear argue arrive ask avoid be become begin belong bow bring buy call care change climb
    come consume cost cry die do drink drive eat end enjoy enter escape expect fail fall
    fear feel find forget fund game get give glow go grip grow hang happen hate have hear
    hold ignore join keep know laugh lead learn leave let like live look lose make mean meet
    miss need offer operate own pass pay play prefer pretend put puzzle reach relax remember
    rest ride say see seem serve share show sit sleep smell speak stand start stay steal
    stop suffer supply survive sweat switch take talk taste tell think tire travel try turn
    understand visit wait wake walk want waste watch wear win wonder worry""".split()
)


class Told(NamedTuple):
    """A verb (its base) and the thing it is done to, as the brief has it."""

    verb: str
    thing: str


def told(about: str, lexicon: Lexicon) -> Iterator[Told]:
    """Each verb of a sentence with the noun it is done to: “who inspects roofs”, “tuning old
    pianos”, “panels fitted on barns”.
    """
    for clause in re.split(r"[.,;:!?()]", about.lower()):
        words = re.findall("[a-z]+", clause.replace("'s ", " ").replace("'", ""))
        doing: list[str] = []
        for at, word in enumerate(words):
            before = words[at - 1] if at else ""
            if word == "and":
                continue
            verb = _verb(word, before, bool(doing), lexicon)
            if verb and word.endswith("ing") and _describes(word, before, words[at + 1 :], lexicon):
                verb = ""
            if verb and says(verb) == 1.0 == says(word) and verb not in NO_SERVICES:
                doing.append(verb)
                if _passive(word, verb, lexicon) and _noun(before, lexicon):
                    yield Told(verb, before)
                things = _things(words[at + 1 :], lexicon)
                if things:
                    yield from (Told(verb, thing) for verb in doing for thing in things)
                    doing = []
            else:
                doing = doing if before in ("and",) or word in BETWEEN else []


def verbs_of(word: str, lexicon: Lexicon) -> Sequence[str]:
    """The verbs a word that says what is done, or who does it, comes from: itself (repair), of
    tuning and tuner tune.
    """
    known = lexicon.words.get(word)
    if known is None:
        return ()
    found = list(gerund(word, lexicon))
    for ending in ("er", "or", "ers", "ors"):
        base = word.removesuffix(ending)
        if base != word:
            bases = (base, base + "e", base[:-1])
            found += [b for b in bases if ("doer", word) in lexicon.thesaurus.forms(b)]
    base = lexicon.lemma(word)
    if lexicon.words.get(base, known).pos[:1] == "v":
        found.append(base)
    return [v for v in dict.fromkeys(found) if v not in NO_SERVICES and says(v) == 1.0]


def _verb(word: str, before: str, after_verb: bool, lexicon: Lexicon) -> str:
    """The base of a word that stands as a verb; "" otherwise."""
    known = lexicon.words.get(word)
    base = lexicon.lemma(word)
    of = lexicon.words.get(base)
    if known is None or of is None:
        return ""
    if word.endswith("ing"):
        return next(iter(gerund(word, lexicon)), base if "v" in of.pos and base != word else "")
    if "v" in known.pos and (before in BEFORE or (after_verb and before == "and")):
        return base
    return base if _passive(word, base, lexicon) and _noun(before, lexicon) else ""


def _describes(word: str, before: str, after: Sequence[str], lexicon: Lexicon) -> bool:
    """Whether an -ing form stands before what it describes: a climbing wall, old fishing nets."""
    known = lexicon.words.get(before)
    if before in BETWEEN or before.endswith("ing") or (known and known.pos[:1] == "a"):
        return True
    thing = after[0] if after else ""
    followers = lexicon.followers(word)
    return thing in followers or lexicon.lemma(thing) in followers


def _passive(word: str, base: str, lexicon: Lexicon) -> bool:
    return word != base and (
        ("past", word) in lexicon.thesaurus.forms(base)
        or ("participle", word) in lexicon.thesaurus.forms(base)
    )


def _noun(word: str, lexicon: Lexicon) -> bool:
    known = lexicon.words.get(word)
    return bool(known and known.pos[:1] == "n" and word not in SMALL and says(word) == 1.0)


def _things(words: Sequence[str], lexicon: Lexicon) -> Sequence[str]:
    """The nouns a verb before them is done to: the last of each run, two with an "and" between."""
    found: list[str] = []
    run = ""
    for word in words[:REACH]:
        known = lexicon.words.get(word)
        if _noun(word, lexicon):
            run = word
        elif run and word == "and" and not found:
            found.append(run)
            run = ""
        elif run or not (word in BETWEEN or (known and known.pos[:1] == "a")):
            break
    if run:
        found.append(run)
    return found
