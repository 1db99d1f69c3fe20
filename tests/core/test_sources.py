"""Every kind of source is complete: in the core, with someone who asks it, and with its words."""

from typing import get_args

import pytest

from vinetag.core.checking import SOURCES, Evidence, Source, in_words, next_step, verdict
from vinetag.core.checking.sources import IN_ORDER, Authority
from vinetag.lookup.sources import dns, quote, rdap, whois

ASKED = {
    source.name for source in (dns.DnsSource, rdap.RdapSource, whois.WhoisSource, quote.QuoteSource)
}


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
