"""What the bench shows: the sheet's page, the funnel, and all about one name."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from django.db.models import Exists, FloatField, OuterRef, QuerySet
from django.db.models.fields.json import KeyTextTransform
from django.db.models.functions import Cast, Coalesce

from vinetag.apps.accounts.errors import RefusedError
from vinetag.apps.availability.models import Lookup
from vinetag.apps.naming.models import Candidate, Project
from vinetag.apps.naming.services import brief_of, grader_for, made_name
from vinetag.apps.shortlists.models import Entry
from vinetag.apps.shortlists.services import entries
from vinetag.core.candidates import Candidate as MadeName
from vinetag.core.candidates import Part
from vinetag.core.errors import Problem
from vinetag.core.grade import (
    MEASURES,
    Reading,
    Reason,
    Warning,
    misspellings,
    shares,
    warnings,
    weights_of,
)
from vinetag.core.lexicon import load_lexicon
from vinetag.core.make import vary
from vinetag.core.make.planner import GOOD_ENOUGH
from vinetag.core.names import parse_label

__all__ = [
    "SORTS", "Dots", "Funnel", "Judged", "Page", "Question", "Row", "dots", "funnel", "near_names",
    "one_name", "sheet_page",
]  # fmt: skip

MOST_DOTS = 10_000
SORTS: Mapping[str, tuple[str, ...]] = {
    "best": ("rank",),
    "grade": ("-grade", "rank"),
    "name": ("label",),
    "letters": ("letters", "rank"),
    **{m.name: ("-score", "rank") for m in MEASURES},
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
    """What became of the names, step by step; the last three count names in the list. `good` have
    a grade of at least `good_from`.
    """

    made: int
    within: int
    listed: int
    good: int
    open: int
    kept: int
    good_from: float = GOOD_ENOUGH


@dataclass(frozen=True, slots=True)
class JudgedMeasure:
    """One measure's part in a grade; `score` is None when it could not be given; `weight` is its
    share, 0 to 1, among those that could.
    """

    name: str
    score: float | None
    weight: float
    reasons: Sequence[Reason]


@dataclass(frozen=True, slots=True)
class Judged:
    """All about one name; `grade` is None when too little of it could be judged."""

    label: str
    grade: float | None
    recipes: Sequence[str]
    parts: Sequence[Part]
    measures: Sequence[JudgedMeasure]
    warnings: Sequence[Warning]
    misspellings: Sequence[tuple[str, float]]
    kept: bool
    cells: Sequence[Lookup]


@dataclass(frozen=True, slots=True)
class Dots:
    """The rows that match, up to MOST_DOTS, column by column, in the order of the list."""

    labels: Sequence[str]
    letters: Sequence[int]
    scores: Mapping[str, Sequence[float | None]]
    kept: Sequence[bool]


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
    if "-score" in order:
        score = Cast(KeyTextTransform(question.sort, "scores"), FloatField())
        rows = rows.annotate(score=Coalesce(score, -1.0))
    if question.reverse:
        order = tuple(o.removeprefix("-") if o.startswith("-") else f"-{o}" for o in order)
    return rows.order_by(*order)


def _known_extension(project: Project, question: Question) -> None:
    choices = ("", "any", *project.brief["extensions"])
    if question.open_in not in choices:
        told = {"value": question.open_in, "choices": ", ".join(choices[1:])}
        raise RefusedError([Problem("open_in", "unknown_choice", told)])


def sheet_page(project: Project, question: Question) -> Page:
    """One page of the sheet: four queries, however long the list is.

    Raises RefusedError when `open_in` is no extension of the brief.
    """
    _known_extension(project, question)
    matching = _rows(project, question)
    page = list(matching[question.offset : question.offset + question.limit])
    return _with_cells(project, page, matching.order_by().count())


def dots(project: Project, question: Question) -> Dots:
    """The matching names for a plot: two queries. Raises RefusedError as sheet_page does."""
    _known_extension(project, question)
    kept = set(entries(project).values_list("label", flat=True))
    rows = _rows(project, question).values_list("label", "letters", "scores")
    found = list(rows[:MOST_DOTS])
    return Dots(
        labels=[label for label, _, _ in found],
        letters=[letters for _, letters, _ in found],
        scores={m.name: [scores.get(m.name) for _, _, scores in found] for m in MEASURES},
        kept=[label in kept for label, _, _ in found],
    )


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
            scores={name: round(score, 1) for name, score in g.grade.scores.items()},
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


def _seen(reading: Reading) -> list[Part]:
    """The parts of a typed name: what is carried of the keywords, and the other words."""
    carried = {part.start: part for part in reading.carried}
    plain = [Part(word, "word", "", at) for at, word in reading.words]
    return [c if (c := carried.get(p.start, p)).text == p.text else p for p in plain]


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
    grade = grader.grade(reading)
    weights = weights_of(brief)
    share = shares({name: weights.get(name, 0) for name in grade.scores})
    return Judged(
        label=label,
        grade=grade.grade if grade.whole else None,
        recipes=source.recipes,
        parts=source.parts or _seen(reading),
        measures=[
            JudgedMeasure(name, score, share.get(name, 0.0), reasons)
            for name, (score, reasons) in grader.explain(reading).items()
        ],
        warnings=warnings(reading),
        misspellings=misspellings(reading),
        kept=bool(entry and entry.removed_at is None),
        cells=list(project.lookups.filter(label=label, extension__in=brief.extensions)),
    )
