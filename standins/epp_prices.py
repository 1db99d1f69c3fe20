"""What things cost at the simulated gateways (RFC 8748), with tokens (RFC 8495), and who pays."""

from __future__ import annotations

from collections.abc import Callable
from datetime import datetime
from decimal import Decimal
from typing import Any, Final
from xml.sax.saxutils import escape

from standins.books import Books
from standins.epp_xml import (
    Answer,
    about,
    agreed_fee,
    first,
    local,
    number_of,
    object_of,
    token_of,
)
from standins.faults import Fault
from standins.fees import fee_of, taken_off
from standins.sellers import Seller
from standins.world import EXTENSIONS, Offer, World

__all__ = ["Prices", "dearer"]

DEARER: Final = Decimal("1.10")
CENT: Final = Decimal("0.01")
ACTIONS: Final = {"create": "register", "renew": "renew", "transfer": "move", "restore": "restore"}


class Prices:
    """Of names, and the accounts they are paid from; `now` is the world's time."""

    def __init__(self, books: Books, world: World, now: Callable[[], datetime]) -> None:
        self._books, self._world, self._now = books, world, now

    def offer(self, name: str) -> Offer:
        """How a name can be had now."""
        label, _, extension = name.partition(".")
        return self._world.offer(label, extension, self._now())

    def fee(self, seller: Seller, name: str, action: str, years: int) -> Decimal | None:
        """What a seller asks for something, None where it is not to be had."""
        if name.partition(".")[2] not in EXTENSIONS:
            return None
        offer, held = self.offer(name), self._books.held.get(name)
        if held is not None and action in ("renew", "restore", "move"):
            offer = Offer("usual")
        return fee_of(seller, name, action, years, self._now().date(), offer)

    def fees(self, seller: Seller, name: str, extension: Any) -> str:
        """What is asked about in a check, with what it costs."""
        check = None if extension is None else first(extension, "check")
        if check is None:
            return ""
        rows = []
        for command in check:
            action = ACTIONS.get(command.get("name", ""), "")
            period = first(command, "period")
            years = number_of(period, 1)
            if local(command.tag) != "command" or not action:
                continue
            fee = self.fee(seller, name, action, years)
            if action == "register":
                fee = self.with_token(seller, name, years, extension)
            if fee is None:
                continue
            rows.append(
                f'<fee:command name="{command.get("name")}"><fee:period unit="y">{years}'
                f"</fee:period><fee:fee>{fee:.2f}</fee:fee></fee:command>"
            )
        premium = name.partition(".")[2] in EXTENSIONS and self.offer(name).kind == "premium"
        kind = "<fee:class>premium</fee:class>" if premium else ""
        flag = "1" if rows else "0"
        named = f"<fee:objID>{escape(name)}</fee:objID>"
        return f'<fee:cd avail="{flag}">{named}{kind}{"".join(rows)}</fee:cd>'

    def no_token(self, seller: Seller, name: str, extension: Any) -> str:
        """Why a token somebody shows is none for a name (RFC 8495, section 3.1.1)."""
        token = token_of(extension)
        if not token:
            return ""
        period = first(first(extension, "check"), "period")
        usual = self.with_token(seller, name, number_of(period, 1), extension)
        return "Allocation Token mismatch" if usual is None else ""

    def with_token(self, seller: Seller, name: str, years: int, extension: Any) -> Decimal | None:
        """What registering costs, with the token that is shown, if any; None for one that is none
        for this name.
        """
        due, token = self.fee(seller, name, "register", years), token_of(extension)
        if due is None or not token:
            return due
        if self.offer(name).kind == "premium":
            return None
        return taken_off(seller, token, name, years, due, self._now().date())

    def pay(
        self, seller: Seller, kind: str, name: str, due: Decimal, extension: Any, trid: str
    ) -> Answer | None:
        """Charge what is due; an answer where it is not agreed to, or cannot be paid."""
        agreed = None if extension is None else agreed_fee(extension, kind)
        if agreed is not None:
            amount, currency = agreed
            if currency not in ("", seller.currency) or amount < due:
                return Answer(2004, value=about("fee", "fee", f"{due:.2f}", "It costs this."))
        if self._books.balance(seller.code) < due:
            return Answer(2104)
        self._books.charge(seller.code, kind, name, due, trid)
        return None

    def paid(self, seller: Seller, kind: str, due: Decimal) -> str:
        """What was taken, and what is left."""
        tag = {"create": "creData", "renew": "renData", "transfer": "trnData"}.get(kind, "updData")
        left = self._books.balance(seller.code)
        return object_of(
            "fee", tag,
            f"<fee:currency>{seller.currency}</fee:currency><fee:fee>{due:.2f}</fee:fee>"
            f"<fee:balance>{left:.2f}</fee:balance>",
        )  # fmt: skip


def dearer(due: Decimal, fault: Fault | None) -> Decimal:
    """What it costs where it costs more than was said."""
    more = DEARER if fault and fault.kind == "dearer" else 1
    return (due * more).quantize(CENT)
