"""form: plural, verb form, doer, trade of a word, as the dictionary has them."""

from __future__ import annotations

from collections.abc import Iterator

from vinetag.core.concepts import Change
from vinetag.core.make.draft import Draft, changed
from vinetag.core.make.job import Job

__all__ = ["Form"]

OF_RELATED = frozenset(("doer", "trade"))
STRENGTH = {"plural": 0.7, "doer": 0.85, "trade": 0.8, "ing": 0.45, "adj": 0.5, "adv": 0.4}
SELDOM = frozenset(("third", "past", "participle", "more", "most"))


class Form:
    """Forms a dictionary knows, of keywords and of the words closest to them."""

    name = "form"

    def make(self, job: Job) -> Iterator[Draft]:
        """Stem by stem; each form once."""
        seen: set[str] = set()
        for stem in job.singles:
            for kind, form in job.lexicon.thesaurus.forms(stem.text):
                job.considered[self.name] += 1
                if kind in SELDOM and job.daring < 0.6:
                    continue
                if kind == "ing" and stem.pos[:1] != "v":
                    continue  # a thing is seldom done
                if form not in seen and (stem.kind == "keyword" or kind in OF_RELATED):
                    seen.add(form)
                    change = Change(kind, {"word": stem.text})
                    strength = STRENGTH.get(kind, 0.35) * (0.4 + 0.6 * stem.worth)
                    yield changed(form, "form", stem.keyword, change, strength)
