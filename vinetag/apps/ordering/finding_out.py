"""What became of names that were sent and not answered, and of those a registry thought over: the
seller is asked before anything is sent again.
"""

from __future__ import annotations

import hmac
from datetime import timedelta
from typing import Final

from django.utils import timezone

from vinetag.apps.ordering.models import GatewayNotice, OrderName
from vinetag.apps.ordering.moving import find_out_moved
from vinetag.apps.ordering.work import Work, auth_of, keep, registered
from vinetag.core.ordering import advance
from vinetag.lookup.epp import Done, Gateway, Notice, Seen

__all__ = [
    "GIVEN_UP", "ask_about_sent", "find_out", "keep_notices", "look_at_pending", "read_notices",
]  # fmt: skip

BATCH: Final = 50
MOST_NOTICES: Final = 500
# What was sent and is not known to the seller may be on its way for so long.
ON_ITS_WAY: Final = timedelta(seconds=30)
# What cannot be sent, or is nowhere to be found, for so long is given up.
GIVEN_UP: Final = timedelta(hours=24)


def ask_about_sent(work: Work) -> bool:
    """Find out what became of names that were sent and not answered. False without an answer."""
    rows = list(work.order.names.filter(state="sent"))
    for start in range(0, len(rows), BATCH):
        some = rows[start : start + BATCH]
        known: list[OrderName] = []
        for row in some:
            if not work.held():
                return True
            if row.action == "move":
                if not find_out_moved(work, row):
                    keep([*known, row])
                    return False
                known.append(row)
                continue
            seen = work.gateway.info(str(row.name))
            if seen.whose == "unknown":
                row.trouble, row.code = seen.trouble, seen.code
                keep([*known, row])
                return False
            find_out(row, seen)
            known.append(row)
        keep(known)
    return True


def find_out(row: OrderName, seen: Seen) -> None:
    """What the seller knows of a name tells what became of it."""
    if row.action != "register":
        _find_out_renewed(row, seen)
        return
    if seen.whose == "ours" and hmac.compare_digest(seen.auth, auth_of(row.trid)):
        if "pendingCreate" in seen.statuses:
            row.state = advance(row.state, "pending")
        else:
            registered(row, seen)
    elif seen.whose in ("ours", "others"):
        row.state, row.code, row.trouble = advance(row.state, "failed"), 2302, ""
    elif row.sent_at is None or timezone.now() - row.sent_at > ON_ITS_WAY or row.code:
        # Nobody has it, and it is not on its way any more: it may be sent again.
        row.state = advance(row.state, "paid")


def _find_out_renewed(row: OrderName, seen: Seen) -> None:
    later = seen.expires and row.ran_until and seen.expires > row.ran_until + timedelta(days=1)
    redeemed = row.action == "restore" and seen.whose == "ours" and not seen.grace
    if seen.whose == "ours" and (redeemed if row.action == "restore" else later):
        registered(row, seen)
    elif seen.whose != "ours":
        row.state, row.code = advance(row.state, "failed"), 2201
    elif row.sent_at is None or timezone.now() - row.sent_at > ON_ITS_WAY or row.code:
        row.state = advance(row.state, "paid")


def read_notices(work: Work) -> bool:
    """Keep the messages that wait at the seller, whichever order they are of, and dismiss them."""
    return keep_notices(work.gateway, work.order.seller)


def keep_notices(gateway: Gateway, seller: str) -> bool:
    """Keep the messages that wait at a seller, and dismiss them. False where it does not answer."""
    for _ in range(MOST_NOTICES):
        notice = gateway.notice()
        if notice is None:
            return True
        if isinstance(notice, Done):
            return False
        keep_notice(seller, notice)
        if gateway.dismiss(notice.id).trouble:
            return False
    return True


def keep_notice(seller: str, notice: Notice) -> None:
    """Keep a message, once."""
    GatewayNotice.objects.get_or_create(
        seller=seller,
        number=notice.id,
        defaults={
            "text": notice.text, "full_name": notice.name, "granted": notice.granted,
            "trid": notice.trid, "moving": notice.moving,
        },
    )  # fmt: skip


def look_at_pending(work: Work) -> bool:
    """What became of names the registry thought over: by a message, or by asking."""
    for row in work.order.names.filter(state="pending").exclude(action="move"):
        notice = GatewayNotice.objects.filter(seller=work.order.seller, trid=row.trid).last()
        seen = work.gateway.info(str(row.name))
        if seen.whose == "unknown":
            return False
        if seen.whose == "ours" and hmac.compare_digest(seen.auth, auth_of(row.trid)):
            if "pendingCreate" not in seen.statuses:
                registered(row, seen)
        elif notice is not None and notice.granted is False:
            row.state, row.trouble = advance(row.state, "failed"), "refused_later"
            row.charged = None
        elif seen.whose != "nobody" or notice is not None or _is_old(row):
            # Also where its message was lost, and nobody has it a day later.
            row.state, row.code, row.charged = advance(row.state, "failed"), 2302, None
        keep([row])
    return True


def _is_old(row: OrderName) -> bool:
    return row.sent_at is not None and timezone.now() - row.sent_at > GIVEN_UP
