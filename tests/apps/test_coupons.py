"""Coupons in the plan: what they would save, and what people report of them."""

from __future__ import annotations

from decimal import Decimal
from typing import Any

import pytest
from rest_framework.test import APIClient

from tests.apps.conftest import client_of
from tests.apps.test_costs import ask
from vinetag.apps.accounts.models import User
from vinetag.apps.costs.demo import load_reports
from vinetag.apps.costs.models import CouponReport
from vinetag.apps.costs.sellers import refresh_sellers
from vinetag.apps.costs.tasks import ask_for_quotes, refresh_when_due
from vinetag.apps.naming.models import Project

pytestmark = pytest.mark.usefixtures("simulated_sellers")

HEADING = "code,takes,value,extensions,least_names,ends\n"


@pytest.fixture(autouse=True)
def _nobody_asks(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(ask_for_quotes, "delay", lambda _: None)


def coupons(api: APIClient, project: Project, **question: Any) -> dict[str, Any]:
    reply = ask(api, project, full_names=["inkpost.com", "inkpress.net"], **question).json()
    return {one["code"]: one for one in reply["coupons"]}


def report(api: APIClient, code: str, worked: bool | None, seller: str = "lantern") -> Any:
    return api.post("/api/coupons/reports", {"seller": seller, "code": code, "worked": worked})


def test_coupons_are_told_with_odds_and_what_they_would_save(
    api: APIClient, project: Project
) -> None:
    refresh_sellers()
    found = coupons(api, project)
    assert "LANTERNOLD" not in found
    ten = found["WEIR10"]
    assert (ten["odds"]["mean"], ten["odds"]["reports"], ten["reported"]) == (0.5, 0, None)
    assert Decimal(ten["saving"]) > 0
    assert abs(Decimal(ten["expected"]) - Decimal(ten["saving"]) / 2) <= Decimal("0.01")
    # Five names are needed for this one.
    assert (found["FIVEUP"]["least_names"], found["FIVEUP"]["saving"]) == (5, "0.00")
    expected = [Decimal(one["expected"]) for one in found.values()]
    assert expected == sorted(expected, reverse=True)


def test_one_report_a_person_moves_the_odds_and_can_be_taken_back(
    api: APIClient, other: User, project: Project
) -> None:
    refresh_sellers()
    before = coupons(api, project)["LANTERN10"]["odds"]
    assert report(api, "LANTERN10", True).json()["reports"] == 1
    assert report(client_of(other), "LANTERN10", True).json()["reports"] == 2
    told = coupons(api, project)["LANTERN10"]
    assert (told["odds"]["reports"], told["reported"]) == (2, True)
    assert told["odds"]["mean"] == 0.75
    assert told["odds"]["low"] > before["low"]
    report(api, "LANTERN10", False)
    assert CouponReport.objects.count() == 2
    assert coupons(api, project)["LANTERN10"]["odds"]["mean"] == 0.5
    assert report(api, "LANTERN10", None).json()["reports"] == 1
    assert coupons(api, project)["LANTERN10"]["reported"] is None
    assert report(api, "NOSUCH", True).status_code == 404
    assert report(api, "LANTERN10", True, "nobody").status_code == 404


def test_what_did_not_work_for_somebody_is_out_of_their_plan_alone(
    api: APIClient, other: User, project: Project
) -> None:
    refresh_sellers()
    at_weir = {"sellers": ["weir"]}
    assert coupons(api, project, **at_weir)["WEIR10"]["in_plan"]
    total = Decimal(ask(api, project, **at_weir).json()["plan"]["total"])
    report(client_of(other), "WEIR10", False, "weir")
    assert Decimal(ask(api, project, **at_weir).json()["plan"]["total"]) == total
    report(api, "WEIR10", False, "weir")
    assert not coupons(api, project, **at_weir)["WEIR10"]["in_plan"]
    assert Decimal(ask(api, project, **at_weir).json()["plan"]["total"]) > total


def hold(api: APIClient, text: str, seller: str = "weir", **more: Any) -> Any:
    return api.post(f"/api/sellers/{seller}/held-coupons", {"text": HEADING + text, **more})


def test_a_coupon_entered_by_hand_is_the_persons_own(
    api: APIClient, person: User, other: User, project: Project
) -> None:
    refresh_sellers()
    assert hold(api, "POSTER,percent,60,,,").status_code == 204
    told = coupons(api, project)["POSTER"]
    assert (told["held"], told["in_plan"], told["ends"]) == ("own", True, None)
    client = client_of(other)
    theirs = Project.objects.create(owner=other, name="x", brief=project.brief, edition=1)
    assert "POSTER" not in coupons(client, theirs)
    assert report(client, "POSTER", True, "weir").status_code == 404
    # Of one code the last one entered stands.
    hold(api, "POSTER,amount,3,,,2030-01-01\nOTHER,percent,5,com,2,")
    found = coupons(api, project)
    assert (found["POSTER"]["takes"], found["OTHER"]["extensions"]) == ("amount", ["com"])
    drop = "/api/sellers/weir/held-coupons"
    assert api.put(drop, {"code": "POSTER"}).status_code == 204
    assert api.put(drop, {"code": "POSTER"}).status_code == 404
    assert "POSTER" not in coupons(api, project)
    assert hold(api, "ALL,percent,5,,,", everybody=True).status_code == 404
    person.is_staff = True
    person.save()
    assert hold(api, "ALL,percent,5,,,", everybody=True).status_code == 204
    assert coupons(client, theirs)["ALL"]["held"] == "all"


@pytest.mark.parametrize(
    ("line", "path", "code"),
    [
        ("X,percent,101,,,", "value", "coupon_percent"),
        ("X,percent,ten,,,", "value", "not_price"),
        ("X,percent,5,nosuch,,", "extensions", "extension_unknown"),
        ("X,percent,5,,0,", "least_names", "out_of_range"),
        ("X,percent,5,,,soon", "ends", "not_date"),
        (",percent,5,,,", "code", "blank"),
    ],
)
def test_what_is_wrong_with_a_coupon_is_told_at_its_field(
    api: APIClient, line: str, path: str, code: str
) -> None:
    refresh_sellers()
    reply = hold(api, line)
    assert reply.status_code == 400
    [problem] = reply.json()["problems"]
    assert (problem["path"], problem["code"]) == (path, code)


def test_the_demo_has_reports_once_and_of_nobody_who_signs_in(
    api: APIClient, project: Project, settings: Any
) -> None:
    settings.DEMO_MODE = True
    refresh_when_due()
    assert not load_reports()
    found = coupons(api, project)
    assert found["QUIET"]["odds"]["reports"] == 5
    assert found["QUIET"]["odds"]["mean"] < 0.3 < 0.7 < found["WEIR10"]["odds"]["mean"]
    readers = User.objects.filter(username__startswith="demo-reader-")
    assert readers.count() == 6
    assert not any(reader.is_active or reader.has_usable_password() for reader in readers)
