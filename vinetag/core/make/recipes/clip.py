"""clip: a word shortened: cut to its first syllables, a vowel dropped, an end letter dropped."""

from __future__ import annotations

from collections.abc import Iterator

from vinetag.core.make.draft import Draft, changed
from vinetag.core.make.job import Job

__all__ = ["Clip"]

SAYABLE = -3.2


class Clip:
    """Shortened stems that can be said and still be known."""

    name = "clip"
    summary = "a word shortened"
    daring = 0.65

    def make(self, job: Job) -> Iterator[Draft]:
        """Stem by stem; nothing that is an ordinary word of another meaning."""
        for stem in job.singles:
            for label, told in _cuts(stem.text):
                job.considered[self.name] += 1
                known = job.lexicon.words.get(label)
                if len(label) < 3 or (known and known.pos and known.zipf > 3):
                    continue
                if job.lexicon.sayable.score(label) > SAYABLE:
                    kept = len(label) / len(stem.text)
                    strength = (0.25 + 0.5 * kept) * (0.4 + 0.6 * stem.worth)
                    yield changed(label, "clip", stem.keyword, told, strength)


def _cuts(word: str) -> Iterator[tuple[str, str]]:
    vowels = [i for i, c in enumerate(word) if c in "aeiouy"]
    for i in vowels[:2]:
        for end in (i + 2, i + 3):
            if 3 <= end <= len(word) - 2 and word[end - 1] not in "aeiou":
                yield word[:end], f"{word} cut to {word[:end]}"
    if len(word) >= 5 and word[-2:] in ("er", "or", "le", "en"):
        bare = word[:-2] + word[-1] if word[-2:] != "le" else word[:-1]
        yield bare, f"{word} without its last vowel"
    if len(word) >= 5 and word[0] in "aeiou":
        yield word[1:], f"{word} without its first letter"
    if len(word) >= 5 and word[-1] in "eydt":
        yield word[:-1], f"{word} without its last letter"
