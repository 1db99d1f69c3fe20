"""What the bench shows: the sheet's page, the funnel, and all about one name."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from django.db.models import Exists, OuterRef, QuerySet

from vinetag.apps.accounts.errors import RefusedError
from vinetag.apps.availability.models import Lookup
from vinetag.apps.naming.models import Candidate, Project
from vinetag.apps.naming.services import brief_of, grader_for, made_name
from vinetag.apps.shortlists.models import Entry
from vinetag.apps.shortlists.services import entries
from vinetag.core.candidates import Candidate as MadeName
from vinetag.core.candidates import Part
from vinetag.core.errors import Problem
from vinetag.core.grade import WEIGHTS, Reason
from vinetag.core.lexicon import load_lexicon
from vinetag.core.make import vary
from vinetag.core.make.planner import GOOD_ENOUGH
from vinetag.core.names import parse_label

__all__ = [
    "SORTS", "Funnel", "Judged", "Page", "Question", "Row", "funnel", "near_names", "one_name",
    "sheet_page",
]  # fmt: skip

Sort = Literal["best", "grade", "name", "letters"]
SORTS: dict[str, tuple[str, ...]] = {
    "best": ("rank",),
    "grade": ("-grade", "rank"),
    "name": ("label",),
    "letters": ("letters", "rank"),
}


@dataclass(frozen=True, slots=True)
class Question:
    """Which rows: `text` within the label; `open_in` an extension, or "any" of the brief's; only
    good ones; only kept ones.
    """

    sort: str = "best"
    reverse: bool = False
    text: str = ""
    open_in: str = ""
    good: bool = False
    kept: bool = False
    offset: int = 0
    limit: int = 100


@dataclass(frozen=True, slots=True)
class Row:
    """One line of the sheet."""

    candidate: Candidate
    kept: bool
    cells: Sequence[Lookup]


@dataclass(frozen=True, slots=True)
class Page:
    """`total` counts the rows that match, on all pages."""

    rows: Sequence[Row]
    total: int


@dataclass(frozen=True, slots=True)
class Funnel:
    """What became of the names, step by step; the last three count names in the list."""

    made: int
    within: int
    listed: int
    good: int
    open: int
    kept: int


@dataclass(frozen=True, slots=True)
class JudgedMeasure:
    """One measure's part in a grade; `weight` is its share, 0 to 1."""

    name: str
    score: float
    weight: float
    reasons: Sequence[Reason]


@dataclass(frozen=True, slots=True)
class Judged:
    """All about one name."""

    label: str
    grade: float
    recipes: Sequence[str]
    parts: Sequence[Part]
    measures: Sequence[JudgedMeasure]
    kept: bool
    cells: Sequence[Lookup]


def _open(project: Project, extensions: Sequence[str]) -> QuerySet[Lookup]:
    return Lookup.objects.filter(
        project=project, extension__in=extensions, status=Lookup.Status.OPEN
    )


def _rows(project: Project, question: Question) -> QuerySet[Candidate]:
    rows = Candidate.objects.filter(project=project)
    if question.text:
        rows = rows.filter(label__contains=question.text.lower())
    if question.good:
        rows = rows.filter(grade__gte=GOOD_ENOUGH)
    if question.open_in:
        wanted = project.brief["extensions"] if question.open_in == "any" else [question.open_in]
        rows = rows.filter(Exists(_open(project, wanted).filter(label=OuterRef("label"))))
    if question.kept:
        rows = rows.filter(Exists(entries(project).filter(label=OuterRef("label"))))
    order = SORTS[question.sort]
    if question.reverse:
        order = tuple(o.removeprefix("-") if o.startswith("-") else f"-{o}" for o in order)
    return rows.order_by(*order)


def sheet_page(project: Project, question: Question) -> Page:
    """One page of the sheet: four queries, however long the list is.

    Raises RefusedError when `open_in` is no extension of the brief.
    """
    extensions = project.brief["extensions"]
    if question.open_in not in ("", "any", *extensions):
        problem = Problem("open_in", "unknown_choice", {
            "value": question.open_in, "choices": ", ".join(("any", *extensions)),
        })  # fmt: skip
        raise RefusedError([problem])
    matching = _rows(project, question)
    page = list(matching[question.offset : question.offset + question.limit])
    return _with_cells(project, page, matching.order_by().count())


def funnel(project: Project) -> Funnel:
    """The steps from everything made to what is kept."""
    listed = Candidate.objects.filter(project=project)
    is_open = _open(project, project.brief["extensions"]).filter(label=OuterRef("label"))
    return Funnel(
        made=project.considered,
        within=project.within,
        listed=listed.count(),
        good=listed.filter(grade__gte=GOOD_ENOUGH).count(),
        open=listed.filter(Exists(is_open)).count(),
        kept=entries(project).count(),
    )


def near_names(project: Project, label: str) -> Page:
    """Names near one, made or typed, with what is known of them. Raises LabelError."""
    label = parse_label(label)
    brief = brief_of(project)
    hidden = set(project.dismissed.values_list("label", flat=True))
    found = [g for g in vary(label, brief, load_lexicon()) if g.candidate.label not in hidden]
    rows = [
        Candidate(
            label=g.candidate.label,
            grade=round(g.grade.grade, 1),
            letters=g.candidate.letters,
            recipes=[],
            parts=[list(p) for p in g.candidate.parts],
        )
        for g in found
    ]
    return _with_cells(project, rows, len(rows))


def _with_cells(project: Project, page: Sequence[Candidate], total: int) -> Page:
    """The page with what is kept and known of its names: two queries."""
    labels = [row.label for row in page]
    kept = set(entries(project).filter(label__in=labels).values_list("label", flat=True))
    cells: dict[str, list[Lookup]] = {}
    extensions = project.brief["extensions"]
    for cell in project.lookups.filter(label__in=labels, extension__in=extensions):
        cells.setdefault(cell.label, []).append(cell)
    return Page([Row(c, c.label in kept, cells.get(c.label, [])) for c in page], total)


def one_name(project: Project, label: str) -> Judged:
    """All about a name, made or typed. Raises LabelError."""
    label = parse_label(label)
    brief = brief_of(project)
    row = Candidate.objects.filter(project=project, label=label).first()
    entry = Entry.objects.filter(project=project, label=label).first()
    source = MadeName(label, (), (), 0.0)
    if row:
        source = made_name(row)
    elif entry and entry.parts:
        parts = tuple(Part(*part) for part in entry.parts)
        source = MadeName(label, tuple(entry.recipes), parts, entry.strength)
    grader = grader_for(brief)
    reading = grader.read_any(source)
    weights = WEIGHTS[brief.purpose]
    total = sum(weights.values())
    return Judged(
        label=label,
        grade=grader.grade(reading).grade,
        recipes=source.recipes,
        parts=source.parts or [Part(text, "word", "", at) for at, text in reading.words],
        measures=[
            JudgedMeasure(name, score, weights[name] / total, reasons)
            for name, (score, reasons) in grader.explain(reading).items()
        ],
        kept=bool(entry and entry.removed_at is None),
        cells=list(project.lookups.filter(label=label, extension__in=brief.extensions)),
    )
