"""What a brief says is done, and to what: its verbs with their things."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from typing import Final, NamedTuple

from vinetag.core.lexicon import Lexicon
from vinetag.core.lexicon.morphology import gerund
from vinetag.core.world.incidental import SMALL, says

__all__ = ["DOERS", "NO_SERVICES", "Told", "describes", "told", "verbs_of"]

# What comes between a verb and its thing.
BETWEEN: Final = frozenset("a an all any every her his its my our own the their your".split())
# Words after which a verb in the third person or its base stands.
BEFORE: Final = frozenset("that to we which who".split())
REACH: Final = 5
DOERS: Final = ("er", "or", "ers", "ors")
# Cosine from which a word in -er and a verb are taken for one of a kind.
SAME_MEANING: Final = 0.7
# What anybody does, or what is no service to anybody.
NO_SERVICES: Final = frozenset(
    """appear argue arrive ask avoid be become begin belong bow bring buy call camp care change
    climb come consume cost cry die do drink drive eat end enjoy enter escape expect fail
    fall fear feel find forget fund game get give glow go grip grow hang happen hate have
    hear hold ignore join keep know laugh lead learn leave let like live look lose make mean
    meet miss need offer operate own pass pay play prefer pretend put puzzle reach read
    relax remember rest ride say see seem serve share show sit sleep smell speak stand start
    stay steal stop suffer supply survive sweat swim switch take talk taste tell think tire
    travel try turn understand visit wait wake want waste watch wear win wonder worry""".split()
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
        yield from _in_clause(words, lexicon)


def _in_clause(words: Sequence[str], lexicon: Lexicon) -> Iterator[Told]:
    doing: list[str] = []
    third = False
    for at, word in enumerate(words):
        before = next((w for w in reversed(words[:at]) if not _adverb(w, lexicon)), "")
        after = words[at + 1 :]
        if word == "and":
            continue
        # One that goes on doing: plans and plants gardens; opens doors and fits locks.
        goes_on = before == "and" and (bool(doing) or (third and word.endswith("s")))
        verb = _verb(word, before, goes_on, lexicon)
        if verb and word.endswith("ing") and _describes(word, before, after, lexicon):
            verb = ""
        if not verb:
            doing = doing if before == "and" or word in BETWEEN else []
            continue
        third = third or word.endswith("s")
        if says(verb) == 1.0 == says(word) and verb not in NO_SERVICES:
            doing.append(verb)
            if _passive(word, verb, lexicon) and _noun(before, lexicon):
                yield Told(verb, before)
            things = _things(after, lexicon)
            if things:
                yield from (Told(verb, thing) for verb in doing for thing in things)
                doing = []


def verbs_of(word: str, lexicon: Lexicon) -> Sequence[str]:
    """The verbs a word that says what is done, or who does it, comes from: itself (repair), of
    tuning and tuner tune.
    """
    known = lexicon.words.get(word)
    if known is None:
        return ()
    found = list(gerund(word, lexicon))
    for ending in DOERS:
        base = word.removesuffix(ending)
        if base != word:
            found += [b for b in (base, base + "e", base[:-1]) if _does(b, word, lexicon)]
    base = lexicon.lemma(word)
    if lexicon.words.get(base, known).pos[:1] == "v":
        found.append(base)
    return [v for v in dict.fromkeys(found) if v not in NO_SERVICES and says(v) == 1.0]


def _does(verb: str, word: str, lexicon: Lexicon) -> bool:
    """Whether the word says who does what the verb says: a person (tuner), or what means the same
    (cleaner, but neither gutter nor drawer).
    """
    known, base = lexicon.words.get(verb), lexicon.lemma(word)
    if known is None or "v" not in known.pos:
        return False
    if lexicon.field(word) == "person" and ("doer", base) in lexicon.thesaurus.forms(verb):
        return True
    rows = lexicon.meanings.rows([verb, base])
    return float(rows[0] @ rows[1]) >= SAME_MEANING


def _verb(word: str, before: str, goes_on: bool, lexicon: Lexicon) -> str:
    """The base of a word that stands as a verb; "" otherwise."""
    known = lexicon.words.get(word)
    base = lexicon.lemma(word)
    of = lexicon.words.get(base)
    if known is None or of is None:
        return ""
    if word.endswith("ing"):
        return next(iter(gerund(word, lexicon)), base if "v" in of.pos and base != word else "")
    if "v" in known.pos and (before in BEFORE or goes_on):
        return base
    return base if _passive(word, base, lexicon) and _noun(before, lexicon) else ""


def _describes(word: str, before: str, after: Sequence[str], lexicon: Lexicon) -> bool:
    """Whether an -ing form stands before what it describes: a climbing wall, old fishing nets."""
    known = lexicon.words.get(before)
    if before in BETWEEN or before.endswith("ing") or (known and known.pos[:1] == "a"):
        return True
    return bool(after) and describes(word, after[0], lexicon)


def describes(word: str, thing: str, lexicon: Lexicon) -> bool:
    """Whether an -ing form is known to describe the thing, more than it is done to it."""
    followers = lexicon.followers(word)
    return word.endswith("ing") and (thing in followers or lexicon.lemma(thing) in followers)


def _adverb(word: str, lexicon: Lexicon) -> bool:
    known = lexicon.words.get(word)
    return bool(known and known.pos == "r")


def _passive(word: str, base: str, lexicon: Lexicon) -> bool:
    return word != base and (
        ("past", word) in lexicon.thesaurus.forms(base)
        or ("participle", word) in lexicon.thesaurus.forms(base)
    )


def _noun(word: str, lexicon: Lexicon) -> bool:
    known = lexicon.words.get(word)
    return bool(known and known.pos[:1] == "n" and word not in SMALL and says(word) == 1.0)


def _things(words: Sequence[str], lexicon: Lexicon) -> Sequence[str]:
    """The nouns a verb before them is done to: the last of each run, two with an "and" between,
    after which another verb may stand instead (… and mends locks).
    """
    found: list[str] = []
    run = ""
    for at, word in enumerate(words[:REACH]):
        known = lexicon.words.get(word)
        goes_on = found and not run and word.endswith("s") and known and "v" in known.pos
        if goes_on and any(_noun(w, lexicon) for w in words[at + 1 : at + 2]):
            break
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
