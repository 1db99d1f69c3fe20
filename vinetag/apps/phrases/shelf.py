"""All phrases of a project in memory, as columns, with their figures by source.

A process keeps those asked for last. Gathering them takes seconds when there are two hundred
thousand, so the worker that reads a file keeps what came of it (`PhraseBook.worked`).
"""

from __future__ import annotations

import io
import zlib
from collections import OrderedDict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date
from functools import cached_property
from threading import Lock
from typing import Any, Final, NamedTuple

import numpy as np
import numpy.typing as npt

from vinetag.apps.naming.models import Project
from vinetag.apps.phrases.models import PhraseBook, PhraseFile
from vinetag.core.demand import (
    AND_MORE,
    MONTHS,
    MOST_GROUPED,
    UNKNOWN,
    Folding,
    Gathered,
    Market,
    Space,
    Tree,
    Ways,
    covers,
    gather,
    grow,
    unpacked,
)
from vinetag.core.lexicon import load_lexicon

__all__ = ["Shelf", "View", "ViewKey", "book_of", "shelf_of", "work_out"]

MOST_ROWS: Final = 600_000
WAY_NAMES: Final = tuple(Ways)
Whole = npt.NDArray[np.int32]


class ViewKey(NamedTuple):
    """Figures that may be set beside each other: of one source, country and language."""

    source: str
    country: str
    language: str

    @property
    def text(self) -> str:
        """As an address has it."""
        return "|".join((self.source, self.country, self.language))


@dataclass
class View:
    """Figures of one source in one market, by phrase; of several files the newest counts. `dated`
    is its day by phrase, as a place in `days`, -1 where there is no figure.
    """

    key: ViewKey
    days: list[date]
    low: Whole
    high: Whole
    months: Whole
    last_months: list[str]
    competition: npt.NDArray[np.float32]
    prices: Whole
    currencies: list[str]
    currency: npt.NDArray[np.uint8]
    dated: npt.NDArray[np.int16]

    @property
    def known(self) -> int:
        """How many phrases have a figure here."""
        return int(np.count_nonzero(self.low != UNKNOWN))


@dataclass
class Shelf:
    """A project's phrases and all that is known of them. `gathered` by phrase; `tree` and `covers`
    are of the heads most looked for, whose places are `grouped`.
    """

    edition: int
    phrases: Sequence[str]
    views: Mapping[str, View]
    gathered: Gathered
    grouped: Sequence[int]
    tree: Tree
    covers: npt.NDArray[np.float64]
    remembered: dict[Any, Any] = field(default_factory=dict)

    @cached_property
    def place(self) -> Mapping[str, int]:
        """By phrase, where it stands."""
        return {phrase: at for at, phrase in enumerate(self.phrases)}

    @cached_property
    def variants(self) -> Mapping[int, Sequence[int]]:
        """By head, what is gathered under it, the head first."""
        return self.gathered.variants()

    @cached_property
    def heads(self) -> npt.NDArray[np.intp]:
        """The places of the heads."""
        return np.flatnonzero(self.gathered.heads == np.arange(len(self.phrases)))

    @property
    def usual(self) -> str:
        """The view with most figures, "" where there is none."""
        return max(self.views, key=lambda key: self.views[key].known, default="")

    def demand(self, view: str) -> npt.NDArray[np.float64]:
        """By phrase, the searches a month of all that is gathered under a head, NaN where none is
        known; figures that are alike to the month are one, told of several spellings.
        """
        if ("demand", view) not in self.remembered:
            found = self.views.get(view)
            self.remembered["demand", view] = (
                np.full(len(self.phrases), np.nan) if found is None else _summed(self, found)
            )
        summed: npt.NDArray[np.float64] = self.remembered["demand", view]
        return summed

    @cached_property
    def space(self) -> Space:
        """The grouped heads by meaning and words."""
        lexicon = load_lexicon()
        return Space([self.phrases[at] for at in self.grouped], lexicon, Folding(lexicon))


def _summed(shelf: Shelf, view: View) -> npt.NDArray[np.float64]:
    found = np.where(view.low == UNKNOWN, np.nan, view.low).astype(np.float64)
    for head, group in shelf.variants.items():
        if len(group) == 1:
            continue
        figures = {
            (int(view.low[at]), int(view.high[at]), view.months[at].tobytes())
            for at in group
            if view.low[at] != UNKNOWN
        }
        found[head] = sum(low for low, _, _ in figures) if figures else np.nan
    return found


_shelves: OrderedDict[int, Shelf] = OrderedDict()
_guard = Lock()
_making: dict[int, Lock] = {}


def book_of(project: Project) -> PhraseBook:
    """What was decided of a project's phrases."""
    return PhraseBook.objects.get_or_create(project=project)[0]


def shelf_of(project: Project) -> Shelf:
    """The project's phrases as they are now."""
    book = book_of(project)
    with _guard:
        lock = _making.setdefault(project.pk, Lock())
    with lock:
        kept = _shelves.get(project.pk)
        if kept is None or kept.edition != book.edition:
            kept = _made(project, book)
            with _guard:
                _shelves[project.pk] = kept
                rows = sum(len(shelf.phrases) for shelf in _shelves.values())
                while len(_shelves) > 1 and rows > MOST_ROWS:
                    _, oldest = _shelves.popitem(last=False)
                    rows -= len(oldest.phrases)
    with _guard:
        if project.pk in _shelves:
            _shelves.move_to_end(project.pk)
    return kept


def work_out(project: Project) -> None:
    """Gather and group the phrases as they are now, and keep what came of it."""
    _made(project, book_of(project))


def _made(project: Project, book: PhraseBook) -> Shelf:
    files = list(
        PhraseFile.objects.filter(
            project=project, state=PhraseFile.State.DONE, removed_at=None
        ).order_by("dated", "id")
    )
    phrases, views = _views(files, set(book.dropped))
    shelf = Shelf(
        book.edition, phrases, views, Gathered(np.zeros(0, np.int32), ()), (),
        Tree(np.zeros((0, 4), np.float32), 0, 1.0), np.zeros(0),
    )  # fmt: skip
    if book.worked is not None and book.worked_edition == book.edition:
        _unpack(shelf, bytes(book.worked))
        if len(shelf.gathered.heads) == len(phrases):
            return shelf
    _work(shelf, book.apart)
    PhraseBook.objects.filter(pk=book.pk, edition=book.edition).update(
        worked=_pack(shelf), worked_edition=book.edition
    )
    return shelf


def _views(files: Sequence[PhraseFile], dropped: set[str]) -> tuple[list[str], dict[str, View]]:
    """The phrases of all files, each once, and their figures by source and market."""
    place: dict[str, int] = {}
    read = []
    for file in files:
        figures = unpacked(bytes(file.figures or b""))
        kept = [at for at, phrase in enumerate(figures.phrases) if phrase not in dropped]
        places = [place.setdefault(figures.phrases[at], len(place)) for at in kept]
        read.append((file, figures, np.array(kept, np.intp), np.array(places, np.intp)))
    views: dict[str, View] = {}
    for file, figures, rows, to in read:
        if file.kind == PhraseFile.Kind.TYPED:
            continue
        for number, market in enumerate(figures.markets):
            here = figures.market[rows] == number
            if here.any():
                key = ViewKey(file.source, *Market(*market))
                view = views.setdefault(key.text, _empty(key, len(place)))
                _add(view, file, figures, rows[here], to[here])
    return list(place), views


def _empty(key: ViewKey, count: int) -> View:
    return View(
        key, [], np.full(count, UNKNOWN, np.int32), np.full(count, UNKNOWN, np.int32),
        np.full((count, MONTHS), UNKNOWN, np.int32), [], np.full(count, np.nan, np.float32),
        np.full(count, UNKNOWN, np.int32), [""], np.zeros(count, np.uint8),
        np.full(count, -1, np.int16),
    )  # fmt: skip


def _add(
    view: View, file: PhraseFile, figures: Any, rows: npt.NDArray[np.intp], to: npt.NDArray[np.intp]
) -> None:
    """A file's figures in place of older ones; a phrase it has no figure of keeps the older."""
    known = (figures.low[rows] != UNKNOWN) | (view.dated[to] < 0)
    rows, to = rows[known], to[known]
    view.days.append(file.dated)
    view.last_months.append(figures.last_month)
    for name in ("low", "high", "months", "competition", "prices"):
        getattr(view, name)[to] = getattr(figures, name)[rows]
    codes = []
    for code in figures.currencies:
        if code not in view.currencies:
            view.currencies.append(code)
        codes.append(view.currencies.index(code))
    view.currency[to] = np.array(codes, np.uint8)[figures.currency[rows]]
    view.dated[to] = len(view.days) - 1


def _work(shelf: Shelf, apart: Sequence[str]) -> None:
    usual = shelf.views.get(shelf.usual)
    count = len(shelf.phrases)
    worth = np.zeros(count) if usual is None else np.maximum(usual.low, 0).astype(np.float64)
    lexicon = load_lexicon()
    shelf.gathered = gather(shelf.phrases, worth.tolist(), lexicon, set(apart))
    demand = np.nan_to_num(shelf.demand(shelf.usual))
    heads = shelf.heads
    best = heads[np.argsort(-demand[heads], kind="stable")][:MOST_GROUPED]
    shelf.grouped = best.tolist()
    shelf.tree = grow(shelf.space)
    shelf.covers = covers(shelf.space, demand[best])


def _pack(shelf: Shelf) -> bytes:
    out = io.BytesIO()
    np.savez(
        out, heads=shelf.gathered.heads,
        ways=np.array([WAY_NAMES.index(way) for way in shelf.gathered.ways], np.uint8),
        grouped=np.array(shelf.grouped, np.int32), joins=shelf.tree.joins,
        cut=np.array(shelf.tree.cut), covers=shelf.covers.astype(np.float32),
    )  # fmt: skip
    return zlib.compress(out.getvalue(), 1)


def _unpack(shelf: Shelf, content: bytes) -> None:
    with np.load(io.BytesIO(zlib.decompress(content)), allow_pickle=False) as saved:
        ways = [WAY_NAMES[at] for at in saved["ways"].tolist()]
        shelf.gathered = Gathered(saved["heads"], ways)
        shelf.grouped = saved["grouped"].tolist()
        shelf.tree = Tree(saved["joins"], len(shelf.grouped), float(saved["cut"]))
        shelf.covers = saved["covers"].astype(np.float64)


def high_of(low: int, high: int) -> int | None:
    """The most searches of a range, None for that many and more, or where nothing is known."""
    return None if low == UNKNOWN or high == AND_MORE else high
