"""Registering what was paid for by sellers' gateways: what goes wrong is told, and nothing is
registered or paid twice.
"""

from __future__ import annotations

from datetime import timedelta
from decimal import Decimal
from typing import Any

import pytest
from django.utils import timezone
from hypothesis import HealthCheck, given
from hypothesis import settings as hypothesis_settings
from hypothesis import strategies as st

from tests.apps.bought import an_order, charged, fresh, held, holder, states
from tests.conftest import Registry
from vinetag.apps.accounts.models import User
from vinetag.apps.ordering import errands, paying
from vinetag.apps.ordering.models import Entry, Errand, Order, OrderName, Receipt
from vinetag.apps.ordering.settling import balance_of, work_on
from vinetag.apps.ordering.work import auth_of
from vinetag.lookup.epp import gateways_from_env
from vinetag.lookup.till import till_from_env


@pytest.fixture(autouse=True)
def _sells(registry: Registry, settings: Any, monkeypatch: pytest.MonkeyPatch) -> None:
    settings.GATEWAYS = gateways_from_env({**registry.selling, "VINETAG_GATEWAY_TIMEOUT": "1"})
    settings.TILL = till_from_env(registry.selling)
    monkeypatch.setattr(errands, "wake", lambda _send: None)
    monkeypatch.setattr(paying, "can_use_credit", lambda _person: True)


def pay(order: Order) -> None:
    paying.pay_by_credit(order)


def work(order: Order) -> bool:
    errand = Errand.objects.get(order=order)
    Errand.objects.filter(pk=errand.pk).update(due_at=timezone.now())
    return work_on(errand.pk)


def forget_when(order: Order) -> None:
    """As if what was sent had been sent a minute ago."""
    OrderName.objects.filter(order=order, state="sent").update(
        sent_at=timezone.now() - timedelta(minutes=1)
    )


def balanced(order: Order) -> bool:
    paid, refunded, kept = balance_of(order)
    return paid - refunded == kept


def test_what_is_paid_is_registered_and_the_seller_has_it_in_its_books(
    person: User, registry: Registry
) -> None:
    names = fresh(3)
    order = an_order(person, names, tax="27.60", servers=["ns1.quay.example", "ns2.quay.example"])
    pay(order)
    assert work(order)
    order.refresh_from_db()
    assert (order.stage, states(order)) == ("done", ["registered"] * 3)
    assert bytes(order.people) == b""
    books = held(registry, names)
    assert sorted(one["name"] for one in books) == sorted(names)
    assert books[0]["hosts"] == ["ns1.quay.example", "ns2.quay.example"]
    row = order.names.order_by("pk").first()
    assert row is not None
    assert row.expires_at is not None
    assert (row.expires_at - timezone.now()).days in (364, 365)
    assert row.charged is not None
    assert charged(registry, names) == 3 * row.charged
    assert balanced(order)
    receipt = Receipt.objects.get(order=order)
    assert receipt.document["total"] == "147.60"
    assert receipt.document["tax"]["amount"] == "27.60"
    assert [line["full_name"] for line in receipt.document["lines"]] == names
    # Working on it again changes nothing.
    assert work(order)
    assert charged(registry, names) == 3 * row.charged


def test_a_name_that_is_gone_leaves_the_others_and_its_money_goes_back(
    person: User, registry: Registry
) -> None:
    [open_one] = fresh()
    order = an_order(person, ["ink.com", open_one])
    pay(order)
    assert work(order)
    assert states(order) == ["refunded", "registered"]
    gone = order.names.get(label="ink")
    assert gone.code == 2302
    back = order.entries.get(kind=Entry.Kind.REFUNDED)
    assert (back.amount, back.done_at is not None) == (Decimal("40.00"), True)
    assert balanced(order)
    note = Receipt.objects.get(order=order, kind="credit_note")
    assert note.document["total"] == "40.00"


@pytest.mark.parametrize(
    ("kind", "code"), [("2306", 2306), ("2308", 2308), ("2302", 2302), ("2004", 2004)]
)
def test_what_the_registry_refuses_is_said_and_paid_back(
    person: User, registry: Registry, kind: str, code: int
) -> None:
    registry.faults(kind=kind, service="epp")
    order = an_order(person, fresh())
    pay(order)
    assert work(order)
    assert states(order) == ["refunded"]
    assert order.names.get().code == code
    assert balanced(order)


def test_a_price_that_rose_meanwhile_is_not_paid(person: User, registry: Registry) -> None:
    names = fresh()
    order = an_order(person, names, fee="1.00")
    pay(order)
    assert work(order)
    assert states(order) == ["refunded"]
    row = order.names.get()
    assert row.code == 2004
    assert "costs" in row.said
    assert charged(registry, names) == 0


@pytest.mark.parametrize("kind", ["hangup-after", "late"])
def test_what_was_carried_out_before_the_line_was_cut_is_found_out_and_not_sent_again(
    person: User, registry: Registry, kind: str
) -> None:
    names = fresh(3)
    registry.faults(kind=kind, service="epp", seconds=3)
    order = an_order(person, names)
    pay(order)
    assert not work(order)
    assert states(order) == ["sent", "paid", "paid"]
    registry.faults()
    assert work(order)
    assert states(order) == ["registered"] * 3
    assert len(held(registry, names)) == 3
    creates = [c for c in registry.books["charge"] if c["name"] in names]
    assert len(creates) == 3


@pytest.mark.parametrize("kind", ["hangup", "nonsense", "frame", "2400"])
def test_what_may_have_been_carried_out_is_asked_about_before_it_is_sent_again(
    person: User, registry: Registry, kind: str
) -> None:
    names = fresh(2)
    order = an_order(person, names)
    pay(order)
    registry.faults(kind=kind, service="epp", extension="com")
    assert not work(order)
    assert states(order)[0] == "sent"
    registry.faults()
    if kind != "2400":
        # It may be on its way still: nothing is sent for a while.
        work(order)
        assert states(order)[0] == "sent"
    forget_when(order)
    work(order)
    assert work(order)
    assert states(order) == ["registered"] * 2
    assert len([c for c in registry.books["charge"] if c["name"] in names]) == 2


def test_a_worker_taken_for_dead_does_not_make_another_give_up_what_it_registered(
    person: User, registry: Registry
) -> None:
    names = fresh()
    order = an_order(person, names)
    pay(order)
    assert work(order)
    # Another worker thought that it had never arrived, and is about to send it once more.
    order.names.update(state="paid")
    Order.objects.filter(pk=order.pk).update(stage="paid", people=order.people)
    errands.send_on(order)
    assert work(order)
    assert states(order) == ["registered"]
    assert len([c for c in registry.books["charge"] if c["name"] in names]) == 1


@pytest.mark.parametrize(
    ("kind", "end"), [("pending", "registered"), ("pending-refused", "refunded")]
)
def test_what_a_registry_thinks_over_is_waited_for(
    person: User, registry: Registry, kind: str, end: str
) -> None:
    names = fresh()
    registry.faults(kind=kind, service="epp", seconds=600)
    order = an_order(person, names)
    pay(order)
    assert not work(order)
    assert states(order) == ["pending"]
    registry.faults()
    assert not work(order)
    registry.clock(0.01)
    assert work(order)
    registry.clock(0)
    assert states(order) == [end]
    assert registry.books["message"] == []
    assert balanced(order)
    if end == "refunded":
        assert charged(registry, names) == 0


def test_too_little_credit_holds_everything_back_until_there_is_enough(
    person: User, registry: Registry
) -> None:
    names = fresh(2)
    registry.faults(kind="2104", service="epp")
    order = an_order(person, names)
    pay(order)
    assert not work(order)
    assert states(order) == ["paid", "paid"]
    assert order.names.first().code == 2104  # type: ignore[union-attr]
    registry.faults()
    assert work(order)
    assert states(order) == ["registered"] * 2


@pytest.mark.parametrize(
    ("fault", "trouble"),
    [
        ({"kind": "expired", "extension": "connection"}, "certificate"),
        ({"kind": "2200", "extension": "login"}, "login"),
        ({"kind": "slow", "seconds": 3}, "timeout"),
    ],
)
def test_a_gateway_that_cannot_be_spoken_to_is_tried_later_and_then_given_up(
    person: User, registry: Registry, fault: dict[str, Any], trouble: str
) -> None:
    order = an_order(person, fresh())
    pay(order)
    registry.faults(service="epp", **fault)
    assert not work(order)
    row = order.names.get()
    assert (row.state, row.trouble) in (("paid", trouble), ("paid", ""))
    errand = Errand.objects.get(order=order)
    assert errand.tries == 1
    assert errand.due_at > timezone.now()
    registry.faults()
    Order.objects.filter(pk=order.pk).update(paid_at=timezone.now() - timedelta(days=2))
    assert work(order)
    assert states(order) == ["refunded"]
    assert balanced(order)


def test_whom_the_registry_does_not_accept_is_said_at_every_name(
    person: User, registry: Registry
) -> None:
    who = holder()
    odd = type(who)(**{**{f: getattr(who, f) for f in who.__slots__}, "name": "李"})
    order = an_order(person, fresh(2), people={"registrant": odd})
    pay(order)
    assert work(order)
    assert states(order) == ["refunded"] * 2
    row = order.names.last()
    assert row is not None
    assert row.code == 2005
    assert "Plain letters" in row.said


def test_what_is_called_off_is_not_sent_and_what_was_sent_stays(
    person: User, registry: Registry
) -> None:
    order = an_order(person, fresh(3))
    pay(order)
    first = order.names.order_by("pk").first()
    assert first is not None
    OrderName.objects.filter(pk=first.pk).update(state="sent", sent_at=timezone.now())
    assert paying.call_off(order) == 2
    forget_when(order)
    work(order)
    assert work(order)
    assert states(order) == ["registered", "refunded", "refunded"]
    assert balanced(order)


def test_the_word_of_a_name_is_of_its_transaction_alone() -> None:
    assert auth_of("VT-1") == auth_of("VT-1")
    assert auth_of("VT-1") != auth_of("VT-2")


KINDS = (
    "", "hangup", "hangup-after", "2306", "2400", "2104", "pending", "pending-refused", "dearer",
)  # fmt: skip


@hypothesis_settings(max_examples=12, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(
    kinds=st.lists(st.sampled_from(KINDS), min_size=1, max_size=4),
    count=st.integers(1, 5),
    fee=st.decimals("11.00", "60.00", places=2),
    tax=st.decimals("0.00", "40.00", places=2),
)
def test_what_was_paid_less_what_went_back_is_what_is_registered(
    person: User, registry: Registry, kinds: list[str], count: int, fee: Decimal, tax: Decimal
) -> None:
    names = fresh(count)
    order = an_order(person, names, fee=str(fee), tax=str(tax))
    pay(order)
    for kind in kinds:
        registry.faults(**({"kind": kind, "service": "epp", "rate": 0.6} if kind else {}))
        work(order)
        forget_when(order)
    registry.faults()
    registry.clock(0.01)
    for _ in range(12):
        forget_when(order)
        if work(order):
            break
    registry.clock(0)
    order.refresh_from_db()
    assert order.stage == "done"
    assert balanced(order)
    registered = {str(n.name) for n in order.names.filter(state="registered")}
    assert {one["name"] for one in held(registry, names)} == registered
    for row in order.names.all():
        taken = charged(registry, [str(row.name)])
        assert (taken > 0) == (row.state == "registered")
        assert row.charged in (None, taken) or row.state == "refunded"
