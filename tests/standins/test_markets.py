"""The simulated markets and zones hang together with the rest of the simulated world."""

from __future__ import annotations

import csv
import gzip
import io
import json
from collections.abc import Iterator
from datetime import UTC, date, datetime, timedelta
from typing import Any

import pytest
from aiohttp.test_utils import TestClient, TestServer

from standins.faults import Fault, Faults
from standins.markets import MARKETS, Market, list_of
from standins.registry import make_app
from standins.world import World
from standins.zones import ZONES, zone_of
from vinetag.core.market import COLUMNS

NOW = datetime(2026, 11, 29, 12, tzinfo=UTC)
WORLD = World()


def rows(market: Market, now: datetime = NOW) -> list[dict[str, Any]]:
    body = list_of(market, WORLD, now)
    text = (gzip.decompress(body) if market.form == "gz" else body).decode()
    if market.form == "jsonl":
        return [json.loads(line) for line in text.splitlines()]
    return list(csv.DictReader(io.StringIO(text)))


@pytest.fixture(scope="module")
def lists() -> dict[str, list[dict[str, Any]]]:
    return {market.code: rows(market) for market in MARKETS}


def test_lists_have_the_columns_there_are(lists: dict[str, list[dict[str, Any]]]) -> None:
    known = {column.name for column in COLUMNS}
    for code, found in lists.items():
        assert len(found) > 300, code
        assert set().union(*found) <= known
        assert len({row["name"] for row in found}) == len(found)


def test_what_is_offered_is_held_and_what_drops_is_on_its_way_out(
    lists: dict[str, list[dict[str, Any]]],
) -> None:
    for market in MARKETS:
        for row in lists[market.code][:150]:
            label, _, extension = row["name"].partition(".")
            held = WORLD.registration(label, extension, NOW)
            assert held is not None
            assert row["kind"] in market.kinds
            if row["kind"] == "dropping":
                assert held.status[0] in (
                    "auto renew period",
                    "redemption period",
                    "pending delete",
                )
                assert held.released > NOW
            else:
                assert held.delegated
                assert WORLD.offer(label, extension, NOW).kind == "resale"


def test_what_is_told_of_a_past_is_the_same_everywhere(
    lists: dict[str, list[dict[str, Any]]],
) -> None:
    one = {row["name"]: row for row in lists["oldgate"]}
    both = [(one[row["name"]], row) for row in lists["ferryman"] if row["name"] in one]
    assert len(both) > 100
    for here, there in both:
        for column in ("first_registered", "links", "archived", "used_for", "also_registered"):
            assert here[column] == there[column]
    assert {"adult", "gambling", "shop_copy"} <= {row["used_for"] for row in lists["oldgate"]}


def test_auctions_go_on_and_prices_fall(lists: dict[str, list[dict[str, Any]]]) -> None:
    ferryman = next(m for m in MARKETS if m.code == "ferryman")
    later = {row["name"]: row for row in rows(ferryman, NOW + timedelta(days=1))}
    rose = put_off = 0
    for row in lists["ferryman"]:
        ends = datetime.fromisoformat(row["ends"])
        assert NOW < ends <= NOW + timedelta(days=10, minutes=30)
        next_day = later.get(row["name"])
        if next_day and ends - NOW > timedelta(days=2):
            assert int(next_day["bids"]) >= int(row["bids"])
            rose += int(next_day["bids"]) > int(row["bids"])
            put_off += next_day["ends"] != row["ends"]
    assert rose > 50
    assert put_off == 0
    oldgate = next(m for m in MARKETS if m.code == "oldgate")
    before, after = (
        {row["name"]: float(row["price"]) for row in rows(oldgate, at) if row["price"]}
        for at in (datetime(2026, 6, 10, tzinfo=UTC), datetime(2026, 8, 10, tzinfo=UTC))
    )
    fell = [after[name] < price for name, price in before.items() if name in after]
    assert 0.1 < sum(fell) / len(fell) < 0.6


@pytest.mark.parametrize(
    ("extension", "least", "most"),
    [("com", 0.93, 1.0), ("net", 0.82, 0.97), ("org", 0.82, 0.97), ("studio", 0.05, 0.6)],
)
def test_what_anybody_would_want_is_taken_under_the_large_extensions(
    extension: str, least: float, most: float
) -> None:
    wanted = sorted(WORLD._wanted)[:: len(WORLD._wanted) // 1_500]
    taken = [WORLD.registration(label, extension, NOW) is not None for label in wanted]
    assert least < sum(taken) / len(taken) < most
    common = [n for n in wanted if WORLD._wanted[n] >= 6]
    rare = [n for n in wanted if WORLD._wanted[n] <= 1]
    shares = [
        sum(WORLD._uncached_likelihood(n) for n in names) / len(names) for names in (common, rare)
    ]
    assert shares[0] > shares[1]


@pytest.mark.parametrize("label", ["paddler", "eastcoast", "waxpaper", "nightsky", "letterbox"])
def test_compounds_are_taken(label: str) -> None:
    assert any(WORLD.registration(label, e, NOW) for e in ("com", "net", "org"))
    coined = ["vlorkinquelt", "zuqvarendo", "brixolapse", "thrumbledge", "quanvirost"]
    assert sum(WORLD.registration(n, "com", NOW) is None for n in coined) >= 4


def zone(extension: str, day: date) -> Iterator[tuple[str, str]]:
    for line in gzip.decompress(zone_of(WORLD, extension, day)).decode().splitlines():
        owner, _ttl, _class, kind, _data = line.split("\t")
        yield owner, kind


def test_a_zone_is_of_its_day() -> None:
    early, late = date(2026, 10, 31), date(2026, 11, 28)
    names = {d: {owner for owner, kind in zone("press", d) if kind == "ns"} for d in (early, late)}
    assert next(zone("press", late)) == ("press.", "soa")
    assert "press" in ZONES
    assert 10_000 < len(names[early]) < len(names[late]) < 200_000
    # Some went, more came, and each is what the registry would say at the end of the day.
    assert names[early] - names[late]
    for owner in sorted(names[late])[:: len(names[late]) // 200]:
        label = owner.split(".")[0]
        if label == "press":
            continue
        held = WORLD.registration(label, "press", datetime(2026, 11, 29, tzinfo=UTC))
        assert held is not None
        assert held.delegated


async def test_lists_come_in_parts_and_with_faults() -> None:
    faults = Faults(
        [Fault("500", "markets", registry="ebb"), Fault("429", "zones", registry="press")]
    )
    async with TestClient(TestServer(make_app(WORLD, faults))) as client:
        index = await (await client.get("/markets.json")).json()
        address = next(m["list"] for m in index["markets"] if m["code"] == "oldgate")
        whole = await client.get(address)
        body, tag = await whole.read(), whole.headers["ETag"]
        assert (await client.get(address, headers={"If-None-Match": tag})).status == 304
        headers = {"Range": "bytes=100-", "If-Range": tag}
        rest = await client.get(address, headers=headers)
        assert (rest.status, await rest.read()) == (206, body[100:])
        other = await client.get(address, headers={"Range": "bytes=100-", "If-Range": '"x"'})
        assert other.status == 200
        beyond = {"Range": f"bytes={len(body)}-", "If-Range": tag}
        assert (await client.get(address, headers=beyond)).status == 416
        assert (await client.get("/markets/ebb/offers.csv.gz")).status == 500
        assert (await client.get("/markets/oldgate/other.csv")).status == 404
        zones = await (await client.get("/zones.json")).json()
        assert {entry["extension"] for entry in zones["zones"]} == set(ZONES)
        assert (await client.get(zones["zones"][0]["file"])).status == 429
        assert (await client.get("/zones/press/2001-01-01.zone.gz")).status == 404
