"""Sellers and lists entered by hand, and rates brought in."""

from __future__ import annotations

from datetime import timedelta
from decimal import Decimal
from typing import Any

import pytest
from django.utils import timezone
from rest_framework.test import APIClient

from tests.apps.conftest import client_of
from tests.apps.test_costs import ask
from tests.conftest import Registry
from vinetag.apps.accounts.models import User
from vinetag.apps.costs import by_hand
from vinetag.apps.costs.models import PriceVersion, SellerRow
from vinetag.apps.costs.sellers import is_due, refresh_sellers
from vinetag.apps.costs.tasks import ask_for_quotes, refresh_when_due
from vinetag.apps.naming.models import Project

pytestmark = pytest.mark.usefixtures("simulated_sellers")

TERMS = {"name": "Corner Shop Names", "country": "IE", "currency": "EUR"}
GOOD = "extension,action,price\ncom,register,1\ncom,renew,2\nnet,register,3\n"
BAD = GOOD + "nosuch,renew,9\ncom,register,-4\n"


@pytest.fixture(autouse=True)
def _nobody_asks(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(ask_for_quotes, "delay", lambda _: None)


@pytest.fixture
def administrator(other: User) -> APIClient:
    other.is_staff = True
    other.save()
    return client_of(other)


def own(api: APIClient, **terms: Any) -> str:
    reply = api.post("/api/sellers", {"terms": {**TERMS, **terms}})
    assert reply.status_code == 201, reply.content
    return str(next(s["code"] for s in reply.json()["sellers"] if s["own"]))


def put(api: APIClient, code: str, text: str, kind: str = "prices", **more: Any) -> Any:
    return api.put(f"/api/sellers/{code}/{kind}", {"text": text, **more})


def sellers(api: APIClient) -> dict[str, Any]:
    return {s["code"]: s for s in api.get("/api/sellers").json()["sellers"]}


def test_a_seller_of_ones_own_is_in_ones_plan_and_nobody_elses(
    api: APIClient, administrator: APIClient, project: Project
) -> None:
    refresh_sellers()
    code = own(api)
    assert put(api, code, GOOD).json() == {"lines": 3, "problems": []}
    [name] = ask(api, project, years=2, country="").json()["names"]
    stays = {s["seller"]: s for s in name["sellers"]}
    # One year for 1, one more for 2; or two for 1 each at once.
    assert stays[code]["total"] == "2.00"
    mine = sellers(api)[code]
    assert (mine["own"], mine["may_change"], mine["by_hand"], mine["stale"]) == (
        True, True, True, False,
    )  # fmt: skip
    assert code not in sellers(administrator)
    for call in (
        lambda: put(administrator, code, GOOD),
        lambda: administrator.delete(f"/api/sellers/{code}"),
        lambda: administrator.get(f"/api/sellers/{code}/prices"),
        lambda: administrator.put(f"/api/sellers/{code}", {"terms": TERMS}),
    ):
        assert call().status_code == 404
    refresh_sellers()
    assert code in sellers(api)
    assert api.delete(f"/api/sellers/{code}").status_code == 204
    assert code not in sellers(api)


def test_a_list_is_taken_whole_or_what_is_good_of_it(api: APIClient) -> None:
    code = own(api)
    put(api, code, "extension,action,price\ncom,register,7\n")
    refused = put(api, code, BAD)
    assert refused.status_code == 400
    problems = {(p["path"], p["code"]) for p in refused.json()["problems"]}
    assert problems == {("line 5, extension", "extension_unknown"), ("line 6, price", "not_price")}
    assert "7" in api.get(f"/api/sellers/{code}/prices").content.decode()
    taken = put(api, code, BAD, take="good").json()
    assert (taken["lines"], len(taken["problems"])) == (3, 2)
    assert "nosuch" not in api.get(f"/api/sellers/{code}/prices").content.decode()
    assert PriceVersion.objects.count() == 2
    nothing = put(api, code, "<html>", take="good")
    assert nothing.status_code == 400
    assert nothing.json()["problems"][0]["path"] == "line 1"
    semicolons = "\ufeffextension;action;price\r\ncom;register;1.234,50\r\n"
    assert put(api, code, semicolons).json()["lines"] == 1
    assert b"1234.5" in api.get(f"/api/sellers/{code}/prices").content
    changes = sellers(api)[code]["changes"]
    assert {(c["extension"], c["action"], c["kind"]) for c in changes} == {
        ("com", "register", "rose"), ("com", "renew", "went"), ("net", "register", "went"),
    }  # fmt: skip


def test_an_administrator_keeps_a_seller_by_hand_until_it_is_followed_again(
    api: APIClient,
    administrator: APIClient,
    registry: Registry,
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    refresh_sellers()
    assert put(api, "weir", GOOD).status_code == 404
    assert put(administrator, "weir", GOOD).status_code == 200
    coupons = "code,takes,value\nHANDY,percent,5\n"
    assert put(administrator, "weir", coupons, "coupons").json()["lines"] == 1
    registry.clock(400)
    refresh_sellers()
    row = SellerRow.objects.get(code="weir")
    assert (row.by_hand, row.versions.count()) == (True, 2)
    assert sellers(api)["weir"]["dated"] == timezone.localdate().isoformat()
    monkeypatch.setattr(refresh_when_due, "delay", refresh_when_due)
    assert administrator.delete("/api/sellers/weir").status_code == 404
    assert administrator.post("/api/sellers/weir/follow").status_code == 202
    row.refresh_from_db()
    assert (row.by_hand, row.versions.count(), "HANDY" in row.coupons) == (False, 3, False)
    assert api.post("/api/sellers/weir/follow").status_code == 404
    assert not is_due(row.asked_at + timedelta(minutes=1))


def test_terms_are_changed_and_what_is_wrong_with_them_is_told(
    api: APIClient, administrator: APIClient
) -> None:
    code = own(api)
    put(api, code, GOOD)
    wrong = api.put(f"/api/sellers/{code}", {"terms": {**TERMS, "rounding": "0", "years_max": 11}})
    assert {p["path"] for p in wrong.json()["problems"]} == {"rounding", "years_max"}
    other = api.put(f"/api/sellers/{code}", {"terms": {**TERMS, "currency": "USD"}})
    assert [p["code"] for p in other.json()["problems"]] == ["list_currency"]
    changed = api.put(f"/api/sellers/{code}", {"terms": {**TERMS, "tax": "included"}})
    assert changed.status_code == 200
    assert sellers(api)[code]["tax"] == "included"
    assert api.post("/api/sellers", {"terms": TERMS, "everybody": True}).status_code == 404
    asked = {"terms": {**TERMS, "code": "corner", "prices": "http://elsewhere.example/x.csv"}}
    made = administrator.post("/api/sellers", {**asked, "everybody": True})
    assert made.status_code == 201
    assert not sellers(api)["corner"]["publishes"]
    again = administrator.post("/api/sellers", {**asked, "everybody": True})
    assert [p["code"] for p in again.json()["problems"]] == ["repeated"]
    assert administrator.delete("/api/sellers/corner").status_code == 204


def test_so_many_sellers_of_ones_own_and_no_more(
    api: APIClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(by_hand, "MOST_OWN", 1)
    own(api)
    reply = api.post("/api/sellers", {"terms": TERMS})
    assert [p["code"] for p in reply.json()["problems"]] == ["too_many"]


RATES = "Date,USD,SEK\n2030-01-02,2.0,20\n2030-01-01,1.5,x\n"


def test_rates_are_brought_in_by_an_administrator(
    api: APIClient, administrator: APIClient, project: Project
) -> None:
    refresh_sellers()
    assert api.put("/api/rates", {"text": RATES}).status_code == 404
    wrong = administrator.put("/api/rates", {"text": RATES})
    assert [p["path"] for p in wrong.json()["problems"]] == ["line 3"]
    before = ask(api, project, currency="SEK", country="").json()
    today = timezone.localdate().isoformat()
    text = f"Date, USD, SEK, \n{today}, 2.0, 22.2, \n"
    assert administrator.put("/api/rates", {"text": text}).json() == {"rates_of": today}
    after = ask(api, project, currency="SEK", country="").json()
    assert after["rates_of"] == today
    assert api.get("/api/sellers").json()["rates_of"] == today

    def at(costs: Any) -> Decimal:
        [weir] = [s for s in costs["names"][0]["sellers"] if s["seller"] == "weir"]
        return Decimal(weir["total"])

    assert at(after) > Decimal("1.5") * at(before)
    # Other currencies keep the rates that ship.
    assert ask(api, project, currency="GBP").status_code == 200


def test_a_plan_is_written_as_a_file_that_a_spreadsheet_opens(
    api: APIClient, project: Project
) -> None:
    refresh_sellers()
    names = ["inkpost.com", "inkpress.net"]
    question = {"full_names": names, "country": "IE", "years": 3, "budget": "20"}
    address = f"/api/projects/{project.pk}/costs"
    costs = api.post(address, question).json()
    reply = api.post(f"{address}/file", {**question, "form": "csv"})
    assert "-plan.csv" in reply["Content-Disposition"]
    heading, *lines = reply.content.decode("utf-8-sig").splitlines()
    assert heading.startswith('"full name","use","pay on"')
    paid = [line.rsplit(",", 3)[1] for line in lines]
    assert abs(sum(map(Decimal, paid)) - Decimal(costs["plan"]["total"])) < Decimal("0.10")
    assert any('"held"' in line for line in lines)
    document = api.post(f"{address}/file", {**question, "form": "json"}).json()
    assert document["plan"] == costs["plan"]
    assert document["affordable"]["left_out"] == ["inkpress.net"]
    assert api.post(f"{address}/file", {**question, "form": "xlsx"}).content[:2] == b"PK"
    assert api.post(f"{address}/file", {**question, "form": "pdf"}).status_code == 400
    assert costs["paid"][0]["seller"] == ""
    for one in costs["paid"]:
        amounts = [Decimal(amount) for amount in one["amounts"]]
        assert (len(amounts), amounts) == (3, sorted(amounts))
    assert costs["paid"][0]["amounts"][-1] == costs["plan"]["total"]
    used = api.post(address, {**question, "used": ["inkpress.net"]}).json()
    assert [n["used"] for n in used["names"]] == [False, True]
    assert used["affordable"]["left_out"] == ["inkpost.com"]
    wrong = api.post(address, {**question, "used": ["other.com"]}).json()
    assert [p["code"] for p in wrong["problems"]] == ["not_among"]


def test_terms_changed_in_two_windows_are_not_written_over(api: APIClient) -> None:
    code = own(api)
    seen = sellers(api)[code]["terms"]
    address = f"/api/sellers/{code}"
    first = {"terms": {**TERMS, "tax": "included"}, "seen": seen}
    assert api.put(address, first).status_code == 200
    late = api.put(address, {"terms": {**TERMS, "privacy": "none"}, "seen": seen})
    assert late.status_code == 409
    assert late.json()["current"]["tax"] == "included"
    assert sellers(api)[code]["privacy"] == "included"
    by_now = {"terms": {**TERMS, "privacy": "none"}, "seen": late.json()["current"]}
    assert api.put(address, by_now).status_code == 200
