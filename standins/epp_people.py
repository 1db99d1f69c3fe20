"""Hosts and contacts at the simulated gateways (RFC 5732, 5733)."""

from __future__ import annotations

from collections.abc import Callable
from datetime import datetime
from typing import Any
from xml.sax.saxutils import escape

from standins.books import Books, Contact
from standins.books import text_of as written
from standins.epp_names import LDH
from standins.epp_xml import Answer, about, first, local, object_of, text_of, time_of
from standins.sellers import Seller

__all__ = ["People"]


class People:
    """Whom and what names are told of; `now` is the world's time."""

    def __init__(self, books: Books, now: Callable[[], datetime]) -> None:
        self._books, self._now = books, now

    def host_check(self, _seller: Seller, body: Any, *_: Any) -> Answer:
        rows = [
            f'<host:cd><host:name avail="{0 if name in self._books.hosts else 1}">{name}'
            "</host:name></host:cd>"
            for name in (escape(text_of(one).lower()) for one in body if local(one.tag) == "name")
        ]
        return Answer(1000, object_of("host", "chkData", "".join(rows)))

    def host_create(self, seller: Seller, body: Any, *_: Any) -> Answer:
        name = text_of(first(body, "name")).lower()
        if not all(part and LDH.issuperset(part) for part in name.split(".")) or "." not in name:
            return Answer(2005, value=about("host", "name", name, "Not a host name"))
        if name in self._books.hosts:
            return Answer(2302)
        self._books.put_host(name, seller.code)
        shown = f"<host:name>{name}</host:name><host:crDate>{time_of(written(self._now()))}"
        return Answer(1000, object_of("host", "creData", f"{shown}</host:crDate>"))

    def contact_check(self, seller: Seller, body: Any, *_: Any) -> Answer:
        rows = []
        for one in body:
            number = text_of(one)
            flag = 0 if f"{seller.code} {number}" in self._books.contacts else 1
            shown = f'<contact:id avail="{flag}">{escape(number)}</contact:id>'
            rows.append(f"<contact:cd>{shown}</contact:cd>")
        return Answer(1000, object_of("contact", "chkData", "".join(rows)))

    def contact_create(self, seller: Seller, body: Any, *_: Any) -> Answer:
        number = text_of(first(body, "id"))
        key = f"{seller.code} {number}"
        if key in self._books.contacts:
            return Answer(2302)
        for postal in (one for one in body if local(one.tag) == "postalInfo"):
            for element in postal.iter():
                text = text_of(element)
                if postal.get("type") == "int" and not text.isascii():
                    tag = local(element.tag)
                    return Answer(2005, value=about("contact", tag, text, "Plain letters only"))
            if postal.get("type") == "loc" and seller.code == "hazel":
                return Answer(2306, value=about("contact", "postalInfo", "loc", "Only int"))
        email, voice = text_of(first(body, "email")), text_of(first(body, "voice"))
        if "@" not in email:
            return Answer(2005, value=about("contact", "email", email, "Not an address"))
        if voice and not (voice.startswith("+") and "." in voice):
            return Answer(2005, value=about("contact", "voice", voice, "+CC.number"))
        disclose = first(body, "disclose")
        contact = Contact(
            number, seller.code, text_of(first(body, "name")), text_of(first(body, "org")),
            text_of(first(body, "cc")), email,
            {"voice": voice, "city": text_of(first(body, "city"))},
            withheld=disclose is not None and disclose.get("flag") == "0",
        )  # fmt: skip
        self._books.put("contact", key, contact)
        shown = (
            f"<contact:id>{escape(number)}</contact:id>"
            f"<contact:crDate>{time_of(written(self._now()))}</contact:crDate>"
        )
        return Answer(1000, object_of("contact", "creData", shown))

    def contact_delete(self, seller: Seller, body: Any, *_: Any) -> Answer:
        number = text_of(first(body, "id"))
        if f"{seller.code} {number}" not in self._books.contacts:
            return Answer(2303)
        used = {(held.seller, held.registrant) for held in self._books.held.values()}
        if (seller.code, number) in used:
            return Answer(2304)
        self._books.drop("contact", f"{seller.code} {number}")
        return Answer(1000)
