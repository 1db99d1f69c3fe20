"""What sellers' gateways answer, in plain words (result codes of RFC 5730, section 3)."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Final

__all__ = ["SAID", "said_in_words"]

SAID: Final[Mapping[int, str]] = {
    2001: "The seller could not read what was sent. This is a fault of ours.",
    2003: "The seller asks for something that was not sent.",
    2004: "It costs more than was agreed to, or is not sold for so many years.",
    2005: "The seller does not accept how something is written.",
    2103: "The seller takes no coupons in orders placed from elsewhere.",
    2104: "The credit with the seller does not cover it.",
    2105: "It cannot be renewed now.",
    2106: "It cannot be moved now.",
    2200: "The seller does not accept our sign-in.",
    2201: "Somebody else has it.",
    2202: "The code for moving it is not the right one.",
    2300: "Somebody is moving it already.",
    2301: "Nobody asked to move it.",
    2302: "Somebody registered it meanwhile.",
    2303: "The registry does not know it.",
    2304: "Its status does not allow that now.",
    2306: "The rules of the registry do not allow it.",
    2308: "The registry's rules for what is kept with a name do not allow it.",
    2400: "The seller could not carry it out, and does not say why.",
}
_TROUBLES: Final[Mapping[str, str]] = {
    "unreachable": "The seller cannot be reached.",
    "timeout": "The seller does not answer in time.",
    "certificate": "The seller's certificate does not hold: it has run out, or is not the right "
    "one. Nothing is sent to it.",
    "login": "The seller does not accept our sign-in.",
    "nonsense": "What the seller answers cannot be read.",
    "no_gateway": "Nothing can be ordered here from this seller.",
    "not_sent": "It was never sent to the seller.",
    "not_paid": "It was not paid for.",
    "called_off": "You called it off.",
    "refused_later": "The registry turned it down after thinking it over.",
    "others": "Somebody else has it.",
    "kept_there": "Its seller, or the registry, did not let it go.",
}


def said_in_words(code: int, trouble: str = "", said: str = "") -> str:
    """One or two sentences: what it means, and the seller's own words where it gave any."""
    words = SAID.get(code) or _TROUBLES.get(trouble) or "It is not known why."
    return f"{words} The seller says: “{said}”." if said else words
