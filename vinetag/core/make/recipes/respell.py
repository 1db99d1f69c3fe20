"""respell: same sound, other letters."""

from __future__ import annotations

from collections.abc import Iterator
from functools import lru_cache

from vinetag.core.candidates import Part
from vinetag.core.concepts import Change
from vinetag.core.lexicon import Lexicon
from vinetag.core.lexicon.sounds import bare
from vinetag.core.make.draft import Draft, changed
from vinetag.core.make.job import Job
from vinetag.core.make.stems import Stem

__all__ = ["Respell"]

# Swaps people know from names, by phone: other spellings would not be read as meant, or would look
# like slips. By judgement.
SENSIBLE = {
    "K": ("k",), "F": ("f",), "Z": ("z", "s"), "IY": ("ee",),
    "AY": ("y", "i"), "IH": ("y",), "EY": ("ay",), "UW": ("oo", "u"), "OW": ("o",),
    "K S": ("x",), "K W": ("qu", "kw"), "JH": ("j",), "T": ("t",), "N": ("n",), "L": ("l",),
    "M": ("m",), "SH": ("sh",),
}  # fmt: skip
AT_THE_END = {"IY": ("i",), "K": ("c",)}
# Endings written the short way.
SHORT_WAYS = (("ight", "ite"), ("cks", "x"), ("ck", "k"))
LEAST_SHARE = 0.004
SAYABLE = -6.8
MOST_KIN = 30
# The share of readers who must say the new letters as the word is said.
READ_SO = 0.4
BEAM = 6
USUAL_WAY = 0.1
# Vowels without stress that few tell apart.
BLURRED = {"IH": "AH", "UH": "AH"}


class Respell:
    """One sound of a keyword, or of a word close to it, written in another usual way, so that
    readers still say it as the word is said.
    """

    name = "respell"

    def make(self, job: Job) -> Iterator[Draft]:
        """Stem by stem, in the order of its sounds; alone, and joined to keywords."""
        stems = job.singles
        for stem in stems[: len(job.keywords) + MOST_KIN]:
            for label, change in _respelt(job, stem.text):
                job.considered[self.name] += 1
                if job.pos(label) or job.lexicon.sayable.score(label) <= SAYABLE:
                    continue
                if _read_so(job.lexicon, label, stem.text) >= READ_SO:
                    strength = 0.4 + 0.4 * stem.worth
                    alone = changed(label, "respell", stem.keyword, change, strength)
                    yield alone
                    if stem.kind == "keyword":
                        yield from _with_others(job, stem, alone)


def _with_others(job: Job, stem: Stem, draft: Draft) -> Iterator[Draft]:
    [part] = draft.parts
    for other in job.keyword_stems:
        if other.text != stem.text and len(other.words) == 1:
            together = job.belonging(stem.text, other.text)
            behind = Part(other.text, "keyword", other.keyword, len(draft.label))
            yield Draft(draft.label + other.text, (part, behind), 0.3 + 0.5 * together)


@lru_cache(20_000)
def _read_so(lexicon: Lexicon, label: str, word: str) -> float:
    """The share of readers, 0 to 1, who say the label as the word is said: as the dictionary has
    it, or in one of the ways in which readers say a word nobody lists.
    """
    wanted = {_blurred(p) for p in (lexicon.sounds.phones(word),) if p}
    if not wanted:
        ways = lexicon.graphones.say(word, beam=BEAM)
        wanted = {_blurred(bare(way.phones)) for way in ways if way.share >= USUAL_WAY}
    said = lexicon.graphones.say(label, beam=BEAM)
    return sum(way.share for way in said if _blurred(bare(way.phones)) in wanted)


def _blurred(phones: tuple[str, ...]) -> tuple[str, ...]:
    return tuple(BLURRED.get(p, p) for p in phones)


def _respelt(job: Job, word: str) -> Iterator[tuple[str, Change]]:
    chunks = job.chunks(word)
    at = 0
    for i, (letters, sound) in enumerate(chunks):
        place = "^" if i == 0 else "$" if i == len(chunks) - 1 else "-"
        ways = job.lexicon.spellings.ways(sound, place)
        others = SENSIBLE.get(sound, ()) + (AT_THE_END.get(sound, ()) if place == "$" else ())
        for other in others:
            doubled = len(letters) > len(other) and letters[0] == letters[-1]
            silent = not doubled and len(letters) > len(other) and other in letters
            if other == letters or silent:
                continue  # a letter nobody hears that is left out looks like a slip (nitting)
            if ways.get(other, 0) >= LEAST_SHARE or doubled:
                label = word[:at] + other + word[at + len(letters) :]
                if not label.endswith("cc"):
                    yield label, _change(word, other, letters)
        at += len(letters)
    for ending, other in SHORT_WAYS:
        if word.endswith(ending) and len(word) > len(ending):
            yield word.removesuffix(ending) + other, _change(word, other, ending)


def _change(word: str, put: str, letters: str) -> Change:
    return Change("respelt", {"word": word, "put": put, "letters": letters})
