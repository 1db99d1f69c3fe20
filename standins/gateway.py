"""What a simulated gateway does with a command: each against the books."""

from __future__ import annotations

from collections.abc import Callable
from datetime import datetime
from typing import Any, Final
from xml.sax.saxutils import escape

from standins.books import Books
from standins.epp_moves import Moves
from standins.epp_names import Names
from standins.epp_people import People
from standins.epp_xml import BALANCE, NAMESPACES, Answer, object_of, time_of
from standins.faults import Fault
from standins.sellers import Seller
from standins.world import World

__all__ = ["Gateway"]

VERBS: Final = frozenset({"check", "info", "create", "renew", "update", "delete"})


class Gateway:
    """All sellers' books behind one set of commands; `now` is the world's time."""

    def __init__(self, books: Books, world: World, now: Callable[[], datetime]) -> None:
        self._books = books
        self._names = Names(books, world, now)
        self._people = People(books, now)
        self._moves = Moves(books, world, now, self._names.prices)

    def carry_out(
        self, seller: Seller, verb: str, part: Any, extension: Any, trid: str, fault: Fault | None
    ) -> Answer:
        """One command of a session that is signed in."""
        self._names.settle()
        self._moves.settle()
        if verb == "poll":
            return self._poll(seller, part)
        body = part[0] if len(part) else None
        if body is None:
            return Answer(2003)
        namespace, name = body.tag[1:].split("}", 1) if "}" in body.tag else ("", body.tag)
        if namespace == BALANCE and name == "info":
            return self._balance(seller)
        kind = next((k for k in ("domain", "contact", "host") if NAMESPACES[k] == namespace), "")
        if kind == "domain" and verb == name == "transfer":
            with self._books.change():
                return self._moves.transfer(
                    seller, part.get("op", ""), body, extension, trid, fault
                )
        things = self._names if kind == "domain" else self._people
        of = {"domain": verb, "contact": f"contact_{verb}", "host": f"host_{verb}"}.get(kind, "")
        work = getattr(things, of, None) if of and verb in VERBS and name == verb else None
        if work is None:
            return Answer(2101)
        with self._books.change():
            done: Answer = work(seller, body, extension, trid, fault)
        return done

    def _poll(self, seller: Seller, part: Any) -> Answer:
        waiting = [m for m in self._books.messages.values() if m.seller == seller.code]
        if part.get("op") == "ack":
            number = part.get("msgID", "")
            if number not in {m.id for m in waiting}:
                return Answer(2303)
            with self._books.change():
                self._books.drop("message", number)
            return Answer(1000, queue=f'<msgQ count="{len(waiting) - 1}" id="{number}"/>')
        if not waiting:
            return Answer(1300)
        m = waiting[0]
        result = "1" if m.granted else "0"
        told = m.told or object_of(
            "domain", "panData",
            f'<domain:name paResult="{result}">{m.name}</domain:name><domain:paTRID>'
            f"<clTRID>{escape(m.trid)}</clTRID><svTRID>SIM-{m.id}</svTRID></domain:paTRID>"
            f"<domain:paDate>{time_of(m.at)}</domain:paDate>",
        )  # fmt: skip
        queue = (
            f'<msgQ count="{len(waiting)}" id="{m.id}"><qDate>{time_of(m.at)}</qDate>'
            f"<msg>{escape(m.text)}</msg></msgQ>"
        )
        return Answer(1301, told=told, queue=queue)

    def _balance(self, seller: Seller) -> Answer:
        left = self._books.balance(seller.code)
        told = (
            f'<balance:infData xmlns:balance="{BALANCE}"><balance:creditLimit>0.00'
            f"</balance:creditLimit><balance:balance>{left:.2f}</balance:balance>"
            f"<balance:availableCredit>{left:.2f}</balance:availableCredit></balance:infData>"
        )
        return Answer(1000, told=told)
