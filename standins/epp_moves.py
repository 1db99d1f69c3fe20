"""Names moved from one seller to another (RFC 5731, section 3.2.4): asked for with the name's code,
agreed to or refused by whoever has it, decided by the registry where that one says nothing.
"""

from __future__ import annotations

import hashlib
from collections.abc import Callable
from datetime import datetime, timedelta
from decimal import Decimal
from typing import Any, Final

from standins.books import Books, Held, Message, moment
from standins.books import text_of as written
from standins.epp_prices import Prices
from standins.epp_xml import Answer, about, first, number_of, object_of, text_of, time_of
from standins.faults import Fault
from standins.sellers import SELLERS, Seller
from standins.world import EXTENSIONS, World, years_on

__all__ = ["Moves", "code_of"]

# So long a name stays where it was registered, or moved to, last.
SETTLED: Final = timedelta(days=60)
# So long whoever has a name may think about it; sellers without a gateway here agree much sooner.
THINKING: Final = timedelta(days=5)
WILLING: Final = timedelta(seconds=2)
OF_STATUS: Final = {
    "approve": "clientApproved", "reject": "clientRejected", "cancel": "clientCancelled",
}  # fmt: skip


def code_of(name: str) -> str:
    """The code of a name that was not bought in the simulation: its holder is told it there."""
    return f"CODE-{hashlib.sha256(f'code {name}'.encode()).hexdigest()[:12]}"


class Moves:
    """What can be asked of moving; `now` is the world's time."""

    def __init__(self, books: Books, world: World, now: Callable[[], datetime], prices: Prices):
        self._books, self._world, self._now, self._prices = books, world, now, prices
        held = books.held.values()
        self._open = {one.name for one in held if one.moving.get("status") == "pending"}

    def settle(self) -> None:
        """Decide what nobody decided in time."""
        now = self._now()
        for held in [self._books.held[name] for name in self._open]:
            move = held.moving
            if moment(move["until"]) <= now:
                with self._books.change():
                    granted = move.get("unwilling") != "yes"
                    by = "client" if move["from"] not in CODES else "server"
                    word = "Approved" if granted else "Rejected" if by == "client" else "Cancelled"
                    self._decide(held, f"{by}{word}")

    def transfer(
        self, seller: Seller, op: str, body: Any, extension: Any, trid: str, fault: Fault | None
    ) -> Answer:
        """One of the five operations."""
        name = text_of(first(body, "name")).lower()
        if op == "request":
            return self._request(seller, name, body, extension, trid, fault)
        held = self._books.held.get(name)
        move = {} if held is None else held.moving
        if held is None or seller.code not in (move.get("to"), move.get("from")):
            return Answer(2201 if held is not None else 2303)
        if op == "query":
            return Answer(1000, told=_told(held))
        if move["status"] != "pending":
            return Answer(2301)
        if op not in OF_STATUS or seller.code != (move["to"] if op == "cancel" else move["from"]):
            return Answer(2201)
        self._decide(held, OF_STATUS[op])
        return Answer(1000, told=_told(held))

    def _request(
        self, seller: Seller, name: str, body: Any, extension: Any, trid: str, fault: Fault | None
    ) -> Answer:
        held = self._known(name)
        if held is None:
            return Answer(2303)
        if held.seller == seller.code:
            return Answer(2106)
        if text_of(first(body, "pw")) != held.auth:
            return Answer(2202)
        if held.moving.get("status") == "pending":
            return Answer(2300)
        label, _, rest = name.partition(".")
        seen = self._world.registration(label, rest, self._now())
        last = moment(held.moving.get("decided") or held.created)
        locked = {"clientTransferProhibited", "client transfer prohibited"} & set(held.status)
        if locked or held.pending or held.leaving or seen is None or not seen.delegated:
            return Answer(2304, value=about("domain", "name", name, "Its status prohibits it"))
        if self._now() - last < SETTLED:
            return Answer(2304, value=about("domain", "name", name, "Within 60 days"))
        years = number_of(first(body, "period"), 1)
        due = self._prices.fee(seller, name, "move", years)
        if due is None:
            return Answer(2306)
        refused = self._prices.pay(seller, "transfer", name, due, extension, trid)
        if refused is not None:
            return refused
        now = self._now().replace(microsecond=0)
        wait = THINKING if held.seller in CODES else WILLING
        if fault and fault.kind == "undecided":
            wait = timedelta(seconds=fault.seconds)
        held.moving = {
            "status": "pending", "to": seller.code, "from": held.seller, "at": written(now),
            "until": written(now + wait), "fee": f"{due:.2f}", "trid": trid, "years": str(years),
            "unwilling": "yes" if fault and fault.kind == "unwilling" else "",
            "decided": held.moving.get("decided", ""),
        }  # fmt: skip
        self._open.add(name)
        self._books.put("held", name, held)
        if held.seller in CODES:
            self._tell(held.seller, held, "Transfer requested.")
        return Answer(1001, told=_told(held), more=self._prices.paid(seller, "transfer", due))

    def _known(self, name: str) -> Held | None:
        """A name of the books, or of the world, which comes into the books by being moved."""
        label, _, rest = name.partition(".")
        held = self._books.held.get(name)
        if held is not None or rest not in EXTENSIONS:
            return held
        seen = self._world.registration(label, rest, self._now())
        if seen is None:
            return None
        return Held(
            name, seen.registrar, 1, written(seen.created), written(seen.expires),
            written(seen.changed), seen.holder, code_of(name), "world-00", [],
            list(seen.nameservers), list(seen.status),
        )  # fmt: skip

    def _decide(self, held: Held, status: str) -> None:
        move = held.moving
        move["status"] = status
        self._open.discard(held.name)
        if status.endswith("Approved"):
            move["decided"] = written(self._now())
            held.seller, held.changed = move["to"], written(self._now())
            until = years_on(moment(held.expires), int(move["years"]))
            held.expires = written(min(until, years_on(self._now(), 10)))
            held.status = []
        else:
            fee = Decimal(move["fee"])
            self._books.charge(move["to"], "refund", held.name, -fee, move["trid"])
        self._books.put("held", held.name, held)
        for code in (move["to"], move["from"]):
            if code in CODES:
                self._tell(code, held, f"Transfer {status}.")

    def _tell(self, seller: str, held: Held, text: str) -> None:
        number = self._books.next_id("M")
        message = Message(number, seller, written(self._now()), text, held.name, told=_told(held))
        self._books.put("message", number, message)


CODES: Final = frozenset(seller.code for seller in SELLERS)


def _told(held: Held) -> str:
    move = held.moving
    body = (
        f"<domain:name>{held.name}</domain:name><domain:trStatus>{move['status']}</domain:trStatus>"
        f"<domain:reID>{move['to']}</domain:reID><domain:reDate>{time_of(move['at'])}"
        f"</domain:reDate><domain:acID>{_client_of(move['from'])}</domain:acID>"
        f"<domain:acDate>{time_of(move['until'])}</domain:acDate>"
        f"<domain:exDate>{time_of(held.expires)}</domain:exDate>"
    )
    return object_of("domain", "trnData", body)


def _client_of(seller: str) -> str:
    """An identifier of 3 to 16 characters (RFC 5730)."""
    return "".join(c for c in seller.lower() if c.isalnum() or c == "-")[:16].ljust(3, "-")
