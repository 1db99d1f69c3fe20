"""The public record of a registration, as a person would read it."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import datetime
from typing import Final

from vinetag.core.checking.evidence import Evidence

__all__ = ["record_of"]

# Status words of RFC 8056, each with what it means to someone who would like to have the name.
MEANINGS: Final[Mapping[str, str]] = {
    "client transfer prohibited": "It is locked against being moved to another registrar.",
    "server transfer prohibited": "The registry has locked it against being moved.",
    "transfer prohibited": "It is locked against being moved to another registrar.",
    "client delete prohibited": "It is locked against being deleted by mistake.",
    "server delete prohibited": "The registry has locked it against deletion.",
    "client update prohibited": "Its entries are locked.",
    "server update prohibited": "The registry has locked its entries.",
    "client hold": "Its registrar has switched it off.",
    "server hold": "The registry has switched it off.",
    "redemption period": "It was deleted; its holder can still buy it back, at a high fee.",
    "pending delete": "It is about to be released; nobody can buy it back any more.",
    "pending transfer": "It is being moved to another registrar.",
    "auto renew period": "It was renewed by itself just now, and may yet be given up.",
    "add period": "It was registered within the last days.",
    "locked": "Its entries are locked.",
    "reserved": "The registry holds it back.",
    "inactive": "It is registered but has no name servers.",
}


def record_of(evidence: Evidence) -> list[str]:
    """Sentences on who holds a name, since when, until when, through whom, and what its status
    words mean; none where the evidence is of no registration. Words nobody explained are named.
    """
    if evidence.says not in ("registered", "dropping", "reserved"):
        return []
    said = []
    if evidence.holder:
        said.append(f"Held by {evidence.holder}.")
    elif evidence.says != "reserved":
        said.append("The record does not say who holds it.")
    if evidence.registered:
        said.append(f"Registered on {_day(evidence.registered)}.")
    if evidence.expires:
        over = evidence.expires < evidence.at
        said.append(f"{'Ran out on' if over else 'Paid for until'} {_day(evidence.expires)}.")
    if evidence.registrar:
        said.append(f"Through the registrar {evidence.registrar}.")
    if evidence.changed:
        said.append(f"The record was last changed on {_day(evidence.changed)}.")
    for word in evidence.statuses:
        if word in MEANINGS:
            said.append(MEANINGS[word])
        elif word not in ("active", "ok"):
            said.append(f"Its status is “{word}”.")
    return list(dict.fromkeys(said))


def _day(moment: datetime) -> str:
    """ISO 8601: who shows it writes it as the person likes dates."""
    return f"{moment:%Y-%m-%d}"
