"""A host of zones, and the world that looks at them: whatever either says is a value."""

from __future__ import annotations

import asyncio
import time
from collections.abc import Callable
from typing import Any

import dns.dnssec
import dns.dnssectypes
import dns.flags
import dns.message
import dns.name
import dns.node
import dns.query
import dns.rcode
import dns.rdata
import dns.rdatatype
import dns.rrset
import dns.tsig
import dns.update
import dns.xfr
import dns.zone
import pytest
from cryptography.hazmat.primitives.asymmetric import ec
from hypothesis import given
from hypothesis import strategies as st

from standins.books import Books
from standins.hosting import CATALOG
from standins.hosting import Hosting as Host
from tests.conftest import WORD, Registry
from vinetag.core.zone import read_record
from vinetag.lookup import outside
from vinetag.lookup.env import SettingsError
from vinetag.lookup.hosting import Hosting, HostingSettings, hosting_from_env, simulated_hosting
from vinetag.lookup.outside import Outside, look, texts_at

ORIGIN = "inkquill-zone.com"
ROWS = [("@", "A", "8.8.8.8"), ("www", "CNAME", "@"), ("*.dev", "TXT", "any"), ("@", "TXT", "hi")]
RECORDS = [read_record(ORIGIN, name, kind, 300, data) for name, kind, data in ROWS]


def settings_of(registry: Registry, **other: str) -> HostingSettings:
    given_env = simulated_hosting(registry.port, registry.dns_port, WORD)
    found = hosting_from_env({**given_env, **other})
    assert found is not None
    return found


def asked(registry: Registry, name: str, kind: str) -> dns.message.Message:
    query = dns.message.make_query(name, kind)
    return dns.query.udp(query, "127.0.0.61", 3, registry.dns_port)


# The host speaks the standards: a client of the library drives it, and none of ours.


def test_the_host_speaks_updates_transfers_and_catalogues(registry: Registry) -> None:
    where, port = "127.0.0.61", registry.dns_port
    key = settings_of(registry)
    keys = {dns.name.from_text("vine-tag"): dns.tsig.Key("vine-tag", key.secret, "hmac-sha256")}

    def send(update: dns.update.UpdateMessage, *, signed: bool = True) -> int:
        if signed:
            update.use_tsig(keys)
        return dns.query.tcp(update, where, 3, port).rcode()

    name = "contract-zone.com"
    assert asked(registry, name, "A").rcode() == dns.rcode.REFUSED
    listed = dns.update.UpdateMessage(CATALOG)
    listed.add("1.zones", 0, "PTR", f"{name}.")
    assert send(listed, signed=False) == dns.rcode.REFUSED
    assert send(listed) == dns.rcode.NOERROR
    change = dns.update.UpdateMessage(name)
    change.absent("www")
    change.add("@", 300, "A", "8.8.8.8")
    change.add("www", 300, "CNAME", f"{name}.")
    assert send(change) == dns.rcode.NOERROR
    reply = asked(registry, f"www.{name}", "A")
    assert [one.rdtype for one in reply.answer] == [dns.rdatatype.CNAME, dns.rdatatype.A]
    assert reply.flags & dns.flags.AA
    nothing = asked(registry, f"nothing.{name}", "A")
    assert (nothing.rcode(), len(nothing.authority)) == (dns.rcode.NXDOMAIN, 1)
    assert asked(registry, f"www.{name}", "MX").rcode() == dns.rcode.NOERROR
    # A prerequisite that does not hold changes nothing.
    twice = dns.update.UpdateMessage(name)
    twice.present("@", "A", "9.9.9.9")
    twice.delete("@", "A")
    assert send(twice) == dns.rcode.NXRRSET
    outside_of_it = dns.update.UpdateMessage(name)
    outside_of_it.add(dns.name.from_text("other.com"), 300, "A", "8.8.8.8")
    assert send(outside_of_it) == dns.rcode.NOTZONE
    zone = dns.zone.Zone(name)
    query, _ = dns.xfr.make_query(zone, keyring=keys)
    dns.query.inbound_xfr(where, zone, query, port=port, timeout=3, lifetime=3)
    assert {str(at) for at in zone.nodes} == {"@", "www"}
    gone = dns.update.UpdateMessage(CATALOG)
    gone.delete("1.zones")
    assert send(gone) == dns.rcode.NOERROR
    assert asked(registry, name, "A").rcode() == dns.rcode.REFUSED


@given(st.binary(max_size=300))
def test_the_host_answers_whatever_comes(wire: bytes) -> None:
    answer = HOST.answer(wire)
    assert answer is None or len(answer) >= 12


HOST = Host(Books())


# Putting zones into force.


def test_what_is_in_force_is_what_was_put_however_often(registry: Registry) -> None:
    hosting = Hosting(settings_of(registry))
    first = hosting.publish(ORIGIN, RECORDS)
    assert (first.trouble, first.serial) == ("", 2)
    assert hosting.publish(ORIGIN, RECORDS).serial == 2
    assert len(asked(registry, f"x.dev.{ORIGIN}", "TXT").answer) == 1
    fewer = hosting.publish(ORIGIN, RECORDS[:1])
    assert fewer.serial == 3
    assert asked(registry, f"www.{ORIGIN}", "CNAME").rcode() == dns.rcode.NXDOMAIN
    # Another time for the same data is another state.
    longer = [read_record(ORIGIN, "@", "A", 900, "8.8.8.8")]
    hosting.publish(ORIGIN, longer)
    assert asked(registry, ORIGIN, "A").answer[0].ttl == 900
    assert hosting.withdraw(ORIGIN).trouble == ""
    assert asked(registry, ORIGIN, "A").rcode() == dns.rcode.REFUSED


def test_somebody_who_changes_it_meanwhile_is_not_written_over(
    registry: Registry, monkeypatch: pytest.MonkeyPatch
) -> None:
    name = "meanwhile-zone.com"
    hosting = Hosting(settings_of(registry))
    hosting.publish(name, [])
    real, times = Hosting._read, []

    def read(self: Hosting, origin: str) -> Any:
        zone = real(self, origin)
        times.append(origin)
        if len(times) == 1:
            other = read_record(name, "other", "A", 300, "9.9.9.9")
            Hosting(settings_of(registry)).publish(name, [other])
        return zone

    monkeypatch.setattr(Hosting, "_read", read)
    done = hosting.publish(name, [read_record(name, "@", "A", 300, "8.8.8.8")])
    assert done.trouble == ""
    assert asked(registry, f"other.{name}", "A").rcode() == dns.rcode.NXDOMAIN
    hosting.withdraw(name)


def test_servers_that_are_away_refuse_or_say_nonsense_are_values(registry: Registry) -> None:
    away = HostingSettings([("ns1.host.example", "127.0.0.1")], 9, "k", "c2VjcmV0", "c.example")
    assert Hosting(away).publish(ORIGIN, RECORDS).trouble == "unreachable"
    # A server of something else altogether.
    web = HostingSettings(
        [("ns1.host.example", "127.0.0.1")], registry.port, "k", "c2VjcmV0", "c.x", seconds=2
    )
    assert Hosting(web).publish(ORIGIN, RECORDS).trouble in ("unreachable", "nonsense", "refused")
    foreign = settings_of(registry, VINETAG_HOSTING_KEY="vine-tag:d3Jvbmc=")
    assert Hosting(foreign).publish(ORIGIN, RECORDS).trouble


@pytest.mark.parametrize(
    "given_env",
    [
        {"VINETAG_HOSTING": "ns1.host.example"},
        {"VINETAG_HOSTING": "ns1.host.example=192.0.2.1"},
        {"VINETAG_HOSTING": "a=1", "VINETAG_HOSTING_KEY": "k:not base64"},
        {"VINETAG_HOSTING": "a=1", "VINETAG_HOSTING_KEY": "k:c2VjcmV0", "VINETAG_FORWARDER": "x:y"},
    ],
)
def test_settings_that_cannot_be_are_told_without_the_secret(given_env: dict[str, str]) -> None:
    with pytest.raises(SettingsError) as told:
        hosting_from_env(given_env)
    assert "c2VjcmV0" not in str(told.value)
    assert hosting_from_env({}) is None


# Looking from outside.

SIGNED = dns.name.from_text("signed.com")
SECRET = ec.generate_private_key(ec.SECP256R1())
DNSKEY = dns.dnssec.make_dnskey(SECRET.public_key(), dns.dnssectypes.Algorithm.ECDSAP256SHA256)
KEYS = dns.rrset.from_rdata(SIGNED, 300, DNSKEY)
SIGNATURES = dns.rrset.from_rdata(
    SIGNED, 300,
    dns.dnssec.sign(KEYS, SECRET, SIGNED, DNSKEY, lifetime=86_400, verify=True),
)  # fmt: skip
SIGNER = dns.dnssec.make_ds(SIGNED, DNSKEY, "SHA256")
OTHER = dns.rdata.from_text("IN", "DS", "1 13 2 " + "ab" * 32)
EXPIRED = dns.rrset.from_rdata(
    SIGNED, 300,
    dns.dnssec.sign(KEYS, SECRET, SIGNED, DNSKEY, inception=1_000_000, expiration=1_100_000),
)  # fmt: skip


@pytest.mark.parametrize(
    ("signers", "answer", "found"),
    [
        ([SIGNER], [KEYS, SIGNATURES], "good"), ([OTHER], [KEYS, SIGNATURES], "broken"),
        ([SIGNER], [KEYS], "broken"), ([SIGNER], [], "broken"), ([], [], "none"),
        ([SIGNER], [KEYS, EXPIRED], "broken"), ([], [KEYS, SIGNATURES], "unused"),
    ],
)  # fmt: skip
def test_signatures_hold_or_do_not(signers: Any, answer: Any, found: str) -> None:
    assert outside._signing("signed.com", signers, answer) == found


class Server(asyncio.DatagramProtocol):
    """Answers every question as `reply` says, or not at all."""

    def __init__(self, reply: Callable[[bytes], bytes | None]) -> None:
        self.reply = reply

    def connection_made(self, transport: Any) -> None:
        self.transport = transport

    def datagram_received(self, data: bytes, addr: Any) -> None:
        answer = self.reply(data)
        if answer is not None:
            self.transport.sendto(answer, addr)


def servfail(wire: bytes) -> bytes:
    reply = dns.message.make_response(dns.message.from_wire(wire))
    reply.set_rcode(dns.rcode.SERVFAIL)
    return reply.to_wire()


@pytest.mark.parametrize(
    "reply", [lambda _w: None, servfail, lambda _w: b"\xff" * 40, lambda w: w, lambda _w: b""]
)
async def test_a_resolver_that_says_nothing_of_use_leaves_all_of_it_open(
    reply: Callable[[bytes], bytes | None], monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(outside, "A_TRY", 0.2)
    loop = asyncio.get_running_loop()
    transport, _ = await loop.create_datagram_endpoint(lambda: Server(reply), ("127.0.0.1", 0))
    port = transport.get_extra_info("sockname")[1]
    where = Outside("127.0.0.1", port, port)
    began = time.monotonic()
    found = await look(ORIGIN, [(ORIGIN, "A")], where)
    assert time.monotonic() - began < 5
    assert (found.parent, found.signing, list(found.servers)) == (None, "unknown", [])
    assert not found.seen
    assert await texts_at(ORIGIN, where) == []
    transport.close()


async def test_a_name_of_the_world_is_seen_as_it_is(registry: Registry) -> None:
    where = Outside("127.0.0.1", registry.dns_port, registry.dns_port, anywhere=True)
    found = await look("coffee.com", [("coffee.com", "A")], where)
    assert found.parent
    assert {one.state for one in found.servers} == {"good"}
    assert found.signing == "none"
    nobody = await look("qzx81k2mzz.com", [], where)
    assert nobody.parent == []
    # Where a name's servers are, whoever holds it says: not into our own network.
    strict = Outside("127.0.0.1", registry.dns_port, registry.dns_port)
    seen = await look("coffee.com", [("coffee.com", "A")], strict)
    assert {one.state for one in seen.servers} == {"unfound"}
