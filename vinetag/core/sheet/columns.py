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
from vinetag.core.sheet.prices import NOT_ASKED, OPEN_TO_LISTS, SheetPrices, Span

__all__ = ["ADDED_NAMES", "LATER", "NOT_ASKED", "SEEN", "STATUS_NAMES", "Columns", "Line"]

BUYABLE: Final = buyable()
# A status is stored as its place in here.
STATUS_NAMES: Final = (NOT_ASKED, *STATUSES)
ADDED_NAMES: Final = (*ADDED.values(), OTHER)
KEPT, DISMISSED, SEEN, LATER = 1, 2, 4, 8
UNKNOWN: Final = np.nan
BY_LIST: Final = np.array([status in OPEN_TO_LISTS for status in STATUS_NAMES])
PREMIUM: Final = STATUS_NAMES.index("premium")

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
        # Of the phrase a name carries; none is known before `looked_for`.
        self.figures["demand"] = np.full(count, UNKNOWN, np.float32)
        for name in MEASURE_NAMES:
            self.figures[name] = numbers([given.get(name, UNKNOWN) for given in scores])
        self.recipes = _bits(recipes, RECIPE_NAMES)
        self.added = _bits(added, ADDED_NAMES)
        digit = re.compile("[0-9]").search
        self.hyphen: Flags = np.fromiter(["-" in label for label in labels], np.bool_, count)
        self.digit: Flags = np.fromiter([digit(a) is not None for a in labels], np.bool_, count)
        self.marks = np.zeros(count, np.uint8)
        self._statuses: dict[str, npt.NDArray[np.uint8]] = {}
        self.prices = SheetPrices()
        # Of quotes, the first and each later year, in their own currencies.
        self._prices: dict[str, npt.NDArray[np.float64]] = {}
        self._currencies: dict[str, npt.NDArray[np.uint8]] = {}
        self._known_currencies: list[str] = []
        self._costs: dict[tuple[Span, tuple[str, ...], bool], Figures] = {}

    def __len__(self) -> int:
        return len(self.labels)

    def statuses(self, extension: str) -> npt.NDArray[np.uint8]:
        """By name, the place of its status in STATUS_NAMES."""
        found = self._statuses.get(extension)
        return np.zeros(len(self), np.uint8) if found is None else found

    def has_prices(self, prices: SheetPrices) -> bool:
        """Take in what names cost by the lists; whether that is another than before."""
        if prices.edition == self.prices.edition:
            return False
        self.prices = prices
        self._costs.clear()
        return True

    def costs(self, span: Span, extensions: Sequence[str], *, premium: bool = True) -> Figures:
        """By name, the least it costs (vinetag.core.sheet.prices.name_costs), in thousandths of the
        currency of `prices`; infinite where that is not known.
        """
        key = span, tuple(extensions), premium
        if key not in self._costs:
            lowest = np.full(len(self), np.inf)
            for extension in extensions:
                np.minimum(lowest, self._under(extension, span, premium), out=lowest)
            self._costs[key] = lowest
        return self._costs[key]

    def _under(self, extension: str, span: Span, premium: bool) -> Figures:
        listed = self.prices.listed.get(extension)
        amount = None if listed is None else listed.of(span)
        by_list = np.inf if amount is None else float(amount)
        statuses = self._statuses.get(extension)
        if statuses is None:
            return np.full(len(self), by_list)
        found = np.where(BY_LIST[statuses], by_list, np.inf)
        first, later = self._quoted(extension)
        more = self.prices.years - 1
        whole = first + more * later if more else first
        least = np.where(BY_LIST[statuses], np.inf if listed is None else listed.whole, np.inf)
        better = whole < least
        if not premium:
            better &= statuses != PREMIUM
        quoted = {"first": first, "later": later, "whole": whole}[span]
        return np.where(better, quoted, found)

    def _quoted(self, extension: str) -> tuple[Figures, Figures]:
        """The first and each later year by quotes, in the currency of `prices`."""
        worth = [self.prices.worth.get(code, np.inf) for code in (*self._known_currencies, "")]
        factors = np.array(worth)[self._currencies[extension]]
        first, later = self._prices[extension]
        with np.errstate(invalid="ignore"):
            found = np.rint(first * factors), np.rint(later * factors)
        return tuple(np.where(np.isnan(f) | (first == np.inf), np.inf, f) for f in found)  # type: ignore[return-value]

    def answer(
        self,
        label: str,
        extension: str,
        status: str,
        price: Decimal | None = None,
        currency: str = "",
        later: Decimal | None = None,
    ) -> None:
        """Take in what was found out of one full name; `price` of the first year in `currency`,
        and of each `later` one, when it can be registered.
        """
        at = self.place.get(label)
        if at is None or status not in STATUS_NAMES:
            return
        self._costs.clear()
        if extension not in self._statuses:
            self._statuses[extension] = np.zeros(len(self), np.uint8)
            self._prices[extension] = np.full((2, len(self)), np.inf)
            self._currencies[extension] = np.zeros(len(self), np.uint8)
        self._statuses[extension][at] = STATUS_NAMES.index(status)
        self._prices[extension][:, at] = np.inf
        if status in BUYABLE and price is not None and currency:
            if currency not in self._known_currencies:
                self._known_currencies.append(currency)
            years = thousandths(price), thousandths(price if later is None else later)
            self._prices[extension][:, at] = years
            self._currencies[extension][at] = self._known_currencies.index(currency)

    def looked_for(self, demand: Mapping[str, int | None]) -> None:
        """How many search a month for the phrases names carry, by label; of all others nothing is
        known.
        """
        column = np.full(len(self), UNKNOWN, np.float32)
        for label, searches in demand.items():
            at = self.place.get(label)
            if at is not None and searches is not None:
                column[at] = searches
        self.figures["demand"] = column

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
