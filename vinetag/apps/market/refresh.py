"""Markets of the settings, asked for their lists; lists that were brought, read one by one."""

from __future__ import annotations

import asyncio
import shutil
from collections.abc import Mapping
from datetime import timedelta
from io import BytesIO
from pathlib import Path
from typing import BinaryIO, Final

from django.conf import settings
from django.core.cache import cache
from django.db.models import Q
from django.utils import timezone

from vinetag.apps.accounts.errors import ConflictError, NotFoundError, RefusedError
from vinetag.apps.market.lists import bring_list, lake, sweep_workshop
from vinetag.apps.market.models import ListFile, MarketRow
from vinetag.core.errors import Problem
from vinetag.core.market.markets import CODE
from vinetag.lake.unpacking import FeedError
from vinetag.lookup import LookupSettings
from vinetag.lookup.feeds import Validators
from vinetag.lookup.markets import FoundMarkets, fetch_markets

__all__ = [
    "is_coming", "is_due", "read_file", "refresh_markets", "take_file", "waiting_files",
]  # fmt: skip

EVERY: Final = timedelta(hours=1)
# After a failure it is tried again sooner.
AGAIN: Final = timedelta(minutes=10)
LEASE: Final = timedelta(minutes=10)
MOST_TRIES: Final = 3
MOST_WAITING: Final = 20
# In the cache: that somebody asks just now.
UNDER_WAY: Final = "markets-under-way"
ASKED: Final = "markets-asked"
LONGEST_REFRESH: Final = 1_800


def is_due() -> bool:
    """Whether the markets are to be asked again: once an hour, and sooner after a failure."""
    return bool(_lookup().markets) and cache.get(ASKED) is None


def is_coming() -> bool:
    """Whether lists are read just now, or those of the settings are to come for the first time."""
    if ListFile.objects.filter(state__in=ListFile.ACTIVE).exists():
        return True
    return is_due() and not MarketRow.objects.exclude(address="").exists()


def _lookup() -> LookupSettings:
    found: LookupSettings = settings.LOOKUP
    return found


def refresh_markets() -> FoundMarkets | None:
    """Ask for everything that changed, and have it read. None when somebody else is at it."""
    if not cache.add(UNDER_WAY, 1, LONGEST_REFRESH):
        return None
    try:
        known = {
            row.code: Validators(*row.validators)
            for row in MarketRow.objects.exclude(edition="")
            if row.validators
        }
        found = asyncio.run(fetch_markets(_lookup(), lake() / "inbox", known))
        _keep(found)
        cache.set(ASKED, 1, (AGAIN if found.troubles else EVERY).total_seconds())
        return found
    finally:
        cache.delete(UNDER_WAY)


def _keep(found: FoundMarkets) -> None:
    now = timezone.now()
    if "" not in found.troubles:
        MarketRow.objects.exclude(address="").exclude(code__in=found.entries).update(listed=False)
    for code, entry in found.entries.items():
        row, _ = MarketRow.objects.get_or_create(code=code, defaults={"name": entry.name})
        row.name, row.address, row.listed, row.asked_at = entry.name, entry.list, True, now
        row.trouble = found.troubles.get(code, "")
        row.save(update_fields=["name", "address", "listed", "asked_at", "trouble"])
        if code in found.files:
            validators = list(found.downloads[code].validators)
            with found.files[code].open("rb") as source:
                _queue(row, found.files[code].name, source, validators)
            found.files[code].unlink()


def _queue(row: MarketRow, name: str, source: BinaryIO, validators: list[str]) -> ListFile:
    """Put a list by for a worker. Of lists that wait only the newest is of use."""
    # Nobody takes it up before it is there as a whole.
    file = ListFile.objects.create(market=row, name=name[:120], heartbeat_at=timezone.now())
    target = _path(file)
    target.parent.mkdir(parents=True, exist_ok=True)
    with target.open("wb") as out:
        shutil.copyfileobj(source, out, 1 << 20)
    # Only a list that was read is not asked for again.
    cache.set(f"list-validators-{file.pk}", validators, 86_400)
    ListFile.objects.filter(pk=file.pk).update(heartbeat_at=timezone.now() - 2 * LEASE)
    for older in row.files.filter(state=ListFile.State.WAITING, pk__lt=file.pk):
        # Unless somebody has begun to read it meanwhile.
        if row.files.filter(state=ListFile.State.WAITING, pk=older.pk).delete()[0]:
            _path(older).unlink(missing_ok=True)
    return file


def _path(file: ListFile) -> Path:
    return lake() / "inbox" / f"{file.pk}.bin"


def take_file(*, code: str, name: str, stream: BinaryIO) -> ListFile:
    """Take a list of a market that is brought by hand, new or there already, for a worker to read.
    Raises RefusedError, and ConflictError where the market is followed by its address.
    """
    code = code.strip().lower()
    if not CODE.fullmatch(code):
        raise RefusedError([Problem("market", "market_code", {"value": code[:40]})])
    row = MarketRow.objects.filter(code=code).first()
    if row is not None and row.address:
        message = "This market’s list is fetched from its address; it cannot be brought by hand."
        raise ConflictError("market_followed", message)
    if ListFile.objects.filter(state__in=ListFile.ACTIVE).count() >= MOST_WAITING:
        raise ConflictError("lists_waiting", "Many lists wait already. Try again later.")
    content = stream.read(settings.MOST_FILE_BYTES + 1)
    if len(content) > settings.MOST_FILE_BYTES:
        limit = settings.MOST_FILE_BYTES // 1_000_000
        raise RefusedError([Problem("file", "file_large", {"limit": limit})])
    if not content.strip():
        raise RefusedError([Problem("file", "feed_empty")])
    if row is None:
        row = MarketRow.objects.create(code=code, name=" ".join(name.split())[:80] or code)
    return _queue(row, name or code, BytesIO(content), [])


def waiting_files() -> list[int]:
    """Lists nobody reads."""
    waiting = ListFile.objects.filter(
        state__in=ListFile.ACTIVE, heartbeat_at__lt=timezone.now() - LEASE
    )
    return list(waiting.order_by("pk").values_list("pk", flat=True))


def read_file(file_id: int) -> None:
    """Read a list that waits, unless somebody else is at it; safe to be killed at any line: what
    was there before stays in force, and it is read again.
    """
    now = timezone.now()
    free = Q(state__in=ListFile.ACTIVE, heartbeat_at__lt=now - LEASE)
    if not ListFile.objects.filter(free, pk=file_id).update(
        state=ListFile.State.READING, heartbeat_at=now
    ):
        return
    sweep_workshop(6 * LEASE.total_seconds())
    file = ListFile.objects.select_related("market").get(pk=file_id)
    file.tries += 1
    file.save(update_fields=["tries"])
    path = _path(file)
    if file.tries > MOST_TRIES or not path.exists():
        _end(file, ListFile.State.FAILED, {"problems": [_gone()]})
        return

    def step(name: str) -> None:
        ListFile.objects.filter(pk=file_id).update(step=name, heartbeat_at=timezone.now())

    try:
        with path.open("rb") as source:
            brought = bring_list(file.market, source, step)
    except FeedError as error:
        problems = [problem.document() for problem in error.problems]
        MarketRow.objects.filter(pk=file.market_id).update(trouble=error.problems[0].text()[:400])
        _end(file, ListFile.State.FAILED, {"problems": problems, "wrong": len(problems)})
        return
    read, edition = brought.read, brought.edition
    validators = cache.get(f"list-validators-{file.pk}") or []
    MarketRow.objects.filter(pk=file.market_id).update(validators=validators)
    _end(
        file,
        ListFile.State.DONE,
        {
            "lines": read.lines, "taken": read.taken, "wrong": read.wrong,
            "problems": [problem.document() for problem in read.problems],
            "new": edition.new, "changed": edition.changed, "gone": edition.gone,
        },
    )  # fmt: skip


def _gone() -> object:
    return Problem("file", "feed_given_up").document()


def _end(file: ListFile, state: str, told: Mapping[str, object]) -> None:
    ListFile.objects.filter(pk=file.pk).update(state=state, step="", **told)
    _path(file).unlink(missing_ok=True)


def market_of(code: str) -> MarketRow:
    """A market. Raises NotFoundError."""
    row = MarketRow.objects.filter(code=code).first()
    if row is None:
        raise NotFoundError
    return row
