"""Which names a question leaves, in which order, and how many each filter would leave."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal
from functools import cached_property
from typing import Final

import numpy as np
import numpy.typing as npt

from vinetag.core.brief import MEASURE_NAMES, RECIPE_NAMES
from vinetag.core.checking import STATUS_KINDS
from vinetag.core.money import thousandths
from vinetag.core.sheet.columns import (
    ADDED_NAMES,
    BY_LIST,
    DISMISSED,
    KEPT,
    LATER,
    SEEN,
    STATUS_NAMES,
    Columns,
    Figures,
    Flags,
    Numbers,
)
from vinetag.core.sheet.prices import NOT_ASKED, Span
from vinetag.core.sheet.question import MARKS, RANGES, Question

__all__ = ["Counts", "Narrowing"]

# Where a column of statuses begins: what can be had first, what cannot last.
WORTH: Final = tuple(
    sorted(STATUS_NAMES, key=lambda s: STATUS_KINDS["unasked" if s == NOT_ASKED else s].worth)
)
LEAST: Final = tuple(range(0, 100, 5))
THOUSAND: Final = 1_000
# What the sorts and filters of a span of years are called.
SPANNED: Final[Mapping[Span, str]] = {"first": "price", "later": "later", "whole": "whole"}
IS_PREMIUM: Final = np.array([status == "premium" for status in STATUS_NAMES])
SEARCHES: Final = (0, 10, 100, 1_000, 10_000)
PRICES: Final = (10, 15, 20, 30, 50, 100, 200, 500, 1000)


@dataclass(frozen=True, slots=True)
class Counts:
    """How many names each choice of a filter would leave, with all other filters as they are.
    `values` of a range by value; `least` by measure (and "grade"): at least each of LEAST;
    `prices`: by name in SPANNED, at most each of PRICES, in `currency`, over `years`; `demand`: at
    least each of SEARCHES a month; `choices`: by filter and choice.
    """

    total: int
    values: Mapping[str, Mapping[int, int]]
    least: Mapping[str, Mapping[int, int]]
    prices: Mapping[str, Mapping[int, int]]
    currency: str
    years: int
    demand: Mapping[int, int]
    choices: Mapping[str, Mapping[str, int]]


class Narrowing:
    """A question put to columns. `extensions` are the brief's."""

    def __init__(self, columns: Columns, question: Question, extensions: Sequence[str]) -> None:
        self._columns = columns
        self._question = question
        self._extensions = tuple(extensions)

    @cached_property
    def _masks(self) -> dict[str, Flags]:
        """By filter, the names it leaves; filters that say nothing are not among them."""
        c, q = self._columns, self._question
        masks: dict[str, Flags] = {"mark": _marked(c, q.mark)}
        if q.text or q.starts or q.ends:
            masks["text"] = _with_letters(c.labels, q)
        for name in RANGES:
            low, high = getattr(q, f"{name}_min"), getattr(q, f"{name}_max")
            if low is not None or high is not None:
                column = c.figures[name]
                masks[name] = (column >= (low or 0)) & (
                    column <= (np.inf if high is None else high)
                )
        least = [*q.least] if q.grade_min is None else [("grade", q.grade_min), *q.least]
        for name, score in least:
            masks[name] = masks.get(name, np.True_) & (c.figures[name] >= score)
        if q.recipes:
            masks["recipes"] = _has(c.recipes, q.recipes, RECIPE_NAMES)
        if q.added:
            masks["added"] = _has(c.added, q.added, ADDED_NAMES)
        if q.open_in:
            masks["open_in"] = self._open(q.open_in, every=q.open_all)
        if q.status:
            masks["status"] = self._with_status(q.status)
        for span, name in SPANNED.items():
            low, high = getattr(q, f"{name}_min"), getattr(q, f"{name}_max")
            if low is not None or high is not None:
                costs = self._costs(span)
                masks[name] = (costs >= thousandths(low or Decimal(0))) & (
                    (costs <= thousandths(high)) if high is not None else (costs < np.inf)
                )
        if q.premium:
            masks["premium"] = self._premium(q.premium)
        if q.demand_min is not None:
            masks["demand"] = c.figures["demand"] >= q.demand_min
        for name, flags in (("hyphen", c.hyphen), ("digit", c.digit)):
            wanted = getattr(q, name)
            if wanted:
                masks[name] = flags == (wanted == "yes")
        return masks

    def _costs(self, span: Span) -> Figures:
        premium = self._question.premium != "no"
        return self._columns.costs(span, self._extensions, premium=premium)

    def _premium(self, wanted: str) -> Flags:
        """Names premium somewhere; or those that are not only that."""
        premium, usual = (
            np.logical_or.reduce(
                [flags[self._columns.statuses(e)] for e in self._extensions],
                initial=False,
            )
            for flags in (IS_PREMIUM, BY_LIST)
        )
        kept = premium if wanted == "yes" else ~premium | usual
        return np.broadcast_to(kept, len(self._columns))

    def _open(self, wanted: Sequence[str], *, every: bool) -> Flags:
        """Open in any, or in every one, of the extensions."""
        if "all" in wanted:
            wanted, every = self._extensions, True
        elif "any" in wanted:
            wanted, every = self._extensions, False
        code = STATUS_NAMES.index("open")
        each = [self._columns.statuses(e) == code for e in wanted]
        joined = np.logical_and if every else np.logical_or
        start: Flags = np.full(len(self._columns), every and bool(each))
        return joined.reduce([start, *each])  # type: ignore[no-any-return]

    def _with_status(self, wanted: Iterable[str]) -> Flags:
        codes = [STATUS_NAMES.index(status) for status in wanted]
        found = np.zeros(len(self._columns), np.bool_)
        for extension in self._extensions:
            found |= np.isin(self._columns.statuses(extension), codes)
        return found

    def _without(self, name: str) -> Flags:
        """The names all filters but one leave."""
        everything: Flags = np.ones(len(self._columns), np.bool_)
        for other, mask in self._masks.items():
            if other != name:
                everything &= mask
        return everything

    @cached_property
    def order(self) -> npt.NDArray[np.intp]:
        """The places of the names that are left, in the order asked for."""
        left = np.flatnonzero(self._without(""))
        q = self._question
        if q.sort == "best":
            return left[::-1] if q.reverse else left
        if q.sort == "name":
            labels = self._columns.labels
            by_name = sorted(left.tolist(), key=labels.__getitem__, reverse=q.reverse)
            return np.array(by_name, np.intp)
        key, falling = self._key(q.sort)
        chosen = key[left]
        # Unknown figures stand last either way; the list's own order decides between equals.
        chosen = -chosen if falling != q.reverse else chosen
        return left[np.argsort(chosen, kind="stable")]

    def _key(self, sort: str) -> tuple[Figures, bool]:
        """A column to order by, and whether the highest comes first."""
        if sort.startswith("."):
            codes = self._columns.statuses(sort[1:])
            worth = np.array([WORTH.index(s) for s in STATUS_NAMES], np.float32)
            return worth[codes], False
        for span, name in SPANNED.items():
            if sort == name:
                return self._costs(span), False
        return self._columns.figures[sort], sort not in RANGES

    @property
    def total(self) -> int:
        """How many names are left."""
        return len(self.order)

    def counts(self) -> Counts:
        """What each filter would leave."""
        c, q = self._columns, self._question
        values = {name: _by_value(c.figures[name][self._without(name)]) for name in RANGES}
        least = {
            name: _at_least(c.figures[name][self._without(name)])
            for name in ("grade", *MEASURE_NAMES)
        }
        choices: dict[str, dict[str, int]] = {
            "recipes": _by_bit(c.recipes[self._without("recipes")], RECIPE_NAMES),
            "added": _by_bit(c.added[self._without("added")], ADDED_NAMES),
        }
        base = self._without("open_in")
        ways = {"any": ("any",), "all": ("all",), **{e: (e,) for e in self._extensions}}
        choices["open_in"] = {
            name: int(np.count_nonzero(base & self._open(way, every=False)))
            for name, way in ways.items()
        }
        base = self._without("status")
        choices["status"] = {
            name: int(np.count_nonzero(base & self._with_status([name]))) for name in STATUS_NAMES
        }
        for name, column in (("hyphen", c.hyphen), ("digit", c.digit)):
            inside = column[self._without(name)]
            yes = int(np.count_nonzero(inside))
            choices[name] = {"yes": yes, "no": len(inside) - yes}
        base = self._without("mark")
        choices["mark"] = {name: int(np.count_nonzero(base & _marked(c, name))) for name in MARKS}
        base = self._without("premium")
        choices["premium"] = {
            name: int(np.count_nonzero(base & self._premium(name))) for name in ("yes", "no")
        }
        prices = {
            name: _at_most(self._costs(span)[self._without(name)]) for span, name in SPANNED.items()
        }
        currency, years = c.prices.currency, c.prices.years
        total = choices["mark"][q.mark]
        demand = _reaching(c.figures["demand"][self._without("demand")], SEARCHES)
        return Counts(total, values, least, prices, currency, years, demand, choices)


def _with_letters(labels: Sequence[str], q: Question) -> Flags:
    found = (
        q.text in label and label.startswith(q.starts) and label.endswith(q.ends)
        for label in labels
    )
    return np.fromiter(found, np.bool_, len(labels))


def _marked(columns: Columns, mark: str) -> Flags:
    bits = columns.marks
    there: Flags = np.equal(bits & np.uint8(DISMISSED), 0)
    marked: Flags = there
    if mark == "dismissed":
        marked = ~there
    elif mark == "kept":
        marked = there & np.not_equal(bits & np.uint8(KEPT), 0)
    elif mark == "later":
        marked = there & np.not_equal(bits & np.uint8(LATER), 0)
    elif mark == "fresh":
        marked = np.equal(bits & np.uint8(DISMISSED | KEPT | LATER | SEEN), 0)
    return marked


def _has(bits: npt.NDArray[np.uint32], wanted: Iterable[str], names: Sequence[str]) -> Flags:
    mask = sum(1 << names.index(name) for name in set(wanted))
    found: Flags = np.not_equal(bits & np.uint32(mask), 0)
    return found


def _by_bit(bits: npt.NDArray[np.uint32], names: Sequence[str]) -> dict[str, int]:
    return {name: int(np.count_nonzero(bits & np.uint32(1 << i))) for i, name in enumerate(names)}


def _by_value(column: Numbers) -> dict[int, int]:
    values, counts = np.unique(column[~np.isnan(column)].astype(int), return_counts=True)
    return dict(zip(values.tolist(), counts.tolist(), strict=True))


def _at_most(costs: Figures) -> dict[int, int]:
    edges = np.array(PRICES, float) * THOUSAND
    upto = np.bincount(np.searchsorted(edges, costs), minlength=len(edges) + 1).cumsum()
    return dict(zip(PRICES, upto.tolist(), strict=False))


def _at_least(column: Numbers) -> dict[int, int]:
    return _reaching(column, LEAST)


def _reaching(column: Numbers, edges: Sequence[int]) -> dict[int, int]:
    """How many are known to be each of the edges or more."""
    known = np.sort(column[~np.isnan(column)])
    below = np.searchsorted(known, np.array(edges, np.float32), side="left")
    return {edge: len(known) - int(under) for edge, under in zip(edges, below, strict=True)}
