"""A service of demand, asked: whatever it answers becomes a value."""

from __future__ import annotations

import asyncio
import json
from collections.abc import Callable
from typing import Any

import pytest
from aiohttp import web
from aiohttp.test_utils import TestServer

from vinetag.core.demand import Market
from vinetag.lookup import LookupSettings, RetryPolicy, demand
from vinetag.lookup.demand import DemandAnswer, fetch_companions, fetch_figures

IRISH = Market("IE", "en")
LATER = {"Retry-After": "60"}
AWAY = {"Location": "http://a.example"}
PACKED = {"Content-Encoding": "br"}
Handler = Callable[[web.Request, list[str]], web.StreamResponse]


def figures(phrases: list[str], **more: object) -> web.Response:
    rows = [{"phrase": phrase, "searches": 10 * n} for n, phrase in enumerate(phrases)]
    return web.json_response({"source": "Lamp", "figures": rows, **more})


class Service:
    """Answers by a handler, and remembers what it was asked."""

    def __init__(self, handler: Handler, delay: float = 0.0) -> None:
        self.asked: list[dict[str, Any]] = []
        self._handler, self._delay = handler, delay

    async def _answer(self, request: web.Request) -> web.StreamResponse:
        if request.method == "POST":
            body = await request.json()
        else:
            body = dict(request.query)
        self.asked.append(body)
        await asyncio.sleep(self._delay)
        return self._handler(request, body.get("phrases", [body.get("phrase", "")]))

    def ask(self, phrases: list[str] | None = None) -> DemandAnswer:
        async def run() -> DemandAnswer:
            app = web.Application()
            app.router.add_post("/demand/figures", self._answer)
            app.router.add_get("/demand/companions", self._answer)
            server = TestServer(app)
            await server.start_server()
            try:
                settings = LookupSettings(
                    bootstrap="", phrases=str(server.make_url("/demand/")), timeout=0.5,
                    retry=RetryPolicy(attempts=2, first_wait=0.001, patience=0.2),
                )  # fmt: skip
                if phrases is None:
                    return await fetch_companions(settings, "piano tuning", IRISH, most=5)
                return await fetch_figures(settings, phrases, IRISH)
            finally:
                await server.close()

        return asyncio.run(run())


def test_phrases_are_asked_a_hundred_at_a_time() -> None:
    service = Service(lambda _, phrases: figures(phrases))
    told = service.ask([f"phrase {n}" for n in range(250)])
    assert [len(one["phrases"]) for one in service.asked] == [100, 100, 50]
    assert {(one["country"], one["language"]) for one in service.asked} == {("IE", "en")}
    assert (told.why, sum(len(one.figures) for one in told.answers)) == ("", 250)


def test_companions_are_asked_for_one() -> None:
    service = Service(lambda _, __: figures(["piano tuner", "tune a piano"], last_month="2026-10"))
    told = service.ask()
    assert service.asked == [
        {"phrase": "piano tuning", "country": "IE", "language": "en", "most": "5"}
    ]
    assert [row.phrase for row in told.answers[0].figures] == ["piano tuner", "tune a piano"]
    assert told.answers[0].last_month == "2026-10"


@pytest.mark.parametrize(
    ("answer", "why"),
    [
        (lambda: web.Response(status=500), "it failed"),
        (lambda: web.Response(status=429, headers=LATER), "it asked us to slow down"),
        (lambda: web.Response(status=302, headers=AWAY), "it sent us elsewhere"),
        (lambda: web.Response(status=404), "it refused the question"),
        (lambda: web.Response(text="<html>"), "its answer is no JSON"),
        (lambda: web.json_response([1]), "its answer has no figures"),
        (lambda: web.Response(body=b"x" * 5_000_000), "its answer makes no sense"),
        (lambda: web.Response(body=b"\x00", headers=PACKED), "its answer makes no sense"),
    ],
)  # fmt: skip
def test_every_failure_is_a_value(answer: Callable[[], web.Response], why: str) -> None:
    told = Service(lambda _, __: answer()).ask(["piano tuning"])
    assert told == DemandAnswer([], why)


def test_what_was_answered_before_a_part_failed_is_kept() -> None:
    parts = 0

    def handler(_: web.Request, phrases: list[str]) -> web.StreamResponse:
        nonlocal parts
        parts += 1
        return figures(phrases) if parts == 1 else web.Response(status=400)

    told = Service(handler).ask([f"phrase {n}" for n in range(150)])
    assert (len(told.answers), told.why) == (1, "it refused the question")
    assert len(told.answers[0].figures) == 100


def test_nobody_waits_for_ever(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(demand, "LONGEST", 0.5)
    told = Service(lambda _, p: figures(p), delay=0.3).ask([f"phrase {n}" for n in range(900)])
    assert told.why == "it did not answer in time"
    assert len(told.answers) == 1


def test_a_host_that_does_not_listen_is_told() -> None:
    settings = LookupSettings(
        bootstrap="", phrases="http://127.0.0.1:9/", retry=RetryPolicy(attempts=1, patience=0.1)
    )
    told = asyncio.run(fetch_figures(settings, ["piano"], IRISH))
    assert told == DemandAnswer([], "it could not be reached")
    nowhere = asyncio.run(fetch_figures(LookupSettings(bootstrap=""), ["piano"], IRISH))
    assert nowhere.why == "no service of demand is set up"


def test_figures_that_make_no_sense_are_passed_over_and_counted() -> None:
    def handler(_: web.Request, __: list[str]) -> web.StreamResponse:
        rows = [
            {"phrase": "good", "searches": 5, "months": list(range(12)), "competition": 0.5},
            {"phrase": "months", "searches": 5, "months": [1, 2]},
            {"phrase": "x" * 500, "searches": 5}, {"phrase": "?!", "searches": 5}, "text", None,
            {"searches": 5}, {"phrase": "minus", "searches": -5},
            {"phrase": "yes", "searches": True},
            {"phrase": "much", "searches": 10**30},
        ]  # fmt: skip
        return web.Response(text=json.dumps({"source": " ", "figures": rows}))

    (answer,) = Service(handler).ask(["good"]).answers
    assert [row.phrase for row in answer.figures] == ["good", "months", "much"]
    assert answer.passed == 7
    assert answer.source == "the service"
    assert answer.figures[0].months == tuple(range(12))
    assert answer.figures[1].months == ()
    assert answer.figures[2].low == 2_000_000_000
