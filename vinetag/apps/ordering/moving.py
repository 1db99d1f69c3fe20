"""Moving names here from other sellers (RFC 5731, section 3.2.4).

It is asked for with the name's code; whoever has it agrees, or the registry decides for them after
some days. Where our own account has it there, we open and agree to it ourselves. Once it is here it
gets a code that follows from its order, as what is registered here has, and is kept for whom it was
ordered.
"""

from __future__ import annotations

import hmac
from collections.abc import Callable
from datetime import timedelta
from typing import Final

from django.utils import timezone

from vinetag.apps.ordering.gateways import has_gateway, session
from vinetag.apps.ordering.models import OrderName
from vinetag.apps.ordering.work import Work, auth_of, keep, numbers_of, registered
from vinetag.core.ordering import advance
from vinetag.lookup.epp import Done, Gateway, Seen
from vinetag.lookup.epp.gateway import MoveState

__all__ = ["ask_to_move", "find_out_moved", "lock_again", "look_at_moving"]

SECONDS: Final = 8.0
ON_ITS_WAY: Final = timedelta(seconds=30)
# Clocks of both sides may differ by so much.
CLOCKS: Final = timedelta(minutes=10)
NOT_THE_CODE: Final = 2202


def ask_to_move(work: Work, row: OrderName) -> Callable[[Gateway], Done] | Done:
    """How a name is asked for, once it is open where it is; what went wrong with that."""
    name, known = str(row.name), work.codes.get(str(row.name), {})
    code, at = known.get("code", ""), known.get("at", "")
    if at and has_gateway(at):
        with session(at, SECONDS) as (there, done):
            done = done if done.trouble else _open(there, name, code, row.trid)
            if not done.good:
                return Done(trouble="not_sent", said=done.said) if done.trouble else done
    fee, currency = row.fee, work.order.currency
    return lambda line: line.move(name, code, row.years, row.trid, fee, currency)


def _open(there: Gateway, name: str, code: str, trid: str) -> Done:
    """Take the lock off where our own account has it, and the code is still the one."""
    seen = there.info(name)
    if seen.whose == "unknown":
        return Done(code=seen.code, trouble=seen.trouble or "refused")
    if seen.whose != "ours" or not hmac.compare_digest(seen.auth.encode(), code.encode()):
        return Done(code=NOT_THE_CODE)
    if "clientTransferProhibited" not in seen.statuses:
        return Done(code=1000)
    return there.change(name, f"{trid[:60]}-o", lock=False)


def find_out_moved(work: Work, row: OrderName) -> bool:
    """What became of asking for a name that was sent. False without an answer."""
    stands = work.gateway.moving(str(row.name))
    if stands.state == "unknown":
        row.trouble, row.code = stands.trouble, stands.code
        return False
    asked_then = stands.asked and row.sent_at and stands.asked > row.sent_at - CLOCKS
    here = False
    if stands.state == "none":
        # Registries forget how a move stood, some at once: what is here came by it.
        seen = work.gateway.info(str(row.name))
        if seen.whose == "unknown":
            row.trouble, row.code = seen.trouble, seen.code
            return False
        here = _is_it(work, row, seen)
    if here or (stands.state != "none" and asked_then):
        row.state = advance(row.state, "pending")
    elif row.sent_at is None or timezone.now() - row.sent_at > ON_ITS_WAY or row.code:
        row.state = advance(row.state, "paid")
    return True


def look_at_moving(work: Work) -> bool:
    """How names stand that are on their way here. False where the seller did not answer."""
    for row in work.order.names.filter(state="pending", action="move"):
        if not work.held():
            return True
        stands = work.gateway.moving(str(row.name))
        if stands.state == "pending" and _agree(work, row):
            stands = work.gateway.moving(str(row.name))
        if stands.state == "unknown":
            return False
        if stands.state in ("approved", "none"):
            _make_theirs(work, row, stands.state)
        elif stands.state == "refused":
            _stays(row)
        keep([row])
    return True


def _stays(row: OrderName) -> None:
    row.state, row.trouble, row.charged = advance(row.state, "failed"), "kept_there", None


def lock_again(work: Work) -> None:
    """What is at another of our accounts and did not come from there is locked; where that one does
    not answer, its owner is told of the difference when it is asked next.
    """
    for row in work.order.names.filter(state="failed", action="move"):
        at = work.codes.get(str(row.name), {}).get("at", "")
        if at and has_gateway(at):
            with session(at, SECONDS) as (there, done):
                if not done.trouble:
                    there.change(str(row.name), f"{row.trid[:60]}-l", lock=True)


def _agree(work: Work, row: OrderName) -> bool:
    """Let it go where our own account has it."""
    at = work.codes.get(str(row.name), {}).get("at", "")
    if not at or not has_gateway(at):
        return False
    with session(at, SECONDS) as (there, done):
        return not done.trouble and there.decide(str(row.name), allow=True).good


def _is_it(work: Work, row: OrderName, seen: Seen) -> bool:
    """Whether what our account has is what was asked for: by its code, or the one it got since."""
    words = work.codes.get(str(row.name), {}).get("code", ""), auth_of(row.trid)
    return seen.whose == "ours" and any(
        bool(word) and hmac.compare_digest(seen.auth.encode(), word.encode()) for word in words
    )


def _make_theirs(work: Work, row: OrderName, state: MoveState) -> None:
    """If it is here it is known by its code to be what was asked for, and is of this order from now
    on. Whatever fails is done again; it counts as moved once all of it is done.
    """
    name = str(row.name)
    seen = work.gateway.info(name)
    if seen.whose == "unknown":
        return
    if not _is_it(work, row, seen):
        _stays(row)
        if state == "approved":
            row.trouble, row.code = "", NOT_THE_CODE
        return
    numbers, done = numbers_of(work, row)
    if done.good:
        who, ours = numbers.get("registrant", ""), auth_of(row.trid)
        done = work.gateway.change(name, f"{row.trid[:60]}-m", lock=True, registrant=who, auth=ours)
    if done.good:
        registered(row, seen)
    else:
        row.code, row.trouble, row.said = done.code, done.trouble, done.said
