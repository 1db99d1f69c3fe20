"""Sellers asked about single names, whatever they answer."""

from __future__ import annotations

import asyncio
from collections.abc import Iterator

import pytest

from tests.conftest import Registry
from vinetag.core.checking import Evidence
from vinetag.core.names import FullName
from vinetag.lookup import LookupSettings, RetryPolicy
from vinetag.lookup.quotes import QuoteWanted, fetch_quotes, may_be_asked

ODD = FullName("vlorkinquelt", "com")


@pytest.fixture
def settings(registry: Registry) -> Iterator[LookupSettings]:
    retry = RetryPolicy(attempts=2, first_wait=0.01, patience=1)
    yield LookupSettings(sellers=f"{registry.origin}/sellers.json", timeout=0.6, retry=retry)
    registry.faults()


def ask(settings: LookupSettings, *wanted: QuoteWanted) -> list[Evidence]:
    return asyncio.run(fetch_quotes(settings, wanted))


def of(seller: str, name: FullName = ODD) -> QuoteWanted:
    return QuoteWanted(seller, f"/sellers/{seller}/", name)


def test_each_answers_in_its_own_currency_and_in_their_order(settings: LookupSettings) -> None:
    found = ask(settings, of("weir"), of("hazel"), of("quillgate"))
    assert [one.says for one in found] == ["usual"] * 3
    assert [one.quote.currency for one in found if one.quote] == ["EUR", "SEK", "GBP"]
    # Sold there or not is a question of the extension.
    [nowhere] = ask(settings, of("hazel", FullName("vlorkinquelt", "ie")))
    assert (nowhere.says, nowhere.trouble) == ("", "no_service")


@pytest.mark.parametrize(
    ("fault", "trouble"),
    [
        ("500", "server_error"),
        ("webpage", "nonsense"),
        ("nonsense", "nonsense"),
        ("hangup", "unreachable"),
        ("loss", "timeout"),
        ("429", "rate_limited"),
    ],
)
def test_what_goes_wrong_at_one_is_told_of_that_one_alone(
    settings: LookupSettings, registry: Registry, fault: str, trouble: str
) -> None:
    registry.faults(service="lists", registry="weir quotes", kind=fault, seconds=30)
    weir, lantern = ask(settings, of("weir"), of("lantern"))
    assert (weir.trouble, weir.quote) == (trouble, None)
    assert lantern.says == "usual"


@pytest.mark.parametrize(
    "address",
    ["http://elsewhere.example/", "//elsewhere.example/", "https://127.0.0.1/", "ftp://x/", ""],
)
def test_only_the_host_of_the_settings_is_asked(settings: LookupSettings, address: str) -> None:
    assert not may_be_asked(settings, address)
    [found] = ask(settings, QuoteWanted("weir", address, ODD))
    assert (found.trouble, found.quote) == ("refused", None)
    assert not may_be_asked(LookupSettings(), "/sellers/weir/")
