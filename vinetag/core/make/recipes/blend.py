"""blend: two words overlapped on shared letters or sounds."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from vinetag.core.candidates import Part
from vinetag.core.concepts import Change
from vinetag.core.make.draft import Draft
from vinetag.core.make.job import Job
from vinetag.core.make.stems import Stem

__all__ = ["Blend"]

MOST_STEMS = 60
SHORTEST_SHARE = 0.66
LOST = 1
# So many letters of the second word follow what is shared, or it would not be seen.
LEFT = 2
# The share of the first's letters left where only a sound is shared, and that not as another word.
LEFT_BY_SOUND = 0.75
WORTH_BLENDING = 0.3
# What an overlap of so many letters is worth, and that the words go together. By judgement.
OVERLAP = (0.0, 0.1, 0.2, 0.35, 0.4)
TOGETHER = 0.6
# Words of which one was not asked for, held together by two letters or where a letter is lost, must
# go together otherwise, the more the plainer the dial.
PLAIN = 0.42
LESS_AT_THE_END = 0.4
SAYABLE = -3.4


class Blend:
    """Overlaps of two letters and more, or of one sound spelt in two ways."""

    name = "blend"

    def make(self, job: Job) -> Iterator[Draft]:
        """Every ordered pair of the first MOST_STEMS stems that overlaps; keywords with words of
        the bank too, which stand before them or behind.
        """
        stems = [s for s in job.singles if 3 <= len(s.text) <= 9][:MOST_STEMS]
        keywords = [s for s in stems if s.kind == "keyword"]
        leads, tails = (
            [s for s in job.bank(role) if 3 <= len(s.text) <= 9 and s.worth >= WORTH_BLENDING]
            for role in ("lead", "tail")
        )
        for firsts, seconds in ((stems, stems), (keywords, tails), (leads, keywords)):
            job.considered[self.name] += len(firsts) * len(seconds)
            yield from _overlapping(job, firsts, seconds)
        for first in keywords:
            for second in stems:
                if first.text != second.text:
                    yield from _on_sound(job, first, second)


def _overlapping(job: Job, firsts: Sequence[Stem], seconds: Sequence[Stem]) -> Iterator[Draft]:
    """Blends of those that share letters: two of them begin the second, and end the first."""
    if not firsts or not seconds:
        return
    begins: dict[str, list[int]] = {}
    for j, second in enumerate(seconds):
        for start in {second.text[at : at + 2] for at in range(LOST + 1)}:
            begins.setdefault(start, []).append(j)
    together = job.collocation.together(firsts, seconds)
    for i, first in enumerate(firsts):
        text = first.text
        ends = [text[at : at + 2] for at in range(max(0, len(text) - 5), len(text) - 1)]
        meets = dict.fromkeys(j for end in ends for j in begins.get(end, ()))
        for j in meets:
            other = seconds[j].text
            asked = "keyword" in (first.kind, seconds[j].kind)
            if asked and job.lexicon.lemma(other) != job.lexicon.lemma(text):
                yield from _on_letters(job, first, seconds[j], float(together[i, j]))


def _on_letters(job: Job, first: Stem, second: Stem, together: float) -> Iterator[Draft]:
    a, b = first.text, second.text
    found = _overlap(a, b)
    if found is None or a + b in job.lexicon.words:
        return  # or it would be taken for that word misspelt (nightime)
    end, start, size = found
    asked = first.kind == second.kind == "keyword"
    whole = end == len(a) and not start
    little = not asked and (size == 2 or not whole)
    if little and together < PLAIN - LESS_AT_THE_END * job.brief.dial / 100:
        return
    if size > 1:  # by one letter, a word hides in the other
        evidence = OVERLAP[size] + TOGETHER * together
        change = Change("blend", {"first": a, "second": b, "letters": b[start : start + size]})
        label = a[:end] + b[start + size :]
        yield from _draft(job, first, second, label, end - size, change, evidence)


def _overlap(a: str, b: str) -> tuple[int, int, int] | None:
    """Where `a` ends and `b` starts for the best overlap, and how many letters it has."""
    best = None
    for end in range(len(a), max(2, len(a) - LOST) - 1, -1):
        for start in range(min(LOST, len(b) - 3) + 1):
            for size in range(min(4, end - 1, len(b) - start - LEFT), 0, -1):
                if a[end - size : end] != b[start : start + size]:
                    continue
                if size <= 2 and (end < len(a) or start):
                    continue  # so little is enough only where nothing else is lost
                kept = (end / len(a) + (len(b) - start) / len(b)) / 2
                value = kept + 0.06 * size - 0.08 * (len(a) - end) - 0.1 * start
                if best is None or value > best[0]:
                    best = (value, (end, start, size))
                break
    return best[1] if best else None


def _on_sound(job: Job, first: Stem, second: Stem) -> Iterator[Draft]:
    """The last sound of the first is the first of the second, in other letters: one is kept."""
    left, right = job.chunks(first.text), job.chunks(second.text)
    if len(left) < 2 or len(right) < 2 or left[-1][1] != right[0][1] or not left[-1][1]:
        return
    if left[-1][0] == right[0][0] or first.text[-2] == second.text[0]:
        return
    cut = len(first.text) - len(left[-1][0])
    if cut < LEFT_BY_SOUND * len(first.text) or first.text[:cut] in job.lexicon.words:
        return
    label = first.text[:cut] + second.text
    args = {"first": first.text, "second": second.text, "left": left[-1][0], "right": right[0][0]}
    yield from _draft(job, first, second, label, cut, Change("blend_by_sound", args), OVERLAP[1])


def _draft(
    job: Job, first: Stem, second: Stem, label: str, seam: int, change: Change, evidence: float
) -> Iterator[Draft]:
    if label in (first.text, second.text) or label in job.lexicon.words or seam < 2:
        return
    kept = len(label) / (len(first.text) + len(second.text))
    if kept < SHORTEST_SHARE or not job.lexicon.sayable.score(label) > SAYABLE:
        return
    worth = (first.worth + second.worth) / 2
    parts = (
        Part(label[:seam], "blend", first.keyword, 0, change),
        Part(label[seam:], "blend", second.keyword, seam, change),
    )
    yield Draft(label, parts, min(1.0, evidence + 0.6 * worth))
