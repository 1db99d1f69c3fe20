"""Lists cached in memory as columns, so that a page, a filter or a count takes milliseconds.

A process holds the lists asked for last. The project counts its editions, marks and answers: what
changed since is read, the list itself only when there is a new edition of it.
"""

from __future__ import annotations

import json
from collections import OrderedDict
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from datetime import datetime
from itertools import islice
from threading import Lock

import numpy as np
import numpy.typing as npt
from django.db.models import TextField
from django.db.models.functions import Cast

from vinetag.apps.availability.models import Lookup
from vinetag.apps.costs.listing import prices_of
from vinetag.apps.naming.models import Candidate, Look, Project
from vinetag.apps.phrases.carried import carried_by, edition_of
from vinetag.apps.shortlists.services import entries
from vinetag.core.sheet import (
    LATER,
    SEEN,
    Columns,
    Counts,
    Line,
    Narrowing,
    Question,
)
from vinetag.core.sheet.columns import DISMISSED, KEPT

__all__ = ["Listing", "is_cached", "listing"]

MOST_ROWS = 500_000
ORDERS = 8
BATCH = 5_000
ANSWERED = ("label", "extension", "status", "first_year", "currency", "renewal")
VERDICTS = {Look.Verdict.SEEN: SEEN, Look.Verdict.LATER: LATER, Look.Verdict.NONE: 0}


@dataclass(slots=True)
class _Cached:
    edition: int = -1
    columns: Columns = field(default_factory=lambda: Columns(()))
    answers: int = 0
    marked: int = -1
    looked: int = -1
    phrases: int = -1
    orders: OrderedDict[tuple[Question, tuple[str, ...]], npt.NDArray[np.intp]] = field(
        default_factory=OrderedDict
    )
    lock: Lock = field(default_factory=Lock)


_cache: OrderedDict[tuple[int, datetime], _Cached] = OrderedDict()
_guard = Lock()


class Listing:
    """A project's list as it is now, to put questions to."""

    def __init__(self, cached: _Cached, extensions: tuple[str, ...]) -> None:
        self._cached, self._extensions = cached, extensions

    @property
    def columns(self) -> Columns:
        """The names with their figures."""
        return self._cached.columns

    def _narrowing(self, question: Question) -> Narrowing:
        return Narrowing(self._cached.columns, question, self._extensions)

    def order(self, question: Question) -> npt.NDArray[np.intp]:
        """The places of the names a question leaves, in its order."""
        orders, key = self._cached.orders, (question, self._extensions)
        if key not in orders:
            orders[key] = self._narrowing(question).order
            if len(orders) > ORDERS:
                orders.popitem(last=False)
        orders.move_to_end(key)
        return orders[key]

    def labels(self, question: Question, start: int = 0, stop: int | None = None) -> list[str]:
        """The names a question leaves, in its order, from `start` to before `stop`."""
        names = self._cached.columns.labels
        return [names[at] for at in self.order(question)[start:stop].tolist()]

    def counts(self, question: Question) -> Counts:
        """How many each filter would leave."""
        return self._narrowing(question).counts()


@contextmanager
def listing(project: Project) -> Iterator[Listing]:
    """The list as it is in the database; nobody else changes it while the context lasts."""
    cached = _cached(project)
    with cached.lock:
        if cached.edition != project.edition:
            cached.columns = Columns(_lines(project))
            cached.answers, cached.marked, cached.looked, cached.phrases = 0, -1, -1, -1
            cached.edition = project.edition
            cached.orders.clear()
        _follow(project, cached)
        if cached.phrases != (edition := edition_of(project)):
            carried = carried_by(project, cached.columns.labels)
            cached.columns.looked_for({label: one.demand for label, one in carried.items()})
            cached.phrases = edition
            cached.orders.clear()
        extensions = tuple(project.brief["extensions"])
        if cached.columns.has_prices(prices_of(project)):
            cached.orders.clear()
        yield Listing(cached, extensions)


def is_cached(project: Project) -> bool:
    """Whether a question can be answered at once."""
    cached = _cache.get(_key(project))
    return cached is not None and cached.edition == project.edition


def _key(project: Project) -> tuple[int, datetime]:
    return project.pk, project.created_at


def _cached(project: Project) -> _Cached:
    """Its place in memory, filled or not; the projects asked longest ago make room."""
    with _guard:
        cached = _cache.setdefault(_key(project), _Cached())
        _cache.move_to_end(_key(project))
        rows = sum(len(h.columns) for h in _cache.values())
        while len(_cache) > 1 and rows > MOST_ROWS:
            _, oldest = _cache.popitem(last=False)
            rows -= len(oldest.columns)
    return cached


def _lines(project: Project) -> Iterator[Line]:
    """The list, its documents read by the thousand, which takes a third of the time."""
    documents = [Cast(name, TextField()) for name in ("scores", "recipes", "added")]
    plain = ("label", "grade", "letters", "syllables", "words")
    rows = (
        Candidate.objects.filter(project=project).order_by("rank").values_list(*plain, *documents)
    )
    ordered = rows.iterator(BATCH)
    while batch := list(islice(ordered, BATCH)):
        columns = list(zip(*batch, strict=True))
        read = [json.loads(f"[{','.join(column)}]") for column in columns[len(plain) :]]
        yield from map(Line._make, zip(*columns[: len(plain)], *read, strict=True))


def _follow(project: Project, cached: _Cached) -> None:
    """Read the answers and marks that came since."""
    columns = cached.columns
    if project.answers != cached.answers:
        # A number that went back belongs to another life of the project: begin anew.
        since = cached.answers if project.answers > cached.answers else 0
        rows = Lookup.objects.filter(project=project, number__gt=since)
        for row in rows.values_list(*ANSWERED).iterator(BATCH):
            columns.answer(*row)
        cached.answers = project.answers
        cached.orders.clear()
    if project.marked != cached.marked:
        columns.mark(KEPT, entries(project).values_list("label", flat=True))
        columns.mark(DISMISSED, project.dismissed.values_list("label", flat=True))
        looks = Look.objects.filter(project=project, number__gt=cached.looked)
        for label, verdict in looks.values_list("label", "verdict"):
            columns.looked(label, VERDICTS[Look.Verdict(verdict)])
        cached.looked = cached.marked = project.marked
        cached.orders.clear()
