"""Simulated markets and drop lists: who offers names, and which are let go. All are made up.

Under /markets.json who they are, under /markets/<code>/<file> their lists, with ETag and parts of
them (RFC 9110 sections 13 and 14). Prices, bids and ends go with the world's time.
"""

from __future__ import annotations

import asyncio
import csv
import gzip
import hashlib
import io
import json
import random
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from functools import lru_cache
from typing import Any, Final

from aiohttp import web

from standins.sellers import Troubled
from standins.world import EXTENSIONS, Registration, World

__all__ = ["MARKETS", "Market", "add_markets", "labels_of", "list_of"]

# So many labels are looked at for offers; those that are held and for sale are listed.
LABELS: Final = 36_000
COLUMNS: Final = (
    "name", "kind", "price", "currency", "bids", "ends", "drops", "state", "address",
    "first_registered", "times_registered", "links", "linking_sites", "archived",
    "archived_about", "used_for", "rank", "click_price", "also_registered",
)  # fmt: skip
ABOUT: Final = (
    "a village hall", "model trains", "a choir", "garden plans", "boat repairs", "a bakery",
    "old maps", "a walking club", "bookbinding", "weather records", "a print shop", "star charts",
)  # fmt: skip
USED: Final = ("site",) * 9 + ("parked",) * 6 + (
    "adult", "gambling", "shop_copy", "medicines", "harmful", "bulk_mail",
)  # fmt: skip
EXTENSIONS_LISTED: Final = ("com", "net", "org", "io", "ie", "co.uk", "studio", "club", "press")


@dataclass(frozen=True)
class Market:
    """`kinds`: what it lists; `share` of the names for sale it has; `figures`: whether it tells of
    a name's past; `form`: how its list is written.
    """

    code: str
    name: str
    kinds: tuple[str, ...]
    share: float
    currency: str = "EUR"
    figures: bool = True
    form: str = "csv"

    @property
    def file(self) -> str:
        """Where its list is."""
        return {"csv": "offers.csv", "gz": "offers.csv.gz", "jsonl": "offers.jsonl"}[self.form]


MARKETS: Final = (
    Market("oldgate", "Oldgate Names", ("fixed", "asking"), 0.7),
    Market("ferryman", "Ferryman Auctions", ("auction",), 0.5, "USD", form="gz"),
    Market("hillfair", "Hillfair", ("fixed", "auction"), 0.35, "GBP", figures=False, form="jsonl"),
    Market("ebb", "Ebb List", ("dropping",), 0.9, form="gz"),
    Market("slack-tide", "Slack Tide", ("dropping",), 0.5, figures=False),
)


def _chance(seed: str) -> random.Random:
    digest = hashlib.blake2b(seed.encode(), digest_size=8).digest()
    return random.Random(int.from_bytes(digest, "big"))  # noqa: S311 - a simulation


@lru_cache(8)
def labels_of(world: World) -> tuple[str, ...]:
    """Labels somebody may hold: words, and pairs of common ones."""
    words = sorted(world.common, key=lambda w: (-world.common[w], w))
    usable = [word for word in words if 3 <= len(word) <= 9]
    rng = _chance("labels")
    pairs = {
        rng.choice(usable[:3_000]) + rng.choice(usable[:3_000]) for _ in range(LABELS * 2 // 3)
    }
    return tuple(sorted({*usable[: LABELS // 3], *pairs}))


def list_of(market: Market, world: World, now: datetime) -> bytes:
    """The list as it is in an hour of the world's time."""
    rows = list(_rows(market, world, now))
    if market.form == "jsonl":
        lines = (
            json.dumps({key: value for key, value in row.items() if value not in ("", None)})
            for row in rows
        )
        return ("\n".join(lines) + "\n").encode()
    out = io.StringIO()
    writer = csv.DictWriter(out, COLUMNS, restval="", lineterminator="\n")
    writer.writeheader()
    writer.writerows(rows)
    text = out.getvalue().encode()
    return gzip.compress(text, 1, mtime=0) if market.form == "gz" else text


def _rows(market: Market, world: World, now: datetime) -> Iterator[dict[str, Any]]:
    for label in labels_of(world):
        for extension in EXTENSIONS_LISTED:
            if extension not in EXTENSIONS:
                continue
            name = f"{label}.{extension}"
            row: dict[str, Any] | None = None
            if "dropping" in market.kinds:
                leaving = world.leaving(label, extension, now)
                row = _drop(leaving, now) if leaving else None
            elif (asked := world.asked(label, extension, now)) is not None:
                row = _offer(market, _chance(f"{market.code} {name}"), asked, now)
            if row is None or _chance(f"{market.code} lists {name}").random() >= market.share:
                continue
            if market.figures:
                row |= _figures(world, label, extension, now)
            yield {"name": name, "address": f"https://{market.code}.example/{name}", **row}


def _drop(held: Registration, now: datetime) -> dict[str, Any]:
    """A name on its way out: its state, and when it is released."""
    released = held.released
    state = {
        "auto renew period": "expired", "redemption period": "redemption",
        "pending delete": "pending",
    }[held.status[0]]  # fmt: skip
    day = released.astimezone(UTC)
    known = released - now < timedelta(days=5)
    return {
        "kind": "dropping",
        "state": state,
        "drops": day.strftime("%Y-%m-%dT%H:%M:%SZ") if known else day.date().isoformat(),
    }


def _offer(market: Market, rng: random.Random, asked: float, now: datetime) -> dict[str, Any]:
    kind = rng.choice(market.kinds)
    rate = {"EUR": 1.0, "USD": 1.12, "GBP": 0.86}[market.currency]
    if kind == "asking":
        return {"kind": "asking"}
    if kind == "fixed":
        # A third of the prices falls, by steps of a month.
        months = (now.year - 2025) * 12 + now.month
        falls = 0.97 ** (months % 24) if rng.random() < 0.33 else 1.0
        price = max(20, round(asked * rate * falls, -1))
        return {"kind": "fixed", "price": f"{price:.2f}", "currency": market.currency}
    # An auction of ten days comes round again and again; bids come towards its end.
    length, offset = timedelta(days=10), timedelta(hours=rng.randrange(240))
    began = datetime(2025, 1, 1, tzinfo=UTC) + offset
    ends = began + length * ((now - began) // length + 1)
    done = 1 - (ends - now) / length
    wanted = rng.random()
    bids = int(24 * wanted * wanted * done**1.5)
    if bids and ends - now < timedelta(hours=2):
        # Late bids put the end off.
        ends += timedelta(minutes=5 * min(6, bids))
    price = asked * rate * 0.08 * (1.17**bids)
    return {
        "kind": "auction", "price": f"{price:.2f}", "currency": market.currency, "bids": bids,
        "ends": ends.strftime("%Y-%m-%dT%H:%M:%SZ"),
    }  # fmt: skip


def _figures(world: World, label: str, extension: str, now: datetime) -> dict[str, Any]:
    """What is known of a name's past: the same whoever tells it; some of it nobody knows."""
    name = f"{label}.{extension}"
    rng = _chance(f"past {name}")
    held = world.registration(label, extension, now)
    first = held.created if held else now
    sites = int(10 ** (2.4 * rng.random() ** 2)) - 1
    found: dict[str, Any] = {
        "first_registered": first.date().isoformat(),
        "times_registered": 1 + int(3 * rng.random() ** 3),
        "linking_sites": sites,
        "links": int(sites * (1 + 9 * rng.random())),
        "archived": int(120 * rng.random() ** 2),
    }
    if rng.random() < 0.4:
        found["used_for"] = rng.choice(USED)
    if found["archived"] > 5 and found.get("used_for", "site") == "site":
        found["archived_about"] = rng.choice(ABOUT)
    if label in world.common:
        found["rank"] = int(10 ** (7.6 - world.common[label]))
        found["click_price"] = f"{0.05 + 2 * rng.random() ** 2:.2f}"
    others = [e for e in ("com", "net", "org") if e != extension]
    held_too = [e for e in others if world.registration(label, e, now)]
    return {**found, "also_registered": " ".join(held_too)}


def add_markets(
    app: web.Application, world: World, now: Callable[[], datetime], fault_of: Troubled,
    markets: Sequence[Market] = MARKETS,
) -> None:  # fmt: skip
    """Their addresses; `now` is the world's time, `fault_of` what is wrong with a list now."""
    by_code = {market.code: market for market in markets}

    @lru_cache(16)
    def content(code: str, hour: datetime) -> bytes:
        return list_of(by_code[code], world, hour)

    async def index(request: web.Request) -> web.StreamResponse:
        if (fault := await fault_of(request, "")) is not None:
            return fault
        entries = [
            {"code": m.code, "name": m.name, "list": f"/markets/{m.code}/{m.file}"} for m in markets
        ]
        return web.json_response({"markets": entries})

    async def listing(request: web.Request) -> web.StreamResponse:
        market = by_code.get(request.match_info["code"])
        if market is None or request.match_info["file"] != market.file:
            raise web.HTTPNotFound
        if (fault := await fault_of(request, market.code)) is not None:
            return fault
        hour = now().replace(minute=0, second=0, microsecond=0)
        body = await asyncio.to_thread(content, market.code, hour)
        return _part(request, body)

    app.router.add_get("/markets.json", index)
    app.router.add_get("/markets/{code}/{file}", listing)


def _part(request: web.Request, body: bytes) -> web.Response:
    """The whole, nothing where it is known, or what is missing of it."""
    tag = f'"{hashlib.sha256(body).hexdigest()[:20]}"'
    headers = {"ETag": tag, "Accept-Ranges": "bytes"}
    if request.headers.get("If-None-Match") == tag:
        return web.Response(status=304, headers=headers)
    asked = request.headers.get("Range", "")
    if asked.startswith("bytes=") and request.headers.get("If-Range", tag) == tag:
        first = int(asked.removeprefix("bytes=").partition("-")[0] or 0)
        if first >= len(body):
            return web.Response(status=416, headers={"Content-Range": f"bytes */{len(body)}"})
        headers["Content-Range"] = f"bytes {first}-{len(body) - 1}/{len(body)}"
        return web.Response(status=206, body=body[first:], headers=headers)
    return web.Response(body=body, headers=headers, content_type="application/octet-stream")
