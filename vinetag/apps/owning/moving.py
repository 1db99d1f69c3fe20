"""Moving a name to another seller, and letting one go to somebody else's."""

from __future__ import annotations

import hashlib
import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from decimal import Decimal
from typing import Final

from django.conf import settings
from django.core.cache import cache
from django.db import transaction
from django.utils import timezone

from vinetag.apps.accounts.errors import ConflictError
from vinetag.apps.accounts.models import User
from vinetag.apps.costs.listing import usual_currency
from vinetag.apps.costs.markets import market_for
from vinetag.apps.ordering.finding_out import keep_notices
from vinetag.apps.ordering.gateways import has_gateway, session
from vinetag.apps.ordering.models import GatewayNotice, Order, OrderName
from vinetag.apps.ordering.owners import owners_of
from vinetag.apps.ordering.placing import Bought, make_order, terms_of
from vinetag.apps.ordering.pricing import buyer_of
from vinetag.apps.owning.asking import ask_now
from vinetag.apps.owning.holding import is_theirs
from vinetag.apps.owning.models import OwnedName
from vinetag.apps.owning.pricing import closed_order
from vinetag.apps.owning.reminding import tell
from vinetag.core.cost import Market, RateError, Seller, Term
from vinetag.core.cost import Order as Priced
from vinetag.core.ordering import Person, said_in_words
from vinetag.core.owning import Trap, traps_of
from vinetag.lookup.epp import Done, Seen

__all__ = [
    "Move", "adopt_moved", "code_to_leave", "decide_leaving", "hear_of_moves", "move_of",
    "order_move",
]  # fmt: skip

SECONDS: Final = 8.0
YEARS: Final = 1
LATELY: Final = timedelta(days=1)
EVERY: Final = 600
OPEN: Final = ("agreed", "paid", "sent", "pending")
LONGEST_CODE: Final = 100
MOST_HEARD: Final = 200


@dataclass(frozen=True)
class Move:
    """Moving `row` to the seller `to`: `traps` to know of, what it costs with tax in `currency`,
    with a year that comes with it; `why_not` where it cannot be ordered. `at_home` where its code
    is known, since our own account has it for its owner. `sign` is what is agreed to; `terms` are
    the seller's, and `priced` is the order it would be.
    """

    row: OwnedName
    to: str
    sellers: Sequence[tuple[str, str]]
    traps: Sequence[Trap] = ()
    at_home: bool = False
    code: str = ""
    fee: Decimal | None = None
    amount: Decimal | None = None
    currency: str = ""
    why_not: str = ""
    terms: Seller | None = None
    priced: Priced | None = None

    @property
    def sign(self) -> str:
        """By what is agreed to."""
        about = f"{self.row.pk} {self.to} {self.amount} {self.currency}"
        return hashlib.sha256(about.encode()).hexdigest()[:32]


def move_of(person: User, row: OwnedName, to: str = "", code: str = "") -> Move:
    """What moving it costs now by the gateway of `to`, the cheapest seller by the lists where that
    is "", and what stands against it.
    """
    buyer = replace(buyer_of(owners_of(person), ()), privacy=False)
    market = market_for(person, buyer, usual_currency(person))
    sellers = [
        (one, market.sellers[one].name)
        for one in settings.GATEWAYS
        if one in market.sellers and one != row.seller
    ]
    sellers.sort(key=lambda one: one[1])
    known = sorted((one for one, _ in sellers), key=lambda one: _listed(market, one, row))
    move = Move(row, to if to in known else (known[0] if known else ""), sellers)
    seen = _seen(row)
    ours = seen is not None and is_theirs(row, seen)
    move = replace(move, at_home=ours, code=seen.auth if seen and ours else code.strip())
    move = replace(move, traps=_traps(row, seen if ours else None))
    if not known:
        return replace(move, why_not="No other seller takes orders from here.")
    barred = next((trap for trap in move.traps if trap.bars), None)
    if barred is not None:
        return replace(move, why_not=barred.text())
    if _under_way(row):
        return replace(move, why_not="It is in an order already.")
    return _priced(person, move, market)


def _listed(market: Market, seller: str, row: OwnedName) -> float:
    """What moving it there costs by the lists, without end where that is not known."""
    try:
        priced = market.price(Term(seller, row.extension, "move", YEARS, market.today))
    except RateError:
        return math.inf
    return math.inf if priced is None else priced.amount


def _seen(row: OwnedName) -> Seen | None:
    """What our own account has of it, None where there is none."""
    if not row.seller or not has_gateway(row.seller):
        return None
    with session(row.seller, SECONDS) as (gateway, done):
        return None if done.trouble else gateway.info(str(row.name))


def _traps(row: OwnedName, seen: Seen | None) -> Sequence[Trap]:
    now = timezone.now()
    if seen is None and (row.asked_at is None or now - row.asked_at > LATELY):
        ask_now([row])
        row.refresh_from_db()
    said = row.said
    statuses = [*seen.statuses, *seen.grace] if seen else list(said.get("statuses") or ())
    registered = seen.created if seen else _moment(said.get("registered")) or row.registered_at
    return traps_of(
        statuses, now, registered=registered, moved=_moved(row), ours=seen is not None,
        expires=(seen.expires if seen else _moment(said.get("expires"))) or row.expires_at,
        taken=seen is not None or said.get("whose") != "nobody",
        asked=seen is not None or (row.asked_at is not None and not row.trouble),
        signed=seen.signed if seen else bool(row.signed),
        own_servers=not (seen.servers if seen else row.servers) and bool(row.seller),
    )  # fmt: skip


def _moved(row: OwnedName) -> datetime | None:
    rows = OrderName.objects.filter(
        label=row.label, extension=row.extension, action="move", state="registered"
    )
    return rows.order_by("registered_at").values_list("registered_at", flat=True).last()


def _moment(text: object) -> datetime | None:
    return None if not text else datetime.fromisoformat(str(text))


def _under_way(row: OwnedName) -> bool:
    """Whether anybody here renews or moves it just now."""
    rows = OrderName.objects.filter(label=row.label, extension=row.extension, state__in=OPEN)
    return rows.exclude(order__stage=Order.Stage.CALLED_OFF).exists()


def _priced(person: User, move: Move, market: Market) -> Move:
    name = str(move.row.name)
    with session(move.to, SECONDS) as (gateway, done):
        answer = done if done.trouble else gateway.check([name], YEARS, "transfer")
    if isinstance(answer, Done):
        return replace(move, why_not=said_in_words(answer.code, answer.trouble))
    [one] = answer
    terms = market.sellers[move.to]
    if one.fee is None or one.currency != terms.currency:
        return replace(move, why_not=f"{terms.name} does not sell it.")
    order = closed_order(market, move.to, [(name, move.row.extension, one.fee)], "move")
    move = replace(
        move, fee=one.fee, amount=order.total.amount, currency=one.currency, terms=terms,
        priced=order,
    )  # fmt: skip
    if owners_of(person).usual is None:
        return replace(move, why_not="Say whom it is for first, under Contacts.")
    if not move.code:
        return replace(move, why_not="Its code is missing: its present seller tells it to you.")
    if len(move.code) > LONGEST_CODE or not move.code.isprintable():
        return replace(move, why_not="That is no code for moving.")
    return move


def order_move(person: User, move: Move) -> Order:
    """An order for it. Raises ConflictError where it cannot be moved."""
    row, terms, priced = move.row, move.terms, move.priced
    if move.why_not or move.fee is None or move.amount is None or not (terms and priced):
        raise ConflictError("not_now", move.why_not)
    owners = owners_of(person)
    people = owners.people[owners.usual] if owners.usual is not None else {}
    bought = Bought(
        row.name, move.fee, YEARS, row.project, action="move", ran_until=row.expires_at,
        privacy=bool(row.privacy), people=people, code=move.code,
        held_at=row.seller if move.at_home else "",
    )  # fmt: skip
    with transaction.atomic():
        # Whoever has it on their list, it is moved once.
        list(OwnedName.objects.select_for_update().filter(label=row.label, extension=row.extension))
        if _under_way(row):
            raise ConflictError("changed_elsewhere", f"{row.name} is in an order by now.")
        return make_order(
            person, move.to, terms.name, terms.country, move.currency, [bought],
            move.amount - move.fee, terms_of(priced), owners.payer or Person(),
        )  # fmt: skip


def adopt_moved() -> int:
    """Names moved here are with their new seller; of how many that was not known yet."""
    since = timezone.now() - timedelta(days=3)
    rows = OrderName.objects.filter(state="registered", action="move", registered_at__gt=since)
    count = 0
    for row in rows.select_related("order"):
        found = OwnedName.objects.filter(
            owner=row.order.owner_id, label=row.label, extension=row.extension
        ).exclude(seller=row.order.seller)
        count += found.update(
            seller=row.order.seller, seller_name=row.order.seller_name, locked=True,
            expires_at=row.expires_at, ask_at=timezone.now(), differs=[], said={}, priced_on=None,
        )  # fmt: skip
    return count


def code_to_leave(row: OwnedName) -> tuple[str, Sequence[Trap]]:
    """The code by which somebody may move it away, and what stands against that. Raises
    ConflictError where it is not known here.
    """
    seen = _seen(row)
    elsewhere = not row.seller or not has_gateway(row.seller)
    if elsewhere or (seen is not None and seen.whose != "unknown" and not is_theirs(row, seen)):
        raise ConflictError("not_here", "It was not registered here: its seller tells the code.")
    if seen is None or seen.whose == "unknown":
        raise ConflictError("not_now", "Its seller does not answer now.")
    now = timezone.now()
    statuses = [*seen.statuses, *seen.grace]
    traps = traps_of(
        statuses, now, registered=seen.created, moved=_moved(row), expires=seen.expires,
        signed=seen.signed,
    )  # fmt: skip
    # Here it can be opened by a press.
    return seen.auth, [Trap("open_first", True) if t.code == "locked" else t for t in traps]


def decide_leaving(row: OwnedName, *, allow: bool) -> str:
    """Let a name go to who asks for it, or keep it; "" once that is done, else why not."""
    if not row.seller or not has_gateway(row.seller):
        return "Its seller takes nothing from here: answer there."
    with session(row.seller, SECONDS) as (gateway, done):
        if done.trouble:
            return said_in_words(done.code, done.trouble)
        seen = gateway.info(str(row.name))
        if not is_theirs(row, seen):
            return said_in_words(2201)
        done = gateway.decide(str(row.name), allow=allow)
    ask_now([row])
    return "" if done.good else said_in_words(done.code, done.trouble, done.said)


def hear_of_moves() -> int:
    """Read sellers' messages now and then, and tell whoever owns a name that it is asked for."""
    if cache.add("owned-moves-heard", 1, EVERY):
        for seller in settings.GATEWAYS:
            if OwnedName.objects.filter(seller=seller, left_at=None).exists():
                with session(seller, SECONDS) as (gateway, done):
                    if not done.trouble:
                        keep_notices(gateway, seller)
    count = 0
    for notice in GatewayNotice.objects.filter(moving=True).order_by("pk")[:MOST_HEARD]:
        label, _, extension = notice.full_name.partition(".")
        rows = OwnedName.objects.filter(
            label=label, extension=extension, seller=notice.seller, left_at=None
        )
        heard = [_hear(row, notice) for row in rows.select_related("owner")]
        if None not in heard:
            GatewayNotice.objects.filter(pk=notice.pk).update(moving=False)
        count += heard.count(True)
    return count


def _hear(row: OwnedName, notice: GatewayNotice) -> bool | None:
    """Whether its owner is told; None where its seller did not answer, and is asked again."""
    if not has_gateway(row.seller):
        return False
    with session(row.seller, SECONDS) as (gateway, done):
        if done.trouble:
            return None
        seen = gateway.info(str(row.name))
        stands = gateway.moving(str(row.name))
    if "unknown" in (seen.whose, stands.state):
        return None
    if not is_theirs(row, seen) or stands.state != "pending" or stands.until is None:
        return False
    if OrderName.objects.filter(
        label=row.label, extension=row.extension, action="move", state__in=OPEN,
        order__owner=row.owner,
    ).exists():  # fmt: skip
        # It is they who move it.
        return False
    ask_now([row])
    tell(row, "leaving", f"leaving {notice.number}", {"after": stands.until.isoformat()})
    return True
