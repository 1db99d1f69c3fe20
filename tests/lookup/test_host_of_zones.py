"""Whatever is put into force one after another, the host answers exactly the last of it."""

from __future__ import annotations

from typing import Any

import dns.flags
import dns.message
import dns.query
import dns.rcode
import dns.rdatatype
import dns.xfr
import pytest
from hypothesis import HealthCheck, given
from hypothesis import settings as hypothesis_settings
from hypothesis import strategies as st

from standins.books import Books
from standins.hosting import HOSTS
from standins.hosting import Hosting as Host
from tests.conftest import WORD
from vinetag.core.zone import Record, judge, read_record
from vinetag.core.zone.records import name_in
from vinetag.lookup.hosting import Hosting, hosting_from_env, simulated_hosting

ORIGIN = "inkquill.com"
labels = st.sampled_from(["@", "www", "mail", "*", "*.dev", "a.b", "_sip._tcp"])
rows = st.one_of(
    st.tuples(labels, st.just("A"), st.ip_addresses(v=4).map(str)),
    st.tuples(labels, st.just("TXT"), st.sampled_from(["hi", 'say "ink"', "x" * 400, "naïve;"])),
    st.tuples(labels, st.just("MX"), st.sampled_from(["10 mail", "20 mx.other.example", "0 ."])),
    st.tuples(labels, st.just("CNAME"), st.sampled_from(["www", "@", "shop.example"])),
    st.tuples(labels, st.just("CAA"), st.just('0 issue "ca.example"')),
    st.tuples(labels, st.just("URI"), st.just('10 1 "https://shop.example/"')),
)


@st.composite
def zones(draw: st.DrawFn) -> list[Record]:
    """Records that can be put into force: what is wrong with them is left out."""
    found: list[Record] = []
    for name, kind, data in draw(st.lists(rows, max_size=12)):
        ttl = draw(st.sampled_from([300, 3_600]))
        one = read_record(ORIGIN, name, kind, ttl, data)
        if not any(remark.wrong for remark in judge(ORIGIN, [*found, one])):
            found.append(one)
    return found


@pytest.fixture
def host(monkeypatch: pytest.MonkeyPatch) -> Host:
    """In this process: messages go to it without a wire, signed as they would be."""
    monkeypatch.setenv("VINETAG_ZONE_WORD", WORD)
    made = Host(Books())

    def tcp(query: Any, *_: Any, xfr: bool = False, **__: Any) -> dns.message.Message:
        answer = made.answer(query.to_wire())
        assert answer is not None
        return dns.message.from_wire(
            answer, keyring=query.keyring, request_mac=query.mac, xfr=xfr, one_rr_per_rrset=xfr
        )

    def transfer(_where: str, zone: Any, query: Any, **_: Any) -> None:
        reply = tcp(query, xfr=True)
        if reply.rcode() != dns.rcode.NOERROR:
            raise dns.xfr.TransferError(reply.rcode())
        with dns.xfr.Inbound(zone, dns.rdatatype.AXFR) as inbound:
            assert inbound.process_message(reply)

    monkeypatch.setattr(dns.query, "tcp", tcp)
    monkeypatch.setattr(dns.query, "inbound_xfr", transfer)
    return made


def asked(host: Host, name: str, kind: str) -> dns.message.Message:
    answer = host.answer(dns.message.make_query(name, kind).to_wire())
    assert answer is not None
    return dns.message.from_wire(answer)


@hypothesis_settings(max_examples=60, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(st.lists(zones(), min_size=1, max_size=4))
def test_the_last_zone_is_what_is_answered(host: Host, several: list[list[Record]]) -> None:
    known = hosting_from_env(simulated_hosting(1, 1, WORD))
    assert known is not None
    hosting = Hosting(known)
    serials = []
    for records in several:
        done = hosting.publish(ORIGIN, records)
        assert done.trouble == "", done
        serials.append(done.serial)
        # Once more is no change.
        assert hosting.publish(ORIGIN, records).serial == done.serial
    assert serials == sorted(serials)
    wanted: dict[tuple[str, str], set[tuple[str, int]]] = {}
    for one in several[-1]:
        key = name_in(ORIGIN, one.name), one.kind
        wanted.setdefault(key, set()).add((one.data, one.ttl))
    for (name, kind), data in wanted.items():
        reply = asked(host, name, kind)
        sets = [one for one in reply.answer if one.rdtype == dns.rdatatype.from_text(kind)]
        assert {(rdata.to_text(), sets[0].ttl) for rdata in sets[0]} == data
        assert reply.flags & dns.flags.AA
    servers = asked(host, ORIGIN, "NS").answer[0]
    assert {rdata.to_text(omit_final_dot=True) for rdata in servers} == set(HOSTS)
    # What is not in it is not there, unless a star stands for it.
    stars = any(one.name == "*" for one in several[-1])
    nothing = asked(host, f"nothing-here.{ORIGIN}", "AAAA")
    assert nothing.rcode() == (dns.rcode.NOERROR if stars else dns.rcode.NXDOMAIN)
