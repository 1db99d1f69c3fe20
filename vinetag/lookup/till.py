"""A hosted payment page: somebody is sent there and comes back, and no data of a card is ever seen
here. What became of a payment is told by a signed message (Standard Webhooks), or asked for.
"""

from __future__ import annotations

import asyncio
import base64
import binascii
import hashlib
import hmac
import json
from collections.abc import Awaitable, Callable, Mapping
from dataclasses import dataclass, field
from decimal import Decimal
from typing import Any, Final, Literal, Protocol, TypeVar, cast
from urllib.parse import urlsplit

import aiohttp

from vinetag.core.checking import Trouble
from vinetag.lookup.env import SettingsError
from vinetag.lookup.fetching import Failure, Reply, get, open_session, origin_of, post

__all__ = [
    "HostedTill",
    "PaymentState",
    "PaymentTold",
    "Till",
    "TillSettings",
    "till_from_env",
    "told_by",
]  # fmt: skip

PaymentState = Literal["open", "accepted", "declined", "abandoned"]
STATES: Final = ("open", "accepted", "declined", "abandoned")
LARGEST_NOTICE: Final = 16_384
# How old a signed message may be, either way, in seconds.
SKEW: Final = 300
Found = TypeVar("Found")


@dataclass(frozen=True, slots=True)
class TillSettings:
    """Where payments are begun (a folder of addresses), and the word both sides know."""

    address: str
    secret: str = field(repr=False)
    timeout: float = 8.0


def till_from_env(env: Mapping[str, str]) -> TillSettings | None:
    """By VINETAG_TILL and VINETAG_TILL_SECRET; None where there is none. Raises SettingsError."""
    address = env.get("VINETAG_TILL", "")
    if not address:
        return None
    parts = urlsplit(address)
    if parts.scheme not in ("http", "https") or not parts.netloc:
        raise SettingsError("VINETAG_TILL should be a web address.")
    if not env.get("VINETAG_TILL_SECRET"):
        raise SettingsError("VINETAG_TILL_SECRET is missing.")
    return TillSettings(address.rstrip("/"), env["VINETAG_TILL_SECRET"])


@dataclass(frozen=True, slots=True)
class PaymentTold:
    """What the page says of a payment; `page` is where somebody pays. With a `trouble`, nothing is
    known.
    """

    trouble: Trouble = ""
    id: str = ""
    reference: str = ""
    state: PaymentState = "open"
    amount: Decimal = Decimal(0)
    currency: str = ""
    page: str = ""


class Till(Protocol):
    """What is asked of a payment page. Raises nothing: every failure is a value."""

    def begin(
        self, reference: str, amount: Decimal, currency: str, about: str, back: str, notify: str
    ) -> PaymentTold:
        """A payment; the same reference is the same payment."""

    def look(self, number: str) -> PaymentTold:
        """What became of one."""

    def refund(self, number: str, key: str, amount: Decimal) -> Trouble:
        """Give money back, "" when it was; the same key is the same refund."""


class HostedTill:
    """As Till says, by JSON over HTTP (the interface is described by /till/openapi.json there)."""

    def __init__(self, settings: TillSettings) -> None:
        self._settings = settings

    def begin(
        self, reference: str, amount: Decimal, currency: str, about: str, back: str, notify: str
    ) -> PaymentTold:
        """A payment; the same reference is the same payment."""
        document = {
            "reference": reference, "amount": f"{amount:.2f}", "currency": currency,
            "about": about, "back": back, "notify": notify,
        }  # fmt: skip
        told = self._told(self._send("payments", document))
        # People are only ever sent to the page of the settings.
        if not told.trouble and origin_of(told.page) != origin_of(self._settings.address):
            return PaymentTold("nonsense")
        return told

    def look(self, number: str) -> PaymentTold:
        """What became of one."""
        if not number.isalnum():
            return PaymentTold("nonsense")
        return self._told(self._send(f"payments/{number}", None))

    def refund(self, number: str, key: str, amount: Decimal) -> Trouble:
        """Give money back, "" when it was."""
        if not number.isalnum():
            return "nonsense"
        document = {"key": key, "amount": f"{amount:.2f}"}
        reply = self._send(f"payments/{number}/refunds", document)
        if isinstance(reply, Failure):
            return reply.trouble
        return "" if reply.status == 201 else _trouble(reply)

    def _send(self, what: str, document: Mapping[str, str] | None) -> Reply | Failure:
        headers = {"Authorization": f"Bearer {self._settings.secret}", "Accept": "application/json"}
        address = f"{self._settings.address}/{what}"

        async def ask(session: aiohttp.ClientSession) -> Reply | Failure:
            if document is None:
                return await get(session, address, headers)
            kind = {"Content-Type": "application/json"}
            return await post(session, address, {**headers, **kind}, json.dumps(document).encode())

        return asyncio.run(_within(self._settings.timeout, ask))

    def _told(self, reply: Reply | Failure) -> PaymentTold:
        if isinstance(reply, Failure):
            return PaymentTold(reply.trouble)
        if reply.status not in (200, 201):
            return PaymentTold(_trouble(reply))
        return read_payment(reply.body) or PaymentTold("nonsense")


def told_by(
    headers: Mapping[str, str], body: bytes, secret: str, now: float
) -> PaymentTold | None:  # fmt: skip
    """What a signed message says; None where it is not signed by who knows the secret, too old, or
    says nothing that can be read. `now` in seconds since 1970.
    """
    number, at = headers.get("webhook-id", ""), headers.get("webhook-timestamp", "")
    if not number or not at.isdigit() or len(at) > 12 or abs(now - int(at)) > SKEW:
        return None
    about = b".".join((number.encode("utf-8", "replace"), at.encode(), body))
    right = hmac.new(secret.encode(), about, hashlib.sha256).digest()
    signed = False
    for one in headers.get("webhook-signature", "").split()[:8]:
        version, _, text = one.partition(",")
        try:
            given = base64.b64decode(text, validate=True)
        except (binascii.Error, ValueError):
            continue
        signed |= version == "v1" and hmac.compare_digest(given, right)
    return read_payment(body) if signed and len(body) <= LARGEST_NOTICE else None


def read_payment(body: bytes) -> PaymentTold | None:
    """A payment as JSON, None where it is none."""
    try:
        given: Any = json.loads(body)
        amount = Decimal(str(given["amount"]))
        state = given["state"]
        texts = [given[name] for name in ("id", "reference", "currency")]
        page = given.get("page", "")
    except (ValueError, KeyError, TypeError, ArithmeticError, RecursionError, AttributeError):
        return None
    if state not in STATES or not all(isinstance(t, str) and len(t) < 200 for t in texts):
        return None
    if not amount.is_finite() or not 0 <= amount < Decimal(10**9):
        return None
    if not isinstance(page, str) or len(page) > 500 or not texts[0].isalnum():
        return None
    number, reference, currency = texts
    return PaymentTold("", number, reference, cast(PaymentState, state), amount, currency, page)


def _trouble(reply: Reply) -> Trouble:
    return "server_error" if reply.status >= 500 else "refused"


async def _within(
    seconds: float, ask: Callable[[aiohttp.ClientSession], Awaitable[Found]]
) -> Found:
    async with open_session(seconds) as session:
        return await ask(session)
