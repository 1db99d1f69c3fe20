"""Simulated zone files: the delegated names of small extensions, day by day.

Under /zones.json which there are, under /zones/<extension>/<day>.zone.gz the files: master files
(RFC 1035) packed by gzip, every name in full. They hold names of up to four letters, and those that
are words or pairs of words; of other labels a simulated zone knows nothing.
"""

from __future__ import annotations

import asyncio
import gzip
import itertools
from collections.abc import Callable
from datetime import UTC, date, datetime, timedelta
from functools import lru_cache
from string import ascii_lowercase
from typing import Final

from aiohttp import web

from standins.markets import labels_of
from standins.sellers import Troubled
from standins.world import World

__all__ = ["ZONES", "add_zones", "zone_of"]

ZONES: Final = ("press", "studio")
LONGEST: Final = 4
# So many days back files are kept, a week apart.
DAYS: Final = 5


@lru_cache(1)
def _short() -> tuple[str, ...]:
    return tuple(
        "".join(letters)
        for length in range(1, LONGEST + 1)
        for letters in itertools.product(ascii_lowercase, repeat=length)
    )


@lru_cache(4)
def _known(world: World, extension: str) -> tuple[tuple[str, datetime, datetime | None, str], ...]:
    """Every label that is ever delegated, from when until when, and whose servers know it."""
    return tuple(
        (label, *found)
        for label in sorted({*_short(), *labels_of(world)})
        if (found := world.delegated_for(label, extension)) is not None
    )


def zone_of(world: World, extension: str, day: date) -> bytes:
    """The zone at the end of a day, packed."""
    moment = datetime(day.year, day.month, day.day, tzinfo=UTC) + timedelta(days=1)
    lines = [
        f"{extension}.\t900\tin\tsoa\ta.nic.{extension}. hostmaster.nic.{extension}. "
        f"{day:%Y%m%d}00 1800 900 604800 86400",
        f"{extension}.\t172800\tin\tns\ta.nic.{extension}.",
    ]
    for label, since, until, host in _known(world, extension):
        if since <= moment and (until is None or moment < until):
            record = f"{label}.{extension}.\t3600\tin\tns\t"
            lines += [f"{record}ns1.{host}.example.", f"{record}ns2.{host}.example."]
    for label, hosts in world.bought.under(extension, moment) if world.bought else ():
        lines += [f"{label}.{extension}.\t3600\tin\tns\t{host}." for host in hosts]
    return gzip.compress(("\n".join(lines) + "\n").encode(), 1, mtime=0)


def add_zones(
    app: web.Application, world: World, now: Callable[[], datetime], fault_of: Troubled
) -> None:
    """Their addresses; `now` is the world's time, `fault_of` what is wrong with a file now."""
    content = lru_cache(8)(zone_of)

    def days() -> list[date]:
        yesterday = now().date() - timedelta(days=1)
        return [yesterday - timedelta(weeks=back) for back in reversed(range(DAYS))]

    async def index(request: web.Request) -> web.StreamResponse:
        if (fault := await fault_of(request, "")) is not None:
            return fault
        entries = [
            {"extension": e, "day": d.isoformat(), "file": f"/zones/{e}/{d.isoformat()}.zone.gz"}
            for e in ZONES
            for d in days()
        ]
        return web.json_response({"zones": entries})

    async def file(request: web.Request) -> web.StreamResponse:
        extension, day = request.match_info["extension"], request.match_info["day"]
        if extension not in ZONES or day not in map(str, days()):
            raise web.HTTPNotFound
        if (fault := await fault_of(request, extension)) is not None:
            return fault
        body = await asyncio.to_thread(content, world, extension, date.fromisoformat(day))
        return web.Response(body=body, content_type="application/gzip")

    app.router.add_get("/zones.json", index)
    app.router.add_get("/zones/{extension}/{day}.zone.gz", file)
