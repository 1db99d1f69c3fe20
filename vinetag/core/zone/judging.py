"""What is wrong with records beside each other, and what is likely not meant."""

from __future__ import annotations

import ipaddress
from collections import Counter, defaultdict
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Final

from vinetag.core.zone.records import (
    APEX,
    MOST_RECORDS,
    Record,
    name_in,
    rdata_of,
    shown_data,
    target_of,
)

__all__ = ["Remark", "judge"]

# What one update of name servers holds (RFC 2136 over TCP: 65,535 octets), less its head.
LARGEST: Final = 60_000
NULL_MX: Final = "0 ."
CAA_TAGS: Final = frozenset({"issue", "issuewild", "iodef", "issuemail", "contactemail"})

_WORDS: Final = {
    "zone_alias_apex": "{name} itself cannot be another name for something (CNAME): it has "
    "records of its own. Give it addresses, or send its visitors on.",
    "zone_alias_beside": "{name} is another name for {target} (CNAME): nothing else can stand at "
    "it.",
    "zone_double": "{name} has this {kind} record twice.",
    "zone_ttl": "All {kind} records of {name} are remembered for equally long (RFC 2181).",
    "zone_to_alias": "{target} is itself another name (CNAME): a {kind} record has to lead to a "
    "server's own name.",
    "zone_no_mail_beside": "{name} says that it takes no mail, and beside it where its mail goes.",
    "zone_service_name": "{kind} records stand at a service such as _sip._tcp, not at {name}.",
    "zone_many": "At most {limit:,} records: these are {count:,}.",
    "zone_large": "All of it together is too large to be sent to name servers at once.",
    "zone_private": "{address} is no address of the open Internet: the world cannot reach it.",
    "zone_to_nothing": "{target} has no address in this zone: what leads there ends there.",
    "zone_spf_twice": "{name} says twice which servers may send its mail (SPF): receivers then "
    "take neither (RFC 7208).",
    "zone_caa_tag": "“{tag}” is nothing issuers of certificates know: issue, issuewild or iodef.",
    "zone_no_www": "Who types www.{name} finds nothing.",
    "zone_no_spf": "Nothing says which servers may send mail of {name} (SPF): others may write in "
    "its name.",
}  # fmt: skip


@dataclass(frozen=True)
class Remark:
    """Something about a zone: at record `place` (from 0), None where it is about all of it.
    `wrong`: it cannot be put into force so.
    """

    code: str
    args: Mapping[str, object] = field(default_factory=dict)
    place: int | None = None
    wrong: bool = True

    def text(self) -> str:
        """As a sentence."""
        return _WORDS[self.code].format(**self.args)


def judge(origin: str, records: Sequence[Record], known: Collection[str] = ()) -> list[Remark]:
    """All there is to be said, what is wrong first; `known` are addresses that are reachable
    whatever they look like.
    """
    found: list[Remark] = []
    if len(records) > MOST_RECORDS:
        args = {"limit": MOST_RECORDS, "count": len(records)}
        return [Remark("zone_many", args)]
    size = sum(len(name_in(origin, one.name)) + len(one.data) + 16 for one in records)
    if size > LARGEST:
        found.append(Remark("zone_large"))
    at: dict[str, list[tuple[int, Record]]] = defaultdict(list)
    for place, one in enumerate(records):
        at[one.name].append((place, one))
    aliases = {one.name for one in records if one.kind == "CNAME"}
    for name, here in at.items():
        found += _beside(name_in(origin, name), name, here)
    for place, one in enumerate(records):
        found += _alone(origin, place, one, at, aliases, known)
    found += _missing(origin, at)
    return sorted(found, key=lambda one: (not one.wrong, -1 if one.place is None else one.place))


def _beside(whole: str, name: str, here: Sequence[tuple[int, Record]]) -> list[Remark]:
    found = []
    kinds = Counter(one.kind for _, one in here)
    once: set[tuple[str, str]] = set()
    ttls: dict[str, int] = {}
    spf = 0
    for place, one in here:
        key = one.kind, one.data.lower() if one.kind != "TXT" else one.data
        if key in once:
            found.append(Remark("zone_double", {"name": whole, "kind": one.kind}, place))
        once.add(key)
        if ttls.setdefault(one.kind, one.ttl) != one.ttl:
            found.append(Remark("zone_ttl", {"name": whole, "kind": one.kind}, place))
        if one.kind == "CNAME" and name == APEX:
            found.append(Remark("zone_alias_apex", {"name": whole}, place))
        elif one.kind == "CNAME" and len({(o.kind, o.data) for _, o in here}) > 1:
            found.append(
                Remark("zone_alias_beside", {"name": whole, "target": target_of(one)}, place)
            )
        if one.kind == "MX" and one.data == NULL_MX and kinds["MX"] > 1:
            found.append(Remark("zone_no_mail_beside", {"name": whole}, place))
        if one.kind == "TXT" and shown_data(one).lower().startswith("v=spf1"):
            spf += 1
            if spf == 2:
                found.append(Remark("zone_spf_twice", {"name": whole}, place, wrong=False))
    return found


def _alone(
    origin: str, place: int, one: Record, at: Mapping[str, Sequence[tuple[int, Record]]],
    aliases: Collection[str], known: Collection[str],
) -> list[Remark]:  # fmt: skip
    found = []
    whole = name_in(origin, one.name)
    if one.kind in ("SRV", "URI"):
        labels = one.name.split(".")
        if len(labels) < 2 or not (labels[0].startswith("_") and labels[1].startswith("_")):
            found.append(Remark("zone_service_name", {"kind": one.kind, "name": whole}, place))
    bare = one.kind in ("A", "AAAA") and one.data not in known
    if bare and not ipaddress.ip_address(one.data).is_global:
        found.append(Remark("zone_private", {"address": one.data}, place, wrong=False))
    if one.kind == "CAA":
        tag = one.data.split()[1].lower()
        if tag not in CAA_TAGS:
            found.append(Remark("zone_caa_tag", {"tag": tag}, place, wrong=False))
    target = target_of(one)
    if target and (target == origin or target.endswith(f".{origin}")):
        name = APEX if target == origin else target[: -len(origin) - 1]
        if name in aliases and one.kind != "CNAME":
            found.append(Remark("zone_to_alias", {"target": target, "kind": one.kind}, place))
        elif not _leads_on(name, at):
            found.append(Remark("zone_to_nothing", {"target": target}, place, wrong=False))
    return found


def _leads_on(name: str, at: Mapping[str, Sequence[tuple[int, Record]]]) -> bool:
    """Whether a name of the zone has an address, or is another name; a star stands for all."""
    names = [
        name,
        *(f"*.{'.'.join(name.split('.')[n:])}" for n in range(1, name.count(".") + 1)),
        "*",
    ]
    if name == APEX:
        names = [APEX]
    here = next((at[one] for one in names if one in at), ())
    return any(one.kind in ("A", "AAAA", "CNAME") for _, one in here)


def _missing(origin: str, at: Mapping[str, Sequence[tuple[int, Record]]]) -> list[Remark]:
    found = []
    own = [one for _, one in at.get(APEX, ())]
    if any(one.kind in ("A", "AAAA") for one in own) and not _leads_on("www", at):
        found.append(Remark("zone_no_www", {"name": origin}, wrong=False))
    takes = any(one.kind == "MX" and one.data != NULL_MX for one in own)
    says = any(one.kind == "TXT" and b"v=spf1" in rdata_of(one).to_wire()[1:12] for one in own)  # type: ignore[index]
    if takes and not says:
        found.append(Remark("zone_no_spf", {"name": origin}, wrong=False))
    return found
