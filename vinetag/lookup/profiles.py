"""Whether handles are free, asked of platforms by the addresses of their profiles."""

from __future__ import annotations

import asyncio
from collections.abc import Iterable, Sequence
from contextlib import AsyncExitStack
from datetime import datetime
from typing import Final, NamedTuple
from urllib.parse import urljoin, urlsplit

import aiohttp

from vinetag.core.checking import Trouble
from vinetag.core.vet import Asked, HandleForm, Platform, profile_says
from vinetag.core.vet.handles import HandleSays
from vinetag.lookup.engine_factory import open_limiter
from vinetag.lookup.fetching import Failure, get, is_private, open_session, public_only, trouble_of
from vinetag.lookup.politely import Tried, politely
from vinetag.lookup.settings import LookupSettings
from vinetag.lookup.sources.base import now

__all__ = [
    "HandleAnswer", "HandleWanted", "fetch_handles", "profile_address", "wanted_and_barred",
]  # fmt: skip

AT_ONCE: Final = 24
LARGEST_PAGE: Final = 256 * 1024


class HandleWanted(NamedTuple):
    """A handle to ask a platform about."""

    platform: Platform
    handle: str


class HandleAnswer(NamedTuple):
    """What came of a question; `why` in words where nothing did."""

    wanted: HandleWanted
    says: HandleSays
    trouble: Trouble
    why: str
    address: str
    at: datetime

    @property
    def asked(self) -> Asked:
        """What is known by it."""
        platform, handle = self.wanted
        return Asked(
            platform.code, platform.name, handle, self.says, self.why, self.address,
            self.at.isoformat(),
        )  # fmt: skip


def wanted_and_barred(
    platforms: Iterable[Platform], forms: Sequence[HandleForm]
) -> tuple[list[HandleWanted], list[Asked]]:
    """Which handles are to be asked about, and what platforms' own rules say of the others."""
    wanted, barred = [], []
    for platform in platforms:
        for form in forms:
            if why := platform.barred(form.handle):
                barred.append(Asked(platform.code, platform.name, form.handle, "barred", why))
            else:
                wanted.append(HandleWanted(platform, form.handle))
    return wanted, barred


def profile_address(settings: LookupSettings, platform: Platform, handle: str) -> str:
    """Where the profile would stand, "" where the platform cannot be asked: paths are of the
    address of platforms in the settings.
    """
    if not platform.address.startswith("/"):
        return platform.address.replace("{handle}", handle)
    if not settings.platforms:
        return ""
    return urljoin(settings.platforms, platform.address.replace("{handle}", handle))


async def fetch_handles(
    settings: LookupSettings,
    wanted: Sequence[HandleWanted],
) -> list[HandleAnswer]:
    """What each platform says, in their order. Trouble is an answer, too; redirects are not
    followed, and platforms of the catalogue that stand at a private address are not reached.
    """
    async with AsyncExitStack() as stack:
        near = await stack.enter_async_context(open_session(settings.timeout))
        outside = await stack.enter_async_context(
            open_session(settings.timeout, resolver=public_only())
        )
        limiter = open_limiter(settings, stack)
        gate = asyncio.Semaphore(AT_ONCE)

        async def ask(one: HandleWanted) -> HandleAnswer:
            own = one.platform.address.startswith("/")
            address = profile_address(settings, one.platform, one.handle)
            session = near if own else outside

            def refused(trouble: Trouble) -> HandleAnswer:
                return HandleAnswer(
                    one, "", trouble, _WHY.get(trouble, "no answer"), address, now()
                )

            async def once() -> tuple[HandleAnswer, Tried]:
                return await _once(session, one, address)

            if not address:
                return refused("no_service")
            # A name is seen to when it is looked up; a number is not.
            if not own and is_private(address):
                return refused("unreachable")
            host = f"{urlsplit(address).netloc}:{one.platform.code}"
            async with gate:
                return await politely(limiter, settings.retry, host, once, refused)

        return list(await asyncio.gather(*(ask(one) for one in wanted)))


async def _once(
    session: aiohttp.ClientSession, one: HandleWanted, address: str
) -> tuple[HandleAnswer, Tried]:
    reply = await get(session, address, {"Accept": "text/html, application/json"}, LARGEST_PAGE)
    if isinstance(reply, Failure):
        why = _WHY.get(reply.trouble, "no answer")
        return HandleAnswer(one, "", reply.trouble, why, address, now()), Tried(reply.trouble)
    trouble = trouble_of(reply)
    # That there is no page, or no leave to see it, is an answer.
    if trouble not in ("", "refused"):
        answer = HandleAnswer(one, "", trouble, _WHY[trouble], address, now())
        return answer, Tried(trouble, reply.retry_after)
    says, why = profile_says(one.platform, reply.status, reply.body.decode("utf-8", "replace"))
    return HandleAnswer(one, says, "", why, address, now()), Tried()


_WHY: Final[dict[Trouble, str]] = {
    "rate_limited": "the platform asked us to slow down",
    "server_error": "the platform failed",
    "redirected": "the platform sent us elsewhere",
    "timeout": "the platform did not answer in time",
    "unreachable": "the platform could not be reached",
    "nonsense": "the platform's answer makes no sense",
    "resting": "the platform has not answered for some minutes",
    "no_service": "no address of this platform is set up",
}
