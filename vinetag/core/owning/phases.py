"""What becomes of a name that is not renewed (RFC 3915), by the rules of its extension. Where a
rule is a range, its end is what is told, as the latest there is: sellers may be sooner.
"""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Final, Literal, NamedTuple

from vinetag.core.checking import drop_rules

__all__ = ["Phase", "Phases", "phase_of", "phases_of"]

# Held; run out, and renewed as before; to be had back for a price; lost, and free before long.
Phase = Literal["held", "grace", "redemption", "lost"]
OTHER: Final = "*"


class Phases(NamedTuple):
    """Until when it is held, can be renewed as before and can be had back at the latest; and
    whether the extension's own rules say so, not what is usual.
    """

    expires: datetime
    renewable: datetime
    redeemable: datetime
    known: bool


def phases_of(expires: datetime, extension: str) -> Phases:
    """By the moment it runs out, aware and in UTC."""
    rules = drop_rules()
    rule = rules.get(extension, rules[OTHER])
    renewable = expires + timedelta(days=rule.grace[1])
    redeemable = renewable + timedelta(days=rule.redemption[1])
    return Phases(expires, renewable, redeemable, extension in rules)


def phase_of(phases: Phases, now: datetime) -> Phase:
    """Where it is at a moment."""
    if now < phases.expires:
        return "held"
    if now < phases.renewable:
        return "grace"
    return "redemption" if now < phases.redeemable else "lost"
