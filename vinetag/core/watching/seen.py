"""What a watch knows of one full name, as far as it tells of it."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import datetime
from decimal import Decimal
from typing import Any, Final

import msgspec

__all__ = ["NOTHING", "Seen", "read_seen", "write_seen"]


class Seen(msgspec.Struct, frozen=True, omit_defaults=True):
    """`status`: the last definite one, "" before the first; `expires` and the range in which it may
    become open, aware and in UTC; the offer that goes first: its `kind` (OfferName), `market` by
    name, `price` in `currency`, an auction's `ends`; a registry's own prices (`first_year`,
    `renewal`, in `terms_currency`). None and "" where it is not known.
    """

    status: str = ""
    expires: datetime | None = None
    drops_from: datetime | None = None
    drops_to: datetime | None = None
    kind: str = ""
    market: str = ""
    price: Decimal | None = None
    currency: str = ""
    ends: datetime | None = None
    first_year: Decimal | None = None
    renewal: Decimal | None = None
    terms_currency: str = ""


NOTHING: Final = Seen()


def write_seen(seen: Seen) -> dict[str, Any]:
    """As a JSON object without what is not known."""
    document: dict[str, Any] = msgspec.to_builtins(seen)
    return document


def read_seen(document: Mapping[str, Any]) -> Seen:
    """What write_seen wrote; what another version wrote, and cannot be read, is nothing known."""
    try:
        return msgspec.convert(document, Seen)
    except msgspec.ValidationError:
        return NOTHING
