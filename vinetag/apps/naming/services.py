"""Rules and transactions of projects and the making of their names."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import datetime, timedelta
from typing import Any

from django.conf import settings
from django.db import transaction
from django.db.models import F, Q, QuerySet
from django.utils import timezone

from vinetag.apps.accounts.errors import ConflictError, NotFoundError, RefusedError
from vinetag.apps.accounts.models import User
from vinetag.apps.accounts.seen import Seen, require_seen
from vinetag.apps.naming.models import Candidate, Project
from vinetag.apps.naming.turns import making_of
from vinetag.core.brief import Brief, brief_document, parse_brief, parse_what_is_valid
from vinetag.core.candidates import Candidate as MadeName
from vinetag.core.candidates import part_document, read_part
from vinetag.core.errors import BriefError, Problem
from vinetag.core.facts import facts_of
from vinetag.core.grade import MEASURES, Grade, Grader, weigh, weights_of
from vinetag.core.lexicon import load_lexicon
from vinetag.core.make import Graded, Made, make_names
from vinetag.core.make.listing import GOOD_ENOUGH, TIERS, in_order
from vinetag.core.make.variety import diversify

__all__ = [
    "FIRST",
    "archive_project",
    "brief_of",
    "change_project",
    "complete_briefs",
    "create_project",
    "delete_for_good",
    "grader_for",
    "keep_views",
    "list_more",
    "made_name",
    "only_first",
    "own_project",
    "own_projects",
    "remove_project",
    "restore_project",
    "show_project",
]

# So many names are listed while the person waits (those of the first tier, so that no other need
# be graded), and so many once there is time.
FIRST = TIERS[0][2]
DEEPEST = 50_000
MAX_PROJECTS = 500
# Removed projects can be brought back for so long, and are deleted then; so many at a time.
KEPT_REMOVED = timedelta(days=30)
MOST_DELETED = 50
MAX_VIEW = 2_000
MAX_VIEWS = 30
BATCH = 500


def own_projects(owner: User) -> QuerySet[Project]:
    """The person's projects, the last changed first."""
    return Project.objects.filter(owner=owner, removed_at=None).order_by("-changed_at", "-id")


def own_project(owner: User, project_id: int) -> Project:
    """One of the person's projects. Raises NotFoundError, also for someone else's."""
    try:
        return own_projects(owner).select_related("owner").get(pk=project_id)
    except Project.DoesNotExist:
        raise NotFoundError from None


def create_project(
    *,
    owner: User,
    name: str,
    brief: object,
    seed: int = 1,
    hidden: bool = False,
    whole: bool = False,
) -> Project:
    """A new project with its FIRST names made, or with the `whole` list; the same brief and seed
    make the same names. A `hidden` one is as if it were removed, until show_project.
    """
    title, read = _read(name, brief)
    # Removed ones count: they are there until they are deleted for good.
    if Project.objects.filter(owner=owner).count() >= MAX_PROJECTS:
        args = {"limit": MAX_PROJECTS, "days": KEPT_REMOVED.days}
        raise RefusedError([Problem("name", "too_many_projects", args)])
    depth = settings.NAMES_A_STEP if whole else FIRST
    project = Project(owner=owner, name=title, brief=brief_document(read), seed=seed, depth=depth)
    project.removed_at = timezone.now() if hidden else None
    made = _made(project, read)
    with transaction.atomic():
        project.save()
        _store(project, made)
    return project


def show_project(project: Project) -> Project:
    """The project as it is in the database, out of hiding."""
    Project.objects.filter(pk=project.pk).update(removed_at=None)
    return Project.objects.get(pk=project.pk)


def change_project(
    *,
    project: Project,
    name: str | None,
    brief: object,
    seen: Seen = None,
    not_taken: list[Problem] | None = None,
) -> Project:
    """Change the name, the brief or both. The FIRST names are made anew when the brief changed;
    when only the weights of the measures did, those listed are graded and ordered anew.

    Where `not_taken` is given, entries and parts of the brief that make no sense are left out, or
    left as they were, and it is filled with why. `seen` has the `version` of the project the
    change was made to: when it was changed elsewhere since, require_seen's error is raised with the
    project, and nothing is changed.
    """
    if not_taken is not None and brief is not None:
        valid, problems = parse_what_is_valid(brief, brief_of(project))
        not_taken += [_in_brief(p) for p in problems]
        brief = brief_document(valid)
    title, read = _read(
        project.name if name is None else name, project.brief if brief is None else brief
    )
    require_seen(seen, {"version": project.version}, project)
    document = brief_document(read)
    changed = {key for key in document if document[key] != project.brief.get(key)}
    remake = bool(changed - {"weights", "owner", "fallback", "classes", "markets"})
    if remake:
        project.depth = FIRST
    project.name, project.brief = title, document
    made = _made(project, read) if remake else None
    with transaction.atomic():
        now = Project.objects.select_for_update().get(pk=project.pk)
        require_seen(seen, {"version": now.version}, now)
        project.version = now.version + 1
        project.save(update_fields=["name", "brief", "depth", "version", "changed_at"])
        if made:
            _store(project, made)
        elif "weights" in changed:
            _weigh(project, read)
    return project


def complete_briefs() -> int:
    """Complete the briefs an earlier version wrote, which lack what was added since, and make the
    names anew of those without figures for ordering them; how many briefs there were.
    """
    count = 0
    for project in Project.objects.iterator():
        read = brief_of(project)
        document = brief_document(read)
        if document.keys() == project.brief.keys():
            continue
        made = _made(project, read) if "about" not in project.brief else None
        project.brief = document
        with transaction.atomic():
            project.save(update_fields=["brief"])
            if made:
                _store(project, made)
        count += 1
    return count


def archive_project(project: Project, *, away: bool) -> Project:
    """Put the project with those that rest, or take it back among the others."""
    project.archived_at = timezone.now() if away else None
    project.save(update_fields=["archived_at"])
    return project


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


def delete_for_good(now: datetime) -> int:
    """Delete projects removed longer than KEPT_REMOVED ago, and accounts that were given up with
    all that is theirs, one by one; how many projects there were.
    """
    old = Project.objects.filter(
        Q(removed_at__lt=now - KEPT_REMOVED) | Q(owner__left_at__isnull=False)
    )
    count = 0
    for project in old.order_by("pk")[:MOST_DELETED]:
        project.delete()
        count += 1
    User.objects.filter(left_at__isnull=False, projects=None).delete()
    return count


def keep_views(
    *,
    project: Project,
    view: str | None,
    views: Sequence[Mapping[str, str]] | None,
    seen: Seen = None,
    place: str = "",
) -> dict[str, Any]:
    """Remember how a sheet was looked at last, the views under a name, or both: the sheet of names,
    or the one at a `place`; `seen` may have the `views` as they were. Gives both back. Raises
    RefusedError at `views`, and require_seen's error.
    """
    clean = None if views is None else _views(views)
    with transaction.atomic():
        now = Project.objects.select_for_update().only("view", "views", "sheets").get(pk=project.pk)
        kept: dict[str, Any] = {"view": now.view, "views": now.views}
        if place:
            kept = {"view": "", "views": [], **now.sheets.get(place, {})}
        if clean is not None:
            require_seen(seen, {"views": kept["views"]})
            kept["views"] = clean
        if view is not None:
            kept["view"] = view[:MAX_VIEW]
        if place:
            project.sheets = {**now.sheets, place: kept}
        else:
            project.view, project.views = kept["view"], kept["views"]
        project.save(update_fields=["sheets"] if place else ["view", "views"])
    return kept


def _views(views: Sequence[Mapping[str, str]]) -> list[dict[str, str]]:
    """Views as they are kept. Raises RefusedError with every problem."""
    problems: list[Problem] = []
    if len(views) > MAX_VIEWS:
        problems.append(Problem("views", "too_many", {"limit": MAX_VIEWS, "count": len(views)}))
    names = [" ".join(v["name"].split()) for v in views]
    for i, name in enumerate(names):
        if not name:
            problems.append(Problem(f"views.{i}.name", "blank"))
        elif name in names[:i]:
            problems.append(Problem(f"views.{i}.name", "repeated", {"value": name}))
    if problems:
        raise RefusedError(problems)
    return [{"name": name, "search": v["search"]} for name, v in zip(names, views, strict=True)]


def only_first(project: Project) -> bool:
    """Whether the list is to be made as long as lists usually are."""
    return project.depth < min(settings.NAMES_A_STEP, project.within)


def list_more(project: Project) -> Project:
    """Make the list NAMES_A_STEP long, or twice as long as it is; those already there keep their
    places. When the list was made anew meanwhile, that one stays as it is. Raises ConflictError
    when there are no more.
    """
    if project.depth >= min(DEEPEST, project.within):
        raise ConflictError(
            "no_more", "That is all there is. Keep or add words to get other names."
        )
    project.depth = min(DEEPEST, max(settings.NAMES_A_STEP, 2 * project.depth))
    made = _made(project, brief_of(project))
    with transaction.atomic():
        now = Project.objects.select_for_update().get(pk=project.pk)
        if now.edition != project.edition:
            return now
        project.save(update_fields=["depth"])
        _store(project, made)
    return project


def brief_of(project: Project) -> Brief:
    """The project's brief."""
    return parse_brief(project.brief)


def grader_for(brief: Brief) -> Grader:
    """A grader with every measure."""
    return Grader(brief, load_lexicon(), MEASURES)


def made_name(row: Candidate) -> MadeName:
    """The core's candidate of a stored row."""
    parts = tuple(read_part(part) for part in row.parts)
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
        problems += [_in_brief(p) for p in error.problems]
        raise RefusedError(problems) from error
    if problems:
        raise RefusedError(problems)
    return title, read


def _in_brief(problem: Problem) -> Problem:
    return Problem(f"brief.{problem.path}".rstrip("."), problem.code, problem.args)


def _weigh(project: Project, brief: Brief) -> None:
    """Grade the listed names from the scores they have, and put them in order."""
    weights = weights_of(brief)
    rows = {row.label: row for row in project.candidates.all()}
    graded = []
    for row in rows.values():
        grade = Grade(weigh(row.scores, weights), row.scores)
        graded.append(Graded(made_name(row), grade, grade.grade))
    ordered = diversify(in_order(graded, project.seed), len(graded), brief, load_lexicon())
    for place, name in enumerate(ordered, start=1):
        row = rows[name.candidate.label]
        row.rank, row.grade = place, round(name.grade.grade, 1)
    Candidate.objects.bulk_create(
        rows.values(), batch_size=BATCH, update_conflicts=True, update_fields=["rank", "grade"]
    )
    project.good = sum(row.grade >= GOOD_ENOUGH for row in rows.values())
    project.save(update_fields=["good"])
    _new_edition(project)


def _new_edition(project: Project) -> None:
    Project.objects.filter(pk=project.pk).update(edition=F("edition") + 1)
    project.refresh_from_db(fields=["edition"])


def _made(project: Project, brief: Brief) -> Made:
    """The names of the list. Nothing is stored: making takes longer than a transaction should."""
    # Dismissed names keep their places, so that the others do too; they make the list no shorter
    # (the first names, which are soon followed by the others, wait for no more than they need).
    hidden = project.dismissed.count() if project.pk and project.depth > FIRST else 0
    limit = project.depth + hidden
    with making_of(project.owner_id):
        return make_names(brief, load_lexicon(), seed=project.seed, limit=limit)


def _store(project: Project, made: Made) -> None:
    """Store the list in place of the last one, of which it may be the continuation."""
    stored = project.candidates.order_by("rank").values_list("label", flat=True)
    labels = [name.candidate.label for name in made.names]
    before = list(stored[: len(labels) + 1])
    if before != labels[: len(before)]:
        project.candidates.all().delete()
        before = []
    new = enumerate(made.names[len(before) :], start=len(before) + 1)
    Candidate.objects.bulk_create([_row(project, *n) for n in new], batch_size=BATCH)
    project.considered, project.within, project.good = made.considered, made.within, made.good
    project.save(update_fields=["considered", "within", "good"])
    _new_edition(project)


def _row(project: Project, rank: int, graded: Graded) -> Candidate:
    candidate = graded.candidate
    facts = facts_of(candidate, load_lexicon())
    return Candidate(
        project=project,
        label=candidate.label,
        rank=rank,
        grade=round(graded.grade.grade, 1),
        letters=candidate.letters,
        strength=round(candidate.strength, 4),
        scores={name: round(score, 2) for name, score in graded.grade.scores.items()},
        recipes=list(candidate.recipes),
        parts=[part_document(part) for part in candidate.parts],
        syllables=facts.syllables,
        words=facts.words,
        added=list(facts.added),
    )
