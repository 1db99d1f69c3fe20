"""Reading a WHOIS answer about a domain (RFC 3912). Pure: octets in, a finding out.

The standard has no form for answers, so a library that knows those in use reads the record, and
what it reads counts only where it speaks of the very name and of a registration. That a name is not
registered says the extension's own phrase, a whole line of the answer, and nothing else.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from datetime import UTC, datetime
from typing import Any, Final, NamedTuple

from vinetag.core.names import FullName
from vinetag.lookup.found import (
    LONGEST_STATUS,
    MOST_STATUSES,
    Found,
    read_date,
    says_of,
    unsure,
)

__all__ = ["LARGEST", "PORT", "WhoisService", "question", "read_whois", "referral_of"]

PORT: Final = 43
LARGEST: Final = 32 * 1024
MOST_LINES, LONGEST_LINE = 400, 300
# An answer longer than that is a record, whatever words are in it.
SHORT: Final = 40
TOO_FAST: Final = re.compile(
    r"(limit|quota|rate)s? (was |is |has been )?(exceeded|reached)|too many (queries|requests)",
    re.IGNORECASE,
)
REFERRAL: Final = re.compile(
    r"^(?:refer|whois|referralserver):\s*(?:whois://)?([a-z0-9.-]+(?::\d{1,5})?)/?$", re.IGNORECASE
)
# Status words of registries whose own these are, beside those of EPP.
REGISTERED: Final = frozenset({"connect", "active", "ok", "registered", "not available", "in use"})
WITHHELD: Final = re.compile(
    r"redacted|not disclosed|not shown|withheld|data protected", re.IGNORECASE
)


class WhoisService(NamedTuple):
    """How an extension's registry is asked: `server` is a host, with a port where it is not 43;
    `query` holds `{name}`, "" for the name alone; `absent` is the line that says that there is no
    registration, with `{name}` for the name, "" where it is not known.
    """

    server: str
    query: str = ""
    absent: str = ""


def question(service: WhoisService, name: FullName) -> bytes:
    """What is sent (RFC 3912 section 2)."""
    return (service.query or "{name}").replace("{name}", str(name)).encode("ascii") + b"\r\n"


def read_whois(body: bytes, name: FullName, service: WhoisService) -> Found:
    """What an answer says about a name; whatever is not understood is unsure."""
    written = _decoded(body).splitlines()
    lines = [line for line in map(_folded, written) if line]
    if not lines:
        return unsure("nonsense", "an empty answer")
    absent = _folded(service.absent.replace("{name}", str(name)))
    is_absent = bool(absent) and absent in lines
    # The phrase is left out for the reader, which would look no further.
    record = _record("\n".join(line for line in written if _folded(line) != absent), name)
    registered = _is_registered(record, name)
    if is_absent:
        if registered and record.get("creation_date"):
            return unsure("contradiction", "a record, and that there is none")
        return Found("unregistered", detail=absent[:LONGEST_LINE])
    if registered:
        statuses = _statuses(record)
        return Found(
            says_of(statuses),
            registered=_moment(record.get("creation_date")),
            expires=_moment(record.get("expiration_date")),
            changed=_moment(record.get("updated_date")),
            statuses=statuses,
            registrar=_name(record.get("registrar")),
            holder=_name(record.get("registrant_name")) or _name(record.get("registrant_org")),
        )
    if len(lines) <= SHORT and any(TOO_FAST.search(line) for line in lines):
        return unsure("rate_limited", lines[0])
    return unsure("nonsense", f"not understood: {lines[0]}")


def referral_of(body: bytes) -> str:
    """The server an answer sends us on to, as a host with or without a port; "" where to none."""
    for line in _decoded(body).splitlines():
        if found := REFERRAL.match(line.strip()):
            return found[1].lower()
    return ""


def _decoded(body: bytes) -> str:
    """The standard knows no encoding: UTF-8 where it is, else Latin-1, in which all octets are
    letters. Bounded in lines and their length.
    """
    try:
        text = body.decode("utf-8")
    except UnicodeDecodeError:
        text = body.decode("latin-1")
    return "\n".join(line[:LONGEST_LINE] for line in text.splitlines()[:MOST_LINES])


def _folded(line: str) -> str:
    """Without the signs of a comment, spaces alike, in small letters."""
    return " ".join(line.split()).lstrip("%#;> ").lower()


def _record(text: str, name: FullName) -> Mapping[str, Any]:
    # It is only needed where WHOIS is asked: who does not, does not load it.
    from whois.parser import WhoisEntry

    try:
        return dict(WhoisEntry.load(str(name), text))
    except Exception:
        return {}


def _several(value: object) -> list[object]:
    return list(value) if isinstance(value, list | tuple) else [value]


def _is_registered(record: Mapping[str, Any], name: FullName) -> bool:
    """Whether it is a record of this very name that says more than the name."""
    named = {str(n).lower().rstrip(".") for n in _several(record.get("domain_name"))}
    if str(name) not in named:
        return False
    fields = ("creation_date", "expiration_date", "updated_date", "registrar", "name_servers")
    if any(record.get(field) for field in fields):
        return True
    return any(s in REGISTERED or s.startswith(("client ", "server ")) for s in _statuses(record))


def _statuses(record: Mapping[str, Any]) -> tuple[str, ...]:
    """Status words as RFC 8056 writes them: "client hold" for "clientHold https://…"."""
    found = []
    for status in _several(record.get("status"))[:MOST_STATUSES]:
        words = str(status or "").split("http")[0].strip(" ()")
        spaced = re.sub(r"(?<=[a-z])(?=[A-Z])", " ", words) if " " not in words else words
        found.append({"ok": "active"}.get(spaced.lower(), spaced.lower())[:LONGEST_STATUS])
    return tuple(dict.fromkeys(s for s in found if s))


def _moment(value: object) -> datetime | None:
    """The first time of those given, in UTC; without a zone it is taken for UTC."""
    for moment in _several(value):
        if isinstance(moment, datetime):
            return read_date((moment if moment.tzinfo else moment.replace(tzinfo=UTC)).isoformat())
    return None


def _name(value: object) -> str:
    [first, *_] = _several(value) or [None]
    text = str(first or "").strip()[:80]
    return "" if WITHHELD.search(text) else text
