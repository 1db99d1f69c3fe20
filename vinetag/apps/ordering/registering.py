"""Registering, renewing and moving what was paid for, by a seller's gateway.

A name is marked as sent, with the transaction it is sent by, before it is sent; what became of it
is written down afterwards. Whoever finds a name sent and not answered (a worker was killed, the
line was cut) asks the seller about it first: the word by which it can be told to be ours follows
from its transaction (`auth_of`), so that what the seller has is known to be of this very order or
not. Nothing is sent again before that is known, and what a seller says exists already is looked at
before it is given up.
"""

from __future__ import annotations

import logging
from collections import deque
from collections.abc import Callable, Sequence
from concurrent.futures import ThreadPoolExecutor
from threading import Event
from typing import Final

from django.db import transaction
from django.db.models import F
from django.utils import timezone

from vinetag.apps.ordering.finding_out import (
    GIVEN_UP,
    ask_about_sent,
    find_out,
    look_at_pending,
    read_notices,
)
from vinetag.apps.ordering.gateways import has_gateway, session
from vinetag.apps.ordering.models import Order, OrderName
from vinetag.apps.ordering.moving import ask_to_move, find_out_moved, lock_again, look_at_moving
from vinetag.apps.ordering.placing import CODES
from vinetag.apps.ordering.sealing import opened
from vinetag.apps.ordering.work import Work, auth_of, keep, numbers_of, registered
from vinetag.core.ordering import Person, advance
from vinetag.lookup.epp import Done, Gateway, Wish

__all__ = ["BATCH", "register_names"]

# So many are marked as sent at once, and written down at once.
BATCH: Final = 50
# Further sessions are opened for so many names.
WORTH_IT: Final = 10
LONGEST: Final = 200
# The account with the seller has to be filled first: everything else would be answered alike.
SHORT_OF_MONEY: Final = 2104
# What is said of something that was done before, too.
MAYBE_DONE: Final = frozenset({2106, 2300, 2302, 2304, 2306})
Send = Callable[[Gateway], Done]

log = logging.getLogger(__name__)


def register_names(order: Order, errand: int, lease: str) -> bool:
    """Do what can be done now for the names of an order. False where the seller did not answer."""
    open_ones = ("paid", "sent", "pending")
    if not order.names.filter(state__in=open_ones).exists():
        return True
    if order.paid_at and timezone.now() - order.paid_at > GIVEN_UP:
        order.names.filter(state="paid").update(state="failed")
    if not has_gateway(order.seller):
        order.names.filter(state="paid").update(state="failed", trouble="no_gateway")
        return not order.names.filter(state__in=open_ones).exists()
    with session(order.seller) as (gateway, done):
        if done.trouble:
            names = order.names.filter(state__in=open_ones)
            names.update(trouble=done.trouble, code=done.code, said=done.said[:LONGEST])
            return False
        sets = opened(order.owner_id, order.people) if order.people else {}
        codes = sets.pop(CODES, {})
        people = {
            key: {role: Person(**who) for role, who in known.items()} for key, known in sets.items()
        }
        work = Work(order, gateway, errand, lease, people, codes)
        with work.open_lines:
            read = read_notices(work)
            known = read and ask_about_sent(work) and look_at_pending(work)
            known = known and look_at_moving(work) and _send(work)
            lock_again(work)
            return known


def _answered(row: OrderName, done: Done) -> None:
    """What an answer makes of a name that was sent."""
    row.code, row.trouble, row.said = done.code, done.trouble, done.said[:LONGEST]
    if done.pending:
        row.state = advance(row.state, "pending")
    elif done.good:
        registered(row, done)
    elif done.certain and (done.trouble == "not_sent" or done.code == SHORT_OF_MONEY):
        row.state = advance(row.state, "paid")
    elif done.certain and not done.trouble:
        row.state = advance(row.state, "failed")
    if done.charged is not None:
        row.charged = done.charged


def _send(work: Work) -> bool:
    """Send what is paid, a batch at a time. False where the seller stopped answering."""
    while work.held():
        rows = _mark(work)
        if not rows:
            return True
        answers = _send_batch(work, rows)
        going = True
        for row, done in zip(rows, answers, strict=True):
            if done is None:
                # It was never sent.
                row.state, row.sent_at = advance(row.state, "paid"), None
                row.tries -= 1
                continue
            _answered(row, done)
            if done.code in MAYBE_DONE:
                _look_again(work, row)
            if _stops(done):
                going = False
        keep(rows)
        if not going:
            _tell_the_rest(work, rows)
            return False
        if None in answers:
            return True
    return True


def _stops(done: Done) -> bool:
    """Whether what comes next would fare alike, or the line is of no more use."""
    return bool(done.trouble) or done.code == SHORT_OF_MONEY or not done.certain


def _tell_the_rest(work: Work, rows: Sequence[OrderName]) -> None:
    """What keeps one name keeps all that wait."""
    for row in rows:
        if row.trouble or row.code == SHORT_OF_MONEY:
            work.order.names.filter(state="paid").update(trouble=row.trouble, code=row.code)
            return


def _send_batch(work: Work, rows: Sequence[OrderName]) -> list[Done | None]:
    """Send these over several lines at once; None for those that were not sent, since something
    went wrong with another, or the order is somebody else's meanwhile.
    """
    answers: list[Done | None] = [None] * len(rows)
    ready: deque[tuple[int, Send]] = deque()
    for place, row in enumerate(rows):
        found = _ready(work, row)
        if isinstance(found, Done):
            answers[place] = found
            if _stops(found):
                return answers
        else:
            ready.append((place, found))
    stop = Event()

    def over(gateway: Gateway, going: Callable[[], bool]) -> None:
        while not stop.is_set() and going():
            try:
                place, send = ready.popleft()
            except IndexError:
                return
            answers[place] = done = send(gateway)
            if _stops(done):
                stop.set()

    more = work.more_lines() if len(ready) >= WORTH_IT else []
    with ThreadPoolExecutor(max(1, len(more))) as beside:
        # Whether the order is held is asked of the database, by this thread alone.
        started = [beside.submit(over, line, lambda: True) for line in more]
        over(work.gateway, work.held)
        for one in started:
            one.result()
    return answers


def _look_again(work: Work, row: OrderName) -> None:
    """What was refused may have been done before, by a worker that was taken for dead. A renewal
    that was sent but once was not: somebody else renewed it meanwhile.
    """
    if row.action != "register" and row.tries < 2:
        return
    before = row.state
    row.state = "sent"
    if row.action == "move":
        find_out_moved(work, row)
    elif (seen := work.gateway.info(str(row.name))).whose == "ours":
        find_out(row, seen)
    if row.state in ("sent", "paid"):
        row.state = before


def _mark(work: Work) -> list[OrderName]:
    """The next names, marked as sent. What was called off meanwhile is left out."""
    with transaction.atomic():
        rows = list(
            work.order.names.select_for_update().filter(state="paid").order_by("pk")[:BATCH]
        )
        now = timezone.now()
        OrderName.objects.filter(pk__in=[row.pk for row in rows]).update(
            state=advance("paid", "sent"), sent_at=now, code=0, trouble="", tries=F("tries") + 1
        )
    for row in rows:
        row.state, row.sent_at, row.code, row.trouble = "sent", now, 0, ""
        row.tries += 1
    return rows


def _ready(work: Work, row: OrderName) -> Send | Done:
    """How a name is sent, once whom it is for and its name servers are known to the seller; what
    went wrong with them.
    """
    fee, currency, name, trid = row.fee, work.order.currency, str(row.name), row.trid
    until = row.ran_until
    if row.action == "renew" and until is not None:
        years = row.years
        return lambda line: line.renew(name, until, years, trid, fee, currency)
    if row.action == "move":
        return ask_to_move(work, row)
    if row.action == "restore":
        return lambda line: line.restore(name, trid, fee, currency)
    numbers, done = numbers_of(work, row)
    if not done.good:
        return _before_sending(done)
    for host in row.servers:
        if host not in work.hosts:
            done = work.gateway.make_host(host)
            if not done.good:
                return _before_sending(done)
            work.hosts.add(host)
    contacts = [(role, number) for role, number in numbers.items() if role != "registrant"]
    wish = Wish(
        name, row.years, numbers.get("registrant", ""), contacts, row.servers, auth_of(trid), trid,
        fee, currency, row.coupon,
    )  # fmt: skip
    return lambda line: line.register(wish)


def _before_sending(done: Done) -> Done:
    """What went wrong before the name itself was sent leaves no doubt about it."""
    if done.trouble:
        return Done(trouble="not_sent", said=done.said)
    return done
