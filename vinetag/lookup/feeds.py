"""Files that change, fetched when they have (RFC 9110 section 13), through the same limits as every
question.
"""

from __future__ import annotations

import json
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Final, NamedTuple, TypeVar
from urllib.parse import urlsplit

import aiohttp

from vinetag.core.checking import TROUBLE_WORDING, Trouble
from vinetag.core.errors import CoreError
from vinetag.lookup.fetching import Failure, Reply, get, trouble_of
from vinetag.lookup.limiter import Limiter
from vinetag.lookup.politely import Tried, politely
from vinetag.lookup.retry import RetryPolicy

__all__ = ["LARGEST_FILE", "NOTHING", "Fetched", "Fetcher", "Validators", "read_index", "why"]

LARGEST_FILE: Final = 16 * 1024 * 1024
Entries = TypeVar("Entries")


class Validators(NamedTuple):
    """What is known of the file one has."""

    etag: str = ""
    modified: str = ""


NOTHING: Final = Validators()


class Fetched(NamedTuple):
    """A file as text; None where it is as it was, or where `trouble` says why there is none."""

    text: str | None
    validators: Validators = NOTHING
    trouble: Trouble = ""
    detail: str = ""


@dataclass(frozen=True)
class Fetcher:
    """Fetches files by HTTP, politely and again where that may help."""

    session: aiohttp.ClientSession
    limiter: Limiter
    retry: RetryPolicy

    async def fetch(self, address: str, known: Validators = NOTHING) -> Fetched:
        """The file at an address from the settings, if it is another than the one known. Redirects
        are not followed. Nothing is raised.
        """
        host = urlsplit(address).netloc

        async def once() -> tuple[Fetched, Tried]:
            found, wait_for = await self._once(address, known)
            return found, Tried(found.trouble, wait_for)

        def refused(trouble: Trouble) -> Fetched:
            return Fetched(None, known, trouble)

        return await politely(self.limiter, self.retry, host, once, refused)

    async def _once(self, address: str, known: Validators) -> tuple[Fetched, float | None]:
        headers = {"Accept": "text/csv, application/json"}
        if known.etag:
            headers["If-None-Match"] = known.etag
        if known.modified:
            headers["If-Modified-Since"] = known.modified
        reply = await get(self.session, address, headers, LARGEST_FILE)
        if isinstance(reply, Failure):
            return Fetched(None, known, reply.trouble, reply.detail), None
        return self._read(reply, known), reply.retry_after

    def _read(self, reply: Reply, known: Validators) -> Fetched:
        if reply.status == 304:
            return Fetched(None, known)
        if reply.status != 200:
            detail = f"HTTP status {reply.status}"
            return Fetched(None, known, trouble_of(reply), detail)
        try:
            text = reply.body.decode("utf-8-sig")
        except UnicodeDecodeError:
            text = reply.body.decode("cp1252", "replace")
        return Fetched(text, Validators(reply.etag, reply.modified))


def read_index(file: Fetched, read: Callable[[Any], Entries]) -> tuple[Entries | None, str]:
    """What a JSON document tells by `read`, which raises a CoreError; or None, and why."""
    if file.text is None:
        return None, why(file.trouble, file.detail)
    try:
        return read(json.loads(file.text)), ""
    except CoreError as error:
        return None, str(error)[:300]
    except (ValueError, RecursionError):
        return None, "The document could not be read: it is no JSON."


def why(trouble: Trouble, detail: str) -> str:
    """Why a file is not there, in words."""
    return " ".join(filter(None, (TROUBLE_WORDING[trouble], detail)))[:300]
