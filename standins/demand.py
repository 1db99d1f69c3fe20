"""A simulated service of demand: how often phrases are looked for, and which go with one.

Described by /demand/openapi.json. Common words are looked for more, long phrases less; every figure
is made up, and the same whenever it is asked for within a month of the world's time.
"""

from __future__ import annotations

import hashlib
import json
import math
from collections.abc import Awaitable, Callable
from datetime import date, datetime, timedelta
from importlib.resources import files
from typing import Any, Final

from aiohttp import web

from standins.world import World

__all__ = ["add_demand"]

SOURCE: Final = "Hollow Lantern"
MOST_PHRASES: Final = 100
MOST_COMPANIONS: Final = 60
LONGEST: Final = 120
BEFORE: Final = ("best", "cheap", "how to choose", "second hand", "local", "small", "learn", "easy")
BEHIND: Final = (
    "near me", "cost", "for beginners", "ideas", "prices", "online", "at home", "courses",
    "for sale", "reviews", "for children", "tips", "shop", "repair", "club", "kit", "guide",
    "as a gift", "in winter", "made by hand",
)  # fmt: skip
SINGLE: Final = 1.5
Troubled = Callable[[web.Request, str], Awaitable[web.StreamResponse | None]]


def add_demand(
    app: web.Application, world: World, fault_of: Troubled, now: Callable[[], datetime]
) -> None:
    """Its addresses."""

    async def described(_request: web.Request) -> web.Response:
        text = files("standins").joinpath("data/demand.openapi.json").read_text("utf-8")
        return web.Response(text=text, content_type="application/json")

    async def figures(request: web.Request) -> web.StreamResponse:
        if (fault := await fault_of(request, "figures")) is not None:
            return fault
        try:
            asked = json.loads(await request.read())
            phrases = [" ".join(str(one).lower().split())[:LONGEST] for one in asked["phrases"]]
            country, language = str(asked.get("country", "")), str(asked.get("language", ""))
        except (ValueError, KeyError, TypeError, AttributeError):
            return web.json_response({"error": "Send phrases, a country, a language."}, status=400)
        if len(phrases) > MOST_PHRASES:
            return web.json_response({"error": f"At most {MOST_PHRASES} phrases."}, status=400)
        return web.json_response(_document(phrases, country, language, world, now().date()))

    async def companions(request: web.Request) -> web.StreamResponse:
        if (fault := await fault_of(request, "companions")) is not None:
            return fault
        query = request.query
        phrase = " ".join(query.get("phrase", "").lower().split())[:LONGEST]
        most = int(query["most"]) if query.get("most", "").isdecimal() else 30
        found = _companions(phrase)[: min(most, MOST_COMPANIONS)] if phrase else []
        country, language = query.get("country", ""), query.get("language", "")
        return web.json_response(_document(found, country, language, world, now().date()))

    app.router.add_get("/demand/openapi.json", described)
    app.router.add_post("/demand/figures", figures)
    app.router.add_get("/demand/companions", companions)


def _document(
    phrases: list[str], country: str, language: str, world: World, today: date
) -> dict[str, Any]:
    last = today.replace(day=1) - timedelta(days=1)
    return {
        "source": SOURCE,
        "country": country[:2].upper(),
        "language": language[:10].lower(),
        "last_month": f"{last:%Y-%m}",
        "currency": "EUR",
        "figures": [_figure(phrase, country, world, last) for phrase in phrases],
    }


def _figure(phrase: str, country: str, world: World, last: date) -> dict[str, Any]:
    words = phrase.split()
    common = [world.common.get(word, 0.0) for word in words]
    if not words or min(common) == 0.0:
        # Nobody has heard of it: nothing is known, which is not the same as nobody looking.
        return {"phrase": phrase, "searches": None}
    level = sum(common) / len(common) - 0.75 * len(words) - (SINGLE if len(words) == 1 else 0)
    chance = _chance("level", f"{phrase}/{country}")
    mean = 10 ** (level + 1.6 * chance - 0.4)
    peak, strength = int(12 * _chance("peak", phrase)), 0.9 * _chance("season", phrase) ** 2
    first = (last.month - 12) % 12
    months = [
        round(mean * (1 + strength * math.cos(2 * math.pi * ((first + at) % 12 - peak) / 12)))
        for at in range(12)
    ]
    if mean < 10:
        return {"phrase": phrase, "searches": {"from": 0, "to": 10}}
    return {
        "phrase": phrase,
        "searches": round(sum(months) / 12),
        "months": months,
        "competition": round(_chance("competition", phrase), 2),
        "click_price": f"{0.1 + 3.2 * _chance('price', phrase) ** 2:.2f}",
    }


def _companions(phrase: str) -> list[str]:
    words = set(phrase.split())
    made = [f"{before} {phrase}" for before in BEFORE]
    made += [f"{phrase} {behind}" for behind in BEHIND]
    kept = [one for one in made if len(one) <= LONGEST and _says_each_once(one)]
    return sorted(
        (one for one in kept if set(one.split()) - words),
        key=lambda one: _chance("companion", one),
    )


def _says_each_once(phrase: str) -> bool:
    return len(phrase.split()) == len(set(phrase.split()))


def _chance(kind: str, key: str) -> float:
    digest = hashlib.blake2b(f"demand/{kind}/{key}".encode(), digest_size=7).digest()
    return int.from_bytes(digest, "big") / 2**56
