"""Renewing names one owns, changing how they stand, letting them go: each by its owner alone."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from decimal import Decimal

import pytest
from django.core.cache import cache
from django.utils import timezone
from rest_framework.test import APIClient

from tests.apps.bought import HOLDER, an_order, held, states
from tests.apps.owned_names import done, put, registered
from tests.conftest import Registry
from vinetag.apps.accounts.models import User
from vinetag.apps.ordering import paying
from vinetag.apps.ordering.contacts import save_contact
from vinetag.apps.ordering.models import Errand, Order, OrderName
from vinetag.apps.ordering.settling import balance_of, work_on
from vinetag.apps.owning import renewing
from vinetag.apps.owning.models import OwnedName
from vinetag.apps.owning.renewing import adopt_renewed, renew_by_itself
from vinetag.apps.watching.happenings import texts_of
from vinetag.apps.watching.models import Happening

pytestmark = pytest.mark.usefixtures("selling")
NOW = datetime(2026, 11, 29, 12, tzinfo=UTC)
DAY = timedelta(days=1)


# Renewing.


def test_renewing_is_shown_with_its_price_agreed_to_ordered_and_known(
    api: APIClient, person: User, simulated_world: Registry
) -> None:
    save_contact(person, HOLDER)
    rows = registered(person, 2)
    put(api, "full name,seller\nelsewhere.com,Gullwing Names\n", table=True)
    ids = list(OwnedName.objects.values_list("pk", flat=True))
    shown = api.post("/api/owned/renewing", {"ids": ids, "years": 2}).json()
    by_name = {one["full_name"]: one for one in shown["names"]}
    assert "renew it there" in by_name["elsewhere.com"]["why_not"]
    one = by_name[str(rows[0].name)]
    assert (one["action"], one["elsewhere"]) == ("renew", "Corner Shop")
    # Two years at 20.51 with Ireland's 23 %.
    assert one["amount"] == f"{Decimal('41.02') * Decimal('1.23'):.2f}"
    assert len(shown["totals"]) == 1
    stale = api.post("/api/owned/renew", {"ids": ids, "years": 2, "sign": "x" * 32})
    assert stale.json()["code"] == "changed_elsewhere"
    body = {"ids": ids, "years": 2, "sign": shown["sign"]}
    [number] = api.post("/api/owned/renew", body).json()["orders"]
    again = renewing.renewal_of(person, rows, 2)
    assert {one.amount for one in again.names} == {None}
    assert "already" in str(api.post("/api/owned/renewing", {"ids": ids}).json()["names"])
    order = Order.objects.get(pk=number)
    done(order)
    assert states(order) == ["registered", "registered"]
    paid, back, kept = balance_of(order)
    assert (paid, back) == (kept, 0)
    assert adopt_renewed() == 2
    rows[0].refresh_from_db()
    assert rows[0].expires_at is not None
    assert (rows[0].expires_at - timezone.now()).days > 365 * 3 - 5
    [book] = held(simulated_world, [str(rows[0].name)])
    assert book["expires"][:10] == f"{rows[0].expires_at:%Y-%m-%d}"


def test_a_renewal_whose_answer_was_lost_is_found_out_and_not_paid_twice(
    person: User, simulated_world: Registry
) -> None:
    [row] = registered(person)
    assert row.expires_at is not None
    order = an_order(person, [str(row.name)], fee="20.51", action="renew", ran_until=row.expires_at)
    paying.pay_by_credit(order)
    simulated_world.faults(kind="hangup-after", service="epp")
    errand = Errand.objects.get(order=order).pk
    assert not work_on(errand)
    simulated_world.faults()
    assert work_on(errand)
    assert states(order) == ["registered"]
    renews = [c for c in simulated_world.books["charge"]
              if c["name"] == str(row.name) and c["kind"] == "renew"]  # fmt: skip
    assert len(renews) == 1


def test_what_somebody_else_renewed_meanwhile_is_not_paid_for(
    person: User, simulated_world: Registry
) -> None:
    [row] = registered(person)
    assert row.expires_at is not None
    orders = [
        an_order(person, [str(row.name)], fee="20.51", action="renew", ran_until=row.expires_at)
        for _ in range(2)
    ]
    for order in orders:
        paying.pay_by_credit(order)
        assert work_on(Errand.objects.get(order=order).pk)
    assert [states(order) for order in orders] == [["registered"], ["refunded"]]
    assert orders[1].names.get().code == 2306


def test_what_lapsed_is_had_back_with_its_price(
    api: APIClient, person: User, simulated_world: Registry
) -> None:
    [row] = registered(person)
    simulated_world.clock(365 + 45)
    try:
        shown = api.post("/api/owned/renewing", {"ids": [row.pk]}).json()
        [one] = shown["names"]
        assert one["action"] == "restore"
        body = {"ids": [row.pk], "years": 1, "sign": shown["sign"]}
        [number] = api.post("/api/owned/renew", body).json()["orders"]
        done(Order.objects.get(pk=number))
        assert states(Order.objects.get(pk=number)) == ["registered"]
    finally:
        simulated_world.clock(0)


@pytest.mark.parametrize(("ceiling", "told"), [("30.00", ""), ("5.00", "above what you agreed to")])
def test_by_itself_only_up_to_what_was_agreed_to(
    person: User, simulated_world: Registry, ceiling: str, told: str
) -> None:
    [row] = registered(person)
    OwnedName.objects.update(
        renewal="itself", ceiling=Decimal(ceiling), ceiling_currency="EUR",
        expires_at=timezone.now() + 10 * DAY,
    )  # fmt: skip
    assert renew_by_itself() == (0 if told else 1)
    assert Order.objects.filter(stage="paid").count() == (0 if told else 1)
    texts = list(texts_of(Happening.objects.all(), "UTC"))
    assert any(told in text for text in texts) if told else texts == []
    cache.clear()
    # Not again: it is under way, or was told of.
    renew_by_itself()
    assert Order.objects.filter(names__action="renew").count() == (0 if told else 1)
    assert Happening.objects.count() == (1 if told else 0)
    assert row.pk


# Changing, and letting go.


def test_name_servers_and_the_lock_are_changed_at_the_seller(
    api: APIClient, person: User, simulated_world: Registry
) -> None:
    rows = registered(person, 2)
    ids = [row.pk for row in rows]
    servers = ["ns1.barn.example", "ns2.barn.example"]
    assert api.post("/api/owned/servers", {"ids": ids, "servers": servers}).json()["count"] == 2
    [book, _] = held(simulated_world, [str(row.name) for row in rows])
    assert book["hosts"] == servers
    for wrong in (["ns1"], [], ["one.example"]):
        answer = api.post("/api/owned/servers", {"ids": ids, "servers": wrong})
        assert answer.status_code == 400, wrong
    assert api.post("/api/owned/lock", {"ids": ids, "locked": False}).json()["failed"] == []
    assert {one["status"] == [] for one in held(simulated_world, [str(r.name) for r in rows])} == {
        True
    }
    rows[0].refresh_from_db()
    assert (rows[0].locked, rows[0].servers) == (False, servers)


def test_a_name_is_let_go_when_it_is_typed(
    api: APIClient, person: User, simulated_world: Registry
) -> None:
    [row] = registered(person)
    wrong = api.post(f"/api/owned/{row.pk}/let-go", {"typed": "another.com"})
    assert wrong.json()["code"] == "not_typed"
    assert held(simulated_world, [str(row.name)])
    assert api.post(f"/api/owned/{row.pk}/let-go", {"typed": str(row.name)}).json()["count"] == 1
    assert held(simulated_world, [str(row.name)]) == []
    row.refresh_from_db()
    assert row.differs == ["nobody"]


def test_what_was_registered_for_somebody_else_is_out_of_reach_though_it_is_in_our_account(
    api: APIClient, person: User, other: User, simulated_world: Registry
) -> None:
    [row] = registered(other)
    name = str(row.name)
    # Whoever knows the name puts it on the list, and says where it is.
    put(api, f"full name,seller\n{name},Lantern Names\n", table=True)
    [mine] = OwnedName.objects.filter(owner=person)
    assert mine.seller == "lantern"
    before = held(simulated_world, [name])
    servers = ["ns1.evil.example", "ns2.evil.example"]
    for path, body in (
        ("servers", {"ids": [mine.pk], "servers": servers}),
        ("lock", {"ids": [mine.pk], "locked": False}),
        (f"{mine.pk}/let-go", {"typed": name}),
    ):
        answer = api.post(f"/api/owned/{path}", body).json()
        assert (answer["count"], answer["failed"][0]["why"]) == (0, "Somebody else has it."), path
    shown = api.post("/api/owned/renewing", {"ids": [mine.pk]}).json()
    assert "not registered here for you" in shown["names"][0]["why_not"]
    assert shown["totals"] == []
    assert held(simulated_world, [name]) == before
    # What is asked about it is what anybody can read.
    api.post("/api/owned/ask", {"ids": [mine.pk]})
    mine.refresh_from_db()
    assert mine.said["by"] == "registry"
    # An administrator has what nobody ordered here, and not what somebody did.
    person.is_staff = True
    person.save()
    assert api.post("/api/owned/lock", {"ids": [mine.pk], "locked": False}).json()["count"] == 0
    OrderName.objects.filter(order__owner=other).delete()
    assert api.post("/api/owned/lock", {"ids": [mine.pk], "locked": False}).json()["count"] == 1


def test_a_name_that_was_let_go_and_registered_by_somebody_else_is_theirs(
    api: APIClient, person: User, other: User, simulated_world: Registry
) -> None:
    [row] = registered(person)
    name = str(row.name)
    assert api.post(f"/api/owned/{row.pk}/let-go", {"typed": name}).json()["count"] == 1
    again = an_order(other, [name])
    done(again)
    assert states(again) == ["registered"]
    assert api.post("/api/owned/lock", {"ids": [row.pk], "locked": False}).json()["count"] == 0
    [book] = held(simulated_world, [name])
    assert book["status"] == ["clientTransferProhibited"]
