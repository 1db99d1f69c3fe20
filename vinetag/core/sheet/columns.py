"""A list of names as columns, so that tens of thousands can be narrowed at once."""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator, Mapping, Sequence
from decimal import Decimal
from typing import Any, Final, NamedTuple

import numpy as np
import numpy.typing as npt

from vinetag.core.brief import MEASURE_NAMES, RECIPE_NAMES
from vinetag.core.checking import STATUSES, buyable
from vinetag.core.facts import ADDED, OTHER
from vinetag.core.money import thousandths

__all__ = ["ADDED_NAMES", "LATER", "NOT_ASKED", "SEEN", "STATUS_NAMES", "Columns", "Line"]

BUYABLE: Final = buyable()
NOT_ASKED: Final = "not asked"
# A status is stored as its place in here.
STATUS_NAMES: Final = (NOT_ASKED, *STATUSES)
ADDED_NAMES: Final = (*ADDED.values(), OTHER)
KEPT, DISMISSED, SEEN, LATER = 1, 2, 4, 8
UNKNOWN: Final = np.nan
NO_PRICE: Final = np.iinfo(np.int64).max

Numbers = npt.NDArray[np.float32]
Figures = npt.NDArray[np.floating[Any]]
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
        self._prices: dict[str, npt.NDArray[np.int64]] = {}
        self._currencies: dict[str, npt.NDArray[np.uint8]] = {}
        self._known_currencies: list[str] = []

    def __len__(self) -> int:
        return len(self.labels)

    def statuses(self, extension: str) -> npt.NDArray[np.uint8]:
        """By name, the place of its status in STATUS_NAMES."""
        found = self._statuses.get(extension)
        return np.zeros(len(self), np.uint8) if found is None else found

    def currency(self, extensions: Sequence[str]) -> str:
        """The currency most known prices under the extensions are in; of as many, the first by
        letter; "" where no price is known. Prices are compared in it alone.
        """
        counts = np.zeros(len(self._known_currencies) + 1, np.int64)
        for extension in extensions:
            if extension in self._prices:
                priced = self._prices[extension] != NO_PRICE
                counts += np.bincount(self._currencies[extension][priced], minlength=len(counts))
        ranked = sorted(zip(-counts, self._known_currencies, strict=False))
        return ranked[0][1] if ranked and ranked[0][0] else ""

    def cheapest(self, extensions: Sequence[str]) -> Figures:
        """By name, the lowest known price of the first year, in thousandths of `currency`, under
        any of the extensions where it can be registered; infinite where none is known in it.
        """
        lowest = np.full(len(self), NO_PRICE, np.int64)
        code = (*self._known_currencies, "").index(self.currency(extensions))
        for extension in extensions:
            if extension in self._prices:
                like = self._currencies[extension] == code
                np.minimum(lowest, self._prices[extension], out=lowest, where=like)
        return np.where(lowest == NO_PRICE, np.inf, lowest)

    def answer(
        self,
        label: str,
        extension: str,
        status: str,
        price: Decimal | None = None,
        currency: str = "",
    ) -> None:
        """Take in what was found out of one full name; `price` of the first year in `currency`,
        when it can be registered.
        """
        at = self.place.get(label)
        if at is None or status not in STATUS_NAMES:
            return
        if extension not in self._statuses:
            self._statuses[extension] = np.zeros(len(self), np.uint8)
            self._prices[extension] = np.full(len(self), NO_PRICE, np.int64)
            self._currencies[extension] = np.zeros(len(self), np.uint8)
        self._statuses[extension][at] = STATUS_NAMES.index(status)
        self._prices[extension][at] = NO_PRICE
        if status in BUYABLE and price is not None and currency:
            if currency not in self._known_currencies:
                self._known_currencies.append(currency)
            self._prices[extension][at] = thousandths(price)
            self._currencies[extension][at] = self._known_currencies.index(currency)

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
