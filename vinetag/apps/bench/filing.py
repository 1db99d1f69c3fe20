"""Rules of filing jobs: what is taken, who works on it, and what came of it."""

from __future__ import annotations

import zlib
from collections.abc import Iterator
from datetime import datetime, timedelta
from typing import BinaryIO, Final

from django.conf import settings
from django.db.models import Q
from django.utils import timezone

from vinetag.apps.accounts.errors import ConflictError, NotFoundError, RefusedError
from vinetag.apps.accounts.models import User
from vinetag.apps.bench import transfer
from vinetag.apps.bench.models import Filing
from vinetag.apps.naming.models import Project
from vinetag.core.errors import BriefError, Problem

__all__ = ["own_filing", "stale_filings", "start_copy", "start_import", "work_on"]

# A job whose worker said nothing for so long is another's; after so many tries it is given up.
LEASE: Final = timedelta(seconds=120)
MOST_TRIES: Final = 3
AT_ONCE: Final = 3
KEPT: Final = timedelta(days=1)
CHUNK: Final = 256 * 1024


def start_import(*, owner: User, stream: BinaryIO) -> Filing:
    """Take a file to be read by a worker. Raises RefusedError or ConflictError."""
    _room(owner)
    content = b"".join(_packed(stream, settings.MOST_FILE_BYTES))
    return Filing.objects.create(owner=owner, content=content, heartbeat_at=_long_ago())


def start_copy(*, owner: User, project: Project) -> Filing:
    """A copy, to be made by a worker. Raises ConflictError."""
    _room(owner)
    return Filing.objects.create(owner=owner, source=project, heartbeat_at=_long_ago())


def own_filing(owner: User, filing_id: int) -> Filing:
    """One of the person's jobs. Raises NotFoundError."""
    found = Filing.objects.filter(owner=owner, pk=filing_id).select_related("project").first()
    if found is None:
        raise NotFoundError
    return found


def stale_filings() -> list[int]:
    """Jobs nobody works on; those that ended a day ago are forgotten."""
    now = timezone.now()
    over = Filing.objects.filter(state__in=(Filing.State.DONE, Filing.State.FAILED))
    over.filter(created_at__lt=now - KEPT).delete()
    waiting = Filing.objects.filter(_active(), heartbeat_at__lt=now - LEASE)
    return list(waiting.order_by("pk").values_list("pk", flat=True))


def work_on(filing_id: int) -> None:
    """Do the job, unless somebody else is at it; safe to be killed at any line."""
    now = timezone.now()
    free = Filing.objects.filter(_active(), pk=filing_id, heartbeat_at__lt=now - LEASE)
    if not free.update(state=Filing.State.WORKING, heartbeat_at=now):
        return
    filing = Filing.objects.select_related("owner", "source").get(pk=filing_id)
    filing.tries += 1
    filing.save(update_fields=["tries"])
    if filing.tries > MOST_TRIES:
        _fail(filing, [Problem("file", "as_told", {"text": "Reading it failed again and again."})])
        return
    try:
        project = _made(filing)
    except (RefusedError, BriefError) as error:
        _fail(filing, list(error.problems))
        return
    except ConflictError as error:
        _fail(filing, [Problem("file", "as_told", {"text": error.message})])
        return
    Filing.objects.filter(pk=filing_id).update(
        state=Filing.State.DONE, done=100, project=project, content=None
    )


def _made(filing: Filing) -> Project:
    def on_progress(percent: int) -> None:
        Filing.objects.filter(pk=filing.pk).update(done=percent, heartbeat_at=timezone.now())

    if filing.content is None:
        if filing.source is None:
            raise RefusedError([Problem("file", "as_told", {"text": "The project is gone."})])
        return transfer.duplicate(
            owner=filing.owner, project=filing.source, on_progress=on_progress
        )
    content = zlib.decompress(filing.content)
    filing.content = None
    return transfer.read_project(owner=filing.owner, content=content, on_progress=on_progress)


def _fail(filing: Filing, problems: list[Problem]) -> None:
    filing.state, filing.content = Filing.State.FAILED, None
    filing.problems = [problem.document() for problem in problems]
    filing.save(update_fields=["state", "content", "problems"])


def _room(owner: User) -> None:
    if Filing.objects.filter(_active(), owner=owner).count() >= AT_ONCE:
        message = "Your last files and copies are still being worked on. Wait for them."
        raise ConflictError("filing_active", message)


def _packed(stream: BinaryIO, most: int) -> Iterator[bytes]:
    """The stream compressed, piece by piece. Raises RefusedError over `most` bytes, or for none."""
    packer, read = zlib.compressobj(1), 0
    while chunk := stream.read(CHUNK):
        read += len(chunk)
        if read > most:
            raise RefusedError([Problem("file", "file_large", {"limit": most // 1_000_000})])
        yield packer.compress(chunk)
    if not read:
        raise RefusedError([Problem("file", "not_json", {"detail": "it is empty"})])
    yield packer.flush()


def _active() -> Q:
    return Q(state__in=(Filing.State.WAITING, Filing.State.WORKING))


def _long_ago() -> datetime:
    return timezone.now() - 2 * LEASE
