"""Every kind of source is complete: in the core, with someone who asks it, and with its words."""

from typing import get_args

import pytest

from vinetag.core.checking import (
    SOURCES,
    Evidence,
    Says,
    Source,
    Trouble,
    in_words,
    next_step,
    verdict,
)
from vinetag.core.checking.sources import IN_ORDER, Authority
from vinetag.lookup.sources import dns, gateway, quote, rdap, whois

ASKED = {
    source.name
    for source in (
        dns.DnsSource, gateway.GatewaySource, rdap.RdapSource, whois.WhoisSource, quote.QuoteSource,
    )
}  # fmt: skip


def test_every_kind_has_someone_who_asks_it_and_every_authority_an_order() -> None:
    assert set(SOURCES) == set(get_args(Source))
    # Rules, lists of markets and zones are there: nobody is asked for them.
    there = ("rules", "market", "zone")
    assert {name for name in SOURCES if name not in there} == ASKED
    assert sorted(name for names in IN_ORDER.values() for name in names) == sorted(SOURCES)
    for names in IN_ORDER.values():
        costs = [SOURCES[name].cost for name in names]
        assert costs == sorted(costs)
    assert set(IN_ORDER) == set(get_args(Authority))


@pytest.mark.parametrize("name", SOURCES)
def test_every_kind_can_be_told_of(name: Source) -> None:
    kind = SOURCES[name]
    assert kind.word[0].isupper()
    assert kind.summary.endswith(".")
    if kind.authority != "rules":
        evidence = Evidence(name, "", None, trouble="timeout")  # type: ignore[arg-type]
        assert in_words(evidence).startswith(kind.word)


@pytest.mark.parametrize("registry", IN_ORDER["registry"])
def test_any_registry_has_the_last_word(registry: Source) -> None:
    can: tuple[Source, ...] = ("dns", registry, "quote")
    known = {"dns": Evidence("dns", "absent", None)}  # type: ignore[arg-type]
    assert next_step(known, "scan", can) == registry
    assert verdict(known, can).status == "unsure"
    open_ = {**known, registry: Evidence(registry, "unregistered", None)}  # type: ignore[arg-type]
    assert (verdict(open_, can).status, verdict(open_, can).likely) == ("open", False)
    assert next_step(open_, "buying", can) == "quote"


def test_the_next_registry_is_asked_where_one_gave_nothing() -> None:
    first, second, *_ = IN_ORDER["registry"]
    failed = {first: Evidence(first, "", None, trouble="timeout")}  # type: ignore[arg-type]
    assert next_step(failed, "scan", (first, second)) == second
    assert next_step(failed, "scan", (first,)) is None
    assert verdict(failed, (first, second)).trouble == "timeout"
    knows = {**failed, second: Evidence(second, "registered", None)}  # type: ignore[arg-type]
    assert next_step(knows, "scan", (first, second)) is None
    assert verdict(knows, (first, second)).status == "taken"


ABSENT = {"dns": Evidence("dns", "absent", None)}  # type: ignore[arg-type]
WITH_ACCOUNT: tuple[Source, ...] = ("dns", "gateway", "rdap", "quote")


def said(source: Source, says: Says, trouble: Trouble = "") -> dict[Source, Evidence]:
    return {source: Evidence(source, says, None, trouble=trouble)}  # type: ignore[arg-type]


@pytest.mark.parametrize(("says", "status"), [("usual", "open"), ("premium", "premium")])
def test_an_account_has_the_last_word_that_a_name_is_open(says: Says, status: str) -> None:
    assert next_step(ABSENT, "scan", WITH_ACCOUNT) == "gateway"
    known = {**ABSENT, **said("gateway", says)}
    assert next_step(known, "scan", WITH_ACCOUNT) is None
    assert next_step(known, "buying", WITH_ACCOUNT) is None
    found = verdict(known, WITH_ACCOUNT)
    assert (found.status, found.likely) == (status, False)
    # Whoever says otherwise makes it unsure.
    for other in (said("rdap", "registered"), said("dns", "delegated"), said("quote", "offered")):
        assert verdict({**known, **other}, WITH_ACCOUNT).trouble == "contradiction"


def test_why_a_name_cannot_be_had_only_the_registry_says() -> None:
    known = {**ABSENT, **said("gateway", "unavailable")}
    assert next_step(known, "scan", WITH_ACCOUNT) == "rdap"
    assert verdict({**known, **said("rdap", "dropping")}, WITH_ACCOUNT).status == "dropping"
    assert verdict({**known, **said("rdap", "reserved")}, WITH_ACCOUNT).status == "reserved"
    free = verdict({**known, **said("rdap", "unregistered")}, WITH_ACCOUNT)
    assert (free.status, free.trouble) == ("unsure", "contradiction")
    silent = verdict({**known, **said("rdap", "", "timeout")}, WITH_ACCOUNT)
    assert (silent.status, silent.likely) == ("taken", True)


def test_an_account_that_fails_leaves_all_to_the_registry() -> None:
    known = {**ABSENT, **said("gateway", "", "unreachable")}
    assert next_step(known, "scan", WITH_ACCOUNT) == "rdap"
    assert verdict({**known, **said("rdap", "unregistered")}, WITH_ACCOUNT).status == "open"
