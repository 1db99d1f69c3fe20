"""The zone files of the settings, on disk."""

from __future__ import annotations

from collections.abc import Collection
from contextlib import AsyncExitStack
from dataclasses import dataclass, field
from datetime import date
from pathlib import Path
from typing import Final
from urllib.parse import urljoin

from vinetag.core.market.markets import read_zones
from vinetag.lookup.downloads import Downloader
from vinetag.lookup.engine_factory import open_limiter
from vinetag.lookup.feeds import Fetcher, read_index, why
from vinetag.lookup.fetching import open_session, origin_of
from vinetag.lookup.settings import LookupSettings

__all__ = ["FoundZones", "fetch_zones"]

# The largest of them hold 160,000,000 names; packed, in bytes.
LARGEST_ZONE: Final = 20_000_000_000


@dataclass
class FoundZones:
    """The files that came, by extension and day, and what went wrong, by extension, "" for the
    document of zones itself.
    """

    files: dict[tuple[str, date], Path] = field(default_factory=dict)
    troubles: dict[str, str] = field(default_factory=dict)


async def fetch_zones(
    settings: LookupSettings, folder: Path, known: Collection[tuple[str, date]] = ()
) -> FoundZones:
    """Ask for the document, and one after the other for the files of days that are not `known`,
    into `folder`. Files stand at the host of the document, or are left out. Nothing is raised.
    """
    found = FoundZones()
    if not settings.zones:
        return found
    folder.mkdir(parents=True, exist_ok=True)
    async with AsyncExitStack() as stack:
        session = await stack.enter_async_context(open_session(settings.timeout))
        limiter = open_limiter(settings, stack)
        index = await Fetcher(session, limiter, settings.retry).fetch(settings.zones)
        entries, trouble = read_index(index, read_zones)
        if entries is None:
            found.troubles[""] = trouble
        downloader = Downloader(session, limiter, settings.retry, LARGEST_ZONE)
        for entry in entries or ():
            if (entry.extension, entry.day) in known:
                continue
            address = urljoin(settings.zones, entry.file)
            if origin_of(address) != origin_of(settings.zones):
                found.troubles[entry.extension] = "Its file is at another host."
                continue
            target = folder / f"{entry.extension}-{entry.day}.zone"
            got = await downloader.fetch(address, target)
            if got.trouble:
                found.troubles[entry.extension] = why(got.trouble, got.detail)
            elif got.new:
                found.files[entry.extension, entry.day] = target
    return found
