"""Sellers kept up to date, and what names cost over the API."""

from __future__ import annotations

from collections.abc import Callable
from datetime import timedelta
from decimal import Decimal
from typing import Any

import pytest
from django.core.cache import cache
from django.utils import timezone
from rest_framework.test import APIClient

from tests.conftest import Registry
from vinetag.apps.accounts.models import User
from vinetag.apps.costs import sellers
from vinetag.apps.costs.models import PriceVersion, SellerRow
from vinetag.apps.costs.sellers import is_due, refresh_sellers, seller_states
from vinetag.apps.costs.tasks import refresh_when_due
from vinetag.apps.naming.models import Project
from vinetag.core.cost import PriceList
from vinetag.core.cost.price_files import read_price_list
from vinetag.core.cost.seller_documents import SellerEntry, read_seller
from vinetag.lookup.feeds import Fetched, Validators
from vinetag.lookup.sellers import FoundSellers

pytestmark = pytest.mark.usefixtures("simulated_sellers")


def test_sellers_are_asked_once_a_day_and_every_version_is_kept(
    registry: Registry, person: User
) -> None:
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
    states = {one.entry.code: one for one in seller_states(person)}
    rises = [c for c in states["lantern"].changes if (c.extension, c.action) == ("com", "renew")]
    assert [c.kind for c in rises] == ["rose"]
    assert not states["hazel"].changes


def test_a_list_that_cannot_be_had_leaves_the_one_in_force(
    registry: Registry, person: User
) -> None:
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
    assert all(one.stale for one in seller_states(person, later))
    registry.faults(service="lists", kind="500")
    refresh_sellers()
    assert "HTTP status 500" in SellerRow.objects.get(code="weir").trouble
    assert SellerRow.objects.filter(listed=True).count() == len(seller_states(person))


def found(*entries: SellerEntry, **more: Any) -> FoundSellers:
    return FoundSellers({e.code: e for e in entries}, **more)


def entry(code: str) -> SellerEntry:
    terms = {"code": code, "name": code.title(), "country": "IE", "currency": "EUR"}
    return read_seller({**terms, "prices": f"/{code}.csv"})


def listing(text: str, *, etag: str = "one") -> dict[str, Any]:
    read = read_price_list(text, "EUR", {"com", "net"})
    listed = PriceList("a", timezone.localdate(), read.rows)
    whole = set() if read.problems else {("a", "prices")}
    told = [("a", problem.text()) for problem in read.problems]
    file = Fetched(text, Validators(etag))
    return {
        "prices": {"a": listed}, "files": {("a", "prices"): file}, "whole": whole,
        "troubles": told,
    }  # fmt: skip


GOOD = "extension,action,price\ncom,register,9\n"
SAME: dict[str, Any] = {"files": {("a", "prices"): Fetched(None, Validators("one"))}}


@pytest.fixture
def answers(monkeypatch: pytest.MonkeyPatch) -> Callable[[FoundSellers], dict[Any, Any]]:
    """Refreshes with an answer, and gives what was asked for only if changed."""

    def refreshed(answer: FoundSellers) -> dict[Any, Any]:
        asked: dict[Any, Any] = {}

        async def fetch(_where: Any, _known: Any, _today: Any, validators: Any) -> FoundSellers:
            asked.update(validators)
            return answer

        monkeypatch.setattr(sellers, "fetch_sellers", fetch)
        assert refresh_sellers() is answer
        return asked

    return refreshed


def test_what_is_wrong_with_a_list_is_told_as_long_as_it_is(
    answers: Callable[[FoundSellers], dict[Any, Any]],
) -> None:
    answers(found(entry("a"), **listing(GOOD)))
    bad = listing(GOOD + "nosuch,renew,9\n", etag="two")
    assert answers(found(entry("a"), **bad)) == {("a", "prices"): Validators("one")}
    # A list that was not right in every line is asked for whole, and told of, the next time, too.
    assert answers(found(entry("a"), **bad)) == {}
    row = SellerRow.objects.get()
    assert "no extension" in row.trouble
    assert row.versions.count() == 2
    assert row.fetched_at == row.asked_at


def test_a_web_page_is_never_taken_for_a_list_that_has_not_changed(
    answers: Callable[[FoundSellers], dict[Any, Any]],
) -> None:
    answers(found(entry("a"), **listing(GOOD)))
    before = SellerRow.objects.get().fetched_at
    for _ in range(2):
        answers(found(entry("a"), **listing("<html>", etag="page")))
    row = SellerRow.objects.get()
    assert (row.fetched_at, row.validators) == (before, {})
    assert is_due(row.asked_at + timedelta(minutes=21))
    assert not is_due(row.asked_at + timedelta(minutes=19))
    answers(found(entry("a"), **listing(GOOD)))
    assert row.versions.count() == 1
    answers(found(entry("a"), **SAME))
    row.refresh_from_db()
    assert (row.fetched_at, row.trouble) == (row.asked_at, "")


def test_an_entry_that_cannot_be_read_takes_no_seller_away(
    answers: Callable[[FoundSellers], dict[Any, Any]],
) -> None:
    answers(found(entry("a"), entry("b"), **listing(GOOD)))
    answers(found(entry("a"), **SAME, troubles=[("", "sellers.1: wrong")]))
    assert set(SellerRow.objects.filter(listed=True).values_list("code", "trouble")) == {
        ("a", ""), ("b", "sellers.1: wrong"),
    }  # fmt: skip
    answers(found(entry("a"), **SAME))
    assert [row.code for row in SellerRow.objects.filter(listed=True)] == ["a"]


def test_nobody_is_asked_again_and_again_or_by_two_at_once(
    answers: Callable[[FoundSellers], dict[Any, Any]],
) -> None:
    answers(found(troubles=[("", "nobody there")]))
    assert SellerRow.objects.count() == 0
    assert not is_due()
    cache.delete(sellers.ASKED)
    assert is_due()
    cache.set(sellers.UNDER_WAY, 1)
    assert refresh_sellers() is None


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
        ({"ahead": "50.5"}, "ahead", "max_value"),
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


def test_only_an_administrator_has_the_sellers_asked_by_hand(
    api: APIClient, person: User, monkeypatch: pytest.MonkeyPatch
) -> None:
    refresh_sellers()
    assert api.post("/api/sellers/refresh").status_code == 404
    assert not is_due()
    person.is_staff = True
    person.save()
    monkeypatch.setattr(refresh_when_due, "delay", refresh_when_due)
    reply = api.post("/api/sellers/refresh")
    assert reply.status_code == 202
    assert len(reply.json()["sellers"]) >= 6
    assert not is_due()

    def away() -> None:
        raise ConnectionError

    # While the queue is away they are due, and the schedule asks when it is back.
    monkeypatch.setattr(refresh_when_due, "delay", away)
    assert api.post("/api/sellers/refresh").status_code == 202
    assert is_due()


def test_a_name_of_many_is_worked_out_like_one_alone(api: APIClient, project: Project) -> None:
    refresh_sellers()
    names = [f"name{n}.{e}" for n in range(30) for e in ("com", "net")]
    costs = ask(api, project, full_names=names, years=4, trouble="3.50").json()
    assert [name["full_name"] for name in costs["names"]] == names
    alone = ask(api, project, full_names=["name7.net"], years=4, trouble="3.50").json()["names"][0]
    [among] = [name for name in costs["names"] if name["full_name"] == "name7.net"]
    assert among == {**alone, "used": False}
    weight, bound = (Decimal(costs["plan"][part]) for part in ("weight", "bound"))
    assert bound <= weight
    assert Decimal(costs["plan"]["total"]) <= weight
    bought = {line["full_name"] for order in costs["plan"]["orders"] for line in order["lines"]}
    assert bought - {""} == set(names)
    for order in costs["plan"]["orders"]:
        assert Decimal(order["total"]) == sum(Decimal(line["amount"]) for line in order["lines"])


def test_what_is_paid_later_may_weigh_less(api: APIClient, project: Project) -> None:
    refresh_sellers()
    asked = {"years": 10, "country": "", "sellers": ["hazel"], "moving": False}

    def first(**more: Any) -> tuple[int, Decimal]:
        [name] = ask(api, project, **asked, **more).json()["names"]
        step = name["cheapest"]["steps"][0]
        return step["years"], Decimal(name["cheapest"]["total"])

    at_once, patient = first(), first(ahead="20")
    # Registering for all the years is cheapest; whoever would rather pay later pays more.
    assert (at_once[0], patient[0]) == (10, 1)
    assert patient[1] > at_once[1]
