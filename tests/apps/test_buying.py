"""From the basket to a paid order: what the seller's gateway asks, placing it once,
and paying it once, whatever the payment page says and how often.
"""

from __future__ import annotations

import base64
import hashlib
import hmac
import json
import time
from datetime import timedelta
from decimal import Decimal
from typing import Any

import pytest
from django.utils import timezone
from rest_framework.test import APIClient

from tests.apps.bought import HOLDER, an_order, charged, fresh, held, states
from tests.conftest import WORD, Registry, asked
from vinetag.apps.accounts.models import User
from vinetag.apps.availability.answer_store import save_answers
from vinetag.apps.costs.models import SellerRow
from vinetag.apps.costs.quoting import NameQuotes, Quotes
from vinetag.apps.costs.sellers import new_version
from vinetag.apps.naming.models import Project
from vinetag.apps.ordering import errands, paying, pricing, reviews
from vinetag.apps.ordering.api import views
from vinetag.apps.ordering.contacts import save_contact
from vinetag.apps.ordering.models import Entry, Errand, Order, Payment
from vinetag.apps.ordering.paying import LASTS, look_at_payments, take_note
from vinetag.apps.ordering.settling import balance_of, work_on
from vinetag.core.checking import Evidence
from vinetag.core.names import FullName
from vinetag.lookup import Answer
from vinetag.lookup.epp import gateways_from_env
from vinetag.lookup.till import PaymentTold, till_from_env

LIST = "extension,action,price\ncom,register,{first}\ncom,renew,20.51\n"


@pytest.fixture(autouse=True)
def _sells(registry: Registry, settings: Any, monkeypatch: pytest.MonkeyPatch) -> None:
    """Registries say that every name is open; Lantern Names answers by its gateway."""
    settings.GATEWAYS = gateways_from_env({**registry.selling, "VINETAG_GATEWAY_TIMEOUT": "2"})
    settings.TILL = till_from_env(registry.selling)
    monkeypatch.setattr(errands, "wake", lambda _send: None)
    monkeypatch.setattr(views.ask_for_quotes, "delay", lambda _names: None)
    monkeypatch.setattr(
        pricing, "quotes_for",
        lambda _who, _market, names: Quotes({name: NameQuotes() for name in names}),
    )  # fmt: skip

    def look_up(project: Project, names: list[FullName], _seconds: float, aim: str) -> None:
        now = timezone.now()
        found = (Evidence("rdap", "unregistered", now),)
        answers = [Answer(n, "open", now, aim=aim, evidence=found) for n in names]  # type: ignore[arg-type]
        save_answers(project.pk, answers)

    monkeypatch.setattr(reviews, "look_up", look_up)


def lantern(first: str = "1.50") -> None:
    row = SellerRow.objects.create(
        code="lantern", asked_at=timezone.now(),
        terms={"code": "lantern", "name": "Lantern Names", "country": "IE", "currency": "EUR"},
    )  # fmt: skip
    new_version(row, LIST.format(first=first), timezone.localdate())


def looked(api: APIClient, project: Project, *names: str) -> Any:
    assert api.post(f"/api/projects/{project.pk}/basket", {"names": names}).status_code == 201
    return api.post("/api/basket/review").json()


def press(page: str, way: str = "pay") -> None:
    """As somebody at the payment page."""
    assert asked(f"{page}/{way}", b"", method="POST")[0] == 303


def told(payment: Payment, state: str = "accepted", **other: Any) -> PaymentTold:
    row = Payment.objects.get(pk=payment.pk)
    given = {"id": row.number or "x1", "reference": row.reference, "state": state,
             "amount": row.amount, "currency": row.currency, **other}  # fmt: skip
    return PaymentTold(**given)


# The last look, with the seller's gateway.


def test_without_anybody_it_is_for_nothing_is_ordered_here(
    api: APIClient, project: Project
) -> None:
    lantern()
    [name] = fresh()
    found = looked(api, project, name)
    assert found["ready"]
    assert not found["ready_here"]
    assert found["items"][0]["reviewed"]["not_here"] == "Nobody is named whom it is for."
    refused = api.post("/api/orders")
    assert (refused.status_code, refused.json()["code"]) == (409, "not_ready")
    assert api.get("/api/basket").json()["items"]


def test_what_the_gateway_asks_is_the_price_and_more_than_planned_is_agreed_to_first(
    api: APIClient, person: User, project: Project
) -> None:
    lantern(first="1.00")
    save_contact(person, HOLDER)
    [name] = fresh()
    found = looked(api, project, name)
    [item] = found["items"]
    # 1.50 with Ireland's 23 %, where 1.00 was listed.
    assert item["amount"] == "1.85"
    assert item["reviewed"]["changed"] == ["It costs more than planned: 1.85 EUR, not 1.23 EUR."]
    assert not found["ready_here"]
    sign = item["reviewed"]["sign"]
    agreed = api.post(f"/api/basket/items/{item['id']}/agree", {"sign": sign}).json()
    assert agreed["ready_here"]
    assert [line["amount"] for line in agreed["orders"][0]["lines"]] == ["1.50", "0.35"]


def test_what_the_seller_does_not_sell_or_accept_is_told_at_the_name(
    api: APIClient, person: User, project: Project, registry: Registry
) -> None:
    lantern()
    save_contact(person, HOLDER)
    found = looked(api, project, "ink.com")
    assert "Lantern Names does not sell it: In use." in found["items"][0]["reviewed"]["changed"]
    registry.faults(kind="expired", service="epp", extension="connection")
    found = api.post("/api/basket/review").json()
    assert "certificate" in found["items"][0]["reviewed"]["not_here"]


def test_another_contact_is_looked_at_anew(api: APIClient, person: User, project: Project) -> None:
    lantern()
    contact = save_contact(person, HOLDER)
    [name] = fresh()
    assert looked(api, project, name)["ready_here"]
    save_contact(person, {**HOLDER, "name": "Bram"}, contact)
    found = api.get("/api/basket").json()
    assert not found["ready"]
    assert found["items"][0]["reviewed"]["status"] == "unasked"


def test_a_coupon_goes_with_the_order_and_is_what_was_paid(
    api: APIClient, administrator: User, project: Project, registry: Registry
) -> None:
    lantern()
    save_contact(administrator, HOLDER)
    [name] = fresh()
    looked(api, project, name)
    api.patch("/api/basket", {"coupon": "LANTERN10"})
    found = api.post("/api/basket/review").json()
    # A tenth less than 1.50, and tax.
    [item] = found["items"]
    assert item["amount"] == "1.66"
    # Less than planned is told, too.
    sign = {"sign": item["reviewed"]["sign"]}
    assert api.post(f"/api/basket/items/{item['id']}/agree", sign).json()["ready_here"]
    [made] = api.post("/api/orders").json()["orders"]
    order = Order.objects.get(pk=made["id"])
    assert (order.names.get().coupon, order.names.get().fee) == ("LANTERN10", Decimal("1.35"))
    paying.pay_by_credit(order)
    assert work_on(Errand.objects.get().pk)
    assert states(order) == ["registered"]
    assert charged(registry, [name]) == Decimal("1.35")


@pytest.mark.parametrize("coupon", ["LANTERNOLD", "NEVER", "HELLO"])
def test_a_coupon_the_seller_does_not_take_for_it_is_told_at_the_name(
    api: APIClient, person: User, project: Project, coupon: str
) -> None:
    lantern()
    save_contact(person, HOLDER)
    looked(api, project, *fresh())
    api.patch("/api/basket", {"coupon": coupon})
    [item] = api.post("/api/basket/review").json()["items"]
    told = f"Lantern Names does not sell it: it does not take the coupon {coupon} for it."
    assert told in item["reviewed"]["changed"]
    assert not item["reviewed"]["here"]


def test_a_number_the_registry_asks_for_is_missed_by_its_name(
    api: APIClient, person: User, project: Project
) -> None:
    save_contact(person, {**HOLDER, "country": "BR", "region": "SP", "postcode": "01310-100",
                          "phone": "+55 11 91234 5678"})  # fmt: skip
    api.post(f"/api/projects/{project.pk}/basket", {"names": ["qxyzzy.com.br"]})
    [item] = api.get("/api/basket").json()["items"]
    assert item["reviewed"]["missing"] == [
        "Under .com.br the owner needs a CPF (Brazil); Edda Birchwell has none here."
    ]


# Placing and paying.


def placed(api: APIClient, person: User, project: Project, count: int = 1) -> Order:
    lantern()
    save_contact(person, HOLDER)
    looked(api, project, *fresh(count))
    [made] = api.post("/api/orders").json()["orders"]
    return Order.objects.get(pk=made["id"])


def test_an_order_is_placed_once_paid_at_the_page_and_registered(
    api: APIClient, person: User, project: Project, registry: Registry
) -> None:
    order = placed(api, person, project, 2)
    again = api.post("/api/orders")
    assert (again.status_code, again.json()["code"]) == (409, "empty")
    assert api.get("/api/basket").json()["items"] == []
    first = api.post(f"/api/orders/{order.pk}/pay").json()["page"]
    # Another window pays the very same payment.
    assert api.post(f"/api/orders/{order.pk}/pay").json()["page"] == first
    press(first)
    Payment.objects.update(begun_at=timezone.now() - timedelta(minutes=1))
    look_at_payments()
    assert states(order) == ["paid", "paid"]
    assert api.post(f"/api/orders/{order.pk}/pay").json()["code"] == "paid"
    assert work_on(Errand.objects.get().pk)
    shown = api.get(f"/api/orders/{order.pk}").json()
    assert (shown["stage"], shown["paid"], shown["kept"]) == ("done", "3.69", "3.69")
    assert len(held(registry, [n["full_name"] for n in shown["names"]])) == 2
    paper = api.get(f"/api/orders/{order.pk}/receipts/receipt").json()
    assert paper["document"]["total"] == "3.69"
    assert paper["buyer"]["name"] == "Edda Birchwell"
    file = api.get(f"/api/orders/{order.pk}/receipts/receipt/file")
    assert json.loads(file.content)["number"] == paper["document"]["number"]
    assert api.get(f"/api/orders/{order.pk}/receipts/credit_note").status_code == 404


def test_a_signed_message_pays_an_order_however_often_it_comes(
    api: APIClient, person: User, project: Project
) -> None:
    order = placed(api, person, project)
    api.post(f"/api/orders/{order.pk}/pay")
    payment = Payment.objects.get()
    body = json.dumps(
        {"id": payment.number, "reference": payment.reference, "state": "accepted",
         "amount": str(payment.amount), "currency": "EUR"}
    ).encode()  # fmt: skip

    def send(secret: str) -> int:
        at = str(int(time.time()))
        about = b".".join((b"msg_1", at.encode(), body))
        digest = base64.b64encode(hmac.new(secret.encode(), about, hashlib.sha256).digest())
        answer = APIClient(enforce_csrf_checks=True).generic(
            "POST", "/api/payments/notice", body, content_type="application/json",
            headers={"webhook-id": "msg_1", "webhook-timestamp": at,
                     "webhook-signature": f"v1,{digest.decode()}"},
        )  # fmt: skip
        return int(answer.status_code)

    assert send("somebody") == 409
    assert states(order) == ["agreed"]
    assert [send(WORD) for _ in range(3)] == [204, 204, 204]
    assert states(order) == ["paid"]
    assert Entry.objects.count() == 1


@pytest.mark.parametrize("way", ["decline", "leave"])
def test_a_payment_that_came_to_nothing_can_be_tried_again(
    api: APIClient, person: User, project: Project, way: str
) -> None:
    order = placed(api, person, project)
    page = api.post(f"/api/orders/{order.pk}/pay").json()["page"]
    press(page, way)
    Payment.objects.update(begun_at=timezone.now() - timedelta(minutes=1))
    look_at_payments()
    assert api.get(f"/api/orders/{order.pk}").json()["payment"] in ("declined", "abandoned")
    assert api.post(f"/api/orders/{order.pk}/pay").json()["page"] != page
    assert not Entry.objects.exists()


def test_money_that_comes_too_late_or_twice_goes_back(
    api: APIClient, person: User, project: Project, registry: Registry
) -> None:
    order = placed(api, person, project)
    first = api.post(f"/api/orders/{order.pk}/pay").json()["page"]
    late = Payment.objects.get()
    take_note(told(late, "abandoned"))
    second = api.post(f"/api/orders/{order.pk}/pay").json()["page"]
    press(second)
    press(first)
    paid = Payment.objects.latest("pk")
    take_note(told(paid))
    # The first was paid after all: what was said of it before is no more than that.
    take_note(told(late))
    assert work_on(Errand.objects.get().pk)
    order.refresh_from_db()
    assert order.stage == "done"
    paid_in, back, kept = balance_of(order)
    assert (paid_in, back, kept) == (Decimal("3.70"), Decimal("1.85"), Decimal("1.85"))
    books = {p["id"]: p for p in registry.books["payment"]}
    assert list(books[Payment.objects.get(pk=late.pk).number]["refunds"].values()) == ["1.85"]
    assert books[paid.number]["refunds"] == {}


def test_an_order_nobody_pays_is_called_off_and_its_names_are_in_the_basket_again(
    api: APIClient, person: User, project: Project
) -> None:
    order = placed(api, person, project)
    api.post(f"/api/orders/{order.pk}/pay")
    Order.objects.update(placed_at=timezone.now() - LASTS - timedelta(minutes=1))
    look_at_payments()
    order.refresh_from_db()
    assert (order.stage, states(order), bytes(order.buyer)) == ("called_off", ["failed"], b"")
    assert len(api.get("/api/basket").json()["items"]) == 1
    # Whoever pays now gets the money back.
    take_note(told(Payment.objects.get()))
    assert [e.kind for e in order.entries.order_by("pk")] == ["paid", "refunded"]
    assert api.post(f"/api/orders/{order.pk}/pay").json()["code"] == "called_off"
    assert api.post(f"/api/orders/{order.pk}/call-off").json()["code"] == "too_late"


def test_a_message_of_another_amount_or_payment_pays_nothing(
    api: APIClient, person: User, project: Project
) -> None:
    order = placed(api, person, project)
    api.post(f"/api/orders/{order.pk}/pay")
    payment = Payment.objects.get()
    for odd in ({"amount": Decimal("0.01")}, {"currency": "SEK"}, {"reference": "another"},
                {"id": "none", "reference": "none"}):  # fmt: skip
        assert not take_note(told(payment, **odd))
    assert states(order) == ["agreed"]


def test_a_page_that_cannot_be_reached_leaves_everything_as_it_was(
    api: APIClient, person: User, project: Project, registry: Registry
) -> None:
    order = placed(api, person, project)
    registry.faults(kind="500", service="till", registry="page")
    assert api.post(f"/api/orders/{order.pk}/pay").json()["code"] == "no_till"
    assert states(order) == ["agreed"]
    registry.faults()
    assert api.post(f"/api/orders/{order.pk}/pay").status_code == 200
    assert Payment.objects.count() == 1


def test_credit_is_spent_by_administrators_and_as_far_as_it_goes(
    api: APIClient, person: User, registry: Registry
) -> None:
    order = an_order(person, fresh())
    assert api.post(f"/api/orders/{order.pk}/pay-by-credit").json()["code"] == "not_yours"
    person.is_staff = True
    person.save()
    dear = an_order(person, fresh(), fee="90000.00")
    refused = api.post(f"/api/orders/{dear.pk}/pay-by-credit")
    assert "and this takes 90,000.00 EUR of it" in refused.json()["message"]
    assert api.post(f"/api/orders/{order.pk}/pay-by-credit").json()["stage"] == "paid"
    assert api.post(f"/api/orders/{order.pk}/pay-by-credit").json()["code"] == "paid"
    assert Entry.objects.count() == 1
