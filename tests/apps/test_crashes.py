"""A worker that ends at any line, again and again: each name is registered and charged once."""

from __future__ import annotations

import random
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from datetime import UTC, datetime, timedelta
from decimal import Decimal
from typing import Any

import pytest
from django.db import connection
from django.utils import timezone
from hypothesis import HealthCheck, given
from hypothesis import settings as hypothesis_settings
from hypothesis import strategies as st

from tests.apps.bought import an_order, states
from vinetag.apps.accounts.models import User
from vinetag.apps.ordering import errands, paying, registering, settling
from vinetag.apps.ordering.models import Entry, Errand, Order, OrderName
from vinetag.apps.ordering.settling import balance_of, work_on
from vinetag.apps.ordering.work import Work, auth_of
from vinetag.lookup.epp import Checked, Done, Notice, Seen, Wish

LATER = datetime(2027, 11, 29, tzinfo=UTC)


class Killed(BaseException):
    """As if the process had been killed there."""


class Shop:
    """A seller in memory: what it registered, by which transaction, and how often it was asked."""

    def __init__(self, rng: random.Random) -> None:
        self.rng = rng
        self.held: dict[str, str] = {}
        self.charged: list[str] = []
        self.refuse: set[str] = set()
        self.danger = 0.0

    def may_die(self) -> None:
        if self.rng.random() < self.danger:
            raise Killed


class Line:
    """A session with it (vinetag.lookup.epp.Gateway)."""

    def __init__(self, shop: Shop) -> None:
        self.shop = shop

    def open(self) -> Done:
        return Done(code=1000)

    def close(self) -> None: ...

    def check(self, names: Sequence[str], *_: Any) -> list[Checked]:
        return [Checked(name, name not in self.shop.held, "", Decimal(9), "EUR") for name in names]

    def credit(self) -> tuple[Decimal, Done]:
        return Decimal(10_000), Done(code=1000)

    def make_contact(self, *_: Any, **__: Any) -> Done:
        self.shop.may_die()
        return Done(code=1000)

    def make_host(self, *_: Any) -> Done:
        return Done(code=1000)

    def register(self, wish: Wish) -> Done:
        self.shop.may_die()
        if wish.name in self.shop.refuse:
            return Done(code=2306, said="no")
        if wish.name in self.shop.held:
            return Done(code=2302)
        self.shop.held[wish.name] = wish.auth
        self.shop.charged.append(wish.name)
        # Carried out; whether the answer arrives is another question.
        self.shop.may_die()
        if self.shop.rng.random() < self.shop.danger:
            return Done(trouble="unreachable", certain=False)
        return Done(code=1000, charged=wish.fee, expires=LATER)

    def info(self, name: str) -> Seen:
        self.shop.may_die()
        if name not in self.shop.held:
            return Seen("nobody", code=2303)
        return Seen("ours", code=1000, auth=self.shop.held[name], expires=LATER)

    def renew(self, *_: Any) -> Done:
        return Done(code=2306)

    def restore(self, *_: Any) -> Done:
        return Done(code=2304)

    def let_go(self, *_: Any) -> Done:
        return Done(code=1000)

    def change(self, *_: Any, **__: Any) -> Done:
        return Done(code=1000)

    def notice(self) -> Notice | None:
        return None

    def dismiss(self, *_: Any) -> Done:
        return Done(code=1000)


@pytest.fixture
def shop(monkeypatch: pytest.MonkeyPatch, settings: Any) -> Shop:
    settings.GATEWAY_LINES = 1
    made = Shop(random.Random(7))

    @contextmanager
    def session(_seller: str, _seconds: float | None = None) -> Iterator[tuple[Line, Done]]:
        line = Line(made)
        yield line, line.open()

    for module in (registering, paying):
        monkeypatch.setattr(module, "session", session)
    monkeypatch.setattr(registering, "has_gateway", lambda _seller: True)
    monkeypatch.setattr(registering, "BATCH", 3)
    monkeypatch.setattr(registering, "WORTH_IT", 100)
    monkeypatch.setattr(paying, "can_use_credit", lambda _person: True)
    monkeypatch.setattr(errands, "wake", lambda _send: None)
    return made


def tick(order: Order) -> bool:
    """A worker's turn, which may end anywhere; another finds the lease free afterwards."""
    errand = Errand.objects.get(order=order)
    Errand.objects.filter(pk=errand.pk).update(
        lease="", heartbeat_at=timezone.now() - timedelta(hours=1), due_at=timezone.now()
    )
    OrderName.objects.filter(order=order, state="sent").update(
        sent_at=timezone.now() - timedelta(minutes=2)
    )
    try:
        return work_on(errand.pk)
    except Killed:
        connection.needs_rollback = False
        return False


@hypothesis_settings(max_examples=25, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(
    seed=st.integers(0, 10_000), count=st.integers(1, 8), danger=st.floats(0.05, 0.5),
    refused=st.sets(st.integers(0, 7), max_size=3),
)  # fmt: skip
def test_whatever_line_it_ends_at_each_name_is_bought_once(
    person: User, shop: Shop, seed: int, count: int, danger: float, refused: set[int]
) -> None:
    shop.rng, shop.danger = random.Random(seed), danger
    names = [f"name{seed}x{n}.com" for n in range(count)]
    shop.held, shop.charged = {}, []
    shop.refuse = {name for n, name in enumerate(names) if n in refused}
    order = an_order(person, names, fee="9.00", tax=f"{count * 2}.07")
    paying.pay_by_credit(order)
    for turn in range(60):
        # In the end it is left in peace.
        shop.danger = danger if turn < 25 else 0.0
        if tick(order):
            break
    order.refresh_from_db()
    assert order.stage == "done"
    assert sorted(shop.charged) == sorted(set(names) - shop.refuse)
    expected = ["refunded" if name in shop.refuse else "registered" for name in names]
    assert states(order) == expected
    paid, back, kept = balance_of(order)
    assert paid - back == kept
    assert Entry.objects.filter(order=order, kind="paid").count() == 1
    assert Entry.objects.filter(order=order, kind="refunded").count() == expected.count("refunded")


def test_a_worker_that_lost_its_order_sends_nothing_more(
    person: User, shop: Shop, monkeypatch: pytest.MonkeyPatch
) -> None:
    names = [f"lost{n}.com" for n in range(6)]
    order = an_order(person, names)
    paying.pay_by_credit(order)
    asked = iter([True] * 3 + [False] * 20)
    monkeypatch.setattr(Work, "held", lambda _work: next(asked))
    assert not tick(order)
    assert 0 < len(shop.charged) < 6
    monkeypatch.undo()


def test_what_another_order_of_ours_registered_is_not_this_ones(person: User, shop: Shop) -> None:
    order = an_order(person, ["twice.com"])
    paying.pay_by_credit(order)
    shop.held["twice.com"] = auth_of("VT-of-another")
    assert tick(order)
    assert states(order) == ["refunded"]
    assert order.names.get().code == 2302


def test_a_fault_of_ours_stops_the_work_after_some_tries_and_it_can_go_on(
    person: User, shop: Shop, monkeypatch: pytest.MonkeyPatch
) -> None:
    order = an_order(person, ["fault.com"])
    paying.pay_by_credit(order)

    def broken(*_: Any) -> bool:
        raise RuntimeError("a fault of ours")

    with monkeypatch.context() as patched:
        patched.setattr(settling, "register_names", broken)
        for _ in range(3):
            with pytest.raises(RuntimeError):
                tick(order)
    assert Errand.objects.get(order=order).state == Errand.State.STOPPED
    assert states(order) == ["paid"]
    errands.send_on(order)
    assert tick(order)
    assert states(order) == ["registered"]
