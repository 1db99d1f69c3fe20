"""Figures are brought: looked at first, then read by a worker; removed and brought back."""

from __future__ import annotations

import zlib
from collections.abc import Mapping, Sequence
from dataclasses import asdict
from datetime import timedelta
from typing import BinaryIO, Final

from django.conf import settings
from django.db import transaction
from django.db.models import F, Q, Sum
from django.utils import timezone

from vinetag.apps.accounts.errors import ConflictError, NotFoundError, RefusedError
from vinetag.apps.accounts.models import User
from vinetag.apps.naming.models import Project
from vinetag.apps.phrases.about import About, parse_about
from vinetag.apps.phrases.habits import SHOWN_START, parse_column, said_columns, usual_columns
from vinetag.apps.phrases.models import PhraseBook, PhraseFile
from vinetag.apps.phrases.shelf import book_of, work_out
from vinetag.core.demand import (
    Column,
    Defaults,
    Demand,
    Figure,
    Market,
    columns_of,
    look_at,
    packed,
    parse_phrase,
    read_demand,
    unpacked,
)
from vinetag.core.demand.reading import LONGEST_PHRASE, MOST_TOLD
from vinetag.core.errors import Problem, add_words

__all__ = [
    "bump", "read_waiting", "remove_file", "restore_file", "stale_files", "take_figures",
    "take_file", "type_phrases",
]  # fmt: skip

LEASE: Final = timedelta(seconds=60)
MOST_TRIES: Final = 3
MOST_FILES: Final = 40
MOST_TYPED: Final = 2_000
MOST_ALL: Final = 400_000
KEPT: Final = (
    "state", "figures", "lines", "taken", "done", "wrong", "content", "problems",
)  # fmt: skip

add_words(
    {
        "demand_file_large": "At most {limit} MB at once: this has {size} MB.",
        "demand_files": "A project has figures of at most {limit} files. Take one away first.",
        "demand_all": "All files of a project together have at most {limit:,} phrases.",
        "demand_none_typed": "There is no phrase in it.",
        "demand_again": "{count:,} of its phrases stand in “{name}” of the same source, too: the "
        "figures of {day} count, none are added.",
        "demand_unread": "It could not be read in three tries.",
    }
)


def take_file(
    project: Project,
    person: User,
    about: About,
    name: str,
    stream: BinaryIO,
    columns: Sequence[Mapping[str, str]] = (),
) -> PhraseFile:
    """Take a file for a worker to read. Raises RefusedError, or ConflictError while another one of
    this project is read.
    """
    told = asdict(parse_about(about))
    content = stream.read(settings.MOST_FILE_BYTES + 1)
    if len(content) > settings.MOST_FILE_BYTES:
        args = {"limit": settings.MOST_FILE_BYTES // 1_000_000, "size": len(content) // 1_000_000}
        raise RefusedError([Problem("file", "demand_file_large", args)])
    if not content.strip(b"\x00 \t\r\n\xff\xfe\xef\xbb\xbf"):
        raise RefusedError([Problem("file", "demand_empty")])
    chosen: Sequence[Column] = ()
    preview = look_at(content[:SHOWN_START])
    if columns:
        chosen = said_columns(person, preview, columns)
    else:
        chosen, _ = usual_columns(person, preview)
    if not any(one.kind == "phrase" for one in chosen):
        raise RefusedError([Problem("columns", "demand_no_phrases")])
    with transaction.atomic():
        Project.objects.select_for_update().get(pk=project.pk)
        _room(project)
        return PhraseFile.objects.create(
            project=project, kind=PhraseFile.Kind.FILE, name=" ".join(name.split())[:120],
            columns=[{"kind": one.kind, "month": one.month} for one in chosen],
            content=zlib.compress(content, 1), heartbeat_at=timezone.now() - 2 * LEASE, **told,
        )  # fmt: skip


def _room(project: Project) -> None:
    active = Q(state__in=(PhraseFile.State.WAITING, PhraseFile.State.READING))
    if project.phrase_files.filter(active, removed_at=None).exists():
        raise ConflictError("figures_active", "Figures are being read. Wait for them.")
    # What was taken away, or could not be read, makes room for what is new.
    spare = project.phrase_files.filter(
        Q(removed_at__isnull=False) | Q(state=PhraseFile.State.FAILED)
    )
    beyond = project.phrase_files.count() + 1 - MOST_FILES
    if beyond > spare.count():
        raise RefusedError([Problem("file", "demand_files", {"limit": MOST_FILES})])
    if beyond > 0:
        oldest = list(spare.order_by("removed_at", "id").values_list("pk", flat=True)[:beyond])
        PhraseFile.objects.filter(pk__in=oldest).delete()


def stale_files() -> list[int]:
    """Files nobody reads."""
    active = Q(state__in=(PhraseFile.State.WAITING, PhraseFile.State.READING))
    waiting = PhraseFile.objects.filter(active, heartbeat_at__lt=timezone.now() - LEASE)
    return list(waiting.order_by("pk").values_list("pk", flat=True))


def read_waiting(file_id: int) -> None:
    """Read a file that was taken, unless somebody else is at it; safe to be killed at any line."""
    now = timezone.now()
    free = PhraseFile.objects.filter(
        pk=file_id,
        state__in=(PhraseFile.State.WAITING, PhraseFile.State.READING),
        heartbeat_at__lt=now - LEASE,
    )
    if not free.update(state=PhraseFile.State.READING, heartbeat_at=now, tries=F("tries") + 1):
        return
    file = PhraseFile.objects.select_related("project").get(pk=file_id)
    if file.tries > MOST_TRIES or file.content is None:
        file.problems = [Problem("file", "demand_unread").document()]
        file.state, file.content, file.wrong = PhraseFile.State.FAILED, None, 1
        file.save(update_fields=["state", "content", "problems", "wrong"])
        return

    def far(lines: int) -> None:
        PhraseFile.objects.filter(pk=file_id).update(done=lines, heartbeat_at=timezone.now())

    demand = read_demand(
        zlib.decompress(file.content),
        Defaults(file.country, file.language, file.currency),
        [parse_column(one) for one in file.columns],
        far,
    )
    _keep(file, demand)
    if file.state == PhraseFile.State.DONE:
        work_out(file.project)


def _keep(file: PhraseFile, demand: Demand) -> None:
    """Store what was read, and count a new edition."""
    with transaction.atomic():
        book = bump(file.project)
        if _taken(file.project, file.pk) + len(demand.figures) > MOST_ALL:
            demand.problems.insert(0, Problem("file", "demand_all", {"limit": MOST_ALL}))
            demand.figures, demand.wrong = columns_of([]), demand.wrong + 1
        good = len(demand.figures) > 0
        _tell_of_others(file, demand)
        file.state = PhraseFile.State.DONE if good else PhraseFile.State.FAILED
        file.figures = packed(demand.figures) if good else None
        file.lines, file.taken, file.done = demand.lines, len(demand.figures), demand.lines
        file.wrong, file.content = demand.wrong, None
        file.problems = [problem.document() for problem in demand.problems[:MOST_TOLD]]
        # What is said of it otherwise meanwhile (that it is taken away) stays.
        file.save(update_fields=KEPT if file.pk else None)
        # A phrase that was put out of sight and is brought again is seen again.
        if good and book.dropped:
            brought = set(demand.figures.phrases)
            book.dropped = [one for one in book.dropped if one not in brought]
            book.save(update_fields=["dropped"])


def _taken(project: Project, but: int | None) -> int:
    """How many phrases the other files have."""
    files = project.phrase_files.filter(state=PhraseFile.State.DONE, removed_at=None)
    others = files if but is None else files.exclude(pk=but)
    return int(others.aggregate(taken=Sum("taken"))["taken"] or 0)


def _tell_of_others(file: PhraseFile, demand: Demand) -> None:
    """Say how many phrases have figures of the same source already, and which count."""
    others = file.project.phrase_files.filter(
        source=file.source, country=file.country, language=file.language, removed_at=None,
        state=PhraseFile.State.DONE, kind=PhraseFile.Kind.FILE,
    ).exclude(pk=file.pk)  # fmt: skip
    if file.kind != PhraseFile.Kind.FILE:
        return
    mine = set(demand.figures.phrases)
    for other in others:
        count = len(mine.intersection(unpacked(bytes(other.figures or b"")).phrases))
        if count:
            newer = max(file.dated, other.dated)
            args = {"count": count, "name": other.name or other.source, "day": newer}
            demand.problems.insert(0, Problem("file", "demand_again", args))
            demand.wrong += 1


def bump(project: Project) -> PhraseBook:
    """Count a change, and give what was decided so far, locked."""
    book_of(project)
    PhraseBook.objects.filter(project=project).update(edition=F("edition") + 1)
    return PhraseBook.objects.select_for_update().get(project=project)


def take_figures(
    project: Project, about: About, figures: Sequence[Figure], last_month: str = ""
) -> PhraseFile:
    """Keep figures a service gave, as of today. Raises RefusedError."""
    told = asdict(parse_about(about))
    demand = Demand(columns_of(figures, last_month), lines=len(figures))
    with transaction.atomic():
        Project.objects.select_for_update().get(pk=project.pk)
        file = project.phrase_files.filter(
            kind=PhraseFile.Kind.SERVICE, removed_at=None, state=PhraseFile.State.DONE, **told
        ).first()
        if file is None:
            _room(project)
            file = PhraseFile(
                project=project, kind=PhraseFile.Kind.SERVICE, heartbeat_at=timezone.now(), **told
            )
        else:
            # What was asked again today takes the place of what was said before.
            fresh = {row.phrase for row in figures}
            before = unpacked(bytes(file.figures or b""))
            rows = [before.one(at) for at in range(len(before))]
            kept = [row for row in rows if row.phrase not in fresh]
            demand.figures = columns_of([*kept, *figures], last_month or before.last_month)
            demand.lines = len(demand.figures)
        _keep(file, demand)
    return file


def type_phrases(project: Project, texts: Sequence[str]) -> tuple[int, list[Problem]]:
    """Add phrases without figures: how many were new, and what is wrong with others. Raises
    RefusedError where none is one.
    """
    problems: list[Problem] = []
    phrases: dict[str, None] = {}
    for number, text in enumerate(texts, 1):
        phrase = parse_phrase(text)
        if not phrase:
            continue
        if len(phrase) > LONGEST_PHRASE:
            args = {"value": phrase[:30], "limit": LONGEST_PHRASE}
            problems.append(Problem(f"line {number}", "demand_long", args))
        elif not any(c.isalnum() for c in phrase):
            problems.append(Problem(f"line {number}", "demand_letters", {"value": phrase[:40]}))
        else:
            phrases[phrase] = None
    if not phrases:
        raise RefusedError(problems or [Problem("text", "demand_none_typed")])
    with transaction.atomic():
        Project.objects.select_for_update().get(pk=project.pk)
        file = project.phrase_files.filter(kind=PhraseFile.Kind.TYPED, removed_at=None).first()
        there = list(unpacked(bytes(file.figures or b"")).phrases) if file else []
        new = [phrase for phrase in phrases if phrase not in set(there)]
        if len(there) + len(new) > MOST_TYPED:
            args = {"limit": MOST_TYPED, "count": len(there) + len(new)}
            raise RefusedError([Problem("text", "too_many", args)])
        if file is None:
            file = PhraseFile(
                project=project, kind=PhraseFile.Kind.TYPED, source="typed",
                dated=timezone.now().date(), heartbeat_at=timezone.now(),
            )  # fmt: skip
        rows = [
            Figure(phrase, Market("", ""), None, None, (), None, None, "")
            for phrase in [*there, *new]
        ]
        _keep(file, Demand(columns_of(rows), lines=len(rows)))
    return len(new), problems


def remove_file(project: Project, file_id: int) -> None:
    """Take a file's figures away; restore_file brings them back. Raises NotFoundError."""
    with transaction.atomic():
        bump(project)
        there = project.phrase_files.filter(pk=file_id, removed_at=None)
        if not there.update(removed_at=timezone.now()):
            raise NotFoundError


def restore_file(project: Project, file_id: int) -> None:
    """Bring back what was removed. Raises NotFoundError, or RefusedError where others have taken
    its room.
    """
    with transaction.atomic():
        bump(project)
        file = project.phrase_files.filter(pk=file_id, removed_at__isnull=False).first()
        if file is None:
            raise NotFoundError
        if _taken(project, file.pk) + file.taken > MOST_ALL:
            raise RefusedError([Problem("file", "demand_all", {"limit": MOST_ALL})])
        PhraseFile.objects.filter(pk=file.pk).update(removed_at=None)
