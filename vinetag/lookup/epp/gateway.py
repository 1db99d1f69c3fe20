"""What is asked of a seller's gateway, whoever answers: values and a protocol, free of any library.

A command that changes something comes to a `Done`. What matters most of it is whether it is
`certain`: where it is not, the seller may have carried it out, and has to be asked before anything
is sent again.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from typing import Literal, Protocol

from vinetag.core.ordering import Person
from vinetag.core.zone import Signer

__all__ = [
    "Checked", "Done", "FeeAction", "Gateway", "GatewayTrouble", "MoveState", "Moving", "Notice",
    "Seen", "Wish",
]  # fmt: skip

FeeAction = Literal["create", "renew", "restore", "transfer"]
MoveState = Literal["none", "pending", "approved", "refused", "unknown"]

GatewayTrouble = Literal[
    "", "unreachable", "timeout", "certificate", "login", "nonsense", "refused", "not_sent",
]  # fmt: skip


@dataclass(frozen=True, slots=True)
class Checked:
    """Whether a name can be registered there now, and for how much: `fee` for the years asked
    about, without tax, in `currency`; `renewal` for a year more, asked of names to be registered;
    `premium` where that is a price of its own.
    """

    name: str
    free: bool
    reason: str = ""
    fee: Decimal | None = None
    currency: str = ""
    premium: bool = False
    renewal: Decimal | None = None


@dataclass(frozen=True, slots=True)
class Wish:
    """A name to be registered. `auth` is the word by which it can be told to be ours (and moved);
    `fee` what is agreed to at most; `token` a coupon (RFC 8495), "" for none.
    """

    name: str
    years: int
    registrant: str
    contacts: Sequence[tuple[str, str]]
    servers: Sequence[str]
    auth: str
    trid: str
    fee: Decimal
    currency: str
    token: str = ""


@dataclass(frozen=True, slots=True)
class Done:
    """What became of a command: `code` of RFC 5730 (0 without an answer), `trouble` why there was
    none, `said` the seller's own words. `certain`: whether what was asked for is known to have been
    done or not.
    """

    code: int = 0
    trouble: GatewayTrouble = ""
    said: str = ""
    certain: bool = True
    pending: bool = False
    charged: Decimal | None = None
    created: datetime | None = None
    expires: datetime | None = None

    @property
    def good(self) -> bool:
        """Whether it was carried out, or will be thought over."""
        return 1000 <= self.code < 2000


@dataclass(frozen=True, slots=True)
class Seen:
    """What the seller knows of a name: `whose` is ours, others (somebody else has it), nobody or
    unknown (it could not be found out).
    """

    whose: Literal["ours", "others", "nobody", "unknown"]
    trouble: GatewayTrouble = ""
    code: int = 0
    auth: str = ""
    statuses: tuple[str, ...] = ()
    grace: tuple[str, ...] = ()
    servers: tuple[str, ...] = ()
    registrant: str = ""
    signed: bool = False
    keys: tuple[Signer, ...] = ()
    created: datetime | None = None
    expires: datetime | None = None


@dataclass(frozen=True, slots=True)
class Moving:
    """How moving a name stands: asked for at `asked`, decided by the registry at `until` if nobody
    does before; `unknown` with the trouble or the code why.
    """

    state: MoveState
    asked: datetime | None = None
    until: datetime | None = None
    trouble: GatewayTrouble = ""
    code: int = 0


@dataclass(frozen=True, slots=True)
class Notice:
    """A message that waited: what it says of a name that was pending, or is `moving`, if it is
    about one.
    """

    id: str
    text: str = ""
    name: str = ""
    granted: bool | None = None
    trid: str = ""
    moving: bool = False


class Gateway(Protocol):
    """A session with one seller. Raises nothing: every failure is a value."""

    def open(self) -> Done:
        """Connect and sign in."""

    def close(self) -> None:
        """Sign out, and hang up."""

    def check(
        self, names: Sequence[str], years: int, action: FeeAction = "create", token: str = ""
    ) -> list[Checked] | Done:
        """Which can be registered for so many years, and what that, or another action, costs, with
        a coupon if there is one; in their order, at most MOST_CHECKED.
        """

    def credit(self) -> tuple[Decimal, Done]:
        """What is left in our account there."""

    def make_contact(self, number: str, person: Person, *, withheld: bool) -> Done:
        """Let the seller know somebody; one that is there already is well."""

    def make_host(self, name: str) -> Done:
        """Let the seller know a name server; one that is there already is well."""

    def register(self, wish: Wish) -> Done:
        """Register a name."""

    def info(self, name: str) -> Seen:
        """What the seller knows of a name."""

    def renew(
        self, name: str, expires: datetime, years: int, trid: str, fee: Decimal, currency: str
    ) -> Done:
        """Renew a name that runs out then, for so much at most."""

    def restore(self, name: str, trid: str, fee: Decimal, currency: str) -> Done:
        """Get a name back out of its redemption period."""

    def let_go(self, name: str, trid: str) -> Done:
        """Delete a name."""

    def move(
        self, name: str, code: str, years: int, trid: str, fee: Decimal, currency: str
    ) -> Done:
        """Ask for a name of another seller by its code, for so much at most."""

    def moving(self, name: str) -> Moving:
        """How that stands, for either side."""

    def decide(self, name: str, *, allow: bool) -> Done:
        """Let a name go to who asks for it, or refuse it."""

    def change(
        self,
        name: str,
        trid: str,
        *,
        add: Sequence[str] = (),
        remove: Sequence[str] = (),
        lock: bool | None = None,
        registrant: str = "",
        auth: str = "",
        sign: Sequence[Signer] = (),
        unsign: Sequence[Signer] = (),
    ) -> Done:
        """Other name servers, its lock against being moved, whom it is for, its code, or the keys
        that sign it, some more or fewer.
        """

    def notice(self) -> Notice | Done | None:
        """The message that has waited longest, None where none waits."""

    def dismiss(self, number: str) -> Done:
        """Let a message go, once it is kept."""
