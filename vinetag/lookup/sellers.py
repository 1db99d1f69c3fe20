"""The sellers of the settings, with the price lists and coupons they publish."""

from __future__ import annotations

import asyncio
from collections.abc import Collection, Mapping
from contextlib import AsyncExitStack
from dataclasses import dataclass, field
from datetime import date
from urllib.parse import urljoin

from vinetag.core.cost import Coupon, PriceList
from vinetag.core.cost.coupon_files import read_coupons
from vinetag.core.cost.price_files import read_price_list
from vinetag.core.cost.seller_documents import SellerEntry, read_sellers
from vinetag.core.errors import Problem
from vinetag.lookup.engine_factory import open_limiter
from vinetag.lookup.feeds import NOTHING, Fetched, Fetcher, Validators, read_index, why
from vinetag.lookup.fetching import open_session, origin_of
from vinetag.lookup.settings import LookupSettings

__all__ = ["FoundSellers", "fetch_sellers"]

NO_VALIDATORS: Mapping[tuple[str, str], Validators] = {}


@dataclass
class FoundSellers:
    """Who sells, their lists and coupons, and what went wrong, by seller ("" for the document of
    sellers itself): each problem with where it stands, or a sentence. `files` are as they came, by
    seller and kind; those that have not changed have no text, and are no trouble. Of those in
    `whole` every line could be read.
    """

    entries: dict[str, SellerEntry] = field(default_factory=dict)
    prices: dict[str, PriceList] = field(default_factory=dict)
    coupons: dict[str, tuple[Coupon, ...]] = field(default_factory=dict)
    troubles: list[tuple[str, str]] = field(default_factory=list)
    whole: set[tuple[str, str]] = field(default_factory=set)
    files: dict[tuple[str, str], Fetched] = field(default_factory=dict)

    def tell(self, seller: str, what: str, problems: Collection[Problem]) -> None:
        """Tell of what was wrong with a file."""
        self.troubles += [(seller, f"{what}, {p.path}: {p.text()}") for p in problems]


async def fetch_sellers(
    settings: LookupSettings,
    known: Collection[str],
    today: date,
    validators: Mapping[tuple[str, str], Validators] = NO_VALIDATORS,
) -> FoundSellers:
    """Ask for all of it; `known` are the extensions there are, `validators` those of files that
    need not come again unless they changed, by seller and kind. A part that cannot be had or read
    is told of and left out. Lists stand at the host of the document of sellers, or are left out.
    """
    found = FoundSellers()
    if not settings.sellers:
        return found
    async with AsyncExitStack() as stack:
        session = await stack.enter_async_context(open_session(settings.timeout))
        fetcher = Fetcher(session, open_limiter(settings, stack), settings.retry)
        index = await fetcher.fetch(settings.sellers)
        for entry in _entries(index, found):
            found.entries[entry.code] = entry
        addresses = [
            (entry, what, urljoin(settings.sellers, address))
            for entry in found.entries.values()
            for what, address in (("prices", entry.prices), ("coupons", entry.coupons))
            if address
        ]
        near = [one for one in addresses if origin_of(one[2]) == origin_of(settings.sellers)]
        for entry, what, address in addresses:
            if (entry, what, address) not in near:
                found.troubles.append((entry.code, f"{what}: {address} is at another host."))
        files = await asyncio.gather(
            *(
                fetcher.fetch(address, validators.get((entry.code, what), NOTHING))
                for entry, what, address in near
            )
        )
    for (entry, what, _), file in zip(near, files, strict=True):
        found.files[entry.code, what] = file
        if file.text is None and not file.trouble:
            continue
        if file.text is None:
            found.troubles.append((entry.code, f"{what}: {why(file.trouble, file.detail)}"))
            continue
        if what == "prices":
            listed = read_price_list(file.text, entry.currency, known)
            found.tell(entry.code, what, listed.problems)
            problems = listed.problems
            found.prices[entry.code] = PriceList(entry.code, today, listed.rows)
        else:
            coupons = read_coupons(file.text, entry.code, known)
            found.tell(entry.code, what, coupons.problems)
            problems = coupons.problems
            found.coupons[entry.code] = coupons.coupons
        if not problems:
            found.whole.add((entry.code, what))
    return found


def _entries(index: Fetched, found: FoundSellers) -> tuple[SellerEntry, ...]:
    read, trouble = read_index(index, read_sellers)
    if read is None:
        found.troubles.append(("", trouble))
        return ()
    found.tell("", "sellers", read.problems)
    return read.entries
