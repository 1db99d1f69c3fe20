"""Lists of markets brought in: as a whole or not at all."""

from __future__ import annotations

import shutil
import uuid
from collections.abc import Callable, Iterator, Mapping
from concurrent.futures import ThreadPoolExecutor
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import datetime
from functools import lru_cache
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import BinaryIO, Final

from django.conf import settings
from django.db import connection, transaction
from django.utils import timezone

from vinetag.apps.market.models import MarketRow, OfferChange, OfferRow
from vinetag.core.errors import Problem
from vinetag.core.lexicon import load_lexicon
from vinetag.lake.duck import literal, open_duck
from vinetag.lake.editions import (
    ROW_COLUMNS,
    Edition,
    edition_file,
    forget_others,
    tell_differences,
    write_edition,
)
from vinetag.lake.listing import Read, read_list
from vinetag.lake.splitting import load_words
from vinetag.lake.unpacking import FeedError, unpack

__all__ = ["Brought", "bring_list", "edition_files", "lake", "sweep_workshop", "word_numbers",
    "workshop",
]  # fmt: skip

MOST_BYTES: Final = 4_000_000_000
NULL_TEXTS: Final = (
    "currency",
    "state",
    "address",
    "archived_about",
    "used_for",
    "also_registered",
)


@dataclass(frozen=True, slots=True)
class Brought:
    """What came of a list: what was read of it, and how it differs from the one before."""

    read: Read
    edition: Edition


def lake() -> Path:
    """Where large tables stand."""
    return Path(settings.LAKE)


def edition_files() -> dict[str, Path]:
    """The lists in force, by market."""
    rows = MarketRow.objects.exclude(edition="").order_by("code").values_list("code", "edition")
    found = {code: edition_file(lake() / "offers", code, edition) for code, edition in rows}
    return {code: file for code, file in found.items() if file.exists()}


@lru_cache(1)
def word_numbers() -> dict[str, int]:
    """The words labels are split into, each with its number in the lists."""
    words = [w for w in load_lexicon().words if w.isascii() and w.isalpha() and w.islower()]
    return {word: number for number, word in enumerate(words)}


def bring_list(
    market: MarketRow, source: BinaryIO, on_step: Callable[[str], None] = lambda _: None
) -> Brought:
    """Put a market's list in force. Raises FeedError where it is none: then the one before stays.
    Killed at any line it leaves the one before, too.
    """
    now, edition = timezone.now(), uuid.uuid4().hex
    folder = lake() / "offers"
    with workshop() as work:
        on_step("unpacking")
        plain = work / "plain"
        unpack(source, plain, MOST_BYTES)
        with open_duck(work) as duck:
            on_step("reading")
            read = read_list(duck, plain, now)
            plain.unlink()
            on_step("comparing")
            before = edition_file(folder, market.code, market.edition) if market.edition else None
            told = tell_differences(duck, before, work, now)
            words = load_lexicon().words
            load_words(
                duck, ((w, n, round(100 * words[w].zipf)) for w, n in word_numbers().items()), work
            )
            target = edition_file(folder, market.code, edition)
            on_step("storing")
            # The database stores what differs while the edition is written.
            try:
                with ThreadPoolExecutor(1) as beside:
                    written = beside.submit(write_edition, duck, target, before, now)
                    _publish(market, edition, told, now, written.result)
            except BaseException:
                target.unlink(missing_ok=True)
                raise
    forget_others(folder, market.code, {edition})
    market.refresh_from_db()
    return Brought(read, told)


@contextmanager
def workshop() -> Iterator[Path]:
    """A folder for what is half done; those killed workers left are swept away."""
    room = lake() / "work"
    room.mkdir(parents=True, exist_ok=True)
    with TemporaryDirectory(dir=room) as work:
        yield Path(work)


def sweep_workshop(older_than_seconds: float) -> None:
    """Take away what killed workers left."""
    now = timezone.now().timestamp()
    for left in (lake() / "work").glob("*"):
        if now - left.stat().st_mtime > older_than_seconds:
            shutil.rmtree(left, ignore_errors=True)


def _publish(
    market: MarketRow, edition: str, told: Edition, now: datetime, written: Callable[[], None]
) -> None:
    """Store what is new, changed and gone, and put the edition in force, at once, when it is
    `written`. Raises FeedError when another list of the market was put in force meanwhile.
    """
    with transaction.atomic():
        there = MarketRow.objects.select_for_update().get(pk=market.pk)
        if there.edition != market.edition:
            raise FeedError(Problem("file", "feed_overtaken"))
        _load(told.rows, OfferRow, (*ROW_COLUMNS, "gone_at"), {"market_id": market.pk})
        changes = ("label", "extension", "what", "before", "after")
        _load(told.changes, OfferChange, changes, {"market_id": market.pk, "at": now})
        written()
        there.edition, there.names, there.told_at, there.trouble = edition, told.names, now, ""
        there.save(update_fields=["edition", "names", "told_at", "trouble"])


def _load(
    file: Path,
    model: type[OfferRow | OfferChange],
    columns: tuple[str, ...],
    more: Mapping[str, int | datetime],
) -> None:
    """The lines of a file as rows, in place of those of the same name."""
    named = ", ".join(f"`{column}`" for column in columns)
    sets = ", ".join(f"`{name}` = %s" for name in more)
    with connection.cursor() as cursor:
        cursor.execute(
            f"LOAD DATA LOCAL INFILE {literal(str(file))} REPLACE INTO TABLE "
            f"`{model._meta.db_table}` CHARACTER SET utf8mb4 FIELDS TERMINATED BY '\\t' "
            f"ESCAPED BY '\\\\' LINES TERMINATED BY '\\n' ({named}) SET {sets}",
            list(more.values()),
        )
        cursor.execute("SHOW COUNT(*) WARNINGS")
        ((count,),) = cursor.fetchall()
        if count:
            cursor.execute("SHOW WARNINGS LIMIT 1")
            raise RuntimeError(f"rows were not stored as they are: {cursor.fetchall()}")
