"""Names bought at the simulated sellers, as the rest of the simulated world sees them."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import datetime

from standins.books import Books, Held, moment
from standins.sellers import SELLERS
from standins.world import Registration, leaving_since

__all__ = ["Owned"]

NAMES = {seller.code: seller.name for seller in SELLERS}


class Owned:
    """By the books; what was let go or not renewed goes its way, and is free in the end."""

    def __init__(self, books: Books) -> None:
        self._books = books

    def registration(self, name: str, now: datetime) -> Registration | None:
        """Of a full name as of `now`; None where nobody bought it, or it is free again."""
        held = self._books.held.get(name)
        if held is None or (held.pending and moment(held.pending) > now):
            return None
        return self._shown(held, now)

    def under(self, extension: str, now: datetime) -> Iterator[tuple[str, tuple[str, ...]]]:
        """Labels of an extension that name servers know by then, and whose servers."""
        for held in list(self._books.held.values()):
            label, _, rest = held.name.partition(".")
            if rest == extension and moment(held.created) <= now:
                shown = self.registration(held.name, now)
                if shown is not None and shown.delegated:
                    yield label, shown.nameservers

    def _shown(self, held: Held, now: datetime) -> Registration | None:
        created, expires = moment(held.created), moment(held.expires)
        moving = ["pendingTransfer"] if held.moving.get("status") == "pending" else []
        status = tuple(_spaced(one) for one in [*held.status, *moving]) or ("active",)
        changed = moment(held.changed)
        lapse = moment(held.leaving) if held.leaving else expires
        if now >= lapse:
            found = leaving_since(lapse, now, let_go=bool(held.leaving))
            if found is None:
                return None
            changed, status = found
        contact = self._books.contacts.get(f"{held.seller} {held.registrant}")
        hidden = contact is None or contact.withheld
        return Registration(
            name=held.name,
            created=created,
            changed=changed,
            expires=expires,
            status=status,
            holder="" if hidden or contact is None else contact.name,
            organisation="" if hidden or contact is None else contact.org,
            country="" if contact is None else contact.country,
            registrar=NAMES.get(held.seller, held.seller),
            nameservers=tuple(held.hosts) or tuple(
                f"ns{number}.{held.seller}.example" for number in (1, 2)
            ),
            keys=tuple(tuple(key) for key in held.keys),
        )  # fmt: skip


def _spaced(status: str) -> str:
    """A status of EPP as RDAP writes it (RFC 8056): clientHold is client hold."""
    if status == "ok":
        return "active"
    return "".join(f" {c.lower()}" if c.isupper() else c for c in status)
