"""Every short name of a shape, against the newest zone of each extension, all at once."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from functools import lru_cache
from typing import Final

import numpy as np
import numpy.typing as npt

from vinetag.apps.availability.models import Lookup
from vinetag.apps.availability.progress import cells_of
from vinetag.apps.costs.listing import costs_document, prices_of
from vinetag.apps.market.snapshots import bits_of, latest_days
from vinetag.apps.naming.models import Project
from vinetag.core.lexicon import load_lexicon
from vinetag.core.market.short_names import ShortQuestion, label_of, matching
from vinetag.core.names import FullName

__all__ = ["ShortExtension", "ShortPage", "ShortRow", "short_page"]

MOST_EXTENSIONS: Final = 12


@dataclass(frozen=True, slots=True)
class ShortExtension:
    """`free`: how many of the names were not delegated on the `day`; None without a snapshot; what
    a year costs by the lists, as costs_document has it.
    """

    extension: str
    day: date | None
    free: int | None
    costs: Mapping[str, object]


@dataclass(frozen=True, slots=True)
class ShortRow:
    """One name: by extension whether its zone had it, None where there is no snapshot; and what is
    known from being asked.
    """

    label: str
    had: Mapping[str, bool | None]
    cells: Sequence[Lookup]


@dataclass(frozen=True, slots=True)
class ShortPage:
    """`matching` names are of the question; `total` of them are shown: those free somewhere, or
    all.
    """

    matching: int
    total: int
    extensions: Sequence[ShortExtension]
    rows: Sequence[ShortRow]


def short_page(
    project: Project, question: ShortQuestion, extensions: Sequence[str], offset: int, limit: int,
    *, free_only: bool = True,
) -> ShortPage:  # fmt: skip
    """One page of the short names, by the alphabet. With `free_only` those that no snapshot had
    under at least one of the extensions; where none has a snapshot, all.
    """
    numbers = _matching(question)
    days = latest_days()
    taken = {e: bits_of(e, days[e])[numbers] for e in extensions if e in days}
    shown = numbers
    if free_only and taken:
        somewhere = ~np.logical_and.reduce(list(taken.values()))
        shown = numbers[somewhere]
    page = [(int(number), label_of(int(number))) for number in shown[offset : offset + limit]]
    names = [FullName(label, e) for _, label in page for e in extensions]
    cells = cells_of(project, names)
    prices = prices_of(project, [e for e in extensions if e not in project.brief["extensions"]])
    return ShortPage(
        matching=len(numbers),
        total=len(shown),
        extensions=[
            ShortExtension(
                e,
                days.get(e),
                int((~taken[e]).sum()) if e in taken else None,
                costs_document(prices, (), [e]),
            )
            for e in extensions
        ],
        rows=[
            ShortRow(
                label,
                {e: _had(days, e, number) for e in extensions},
                [cell for cell in cells.get(label, []) if cell.extension in extensions],
            )
            for number, label in page
        ],
    )


def _had(days: Mapping[str, date], extension: str, number: int) -> bool | None:
    return bool(bits_of(extension, days[extension])[number]) if extension in days else None


@lru_cache(8)
def _matching(question: ShortQuestion) -> npt.NDArray[np.int32]:
    return matching(question, load_lexicon())
