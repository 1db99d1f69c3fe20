"""One order in one session with its seller, and what is known of its names by now."""

from __future__ import annotations

import hashlib
import hmac
import time
from collections.abc import Mapping, Sequence
from contextlib import ExitStack
from dataclasses import dataclass, field
from typing import Any, Final

from django.conf import settings
from django.utils import timezone

from vinetag.apps.availability.leases import beat, patiently
from vinetag.apps.ordering.gateways import make_people, session
from vinetag.apps.ordering.models import Errand, Order, OrderName
from vinetag.core.ordering import Person, advance
from vinetag.lookup.epp import Done, Gateway, Seen

__all__ = ["Work", "auth_of", "keep", "numbers_of", "registered"]

# A worker tells that it lives so often, in seconds.
BEATS: Final = 2.0
ANSWERED: Final = (
    "state", "code", "trouble", "said", "charged", "registered_at", "expires_at", "sent_at",
    "tries",
)  # fmt: skip


@dataclass
class Work:
    """One order in one session. `numbers` are whom a name is for, by set and way of showing;
    `refused` what the seller answered of those it does not accept; `hosts` are known there; `codes`
    are by which names are moved, and from which of our accounts.
    """

    order: Order
    gateway: Gateway
    errand: int
    lease: str
    people: Mapping[str, Mapping[str, Person]]
    codes: Mapping[str, Mapping[str, str]] = field(default_factory=dict)
    numbers: dict[tuple[str, bool], dict[str, str]] = field(default_factory=dict)
    refused: dict[tuple[str, bool], Done] = field(default_factory=dict)
    hosts: set[str] = field(default_factory=set)
    beaten: float = 0.0
    lines: list[Gateway] | None = None
    open_lines: ExitStack = field(default_factory=ExitStack)

    def more_lines(self) -> list[Gateway]:
        """Further sessions beside the first, those the seller lets in."""
        if self.lines is None:
            self.lines = []
            for _ in range(settings.GATEWAY_LINES - 1):
                line, done = self.open_lines.enter_context(session(self.order.seller))
                if not done.trouble:
                    self.lines.append(line)
        return self.lines

    def held(self) -> bool:
        """Whether the order is still this worker's."""
        if time.monotonic() - self.beaten > BEATS:
            if not beat(Errand, self.errand, self.lease):
                return False
            self.beaten = time.monotonic()
        return True


def auth_of(trid: str) -> str:
    """The word of a name that is sent by a transaction (authInfo, RFC 5731), known to us alone."""
    key = f"auth {settings.SECRET_KEY}".encode()
    return hmac.new(key, trid.encode(), hashlib.sha256).hexdigest()[:30] + "-Aa1"


def keep(rows: Sequence[OrderName]) -> None:
    """Write down what was answered, in one statement."""
    if rows:
        patiently(
            lambda: OrderName.objects.bulk_create(
                rows, update_conflicts=True, update_fields=list(ANSWERED)
            )
        )


def registered(row: OrderName, seen: Done | Seen) -> None:
    row.state = advance(row.state, "registered")
    row.trouble, row.said, row.code = "", "", 1000
    row.registered_at = (seen.created if row.action == "register" else None) or timezone.now()
    row.expires_at = seen.expires


def numbers_of(work: Work, row: OrderName) -> tuple[dict[str, str], Done]:
    """By which numbers the seller knows whom a name is for; it is let know once an order."""
    key = row.people_set, row.privacy
    if key in work.refused:
        return {}, work.refused[key]
    if key not in work.numbers:
        people: Mapping[str, Any] = work.people.get(row.people_set, {})
        numbers, done = make_people(
            work.gateway, work.order.owner_id, people, withheld=row.privacy
        )  # fmt: skip
        if not done.good:
            if not done.trouble:
                work.refused[key] = done
            return {}, done
        work.numbers[key] = numbers
    return work.numbers[key], Done(code=1000)
