"""What sellers say of single names, in the plan."""

from __future__ import annotations

from datetime import timedelta
from decimal import Decimal
from typing import Any

import pytest
from django.core.cache import cache
from django.utils import timezone
from rest_framework.test import APIClient

from tests.apps.test_costs import ask
from tests.conftest import Registry
from vinetag.apps.accounts.models import User
from vinetag.apps.availability.models import Lookup
from vinetag.apps.costs import quoting
from vinetag.apps.costs.markets import market_for
from vinetag.apps.costs.models import QuoteRow, SellerRow
from vinetag.apps.costs.quoting import ask_quotes, quotes_for
from vinetag.apps.costs.sellers import refresh_sellers
from vinetag.apps.costs.tasks import ask_for_quotes
from vinetag.apps.naming.models import Project
from vinetag.core.cost import Buyer
from vinetag.core.names import FullName

pytestmark = pytest.mark.usefixtures("simulated_sellers")

ODD = FullName("vlorkinquelt", "studio")


@pytest.fixture
def sent(monkeypatch: pytest.MonkeyPatch) -> list[list[str]]:
    """The names that were sent to be asked about."""
    names: list[list[str]] = []
    monkeypatch.setattr(ask_for_quotes, "delay", names.append)
    return names


def premium(code: str, name: str, first: str, later: str, **more: Any) -> None:
    row = SellerRow.objects.get(code=code)
    terms = {"says": "premium", "currency": row.terms["currency"], "first_year": first}
    QuoteRow.objects.update_or_create(
        seller=row, full_name=name,
        defaults={**terms, "renewal": later, "asked_at": timezone.now(), **more},
    )  # fmt: skip


def test_names_are_asked_about_once_and_the_plan_waits_for_nobody(
    api: APIClient, project: Project, sent: list[list[str]], registry: Registry
) -> None:
    refresh_sellers()
    first = ask(api, project, full_names=[str(ODD)]).json()
    assert (first["quotes"]["waiting"], sent) == (1, [[str(ODD)]])
    before = registry.served
    ask_for_quotes(sent[0])
    count = SellerRow.objects.count()
    assert QuoteRow.objects.count() == count
    assert ask_quotes([ODD]) == 0
    assert registry.served == before
    again = ask(api, project, full_names=[str(ODD)]).json()
    assert (again["quotes"]["waiting"], again["quotes"]["unknown"], len(sent)) == (0, 0, 1)
    stays = {s["seller"]: s for s in again["names"][0]["sellers"]}
    # Its list is behind its prices; the others say what their lists say, or do not sell it.
    assert {code for code, s in stays.items() if s["quoted"]} == {"longacre"}
    lines = ask(api, project, full_names=[str(ODD)], sellers=["longacre"]).json()
    [line] = [
        line for line in lines["names"][0]["cheapest"]["steps"][0]["order"]["lines"]
        if line["kind"] == "registration"
    ]  # fmt: skip
    assert line["reason"] == "quoted"
    assert Decimal(line["args"]["listed"]) < Decimal(line["amount"])


def test_a_premium_name_stays_premium_wherever_it_is_asked_about(
    api: APIClient, project: Project, sent: list[list[str]]
) -> None:
    refresh_sellers()
    usual = ask(api, project, years=3).json()
    for code, price in (("weir", "300"), ("lantern", "280")):
        premium(code, "inkpost.com", price, price)
    costs = ask(api, project, years=3, sellers=["weir", "lantern"]).json()
    [name] = costs["names"]
    assert {s["quoted"] for s in name["sellers"]} == {"premium"}
    assert Decimal(name["cheapest"]["total"]) > 2 * 280 > Decimal(usual["plan"]["total"])
    # One name's price is not another's.
    both = ask(api, project, full_names=["inkpost.com", "inkpress.com"], years=3).json()
    assert Decimal(both["names"][1]["cheapest"]["total"]) < 300
    assert sent


def test_a_seller_that_does_not_sell_a_name_is_left_out_for_it(
    api: APIClient, project: Project, sent: list[list[str]]
) -> None:
    refresh_sellers()
    for row in SellerRow.objects.all():
        premium(row.code, "inkpost.com", "1", "1", says="unavailable")
    names = ["inkpost.com", "inkpress.com"]
    costs = ask(api, project, full_names=names).json()
    assert costs["plan"]["nowhere"] == ["inkpost.com"]
    assert costs["names"][0]["cheapest"] is None
    assert all(s["unsold"] and s["total"] is None for s in costs["names"][0]["sellers"])
    assert costs["names"][1]["cheapest"]
    assert sent == [["inkpress.com"]]


def test_an_answer_of_no_use_is_said_to_be_unknown_and_asked_for_again(
    registry: Registry, person: User
) -> None:
    refresh_sellers()
    registry.faults(service="lists", registry="weir quotes", kind="webpage")
    ask_quotes([ODD])
    market = market_for(person, Buyer(), "EUR")
    quotes = quotes_for(person, market, [ODD])
    assert (quotes.unknown, quotes.waiting) == (1, ())
    assert QuoteRow.objects.get(seller__code="weir").trouble == "nonsense"
    QuoteRow.objects.update(asked_at=timezone.now() - quoting.AGAIN - timedelta(minutes=1))
    assert quotes_for(person, market, [ODD]).waiting == (ODD,)
    registry.faults()
    # What was an answer, if only that it is not sold there, is not asked for again.
    assert ask_quotes([ODD]) == 1
    assert quotes_for(person, market, [ODD]).unknown == 0
    QuoteRow.objects.update(asked_at=timezone.now() - quoting.LASTS)
    late = quotes_for(person, market, [ODD])
    assert (late.waiting, late.names[ODD].quoted) == ((ODD,), {})


def test_prices_in_another_currency_than_the_list_are_not_taken(person: User) -> None:
    refresh_sellers()
    premium("weir", str(ODD), "300", "300", currency="USD")
    quotes = quotes_for(person, market_for(person, Buyer(), "EUR"), [ODD])
    assert not quotes.names[ODD].quoted


def test_two_do_not_ask_about_one_name_at_once_and_addresses_elsewhere_are_never_asked() -> None:
    refresh_sellers()
    cache.set(f"{quoting.UNDER_WAY}:{ODD}", 1)
    assert ask_quotes([ODD]) == 0
    cache.delete(f"{quoting.UNDER_WAY}:{ODD}")
    for row in SellerRow.objects.exclude(code="weir"):
        row.terms["quotes"] = "http://elsewhere.example/"
        row.save()
    assert ask_quotes([ODD]) == 1
    assert QuoteRow.objects.get().seller.code == "weir"


def test_a_names_page_knows_what_sellers_said_of_it(
    api: APIClient, project: Project, sent: list[list[str]]
) -> None:
    refresh_sellers()
    premium("weir", "inkpost.shop", "300", "200")
    premium("lantern", "inkpost.shop", "310", "200")
    for code in ("weir", "lantern"):
        premium(code, "inkpost.net", "1", "1", says="unavailable", first_year=None)
    costs = api.get(f"/api/projects/{project.pk}/names/inkpost").json()["costs"]
    under = {one["extension"]: one for one in costs["extensions"]}
    assert list(under) == ["com", "net", "shop"]
    assert under["shop"]["whole"] == {
        "amount": "1100.00", "extension": "shop", "seller": "", "premium": True,
    }  # fmt: skip
    assert under["net"]["first"] is None
    # A scan that only says it is open says nothing of the price; one with a price does.
    shop = {"project": project, "label": "inkpost", "extension": "shop", "status": "open"}
    open_now = Lookup.objects.create(**shop)
    address = f"/api/projects/{project.pk}/names/inkpost"
    costs = api.get(address).json()["costs"]
    assert costs["extensions"][2]["first"]["amount"] == "300.00"
    open_now.status = "taken"
    open_now.save()
    assert api.get(address).json()["costs"]["extensions"][2]["first"] is None
    # The least is that of the brief's own extensions.
    assert costs["least"]["whole"]["extension"] == "com"
    assert not sent
