"""Reading a name into its words, and grading it."""

from __future__ import annotations

import unicodedata
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cache, cached_property
from typing import TYPE_CHECKING, Final

from vinetag.core.brief import Brief
from vinetag.core.candidates import Candidate, Part
from vinetag.core.concepts import Change
from vinetag.core.grade.hearing import Hearing
from vinetag.core.grade.reading import Reading
from vinetag.core.grade.scale import Reason, reasons
from vinetag.core.grade.weigh import enough, power_mean, shares, weights_of
from vinetag.core.lexicon import Lexicon
from vinetag.core.lexicon.morphology import doers, singular
from vinetag.core.lexicon.segment import segment
from vinetag.core.names import is_ldh_label, plain_words, unicode_label
from vinetag.core.world.incidental import SMALL
from vinetag.core.world.world import world_of

if TYPE_CHECKING:
    from vinetag.core.grade.scale import Measure

__all__ = ["Grade", "Grader", "hearing_of"]

KIN = -0.12
LEFT_OVER = 4
UNKNOWN: Final = -1.0


@cache
def hearing_of(lexicon: Lexicon) -> Hearing:
    """The one memory of heard words for a lexicon."""
    return Hearing(lexicon)


@dataclass(frozen=True, slots=True)
class Grade:
    """`grade` and `scores` (by measure, those that could be given) run from 0 to 100. `whole`: the
    measures that gave a score have at least half of the weight; otherwise there is no grade to
    speak of.
    """

    grade: float
    scores: Mapping[str, float]
    whole: bool = True


class Grader:
    """Grades names against one brief."""

    def __init__(self, brief: Brief, lexicon: Lexicon, measures: Sequence[Measure]) -> None:
        self._brief = brief
        self._lexicon = lexicon
        self._hearing = hearing_of(lexicon)
        self._measures = measures
        self._of_letters = any(measure.of_letters for measure in measures)
        self._weights = weights_of(brief)
        self._by_scored: dict[tuple[str, ...], tuple[Mapping[str, float], bool]] = {}
        self._keywords = {k.text: k.weight for k in brief.keywords}
        self._joined = {k.joined: k.text for k in brief.keywords}
        self._name = "".join(plain_words(brief.name))
        self._known: dict[str, Part] = {}
        self._world = world_of(brief, lexicon)

    def read(self, candidate: Candidate) -> Reading:
        """The reading of a made name: its parts are its words."""
        words = [(p.start, p.text) for p in candidate.parts if p.kind != "hyphen"]
        carried: list[Part] = []
        added = 0
        for part in candidate.parts:
            if part.keyword:
                before = carried[-1] if carried else part
                # The words of a phrase are carried as one.
                if before is not part and before[1:3] == part[1:3] == ("keyword", part.keyword):
                    whole = candidate.label[before.start : part.start + len(part.text)]
                    carried[-1] = Part(whole, "keyword", part.keyword, before.start)
                else:
                    carried.append(part)
            elif part.kind not in ("hyphen", "name", "small"):
                added += len(part.text)
        label = candidate.label
        return Reading(
            label,
            words,
            self._keywords,
            carried,
            added,
            candidate.strength,
            bool(self._name) and label.replace("-", "") == self._name,
            self._lexicon,
            self._hearing,
            self._brief.purpose,
            self._brief.extensions[0],
            label.startswith("xn--"),
            "",
            self._world,
        )

    def read_any(self, candidate: Candidate) -> Reading:
        """The reading of a made name, or of its letters alone when nothing made it."""
        return self.read(candidate) if candidate.parts else self.read_label(candidate.label)

    def read_label(self, label: str) -> Reading:
        """The reading of a typed name: its words, and what of the keywords they carry, are found in
        its letters. One with accents is read as if it had none.
        """
        shown = unicode_label(label)
        if shown != label:
            plain = unicodedata.normalize("NFKD", shown)
            plain = "".join(c for c in plain if not unicodedata.combining(c))
            if not is_ldh_label(plain):
                return self.read(Candidate(label, (), (Part(label, "word", "", 0),), 0.0))
            label = plain
        parts: list[Part] = []
        start = 0
        for stretch in label.split("-"):
            for word in self._read(stretch):
                if word not in self._known:
                    self._known[word] = self._part(word)
                parts.append(self._known[word]._replace(start=start))
                start += len(word)
            start += 1
        reading = self.read(Candidate(label, (), tuple(parts), 0.0))
        accented = shown if shown != label and len(shown) == len(label) else ""
        return reading._replace(words=self._as_seen(reading.words), accented=accented)

    def _read(self, stretch: str) -> Sequence[str]:
        """A name that a field of the world holds is read as it was written there."""
        entry = self._world.entries.get(stretch)
        return entry.words if entry else segment(stretch, self._lexicon, extra=self._joined)

    def _as_seen(self, words: Sequence[tuple[int, str]]) -> list[tuple[int, str]]:
        """Letters left over beside a word make one new word with it: "brand", "olo"."""
        seen: list[tuple[int, str]] = []
        for at, word in words:
            before = seen[-1] if seen else (-1, "")
            joins = before[0] + len(before[1]) == at and word.isalpha() and before[1].isalpha()
            if joins and (self._left_over(word) or self._left_over(before[1])):
                seen[-1] = (before[0], before[1] + word)
            else:
                seen.append((at, word))
        return seen

    def _left_over(self, word: str) -> bool:
        short = len(word) <= LEFT_OVER and bool(set("aeiouy") & set(word))
        return short and word not in self._lexicon.words and word not in self._joined

    @cached_property
    def _standing(self) -> Mapping[str, str]:
        """Keywords as they stand in names: as they are, one of many, who does what they say."""
        found = dict(self._joined)
        for text in self._keywords:
            others = (singular(text, self._lexicon), *doers(text, self._lexicon))
            found.update({other: text for other in others if other and other not in found})
        return found

    @cached_property
    def _forms(self) -> Mapping[str, str]:
        forms = self._lexicon.thesaurus.forms
        return {form: text for joined, text in self._joined.items() for _, form in forms(joined)}

    def _part(self, word: str) -> Part:
        """What a typed word is to the brief."""
        if word in self._standing:
            return Part(word, "keyword", self._standing[word], 0)
        if word in SMALL:
            return Part(word, "small", "", 0)
        if word in self._world.words:
            return Part(word, "world", "", 0)
        if word in self._forms:
            of = self._forms[word]
            return Part(word, "form", of, 0, Change("some_form", {"word": of}))
        if not word.isalpha() or not self._joined:
            return Part(word, "word", "", 0)
        said = self._hearing.word(word).readings
        alike = self._lexicon.sounds.alike(said[0][0]) if said else ()
        for other in alike:
            if other in self._joined:
                return Part(word, "homophone", self._joined[other], 0, Change("same_sound", {}))
        keywords = list(self._keywords)
        near = self._lexicon.closeness(word, keywords)
        best = max(range(len(keywords)), key=near.__getitem__)
        if near[best] >= KIN:
            return Part(word, "kin", keywords[best], 0)
        return Part(word, "word", "", 0)

    def grade(self, reading: Reading) -> Grade:
        """Scores by measure, and the whole."""
        scores: dict[str, float] = {}
        known: dict[str, float | None] = {}
        if self._of_letters:
            known = self._hearing.scores(reading.accented or reading.label, reading.words)
        for measure in self._measures:
            score = known.get(measure.name, UNKNOWN)
            if score == UNKNOWN:
                score = measure.assess(reading).score
                if measure.of_letters:
                    known[measure.name] = score
            if score is not None:
                scores[measure.name] = score
        key = tuple(scores)
        if key not in self._by_scored:
            part = shares({name: self._weights.get(name, 0) for name in key})
            self._by_scored[key] = part, enough(scores, self._weights)
        part, is_enough = self._by_scored[key]
        return Grade(power_mean(scores, part), scores, is_enough)

    def grades(self, readings: Sequence[Reading]) -> list[Grade]:
        """Those of many names: how near their words are is worked out for all of them at once."""
        said = ([w for _, w in reading.words if w.isalpha()] for reading in readings)
        self._world.look_up(text for words in said for text in (" ".join(words), *words))
        return [self.grade(reading) for reading in readings]

    def explain(self, reading: Reading) -> dict[str, tuple[float | None, list[Reason]]]:
        """measure -> (score, reasons, the weightiest first)."""
        found = {}
        for measure in self._measures:
            assessment = measure.assess(reading)
            found[measure.name] = (assessment.score, reasons(measure, assessment))
        return found
