"""Reading an RDAP answer about a domain (RFC 7480, RFC 9083). Pure: bytes in, a finding out."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any
from urllib.parse import quote

import msgspec

from vinetag.core.checking import Trouble
from vinetag.core.names import FullName
from vinetag.lookup.found import (
    LONGEST_STATUS,
    MOST_STATUSES,
    Found,
    read_date,
    says_of,
    unsure,
)

__all__ = ["domain_address", "read_domain"]


class _Event(msgspec.Struct, rename="camel"):
    event_action: str
    event_date: str = ""


class _Entity(msgspec.Struct, rename="camel"):
    roles: list[str] = []
    vcard_array: list[Any] = []


class _Domain(msgspec.Struct, rename="camel"):
    object_class_name: str
    ldh_name: str = ""
    status: list[str] = []
    events: list[_Event] = []
    entities: list[_Entity] = []


def domain_address(base: str, name: FullName) -> str:
    """The query for a domain at a base address that ends in a slash (RFC 9082 section 3.1.3)."""
    return f"{base}domain/{quote(str(name))}"


def read_domain(http_status: int, content_type: str, body: bytes, name: FullName) -> Found:
    """What a response says of the name asked for.

    Only 200 with that very domain is a registration, and only a 404 that is no web page the lack of
    one (RFC 7480 section 5.3). Everything else tells nothing.
    """
    if http_status == 200:
        return _read_found(body, name)
    if http_status == 404:
        if "html" in content_type.lower():
            return unsure("nonsense", "a web page, with HTTP status 404")
        return Found("unregistered")
    if http_status == 429:
        return unsure("rate_limited", "HTTP status 429")
    if 300 <= http_status < 400:
        return unsure("redirected", f"HTTP status {http_status}")
    trouble: Trouble = "server_error" if http_status >= 500 else "refused"
    return unsure(trouble, f"HTTP status {http_status}")


def _read_found(body: bytes, name: FullName) -> Found:
    try:
        domain = _DECODER.decode(body)
    except (msgspec.DecodeError, UnicodeDecodeError, RecursionError) as error:
        return unsure("nonsense", str(error))
    if domain.object_class_name != "domain":
        return unsure("nonsense", f"an object of class {domain.object_class_name!r}")
    if domain.ldh_name.lower().rstrip(".") != str(name):
        return unsure("nonsense", f"an answer about {domain.ldh_name!r}")
    dates = {e.event_action: read_date(e.event_date) for e in domain.events}
    return Found(
        says_of(domain.status),
        registered=dates.get("registration"),
        expires=dates.get("expiration"),
        changed=dates.get("last changed"),
        statuses=tuple(s[:LONGEST_STATUS] for s in domain.status[:MOST_STATUSES]),
        registrar=_card(domain.entities, "registrar").get("fn", ""),
        holder=_holder(_card(domain.entities, "registrant")),
    )


def _card(entities: Sequence[_Entity], role: str) -> dict[str, str]:
    """The name (fn), organisation (org) and country code (cc) of the jCard (RFC 7095) of the first
    entity in a role; without those that are empty or withheld.
    """
    for entity in entities:
        if role not in entity.roles or len(entity.vcard_array) < 2:
            continue
        card, found = entity.vcard_array[1], {}
        for line in card if isinstance(card, list) else ():
            if not isinstance(line, list) or len(line) < 4:
                continue
            if line[0] in ("fn", "org"):
                found[line[0]] = str(line[3])[:80].strip()
            elif line[0] == "adr" and isinstance(line[1], dict):
                found["cc"] = str(line[1].get("cc", ""))[:2].upper()
        return {k: v for k, v in found.items() if v and "redacted" not in v.lower()}
    return {}


def _holder(card: Mapping[str, str]) -> str:
    """Whoever the card names, with what else it says of them in brackets."""
    name = card.get("fn") or card.get("org", "")
    more = [card[k] for k in ("org", "cc") if k in card and card[k] != name]
    return f"{name} ({', '.join(more)})" if name and more else name


_DECODER = msgspec.json.Decoder(_Domain)
