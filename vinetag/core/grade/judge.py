"""Reading a name into its words, and grading it."""

from __future__ import annotations

import itertools
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, NamedTuple

from vinetag.core.brief import Brief
from vinetag.core.candidates import Candidate, Part
from vinetag.core.grade.scale import Reason, reasons
from vinetag.core.grade.weigh import weigh
from vinetag.core.lexicon import Lexicon
from vinetag.core.lexicon.segment import segment
from vinetag.core.names import plain_words

if TYPE_CHECKING:
    from vinetag.core.grade.scale import Measure

__all__ = ["Grade", "Grader", "Reading"]


class Reading(NamedTuple):
    """A name as the measures see it. `words`: (first letter's place, word) from left to right;
    `keywords`: the brief's keywords with weights; `carried`: the keyword each stretch came from;
    `added`: letters from no keyword; `strength`: how well the parts belong together, 0 to 1.
    """

    label: str
    words: Sequence[tuple[int, str]]
    keywords: Mapping[str, int]
    carried: Sequence[Part]
    added: int
    strength: float
    is_name: bool
    lexicon: Lexicon


@dataclass(frozen=True, slots=True)
class Grade:
    """`grade` and `scores` (by measure) run from 0 to 100."""

    grade: float
    scores: Mapping[str, float]


class Grader:
    """Grades names against one brief."""

    def __init__(self, brief: Brief, lexicon: Lexicon, measures: Sequence[Measure]) -> None:
        self._brief = brief
        self._lexicon = lexicon
        self._measures = measures
        self._keywords = {k.text: k.weight for k in brief.keywords}
        self._joined = {k.joined: k.text for k in brief.keywords}
        self._name = "".join(plain_words(brief.name))

    def read(self, candidate: Candidate) -> Reading:
        """The reading of a made name: its parts are its words."""
        words = [(p.start, p.text) for p in candidate.parts if p.kind != "hyphen"]
        carried: list[Part] = []
        added = 0
        for part in candidate.parts:
            if part.keyword:
                if carried and carried[-1].keyword == part.keyword:
                    before = carried[-1]
                    whole = candidate.label[before.start : part.start + len(part.text)]
                    carried[-1] = Part(whole, "keyword", part.keyword, before.start)
                else:
                    carried.append(part)
            elif part.kind not in ("hyphen", "name"):
                added += len(part.text)
        return Reading(
            candidate.label,
            words,
            self._keywords,
            carried,
            added,
            candidate.strength,
            bool(self._name) and candidate.label.replace("-", "") == self._name,
            self._lexicon,
        )

    def read_any(self, candidate: Candidate) -> Reading:
        """The reading of a made name, or of its letters alone when nothing made it."""
        return self.read(candidate) if candidate.parts else self.read_label(candidate.label)

    def read_label(self, label: str) -> Reading:
        """The reading of a typed name: its words and keywords are found in its letters."""
        parts: list[Part] = []
        start = 0
        for stretch in label.split("-"):
            for word in segment(stretch, self._lexicon, extra=self._joined):
                keyword = self._joined.get(word, "")
                parts.append(Part(word, "keyword" if keyword else "word", keyword, start))
                start += len(word)
            start += 1
        pairs = itertools.pairwise(parts)
        alike = [self._lexicon.likeness(a.text, [b.text])[0] for a, b in pairs]
        strength = max(0.0, sum(alike) / len(alike)) if alike else 1.0
        return self.read(Candidate(label, (), tuple(parts), strength))

    def grade(self, reading: Reading) -> Grade:
        """Scores by measure, and the whole."""
        scores = {m.name: m.assess(reading).score for m in self._measures}
        return Grade(weigh(scores, self._brief.purpose), scores)

    def explain(self, reading: Reading) -> dict[str, tuple[float, list[Reason]]]:
        """measure -> (score, reasons, the weightiest first)."""
        found = {}
        for measure in self._measures:
            assessment = measure.assess(reading)
            found[measure.name] = (assessment.score, reasons(measure, assessment))
        return found
