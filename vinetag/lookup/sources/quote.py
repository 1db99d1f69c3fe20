"""A seller's quotes."""

from __future__ import annotations

from collections.abc import Mapping
from decimal import Decimal
from urllib.parse import quote, urlsplit

import aiohttp
import msgspec

from vinetag.core.checking import Evidence, Quote, Says, Source, Trouble
from vinetag.core.money import amount_of, currency_of
from vinetag.core.names import FullName
from vinetag.lookup.fetching import Failure, Reply, get
from vinetag.lookup.sources.base import Asked, now

__all__ = ["QuoteSource", "read_quote"]

HEADERS = {"Accept": "application/json"}


class QuoteSource:
    """A seller's quotes as JSON over HTTP, as standins/data/seller.openapi.json describes them.
    `base` ends in a slash.
    """

    name: Source = "quote"

    def __init__(self, session: aiohttp.ClientSession, base: str) -> None:
        self._session, self._base = session, base
        self._host = urlsplit(base).netloc

    def host(self, name: FullName) -> str:  # noqa: ARG002 - one seller for all
        """The seller's, whatever the name."""
        return f"quote:{self._host}"

    async def ask(self, name: FullName, at: str = "") -> Asked:  # noqa: ARG002 - it sends nobody on
        """Ask what it costs."""
        address = f"{self._base}quotes/{quote(str(name))}"
        reply = await get(self._session, address, HEADERS)
        if isinstance(reply, Failure):
            return Asked(Evidence("quote", "", now(), address, *reply))
        return Asked(read_quote(reply, address, name), reply.retry_after)


class _Quoted(msgspec.Struct):
    name: str
    offer: str
    currency: str = ""
    first_year: Decimal | None = None
    renewal: Decimal | None = None
    asked: Decimal | None = None

    def quote(self) -> Quote | None:
        """The prices, None where there are none. Raises ValueError for amounts and currencies that
        cannot be.
        """
        prices = (self.first_year, self.renewal, self.asked)
        if all(price is None for price in prices):
            return None
        first, renewal, asked = (None if price is None else amount_of(price) for price in prices)
        return Quote(currency_of(self.currency), first, renewal, asked)


_QUOTE = msgspec.json.Decoder(_Quoted)
_OFFERS: Mapping[str, Says] = {
    "usual": "usual",
    "premium": "premium",
    "resale": "offered",
    "reserved": "reserved",
    "none": "unavailable",
}


def read_quote(reply: Reply, address: str, name: FullName) -> Evidence:
    """What a seller's answer is as evidence. Pure."""

    def nothing(trouble: Trouble, detail: str) -> Evidence:
        return Evidence("quote", "", now(), address, trouble, detail[:200])

    if reply.status == 404:
        return nothing("no_service", "the seller does not sell this extension")
    if reply.status == 429:
        return nothing("rate_limited", "HTTP status 429")
    if reply.status != 200:
        trouble: Trouble = "server_error" if reply.status >= 500 else "refused"
        return nothing(trouble, f"HTTP status {reply.status}")
    try:
        quoted = _QUOTE.decode(reply.body)
    except (msgspec.DecodeError, UnicodeDecodeError, RecursionError) as error:
        return nothing("nonsense", str(error))
    try:
        prices = quoted.quote()
    except ValueError as error:
        return nothing("nonsense", f"a price that cannot be: {error}")
    says = _OFFERS.get(quoted.offer)
    if says is None or quoted.name != str(name):
        return nothing("nonsense", f"an offer {quoted.offer!r} about {quoted.name!r}")
    return Evidence("quote", says, now(), address, quote=prices)
