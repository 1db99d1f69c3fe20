"""What was bought at the simulated sellers: names, contacts, hosts, messages, and the money.

Kept in memory, and in a SQLite file when one is given, so that the simulation may be started again.
Every change is one transaction of that file.
"""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import asdict, dataclass, field
from datetime import UTC, datetime
from decimal import Decimal
from typing import Any, Final, TypeVar

__all__ = [
    "Books", "Charge", "Contact", "Held", "Message", "Payment", "Zone", "moment", "text_of",
]  # fmt: skip

CREDIT: Final = Decimal(50_000)
Kept = TypeVar("Kept")


def moment(text: str) -> datetime:
    """A time as the books write it."""
    return datetime.fromisoformat(text)


def text_of(at: datetime) -> str:
    """As the books write a time: UTC, to the second."""
    return at.astimezone(UTC).isoformat(timespec="seconds")


@dataclass
class Held:
    """A name somebody registered here. `pending` is until when its registration is undecided, ""
    once it is, `granted` how that ends; `leaving` is when it was let go, "" while it is not.
    `moving` is the last time somebody asked to move it, empty while nobody did.
    """

    name: str
    seller: str
    years: int
    created: str
    expires: str
    changed: str
    registrant: str
    auth: str
    trid: str
    contacts: list[list[str]] = field(default_factory=list)
    hosts: list[str] = field(default_factory=list)
    status: list[str] = field(default_factory=list)
    keys: list[list[str]] = field(default_factory=list)
    pending: str = ""
    granted: bool = True
    leaving: str = ""
    moving: dict[str, str] = field(default_factory=dict)

    def __post_init__(self) -> None:
        # Books of earlier versions have a text here, which is empty.
        self.moving = self.moving or {}


@dataclass
class Contact:
    """Someone a seller knows; `withheld` keeps them out of the public record."""

    id: str
    seller: str
    name: str
    org: str
    country: str
    email: str
    rest: dict[str, Any] = field(default_factory=dict)
    withheld: bool = False


@dataclass
class Message:
    """One that waits for a seller's account to be fetched (RFC 5730, section 2.9.2.3): of a pending
    action, or of what is `told`.
    """

    id: str
    seller: str
    at: str
    text: str
    name: str = ""
    granted: bool = True
    trid: str = ""
    told: str = ""


@dataclass
class Charge:
    """What was taken from an account, below 0 where it was given back."""

    id: str
    seller: str
    kind: str
    name: str
    amount: str
    trid: str
    at: str


@dataclass
class Payment:
    """One at the payment page: `state` is open, accepted, declined or abandoned."""

    id: str
    reference: str
    amount: str
    currency: str
    about: str
    back: str
    notify: str
    state: str = "open"
    refunds: dict[str, str] = field(default_factory=dict)


@dataclass
class Zone:
    """What name servers say of a name: records as name within it, seconds, kind and data."""

    name: str
    serial: int
    records: list[list[str]] = field(default_factory=list)


KINDS: Final[dict[str, type[Any]]] = {
    "held": Held, "contact": Contact, "message": Message, "charge": Charge, "payment": Payment,
    "zone": Zone,
}  # fmt: skip


class Books:
    """All of it. `path`: the file, "" to keep it in memory alone."""

    def __init__(self, path: str = "") -> None:
        self.held: dict[str, Held] = {}
        self.contacts: dict[str, Contact] = {}
        self.messages: dict[str, Message] = {}
        self.charges: dict[str, Charge] = {}
        self.payments: dict[str, Payment] = {}
        self.zones: dict[str, Zone] = {}
        self.hosts: dict[str, str] = {}
        self._all: dict[str, dict[str, Any]] = {
            "held": self.held, "contact": self.contacts, "message": self.messages,
            "charge": self.charges, "payment": self.payments, "zone": self.zones,
        }  # fmt: skip
        self._spent: dict[str, Decimal] = {}
        self._file = sqlite3.connect(path or ":memory:", isolation_level=None)
        self._file.executescript(
            "PRAGMA journal_mode=WAL; PRAGMA synchronous=OFF;"
            "CREATE TABLE IF NOT EXISTS entry"
            " (kind TEXT, key TEXT, body TEXT, PRIMARY KEY (kind, key)) WITHOUT ROWID;"
        )
        for kind, key, body in self._file.execute("SELECT kind, key, body FROM entry"):
            if kind == "host":
                self.hosts[key] = body
            else:
                self._all[kind][key] = KINDS[kind](**json.loads(body))
        for charge in self.charges.values():
            self._count(charge)
        self._last = len(self.charges) + len(self.messages)

    @contextmanager
    def change(self) -> Iterator[None]:
        """What is put within stands together in the file, or not at all."""
        self._file.execute("BEGIN")
        try:
            yield
        finally:
            self._file.execute("COMMIT")

    def put(self, kind: str, key: str, thing: Any) -> None:
        """Keep a thing, new or changed."""
        self._all[kind][key] = thing
        self._write(kind, key, json.dumps(asdict(thing)))

    def drop(self, kind: str, key: str) -> None:
        """Forget a thing."""
        self._all[kind].pop(key, None)
        self._file.execute("DELETE FROM entry WHERE kind = ? AND key = ?", (kind, key))

    def put_host(self, name: str, seller: str) -> None:
        """Keep a name server somebody told of."""
        self.hosts[name] = seller
        self._write("host", name, seller)

    def _write(self, kind: str, key: str, body: str) -> None:
        self._file.execute("REPLACE INTO entry VALUES (?, ?, ?)", (kind, key, body))

    def next_id(self, letter: str) -> str:
        """Of a message or a charge."""
        self._last += 1
        return f"{letter}{self._last:08}"

    def balance(self, seller: str) -> Decimal:
        """What is left in the account with a seller, in the seller's currency."""
        return CREDIT - self._spent.get(seller, Decimal(0))

    def charge(self, seller: str, kind: str, name: str, amount: Decimal, trid: str) -> None:
        """Take from an account."""
        number = self.next_id("C")
        now = text_of(datetime.now(UTC))
        charge = Charge(number, seller, kind, name, f"{amount:.2f}", trid, now)
        self.put("charge", number, charge)
        self._count(charge)

    def _count(self, charge: Charge) -> None:
        spent = self._spent.get(charge.seller, Decimal(0))
        self._spent[charge.seller] = spent + Decimal(charge.amount)

    def document(self) -> dict[str, Any]:
        """As JSON."""
        kinds = {kind: [asdict(one) for one in kept.values()] for kind, kept in self._all.items()}
        return kinds | {"hosts": dict(self.hosts)}
