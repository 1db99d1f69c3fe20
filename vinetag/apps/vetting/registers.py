"""Registers of marks: brought in mark by mark, and held in memory to be searched."""

from __future__ import annotations

import io
import uuid
import zlib
from collections.abc import Callable, Iterable, Iterator, Sequence
from datetime import timedelta
from functools import lru_cache
from itertools import islice
from typing import BinaryIO, Final, NamedTuple, cast

from django.conf import settings
from django.core.cache import cache
from django.db.models import Max, Q
from django.utils import timezone

from vinetag.apps.accounts.errors import ConflictError, RefusedError
from vinetag.apps.vetting.models import MarkFile, MarkRow
from vinetag.core.errors import Problem
from vinetag.core.lexicon import load_lexicon
from vinetag.core.vet.marks import (
    FormMaker,
    Forms,
    Index,
    Indexed,
    Mark,
    MarkStatus,
    read_register,
)
from vinetag.core.vet.marks.record import ALIVE

__all__ = [
    "Brought", "bring_marks", "count_marks", "form_maker", "index", "marks_by_number",
    "read_waiting", "stale_files", "take_register",
]  # fmt: skip

BATCH: Final = 2_000
MOST_TOLD: Final = 50
# Without an office of its own a mark has this one.
NO_OFFICE: Final = "—"
EDITION: Final = "marks-edition"
COUNTED_FOR: Final = 86_400
LEASE: Final = timedelta(seconds=120)
MOST_TRIES: Final = 3
TAKEN: Final = (
    "word", "owner", "classes", "status", "filed", "registered", "expires", "letters", "part",
    "sounds", "part_sounds", "words",
)  # fmt: skip


class Brought(NamedTuple):
    """How many marks were taken, in how many places something was wrong, and the first of those."""

    taken: int
    wrong: int
    problems: Sequence[Problem]


@lru_cache(1)
def form_maker() -> FormMaker:
    """One for each process: sounds of words are remembered."""
    return FormMaker(load_lexicon())


def bring_marks(
    file: BinaryIO, office: str = "", on_progress: Callable[[int], None] = lambda _: None
) -> Brought:
    """Take the marks of a register, BATCH by BATCH: a number that is there already is replaced.
    `on_progress` hears how many were taken. Nothing is raised for what the file has.
    """
    marks, maker, taken = read_register(file), form_maker(), 0
    lines = iter(marks)
    while batch := list(islice(lines, BATCH)):
        rows = {(row.office, row.number): row for row in _rows(batch, office, maker)}
        MarkRow.objects.bulk_create(
            rows.values(), update_conflicts=True, update_fields=TAKEN, batch_size=BATCH
        )
        taken += len(rows)
        on_progress(taken)
    if taken:
        cache.set(EDITION, uuid.uuid4().hex, None)
    elif not marks.table.wrong:
        marks.table.problem("file", "register_empty", {})
    return Brought(taken, marks.table.wrong, marks.table.problems[:MOST_TOLD])


def _rows(batch: Iterable[Mark], office: str, maker: FormMaker) -> Iterator[MarkRow]:
    for mark in batch:
        forms = maker.of_text(mark.word, mark.classes) or Forms("", "", "", "", "")
        yield MarkRow(
            office=mark.office or office or NO_OFFICE,
            number=mark.number,
            word=mark.word,
            owner=mark.owner,
            classes=" ".join(map(str, mark.classes)),
            status=mark.status,
            filed=mark.filed,
            registered=mark.registered,
            expires=mark.expires,
            letters=forms.letters[:160],
            part=forms.part[:160],
            sounds=forms.sounds[:240],
            part_sounds=forms.part_sounds[:240],
            words=forms.words[:200],
        )


def _edition() -> str:
    """Another whenever marks were brought, here or with another database."""
    last = MarkRow.objects.aggregate(last=Max("id"))["last"] or 0
    return f"{cache.get_or_set(EDITION, lambda: uuid.uuid4().hex, None)}:{last}"


def count_marks() -> int:
    """How many marks there are: counting a million takes a moment, and is done once."""
    found = cache.get_or_set(f"marks-count:{_edition()}", MarkRow.objects.count, COUNTED_FOR)
    return int(found or 0)


def index() -> Index:
    """All marks, held by this process until others are brought."""
    return _index(_edition())


@lru_cache(1)
def _index(_edition: str) -> Index:
    rows = MarkRow.objects.order_by("id").values_list(
        "id", "letters", "part", "sounds", "part_sounds", "words", "classes", "status"
    )
    kinds: dict[str, tuple[int, ...]] = {}

    def marks() -> Iterator[Indexed]:
        for number, *forms, classes, status in rows.iterator(chunk_size=5_000):
            if classes not in kinds:
                kinds[classes] = tuple(map(int, classes.split()))
            if forms[0]:
                yield Indexed(number, Forms(*forms), kinds[classes], status in ALIVE)

    return Index(marks())


def marks_by_number(numbers: Iterable[int]) -> dict[int, Mark]:
    """Marks by their numbers in the index."""
    return {
        row.pk: Mark(
            row.number, row.word, row.owner, row.office, tuple(map(int, row.classes.split())),
            cast(MarkStatus, row.status), row.filed, row.registered, row.expires,
        )
        for row in MarkRow.objects.filter(pk__in=list(numbers))
    }  # fmt: skip


def take_register(*, name: str, office: str, stream: BinaryIO) -> MarkFile:
    """Take a file for a worker to read. Raises RefusedError, or ConflictError while one is read."""
    active = Q(state__in=(MarkFile.State.WAITING, MarkFile.State.READING))
    if MarkFile.objects.filter(active).exists():
        raise ConflictError("register_active", "A register is being read. Wait for it.")
    content = stream.read(settings.MOST_FILE_BYTES + 1)
    if len(content) > settings.MOST_FILE_BYTES:
        args = {"limit": settings.MOST_FILE_BYTES // 1_000_000}
        raise RefusedError([Problem("file", "file_large", args)])
    if not content.strip():
        raise RefusedError([Problem("file", "register_empty")])
    return MarkFile.objects.create(
        name=" ".join(name.split())[:120] or "register",
        office=" ".join(office.split())[:60],
        content=zlib.compress(content, 1),
        heartbeat_at=timezone.now() - 2 * LEASE,
    )


def stale_files() -> list[int]:
    """Files nobody reads."""
    active = Q(state__in=(MarkFile.State.WAITING, MarkFile.State.READING))
    waiting = MarkFile.objects.filter(active, heartbeat_at__lt=timezone.now() - LEASE)
    return list(waiting.order_by("pk").values_list("pk", flat=True))


def read_waiting(file_id: int) -> None:
    """Read a file that was taken, unless somebody else is at it; safe to be killed at any line:
    what was taken is taken again.
    """
    now = timezone.now()
    free = MarkFile.objects.filter(
        pk=file_id,
        state__in=(MarkFile.State.WAITING, MarkFile.State.READING),
        heartbeat_at__lt=now - LEASE,
    )
    if not free.update(state=MarkFile.State.READING, heartbeat_at=now):
        return
    file = MarkFile.objects.get(pk=file_id)
    file.tries += 1
    if file.tries > MOST_TRIES or file.content is None:
        file.state, file.content = MarkFile.State.FAILED, None
        file.save(update_fields=["state", "content", "tries"])
        return
    file.save(update_fields=["tries"])

    def far(taken: int) -> None:
        MarkFile.objects.filter(pk=file_id).update(done=taken, heartbeat_at=timezone.now())

    brought = bring_marks(io.BytesIO(zlib.decompress(file.content)), file.office, far)
    file.state = MarkFile.State.DONE if brought.taken else MarkFile.State.FAILED
    file.done, file.wrong, file.content = brought.taken, brought.wrong, None
    file.problems = [problem.document() for problem in brought.problems]
    file.save(update_fields=["state", "done", "wrong", "problems", "content"])
