"""Lists held in memory as columns, so that a page, a filter or a count takes milliseconds.

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
from vinetag.apps.naming.models import Candidate, Look, Project
from vinetag.apps.shortlists.services import entries
from vinetag.core.sheet import LATER, SEEN, Columns, Counts, Line, Narrowing, Question
from vinetag.core.sheet.columns import DISMISSED, KEPT

__all__ = ["Listing", "is_held", "listing"]

MOST_ROWS = 500_000
ORDERS = 8
BATCH = 5_000
ANSWERED = ("label", "extension", "status", "first_year", "currency")
VERDICTS = {Look.Verdict.SEEN: SEEN, Look.Verdict.LATER: LATER, Look.Verdict.NONE: 0}


@dataclass(slots=True)
class _Held:
    edition: int = -1
    columns: Columns = field(default_factory=lambda: Columns(()))
    answers: int = 0
    marked: int = -1
    looked: int = -1
    orders: OrderedDict[tuple[Question, tuple[str, ...]], npt.NDArray[np.intp]] = field(
        default_factory=OrderedDict
    )
    lock: Lock = field(default_factory=Lock)


_held: OrderedDict[tuple[int, datetime], _Held] = OrderedDict()
_guard = Lock()


class Listing:
    """A project's list as it is now, to put questions to."""

    def __init__(self, held: _Held, extensions: tuple[str, ...]) -> None:
        self._held, self._extensions = held, extensions

    @property
    def columns(self) -> Columns:
        """The names with their figures."""
        return self._held.columns

    def _narrowing(self, question: Question) -> Narrowing:
        return Narrowing(self._held.columns, question, self._extensions)

    def order(self, question: Question) -> npt.NDArray[np.intp]:
        """The places of the names a question leaves, in its order."""
        orders, key = self._held.orders, (question, self._extensions)
        if key not in orders:
            orders[key] = self._narrowing(question).order
            if len(orders) > ORDERS:
                orders.popitem(last=False)
        orders.move_to_end(key)
        return orders[key]

    def labels(self, question: Question, start: int = 0, stop: int | None = None) -> list[str]:
        """The names a question leaves, in its order, from `start` to before `stop`."""
        names = self._held.columns.labels
        return [names[at] for at in self.order(question)[start:stop].tolist()]

    def counts(self, question: Question) -> Counts:
        """How many each filter would leave."""
        return self._narrowing(question).counts()


@contextmanager
def listing(project: Project) -> Iterator[Listing]:
    """The list as it is in the database; nobody else changes it while the context lasts."""
    held = _hold(project)
    with held.lock:
        if held.edition != project.edition:
            held.columns = Columns(_lines(project))
            held.answers, held.marked, held.looked = 0, -1, -1
            held.edition = project.edition
            held.orders.clear()
        _follow(project, held)
        yield Listing(held, tuple(project.brief["extensions"]))


def is_held(project: Project) -> bool:
    """Whether a question can be answered at once."""
    held = _held.get(_key(project))
    return held is not None and held.edition == project.edition


def _key(project: Project) -> tuple[int, datetime]:
    return project.pk, project.created_at


def _hold(project: Project) -> _Held:
    """Its place in memory, filled or not; the projects asked longest ago make room."""
    with _guard:
        held = _held.setdefault(_key(project), _Held())
        _held.move_to_end(_key(project))
        rows = sum(len(h.columns) for h in _held.values())
        while len(_held) > 1 and rows > MOST_ROWS:
            _, oldest = _held.popitem(last=False)
            rows -= len(oldest.columns)
    return held


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


def _follow(project: Project, held: _Held) -> None:
    """Read the answers and marks that came since."""
    columns = held.columns
    if project.answers != held.answers:
        # A number that went back belongs to another life of the project: begin anew.
        since = held.answers if project.answers > held.answers else 0
        rows = Lookup.objects.filter(project=project, number__gt=since)
        for row in rows.values_list(*ANSWERED).iterator(BATCH):
            columns.answer(*row)
        held.answers = project.answers
        held.orders.clear()
    if project.marked != held.marked:
        columns.mark(KEPT, entries(project).values_list("label", flat=True))
        columns.mark(DISMISSED, project.dismissed.values_list("label", flat=True))
        looks = Look.objects.filter(project=project, number__gt=held.looked)
        for label, verdict in looks.values_list("label", "verdict"):
            columns.looked(label, VERDICTS[Look.Verdict(verdict)])
        held.looked = held.marked = project.marked
        held.orders.clear()
