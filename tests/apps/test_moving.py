"""Names moved here, between sellers of ours, and away: whoever has the code, and nobody else."""

from __future__ import annotations

import time
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from typing import Any

import pytest
from django.utils import timezone
from rest_framework.test import APIClient

from tests.apps.bought import HOLDER, WORLD, held, states
from tests.apps.conftest import client_of
from tests.apps.owned_names import put, registered
from tests.conftest import Registry
from vinetag.apps.accounts.models import User
from vinetag.apps.costs.models import SellerRow
from vinetag.apps.costs.sellers import new_version
from vinetag.apps.ordering.contacts import save_contact
from vinetag.apps.ordering.errands import put_off
from vinetag.apps.ordering.models import Errand, GatewayNotice, Order, OrderName
from vinetag.apps.ordering.paying import pay_by_credit
from vinetag.apps.ordering.settling import balance_of, work_on
from vinetag.apps.ordering.work import auth_of
from vinetag.apps.owning.models import OwnedName
from vinetag.apps.owning.moving import adopt_moved, hear_of_moves, move_of
from vinetag.apps.watching.models import Happening
from vinetag.core.owning import moves

pytestmark = pytest.mark.usefixtures("selling")


@pytest.fixture(autouse=True)
def _weir(selling: None, person: User, simulated_world: Registry) -> Iterator[None]:
    """Another seller with a gateway, and somebody to buy for."""
    row = SellerRow.objects.create(
        code="weir", asked_at=timezone.now(),
        terms={"code": "weir", "name": "Weir & Daughter", "country": "IE", "currency": "EUR"},
    )  # fmt: skip
    prices = "extension,action,price\ncom,register,12\ncom,renew,9\ncom,move,14.30\n"
    new_version(row, prices, timezone.localdate())
    save_contact(person, HOLDER)
    yield
    simulated_world.clock(0)
    simulated_world.faults()


taken = (f"{word}.com" for word in WORLD.common)


def elsewhere(status: str = "active") -> str:
    """A name of the world's, with another seller; never one that a test before moved."""
    now = datetime.now(UTC)
    for name in taken:
        found = WORLD.registration(name.partition(".")[0], "com", now)
        fits = found and found.status == (status,) and found.expires - now > timedelta(days=60)
        if fits and now - found.created > timedelta(days=400):
            return name
    raise AssertionError("no such name")


def code_of(registry: Registry, name: str) -> str:
    return str(registry._get(f"codes/{name}")["code"])


def listed(api: APIClient, name: str) -> OwnedName:
    put(api, name)
    return OwnedName.objects.filter(label=name.partition(".")[0]).latest("pk")


def ask(api: APIClient, row: OwnedName, **part: Any) -> Any:
    return api.post(f"/api/owned/{row.pk}/moving", {"to": "weir", **part}).json()


def order(api: APIClient, row: OwnedName, **part: Any) -> Order:
    sign = ask(api, row, **part)["sign"]
    answer = api.post(f"/api/owned/{row.pk}/move", {"to": "weir", "sign": sign, **part})
    assert answer.status_code == 201, answer.json()
    [number] = answer.json()["orders"]
    made = Order.objects.get(pk=number)
    pay_by_credit(made)
    return made


def carry_on(made: Order) -> str:
    work_on(Errand.objects.get(order=made).pk)
    Errand.objects.filter(order=made).update(due_at=timezone.now())
    return states(made)[0]


def until(made: Order, state: str) -> None:
    for _ in range(30):
        if carry_on(made) == state:
            return
        time.sleep(0.2)
    raise AssertionError(list(made.names.values("state", "code", "trouble", "said")))


def balanced(made: Order) -> bool:
    paid, back, kept = balance_of(made)
    return paid - back == kept


def test_a_name_is_moved_here_by_its_code(
    api: APIClient, person: User, simulated_world: Registry
) -> None:
    name = elsewhere()
    row = listed(api, name)
    shown = ask(api, row)
    assert "code is missing" in shown["why_not"]
    code = code_of(simulated_world, name)
    shown = ask(api, row, code=code)
    assert shown["why_not"] == ""
    assert not shown["at_home"]
    before = WORLD.registration(row.label, "com", datetime.now(UTC))
    assert before is not None
    made = order(api, row, code=code)
    assert carry_on(made) == "pending"
    assert "let it go" in str(api.get(f"/api/orders/{made.pk}").json())
    assert "in an order already" in ask(api, row, code=code)["why_not"]
    until(made, "registered")
    assert balanced(made)
    assert adopt_moved() == 1
    row.refresh_from_db()
    assert (row.seller, row.locked) == ("weir", True)
    [book] = held(simulated_world, [name])
    assert book["seller"] == "weir"
    assert book["auth"] == auth_of(made.names.get().trid)
    assert book["status"] == ["clientTransferProhibited"]
    # A year came with it, and it is for whom it was ordered.
    assert datetime.fromisoformat(book["expires"]).year == before.expires.year + 1
    assert book["registrant"].startswith("VT")
    # From now on it is changed here; its code is nowhere kept any more.
    answer = api.post("/api/owned/lock", {"ids": [row.pk], "locked": False})
    assert answer.json()["count"] == 1
    made.refresh_from_db()
    assert not made.people


def test_a_wrong_code_moves_nothing_and_is_paid_back(api: APIClient, person: User) -> None:
    row = listed(api, elsewhere())
    made = order(api, row, code="not-the-code")
    until(made, "refunded")
    assert balanced(made)
    assert balance_of(made)[2] == 0
    assert "not the right one" in str(api.get(f"/api/orders/{made.pk}").json())


def test_who_has_it_may_keep_it(api: APIClient, person: User, simulated_world: Registry) -> None:
    name = elsewhere()
    row = listed(api, name)
    simulated_world.faults(kind="unwilling", service="epp")
    made = order(api, row, code=code_of(simulated_world, name))
    until(made, "refunded")
    simulated_world.faults()
    assert balanced(made)
    assert "did not let it go" in str(api.get(f"/api/orders/{made.pk}").json())
    assert [one["seller"] for one in held(simulated_world, [name])] != ["weir"]


@pytest.mark.parametrize("kind", ["hangup-after", "hangup", "2400"])
def test_an_answer_that_is_lost_moves_nothing_twice(
    api: APIClient, person: User, simulated_world: Registry, kind: str
) -> None:
    name = elsewhere()
    row = listed(api, name)
    made = order(api, row, code=code_of(simulated_world, name))
    simulated_world.faults(kind=kind, service="epp")
    work_on(Errand.objects.get(order=made).pk)
    simulated_world.faults()
    assert states(made) == ["sent"]
    long_ago = timezone.now() - timedelta(minutes=1)
    if kind != "hangup-after":
        OrderName.objects.filter(order=made).update(sent_at=long_ago)
    until(made, "registered")
    charges = [c for c in simulated_world.books["charge"] if c["name"] == name]
    assert [c["kind"] for c in charges] == ["transfer"]
    assert balanced(made)


def test_between_sellers_of_ours_it_is_opened_and_agreed_to(
    api: APIClient, person: User, simulated_world: Registry, monkeypatch: pytest.MonkeyPatch
) -> None:
    [row] = registered(person)
    assert "60 days" in ask(api, row)["why_not"]
    monkeypatch.setattr(moves, "SETTLED", timedelta(0))
    simulated_world.clock(70)
    shown = ask(api, row)
    assert (shown["at_home"], shown["why_not"]) == (True, "")
    assert {trap["code"] for trap in shown["traps"]} == {"opened", "servers"}
    made = order(api, row)
    until(made, "registered")
    assert adopt_moved() == 1
    row.refresh_from_db()
    assert row.seller == "weir"
    # Its former seller does not have it any more, and nobody else may do anything with it.
    other = User.objects.create_user("other@inkpost.example", password="x" * 12)
    save_contact(other, HOLDER)
    theirs = listed(client_of(other), str(row.name))
    OwnedName.objects.filter(pk=theirs.pk).update(seller="weir", seller_name="Weir & Daughter")
    answer = client_of(other).post(f"/api/owned/{theirs.pk}/code")
    assert answer.status_code == 409
    failed = client_of(other).post(f"/api/owned/{theirs.pk}/leaving", {"allow": True}).json()
    assert failed["count"] == 0


def test_a_seller_who_thinks_it_over_for_days_is_asked_ever_more_seldom(
    api: APIClient, person: User, simulated_world: Registry
) -> None:
    name = elsewhere()
    row = listed(api, name)
    simulated_world.faults(kind="undecided", service="epp", seconds=3_600)
    made = order(api, row, code=code_of(simulated_world, name))
    assert carry_on(made) == "pending"

    def waits(after: timedelta) -> float:
        OrderName.objects.filter(order=made).update(sent_at=timezone.now() - after)
        put_off(Errand.objects.get(order=made).pk, answered=True)
        return (Errand.objects.get(order=made).due_at - timezone.now()).total_seconds()

    assert waits(timedelta(0)) == pytest.approx(5, abs=2)
    assert waits(timedelta(minutes=10)) == pytest.approx(60, abs=2)
    assert waits(timedelta(days=3)) == pytest.approx(600, abs=2)


def test_what_was_opened_and_stays_is_locked_again(
    api: APIClient, person: User, simulated_world: Registry, monkeypatch: pytest.MonkeyPatch
) -> None:
    [row] = registered(person)
    # The list thinks it can be moved, and the registry does not.
    monkeypatch.setattr(moves, "SETTLED", timedelta(0))
    made = order(api, row)
    until(made, "refunded")
    assert balanced(made)
    [book] = held(simulated_world, [str(row.name)])
    assert (book["seller"], book["status"]) == ("lantern", ["clientTransferProhibited"])


def test_the_registry_s_own_rules_are_told_before_they_bite(api: APIClient, person: User) -> None:
    row = listed(api, elsewhere("client transfer prohibited"))
    shown = ask(api, row, code="x")
    assert "locked" in shown["why_not"]
    refused = api.post(
        f"/api/owned/{row.pk}/move", {"to": "weir", "code": "x", "sign": shown["sign"]}
    )
    assert refused.status_code == 409
    told = api.post(f"/api/owned/{row.pk}/code").json()
    assert "its seller tells the code" in told["message"]
    free = listed(api, "qx71y2vvk0p5.com")
    assert "nothing to move" in ask(api, free)["why_not"]


def test_one_that_is_asked_for_is_told_of_and_kept_or_let_go(
    api: APIClient, person: User, simulated_world: Registry, monkeypatch: pytest.MonkeyPatch
) -> None:
    [row] = registered(person)
    monkeypatch.setattr(moves, "SETTLED", timedelta(0))
    simulated_world.clock(70)
    code = api.post(f"/api/owned/{row.pk}/code").json()
    assert code["code"] == auth_of(OrderName.objects.get(action="register").trid)
    assert [trap["code"] for trap in code["traps"] if trap["bars"]] == ["open_first"]
    assert api.post("/api/owned/lock", {"ids": [row.pk], "locked": False}).json()["count"] == 1
    # Somebody else asks for it with the code, by another account.
    buyer = User.objects.create_user("buyer@inkpost.example", password="x" * 12)
    save_contact(buyer, HOLDER)
    theirs = listed(client_of(buyer), str(row.name))
    made = order(client_of(buyer), theirs, code=code["code"])
    assert carry_on(made) == "pending"
    assert hear_of_moves() == 1
    assert Happening.objects.get(owner=person, what="owned").args["of"] == "leaving"
    assert not GatewayNotice.objects.filter(moving=True).exists()
    row.refresh_from_db()
    assert "pendingTransfer" in row.said["statuses"]
    kept = api.post(f"/api/owned/{row.pk}/leaving", {"allow": False}).json()
    assert kept["count"] == 1
    until(made, "refunded")
    # And once more, and it goes.
    again = order(client_of(buyer), theirs, code=code["code"])
    assert carry_on(again) == "pending"
    assert api.post(f"/api/owned/{row.pk}/leaving", {"allow": True}).json()["count"] == 1
    until(again, "registered")
    assert move_of(person, row, "weir").at_home is False
