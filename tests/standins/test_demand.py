"""The simulated service of demand keeps to its document, and tells the same twice."""

from __future__ import annotations

import asyncio
import json
from datetime import UTC, datetime, timedelta
from importlib.resources import files
from typing import Any

import pytest
from aiohttp import web
from aiohttp.test_utils import TestClient, TestServer
from jsonschema import Draft202012Validator

from standins.demand import add_demand
from standins.world import World

NOW = datetime(2026, 11, 30, tzinfo=UTC)
DOCUMENT = json.loads(files("standins").joinpath("data/demand.openapi.json").read_text("utf-8"))


def ask(*questions: tuple[str, str, Any], now: datetime = NOW, fault: bool = False) -> list[Any]:
    """(status, document) of each question: a method, a path, a body."""

    async def fault_of(_request: web.Request, _part: str) -> web.StreamResponse | None:
        return web.Response(status=503) if fault else None

    async def run() -> list[Any]:
        app = web.Application()
        add_demand(app, World(), fault_of, lambda: now)
        async with TestClient(TestServer(app)) as client:
            found = []
            for method, path, body in questions:
                reply = await client.request(method, f"/demand/{path}", json=body)
                text = await reply.text()
                found.append((reply.status, json.loads(text) if text else None))
            return found

    return asyncio.run(run())


def figures(phrases: list[str], country: str = "IE", now: datetime = NOW) -> list[dict[str, Any]]:
    body = {"phrases": phrases, "country": country, "language": "en"}
    ((status, told),) = ask(("POST", "figures", body), now=now)
    assert status == 200
    schema = {"$ref": "#/components/schemas/Figures", "components": DOCUMENT["components"]}
    Draft202012Validator(schema).validate(told)
    rows: list[dict[str, Any]] = told["figures"]
    return rows


def test_figures_are_as_described_and_hang_together() -> None:
    rows = figures(
        ["piano", "piano tuning", "qwzxvk", "piano harp tuning lamp quiet winter garden"]
    )
    assert [row["phrase"] for row in rows][:2] == ["piano", "piano tuning"]
    one, two, unknown, seldom = rows
    assert one["searches"] > 0
    assert round(sum(two["months"]) / 12) == two["searches"]
    assert unknown == {"phrase": "qwzxvk", "searches": None}
    assert seldom["searches"] == {"from": 0, "to": 10}


def test_the_same_is_told_twice_and_otherwise_elsewhere() -> None:
    here = figures(["piano tuning"])
    assert here == figures(["piano tuning"])
    assert here != figures(["piano tuning"], country="GB")
    # A month further the year begins a month later.
    later = figures(["piano tuning"], now=NOW + timedelta(days=31))
    assert later[0]["months"][:11] == here[0]["months"][1:]


def test_companions_go_with_a_phrase_and_are_none_of_it() -> None:
    ((_, told),) = ask(("GET", "companions?phrase=piano%20tuning&most=7&country=IE", None))
    phrases = [row["phrase"] for row in told["figures"]]
    assert len(phrases) == len(set(phrases)) == 7
    assert all("piano tuning" in phrase and phrase != "piano tuning" for phrase in phrases)
    ((_, none),) = ask(("GET", "companions", None))
    assert none["figures"] == []


@pytest.mark.parametrize("body", [[], {}, {"phrases": 5}, {"phrases": ["a"] * 101}, "text"])
def test_what_makes_no_sense_is_refused(body: Any) -> None:
    ((status, told),) = ask(("POST", "figures", body))
    assert (status, list(told)) == (400, ["error"])


def test_it_is_described_and_misbehaves_as_told() -> None:
    ((status, told),) = ask(("GET", "openapi.json", None))
    assert (status, told) == (200, DOCUMENT)
    failed = ask(
        ("POST", "figures", {"phrases": []}), ("GET", "companions?phrase=a", None), fault=True
    )
    assert [status for status, _ in failed] == [503, 503]
