"""Phrases taken away: all of them with their figures, the groups, and the names they could be."""

from __future__ import annotations

import json
from collections.abc import Iterable, Iterator, Sequence
from typing import Any, Final

from vinetag.apps.naming.models import Project
from vinetag.apps.phrases.asking import Known, PhraseQuestion, known_of, page_of
from vinetag.apps.phrases.grouping import groups_of
from vinetag.apps.phrases.ladders import ladders_of
from vinetag.apps.phrases.shelf import shelf_of
from vinetag.core.checking import RUNGS
from vinetag.core.demand import MONTHS
from vinetag.core.names import FullName
from vinetag.core.spreadsheet import FORMS, Cell, as_csv, as_xlsx

__all__ = ["WHATS", "exported"]

WHATS: Final = ("phrases", "groups", "names")
MOST: Final = 200_000
FIGURES: Final = (
    "source", "country", "language", "dated", "searches from", "searches to", "competition",
    "click price", "currency", "last month",
)  # fmt: skip


def exported(
    project: Project, what: str, form: str, asked: PhraseQuestion
) -> tuple[bytes | str, str]:
    """The content and its media type."""
    heading, rows = {"phrases": _phrases, "groups": _groups, "names": _names}[what](project, asked)
    if form == "json":
        document = [dict(zip(heading, row, strict=True)) for row in rows]
        text = json.dumps(document, ensure_ascii=False, indent=1, default=str)
        return text, FORMS["json"]
    return (as_xlsx if form == "xlsx" else as_csv)(heading, rows), FORMS[form]


def _figure(view: str, known: Known) -> list[Cell]:
    source, country, language = [*view.split("|"), "", "", ""][:3]
    if known.dated is None:
        return [None] * len(FIGURES)
    high: Cell = "and more" if known.low is not None and known.high is None else known.high
    return [
        source, country, language, known.dated.isoformat(), known.low, high, known.competition,
        None if known.price is None else str(known.price), known.currency, known.last_month,
    ]  # fmt: skip


def _months(known: Known) -> list[Cell]:
    return [*known.months] if known.months else [None] * MONTHS


def _phrases(
    project: Project, asked: PhraseQuestion
) -> tuple[Sequence[str], Iterable[Sequence[Cell]]]:
    shelf = shelf_of(project)
    page = page_of(project, asked, MOST)
    heading = (
        "phrase", "head", "how it differs", "chosen", "searches with all gathered",
        "covers of all demand", *FIGURES, *(f"month {n}" for n in range(1, MONTHS + 1)),
    )  # fmt: skip

    def rows() -> Iterator[Sequence[Cell]]:
        found = shelf.views.get(page.view)
        for line in page.lines:
            for at in shelf.variants.get(shelf.place[line.phrase], ()):
                known = known_of(found, at)
                is_head = shelf.phrases[at] == line.phrase
                yield [
                    shelf.phrases[at], line.phrase, "" if is_head else shelf.gathered.ways[at],
                    "yes" if line.chosen and is_head else "",
                    line.demand if is_head else None, line.cover if is_head else None,
                    *_figure(page.view, known), *_months(known),
                ]  # fmt: skip

    return heading, rows()


def _groups(
    project: Project, asked: PhraseQuestion
) -> tuple[Sequence[str], Iterable[Sequence[Cell]]]:
    groups = groups_of(project, asked.view, asked.cut)
    heading = (
        "group", "head", "phrase", "searches", "group's searches", "group's share of all",
        "covers of the group", "covers of all", "cut",
    )  # fmt: skip
    rows: list[list[Cell]] = [
        [
            number, group.head, one.line.phrase, one.line.demand, group.demand, group.share,
            one.in_group, one.of_all, groups.cut,
        ]
        for number, group in enumerate(groups.groups, 1)
        for one in group.lines
    ]  # fmt: skip
    return heading, rows


def _names(
    project: Project, asked: PhraseQuestion
) -> tuple[Sequence[str], Iterable[Sequence[Cell]]]:
    ladders = ladders_of(project, asked.view)
    heading = (
        "phrase", "searches", "first open form", "which form", "grade", "asked", "forms",
        "why there is none",
    )  # fmt: skip
    rows: list[list[Cell]] = []
    for line in ladders.lines:
        best: Any = line.best
        rows.append(
            [
                line.phrase,
                line.demand,
                FullName(best.label, best.extension).shown if best else "",
                RUNGS[best.rung] if best else "",
                line.grade,
                line.asked,
                line.forms,
                line.problem,
            ]
        )
    return heading, rows
