"""Large files, fetched when they have changed, straight to disk, and gone on with where an earlier
try broke off (RFC 9110 sections 13 and 14).
"""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path
from typing import Final, NamedTuple
from urllib.parse import urlsplit

import aiohttp

from vinetag.core.checking import Trouble
from vinetag.lookup.feeds import NOTHING, Validators
from vinetag.lookup.fetching import LONGEST_VALIDATOR
from vinetag.lookup.limiter import Limiter
from vinetag.lookup.politely import Tried, politely
from vinetag.lookup.retry import RetryPolicy, read_retry_after

__all__ = ["Downloaded", "Downloader"]

CHUNK: Final = 1 << 18
# Seconds without a byte after which a try is given up; a whole file may take as long as it takes.
SILENCE: Final = 30.0


class Downloaded(NamedTuple):
    """Whether the file is there and another than the one known; else it is as it was, or `trouble`
    says why it is not there.
    """

    new: bool
    validators: Validators = NOTHING
    trouble: Trouble = ""
    detail: str = ""


@dataclass(frozen=True)
class Downloader:
    """Downloads by HTTP, politely and again where that may help, of `largest` bytes at the most."""

    session: aiohttp.ClientSession
    limiter: Limiter
    retry: RetryPolicy
    largest: int

    async def fetch(self, address: str, target: Path, known: Validators = NOTHING) -> Downloaded:
        """The file at an address from the settings into `target`, if it is another than the one
        known. Beside `target` stands what came of a try that broke off (`.part`, and `.etag` of
        what it is a part of). Redirects are not followed. Nothing is raised.
        """
        host = urlsplit(address).netloc

        async def once() -> tuple[Downloaded, Tried]:
            found, wait_for = await self._once(address, target, known)
            return found, Tried(found.trouble, wait_for)

        def refused(trouble: Trouble) -> Downloaded:
            return Downloaded(False, known, trouble)

        return await politely(self.limiter, self.retry, f"{host}:lists", once, refused)

    async def _once(
        self, address: str, target: Path, known: Validators
    ) -> tuple[Downloaded, float | None]:
        part, tag = target.with_suffix(".part"), target.with_suffix(".etag")
        headers = {"Accept": "text/csv, application/jsonl, application/gzip, */*;q=0.1"}
        headers["Accept-Encoding"] = "identity"
        if known.etag:
            headers["If-None-Match"] = known.etag
        begun = part.stat().st_size if part.exists() and tag.exists() else 0
        if begun:
            headers |= {"Range": f"bytes={begun}-", "If-Range": tag.read_text("utf-8")}
        timeout = aiohttp.ClientTimeout(total=None, sock_connect=10, sock_read=SILENCE)
        try:
            async with self.session.get(
                address, headers=headers, allow_redirects=False, timeout=timeout
            ) as reply:
                wait_for = read_retry_after(reply.headers.get("Retry-After"), datetime.now(UTC))
                if reply.status == 304:
                    return Downloaded(False, known), None
                if trouble := _trouble(reply.status, begun):
                    if reply.status == 416:
                        part.unlink(missing_ok=True)
                    detail = f"HTTP status {reply.status}"
                    return Downloaded(False, known, trouble, detail), wait_for
                etag = reply.headers.get("ETag", "")[:LONGEST_VALIDATOR]
                if reply.status == 200:
                    begun = 0
                    tag.unlink(missing_ok=True)
                    if etag and not etag.startswith("W/"):
                        tag.write_text(etag, "utf-8")
                await self._write(reply, part, begun)
                found = Validators(etag, reply.headers.get("Last-Modified", "")[:LONGEST_VALIDATOR])
        except TimeoutError:
            return Downloaded(False, known, "timeout"), None
        except (aiohttp.ClientConnectionError, aiohttp.ClientPayloadError, OSError) as error:
            return Downloaded(False, known, "unreachable", str(error)[:200]), None
        except (aiohttp.ClientError, ValueError) as error:
            part.unlink(missing_ok=True)
            return Downloaded(False, known, "nonsense", str(error)[:200]), None
        part.replace(target)
        tag.unlink(missing_ok=True)
        return Downloaded(True, found), None

    async def _write(self, reply: aiohttp.ClientResponse, part: Path, begun: int) -> None:
        """Raises ValueError for a file that is too large."""
        written = begun
        with part.open("ab" if begun else "wb") as out:
            async for chunk in reply.content.iter_chunked(CHUNK):
                written += out.write(chunk)
                if written > self.largest:
                    raise ValueError("the file is too large")


def _trouble(status: int, begun: int) -> Trouble:
    if status == 200 or (status == 206 and begun):
        return ""
    if 300 <= status < 400:
        return "redirected"
    if status == 429:
        return "rate_limited"
    # What was begun is part of another file by now: from the beginning, then.
    if status == 416:
        return "server_error"
    return "server_error" if status >= 500 else "refused"
