"""Names at the simulated gateways (RFC 5731, 8748, 3915, 5910)."""

from __future__ import annotations

from collections.abc import Callable
from datetime import datetime, timedelta
from decimal import Decimal
from typing import Any, Final
from xml.sax.saxutils import escape

from standins.books import Books, Held, Message, moment
from standins.books import text_of as written
from standins.epp_prices import Prices, dearer
from standins.epp_xml import (
    Answer,
    about,
    every,
    first,
    key_of,
    keys_of,
    local,
    number_of,
    object_of,
    statuses_of,
    text_of,
    time_of,
)
from standins.faults import Fault
from standins.fees import privacy_of, sells
from standins.sellers import Seller
from standins.world import EXTENSIONS, World, years_on

__all__ = ["LDH", "Names"]

LDH: Final = frozenset("abcdefghijklmnopqrstuvwxyz0123456789-")
MOST_CHECKED: Final = 50
GRACE: Final = timedelta(days=5)


class Names:
    """What can be done with them; `now` is the world's time."""

    def __init__(self, books: Books, world: World, now: Callable[[], datetime]) -> None:
        self._books, self._world, self._now = books, world, now
        self.prices = Prices(books, world, now)
        self._pending = {held.name for held in books.held.values() if held.pending}

    def settle(self) -> None:
        """Decide what was pending until now."""
        now = self._now()
        for name in sorted(self._pending):
            held = self._books.held[name]
            if moment(held.pending) > now:
                continue
            self._pending.discard(name)
            with self._books.change():
                held.pending = ""
                if held.granted:
                    self._books.put("held", held.name, held)
                else:
                    self._give_back(held)
                    self._books.drop("held", held.name)
                number = self._books.next_id("M")
                text = "Pending action completed."
                message = Message(
                    number, held.seller, written(now), text, held.name, held.granted, held.trid
                )
                self._books.put("message", number, message)

    def _give_back(self, held: Held) -> None:
        """What was charged for registering a name."""
        paid = sum(
            Decimal(c.amount) for c in self._books.charges.values() if c.trid == held.trid
        )  # fmt: skip
        self._books.charge(held.seller, "refund", held.name, -Decimal(paid), held.trid)

    def check(
        self, seller: Seller, body: Any, extension: Any, _trid: str, _fault: Fault | None
    ) -> Answer:
        names = [text_of(one).lower() for one in body if local(one.tag) == "name"]
        if not names or len(names) > MOST_CHECKED:
            return Answer(2004)
        rows, fees = [], []
        for name in names:
            reason = self._why_not(seller, name) or self.prices.no_token(seller, name, extension)
            said = f"<domain:reason>{reason}</domain:reason>" if reason else ""
            flag = "0" if reason else "1"
            shown = f'<domain:name avail="{flag}">{escape(name)}</domain:name>'
            rows.append(f"<domain:cd>{shown}{said}</domain:cd>")
            fees.append(self.prices.fees(seller, name, extension))
        told = object_of("domain", "chkData", "".join(rows))
        if not any(fees):
            return Answer(1000, told=told)
        currency = f"<fee:currency>{seller.currency}</fee:currency>"
        return Answer(1000, told=told, more=object_of("fee", "chkData", currency + "".join(fees)))

    def _why_not(self, seller: Seller, name: str) -> str:
        """Why a name cannot be registered here now, "" where it can be."""
        label, _, extension = name.partition(".")
        if not label or len(label) > 63 or not LDH.issuperset(label) or label[0] == "-":
            return "Invalid name"
        if extension not in EXTENSIONS or not sells(seller, extension, self._now().date()):
            return "Not sold here"
        if name in self._books.held and self._held(name) is not None:
            return "In use"
        if self._world.registration(label, extension, self._now()) is not None:
            return "In use"
        return "Reserved" if self._world.is_reserved(label, extension) else ""

    def _held(self, name: str) -> Held | None:
        """A name of the books, unless it is free again."""
        held = self._books.held.get(name)
        if held is None or held.pending:
            return held
        label, _, extension = name.partition(".")
        if self._world.registration(label, extension, self._now()) is None:
            self._books.drop("held", name)
            return None
        return held

    def create(
        self, seller: Seller, body: Any, extension: Any, trid: str, fault: Fault | None
    ) -> Answer:
        name = text_of(first(body, "name")).lower()
        years = number_of(first(body, "period"), 1)
        reason = self._why_not(seller, name)
        if reason:
            code = {"In use": 2302, "Invalid name": 2005}.get(reason, 2306)
            return Answer(code, value=about("domain", "name", name, reason))
        registrant = text_of(first(body, "registrant"))
        if f"{seller.code} {registrant}" not in self._books.contacts:
            return Answer(2303, value=about("domain", "registrant", registrant, "No such contact"))
        people = [
            [one.get("type", ""), text_of(one)] for one in body if local(one.tag) == "contact"
        ]  # fmt: skip
        for _, number in people:
            if f"{seller.code} {number}" not in self._books.contacts:
                return Answer(2303, value=about("domain", "contact", number, "No such contact"))
        hosts = [text_of(one).lower() for one in body.iter() if local(one.tag) == "hostObj"]
        for host in hosts:
            if host not in self._books.hosts:
                return Answer(2303, value=about("domain", "hostObj", host, "No such host"))
        if not 1 <= years <= 10:
            return Answer(2004, value=about("domain", "period", str(years), "1 to 10 years"))
        if self.prices.fee(seller, name, "register", years) is None:
            return Answer(2306, value=about("domain", "period", str(years), "Not for that term"))
        due = self.prices.with_token(seller, name, years, extension)
        if due is None:
            return Answer(2201, value=about("domain", "name", name, "Allocation Token mismatch"))
        if self._books.contacts[f"{seller.code} {registrant}"].withheld:
            due += privacy_of(seller, years, self._now().date())
        due = dearer(due, fault)
        refused = self.prices.pay(seller, "create", name, due, extension, trid)
        if refused is not None:
            return refused
        now = self._now().replace(microsecond=0)
        held = Held(
            name, seller.code, years, written(now), written(years_on(now, years)), written(now),
            registrant, text_of(first(body, "pw")), trid, people, hosts,
            ["clientTransferProhibited"], keys_of(extension),
        )  # fmt: skip
        if fault and fault.kind in ("pending", "pending-refused"):
            held.pending = written(now + timedelta(seconds=fault.seconds))
            held.granted = fault.kind == "pending"
            self._pending.add(name)
        self._books.put("held", name, held)
        shown = (
            f"<domain:name>{name}</domain:name><domain:crDate>{time_of(held.created)}"
            f"</domain:crDate><domain:exDate>{time_of(held.expires)}</domain:exDate>"
        )
        code = 1001 if held.pending else 1000
        return Answer(
            code, object_of("domain", "creData", shown), self.prices.paid(seller, "create", due)
        )

    def _mine(self, seller: Seller, name: str) -> Held | Answer:
        held = self._held(name)
        label, _, extension = name.partition(".")
        if held is None:
            known = extension in EXTENSIONS
            taken = known and self._world.registration(label, extension, self._now()) is not None
            return Answer(2201 if taken else 2303)
        return held if held.seller == seller.code else Answer(2201)

    def info(
        self, seller: Seller, body: Any, _extension: Any, _trid: str, _fault: Fault | None
    ) -> Answer:
        held = self._mine(seller, text_of(first(body, "name")).lower())
        if isinstance(held, Answer):
            return held
        label, _, extension = held.name.partition(".")
        seen = None if held.pending else self._world.registration(label, extension, self._now())
        leaving = "pending delete" in seen.status if seen else False
        redeemable = "redemption period" in seen.status if seen else False
        status = ["pendingCreate"] if held.pending else list(held.status) or ["ok"]
        status += ["pendingDelete"] if leaving or redeemable else []
        status += ["pendingTransfer"] if held.moving.get("status") == "pending" else []
        hosts = "".join(f"<domain:hostObj>{one}</domain:hostObj>" for one in held.hosts)
        shown = "".join(
            [
                f"<domain:name>{held.name}</domain:name><domain:roid>D{held.trid[-8:]}-SIM"
                "</domain:roid>",
                *(f'<domain:status s="{one}"/>' for one in status),
                f"<domain:registrant>{held.registrant}</domain:registrant>",
                *(f'<domain:contact type="{k}">{v}</domain:contact>' for k, v in held.contacts),
                f"<domain:ns>{hosts}</domain:ns>" if hosts else "",
                "<domain:clID>vine-tag</domain:clID><domain:crID>vine-tag</domain:crID>",
                f"<domain:crDate>{time_of(held.created)}</domain:crDate>",
                f"<domain:upDate>{time_of(held.changed)}</domain:upDate>",
                f"<domain:exDate>{time_of(held.expires)}</domain:exDate>",
                f"<domain:authInfo><domain:pw>{escape(held.auth)}</domain:pw></domain:authInfo>",
            ]
        )
        more = ""
        if leaving or redeemable:
            state = "redemptionPeriod" if redeemable else "pendingDelete"
            more += object_of("rgp", "infData", f'<rgp:rgpStatus s="{state}"/>')
        if held.keys:
            more += object_of("secDNS", "infData", "".join(key_of(one) for one in held.keys))
        return Answer(1000, object_of("domain", "infData", shown), more)

    def renew(
        self, seller: Seller, body: Any, extension: Any, trid: str, fault: Fault | None
    ) -> Answer:
        held = self._mine(seller, text_of(first(body, "name")).lower())
        if isinstance(held, Answer):
            return held
        years = number_of(first(body, "period"), 1)
        label, _, rest = held.name.partition(".")
        seen = self._world.registration(label, rest, self._now())
        if held.pending or held.leaving or seen is None or not seen.delegated:
            return Answer(2304)
        if text_of(first(body, "curExpDate")) != held.expires[:10]:
            return Answer(2306, value=about("domain", "curExpDate", held.expires[:10], "Not so"))
        until = years_on(moment(held.expires), years)
        if not 1 <= years <= 10 or until > years_on(self._now(), 10):
            return Answer(2004, value=about("domain", "period", str(years), "Ten years ahead"))
        due = self.prices.fee(seller, held.name, "renew", years)
        if due is None:
            return Answer(2306)
        contact = self._books.contacts.get(f"{seller.code} {held.registrant}")
        if contact is not None and contact.withheld:
            due += privacy_of(seller, years, self._now().date())
        due = dearer(due, fault)
        refused = self.prices.pay(seller, "renew", held.name, due, extension, trid)
        if refused is not None:
            return refused
        held.expires, held.changed = written(until), written(self._now())
        self._books.put("held", held.name, held)
        shown = (
            f"<domain:name>{held.name}</domain:name>"
            f"<domain:exDate>{time_of(held.expires)}</domain:exDate>"
        )
        return Answer(
            1000, object_of("domain", "renData", shown), self.prices.paid(seller, "renew", due)
        )

    def delete(
        self, seller: Seller, body: Any, _extension: Any, _trid: str, _fault: Fault | None
    ) -> Answer:
        held = self._mine(seller, text_of(first(body, "name")).lower())
        if isinstance(held, Answer):
            return held
        if "clientDeleteProhibited" in held.status or held.pending:
            return Answer(2304)
        if self._now() - moment(held.created) <= GRACE:
            # Within the grace period of adding it is free at once, and paid back (RFC 3915).
            self._give_back(held)
            self._books.drop("held", held.name)
            return Answer(1000)
        held.leaving = held.changed = written(self._now())
        self._books.put("held", held.name, held)
        return Answer(1001)

    def update(
        self, seller: Seller, body: Any, extension: Any, trid: str, fault: Fault | None
    ) -> Answer:
        held = self._mine(seller, text_of(first(body, "name")).lower())
        if isinstance(held, Answer):
            return held
        if extension is not None and (first(extension, "restore") is not None):
            return self._restore(seller, held, extension, trid, fault)
        added, removed, changed = (first(body, what) for what in ("add", "rem", "chg"))
        for host in every(added, "hostObj"):
            if host.lower() not in self._books.hosts:
                return Answer(2303, value=about("domain", "hostObj", host, "No such host"))
        gone = {host.lower() for host in every(removed, "hostObj")}
        held.hosts = [one for one in held.hosts if one not in gone]
        held.hosts += [h.lower() for h in every(added, "hostObj") if h.lower() not in held.hosts]
        off, on = statuses_of(removed), statuses_of(added)
        held.status = [one for one in held.status if one not in off]
        held.status += [one for one in on if one not in held.status]
        if changed is not None and first(changed, "pw") is not None:
            held.auth = text_of(first(changed, "pw"))
        if changed is not None and first(changed, "registrant") is not None:
            held.registrant = text_of(first(changed, "registrant"))
        if extension is not None and first(extension, "rem") is not None:
            lost = keys_of(first(extension, "rem"))
            all_of = first(first(extension, "rem"), "all") is not None
            held.keys = [] if all_of else [one for one in held.keys if one not in lost]
        if extension is not None and first(extension, "add") is not None:
            held.keys += keys_of(first(extension, "add"))
        held.changed = written(self._now())
        self._books.put("held", held.name, held)
        return Answer(1000)

    def _restore(
        self, seller: Seller, held: Held, extension: Any, trid: str, fault: Fault | None
    ) -> Answer:
        """Out of the redemption period (RFC 3915), with a year where it had run out."""
        label, _, rest = held.name.partition(".")
        seen = self._world.registration(label, rest, self._now())
        if seen is None or "redemption period" not in seen.status:
            return Answer(2304)
        due = self.prices.fee(seller, held.name, "restore", 1) or Decimal(0)
        lapsed = moment(held.expires) <= self._now()
        if lapsed:
            due += self.prices.fee(seller, held.name, "renew", 1) or Decimal(0)
        refused = self.prices.pay(seller, "update", held.name, dearer(due, fault), extension, trid)
        if refused is not None:
            return refused
        held.leaving, held.changed = "", written(self._now())
        if lapsed:
            held.expires = written(years_on(moment(held.expires), 1))
        self._books.put("held", held.name, held)
        return Answer(1000, more=self.prices.paid(seller, "update", due))
