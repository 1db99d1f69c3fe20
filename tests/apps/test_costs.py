"""Sellers kept up to date, and what names cost over the API."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import timedelta
from decimal import Decimal
from typing import Any

import pytest
from django.utils import timezone
from rest_framework.test import APIClient

from tests.conftest import Registry
from vinetag.apps.accounts.models import User
from vinetag.apps.costs.models import PriceVersion, SellerRow
from vinetag.apps.costs.sellers import is_due, refresh_sellers, told_sellers
from vinetag.apps.costs.tasks import refresh_when_due
from vinetag.apps.naming.models import Project
from vinetag.lookup import LookupSettings, RetryPolicy


@pytest.fixture(autouse=True)
def asked(registry: Registry, settings: Any) -> Iterator[None]:
    """The sellers of the simulation, on the day the clock says."""
    retry = RetryPolicy(attempts=2, first_wait=0.01, patience=1)
    address = f"{registry.origin}/sellers.json"
    settings.LOOKUP = LookupSettings(sellers=address, timeout=2.0, retry=retry)
    yield
    registry.faults()
    registry.clock(0)


def test_sellers_are_asked_once_a_day_and_every_version_is_kept(registry: Registry) -> None:
    assert is_due()
    refresh_when_due()
    assert not is_due()
    assert is_due(timezone.now() + timedelta(days=1, minutes=1))
    count = SellerRow.objects.count()
    assert PriceVersion.objects.count() == count >= 6
    refresh_sellers()
    assert PriceVersion.objects.count() == count
    registry.clock(400)
    refresh_sellers()
    # Two of them have no promotions, and ask what they asked before.
    assert PriceVersion.objects.count() == 2 * count - 2
    told = {one.entry.code: one for one in told_sellers()}
    rises = [c for c in told["lantern"].changes if (c.extension, c.action) == ("com", "renew")]
    assert [c.kind for c in rises] == ["rose"]
    assert told["hazel"].changes == []


def test_a_list_that_cannot_be_had_leaves_the_one_in_force(registry: Registry) -> None:
    refresh_sellers()
    registry.clock(400)
    registry.faults(service="lists", registry="lantern", kind="webpage")
    refresh_sellers()
    lantern = SellerRow.objects.get(code="lantern")
    assert "looks like a web page" in lantern.trouble
    assert lantern.versions.count() == 1
    assert SellerRow.objects.get(code="weir").versions.count() == 2
    assert is_due(timezone.now() + timedelta(minutes=30))
    later = timezone.now() + timedelta(days=4)
    assert all(one.stale for one in told_sellers(later))
    registry.faults(service="lists", kind="500")
    refresh_sellers()
    assert "HTTP status 500" in SellerRow.objects.get(code="weir").trouble
    assert SellerRow.objects.filter(listed=True).count() == len(told_sellers())


def ask(api: APIClient, project: Project, **question: Any) -> Any:
    question = {"full_names": ["inkpost.com"], "country": "IE", **question}
    return api.post(f"/api/projects/{project.pk}/costs", question)


def test_costs_are_told_seller_by_seller_with_the_cheapest_way(
    api: APIClient, project: Project
) -> None:
    refresh_sellers()
    asked = {"full_names": ["inkpost.com", "Inkpost.NET", "inkpost.com"], "years": 3}
    costs = ask(api, project, **asked).json()
    assert [name["full_name"] for name in costs["names"]] == ["inkpost.com", "inkpost.net"]
    com = costs["names"][0]
    stays = {s["seller"]: s for s in com["sellers"]}
    assert Decimal(com["cheapest"]["total"]) <= min(Decimal(s["total"]) for s in stays.values())
    assert sum(map(Decimal, com["cheapest"]["by_year"])) == Decimal(com["cheapest"]["total"])
    assert {line["full_name"] for step in com["cheapest"]["steps"]
            for line in step["order"]["lines"]} <= {"inkpost.com", ""}  # fmt: skip
    lantern = stays["lantern"]
    assert Decimal(lantern["ticked"]) > Decimal(lantern["total"])
    assert [extra["name"] for extra in lantern["extras"]] == ["Post box", "Watch bell"]
    assert Decimal(costs["plan"]["bound"]) <= Decimal(costs["plan"]["total"])
    assert costs["rates_of"]
    only = ask(api, project, sellers=["weir"], moving=False).json()
    assert [s["seller"] for s in only["names"][0]["sellers"]] == ["weir"]


@pytest.mark.parametrize(
    ("question", "path", "code"),
    [
        ({"years": 0}, "years", "min_value"),
        ({"years": 11}, "years", "max_value"),
        ({"full_names": ["inkpost"]}, "full_names.0", "full_name_needed"),
        ({"full_names": ["inkpost.com", "-x.com"]}, "full_names.1", "as_told"),
        ({"full_names": []}, "full_names", None),
        ({"vat": "DE136695977"}, "vat", "vat_number"),
        ({"currency": "QQQ"}, "currency", "rate_missing"),
        ({"currency": "KWD"}, "currency", "rate_missing"),
        ({"sellers": ["nobody"]}, "sellers", "seller_unknown"),
    ],
)
def test_what_is_wrong_is_told_at_its_field(
    api: APIClient, project: Project, question: dict[str, Any], path: str, code: str | None
) -> None:
    refresh_sellers()
    reply = ask(api, project, **question)
    assert reply.status_code == 400
    [problem] = reply.json()["problems"]
    assert problem["path"] == path
    assert code is None or problem["code"] == code


def test_only_an_administrator_asks_the_sellers_by_hand(api: APIClient, person: User) -> None:
    assert api.post("/api/sellers/refresh").status_code == 404
    person.is_staff = True
    person.save()
    sellers = api.post("/api/sellers/refresh").json()["sellers"]
    assert len(sellers) >= 6
    assert api.get("/api/sellers").json()["sellers"] == sellers
