"""blend: two words overlapped on shared letters or sounds."""

from __future__ import annotations

from collections.abc import Iterator

from vinetag.core.candidates import Part
from vinetag.core.make.draft import Draft
from vinetag.core.make.job import Job
from vinetag.core.make.stems import Stem

__all__ = ["Blend"]

MOST_STEMS = 60
SHORTEST_SHARE = 0.66
LOST = 1
SAYABLE = -3.0


class Blend:
    """Overlaps of two letters and more, or of one sound spelt in two ways."""

    name = "blend"
    summary = "two words overlapped where they share letters or sounds"
    daring = 0.6

    def make(self, job: Job) -> Iterator[Draft]:
        """Every ordered pair of the first MOST_STEMS stems that overlaps."""
        stems = [s for s in job.singles if 3 <= len(s.text) <= 9][:MOST_STEMS]
        for first in stems:
            for second in stems:
                if first.text != second.text:
                    job.considered[self.name] += 1
                    yield from _on_letters(job, first, second)
                    yield from _on_sound(job, first, second)


def _on_letters(job: Job, first: Stem, second: Stem) -> Iterator[Draft]:
    a, b = first.text, second.text
    best = None
    for end in range(len(a), max(2, len(a) - LOST) - 1, -1):
        for start in range(min(LOST, len(b) - 3) + 1):
            for size in range(min(4, end - 1, len(b) - start - 1), 1, -1):
                if a[end - size : end] != b[start : start + size]:
                    continue
                kept = (end / len(a) + (len(b) - start) / len(b)) / 2
                if size == 2 and (end < len(a) or start):
                    continue  # two letters are enough only where nothing else is lost
                value = kept + 0.06 * size - 0.08 * (len(a) - end) - 0.1 * start
                if best is None or value > best[0]:
                    best = (value, end, start, size)
                break
    if best is None:
        return
    _, end, start, size = best
    label = a[:end] + b[start + size :]
    shared = b[start : start + size]
    yield from _draft(job, first, second, label, end - size, f"sharing {shared}", size / 4)


def _on_sound(job: Job, first: Stem, second: Stem) -> Iterator[Draft]:
    """The last sound of the first is the first of the second, in other letters: one is kept."""
    left, right = job.chunks(first.text), job.chunks(second.text)
    if len(left) < 2 or len(right) < 2 or left[-1][1] != right[0][1] or not left[-1][1]:
        return
    if left[-1][0] == right[0][0]:
        return
    cut = len(first.text) - len(left[-1][0])
    label = first.text[:cut] + second.text
    told = f"sharing the sound of {left[-1][0]} and {right[0][0]}"
    yield from _draft(job, first, second, label, cut, told, 0.3)


def _draft(
    job: Job, first: Stem, second: Stem, label: str, seam: int, shared: str, overlap: float
) -> Iterator[Draft]:
    if label in (first.text, second.text) or label in job.lexicon.words or seam < 2:
        return
    kept = len(label) / (len(first.text) + len(second.text))
    if kept < SHORTEST_SHARE or not job.lexicon.sayable.score(label) > SAYABLE:
        return
    told = f"blend of {first.text} and {second.text}, {shared}"
    worth = (first.worth + second.worth) / 2
    parts = (
        Part(label[:seam], "blend", first.keyword, 0, told),
        Part(label[seam:], "blend", second.keyword, seam, told),
    )
    yield Draft(label, parts, min(1.0, 0.1 + 0.35 * overlap + 0.6 * worth))
