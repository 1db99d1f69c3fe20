"""Sets of records that are ready made for what people most often want of a name."""

from __future__ import annotations

import ipaddress
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final
from urllib.parse import urlsplit

from vinetag.core.errors import CoreError, Problem, add_words
from vinetag.core.zone.records import APEX, USUAL_TTL, Record, RecordError, is_host, read_record

__all__ = ["READY", "Field", "Ready", "fill", "merge"]

MOST_SERVERS: Final = 5
MAIL: Final = re.compile(r"[^@\s]{1,64}@[^@\s]{1,190}")

add_words(
    {
        "ready_address": "“{value}” is no address: write numbers such as 192.0.2.10 or "
        "2001:db8::10.",
        "ready_url": "“{value}” is no web address: write it like https://shop.example/.",
        "ready_server": "“{value}” is no server's name: write it like mail.service.example.",
        "ready_mail": "“{value}” is no mail address.",
        "ready_no_forwarder": "Nobody here sends visitors on.",
        "ready_itself": "It would be sent on to itself, again and again.",
    }
)


@dataclass(frozen=True, slots=True)
class Field:
    """Something a person fills in."""

    code: str
    title: str
    example: str = ""
    needed: bool = True


@dataclass(frozen=True, slots=True)
class Ready:
    """A set: what it is called, what it does, and what it has to know."""

    code: str
    title: str
    about: str
    asks: Sequence[Field]


READY: Final[Sequence[Ready]] = (
    Ready(
        "site", "A site at an address",
        "The name and its www lead to a server whose address you know.",
        (Field("addresses", "Addresses of the server", "192.0.2.10 2001:db8::10"),),
    ),
    Ready(
        "mail", "Mail at a service",
        "Mail to the name goes to these servers, and only they may send mail of it.",
        (
            Field("servers", "Mail servers, the first one first", "mail.service.example"),
            Field("senders", "Name with the servers that send (SPF)", "spf.service.example", False),
            Field("reports", "Where false mail is reported to (DMARC)", "you@mail.example", False),
        ),
    ),
    Ready(
        "nomail", "No mail at all",
        "The name takes no mail, and whoever writes in its name is refused (RFC 7505, SPF, DMARC).",
        (),
    ),
    Ready(
        "forward", "Send visitors on",
        "Whoever opens the name or its www is sent on to another address.",
        (Field("address", "On to", "https://shop.example/"),),
    ),
    Ready(
        "proof", "Prove that it is yours",
        "A word some service asks you to put at the name.",
        (Field("text", "The word as it was given to you"), Field("name", "At", "@", False)),
    ),
    Ready(
        "issuers", "Who may issue certificates",
        "Only these may make certificates for the name (CAA).",
        (
            Field("issuers", "Issuers", "ca.example"),
            Field("reports", "Where they report to", "you@service.example", False),
        ),
    ),
)  # fmt: skip
_BY_CODE: Final = {one.code: one for one in READY}


def fill(code: str, given: Mapping[str, str], origin: str, forwarder: str = "") -> list[Record]:
    """The records of a set with what somebody filled in; `forwarder` is the address of whoever
    sends visitors on. Raises RecordError, each problem at its field.
    """
    ready = _BY_CODE[code]
    said = {one.code: given.get(one.code, "").strip() for one in ready.asks}
    blank = [Problem(one.code, "blank") for one in ready.asks if one.needed and not said[one.code]]
    if blank:
        raise RecordError(*blank)
    rows = _ROWS[code](said, origin, forwarder)
    problems, found = [], []
    for field, name, kind, data in rows:
        try:
            found.append(read_record(origin, name, kind, USUAL_TTL, data))
        except CoreError as error:
            problems += [Problem(field, p.code, p.args) for p in error.problems]
    if problems:
        raise RecordError(*problems)
    return found


Row = tuple[str, str, str, str]


def _words(text: str) -> list[str]:
    return [word for word in re.split(r"[\s,;]+", text) if word]


def _site(said: Mapping[str, str], _origin: str, _forwarder: str) -> list[Row]:
    rows = []
    for word in _words(said["addresses"]):
        try:
            address = ipaddress.ip_address(word)
        except ValueError as error:
            raise RecordError(
                Problem("addresses", "ready_address", {"value": word[:60]})
            ) from error
        rows.append(("addresses", APEX, "A" if address.version == 4 else "AAAA", str(address)))
    return [*rows, ("addresses", "www", "CNAME", APEX)]


def _mail(said: Mapping[str, str], _origin: str, _forwarder: str) -> list[Row]:
    servers = _words(said["servers"])
    if len(servers) > MOST_SERVERS:
        args = {"limit": MOST_SERVERS, "count": len(servers)}
        raise RecordError(Problem("servers", "too_many", args))
    for field in ("servers", "senders"):
        for word in _words(said[field]):
            if not is_host(word):
                raise RecordError(Problem(field, "ready_server", {"value": word[:60]}))
    rows = [
        ("servers", APEX, "MX", f"{10 * place} {server}") for place, server in enumerate(servers, 1)
    ]
    senders = "".join(f" include:{word}" for word in _words(said["senders"]))
    rows.append(("senders", APEX, "TXT", f"v=spf1 mx{senders} ~all"))
    reports = said["reports"]
    if reports and not MAIL.fullmatch(reports):
        raise RecordError(Problem("reports", "ready_mail", {"value": reports[:60]}))
    where = f"; rua=mailto:{reports}" if reports else ""
    return [*rows, ("reports", "_dmarc", "TXT", f"v=DMARC1; p=quarantine{where}")]


def _nomail(_said: Mapping[str, str], _origin: str, _forwarder: str) -> list[Row]:
    return [
        ("", APEX, "MX", "0 ."),
        ("", APEX, "TXT", "v=spf1 -all"),
        ("", "_dmarc", "TXT", "v=DMARC1; p=reject"),
    ]


def _forward(said: Mapping[str, str], origin: str, forwarder: str) -> list[Row]:
    if not forwarder:
        raise RecordError(Problem("address", "ready_no_forwarder"))
    to = said["address"]
    try:
        parts = urlsplit(to)
        host = parts.hostname or ""
    except ValueError:
        parts, host = urlsplit(""), ""
    if parts.scheme not in ("http", "https") or "." not in host or not to.isascii() or '"' in to:
        raise RecordError(Problem("address", "ready_url", {"value": to[:80]}))
    if host in (origin, f"www.{origin}"):
        raise RecordError(Problem("address", "ready_itself"))
    kind = "AAAA" if ":" in forwarder else "A"
    rows = []
    for name in (APEX, "www"):
        rows.append(("address", name, kind, forwarder))
        service = "_http._tcp" if name == APEX else f"_http._tcp.{name}"
        rows.append(("address", service, "URI", f'10 1 "{to}"'))
    return rows


def _proof(said: Mapping[str, str], _origin: str, _forwarder: str) -> list[Row]:
    return [("name" if said["name"] else "text", said["name"] or APEX, "TXT", said["text"])]


def _issuers(said: Mapping[str, str], _origin: str, _forwarder: str) -> list[Row]:
    rows = [("issuers", APEX, "CAA", f'0 issue "{word}"') for word in _words(said["issuers"])]
    reports = said["reports"]
    if reports and not MAIL.fullmatch(reports):
        raise RecordError(Problem("reports", "ready_mail", {"value": reports[:60]}))
    return rows + ([("reports", APEX, "CAA", f'0 iodef "mailto:{reports}"')] if reports else [])


_ROWS: Final = {
    "site": _site, "mail": _mail, "nomail": _nomail, "forward": _forward, "proof": _proof,
    "issuers": _issuers,
}  # fmt: skip


def merge(records: Sequence[Record], new: Sequence[Record]) -> tuple[list[Record], list[Record]]:
    """The records with a set put in, and those that had to go for it: of the same kind at the same
    name (text only where it says the same sort of thing), and what cannot stand beside it. Where a
    site was sent on before, that goes, too.
    """
    put = {(one.name, one.kind) for one in new}
    texts = {(one.name, _sort(one)) for one in new if one.kind == "TXT"}
    alias = {one.name for one in new if one.kind == "CNAME"}
    addressed = {one.name for one in new if one.kind in ("A", "AAAA", "CNAME")}
    kept, gone = [], []
    for one in records:
        same = (one.name, one.kind) in put and one.kind != "TXT"
        same = same or (one.kind == "TXT" and (one.name, _sort(one)) in texts)
        beaten = one.name in alias or (one.kind == "CNAME" and one.name in {n for n, _ in put})
        at, _, under = one.name.partition("_http._tcp")
        old = one.kind in ("A", "AAAA") and one.name in addressed
        old = old or (one.kind == "URI" and not at and (under.lstrip(".") or APEX) in addressed)
        if one in new or same or beaten or old:
            if one not in new:
                gone.append(one)
        else:
            kept.append(one)
    return [*kept, *new], gone


def _sort(one: Record) -> str:
    """What sort of thing a text says, by its first word; "" for any other."""
    word = one.data.lstrip('"').lower()
    return next((sort for sort in ("v=spf1", "v=dmarc1") if word.startswith(sort)), one.data)
