"""Whatever a source sends, it becomes an answer; nothing it sends costs more than it should."""

import gzip
import json
import tracemalloc
import zlib
from datetime import UTC, datetime, timedelta

import pytest
from aiohttp import web
from hypothesis import given
from hypothesis import strategies as st

from tests.lookup.servers import domain
from tests.lookup.test_engine import asking, named
from vinetag.core.checking import Evidence
from vinetag.core.names import FullName
from vinetag.lookup.bootstrap import BootstrapError, read_bootstrap
from vinetag.lookup.fetching import LARGEST_BODY, Reply, decoded, origin_of, target_of
from vinetag.lookup.rdap import read_domain
from vinetag.lookup.retry import read_retry_after
from vinetag.lookup.sources.base import evidence_of
from vinetag.lookup.sources.quote import read_quote

NAME = FullName("inkpost", "com")
NOW = datetime(2026, 11, 28, tzinfo=UTC)
REAL = domain(
    "inkpost.com",
    status=["pending delete"],
    events=[
        {"eventAction": "registration", "eventDate": "1999-01-02T03:04:05Z"},
        {"eventAction": "expiration", "eventDate": "2027-01-02T03:04:05Z"},
        {"eventAction": "last changed", "eventDate": "2026-01-02T03:04:05Z"},
    ],
    entities=[{"roles": ["registrar"], "vcardArray": ["vcard", [["fn", {}, "text", "Alder"]]]}],
)
ODD_DATES = [
    "9999-12-31T23:59:59Z", "9999-12-31T23:59:59-23:59", "0001-01-01T00:00:00+23:59",
    "0001-01-01T00:00:00Z", "2020-02-30T00:00:00Z", "", "soon",
]  # fmt: skip
documents = st.recursive(
    st.none() | st.booleans() | st.integers() | st.floats() | st.text(max_size=20),
    lambda inner: st.lists(inner, max_size=4) | st.dictionaries(st.text(max_size=12), inner),
    max_leaves=12,
)


def read(body: bytes, status: int = 200) -> Evidence:
    return evidence_of(
        "rdap", read_domain(status, "application/json", body, NAME), "http://r.example/", "com"
    )


@given(st.binary(max_size=300), st.integers(100, 599))
def test_any_bytes_are_read(body: bytes, status: int) -> None:
    assert read(body, status).source == "rdap"
    assert (
        read_quote(Reply(status, "", body, "", None), "http://s.example/", NAME).source == "quote"
    )


@given(documents)
def test_any_json_is_read(document: object) -> None:
    body = json.dumps(document).encode()
    assert read(body).says == ""
    assert read_quote(Reply(200, "", body, "", None), "http://s.example/", NAME).says == ""


@given(st.sampled_from(sorted(REAL)), documents)
def test_a_real_answer_with_one_part_turned_odd_is_read(part: str, odd: object) -> None:
    evidence = read(json.dumps({**REAL, part: odd}).encode())
    assert evidence.says or evidence.trouble == "nonsense"


@given(st.sampled_from(ODD_DATES), st.sampled_from(ODD_DATES), st.sampled_from(ODD_DATES))
def test_dates_at_the_ends_of_time_break_nothing(first: str, until: str, changed: str) -> None:
    events = [
        {"eventAction": action, "eventDate": date}
        for action, date in zip(
            ("registration", "expiration", "last changed"), (first, until, changed), strict=True
        )
    ]
    for status in ("pending delete", "redemption period"):
        evidence = read(json.dumps({**REAL, "events": events, "status": [status]}).encode())
        assert evidence.says == "dropping"


@pytest.mark.parametrize(
    "body", [b"[" * 200_000, b'{"a":' * 100_000, b'{"status":' + b"[" * 99_999]
)
def test_nesting_without_end_is_nonsense(body: bytes) -> None:
    assert read(body).trouble == "nonsense"
    assert read_quote(Reply(200, "", body, "", None), "", NAME).trouble == "nonsense"
    with pytest.raises(BootstrapError):
        read_bootstrap(body)


def test_prices_that_cannot_be_are_nonsense() -> None:
    for price in (-1, 1e300):
        offer = {"name": str(NAME), "offer": "premium", "currency": "EUR", "first_year": price}
        told = read_quote(Reply(200, "", json.dumps(offer).encode(), "", None), "", NAME)
        assert told.trouble == "nonsense"


@pytest.mark.parametrize("currency", ["", "eur", "EURO" * 90, "12x", "E\n"])
def test_a_currency_that_is_none_is_nonsense_beside_a_price_and_else_left_out(
    currency: str,
) -> None:
    offer = {"name": str(NAME), "offer": "premium", "currency": currency}
    for more, trouble in (({"first_year": 9}, "nonsense"), ({}, "")):
        body = json.dumps({**offer, **more}).encode()
        told = read_quote(Reply(200, "", body, "", None), "", NAME)
        assert (told.trouble, told.quote) == (trouble, None)


@given(st.text(max_size=40))
def test_any_retry_after_is_bounded(header: str) -> None:
    seconds = read_retry_after(header, NOW)
    assert seconds is None or 0 <= seconds <= 86_400


def test_a_far_retry_after_is_bounded() -> None:
    assert read_retry_after("9" * 400, NOW) == 86_400
    assert read_retry_after("Fri, 31 Dec 9999 23:59:59 -2359", NOW) in (None, 86_400)


@pytest.mark.parametrize(
    "location", ["http://[::1/", "http://[", "//[bad", "http://a:99999999/", "javascript:1"]
)
def test_a_redirect_to_nowhere_leads_nowhere(location: str) -> None:
    assert target_of("http://r.example/domain/a.com", location) == ""


def test_http_and_https_of_a_host_are_told_apart() -> None:
    assert origin_of("https://r.example/x") != origin_of("http://r.example/x")


@pytest.mark.parametrize("encoding", ["gzip", "deflate"])
def test_a_small_body_that_unpacks_to_a_huge_one_is_refused_unread(encoding: str) -> None:
    packer = zlib.compressobj(9, wbits=31 if encoding == "gzip" else 15)
    body = packer.compress(b"\0" * 200_000_000) + packer.flush()
    tracemalloc.start()
    with pytest.raises(ValueError, match="too large"):
        decoded(body, encoding)
    _, most = tracemalloc.get_traced_memory()
    tracemalloc.stop()
    assert most < 4 * LARGEST_BODY


def test_encodings_are_read_and_others_refused() -> None:
    packed = zlib.compress(b"ink")
    assert decoded(b"ink", "") == decoded(b"ink", "identity") == b"ink"
    assert decoded(gzip.compress(b"ink"), "gzip") == decoded(packed, "deflate") == b"ink"
    assert decoded(packed[2:-4], "deflate") == b"ink"
    for body, encoding in ((b"ink", "br"), (b"ink", "gzip"), (b"x", "gzip, gzip"),
                           (gzip.compress(b"ink")[:-9], "gzip")):  # fmt: skip
        with pytest.raises(ValueError, match=r"encod|decoded|early"):
            decoded(body, encoding)


async def test_odd_answers_leave_the_other_names_of_a_sweep_alone() -> None:
    """Each name is asked a bounded number of times, whatever its answers are."""

    def handler(request: web.Request, _before: int) -> web.StreamResponse:
        name = request.match_info["name"]
        odd = int(name.removeprefix("name").removesuffix(".com"))
        if odd % 4 == 0:
            events = [{"eventAction": "expiration", "eventDate": "9999-12-31T23:59:59-23:00"}]
            return web.json_response(domain(name, status=["pending delete"], events=events))
        if odd % 4 == 1:
            return web.Response(body=b"[" * 100_000, content_type="application/json")
        if odd % 4 == 2:
            return web.Response(status=302, headers={"Location": "http://[::1/"})
        body = gzip.compress(json.dumps(domain(name)).encode())
        return web.Response(body=body, headers={"Content-Encoding": "gzip"})

    got = {}
    async with asking(handler) as (engine, registry):
        await engine.sweep(named(24), lambda a: got.update({a.name.label: a}))
        assert max(registry.asked.values()) == 1
    assert {got[f"name{n}"].status for n in range(0, 24, 4)} == {"dropping"}
    assert {got[f"name{n}"].trouble for n in range(1, 24, 4)} == {"nonsense"}
    assert {got[f"name{n}"].trouble for n in range(2, 24, 4)} == {"redirected"}
    assert {got[f"name{n}"].status for n in range(3, 24, 4)} == {"taken"}


async def test_what_a_source_raises_becomes_an_answer() -> None:
    async with asking(lambda *_: web.json_response({}, status=404)) as (engine, _):

        async def broken(name: FullName, at: str = "") -> None:
            raise OverflowError("date value out of range")

        engine._sources["rdap"].ask = broken  # type: ignore[attr-defined]
        got = []
        await engine.sweep(named(3), got.append)
    assert {(a.status, a.trouble) for a in got} == {("unsure", "nonsense")}
    assert "OverflowError" in got[0].evidence[0].detail


def test_future_retry_dates_are_seconds() -> None:
    at = (NOW + timedelta(seconds=90)).strftime("%a, %d %b %Y %H:%M:%S GMT")
    assert read_retry_after(at, NOW) == 90
