"""Chosen phrases as names: the forms one would accept, in the person's order, and the first that is
open of each, beside how much it is looked for.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Final

import numpy as np

from vinetag.apps.availability.models import Lookup
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import brief_of, grader_for
from vinetag.apps.phrases.asking import Known, known_of, view_of
from vinetag.apps.phrases.shelf import shelf_of
from vinetag.core.brief import Brief
from vinetag.core.candidates import Candidate
from vinetag.core.checking import RUNGS, ladder
from vinetag.core.checking.fallback import Rung
from vinetag.core.demand import words_of
from vinetag.core.grade import Grader
from vinetag.core.lexicon import load_lexicon
from vinetag.core.names import FullName
from vinetag.core.world.world import world_of

__all__ = ["MOST_LADDERS", "Form", "Ladder", "Ladders", "ladders_of", "names_to_check"]

MOST_LADDERS: Final = 500
MOST_ADDED: Final = 4
MOST_HEADS: Final = 12
BATCH: Final = 500
OPEN: Final = ("open",)


@dataclass(frozen=True, slots=True)
class Form:
    """A full name on a ladder; `status` is "" where nobody has asked."""

    rung: str
    label: str
    extension: str
    status: str
    likely: bool


@dataclass(frozen=True, slots=True)
class Ladder:
    """A phrase, how much it is looked for, and the first form of it that is open; `grade` is that
    of the form's name (0 to 100), of the phrase as it is where none is open. `asked` of `forms`
    are known; `problem` says why there are none: its "letters", or that it is too "long".
    """

    phrase: str
    figure: Known
    demand: int | None
    best: Form | None
    grade: float | None
    asked: int
    forms: int
    rungs: Sequence[tuple[str, Sequence[Form]]]
    problem: str


@dataclass(frozen=True, slots=True)
class Ladders:
    """All ladders of the chosen phrases; `order` is the order of forms of the brief."""

    lines: Sequence[Ladder]
    order: Sequence[str]
    view: str
    asked: int
    forms: int


def ladders_of(project: Project, asked_view: str) -> Ladders:
    """The ladders of the chosen phrases, the most looked for first."""
    shelf = shelf_of(project)
    view = view_of(shelf, asked_view)
    found, demand = shelf.views.get(view), shelf.demand(view)
    brief = brief_of(project)
    made = _chosen_ladders(project, brief)
    labels = {n.label for rungs, _ in made.values() for rung in rungs for n in rung.names}
    cells = _known(project, labels)
    grades = _Grades(brief)
    lines = []
    for phrase, (rungs, problem) in made.items():
        forms = [
            (rung.kind, _form(rung.kind, name, cells)) for rung in rungs for name in rung.names
        ]
        best = next((form for _, form in forms if form.status in OPEN), None)
        at = shelf.place.get(phrase, -1)
        whole = demand[at] if at >= 0 else np.nan
        exact = "".join(words_of(phrase))
        lines.append(
            Ladder(
                phrase=phrase,
                figure=known_of(found, at) if at >= 0 else known_of(None, 0),
                demand=None if np.isnan(whole) else int(whole),
                best=best,
                grade=grades.of(best.label if best else exact) if rungs else None,
                asked=sum(form.status not in ("", "waiting") for _, form in forms),
                forms=len(forms),
                rungs=[
                    (rung.kind, [form for kind, form in forms if kind == rung.kind])
                    for rung in rungs
                ],
                problem=problem,
            )
        )
    lines.sort(key=lambda one: (one.demand is None, -(one.demand or 0)))
    return Ladders(
        lines, list(brief.fallback or RUNGS), view,
        sum(line.asked for line in lines), sum(line.forms for line in lines),
    )  # fmt: skip


def names_to_check(project: Project) -> list[FullName]:
    """The forms of the chosen phrases in the order they are to be asked: the first rung of all of
    them, then the next; those below a form that is open already are left out.
    """
    brief = brief_of(project)
    made = _chosen_ladders(project, brief)
    labels = {n.label for rungs, _ in made.values() for rung in rungs for n in rung.names}
    cells = _known(project, labels)
    by_rung: dict[int, list[FullName]] = {}
    for rungs, _ in made.values():
        for depth, rung in enumerate(rungs):
            by_rung.setdefault(depth, []).extend(rung.names)
            if any(n in cells and cells[n].status in OPEN for n in rung.names):
                break
    return list(dict.fromkeys(name for depth in sorted(by_rung) for name in by_rung[depth]))


def _chosen_ladders(project: Project, brief: Brief) -> Mapping[str, tuple[Sequence[Rung], str]]:
    """By chosen phrase its rungs; and why there are none."""
    chosen = project.phrase_choices.order_by("id").values_list("phrase", flat=True)
    added = _added_words(replace(brief, extensions=("com",), fallback=()))
    found: dict[str, tuple[Sequence[Rung], str]] = {}
    for phrase in list(chosen)[:MOST_LADDERS]:
        words = words_of(phrase)
        exact = "".join(words)
        if not exact.isascii():
            found[phrase] = ((), "letters")
        elif len(exact) > 63:
            found[phrase] = ((), "long")
        else:
            more = _with_one_more(words, added)
            found[phrase] = (
                ladder(words, more, brief.extensions, brief.fallback or tuple(RUNGS)), "",
            )  # fmt: skip
    return found


@lru_cache(20)
def _added_words(brief: Brief) -> tuple[tuple[str, bool], ...]:
    """Words that may be added to any phrase of the brief, and whether they stand behind it: its
    places, then the heads of its trade.
    """
    places = [(place.replace(" ", ""), True) for place in brief.places]
    world = world_of(brief, load_lexicon())
    heads: dict[str, float] = {}
    for word, _, share in world.plain():
        if word.isalpha() and len(word) <= brief.making.added_max and word not in world.against:
            heads[word] = max(heads.get(word, 0.0), share + max(0.0, world.near(word)))
    best = sorted(heads, key=lambda word: (-heads[word], word))[:MOST_HEADS]
    return (*places, ("the", False), *((word, True) for word in best))


def _with_one_more(words: Sequence[str], added: Sequence[tuple[str, bool]]) -> list[str]:
    """Labels with one word more, no word of them twice."""
    label, found = "".join(words), []
    for word, behind in added:
        if not any(word in own or own in word for own in words):
            longer = label + word if behind else word + label
            if len(longer) <= 63:
                found.append(longer)
        if len(found) == MOST_ADDED:
            break
    return found


def _known(project: Project, labels: set[str]) -> dict[FullName, Lookup]:
    wanted = sorted(labels)
    found = {}
    for start in range(0, len(wanted), BATCH):
        rows = project.lookups.filter(label__in=wanted[start : start + BATCH]).defer("evidence")
        found.update({FullName(row.label, row.extension): row for row in rows})
    return found


def _form(rung: str, name: FullName, cells: Mapping[FullName, Lookup]) -> Form:
    cell = cells.get(name)
    status = cell.status if cell else ""
    return Form(rung, name.label, name.extension, status, bool(cell and cell.likely))


class _Grades:
    """Grades of names by a brief, remembered while it stays."""

    def __init__(self, brief: Brief) -> None:
        self._grader: Grader | None = None
        self._brief, self._known = brief, _grades_by(brief)

    def of(self, label: str) -> float | None:
        """The grade, None where too little of the name could be judged."""
        if label not in self._known:
            self._grader = self._grader or grader_for(self._brief)
            grade = self._grader.grade(self._grader.read_any(Candidate(label, (), (), 0.0)))
            self._known[label] = round(grade.grade, 1) if grade.whole else None
        return self._known[label]


@lru_cache(20)
def _grades_by(_brief: Brief) -> dict[str, float | None]:
    """By label, what was graded by a brief so far."""
    return {}
