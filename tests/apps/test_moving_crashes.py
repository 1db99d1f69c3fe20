"""Moving names while workers end at any line and registries forget: each is moved and paid once."""

from __future__ import annotations

import random
from datetime import timedelta
from typing import Any

import pytest
from django.utils import timezone
from hypothesis import HealthCheck, given
from hypothesis import settings as hypothesis_settings
from hypothesis import strategies as st

from tests.apps import test_crashes
from tests.apps.bought import an_order, states
from tests.apps.test_crashes import Line, Shop, tick
from vinetag.apps.accounts.models import User
from vinetag.apps.ordering import moving, paying
from vinetag.apps.ordering.settling import balance_of
from vinetag.apps.ordering.work import auth_of
from vinetag.lookup.epp import Done, Moving, Seen

CODE = "the-code"
shop = test_crashes.shop


class Registry:
    """Names with another seller, those that are on their way here, and what became of each."""

    def __init__(self, shop: Shop) -> None:
        self.shop = shop
        self.codes: dict[str, str] = {}
        self.stands: dict[str, Moving] = {}
        self.unwilling: set[str] = set()
        self.forgets = False

    def decided(self, name: str) -> None:
        """Whoever has it answers."""
        if name in self.unwilling:
            self.stands[name] = Moving("refused", self.stands[name].asked)
            self.shop.charged.remove(name)
            return
        self.shop.held[name] = self.codes.pop(name)
        self.stands[name] = Moving("approved", self.stands[name].asked)


class MovingLine(Line):
    """A session with the seller they are moved to."""

    registry: Registry

    def move(self, name: str, code: str, *_: Any) -> Done:
        self.shop.may_die()
        if name in self.shop.held:
            return Done(code=2106)
        if code != self.registry.codes.get(name):
            return Done(code=2202)
        if self.moving(name).state == "pending":
            return Done(code=2300)
        self.shop.charged.append(name)
        self.registry.stands[name] = Moving("pending", timezone.now())
        self.shop.may_die()
        if self.shop.rng.random() < self.shop.danger:
            return Done(trouble="unreachable", certain=False)
        return Done(code=1001, pending=True)

    def moving(self, name: str) -> Moving:
        self.shop.may_die()
        found = self.registry.stands.get(name, Moving("none", code=2301))
        if found.state == "pending" and self.shop.rng.random() < 0.5:
            self.registry.decided(name)
            found = self.registry.stands[name]
        if self.registry.forgets and found.state != "pending":
            return Moving("none", code=2301)
        if self.shop.rng.random() < self.shop.danger / 3:
            return Moving("unknown", trouble="timeout")
        return found

    def info(self, name: str) -> Seen:
        seen = super().info(name)
        return Seen("others", code=2201) if name in self.registry.codes else seen

    def change(self, name: str, *_: Any, auth: str = "", **__: Any) -> Done:
        self.shop.may_die()
        self.shop.held[name] = auth
        self.shop.may_die()
        return Done(code=1000)


@pytest.fixture
def registry(shop: Shop, monkeypatch: pytest.MonkeyPatch) -> Registry:
    made = Registry(shop)
    MovingLine.registry = made
    monkeypatch.setattr(test_crashes, "Line", MovingLine)
    monkeypatch.setattr(moving, "has_gateway", lambda _seller: False)
    return made


@hypothesis_settings(max_examples=25, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(
    seed=st.integers(0, 10_000), count=st.integers(1, 4), danger=st.floats(0.05, 0.5),
    unwilling=st.sets(st.integers(0, 3)), wrong=st.sets(st.integers(0, 3)), forgets=st.booleans(),
)  # fmt: skip
def test_whatever_line_it_ends_at_each_name_is_moved_once(
    person: User, shop: Shop, registry: Registry, seed: int, count: int, danger: float,
    unwilling: set[int], wrong: set[int], forgets: bool,
) -> None:  # fmt: skip
    shop.rng, shop.danger, shop.held, shop.charged = random.Random(seed), danger, {}, []
    names = [f"move{seed}x{n}.com" for n in range(count)]
    registry.codes, registry.stands = dict.fromkeys(names, CODE), {}
    registry.unwilling = {names[n] for n in unwilling if n < count}
    registry.forgets = forgets
    orders = [
        an_order(
            person, [name], fee="9.00", tax="2.07", action="move", code="x" if n in wrong else CODE
        )
        for n, name in enumerate(names)
    ]
    for order in orders:
        paying.pay_by_credit(order)
        for turn in range(80):
            shop.danger = danger if turn < 30 else 0.0
            if tick(order):
                break
        order.refresh_from_db()
        assert order.stage == "done"
        paid, back, kept = balance_of(order)
        assert paid - back == kept
    for n, (name, order) in enumerate(zip(names, orders, strict=True)):
        stays = n in wrong or name in registry.unwilling
        assert states(order) == ["refunded" if stays else "registered"]
        assert shop.charged.count(name) == (0 if stays else 1)
        # What came here is this order's from now on, and nobody else's.
        assert shop.held.get(name) == (None if stays else auth_of(order.names.get().trid))


def test_what_was_moved_here_for_somebody_else_is_not_this_ones(
    person: User, shop: Shop, registry: Registry
) -> None:
    order = an_order(person, ["taken.com"], action="move", code=CODE)
    paying.pay_by_credit(order)
    # Another order of ours had it moved here a moment ago.
    shop.held["taken.com"] = auth_of("VT-of-another")
    registry.stands["taken.com"] = Moving("approved", timezone.now() - timedelta(minutes=1))
    for _ in range(4):
        if tick(order):
            break
    assert states(order) == ["refunded"]
    assert shop.held["taken.com"] == auth_of("VT-of-another")
