"""Faults on request: which service misbehaves, how often, and how."""

from __future__ import annotations

import random
from collections.abc import Sequence
from dataclasses import asdict, dataclass, fields
from typing import Any

__all__ = ["KINDS", "Fault", "Faults"]

KINDS = {
    "rdap": (
        "slow", "loss", "429", "429-date", "500", "nonsense", "webpage", "hangup", "redirect",
        "redirect-away", "late",
    ),
    "dns": ("slow", "loss", "lame", "broken"),
    # Of the host of zones; `registry` is "ns1" or "ns2".
    "hosting": ("slow", "loss", "lame"),
    "whois": ("slow", "loss", "busy", "nonsense", "hangup"),
    "seller": ("slow", "loss", "429", "429-date", "500", "nonsense", "webpage", "hangup"),
    # Of sellers' lists, platforms, markets and the search service; `registry` is the seller's code,
    # the platform's or the market's, or the part that is asked.
    "lists": ("slow", "loss", "429", "429-date", "500", "nonsense", "webpage", "hangup"),
    "markets": (
        "slow", "loss", "429", "429-date", "500", "nonsense", "webpage", "hangup", "cut",
    ),
    "zones": ("slow", "loss", "429", "429-date", "500", "nonsense", "webpage", "hangup"),
    "platforms": ("slow", "loss", "429", "429-date", "500", "nonsense", "webpage", "hangup"),
    "mail": ("slow", "later", "refuse", "hangup", "hangup-after"),
    # Of gateways: `extension` may be "connection" or "login"; a number is a result code. Of the
    # payment page, `registry` is the part: "page", "notice" or "refund".
    "epp": (
        "slow", "late", "hangup", "hangup-after", "nonsense", "frame", "expired", "pending",
        "pending-refused", "dearer", "undecided", "unwilling", "2004", "2104", "2200", "2302",
        "2306", "2308", "2400",
    ),
    "till": ("slow", "twice", "late", "never", "500", "hangup", "nonsense"),
    "demand": ("slow", "loss", "429", "429-date", "500", "nonsense", "webpage", "hangup"),
    "search": ("slow", "loss", "429", "429-date", "500", "nonsense", "webpage", "hangup"),
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Fault:
    """`kind` happens to the share `rate` (0 to 1) of a service's requests; `seconds` is the delay
    of "slow" and the Retry-After of "429" and "429-date"; `extension` and `registry`, when given,
    are the only ones that suffer.
    """

    kind: str
    service: str = "rdap"
    rate: float = 1.0
    seconds: float = 1.0
    extension: str = ""
    registry: str = ""


class Faults:
    """The faults in force; the first that strikes is the one that happens."""

    def __init__(self, faults: Sequence[Fault] = ()) -> None:
        self._faults = tuple(faults)
        self._rng = random.Random(11)  # noqa: S311 - chooses which requests suffer

    def strike(self, service: str, extension: str, registry: str) -> Fault | None:
        """What happens to this request, if anything."""
        for fault in self._faults:
            aimed = fault.service == service
            aimed = aimed and fault.extension in ("", extension)
            if aimed and fault.registry in ("", registry) and self._rng.random() < fault.rate:
                return fault
        return None

    def document(self) -> list[dict[str, Any]]:
        """As JSON."""
        return [asdict(fault) for fault in self._faults]

    @classmethod
    def read(cls, document: object) -> Faults:
        """Read one fault, a list of them, or an empty object for none; raises ValueError saying
        what is wrong.
        """
        if document == {}:
            return cls()
        listed = document if isinstance(document, list) else [document]
        return cls([_read(item) for item in listed])


def _read(document: object) -> Fault:
    if not isinstance(document, dict):
        raise ValueError("an object is wanted")
    unknown = set(document) - {f.name for f in fields(Fault)}
    if unknown:
        raise ValueError(f"unknown: {', '.join(sorted(unknown))}")
    fault = Fault(**{"kind": "", **document})
    if fault.service not in KINDS:
        raise ValueError(f"service is one of {', '.join(KINDS)}")
    if fault.kind not in KINDS[fault.service]:
        raise ValueError(f"kind is one of {', '.join(KINDS[fault.service])}")
    if not (isinstance(fault.rate, int | float) and 0 <= fault.rate <= 1):
        raise ValueError("rate runs from 0 to 1")
    if not (isinstance(fault.seconds, int | float) and 0 <= fault.seconds <= 3600):
        raise ValueError("seconds runs from 0 to 3600")
    return fault
