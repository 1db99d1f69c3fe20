"""Whom the registry sends the world to, and what is found there, by a world of a few lines."""

from __future__ import annotations

import asyncio
import struct
import time
from collections.abc import AsyncIterator, Callable, Mapping
from contextlib import asynccontextmanager
from typing import Any

import dns.flags
import dns.message
import dns.rcode
import dns.rrset
import pytest

from vinetag.lookup import outside
from vinetag.lookup.outside import Outside, look, texts_at

NAME = "ink.com"
RESOLVER, PARENT, FIRST, SECOND = (f"127.0.9.{n}" for n in range(1, 5))
Answer = Callable[[str, str], tuple[int, list[str], list[str]] | None]


def found(*lines: str) -> tuple[int, list[str], list[str]]:
    return dns.rcode.NOERROR, list(lines), []


def referral(*lines: str) -> tuple[int, list[str], list[str]]:
    return dns.rcode.NOERROR, [], list(lines)


NOTHING = found()
RESOLVED = {
    ("com", "NS"): found("com. 300 IN NS ns.parent.example."),
    ("ns.parent.example", "A"): found(f"ns.parent.example. 300 IN A {PARENT}"),
    ("ns1.host.example", "A"): found(f"ns1.host.example. 300 IN A {FIRST}"),
    ("ns2.host.example", "A"): found(f"ns2.host.example. 300 IN A {SECOND}"),
    (NAME, "A"): found(f"{NAME}. 300 IN A 8.8.8.8"),
}
DELEGATED = {
    (NAME, "NS"): referral(
        f"{NAME}. 300 IN NS ns2.host.example.", f"{NAME}. 300 IN NS NS1.host.example."
    ),
}
SERVED = {
    (NAME, "SOA"): found(f"{NAME}. 300 IN SOA ns1.host.example. h.{NAME}. 7 1 1 1 1"),
    (NAME, "A"): found(f"{NAME}. 300 IN A 8.8.8.8"),
}
Zone = Mapping[tuple[str, str], Any]


def reply_to(wire: bytes, zone: Zone, *, tcp: bool) -> bytes | None:
    asked = dns.message.from_wire(wire)
    question = asked.question[0]
    key = question.name.to_text(omit_final_dot=True), question.rdtype.name
    said = zone.get(key, zone.get(("*", "*"), NOTHING))
    if said is None:
        return None
    reply = dns.message.make_response(asked)
    reply.flags |= dns.flags.AA
    if said == "truncated" and not tcp:
        reply.flags |= dns.flags.TC
        return reply.to_wire()
    code, answer, authority = zone["tcp", "tcp"] if said == "truncated" else said
    reply.set_rcode(code)
    for lines, section in ((answer, reply.answer), (authority, reply.authority)):
        for line in lines:
            owner, ttl, group, kind, data = line.split(None, 4)
            section.append(dns.rrset.from_text(owner, int(ttl), group, kind, data))
    return reply.to_wire()


class Udp(asyncio.DatagramProtocol):
    def __init__(self, zone: Zone) -> None:
        self.zone = zone

    def connection_made(self, transport: Any) -> None:
        self.transport = transport

    def datagram_received(self, data: bytes, addr: Any) -> None:
        answer = reply_to(data, self.zone, tcp=False)
        if answer is not None:
            self.transport.sendto(answer, addr)


@asynccontextmanager
async def world(**servers: Zone) -> AsyncIterator[Outside]:
    """Servers at addresses of loopback, all at one port; those not given are away."""
    loop = asyncio.get_running_loop()
    places = {"resolver": RESOLVER, "parent": PARENT, "first": FIRST, "second": SECOND}
    zones = {"resolver": RESOLVED, "parent": DELEGATED, "first": SERVED, "second": SERVED}
    port, closing = 0, []

    async def talk(zone: Zone, reader: Any, writer: Any) -> None:
        (length,) = struct.unpack("!H", await reader.readexactly(2))
        answer = reply_to(await reader.readexactly(length), zone, tcp=True) or b""
        writer.write(struct.pack("!H", len(answer)) + answer)
        await writer.drain()
        writer.close()

    for name, zone in {**zones, **servers}.items():
        if not zone:
            continue
        udp, _ = await loop.create_datagram_endpoint(
            lambda zone=zone: Udp(zone), (places[name], port)
        )
        port = port or udp.get_extra_info("sockname")[1]
        tcp = await asyncio.start_server(
            lambda r, w, zone=zone: talk(zone, r, w), places[name], port
        )
        closing += [udp, tcp]
    try:
        yield Outside(RESOLVER, port, port, anywhere=True)
    finally:
        for one in closing:
            one.close()


@pytest.fixture(autouse=True)
def _impatient(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(outside, "A_TRY", 0.3)


async def seen(**servers: Zone) -> Any:
    async with world(**servers) as where:
        return await look(NAME, [(NAME, "A"), (f"www.{NAME}", "CNAME")], where)


async def test_a_referral_names_the_servers_and_each_is_asked() -> None:
    looked = await seen()
    assert looked.parent == ["ns1.host.example", "ns2.host.example"]
    assert [(one.state, one.serial) for one in looked.servers] == [("good", 7)] * 2
    # What is not there is known not to be.
    answers = {(NAME, "A"): frozenset({"8.8.8.8"}), (f"www.{NAME}", "CNAME"): frozenset()}
    assert looked.servers[0].answers == answers
    assert looked.seen == answers
    assert looked.signing == "none"


REFUSED = {("*", "*"): (dns.rcode.REFUSED, [], [])}


@pytest.mark.parametrize(
    ("servers", "states"),
    [
        ({"second": REFUSED}, ["good", "lame"]),
        # An answer without a start of authority is a resolver's, or nobody's.
        ({"second": {("*", "*"): NOTHING}}, ["good", "lame"]),
        ({"second": {("*", "*"): None}}, ["good", "silent"]),
        ({"first": {}, "second": {}}, ["silent", "silent"]),
    ],
)
async def test_servers_that_know_nothing_or_are_away_are_told_apart(
    servers: dict[str, Any], states: list[str]
) -> None:
    looked = await seen(**servers)
    assert [one.state for one in looked.servers] == states


async def test_a_server_nobody_has_an_address_of_is_not_found() -> None:
    nowhere = {**RESOLVED, ("ns2.host.example", "A"): NOTHING}
    looked = await seen(resolver=nowhere)
    assert [one.state for one in looked.servers] == ["good", "unfound"]


async def test_where_the_registry_is_away_the_resolver_is_believed() -> None:
    told = {**RESOLVED, (NAME, "NS"): found(f"{NAME}. 300 IN NS ns1.host.example.")}
    looked = await seen(resolver=told, parent={})
    assert looked.parent == ["ns1.host.example"]
    gone = {**RESOLVED, (NAME, "NS"): (dns.rcode.SERVFAIL, [], [])}
    assert (await seen(resolver=gone, parent={})).parent is None


async def test_a_name_the_registry_does_not_know_has_no_servers() -> None:
    looked = await seen(parent={("*", "*"): (dns.rcode.NXDOMAIN, [], [])})
    assert (looked.parent, looked.servers) == ([], [])


async def test_what_does_not_fit_a_datagram_is_asked_again_over_tcp() -> None:
    long = " ".join(f'"{"x" * 250}"' for _ in range(8))
    zone = {
        (NAME, "TXT"): "truncated",
        ("tcp", "tcp"): found(f"{NAME}. 300 IN TXT {long}"),
    }
    async with world(resolver=zone) as where:
        [text] = await texts_at(NAME, where)
    assert text == "x" * 2_000


async def test_records_of_another_name_are_none_of_this_one() -> None:
    lying = {**SERVED, (NAME, "A"): found("other.com. 300 IN A 9.9.9.9")}
    looked = await seen(first=lying)
    assert looked.servers[0].answers[NAME, "A"] == frozenset()


async def test_however_slow_all_of_it_is_it_ends(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(outside, "SECONDS", 1.0)
    silent = {("*", "*"): None}
    keys = [(f"h{n}.{NAME}", "A") for n in range(500)]
    began = time.monotonic()
    async with world(first=silent | {(NAME, "SOA"): SERVED[NAME, "SOA"]}) as where:
        looked = await look(NAME, keys, where)
    assert time.monotonic() - began < 4
    assert looked.parent
    assert looked.servers[0].state == "silent"
