"""What one source said about one full name, and when."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import datetime
from decimal import Decimal
from typing import Any, Final, Literal, cast

import msgspec

from vinetag.core.checking.sources import SOURCES, Source

__all__ = [
    "TROUBLE_WORDING", "Aim", "Evidence", "Quote", "Says", "Trouble", "in_words",
    "read_evidence", "reason_of", "write_evidence",
]  # fmt: skip

Aim = Literal["scan", "buying"]
# "" is an answer that tells nothing; `trouble` says why.
Says = Literal[
    "", "barred", "reserved", "delegated", "absent", "registered", "dropping", "unregistered",
    "usual", "premium", "offered", "unavailable",
]  # fmt: skip
Trouble = Literal[
    "", "no_service", "no_bootstrap", "unreachable", "timeout", "rate_limited", "server_error",
    "refused", "redirected", "nonsense", "resting", "lame", "contradiction", "late",
]  # fmt: skip

TROUBLE_WORDING: Final[Mapping[Trouble, str]] = {
    "": "",
    "no_service": "This extension has no open look-up service.",
    "no_bootstrap": "The list of look-up services could not be read. Try again later.",
    "unreachable": "The look-up service could not be reached. Try again later.",
    "timeout": "The look-up service did not answer in time. Try again.",
    "rate_limited": "The look-up service asked us to slow down. Try again later.",
    "server_error": "The look-up service failed. Try again later.",
    "refused": "The look-up service refused the question.",
    "redirected": "The look-up service sent us to an address we do not know.",
    "nonsense": "The look-up service gave an answer that makes no sense.",
    "resting": "The look-up service has not answered for some minutes. Try again later.",
    "lame": "The name servers gave no usable answer. Try again later.",
    "contradiction": "Two sources say opposite things. Ask again in some minutes.",
    "late": "There was no time left to ask. Ask again.",
}
# What "unavailable" was called in answers kept before.
EARLIER_UNAVAILABLE = "held"
SAYS_WORDS: Final[Mapping[Says, str]] = {
    "": "gave no answer",
    "barred": "do not allow it",
    "reserved": "holds it back",
    "delegated": "know it, so it is registered",
    "absent": "do not know it",
    "registered": "has it registered",
    "dropping": "has it registered, on its way out",
    "unregistered": "has no such registration",
    "usual": "sells it at the usual price",
    "premium": "sells it at a price of its own",
    "offered": "offers it for its holder",
    "unavailable": "cannot sell it",
}


class Quote(msgspec.Struct, frozen=True, omit_defaults=True):
    """A seller's prices, in `currency` (ISO 4217): the first year, each later year, and what the
    holder asks, None where there is none.
    """

    currency: str
    first_year: Decimal | None = None
    renewal: Decimal | None = None
    asked: Decimal | None = None


class Evidence(msgspec.Struct, frozen=True, omit_defaults=True):
    """One answer, or the lack of one.

    `address` is what was asked, `detail` the telling part of the answer (an HTTP status, a parse
    fault, name servers); times are aware, in UTC; `statuses` are words of RFC 8056; `drops` is the
    first and the last moment it may become open; `holder` as the record names it, "" where it
    does not.
    """

    source: Source
    says: Says
    at: datetime
    address: str = ""
    trouble: Trouble = ""
    detail: str = ""
    registered: datetime | None = None
    expires: datetime | None = None
    changed: datetime | None = None
    statuses: tuple[str, ...] = ()
    drops: tuple[datetime, datetime] | None = None
    registrar: str = ""
    holder: str = ""
    quote: Quote | None = None


def reason_of(trouble: str) -> str:
    """Why a status is unsure, in words, "" where it is not; also for codes of other versions."""
    return TROUBLE_WORDING.get(cast(Trouble, trouble), "The answer could not be read.")


def in_words(evidence: Evidence) -> str:
    """The evidence as a sentence."""
    if evidence.source == "rules":
        return evidence.detail
    if evidence.source == "zone":
        had = "had it" if evidence.says == "delegated" else "did not have it"
        return f"{SOURCES['zone'].word} {had}."
    if evidence.source == "market" and evidence.detail:
        return f"{evidence.detail[0].upper()}{evidence.detail[1:]}."
    words = f"{SOURCES[evidence.source].word} {SAYS_WORDS[evidence.says]}."
    return f"{words} {TROUBLE_WORDING[evidence.trouble]}".strip()


def write_evidence(evidence: Evidence) -> dict[str, Any]:
    """As a JSON object without what is empty."""
    document: dict[str, Any] = msgspec.to_builtins(evidence)
    return document


def read_evidence(document: Mapping[str, Any]) -> Evidence:
    """What write_evidence wrote, now or before. Raises msgspec.ValidationError for all else."""
    if isinstance(document, Mapping) and document.get("says") == EARLIER_UNAVAILABLE:
        document = {**document, "says": "unavailable"}
    return msgspec.convert(document, Evidence)
