"""A search service by OpenSearch 1.1, asked politely."""

from __future__ import annotations

import asyncio
from collections.abc import Callable, Sequence
from contextlib import AsyncExitStack
from typing import Final, NamedTuple, TypeVar
from urllib.parse import urljoin, urlsplit

import aiohttp

from vinetag.core.checking import Trouble
from vinetag.core.vet import SearchAnswer
from vinetag.core.vet.opensearch import (
    Results,
    SearchError,
    asked_at,
    read_description,
    read_results,
)
from vinetag.lookup.engine_factory import open_limiter
from vinetag.lookup.fetching import Failure, get, open_session, origin_of, trouble_of
from vinetag.lookup.limiter import Limiter
from vinetag.lookup.politely import Tried, politely
from vinetag.lookup.settings import LookupSettings

__all__ = ["search_for"]

FIRST: Final = 10
AT_ONCE: Final = 4
Read = TypeVar("Read")


class _Got(NamedTuple):
    body: bytes
    why: str


async def search_for(settings: LookupSettings, questions: Sequence[str]) -> list[SearchAnswer]:
    """What is found for each, in their order; nothing is raised. Only the host of the settings is
    asked, whatever the description says.
    """
    if not settings.search:
        return [SearchAnswer(text, None, "no search service is set up") for text in questions]
    async with AsyncExitStack() as stack:
        session = await stack.enter_async_context(open_session(settings.timeout))
        asking = _Asking(session, open_limiter(settings, stack), settings)
        described = await asking.get(settings.search, "application/opensearchdescription+xml")
        template, why = _read(described, read_description)
        if template is not None and origin_of(urljoin(settings.search, template)) != origin_of(
            settings.search
        ):
            template, why = None, "its description leads to another host"
        if template is None:
            return [SearchAnswer(text, None, why) for text in questions]
        gate = asyncio.Semaphore(AT_ONCE)

        async def ask(text: str) -> SearchAnswer:
            async with gate:
                try:
                    address = asked_at(urljoin(settings.search, template), text, FIRST)
                except SearchError as error:
                    return SearchAnswer(text, None, str(error))
                got = await asking.get(address, "application/atom+xml")
                results: Results | None
                results, why = _read(got, read_results)
                return SearchAnswer(text, results, why)

        return list(await asyncio.gather(*map(ask, questions)))


def _read(got: _Got, reader: Callable[[bytes], Read]) -> tuple[Read | None, str]:
    if got.why:
        return None, got.why
    try:
        return reader(got.body), ""
    except SearchError as error:
        return None, str(error)


class _Asking(NamedTuple):
    session: aiohttp.ClientSession
    limiter: Limiter
    settings: LookupSettings

    async def get(self, address: str, kind: str) -> _Got:
        """A document of the service, or why there is none."""

        def refused(trouble: Trouble) -> _Got:
            return _Got(b"", _WHY.get(trouble, "it gave no answer"))

        async def once() -> tuple[_Got, Tried]:
            reply = await get(self.session, address, {"Accept": kind})
            if isinstance(reply, Failure):
                return refused(reply.trouble), Tried(reply.trouble)
            trouble = trouble_of(reply)
            if not trouble:
                return _Got(reply.body, ""), Tried()
            return refused(trouble), Tried(trouble, reply.retry_after)

        return await politely(
            self.limiter, self.settings.retry, urlsplit(address).netloc + ":search", once, refused
        )


_WHY: Final[dict[Trouble, str]] = {
    "rate_limited": "it asked us to slow down",
    "server_error": "it failed",
    "redirected": "it sent us elsewhere",
    "refused": "it refused the question",
    "timeout": "it did not answer in time",
    "unreachable": "it could not be reached",
    "nonsense": "its answer makes no sense",
    "resting": "it has not answered for some minutes",
}
