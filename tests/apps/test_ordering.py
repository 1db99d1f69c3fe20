"""The basket, the last look before paying, and the order as a file."""

from __future__ import annotations

import csv
import io
import json
from datetime import timedelta
from typing import Any

import pytest
from django.utils import timezone
from rest_framework.test import APIClient

from tests.apps.conftest import BRIEF, client_of
from vinetag.apps.accounts.models import User
from vinetag.apps.availability.answer_store import save_answers
from vinetag.apps.availability.models import Lookup
from vinetag.apps.costs.models import QuoteRow, SellerRow
from vinetag.apps.costs.quoting import NameQuotes, Quotes
from vinetag.apps.costs.sellers import new_version
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import create_project
from vinetag.apps.ordering import reviews
from vinetag.apps.ordering.api import views
from vinetag.apps.ordering.models import BasketItem
from vinetag.core.checking import Evidence, Status
from vinetag.core.names import FullName
from vinetag.lookup import Answer

LIST = (
    "extension,action,price\ncom,register,{first}\ncom,renew,{later}\nie,register,20\nie,renew,20\n"
)


def seller(code: str, first: str, later: str, **terms: Any) -> SellerRow:
    row = SellerRow.objects.create(
        code=code, asked_at=timezone.now(),
        terms={"code": code, "name": code.title(), "country": "IE", "currency": "EUR", **terms},
    )  # fmt: skip
    new_version(row, LIST.format(first=first, later=later), timezone.localdate())
    return row


@pytest.fixture(autouse=True)
def _sellers(project: Project) -> None:
    """One is cheaper to begin with, the other to stay with."""
    project.brief["owner"] |= {"country": "IE", "kind": "person"}
    project.save()
    seller("larkspur", "8", "20")
    seller("hazel", "10", "12")


@pytest.fixture
def answers(monkeypatch: pytest.MonkeyPatch) -> dict[str, Status]:
    """What registries say; each name is open unless it stands here."""
    said: dict[str, Status] = {}

    def look_up(project: Project, names: list[FullName], _seconds: float, aim: str) -> None:
        now = timezone.now()
        found = []
        for name in names:
            status = said.get(str(name), "open")
            says = "unregistered" if status == "open" else "registered"
            evidence = (Evidence("rdap", says, now),)  # type: ignore[arg-type]
            found.append(Answer(name, status, now, aim=aim, evidence=evidence))  # type: ignore[arg-type]
        save_answers(project.pk, found)

    monkeypatch.setattr(reviews, "look_up", look_up)
    # Who is asked about single names is told by the tests.
    monkeypatch.setattr(views.ask_for_quotes, "delay", lambda _names: None)
    return said


def put(api: APIClient, project: Project, *names: str, **more: Any) -> Any:
    return api.post(f"/api/projects/{project.pk}/basket", {"names": names, **more})


def basket(api: APIClient) -> Any:
    return api.get("/api/basket").json()


def test_names_are_put_in_with_nothing_chosen_that_costs_more(
    api: APIClient, project: Project
) -> None:
    assert put(api, project, "inkpost.com", "PaperBarn.ie").json() == {"count": 2, "there": []}
    found = basket(api)
    first, second = found["items"]
    assert (first["full_name"], second["full_name"]) == ("inkpost.com", "paperbarn.ie")
    assert (first["years"], first["renewal"], first["privacy"], first["servers"]) == (
        1, "ask", False, [],
    )  # fmt: skip
    # The least to begin with, tax and all; what staying there comes to beside it.
    assert (first["sold_by"], first["amount"]) == ("Larkspur", "9.84")
    assert float(first["whole"]) == pytest.approx(1.23 * 5 * 8)
    assert found["total"] == f"{1.23 * 28:.2f}"
    assert not found["ready"]
    assert put(api, project, "inkpost.com").json() == {"count": 0, "there": ["inkpost.com"]}
    page = api.get(f"/api/projects/{project.pk}/names/inkpost").json()
    assert page["in_basket"] == ["com"]


@pytest.mark.parametrize(
    ("sent", "paths"),
    [
        ({"names": []}, {"names"}),
        ({"names": ["ink", "-x.com", "a.nosuch"]}, {"names.0", "names.1", "names.2"}),
        ({"names": ["ink.com"], "years": 11}, {"years"}),
        ({"names": ["ink.com"], "seller": "nobody"}, {"seller"}),
    ],
)
def test_what_makes_no_sense_is_refused_with_its_place(
    api: APIClient, project: Project, sent: dict[str, Any], paths: set[str]
) -> None:
    answer = api.post(f"/api/projects/{project.pk}/basket", sent)
    assert answer.status_code == 400
    assert {p["path"] for p in answer.json()["problems"]} == paths
    assert not BasketItem.objects.exists()


def test_a_basket_is_not_without_end(api: APIClient, project: Project) -> None:
    assert put(api, project, *(f"n{i}.com" for i in range(100))).status_code == 201
    answer = put(api, project, "one.com")
    assert (answer.status_code, answer.json()["code"]) == (409, "too_many")


def test_each_and_all_are_bought_otherwise(api: APIClient, project: Project) -> None:
    put(api, project, "inkpost.com", "paperbarn.ie")
    one, two = (item["id"] for item in basket(api)["items"])
    changed = api.patch(f"/api/basket/items/{one}", {"years": 3, "seller": "hazel"}).json()
    assert changed["items"][0]["amount"] == f"{1.23 * (10 + 2 * 10):.2f}"
    assert changed["items"][1]["years"] == 1
    servers = [" NS1.example.net. ", "ns2.example.net"]
    every = api.patch("/api/basket", {"renewal": "itself", "servers": servers, "years": 2}).json()
    for item in every["items"]:
        assert (item["renewal"], item["years"]) == ("itself", 2)
        assert item["servers"] == ["ns1.example.net", "ns2.example.net"]
    for wrong in (
        {"years": 0}, {"renewal": "never"}, {"servers": ["ns1.example.net"]}, {"coupon": "a b"},
        {"servers": ["ns1", "ns2.example.net"]}, {"servers": ["=cmd.net", "ns2.example.net"]},
        {"seller": "nobody"},
    ):  # fmt: skip
        assert api.patch(f"/api/basket/items/{two}", wrong).status_code == 400


def test_what_was_taken_out_comes_back(api: APIClient, project: Project) -> None:
    put(api, project, "inkpost.com", "paperbarn.ie", "reed.com")
    first = basket(api)["items"][0]["id"]
    one = api.delete(f"/api/basket/items/{first}").json()["batch"]
    rest = api.delete("/api/basket").json()["batch"]
    assert basket(api)["items"] == []
    back = api.post("/api/basket/back", {"batch": rest}).json()
    assert [item["full_name"] for item in back["items"]] == ["paperbarn.ie", "reed.com"]
    # Put in anew meanwhile, it is not there twice.
    put(api, project, "inkpost.com")
    assert len(api.post("/api/basket/back", {"batch": one}).json()["items"]) == 3
    assert len(api.post("/api/basket/back", {"batch": "x"}).json()["items"]) == 3


def test_nobody_sees_or_changes_another_s(api: APIClient, other: User, project: Project) -> None:
    put(api, project, "inkpost.com")
    item = basket(api)["items"][0]["id"]
    theirs = client_of(other)
    assert basket(theirs)["items"] == []
    assert theirs.delete(f"/api/basket/items/{item}").status_code == 404
    batch = api.delete("/api/basket").json()["batch"]
    assert theirs.post("/api/basket/back", {"batch": batch}).json()["items"] == []
    assert put(theirs, project, "ink.com").status_code == 404


def test_the_last_look_tells_what_changed_and_it_has_to_be_agreed_to(
    api: APIClient, project: Project, answers: dict[str, Status]
) -> None:
    put(api, project, "inkpost.com", "paperbarn.com", "reed.com")
    found = api.post("/api/basket/review").json()
    assert found["ready"]
    assert [item["reviewed"]["changed"] for item in found["items"]] == [[], [], []]
    answers["reed.com"] = "taken"
    row = SellerRow.objects.get(code="larkspur")
    new_version(row, LIST.format(first="9", later="20"), timezone.localdate())
    found = api.post("/api/basket/review").json()
    dearer, _, gone = found["items"]
    assert not found["ready"]
    assert dearer["reviewed"]["changed"] == ["It costs more than planned: 11.07 EUR, not 9.84 EUR."]
    assert "It cannot be registered now: it is taken." in gone["reviewed"]["changed"]
    # What cannot be bought is not paid for.
    assert [line["full_name"] for line in found["orders"][0]["lines"] if line["full_name"]] == [
        "inkpost.com", "paperbarn.com",
    ]  # fmt: skip
    agreed = f"/api/basket/items/{dearer['id']}/agree"
    assert api.post(agreed, {"sign": "other"}).json()["code"] == "changed_elsewhere"
    after = api.post(agreed, {"sign": dearer["reviewed"]["sign"]}).json()
    assert after["items"][0]["reviewed"]["may"]
    assert after["items"][0]["reviewed"]["changed"] == []
    assert gone["reviewed"]["sign"] == ""
    refused = api.post(f"/api/basket/items/{gone['id']}/agree", {"sign": "any"})
    assert refused.json()["code"] == "not_sold"
    # Another term is another price, and the one that is planned; it is looked at again.
    changed = api.patch(f"/api/basket/items/{dearer['id']}", {"years": 2}).json()
    assert changed["items"][0]["reviewed"]["status"] == "unasked"
    again = api.post("/api/basket/review").json()["items"][0]
    assert again["reviewed"]["changed"] == []
    # A price that changes after the look is told, too.
    new_version(row, LIST.format(first="9.5", later="20"), timezone.localdate())
    assert "costs more than planned" in basket(api)["items"][0]["reviewed"]["changed"][0]


def test_what_it_cost_when_it_was_put_in_is_what_is_planned(
    api: APIClient, project: Project, answers: dict[str, Status]
) -> None:
    put(api, project, "inkpost.com")
    new_version(
        SellerRow.objects.get(code="larkspur"), LIST.format(first="7", later="20"),
        timezone.localdate(),
    )  # fmt: skip
    [item] = api.post("/api/basket/review").json()["items"]
    assert item["reviewed"]["changed"] == ["It costs less than planned: 8.61 EUR, not 9.84 EUR."]


def test_a_price_of_its_own_is_not_that_of_the_list(
    api: APIClient, project: Project, answers: dict[str, Status]
) -> None:
    put(api, project, "inkpost.com")
    answers["inkpost.com"] = "premium"
    [item] = api.post("/api/basket/review").json()["items"]
    assert item["reviewed"]["changed"] == [
        "It has a price of its own, which Larkspur has not told."
    ]
    assert (item["reviewed"]["sign"], item["reviewed"]["may"]) == ("", False)
    for code, first in (("larkspur", 90), ("hazel", 80)):
        row = SellerRow.objects.get(code=code)
        row.terms = {**row.terms, "quotes": "/quotes/"}
        row.save()
        QuoteRow.objects.create(
            seller=row, full_name="inkpost.com", says="premium", currency="EUR", first_year=first,
            renewal=first, asked_at=timezone.now(),
        )  # fmt: skip
    [item] = basket(api)["items"]
    assert (item["sold_by"], item["amount"]) == ("Hazel", "98.40")
    assert item["reviewed"]["changed"][0] == "The registry asks a price of its own for it."
    agreed = api.post(
        f"/api/basket/items/{item['id']}/agree", {"sign": item["reviewed"]["sign"]}
    ).json()
    assert agreed["ready"]


def test_while_sellers_are_asked_nothing_is_ready(
    api: APIClient, project: Project, answers: dict[str, Status], monkeypatch: pytest.MonkeyPatch
) -> None:
    asked: list[list[str]] = []
    monkeypatch.setattr(views.ask_for_quotes, "delay", asked.append)
    monkeypatch.setattr(
        "vinetag.apps.ordering.pricing.quotes_for",
        lambda _person, _market, names: Quotes(
            {name: NameQuotes() for name in names}, tuple(names)
        ),
    )
    put(api, project, "inkpost.com")
    found = api.post("/api/basket/review").json()
    assert (found["waiting"], found["ready"]) == (1, False)
    assert asked[-1] == ["inkpost.com"]


def test_a_look_does_not_last_and_not_finding_out_is_none(
    api: APIClient, project: Project, answers: dict[str, Status], monkeypatch: pytest.MonkeyPatch
) -> None:
    put(api, project, "inkpost.com")
    assert api.post("/api/basket/review").json()["ready"]
    item = BasketItem.objects.get()
    item.seen["at"] = (timezone.now() - timedelta(minutes=31)).isoformat()
    item.save()
    assert not basket(api)["ready"]
    # An answer for a list is no last look.
    monkeypatch.setattr(reviews, "look_up", lambda *_: None)
    Lookup.objects.update(aim="scan")
    [after] = api.post("/api/basket/review").json()["items"]
    assert after["reviewed"]["status"] == "unsure"
    assert after["reviewed"]["reason"]
    assert not after["reviewed"]["may"]


def test_who_may_not_have_it_is_told(
    api: APIClient, person: User, answers: dict[str, Status]
) -> None:
    theirs = create_project(
        owner=person, name="Abroad",
        brief={**BRIEF, "owner": {"country": "US", "kind": "person"}},
    )  # fmt: skip
    put(api, theirs, "inkpost.ie", "inkpost.com")
    ie, com = api.post("/api/basket/review").json()["items"]
    assert ie["reviewed"]["asks"] == ["The owner needs a connection with Ireland."]
    assert com["reviewed"]["asks"] == com["reviewed"]["missing"] == []
    put(api, theirs, "inkpost.ca")
    [ca] = [i for i in basket(api)["items"] if i["full_name"] == "inkpost.ca"]
    assert ca["reviewed"]["missing"]
    assert not ca["reviewed"]["may"]
    assert basket(api)["nowhere"] == ["inkpost.ca"]


def test_it_is_spelled_letter_by_letter(api: APIClient, project: Project) -> None:
    put(api, project, "ink-0l.com")
    [item] = basket(api)["items"]
    assert [one["said"] for one in item["spelled"]] == [
        "I", "N", "K", "hyphen", "zero", "L", "dot", "C", "O", "M",
    ]  # fmt: skip


def test_the_order_is_a_file_for_any_seller(
    api: APIClient, project: Project, answers: dict[str, Status]
) -> None:
    put(api, project, "inkpost.com", "bücher.com")
    api.patch("/api/basket", {"servers": ["ns1.example.net", "ns2.example.net"]})
    api.post("/api/basket/review")
    answer = api.get("/api/basket/file")
    rows = list(csv.DictReader(io.StringIO(answer.content.decode("utf-8-sig"))))
    assert [row["full name"] for row in rows] == ["inkpost.com", "xn--bcher-kva.com"]
    assert rows[1]["as typed"] == "bücher.com"
    assert rows[0]["name servers"] == "ns1.example.net ns2.example.net"
    assert (rows[0]["seller"], rows[0]["price now"], rows[0]["status"]) == (
        "Larkspur", "9.84", "open",
    )  # fmt: skip
    document = json.loads(api.get("/api/basket/file?form=json").content)
    assert (document["format"], document["total"]) == ("vinetag-order", "19.68")
    assert document["names"][0]["years"] == 1
    assert api.get("/api/basket/file?form=pdf").status_code == 400


def test_orders_come_to_the_total_whoever_sells(api: APIClient, project: Project) -> None:
    put(api, project, "inkpost.com", "paperbarn.com", "reed.ie")
    ids = [item["id"] for item in basket(api)["items"]]
    api.patch(f"/api/basket/items/{ids[1]}", {"seller": "hazel"})
    api.patch(f"/api/basket/items/{ids[2]}", {"privacy": True, "years": 2})
    found = basket(api)
    assert sum(float(order["total"]) for order in found["orders"]) == pytest.approx(
        float(found["total"])
    )
    for order in found["orders"]:
        assert sum(float(line["amount"]) for line in order["lines"]) == pytest.approx(
            float(order["total"])
        )
    # Each is paid for once, where it is said to be bought.
    paid = [
        (order["seller"], line["full_name"])
        for order in found["orders"]
        for line in order["lines"]
        if line["kind"] == "registration"
    ]
    assert sorted(paid) == sorted((i["sold_by"], i["full_name"]) for i in found["items"])
    # Longer terms are looked at over longer.
    assert float(api.get("/api/basket?years=10").json()["whole"]) > float(found["whole"])
    assert api.get("/api/basket?years=11").status_code == 400


def test_a_name_nobody_sells_so_is_said_to_be(api: APIClient, project: Project) -> None:
    put(api, project, "inkpost.club", "inkpost.com")
    found = basket(api)
    assert found["nowhere"] == ["inkpost.club"]
    assert [item["amount"] is None for item in found["items"]] == [True, False]
    [order] = found["orders"]
    assert {line["full_name"] for line in order["lines"]} <= {"inkpost.com", ""}


def test_a_project_that_is_removed_takes_its_names_along(api: APIClient, project: Project) -> None:
    put(api, project, "inkpost.com")
    assert api.delete(f"/api/projects/{project.pk}").status_code == 204
    assert basket(api)["items"] == []
    assert api.post(f"/api/projects/{project.pk}/restore").status_code == 200
    assert [item["full_name"] for item in basket(api)["items"]] == ["inkpost.com"]
