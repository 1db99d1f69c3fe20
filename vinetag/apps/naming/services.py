"""Rules and transactions of projects and the making of their names."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from django.db import transaction
from django.db.models import QuerySet
from django.utils import timezone

from vinetag.apps.accounts.errors import ConflictError, NotFoundError, RefusedError
from vinetag.apps.accounts.models import User
from vinetag.apps.naming.models import Candidate, Dismissed, Project
from vinetag.core.brief import Brief, brief_document, parse_brief
from vinetag.core.candidates import Candidate as MadeName
from vinetag.core.candidates import Part
from vinetag.core.errors import BriefError, Problem
from vinetag.core.grade import MEASURES, Grade, Grader, weigh, weights_of
from vinetag.core.lexicon import load_lexicon
from vinetag.core.make import Graded, make_names
from vinetag.core.make.planner import GOOD_ENOUGH, in_order, ranked
from vinetag.core.make.variety import varied
from vinetag.core.names import parse_label

__all__ = [
    "MOST_DISMISSED",
    "STEP",
    "brief_of",
    "bring_back",
    "change_project",
    "complete_briefs",
    "create_project",
    "dismiss",
    "grader_for",
    "list_more",
    "made_name",
    "own_project",
    "own_projects",
    "remove_project",
    "restore_project",
]

STEP = 2_000
DEEPEST = 10_000
MOST_DISMISSED = 5_000
MAX_PROJECTS = 500
BATCH = 500


def own_projects(owner: User) -> QuerySet[Project]:
    """The person's projects, the last changed first."""
    return Project.objects.filter(owner=owner, removed_at=None).order_by("-changed_at", "-id")


def own_project(owner: User, project_id: int) -> Project:
    """One of the person's projects. Raises NotFoundError, also for someone else's."""
    try:
        return own_projects(owner).get(pk=project_id)
    except Project.DoesNotExist:
        raise NotFoundError from None


def create_project(*, owner: User, name: str, brief: object) -> Project:
    """A new project with its first names made."""
    title, read = _read(name, brief)
    if own_projects(owner).count() >= MAX_PROJECTS:
        raise RefusedError([Problem("name", "too_many_projects", {"limit": MAX_PROJECTS})])
    project = Project(owner=owner, name=title, brief=brief_document(read))
    with transaction.atomic():
        project.save()
        _make(project, read)
    return project


def change_project(*, project: Project, name: str | None, brief: object) -> Project:
    """Change the name, the brief or both. Names are made anew when the brief changed; when only
    the weights of the measures did, those listed are graded and ordered anew.
    """
    title, read = _read(
        project.name if name is None else name, project.brief if brief is None else brief
    )
    document = brief_document(read)
    changed = {key for key in document if document[key] != project.brief.get(key)}
    remake = bool(changed - {"weights"})
    if remake:
        project.depth = STEP
    project.name, project.brief = title, document
    with transaction.atomic():
        project.save(update_fields=["name", "brief", "depth", "changed_at"])
        if remake:
            _make(project, read)
        elif changed:
            _weigh(project, read)
    return project


def complete_briefs() -> int:
    """Complete the briefs an earlier version wrote, which lack what was added since, and make their
    names anew, which lack figures for the same reason; how many there were.
    """
    count = 0
    for project in Project.objects.iterator():
        read = brief_of(project)
        document = brief_document(read)
        if document.keys() == project.brief.keys():
            continue
        project.brief = document
        with transaction.atomic():
            project.save(update_fields=["brief"])
            _make(project, read)
        count += 1
    return count


def remove_project(project: Project) -> None:
    """Put the project away; restore_project brings it back."""
    project.removed_at = timezone.now()
    project.save(update_fields=["removed_at"])


def restore_project(owner: User, project_id: int) -> Project:
    """Bring back a project put away. Raises NotFoundError."""
    changed = Project.objects.filter(owner=owner, pk=project_id).update(removed_at=None)
    if not changed:
        raise NotFoundError
    return own_project(owner, project_id)


def list_more(project: Project) -> Project:
    """Make the list STEP names longer; those already there keep their places. Raises ConflictError
    when there are no more.
    """
    if project.depth >= min(DEEPEST, project.within):
        raise ConflictError(
            "no_more", "That is all there is. Keep or add words to get other names."
        )
    project.depth = min(DEEPEST, project.depth + STEP)
    with transaction.atomic():
        project.save(update_fields=["depth"])
        _make(project, brief_of(project))
    return project


def dismiss(*, project: Project, label: str) -> None:
    """Take a name out of the list, now and when names are made anew. Raises LabelError, or
    ConflictError when too many are dismissed.
    """
    label = parse_label(label)
    if project.dismissed.count() >= MOST_DISMISSED:
        message = f"At most {MOST_DISMISSED:,} names can be dismissed. Bring some back first."
        raise ConflictError("too_many_dismissed", message)
    with transaction.atomic():
        Dismissed.objects.get_or_create(project=project, label=label)
        project.candidates.filter(label=label).delete()


def bring_back(*, project: Project, labels: Sequence[str] | None) -> int:
    """Let dismissed names be listed again, all when `labels` is None; how many there were."""
    rows = project.dismissed.all()
    if labels is not None:
        rows = rows.filter(label__in=labels)
    with transaction.atomic():
        count, _ = rows.delete()
        if count:
            _make(project, brief_of(project))
    return count


def brief_of(project: Project) -> Brief:
    """The project's brief."""
    return parse_brief(project.brief)


def grader_for(brief: Brief) -> Grader:
    """A grader with every measure."""
    return Grader(brief, load_lexicon(), MEASURES)


def made_name(row: Candidate) -> MadeName:
    """The core's candidate of a stored row."""
    parts = tuple(Part(*part) for part in row.parts)
    return MadeName(row.label, tuple(row.recipes), parts, row.strength)


def _read(name: str, brief: object) -> tuple[str, Brief]:
    """Collects the problems of both, with the brief's under `brief.`."""
    problems: list[Problem] = []
    title = " ".join(name.split())
    if not title:
        problems.append(Problem("name", "blank"))
    elif len(title) > 80:
        problems.append(Problem("name", "too_long", {"limit": 80, "length": len(title)}))
    try:
        read = parse_brief(brief)
    except BriefError as error:
        problems += [Problem(f"brief.{p.path}".rstrip("."), p.code, p.args) for p in error.problems]
        raise RefusedError(problems) from error
    if problems:
        raise RefusedError(problems)
    return title, read


def _weigh(project: Project, brief: Brief) -> None:
    """Grade the listed names from the scores they have, and put them in order."""
    weights = weights_of(brief)
    rows = {row.label: row for row in project.candidates.all()}
    graded = []
    for row in rows.values():
        grade = Grade(weigh(row.scores, weights), row.scores)
        rank = ranked(grade.grade, row.scores, row.bonus, brief.making.daring)
        graded.append(Graded(made_name(row), grade, rank, row.bonus))
    ordered = varied(in_order(graded, project.seed), len(graded))
    for place, name in enumerate(ordered, start=1):
        row = rows[name.candidate.label]
        row.rank, row.grade = place, round(name.grade.grade, 1)
    Candidate.objects.bulk_create(
        rows.values(), batch_size=BATCH, update_conflicts=True, update_fields=["rank", "grade"]
    )
    project.good = sum(row.grade >= GOOD_ENOUGH for row in rows.values())
    project.save(update_fields=["good"])


def _make(project: Project, brief: Brief) -> None:
    """Make the names and store the list in place of the last one."""
    without = frozenset(project.dismissed.values_list("label", flat=True))
    made = make_names(
        brief, load_lexicon(), seed=project.seed, limit=project.depth, without=without
    )
    rows = [_row(project, rank, g) for rank, g in enumerate(made.names, start=1)]
    Candidate.objects.filter(project=project).delete()
    Candidate.objects.bulk_create(rows, batch_size=BATCH)
    project.considered, project.within, project.good = made.considered, made.within, made.good
    project.save(update_fields=["considered", "within", "good"])


def _row(project: Project, rank: int, graded: Any) -> Candidate:
    candidate = graded.candidate
    return Candidate(
        project=project,
        label=candidate.label,
        rank=rank,
        grade=round(graded.grade.grade, 1),
        letters=candidate.letters,
        strength=round(candidate.strength, 4),
        bonus=round(graded.bonus, 2),
        scores={name: round(score, 2) for name, score in graded.grade.scores.items()},
        recipes=list(candidate.recipes),
        parts=[list(part) for part in candidate.parts],
    )
