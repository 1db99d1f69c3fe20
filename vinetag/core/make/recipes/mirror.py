"""mirror: read backwards, where it can be said."""

from __future__ import annotations

from collections.abc import Iterator

from vinetag.core.concepts import Change
from vinetag.core.make.draft import Draft, changed
from vinetag.core.make.job import Job

__all__ = ["Mirror"]

SAYABLE = -3.1


class Mirror:
    """Stems and short pairs of keywords turned around."""

    name = "mirror"

    def make(self, job: Job) -> Iterator[Draft]:
        """Stem by stem; palindromes give nothing new and are left out."""
        for stem in job.stems:
            word = stem.text
            label = word[::-1]
            job.considered[self.name] += 1
            if label != word and word.isalpha() and 3 <= len(word) <= 10:
                score = job.lexicon.sayable.score(label)
                if score > SAYABLE:
                    strength = (0.35 + 0.4 * stem.worth) * min(1.0, 1.2 + (score + 2.2) * 0.4)
                    change = Change("backwards", {"word": word})
                    yield changed(
                        label, "mirror", stem.keyword, change, max(0.0, min(1.0, strength))
                    )
