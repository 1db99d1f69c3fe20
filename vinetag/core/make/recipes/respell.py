"""respell: same sound, other letters."""

from __future__ import annotations

from collections.abc import Iterator

from vinetag.core.candidates import Part
from vinetag.core.make.draft import Draft, changed
from vinetag.core.make.job import Job
from vinetag.core.make.stems import Stem

__all__ = ["Respell"]

# Swaps people know from names, by phone: other spellings would not be read as meant.
SENSIBLE = {
    "K": ("c", "k", "q"), "F": ("f", "ph"), "S": ("s", "c", "z"), "Z": ("z", "s"),
    "IY": ("ee", "i", "y", "ea"),
    "AY": ("y", "i"), "IH": ("i", "y"), "EY": ("ay", "ai", "a"), "UW": ("oo", "u", "ew"),
    "OW": ("o", "oe"),
    "K S": ("x", "cks"), "K W": ("qu", "kw"), "JH": ("j", "g"), "AO": ("aw", "o"),
    "ER": ("er", "ur", "r"),
    "R": ("r",), "T": ("t",), "N": ("n",), "L": ("l",), "M": ("m",), "G": ("g",), "SH": ("sh",),
    "EH": ("e",), "AH": ("u", "a"), "D": ("d",), "P": ("p",), "B": ("b",), "V": ("v",),
}  # fmt: skip
LEAST_SHARE = 0.004
SAYABLE = -3.7


class Respell:
    """One sound of a keyword, or of a word close to it, written in another usual way."""

    name = "respell"
    summary = "the same sound in other letters"
    daring = 0.75

    def make(self, job: Job) -> Iterator[Draft]:
        """Stem by stem, in the order of its sounds; alone, and joined to keywords."""
        for stem in job.singles:
            for label, told in _respelt(job, stem.text):
                job.considered[self.name] += 1
                if not job.pos(label) and job.lexicon.sayable.score(label) > SAYABLE:
                    strength = 0.4 + 0.4 * stem.worth
                    alone = changed(label, "respell", stem.keyword, told, strength)
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


def _respelt(job: Job, word: str) -> Iterator[tuple[str, str]]:
    chunks = job.chunks(word)
    at = 0
    for i, (letters, sound) in enumerate(chunks):
        place = "^" if i == 0 else "$" if i == len(chunks) - 1 else "-"
        ways = job.lexicon.spellings.ways(sound, place)
        for other in SENSIBLE.get(sound, ()):
            silent = len(letters) > len(other) and letters[0] == letters[-1]
            if other != letters and (ways.get(other, 0) >= LEAST_SHARE or silent):
                label = word[:at] + other + word[at + len(letters) :]
                yield label, f"{word} with {other} for {letters}"
        at += len(letters)
