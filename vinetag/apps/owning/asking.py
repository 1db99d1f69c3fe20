"""What registries and sellers say of names one owns: by the seller's gateway where it has one and
the name is in our account there, by the usual look-ups otherwise.
"""

from __future__ import annotations

import asyncio
import time
from collections.abc import Iterable, Sequence
from datetime import datetime, timedelta
from typing import Any, Final

from django.conf import settings
from django.utils import timezone

from vinetag.apps.availability.lookups import lookup_settings
from vinetag.apps.costs.models import SellerRow
from vinetag.apps.ordering.gateways import has_gateway, session
from vinetag.apps.owning.holding import is_theirs
from vinetag.apps.owning.models import OwnedName
from vinetag.core.checking import Evidence
from vinetag.lookup import Answer, open_engine
from vinetag.lookup.epp import Gateway, Seen

__all__ = ["ask_due", "ask_now", "differences", "find_at_sellers", "take_over"]

PLACES: Final = 60
SECONDS: Final = 8.0
# Somebody waits while names are looked for.
LOOKING: Final = 20.0
USUAL, SOON, AGAIN = timedelta(days=7), timedelta(days=1), timedelta(hours=2)
A_DAY: Final = timedelta(days=1)
LEARNT: Final = ("said", "asked_at", "ask_at", "trouble", "differs")
THOUGHT: Final = (
    "registered_at", "expires_at", "seller", "seller_name", "servers", "locked", "signed",
    "priced_on",
)  # fmt: skip


def ask_due(most: int = PLACES) -> int:
    """Ask about names whose turn it is; how many."""
    due = OwnedName.objects.filter(ask_at__lte=timezone.now(), left_at=None)
    return ask_now(list(due.order_by("ask_at")[:most]))


def ask_now(rows: Sequence[OwnedName]) -> int:
    """Ask about these, and keep what is said; what was not known before is taken over."""
    others: list[OwnedName] = []
    by_seller: dict[str, list[OwnedName]] = {}
    before = {row.pk: _thought(row) for row in rows}
    for row in rows:
        if row.seller and has_gateway(row.seller):
            by_seller.setdefault(row.seller, []).append(row)
        else:
            others.append(row)
    for seller, some in by_seller.items():
        with session(seller, SECONDS) as (gateway, done):
            if done.trouble:
                others += some
                continue
            others += [row for row in some if not _by_gateway(gateway, row)]
    if others:
        names = [row.name for row in others]
        for row, answer in zip(others, asyncio.run(_look_up(names)), strict=True):
            _by_answer(row, answer)
    OwnedName.objects.bulk_update(rows, LEARNT)
    # What somebody changed meanwhile is not written over by what was asked about before.
    for name in THOUGHT:
        filled = [row for row in rows if getattr(row, name) != before[row.pk][name]]
        OwnedName.objects.bulk_update(filled, [name])
    return len(rows)


def _thought(row: OwnedName) -> dict[str, Any]:
    return {name: getattr(row, name) for name in THOUGHT}


async def _look_up(names: Iterable[Any]) -> list[Answer]:
    async with open_engine(lookup_settings(), lambda _name: None) as engine:
        return await asyncio.gather(*(engine.ask(name, "buying", SECONDS) for name in names))


def _by_gateway(gateway: Gateway, row: OwnedName) -> bool:
    """Whether the seller says that it is the owner's, and what else."""
    seen: Seen = gateway.info(str(row.name))
    if not is_theirs(row, seen):
        return False
    said: dict[str, Any] = {
        "by": "seller", "whose": "ours", "statuses": list(seen.statuses), "grace": list(seen.grace),
        "servers": list(seen.servers), "locked": "clientTransferProhibited" in seen.statuses,
        "signed": seen.signed, "expires": _text(seen.expires), "registered": _text(seen.created),
    }  # fmt: skip
    _take_in(row, said)
    return True


def _by_answer(row: OwnedName, answer: Answer) -> None:
    found = [e for e in answer.evidence if e.says in ("registered", "dropping")]
    told: Evidence | None = next(iter(found), None)
    now = timezone.now()
    if answer.status == "unsure" or (told is None and answer.status not in ("open", "premium")):
        row.trouble, row.ask_at = answer.trouble or "late", now + AGAIN
        return
    said: dict[str, Any] = {"by": "registry", "whose": "somebody" if told else "nobody"}
    if told is not None:
        words = [status.lower() for status in told.statuses]
        said |= {
            "statuses": words, "grace": [w for w in words if w.endswith("period")],
            "locked": "client transfer prohibited" in words, "registrar": told.registrar,
            "expires": _text(told.expires), "registered": _text(told.registered),
        }  # fmt: skip
    _take_in(row, said)


def _take_in(row: OwnedName, said: dict[str, Any]) -> None:
    now = timezone.now()
    row.said, row.asked_at, row.trouble = said, now, ""
    row.registered_at = row.registered_at or _moment(said.get("registered"))
    row.expires_at = row.expires_at or _moment(said.get("expires"))
    if not row.seller_name and said.get("registrar"):
        row.seller_name, row.priced_on = str(said["registrar"])[:80], None
    row.locked = said.get("locked") if row.locked is None else row.locked
    row.signed = said.get("signed") if row.signed is None else row.signed
    row.servers = row.servers or list(said.get("servers") or ())
    row.differs = differences(row)
    near = row.expires_at is not None and row.expires_at - now < timedelta(days=35)
    row.ask_at = now + (SOON if near or row.differs else USUAL)


def find_at_sellers(rows: Sequence[OwnedName], seconds: float = LOOKING) -> tuple[int, int]:
    """Look for these at every seller we have an account with (EPP has no command that lists names);
    what is found there and is the owner's is known to be there from now on. For how many that is
    new, and how many were not looked for everywhere: a seller did not answer, or there was no time
    left.
    """
    until = time.monotonic() + seconds
    unsure: set[int] = set()
    left = [row for row in rows if not (row.seller and has_gateway(row.seller))]
    before = {row.pk: (row.seller, row.seller_name) for row in left}
    found: list[OwnedName] = []
    names = {one.code: str(one.terms.get("name", one.code)) for one in SellerRow.objects.all()}
    for seller in settings.GATEWAYS:
        if not left or time.monotonic() > until:
            unsure |= {row.pk for row in left}
            break
        with session(seller, SECONDS) as (gateway, done):
            for row in left:
                late = time.monotonic() > until
                seen = Seen("unknown") if done.trouble or late else gateway.info(str(row.name))
                row.seller, row.seller_name = seller, names.get(seller, seller)
                if is_theirs(row, seen):
                    found.append(row)
                    continue
                row.seller, row.seller_name = before[row.pk]
                if seen.whose == "unknown":
                    unsure.add(row.pk)
        left = [row for row in left if row not in found]
    for row in found:
        row.priced_on, row.ask_at = None, timezone.now()
    OwnedName.objects.bulk_update(found, ["seller", "seller_name", "priced_on", "ask_at"])
    # The others' turn comes by itself.
    ask_now(found[:PLACES])
    return len(found), len(unsure - {row.pk for row in found})


def differences(row: OwnedName) -> list[str]:
    """What of a name is otherwise than we think: codes of fields."""
    said = row.said
    if not said:
        return []
    if said.get("whose") == "nobody":
        return ["nobody"]
    found = []
    expires = _moment(said.get("expires"))
    if expires and row.expires_at and abs(expires - row.expires_at) > A_DAY:
        found.append("expires")
    registrar = str(said.get("registrar") or "")
    if registrar and row.seller_name and registrar.lower() != row.seller_name.lower():
        found.append("seller")
    if said.get("locked") is not None and row.locked is not None and said["locked"] != row.locked:
        found.append("locked")
    if said.get("signed") is not None and row.signed is not None and said["signed"] != row.signed:
        found.append("signed")
    servers = said.get("servers")
    if servers and row.servers and sorted(servers) != sorted(row.servers):
        found.append("servers")
    return found


def take_over(rows: Sequence[OwnedName]) -> int:
    """What the registry says of these is what we think from now on; for how many it is new."""
    changed = [row for row in rows if row.differs and row.differs != ["nobody"]]
    for row in changed:
        said = row.said
        row.expires_at = _moment(said.get("expires")) or row.expires_at
        if said.get("registrar"):
            row.seller_name, row.seller, row.priced_on = str(said["registrar"])[:80], "", None
        row.locked = said.get("locked", row.locked)
        row.signed = said.get("signed", row.signed)
        row.servers = list(said.get("servers") or row.servers)
        row.differs = differences(row)
    OwnedName.objects.bulk_update(changed, [*LEARNT, *THOUGHT])
    return len(changed)


def _text(at: datetime | None) -> str | None:
    return None if at is None else at.isoformat()


def _moment(text: object) -> datetime | None:
    return None if not text else datetime.fromisoformat(str(text))
