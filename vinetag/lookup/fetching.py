"""HTTP as every source uses it: bodies bounded before and after decoding, and every way a request
can fail told as a value.
"""

from __future__ import annotations

import ipaddress
import socket
import zlib
from collections.abc import AsyncIterator, Mapping
from contextlib import asynccontextmanager
from datetime import UTC, datetime
from typing import Any, Final, NamedTuple
from urllib.parse import SplitResult, urljoin, urlsplit

import aiohttp
from aiohttp.abc import ResolveResult
from aiohttp.resolver import ThreadedResolver

from vinetag.core.checking import Trouble
from vinetag.lookup.bootstrap import Bootstrap, BootstrapError, read_bootstrap
from vinetag.lookup.retry import read_retry_after

__all__ = [
    "LARGEST_BODY",
    "Failure",
    "Reply",
    "decoded",
    "fetch_bootstrap",
    "get",
    "is_private",
    "open_session",
    "origin_of",
    "post",
    "public_only",
    "target_of",
    "trouble_of",
]  # fmt: skip

LARGEST_BODY: Final = 512 * 1024
LONGEST_VALIDATOR: Final = 200
REDIRECTS: Final = 3
# What is asked for, and what can be decoded within a bound. Others are not asked for.
ENCODINGS: Final = "gzip, deflate"


class Reply(NamedTuple):
    """An answer: `location` of a redirect, `retry_after` in seconds; `etag` and `modified` are what
    a later question can ask for changes by (RFC 9110 section 8.8).
    """

    status: int
    kind: str
    body: bytes
    location: str
    retry_after: float | None
    etag: str = ""
    modified: str = ""


class Failure(NamedTuple):
    """Why there was no answer."""

    trouble: Trouble
    detail: str = ""


def trouble_of(reply: Reply) -> Trouble:
    """Why a reply is no document, "" for one that may be."""
    if reply.status == 200:
        return ""
    if reply.location:
        return "redirected"
    if reply.status == 429:
        return "rate_limited"
    return "server_error" if reply.status >= 500 else "refused"


@asynccontextmanager
async def open_session(timeout: float, **more: Any) -> AsyncIterator[aiohttp.ClientSession]:
    """A session whose bodies arrive as they were sent; `timeout` in seconds for a whole answer."""
    connector = aiohttp.TCPConnector(limit=0, ttl_dns_cache=300, **more)
    async with aiohttp.ClientSession(
        connector=connector,
        timeout=aiohttp.ClientTimeout(total=timeout),
        headers={"Accept-Encoding": ENCODINGS},
        auto_decompress=False,
        cookie_jar=aiohttp.DummyCookieJar(),
    ) as session:
        yield session


async def get(
    session: aiohttp.ClientSession,
    address: str,
    headers: Mapping[str, str],
    most: int = LARGEST_BODY,
) -> Reply | Failure:
    """One request, without following redirects; the body has at most `most` bytes."""
    return await _asked(session, "GET", address, headers, None, most)


async def post(
    session: aiohttp.ClientSession, address: str, headers: Mapping[str, str], body: bytes
) -> Reply | Failure:
    """Send a body; as `get`."""
    return await _asked(session, "POST", address, headers, body, LARGEST_BODY)


async def _asked(
    session: aiohttp.ClientSession, method: str, address: str, headers: Mapping[str, str],
    body: bytes | None, most: int,
) -> Reply | Failure:  # fmt: skip
    try:
        async with session.request(
            method, address, headers=headers, data=body, allow_redirects=False
        ) as reply:
            given = reply.headers
            return Reply(
                reply.status,
                reply.content_type,
                decoded(await _bounded(reply, most), given.get("Content-Encoding", ""), most),
                given.get("Location", "") if 300 <= reply.status < 400 else "",
                read_retry_after(given.get("Retry-After"), datetime.now(UTC)),
                given.get("ETag", "")[:LONGEST_VALIDATOR],
                given.get("Last-Modified", "")[:LONGEST_VALIDATOR],
            )
    except TimeoutError:
        return Failure("timeout")
    except (aiohttp.ClientConnectionError, OSError) as error:
        return Failure("unreachable", str(error)[:200])
    except (aiohttp.ClientError, ValueError) as error:
        return Failure("nonsense", str(error)[:200])


async def _bounded(reply: aiohttp.ClientResponse, most: int) -> bytes:
    """The body as sent. Raises ValueError for one over `most` bytes."""
    if (reply.content_length or 0) > most:
        raise ValueError("the answer is too large")
    body = bytearray()
    async for chunk in reply.content.iter_chunked(64 * 1024):
        body += chunk
        if len(body) > most:
            raise ValueError("the answer is too large")
    return bytes(body)


def decoded(body: bytes, encoding: str, most: int = LARGEST_BODY) -> bytes:
    """The body without its content encoding (RFC 9110 section 8.4.1), never more than `most`
    bytes of it in memory. Raises ValueError for one that is larger, broken, or encoded otherwise.
    """
    names = [name.strip().lower() for name in encoding.split(",") if name.strip()]
    names = [name for name in names if name != "identity"]
    if not names:
        return body
    if len(names) > 1 or names[0] not in ("gzip", "x-gzip", "deflate"):
        raise ValueError(f"an encoding nobody asked for: {encoding[:40]!r}")
    # "deflate" is the zlib format; some send it bare.
    bare = names[0] == "deflate" and body[:1] and (body[0] & 0x0F) != 8
    unpacker = zlib.decompressobj(-zlib.MAX_WBITS if bare else zlib.MAX_WBITS | 32)
    try:
        found = unpacker.decompress(body, most + 1)
    except zlib.error as error:
        raise ValueError(f"the body cannot be decoded: {error}") from error
    if len(found) > most:
        raise ValueError("the answer is too large")
    if not unpacker.eof:
        raise ValueError("the body ends too early")
    return found


def origin_of(address: str) -> str:
    """Scheme, host and port of an address (RFC 6454), "" of what is none."""
    parts = _split(address)
    return f"{parts.scheme}://{parts.netloc.lower()}" if parts and parts.netloc else ""


def target_of(address: str, location: str) -> str:
    """Where a redirect from `address` leads, "" where that is no web address."""
    try:
        target = urljoin(address, location)
    except ValueError:
        return ""
    parts = _split(target)
    return target if parts and parts.scheme in ("http", "https") and parts.netloc else ""


def _split(address: str) -> SplitResult | None:
    try:
        parts = urlsplit(address)
        _ = parts.port
    except ValueError:
        return None
    return parts


class _PublicOnly(ThreadedResolver):
    """Finds addresses of the public internet only, whatever a name says."""

    async def resolve(
        self, host: str, port: int = 0, family: socket.AddressFamily = socket.AF_INET
    ) -> list[ResolveResult]:
        """As aiohttp's own. Raises OSError when nothing public is left."""
        found = await super().resolve(host, port, family)
        public = [one for one in found if ipaddress.ip_address(one["host"]).is_global]
        if not public:
            raise OSError(f"{host} leads to a private address")
        return public


def is_private(address: str) -> bool:
    """Whether the host is written as an address that is not public."""
    parts = _split(address)
    try:
        return not ipaddress.ip_address(parts.hostname or "").is_global if parts else True
    except ValueError:
        return False


def public_only() -> ThreadedResolver:
    """A resolver for sessions that must not reach private addresses, whatever names lead there."""
    return _PublicOnly()


async def fetch_bootstrap(session: aiohttp.ClientSession, url: str) -> Bootstrap | None:
    """The bootstrap at `url`, None when it cannot be had. A redirect may lead elsewhere on the
    public internet, never to a private address, nor from https to http.
    """
    reply = await get(session, url, {"Accept": "application/json"})
    address = url
    for _ in range(REDIRECTS):
        if isinstance(reply, Failure) or not reply.location:
            break
        target = target_of(address, reply.location)
        downgraded = address.startswith("https:") and not target.startswith("https:")
        if not target or downgraded:
            return None
        if origin_of(target) == origin_of(url):
            reply = await get(session, target, {"Accept": "application/json"})
        elif is_private(target):
            return None
        else:
            wait = session.timeout.total or 6.0
            async with open_session(wait, resolver=_PublicOnly()) as outside:
                reply = await get(outside, target, {"Accept": "application/json"})
        address = target
    if isinstance(reply, Failure) or reply.status != 200:
        return None
    try:
        return read_bootstrap(reply.body)
    except BootstrapError:
        return None
