"""Name servers of a host where people keep zones of their own: two addresses that answer for them.

Zones are changed by dynamic updates (RFC 2136) and read whole by transfers (RFC 5936), both signed
(RFC 8945); which zones there are, a catalogue says (RFC 9432), which is changed the same way.
"""

from __future__ import annotations

import base64
import os
from collections.abc import Iterable
from typing import Any, Final

import dns.exception
import dns.flags
import dns.message
import dns.name
import dns.opcode
import dns.rcode
import dns.rdata
import dns.rdataclass
import dns.rdatatype
import dns.rrset
import dns.tsig
import dns.update

from standins.books import Books, Zone

__all__ = ["ADDRESSES", "CATALOG", "FORWARDER", "HOSTS", "KEY", "OTHERS", "Hosting"]

HOSTS: Final = ("ns1.trellis-host.example", "ns2.trellis-host.example")
ADDRESSES: Final = ("127.0.0.61", "127.0.0.62")
# Where all other name servers of the world are, and whoever sends visitors on.
OTHERS: Final = "127.0.0.63"
FORWARDER: Final = "127.0.0.64"
CATALOG: Final = "catalog.trellis-host.example"
KEY: Final = "vine-tag"
TTL: Final = 300
MOST_ALIASES: Final = 8
CLASS: Final = dns.rdataclass.IN
Row = list[str]


class Hosting:
    """All of the zones, kept in the books."""

    def __init__(self, books: Books) -> None:
        self._books = books
        word = os.environ.get("VINETAG_ZONE_WORD", "simulated-word")
        secret = base64.b64encode(word.encode()).decode()
        key = dns.tsig.Key(KEY, secret, "hmac-sha256")
        self._keys = {key.name: key}
        if CATALOG not in books.zones:
            books.put("zone", CATALOG, Zone(CATALOG, 1, [["version", "0", "TXT", '"2"']]))

    def zone_of(self, name: str) -> Zone | None:
        """The zone a name is in."""
        while name:
            if name in self._books.zones and name != CATALOG:
                return self._books.zones[name]
            name = name.partition(".")[2]
        return None

    def answer(self, wire: bytes) -> bytes | None:
        """To a message to one of the two addresses: a question, a transfer or an update."""
        try:
            asked = dns.message.from_wire(wire, keyring=self._keys)
        except (dns.tsig.PeerError, dns.tsig.BadSignature, dns.message.UnknownTSIGKey):
            return self._refusal(wire, dns.rcode.NOTAUTH)
        except dns.exception.DNSException:
            return self._refusal(wire, dns.rcode.FORMERR)
        if isinstance(asked, dns.update.UpdateMessage):
            reply = dns.message.make_response(asked)
            reply.set_rcode(self._update(asked) if asked.had_tsig else dns.rcode.REFUSED)
            return reply.to_wire()
        if len(asked.question) != 1 or asked.opcode() != dns.opcode.QUERY:
            return self._refusal(wire, dns.rcode.NOTIMP)
        reply = dns.message.make_response(asked)
        [question] = asked.question
        name = question.name.to_text(omit_final_dot=True).lower()
        if question.rdtype == dns.rdatatype.AXFR:
            self._transfer(reply, name, signed=asked.had_tsig)
            return reply.to_wire(max_size=65535)
        zone = self.zone_of(name)
        if zone is None:
            reply.set_rcode(dns.rcode.REFUSED)
            return reply.to_wire()
        reply.flags |= dns.flags.AA
        self.fill(reply, zone, name, question.rdtype)
        return reply.to_wire()

    def _refusal(self, wire: bytes, code: dns.rcode.Rcode) -> bytes | None:
        if len(wire) < 12:
            return None
        flags = (wire[2] & 0x79) | 0x80
        return wire[:2] + bytes([flags, int(code)]) + b"\0" * 8

    def fill(self, reply: dns.message.Message, zone: Zone, name: str, kind: Any) -> None:
        """Put what the zone says into an answer, following other names within it."""
        start = _set(zone.name, [_start(zone)])
        for _ in range(MOST_ALIASES):
            here = _at(zone, name)
            if here is None:
                if not reply.answer:
                    reply.set_rcode(dns.rcode.NXDOMAIN)
                reply.authority.append(start)
                return
            if name == zone.name:
                here = [*here, *_own(zone)]
            rows = [row for row in here if dns.rdatatype.from_text(row[2]) == kind]
            alias = next((row for row in here if row[2] == "CNAME"), None)
            if rows:
                reply.answer.append(_set(name, rows))
                return
            if alias is None:
                reply.authority.append(start)
                return
            reply.answer.append(_set(name, [alias]))
            name = alias[3].rstrip(".").lower()
            if name != zone.name and not name.endswith(f".{zone.name}"):
                return

    def _transfer(self, reply: dns.message.Message, name: str, *, signed: bool) -> None:
        zone = self._books.zones.get(name)
        if zone is None or not signed:
            reply.set_rcode(dns.rcode.NOTAUTH if signed else dns.rcode.REFUSED)
            return
        reply.flags |= dns.flags.AA
        reply.answer.append(_set(name, [_start(zone)]))
        rows = [["@", str(TTL), "NS", f"{host}."] for host in HOSTS] + zone.records
        sets: dict[tuple[str, str], list[Row]] = {}
        for row in rows:
            sets.setdefault((_whole(zone, row[0]), row[2]), []).append(row)
        reply.answer += [_set(at, some) for (at, _), some in sets.items()]
        reply.answer.append(_set(name, [_start(zone)]))

    def _update(self, asked: dns.update.UpdateMessage) -> dns.rcode.Rcode:
        """RFC 2136, section 3: prerequisites first, then all of it or nothing."""
        name = asked.zone[0].name.to_text(omit_final_dot=True).lower()
        zone = self._books.zones.get(name)
        if zone is None:
            return dns.rcode.NOTAUTH
        origin = dns.name.from_text(name)
        for one in asked.prerequisite:
            kind = dns.rdatatype.to_text(one.rdtype)
            at = _relative(one.name.derelativize(origin), zone)
            rows = [*zone.records, *_own(zone)]
            there = {row[3] for row in rows if row[0] == at and row[2] == kind}
            if one.rdclass == CLASS and there != {rdata.to_text() for rdata in one}:
                return dns.rcode.NXRRSET
        rows = list(zone.records)
        for one in asked.update:
            whole = one.name.derelativize(origin)
            if not whole.is_subdomain(origin):
                return dns.rcode.NOTZONE
            rows = _changed(rows, one, _relative(whole, zone))
        if rows != zone.records:
            with self._books.change():
                self._books.put("zone", name, Zone(name, zone.serial + 1, rows))
                if name == CATALOG:
                    self._follow(rows)
        return dns.rcode.NOERROR

    def _follow(self, rows: Iterable[Row]) -> None:
        """There are the zones that the catalogue names."""
        named = {row[3].rstrip(".") for row in rows if row[2] == "PTR"}
        for name in named - set(self._books.zones):
            self._books.put("zone", name, Zone(name, 1, []))
        for name in set(self._books.zones) - named - {CATALOG}:
            self._books.drop("zone", name)

    def sent_on(self, host: str) -> str:
        """Where visitors of a host are sent on to (RFC 7553), "" for nowhere."""
        for name in (f"_http._tcp.{host}", f"_http._tcp.{host.partition('.')[2]}"):
            zone = self.zone_of(name)
            rows = [] if zone is None else _at(zone, name) or []
            found = [row[3] for row in rows if row[2] == "URI"]
            if found:
                return found[0].split(None, 2)[2].strip('"')
        return ""


def _changed(rows: list[Row], one: dns.rrset.RRset, at: str) -> list[Row]:
    """One part of an update: something added, or deleted by value, kind or name."""
    kind = dns.rdatatype.to_text(one.rdtype)
    if one.deleting == dns.rdataclass.ANY or (one.deleting and not len(one)):
        kinds = None if one.rdtype == dns.rdatatype.ANY else kind
        return [row for row in rows if row[0] != at or (kinds and row[2] != kinds)]
    texts = [rdata.to_text() for rdata in one]
    if one.deleting:
        return [row for row in rows if row[0] != at or row[2] != kind or row[3] not in texts]
    if kind in ("SOA", "NS") and at == "@":
        return rows
    kept = [row for row in rows if row[0] != at or row[2] != kind or row[3] not in texts]
    for row in kept:
        if row[0] == at and row[2] == kind:
            row[1] = str(one.ttl)
    return kept + [[at, str(one.ttl), kind, text] for text in texts]


def _start(zone: Zone) -> Row:
    data = f"{HOSTS[0]}. hostmaster.trellis-host.example. {zone.serial} 7200 900 1209600 {TTL}"
    return ["@", str(TTL), "SOA", data]


def _own(zone: Zone) -> list[Row]:
    return [_start(zone), *(["@", str(TTL), "NS", f"{host}."] for host in HOSTS)]


def _whole(zone: Zone, at: str) -> str:
    return zone.name if at == "@" else f"{at}.{zone.name}"


def _relative(name: dns.name.Name, zone: Zone) -> str:
    text = name.to_text(omit_final_dot=True).lower()
    return "@" if text == zone.name else text[: -len(zone.name) - 1]


def _at(zone: Zone, name: str) -> list[Row] | None:
    """What stands at a name, by a star where nothing does itself; None where it does not exist."""
    at = "@" if name == zone.name else name[: -len(zone.name) - 1]
    found = [row for row in zone.records if row[0] == at]
    if found or at == "@" or any(row[0].endswith(f".{at}") for row in zone.records):
        return found
    above = at.partition(".")[2]
    while True:
        star = f"*.{above}" if above else "*"
        if found := [row for row in zone.records if row[0] == star]:
            return found
        if not above or any(
            row[0] == above or row[0].endswith(f".{above}") for row in zone.records
        ):
            return None
        above = above.partition(".")[2]


def _set(name: str, rows: Iterable[Row]) -> dns.rrset.RRset:
    listed = list(rows)
    return dns.rrset.from_text(
        f"{name}.", int(listed[0][1]), CLASS, listed[0][2], *(r[3] for r in listed)
    )
