"""The markets of the settings, and their lists on disk."""

from __future__ import annotations

import asyncio
from collections.abc import Mapping
from contextlib import AsyncExitStack
from dataclasses import dataclass, field
from pathlib import Path
from typing import Final
from urllib.parse import urljoin

from vinetag.core.market.markets import MarketEntry, read_markets
from vinetag.lookup.downloads import Downloaded, Downloader
from vinetag.lookup.engine_factory import open_limiter
from vinetag.lookup.feeds import NOTHING, Fetcher, Validators, read_index, why
from vinetag.lookup.fetching import open_session, origin_of
from vinetag.lookup.settings import LookupSettings

__all__ = ["FoundMarkets", "fetch_markets"]

# Packed or not, in bytes.
LARGEST_LIST: Final = 2_000_000_000
NO_VALIDATORS: Mapping[str, Validators] = {}


@dataclass
class FoundMarkets:
    """Who there is, which lists came (`files`, by code; those that have not changed are not among
    them), and what went wrong, by code, "" for the document of markets itself.
    """

    entries: dict[str, MarketEntry] = field(default_factory=dict)
    files: dict[str, Path] = field(default_factory=dict)
    downloads: dict[str, Downloaded] = field(default_factory=dict)
    troubles: dict[str, str] = field(default_factory=dict)


async def fetch_markets(
    settings: LookupSettings, folder: Path, known: Mapping[str, Validators] = NO_VALIDATORS
) -> FoundMarkets:
    """Ask for the document, and for every list that changed, into `folder`. Lists stand at the host
    of the document, or are left out. Nothing is raised.
    """
    found = FoundMarkets()
    if not settings.markets:
        return found
    folder.mkdir(parents=True, exist_ok=True)
    async with AsyncExitStack() as stack:
        session = await stack.enter_async_context(open_session(settings.timeout))
        limiter = open_limiter(settings, stack)
        index = await Fetcher(session, limiter, settings.retry).fetch(settings.markets)
        entries, trouble = read_index(index, read_markets)
        if entries is None:
            found.troubles[""] = trouble
            return found
        downloader = Downloader(session, limiter, settings.retry, LARGEST_LIST)

        async def bring(entry: MarketEntry) -> None:
            found.entries[entry.code] = entry
            address = urljoin(settings.markets, entry.list)
            if origin_of(address) != origin_of(settings.markets):
                found.troubles[entry.code] = "Its list is at another host."
                return
            target = folder / f"{entry.code}.list"
            got = await downloader.fetch(address, target, known.get(entry.code, NOTHING))
            found.downloads[entry.code] = got
            if got.trouble:
                found.troubles[entry.code] = why(got.trouble, got.detail)
            elif got.new:
                found.files[entry.code] = target

        await asyncio.gather(*map(bring, entries))
    return found
