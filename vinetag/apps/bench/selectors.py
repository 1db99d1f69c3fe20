"""What the bench shows: the sheet's page, the funnel, and all about one name."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from vinetag.apps.accounts.joining import joined
from vinetag.apps.availability.models import Lookup
from vinetag.apps.availability.progress import cells_of
from vinetag.apps.bench.sheet_cache import is_cached, listing
from vinetag.apps.costs.listing import costs_document, prices_of
from vinetag.apps.naming.models import Candidate, Project
from vinetag.apps.naming.services import brief_of, grader_for, made_name
from vinetag.apps.phrases.carried import Carried, carried_by
from vinetag.apps.shortlists.models import Entry
from vinetag.apps.shortlists.services import entries
from vinetag.core.candidates import Candidate as MadeName
from vinetag.core.candidates import Part, part_document, read_part
from vinetag.core.checking import RUNGS, ladder
from vinetag.core.checking.pasted import read_typed
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
from vinetag.core.make.listing import GOOD_ENOUGH
from vinetag.core.make.vary import one_word_more, words_in
from vinetag.core.names import FullName, parse_label
from vinetag.core.sheet import Counts, Question, SheetPrices, parse_question

__all__ = [
    "Dots", "Funnel", "Judged", "Page", "Row", "Step", "dots", "fallback", "filter_counts",
    "funnel", "matching_labels", "near_names", "one_name", "read_question", "sheet_page",
]  # fmt: skip

MOST_DOTS = 10_000


@dataclass(frozen=True, slots=True)
class Row:
    """One line of the sheet; `verdict`: how it was looked at last, or ""; what it `costs`; the
    phrase it carries, None for none.
    """

    candidate: Candidate
    kept: bool
    verdict: str
    cells: Sequence[Lookup]
    costs: Mapping[str, object]
    carried: Carried | None


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
    """All about one name; `grade` is None when too little of it could be judged;
    `typed_extension`: with which it was asked for, or ""; `joined`: what the apps show of it.
    """

    label: str
    grade: float | None
    recipes: Sequence[str]
    parts: Sequence[Part]
    measures: Sequence[JudgedMeasure]
    warnings: Sequence[Warning]
    misspellings: Sequence[tuple[str, float]]
    typed_extension: str
    joined: Mapping[str, object]


@dataclass(frozen=True, slots=True)
class Step:
    """One rung of the fallback order: its kind, what it is, and its full names with what is known
    of them, best first.
    """

    kind: str
    title: str
    names: Sequence[tuple[FullName, Lookup | None]]


@dataclass(frozen=True, slots=True)
class Dots:
    """The rows that match, up to MOST_DOTS, column by column, in the order of the list."""

    labels: Sequence[str]
    letters: Sequence[int]
    scores: Mapping[str, Sequence[float | None]]
    kept: Sequence[bool]


def read_question(project: Project, given: Mapping[str, str]) -> Question:
    """What is asked, from an address's fields. Raises QuestionError."""
    return parse_question(given, tuple(project.brief["extensions"]))


def sheet_page(project: Project, question: Question, offset: int, limit: int) -> Page:
    """One page of the sheet; few queries, however long the list is. The list as it is comes from
    the database when it is not in memory yet: it need not be read whole for its first page.
    """
    if question == Question() and not is_cached(project):
        rows = project.candidates.exclude(label__in=project.dismissed.values("label"))
        page = list(rows.order_by("rank")[offset : offset + limit])
        return _with_cells(project, page, rows.count(), prices_of(project))
    with listing(project) as names:
        total = len(names.order(question))
        labels = names.labels(question, offset, offset + limit)
        prices = names.columns.prices
    found = {row.label: row for row in project.candidates.filter(label__in=labels)}
    page = [found[label] for label in labels if label in found]
    return _with_cells(project, page, total, prices)


def filter_counts(project: Project, question: Question) -> Counts:
    """How many names each filter would leave."""
    with listing(project) as names:
        return names.counts(question)


def dots(project: Project, question: Question) -> Dots:
    """The matching names for a plot."""
    kept = set(entries(project).values_list("label", flat=True))
    with listing(project) as names:
        places = names.order(question)[:MOST_DOTS]
        columns = names.columns
        figures = columns.figures
        return Dots(
            labels=[columns.labels[at] for at in places.tolist()],
            letters=figures["letters"][places].astype(int).tolist(),
            scores={
                m.name: [None if x != x else round(x, 2) for x in figures[m.name][places].tolist()]
                for m in MEASURES
            },
            kept=[columns.labels[at] in kept for at in places.tolist()],
        )


def funnel(project: Project) -> Funnel:
    """The steps from everything made to what is kept; those of the list are filters of it."""
    with listing(project) as names:
        listed, good, is_open = (
            len(names.order(question))
            for question in (
                Question(),
                Question(grade_min=GOOD_ENOUGH),
                Question(open_in=("any",)),
            )
        )
    return Funnel(
        made=project.considered,
        within=project.within,
        listed=listed,
        good=good,
        open=is_open,
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
            parts=[part_document(p) for p in g.candidate.parts],
        )
        for g in found
    ]
    return _with_cells(project, rows, len(rows), prices_of(project))


def _with_cells(
    project: Project, page: Sequence[Candidate], total: int, prices: SheetPrices
) -> Page:
    """The page with what is thought and known of its names: four queries."""
    labels = [row.label for row in page]
    verdicts = dict(project.looks.filter(label__in=labels).values_list("label", "verdict"))
    kept = set(entries(project).filter(label__in=labels).values_list("label", flat=True))
    names = [FullName(label, e) for label in labels for e in project.brief["extensions"]]
    cells = cells_of(project, names)
    carried = carried_by(project, labels)
    rows = [
        Row(
            c,
            c.label in kept,
            verdicts.get(c.label, ""),
            cells.get(c.label, []),
            costs_document(prices, cells.get(c.label, []), project.brief["extensions"]),
            carried.get(c.label),
        )
        for c in page
    ]
    return Page(rows, total)


def _seen(reading: Reading) -> list[Part]:
    """The parts of a typed name: what is carried of the keywords, and the other words."""
    carried = {part.start: part for part in reading.carried}
    plain = [Part(word, "word", "", at) for at, word in reading.words]
    return [c if (c := carried.get(p.start, p)).text == p.text else p for p in plain]


def one_name(project: Project, typed: str) -> Judged:
    """All about a name, made or typed, alone or with an extension. Raises LabelError or
    ExtensionError.
    """
    label, extension = read_typed(typed)
    brief = brief_of(project)
    row = Candidate.objects.filter(project=project, label=label).first()
    entry = Entry.objects.filter(project=project, label=label).first()
    source = MadeName(label, (), (), 0.0)
    if row:
        source = made_name(row)
    elif entry and entry.parts:
        parts = tuple(read_part(part) for part in entry.parts)
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
        typed_extension=extension,
        joined={
            name: value
            for one in joined()
            if one.shown
            for name, value in one.shown.show(project, label).items()
        },
    )


def matching_labels(project: Project, question: Question, limit: int, first: int = 0) -> list[str]:
    """The labels of rows that match, in the order of the sheet, `limit` of them from `first`."""
    with listing(project) as names:
        return names.labels(question, first, first + limit)


def fallback(project: Project, label: str) -> list[Step]:
    """The fallback order for a name, with what is known of each full name. Raises LabelError."""
    label = parse_label(label)
    brief, lexicon = brief_of(project), load_lexicon()
    plain = label.replace("-", "")
    row = Candidate.objects.filter(project=project, label=label).first()
    parts = [read_part(part) for part in row.parts] if row else []
    words = [part.text for part in parts if part.kind != "hyphen"]
    if "".join(words) != plain:
        words = words_in(label, brief, lexicon) if plain.isalpha() else [plain]
    added = one_word_more(plain, brief, lexicon) if plain.isalpha() else []
    rungs = ladder(words, added, brief.extensions, brief.fallback)
    labels = {name.label for rung in rungs for name in rung.names}
    cells = {
        FullName(cell.label, cell.extension): cell
        for cell in project.lookups.filter(label__in=labels).defer("evidence")
    }
    return [
        Step(rung.kind, RUNGS[rung.kind], [(name, cells.get(name)) for name in rung.names])
        for rung in rungs
    ]
