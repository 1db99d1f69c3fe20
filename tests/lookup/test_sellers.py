"""Sellers' lists over HTTP: fetched when they changed, politely, and nothing believed unread."""

from __future__ import annotations

from collections.abc import Callable
from datetime import date
from typing import Any

import pytest
from aiohttp import web
from aiohttp.test_utils import TestServer

from tests.conftest import Registry
from vinetag.core.extensions import shipped_catalogue
from vinetag.lookup import HostLimits, LookupSettings, RetryPolicy
from vinetag.lookup.feeds import LARGEST_FILE, Fetched, Fetcher, Validators
from vinetag.lookup.fetching import open_session
from vinetag.lookup.limiter import LocalLimiter
from vinetag.lookup.sellers import FoundSellers, fetch_sellers

KNOWN = {e.extension for e in shipped_catalogue()}
TODAY = date(2026, 11, 29)
RETRY = RetryPolicy(attempts=2, first_wait=0.01, patience=1)


async def fetched(address: str, known: Validators = Validators()) -> Fetched:  # noqa: B008
    async with open_session(1.0) as session:
        limiter = LocalLimiter(lambda _: HostLimits())
        return await Fetcher(session, limiter, RETRY).fetch(address, known)


async def sellers(address: str) -> FoundSellers:
    where = LookupSettings(sellers=address, timeout=1.0, retry=RETRY)
    return await fetch_sellers(where, KNOWN, TODAY)


async def served(body: bytes | Callable[[], dict[str, Any]], **more: Any) -> TestServer:
    """A host with one document of sellers, and a list."""

    async def index(_request: web.Request) -> web.Response:
        return web.json_response(body()) if callable(body) else web.Response(body=body, **more)

    async def listed(_request: web.Request) -> web.Response:
        return web.Response(text="extension,action,price\ncom,register,9\nnosuch,renew,9\n")

    app = web.Application()
    app.router.add_get("/sellers.json", index)
    app.router.add_get("/list.csv", listed)
    server = TestServer(app)
    await server.start_server()
    return server


async def test_all_of_the_simulation_is_there(registry: Registry) -> None:
    found = await sellers(f"{registry.origin}/sellers.json")
    assert found.troubles == []
    assert {*found.entries} == {*found.prices} == {*found.coupons}
    assert len(found.entries) >= 6
    assert len(found.prices["lantern"].rows) > 500
    assert (await sellers("")).entries == {}


async def test_what_has_not_changed_is_not_sent_again(registry: Registry) -> None:
    address = f"{registry.origin}/sellers/lantern/prices.csv"
    first = await fetched(address)
    assert first.text is not None
    assert first.validators.etag
    assert first.validators.modified.endswith("GMT")
    again = await fetched(address, first.validators)
    assert again == Fetched(None, first.validators)


async def test_a_seller_in_trouble_is_told_of_and_the_others_are_there(registry: Registry) -> None:
    kinds = {"lantern": "webpage", "weir": "500", "hazel": "loss"}
    registry.faults(
        *({"service": "lists", "registry": code, "kind": kind}
          for code, kind in kinds.items())
    )  # fmt: skip
    try:
        found = await sellers(f"{registry.origin}/sellers.json")
    finally:
        registry.faults()
    told = {code: what for code, what in found.troubles if what.startswith("prices")}
    assert "it looks like a web page" in told["lantern"]
    assert "HTTP status 500" in told["weir"]
    assert "did not answer in time" in told["hazel"]
    assert {*found.prices} - {"lantern"} == {"longacre", "ninefold", "quillgate"}
    assert found.prices["lantern"].rows == ()


async def test_lists_stand_at_the_host_of_the_settings_or_are_left_out() -> None:
    entry = {"name": "A", "country": "IE", "currency": "EUR"}
    server = await served(
        lambda: {
            "sellers": [
                {**entry, "code": "here", "prices": "/list.csv"},
                {**entry, "code": "away", "prices": "http://169.254.169.254/list.csv"},
            ]
        }
    )
    found = await sellers(str(server.make_url("/sellers.json")))
    await server.close()
    assert [(row.extension, row.action) for row in found.prices["here"].rows] == [
        ("com", "register")
    ]
    told = dict(found.troubles)
    assert told["here"] == "prices, line 3, extension: There is no extension “.nosuch”."
    assert "another host" in told["away"]


@pytest.mark.parametrize(
    ("body", "more", "said"),
    [
        (b"<html>", {}, "no JSON"),
        (b"[" * 100_000, {}, "no JSON"),
        (b'{"sellers": [{}]}', {}, "sellers.0.code"),
        (b"", {"status": 302, "headers": {"Location": "/list.csv"}}, "address we do not know"),
        (b"", {"status": 403}, "refused the question"),
        (b" " * (LARGEST_FILE + 1), {}, "makes no sense"),
        (b"", {"headers": {"Content-Encoding": "br"}}, "makes no sense"),
    ],
)
async def test_what_is_no_document_of_sellers_is_said_to_be_none(
    body: bytes, more: dict[str, Any], said: str
) -> None:
    server = await served(body, **more)
    found = await sellers(str(server.make_url("/sellers.json")))
    await server.close()
    assert found.entries == {}
    assert said in " ".join(what for _, what in found.troubles)


async def test_nobody_there_is_told_too() -> None:
    found = await sellers("http://127.0.0.1:9/sellers.json")
    assert [code for code, _ in found.troubles] == [""]
    assert "could not be reached" in found.troubles[0][1]


async def test_a_host_that_asks_for_peace_is_left_alone(registry: Registry) -> None:
    registry.faults(service="lists", registry="weir", kind="429", seconds=30)
    try:
        found = await sellers(f"{registry.origin}/sellers.json")
    finally:
        registry.faults()
    assert any("asked us to slow down" in what for _, what in found.troubles)
