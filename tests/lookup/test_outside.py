"""Platforms and the search service, whatever they answer."""

from __future__ import annotations

import asyncio
import gzip
from collections.abc import Iterator
from dataclasses import replace

import pytest
from aiohttp import web
from aiohttp.test_utils import TestServer
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import Registry
from vinetag.core.vet import Platform, SearchAnswer, shipped_platforms
from vinetag.core.vet.opensearch import (
    SearchError,
    asked_at,
    read_description,
    read_results,
)
from vinetag.lookup import LookupSettings, RetryPolicy
from vinetag.lookup.profiles import HandleAnswer, HandleWanted, fetch_handles
from vinetag.lookup.search import search_for

PLATFORMS = {one.code: one for one in shipped_platforms()}
ODD = "zuqvarendo"


@pytest.fixture
def settings(registry: Registry) -> Iterator[LookupSettings]:
    retry = RetryPolicy(attempts=2, first_wait=0.01, patience=1)
    asked = LookupSettings.from_env(registry.environment)
    yield replace(asked, timeout=0.6, retry=retry)
    registry.faults()


def handles(settings: LookupSettings, *wanted: HandleWanted) -> list[HandleAnswer]:
    return asyncio.run(fetch_handles(settings, wanted))


def search(settings: LookupSettings, *questions: str) -> list[SearchAnswer]:
    return asyncio.run(search_for(settings, questions))


def test_platforms_tell_each_in_its_way(settings: LookupSettings) -> None:
    wanted = [HandleWanted(PLATFORMS[code], ODD) for code in ("larkwire", "murmur", "copperline")]
    found = handles(settings, *wanted)
    assert [one.wanted.platform.code for one in found] == ["larkwire", "murmur", "copperline"]
    assert [one.says for one in found] == ["free", "free", ""]
    assert found[2].why == "the platform does not tell"
    # A word everybody wants is gone nearly everywhere.
    gone = handles(settings, *(HandleWanted(one, "paper") for one in PLATFORMS.values()))
    assert sum(one.says == "taken" for one in gone) > 8


@pytest.mark.parametrize(
    ("fault", "trouble"),
    [("500", "server_error"), ("429", "rate_limited"), ("hangup", "unreachable"),
     ("loss", "timeout")],
)  # fmt: skip
def test_a_platform_in_trouble_is_told_of_and_costs_the_others_nothing(
    settings: LookupSettings, registry: Registry, fault: str, trouble: str
) -> None:
    registry.faults(service="platforms", kind=fault, registry="larkwire", seconds=30)
    lark, quarry = handles(
        settings, HandleWanted(PLATFORMS["larkwire"], ODD), HandleWanted(PLATFORMS["quarry"], ODD)
    )
    assert (lark.says, lark.trouble) == ("", trouble)
    assert lark.why.startswith("the platform")
    assert quarry.says == "free"


def test_a_platform_at_a_private_address_is_never_reached(registry: Registry) -> None:
    """Whatever an address says, or a name leads to."""
    retry = RetryPolicy(attempts=1, patience=1)
    settings = LookupSettings(timeout=1.0, retry=retry, platforms=f"{registry.origin}/")
    port = registry.port
    for host in ("localhost", "127.0.0.1"):
        platform = Platform("x", "X", f"http://{host}:{port}/platforms/larkwire/{{handle}}")
        [found] = handles(settings, HandleWanted(platform, ODD))
        assert (found.says, found.trouble) == ("", "unreachable"), host


def test_without_an_address_of_platforms_paths_are_not_asked() -> None:
    [found] = handles(LookupSettings(), HandleWanted(PLATFORMS["larkwire"], ODD))
    assert (found.says, found.trouble, found.address) == ("", "no_service", "")


def test_a_search_is_answered(settings: LookupSettings) -> None:
    found = search(settings, "paper", "ink post", ODD)
    assert [one.asked for one in found] == ["paper", "ink post", ODD]
    counts = [one.results.count for one in found if one.results]
    assert counts[0] > counts[1] > counts[2]
    assert all(one.results and one.results.first[0].title for one in found[:2])
    [corrected] = search(settings, "papper")
    assert corrected.results is not None
    assert corrected.results.correction == "paper"


@pytest.mark.parametrize("part", ["description", "results"])
@pytest.mark.parametrize("fault", ["500", "429", "webpage", "nonsense", "hangup", "loss"])
def test_a_search_service_in_trouble_is_told_of(
    settings: LookupSettings, registry: Registry, fault: str, part: str
) -> None:
    registry.faults(service="search", kind=fault, registry=part, seconds=30)
    [found] = search(settings, "paper")
    assert found.results is None
    assert found.trouble.startswith("it ")


def test_without_a_service_nothing_is_asked() -> None:
    [found] = search(LookupSettings(), "paper")
    assert (found.results, found.trouble) == (None, "no search service is set up")


DESCRIPTION = (
    '<OpenSearchDescription xmlns="http://a9.com/-/spec/opensearch/1.1/">'
    '<Url type="application/atom+xml" template="{}"/></OpenSearchDescription>'
)
FEED = '<feed xmlns="http://www.w3.org/2005/Atom"><entry><title>{}</title></entry></feed>'


async def _served(description: str, feed: bytes, encoding: str) -> SearchAnswer:
    async def describe(_request: web.Request) -> web.Response:
        return web.Response(text=description)

    async def results(_request: web.Request) -> web.Response:
        return web.Response(body=feed, headers={"Content-Encoding": encoding} if encoding else {})

    app = web.Application()
    app.router.add_get("/d", describe)
    app.router.add_get("/s", results)
    async with TestServer(app) as server:
        retry = RetryPolicy(attempts=1, patience=1)
        settings = LookupSettings(search=str(server.make_url("/d")), retry=retry, timeout=2)
        return (await search_for(settings, ["ink"]))[0]


@pytest.mark.parametrize(
    ("template", "feed", "encoding", "why"),
    [
        ("http://elsewhere.example/{searchTerms}", b"", "", "it is"),
        ("/s?q={searchTerms}&amp;k={key}", b"", "", "wants"),
        ("/s?q=", b"", "", "no place"),
        ("/s?q={searchTerms}", FEED.format("x" * 700_000).encode(), "", "no sense"),
        ("/s?q={searchTerms}", gzip.compress(b"<a>" * 5_000_000), "gzip", "no sense"),
        ("/s?q={searchTerms}", b"<!DOCTYPE a [<!ENTITY b 'c'>]><a>&b;</a>", "", "refused"),
    ],
)
def test_hostile_documents_are_values(template: str, feed: bytes, encoding: str, why: str) -> None:
    found = asyncio.run(_served(DESCRIPTION.format(template), feed, encoding))
    assert found.results is None
    assert why in found.trouble or "another host" in found.trouble


def test_a_relative_template_is_of_the_service() -> None:
    found = asyncio.run(
        _served(DESCRIPTION.format("/s?q={searchTerms}"), FEED.format("A").encode(), "")
    )
    assert found.results is not None
    assert [one.title for one in found.results.first] == ["A"]


def test_words_are_put_into_the_address() -> None:
    template = "https://s.example/?q={searchTerms}&n={count?}&l={language?}&x={other?}"
    assert asked_at(template, "ink & post", 7) == "https://s.example/?q=ink%20%26%20post&n=7&l=*&x="
    with pytest.raises(SearchError, match="wants 'key'"):
        asked_at("https://s.example/{searchTerms}/{key}", "x", 1)


@pytest.mark.parametrize("count", ["-3", "x", "9" * 40, "²", ""])
def test_a_count_that_is_none_is_what_was_found(count: str) -> None:
    feed = (
        '<feed xmlns="http://www.w3.org/2005/Atom" xmlns:o="http://a9.com/-/spec/opensearch/1.1/">'
        f"<o:totalResults>{count}</o:totalResults><entry><title>A</title></entry></feed>"
    )
    assert read_results(feed.encode()).count == 1


@given(st.binary(max_size=400))
def test_no_bytes_break_the_readers(body: bytes) -> None:
    for content in (body, b"<feed xmlns='http://www.w3.org/2005/Atom'>" + body + b"</feed>"):
        for reader in (read_description, read_results):
            try:
                reader(content)
            except SearchError:
                continue
