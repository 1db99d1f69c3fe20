"""Pasted and uploaded names: kept with the project, and checked under their extensions."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from vinetag.apps.accounts.errors import RefusedError
from vinetag.apps.availability.checks import in_turn
from vinetag.apps.availability.models import Lookup, PastedList
from vinetag.apps.availability.progress import cells_of
from vinetag.apps.naming.models import Project
from vinetag.core.checking import BadLine, read_pasted
from vinetag.core.errors import Problem
from vinetag.core.extensions import parse_extension
from vinetag.core.names import FullName

__all__ = [
    "BADS_TOLD", "ListPage", "Taken", "clear_list", "list_page", "listed_names", "pasted_list",
    "put_list", "take_list",
]  # fmt: skip

BADS_TOLD = 200
NOT_ASKED = "not asked"
BATCH = 500
MOST_EXTENSIONS = 20


@dataclass(frozen=True, slots=True)
class Taken:
    """What became of a pasted text: `names` are listed now, as so many `full_names`; `bad` pieces
    were passed over, the first BADS_TOLD told; `left_out` lines and `names_left_out` names were
    beyond the most that are taken; `passed_over` cells stood in other columns.
    """

    lines: int
    names: int
    full_names: int
    merged: int
    bad: Sequence[BadLine]
    bad_count: int
    left_out: int
    names_left_out: int
    passed_over: int


def take_list(*, project: Project, text: str, extensions: Sequence[str] | None = None) -> Taken:
    """Put the names of a text in place of the project's list. A name without extension is asked
    under `extensions`, the brief's when left out. Raises RefusedError when there is no name in it;
    the list stays as it was.
    """
    chosen = [parse_extension(e, "extensions") for e in extensions or project.brief["extensions"]]
    if len(chosen) > MOST_EXTENSIONS:
        args = {"limit": MOST_EXTENSIONS, "count": len(chosen)}
        raise RefusedError([Problem("extensions", "too_many", args)])
    pasted = read_pasted(text)
    if not pasted.names:
        if pasted.bad:
            raise RefusedError([_problem(bad) for bad in pasted.bad[:BADS_TOLD]])
        raise RefusedError([Problem("text", "blank")])
    # A name that also stood without an extension is asked under those chosen as well.
    names = {
        label: list(dict.fromkeys([*own, *(chosen if label in pasted.bare else ())]))
        for label, own in pasted.names.items()
    }
    put_list(project, names, chosen)
    return Taken(
        lines=pasted.lines,
        names=len(names),
        full_names=sum(len(extensions) for extensions in names.values()),
        merged=pasted.merged,
        bad=pasted.bad[:BADS_TOLD],
        bad_count=len(pasted.bad),
        left_out=pasted.left_out,
        names_left_out=pasted.names_left_out,
        passed_over=pasted.passed_over,
    )


def _problem(bad: BadLine) -> Problem:
    return Problem(f"line {bad.line}", "as_told", {"text": f"“{bad.text}”: {bad.reason}"})


def clear_list(project: Project) -> int:
    """Empty the project's list; how many names were on it."""
    count = len(pasted_list(project))
    PastedList.objects.filter(project=project).delete()
    return count


def put_list(
    project: Project, names: Mapping[str, Sequence[str]], extensions: Sequence[str] = ()
) -> None:
    """Names, each with its extensions, in place of the project's list; `extensions` were chosen for
    those that came without.
    """
    kept = {"names": names, "extensions": list(extensions)}
    PastedList.objects.update_or_create(project=project, defaults=kept)


def pasted_list(project: Project) -> Mapping[str, Sequence[str]]:
    """The project's list in its order: names, each with the extensions it is asked under."""
    rows = PastedList.objects.filter(project=project).values_list("names", flat=True)
    return next(iter(rows), {})


@dataclass(frozen=True, slots=True)
class ListRow:
    """One name of the list with what is known of it."""

    label: str
    extensions: Sequence[str]
    cells: Sequence[Lookup]


@dataclass(frozen=True, slots=True)
class ListPage:
    """Some rows of the list; `total` match, `names` and `full_names` are on it, `statuses` counts
    the full names by status ("not asked" among them); `extensions` were chosen for names that came
    without.
    """

    rows: Sequence[ListRow]
    total: int
    names: int
    full_names: int
    statuses: Mapping[str, int]
    extensions: Sequence[str]


def list_page(project: Project, *, status: str = "", offset: int = 0, limit: int = 100) -> ListPage:
    """Names of the list in their order: all, or those with a full name of `status`."""
    listed = pasted_list(project)
    labels = list(listed)
    known: dict[str, dict[str, str]] = {}
    for start in range(0, len(labels), BATCH):
        rows = project.lookups.filter(label__in=labels[start : start + BATCH])
        for label, extension, found in rows.values_list("label", "extension", "status"):
            if extension in listed[label]:
                known.setdefault(label, {})[extension] = found
    counts: Counter[str] = Counter()
    matching = []
    for label, extensions in listed.items():
        told_of = known.get(label, {})
        statuses = [told_of.get(e, NOT_ASKED) for e in extensions]
        counts.update(statuses)
        if not status or status in statuses:
            matching.append((label, extensions))
    page = matching[offset : offset + limit]
    wanted = [FullName(label, e) for label, extensions in page for e in extensions]
    cells = cells_of(project, wanted)
    return ListPage(
        rows=[ListRow(label, extensions, cells.get(label, [])) for label, extensions in page],
        total=len(matching),
        names=len(listed),
        full_names=sum(counts.values()),
        statuses=counts,
        extensions=PastedList.objects.filter(project=project)
        .values_list("extensions", flat=True)
        .first()
        or [],
    )


def listed_names(project: Project) -> list[FullName]:
    """The list's full names in the order they are to be asked."""
    groups: dict[tuple[str, ...], list[str]] = {}
    for label, extensions in pasted_list(project).items():
        groups.setdefault(tuple(extensions), []).append(label)
    return [name for own, labels in groups.items() for name in in_turn(labels, own)]
