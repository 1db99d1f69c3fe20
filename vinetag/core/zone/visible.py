"""Whether the world sees a name as it is meant to: delegation, servers, records, DNSSEC, expiry."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime, timedelta
from typing import Any, Final, Literal

from vinetag.core.zone.records import Record, name_in

__all__ = ["Finding", "Looked", "ServerLooked", "findings"]

SOON: Final = timedelta(days=30)
MOST_NAMED: Final = 5
Standing = Literal["good", "wrong", "warn", "unknown"]
Key = tuple[str, str]

_WORDS: Final = {
    "delegated": "The registry sends the world to {servers}.",
    "undelegated": "The registry sends the world nowhere: the name has no name servers. Set them.",
    "elsewhere": "The registry sends the world to {servers}, not to {ours}: what is kept here is "
    "not seen. Set the name servers.",
    "partly": "The registry names {servers} beside {ours}: part of the world sees something else.",
    "parent_unknown": "What the registry says of the name servers could not be found out.",
    "server_good": "{server} answers for the name.",
    "server_unfound": "{server} has no address in the open Internet: nobody finds it.",
    "server_silent": "{server} does not answer.",
    "server_lame": "{server} answers, but knows nothing of the name.",
    "server_old": "{server} still has an earlier state. It should follow within minutes.",
    "servers_one": "There is but one name server: if it fails, the name is gone.",
    "records_good": "The world sees all {count:,} records as they are kept here.",
    "records_late": "The name servers have {records} as kept here; part of the world remembers "
    "what was before, for up to {minutes} minutes.",
    "records_other": "The name servers say otherwise of {records} than is kept here. Put the zone "
    "into force.",
    "records_unknown": "What the name servers say could not be found out.",
    "records_none": "Nothing is in force here, so there is nothing to compare.",
    "signed": "The name is signed (DNSSEC), and its signatures hold.",
    "unsigned": "The name is not signed (DNSSEC). Nothing is wrong with that.",
    "signature_broken": "The registry says that the name is signed, and its servers' signatures "
    "do not hold: whoever checks them cannot reach the name. Take the key away at the seller, or "
    "move to servers that sign.",
    "signature_unused": "The servers sign the name, and the registry does not say so: nobody can "
    "check it.",
    "signing_unknown": "Whether the name is signed could not be found out.",
    "expired": "It ran out on {day}. It can stop answering any day.",
    "expires_soon": "It runs out on {day}.",
    "expires_later": "It is paid for until {day}.",
    "expiry_unknown": "Until when it is paid for is not known.",
    "held": "The registry keeps it out of the world ({status}). Ask the seller why.",
    "sent_on": "Visitors are sent on to {address}.",
    "sent_nowhere": "Visitors should be sent on to {address}, and are not: {why}.",
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Finding:
    """One thing that was looked at."""

    code: str
    standing: Standing
    args: Mapping[str, Any] = field(default_factory=dict)

    def text(self) -> str:
        """As a sentence."""
        return _WORDS[self.code].format(**self.args)


@dataclass(frozen=True)
class ServerLooked:
    """What one server said: `state` is good, unfound, silent or lame; `answers` are the data of
    each name and kind it was asked for, `serial` the edition it has.
    """

    host: str
    state: Literal["good", "unfound", "silent", "lame"]
    serial: int | None = None
    answers: Mapping[Key, frozenset[str]] = field(default_factory=dict)


@dataclass(frozen=True)
class Looked:
    """What was seen from outside. `parent`: the servers the registry names, None where that could
    not be found out; `seen`: what a resolver says, None likewise; `signing`: none, good, broken,
    unused or unknown; `sent_on`: where visitors are sent on to, with what went wrong.
    """

    parent: list[str] | None = None
    servers: Sequence[ServerLooked] = ()
    seen: Mapping[Key, frozenset[str]] | None = None
    signing: Literal["none", "good", "broken", "unused", "unknown"] = "unknown"
    sent_on: tuple[str, str] | None = None


def findings(
    origin: str, expected: Sequence[Record], looked: Looked, ours: Sequence[str], now: datetime, *,
    expires: datetime | None = None, statuses: Sequence[str] = (), serial: int | None = None,
    forwards: str = "",
) -> list[Finding]:  # fmt: skip
    """All of it in the order one would look: from the registry down to single records. `expected`
    is what is in force here, with its `serial`; `ours` the servers that answer for it.
    """
    found = [*_delegation(looked, ours), *_servers(looked, ours, serial)]
    seen_here = looked.parent is None or any(host in ours for host in looked.parent)
    if seen_here or not expected:
        found += _records(origin, expected, looked)
    codes = {
        "none": ("unsigned", "good"), "good": ("signed", "good"),
        "broken": ("signature_broken", "wrong"), "unused": ("signature_unused", "warn"),
        "unknown": ("signing_unknown", "unknown"),
    }  # fmt: skip
    code, standing = codes[looked.signing]
    if looked.parent != []:
        found.append(Finding(code, standing))  # type: ignore[arg-type]
    if forwards and looked.sent_on is not None:
        to, why = looked.sent_on
        if to == forwards:
            found.append(Finding("sent_on", "good", {"address": to}))
        else:
            why = why or (f"they are sent to {to}" if to else "nobody answers")
            found.append(Finding("sent_nowhere", "wrong", {"address": forwards, "why": why}))
    return [*found, *_expiry(expires, statuses, now)]


def _delegation(looked: Looked, ours: Sequence[str]) -> list[Finding]:
    if looked.parent is None:
        return [Finding("parent_unknown", "unknown")]
    if not looked.parent:
        return [Finding("undelegated", "wrong")]
    named = ", ".join(looked.parent)
    args = {"servers": named, "ours": " and ".join(ours)}
    other = [host for host in looked.parent if host not in ours]
    found = [Finding("delegated", "good", args)]
    if ours and len(other) == len(looked.parent):
        found = [Finding("elsewhere", "wrong", args)]
    elif ours and other:
        found = [Finding("partly", "wrong", args | {"servers": ", ".join(other)})]
    if len(looked.parent) == 1:
        found.append(Finding("servers_one", "warn"))
    return found


def _servers(looked: Looked, ours: Sequence[str], serial: int | None) -> list[Finding]:
    """Only of ours it is known which edition they should have."""
    found = []
    for one in looked.servers:
        args = {"server": one.host}
        if one.state != "good":
            found.append(Finding(f"server_{one.state}", "wrong", args))
        elif one.host in ours and None not in (serial, one.serial) and one.serial != serial:
            found.append(Finding("server_old", "warn", args))
        else:
            found.append(Finding("server_good", "good", args))
    return found


def _records(origin: str, expected: Sequence[Record], looked: Looked) -> list[Finding]:
    if not expected:
        return [Finding("records_none", "unknown")]
    wanted: dict[Key, set[str]] = {}
    ttl = 0
    for one in expected:
        wanted.setdefault((name_in(origin, one.name), one.kind), set()).add(_plain(one.data))
        ttl = max(ttl, one.ttl)
    good = [one for one in looked.servers if one.state == "good"]
    if not good and looked.seen is None:
        return [Finding("records_unknown", "unknown")]
    by_servers = [
        key for key in wanted
        if any(key in s.answers and set(map(_plain, s.answers[key])) != wanted[key] for s in good)
    ]  # fmt: skip
    if by_servers:
        return [Finding("records_other", "wrong", {"records": _named(by_servers)})]
    seen = looked.seen
    if seen is None:
        return [Finding("records_unknown", "unknown")]
    late = [key for key in wanted if key in seen and set(map(_plain, seen[key])) != wanted[key]]
    if late:
        args = {"records": _named(late), "minutes": -(-ttl // 60)}
        return [Finding("records_late", "warn", args)]
    if any(key not in seen for key in wanted):
        return [Finding("records_unknown", "unknown")]
    return [Finding("records_good", "good", {"count": len(expected)})]


def _plain(data: str) -> str:
    """As it is compared: names are written alike whatever their case."""
    return data if data.startswith('"') else data.lower()


def _named(keys: Sequence[Key]) -> str:
    words = [f"{name} ({kind})" for name, kind in keys[:MOST_NAMED]]
    more = len(keys) - MOST_NAMED
    return ", ".join(words) + (f" and {more:,} more" if more > 0 else "")


def _expiry(
    expires: datetime | None, statuses: Sequence[str], now: datetime
) -> list[Finding]:  # fmt: skip
    found = []
    for status in statuses:
        if status.replace(" ", "").lower() in ("clienthold", "serverhold"):
            found.append(Finding("held", "wrong", {"status": status}))
    if expires is None:
        return [*found, Finding("expiry_unknown", "unknown")]
    day = {"day": f"{expires:%d %B %Y}".lstrip("0")}
    if expires <= now:
        return [*found, Finding("expired", "wrong", day)]
    if expires - now < SOON:
        return [*found, Finding("expires_soon", "warn", day)]
    return [*found, Finding("expires_later", "good", day)]
