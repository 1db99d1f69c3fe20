"""A list of names as columns, so that tens of thousands can be narrowed at once."""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator, Mapping, Sequence
from typing import Final, NamedTuple

import numpy as np
import numpy.typing as npt

from vinetag.core.brief import MEASURE_NAMES, RECIPE_NAMES
from vinetag.core.checking import STATUSES
from vinetag.core.facts import ADDED, OTHER

__all__ = ["ADDED_NAMES", "LATER", "NOT_ASKED", "SEEN", "STATUS_NAMES", "Columns", "Line"]

NOT_ASKED: Final = "not asked"
# A status is stored as its place in here.
STATUS_NAMES: Final = (NOT_ASKED, *STATUSES)
ADDED_NAMES: Final = (*ADDED.values(), OTHER)
KEPT, DISMISSED, SEEN, LATER = 1, 2, 4, 8
UNKNOWN: Final = np.nan

Numbers = npt.NDArray[np.float32]
Flags = npt.NDArray[np.bool_]


class Line(NamedTuple):
    """One name with its figures; `scores` by measure, 0 to 100, without those that could not be
    given; syllables and words are 0 when they are not known.
    """

    label: str
    grade: float
    letters: int
    syllables: int
    words: int
    scores: Mapping[str, float]
    recipes: Sequence[str]
    added: Sequence[str]


class Columns:
    """The names in the order of the list, with what is known of them. Statuses and marks change
    while the list stays; names the list does not hold are passed over.
    """

    def __init__(self, lines: Iterable[Line]) -> None:
        columns = tuple(zip(*lines, strict=True)) or ((),) * len(Line._fields)
        labels, grades, letters, syllables, words, scores, recipes, added = columns
        self.labels: Sequence[str] = labels
        self.place: Mapping[str, int] = {label: i for i, label in enumerate(labels)}
        count = len(labels)

        def numbers(values: Iterable[float]) -> Numbers:
            return np.fromiter(values, np.float32, count)

        self.figures: dict[str, Numbers] = {
            "grade": numbers(grades),
            "letters": numbers(letters),
            "syllables": numbers(value or UNKNOWN for value in syllables),
            "words": numbers(value or UNKNOWN for value in words),
        }
        for name in MEASURE_NAMES:
            self.figures[name] = numbers([given.get(name, UNKNOWN) for given in scores])
        self.recipes = _bits(recipes, RECIPE_NAMES)
        self.added = _bits(added, ADDED_NAMES)
        digit = re.compile("[0-9]").search
        self.hyphen: Flags = np.fromiter(["-" in label for label in labels], np.bool_, count)
        self.digit: Flags = np.fromiter([digit(a) is not None for a in labels], np.bool_, count)
        self.marks = np.zeros(count, np.uint8)
        self._statuses: dict[str, npt.NDArray[np.uint8]] = {}
        self._prices: dict[str, Numbers] = {}

    def __len__(self) -> int:
        return len(self.labels)

    def statuses(self, extension: str) -> npt.NDArray[np.uint8]:
        """By name, the place of its status in STATUS_NAMES."""
        found = self._statuses.get(extension)
        return np.zeros(len(self), np.uint8) if found is None else found

    def cheapest(self, extensions: Sequence[str]) -> Numbers:
        """By name, the lowest known price of the first year under any of the extensions where it
        can be registered; NaN where none is known.
        """
        lowest = np.full(len(self), UNKNOWN, np.float32)
        for extension in extensions:
            if extension in self._prices:
                np.fmin(lowest, self._prices[extension], out=lowest)
        return lowest

    def answer(self, label: str, extension: str, status: str, price: float | None) -> None:
        """Take in what was found out of one full name; `price` of the first year, when it can be
        registered.
        """
        at = self.place.get(label)
        if at is None or status not in STATUS_NAMES:
            return
        if extension not in self._statuses:
            self._statuses[extension] = np.zeros(len(self), np.uint8)
            self._prices[extension] = np.full(len(self), UNKNOWN, np.float32)
        self._statuses[extension][at] = STATUS_NAMES.index(status)
        can_be_had = status in ("open", "premium") and price is not None
        self._prices[extension][at] = price if can_be_had else UNKNOWN

    def mark(self, bit: int, labels: Iterable[str]) -> None:
        """These names, and no others, have the mark KEPT or DISMISSED."""
        self.marks &= ~np.uint8(bit)
        places = [at for label in labels if (at := self.place.get(label)) is not None]
        self.marks[places] |= np.uint8(bit)

    def looked(self, label: str, verdict: int) -> None:
        """How a name was looked at last: SEEN, LATER, or 0 for not yet."""
        at = self.place.get(label)
        if at is not None:
            self.marks[at] = (self.marks[at] & ~np.uint8(SEEN | LATER)) | np.uint8(verdict)


def _bits(values: Sequence[Sequence[str]], names: Sequence[str]) -> npt.NDArray[np.uint32]:
    """Each value as a sum of 1 << its place among the names."""
    bit = {name: 1 << i for i, name in enumerate(names)}
    known: dict[tuple[str, ...], int] = {}

    def sums() -> Iterator[int]:
        for value in map(tuple, values):
            if value not in known:
                known[value] = sum({bit.get(name, 0) for name in value})
            yield known[value]

    return np.fromiter(sums(), np.uint32, len(values))
