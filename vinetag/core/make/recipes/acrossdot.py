"""acrossdot: the extension completes the word."""

from __future__ import annotations

from collections.abc import Iterator

from vinetag.core.concepts import Change
from vinetag.core.extensions import known_extensions
from vinetag.core.make.draft import Draft, changed
from vinetag.core.make.job import Job

__all__ = ["AcrossDot"]

SHORTEST = 2
KINDS = frozenset("plural doer trade ing past".split())


class AcrossDot:
    """Words whose last letters are an extension, two-level ones too."""

    name = "acrossdot"

    def make(self, job: Job) -> Iterator[Draft]:
        """Stem by stem, of keywords form by form, the longest extension first."""
        endings = {e.replace(".", ""): e for e in sorted(known_extensions())}
        for stem in job.singles:
            found = job.lexicon.thesaurus.forms(stem.text) if stem.kind == "keyword" else ()
            for word in (stem.text, *(form for kind, form in found if kind in KINDS)):
                for cut in range(SHORTEST, len(word) - 1):
                    job.considered[self.name] += 1
                    extension = endings.get(word[cut:])
                    if extension and word.isalpha():
                        args = {"word": word, "extension": extension, "before": word[:cut]}
                        strength = (0.3 + 0.12 * cut) * (0.4 + 0.6 * stem.worth)
                        yield changed(
                            word[:cut],
                            "acrossdot",
                            stem.keyword,
                            Change("across_dot", args),
                            min(0.8, strength),
                        )
