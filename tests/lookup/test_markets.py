"""Lists of markets over HTTP: fetched when they changed, gone on with where they broke off."""

from __future__ import annotations

import asyncio
from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from pathlib import Path
from typing import Any

import pytest
from aiohttp import web
from aiohttp.test_utils import TestServer

from tests.conftest import Registry
from vinetag.lookup import HostLimits, LookupSettings, RetryPolicy
from vinetag.lookup.downloads import Downloaded, Downloader
from vinetag.lookup.feeds import Validators
from vinetag.lookup.fetching import open_session
from vinetag.lookup.limiter import LocalLimiter
from vinetag.lookup.markets import FoundMarkets, fetch_markets

BODY = b"name,kind\n" + b"".join(b"name%d.com,asking\n" % n for n in range(20_000))
ONCE = RetryPolicy(attempts=1, first_wait=0.01, patience=1)
TWICE = RetryPolicy(attempts=2, first_wait=0.01, patience=1)


class Host:
    """One file; `cut` of the answers break off after `after` bytes."""

    def __init__(self, etag: str = '"one"') -> None:
        self.etag, self.body, self.cut, self.after = etag, BODY, 0, 100_000
        self.asked: list[dict[str, str]] = []
        self.status = 0

    async def answer(self, request: web.Request) -> web.StreamResponse:
        self.asked.append(dict(request.headers))
        if self.status:
            return web.Response(status=self.status, headers={"Location": "/elsewhere"})
        if request.headers.get("If-None-Match") == self.etag:
            return web.Response(status=304)
        first, headers = 0, {"ETag": self.etag}
        if "Range" in request.headers and request.headers.get("If-Range") == self.etag:
            first = int(request.headers["Range"].removeprefix("bytes=").rstrip("-"))
        body = self.body[first:]
        reply = web.StreamResponse(status=206 if first else 200, headers=headers)
        reply.content_length = len(body)
        await reply.prepare(request)
        if self.cut:
            self.cut -= 1
            await reply.write(body[: self.after])
            await asyncio.sleep(0.05)
            if request.transport:
                request.transport.abort()
            return reply
        await reply.write(body)
        return reply


@asynccontextmanager
async def served(host: Host) -> AsyncIterator[str]:
    app = web.Application()
    app.router.add_get("/list", host.answer)
    server = TestServer(app)
    await server.start_server()
    try:
        yield str(server.make_url("/list"))
    finally:
        await server.close()


async def fetch(
    address: str, target: Path, known: Validators = Validators(), retry: RetryPolicy = ONCE,  # noqa: B008
    largest: int = 1_000_000_000,
) -> Downloaded:  # fmt: skip
    async with open_session(5.0) as session:
        limiter = LocalLimiter(lambda _: HostLimits())
        return await Downloader(session, limiter, retry, largest).fetch(address, target, known)


async def test_a_file_comes_whole_and_only_when_it_changed(tmp_path: Path) -> None:
    host, target = Host(), tmp_path / "a.list"
    async with served(host) as address:
        found = await fetch(address, target)
        assert (found.new, found.trouble, found.validators.etag) == (True, "", '"one"')
        assert target.read_bytes() == BODY
        again = await fetch(address, target, found.validators)
        assert (again.new, again.trouble, again.validators) == (False, "", found.validators)
        host.etag, host.body = '"two"', BODY[:50]
        changed = await fetch(address, target, found.validators)
        assert (changed.new, target.read_bytes()) == (True, BODY[:50])
    assert sorted(p.name for p in tmp_path.iterdir()) == ["a.list"]


async def test_what_broke_off_is_gone_on_with(tmp_path: Path) -> None:
    host, target = Host(), tmp_path / "a.list"
    host.cut = 1
    async with served(host) as address:
        broken = await fetch(address, target)
        assert (broken.new, broken.trouble) == (False, "unreachable")
        assert not target.exists()
        begun = target.with_suffix(".part").stat().st_size
        assert 0 < begun <= 100_000
        found = await fetch(address, target)
        assert found.new
        assert host.asked[-1]["Range"] == f"bytes={begun}-"
        assert target.read_bytes() == BODY
        # In one go, too: the second try takes the rest.
        host.cut, target = 1, tmp_path / "b.list"
        assert (await fetch(address, target, retry=TWICE)).new
        assert target.read_bytes() == BODY


async def test_part_of_another_file_is_no_beginning(tmp_path: Path) -> None:
    host, target = Host(), tmp_path / "a.list"
    host.cut = 1
    async with served(host) as address:
        await fetch(address, target)
        host.etag, host.body = '"two"', b"name,kind\nother.com,asking\n"
        assert (await fetch(address, target)).new
        assert target.read_bytes() == host.body
        # Without a strong validator there is nothing to go on with.
        host.etag, host.body, host.cut = 'W/"three"', BODY, 1
        await fetch(address, tmp_path / "c.list")
        assert (await fetch(address, tmp_path / "c.list")).new
        assert (tmp_path / "c.list").read_bytes() == BODY


@pytest.mark.parametrize(
    ("status", "trouble"),
    [(302, "redirected"), (404, "refused"), (416, "server_error"), (429, "rate_limited"),
     (500, "server_error")],
)  # fmt: skip
async def test_what_is_no_file_is_a_trouble(tmp_path: Path, status: int, trouble: str) -> None:
    host = Host()
    host.status = status
    async with served(host) as address:
        found = await fetch(address, tmp_path / "a.list")
    assert (found.new, found.trouble) == (False, trouble)
    assert not (tmp_path / "a.list").exists()


async def test_a_file_without_end_is_given_up(tmp_path: Path) -> None:
    async with served(Host()) as address:
        found = await fetch(address, tmp_path / "a.list", largest=1_000)
    assert (found.trouble, found.detail) == ("nonsense", "the file is too large")
    assert list(tmp_path.iterdir()) == [] or not (tmp_path / "a.list").exists()
    assert (await fetch("http://127.0.0.1:1/list", tmp_path / "a.list")).trouble == "unreachable"


async def markets(address: str, folder: Path, **more: Any) -> FoundMarkets:
    where = LookupSettings(markets=address, timeout=5.0, retry=ONCE)
    return await fetch_markets(where, folder, **more)


async def test_all_of_the_simulation_is_there(registry: Registry, tmp_path: Path) -> None:
    found = await markets(f"{registry.origin}/markets.json", tmp_path)
    assert found.troubles == {}
    assert len(found.entries) == 5
    assert {*found.files} == {*found.entries}
    assert all(file.stat().st_size > 5_000 for file in found.files.values())
    known = {code: found.downloads[code].validators for code in found.files}
    again = await markets(f"{registry.origin}/markets.json", tmp_path, known=known)
    assert (again.troubles, again.files) == ({}, {})
    assert (await markets("", tmp_path)).entries == {}


async def test_one_list_that_fails_leaves_the_others(registry: Registry, tmp_path: Path) -> None:
    registry.faults({"service": "markets", "kind": "500", "registry": "oldgate"})
    found = await markets(f"{registry.origin}/markets.json", tmp_path)
    assert {*found.troubles} == {"oldgate"}
    assert len(found.files) == 4
    registry.faults({"service": "markets", "kind": "nonsense", "registry": ""})
    broken = await markets(f"{registry.origin}/markets.json", tmp_path)
    assert {*broken.troubles} == {""}
    assert broken.entries == {}


async def test_a_list_at_another_host_is_not_fetched(tmp_path: Path) -> None:
    async def index(_request: web.Request) -> web.Response:
        entry = {"code": "far", "name": "Far", "list": "http://127.0.0.1:1/list"}
        return web.json_response({"markets": [entry]})

    app = web.Application()
    app.router.add_get("/markets.json", index)
    server = TestServer(app)
    await server.start_server()
    found = await markets(str(server.make_url("/markets.json")), tmp_path)
    await server.close()
    assert found.troubles == {"far": "Its list is at another host."}
