"""Searches of the hunt and prices of sellers, watched."""

from __future__ import annotations

import pytest
from django.utils import timezone

from tests.apps.market_lists import LIST, bring, market
from vinetag.apps.accounts.models import User
from vinetag.apps.costs.models import PriceVersion, SellerRow
from vinetag.apps.costs.sellers import new_version
from vinetag.apps.naming.models import Project
from vinetag.apps.watching.models import Happening
from vinetag.apps.watching.searching import look_at_prices, look_at_searches
from vinetag.apps.watching.watches import (
    Wish,
    start_watch,
)


def test_a_search_tells_what_lists_have_anew(person: User, project: Project) -> None:
    row = market()
    bring(row)
    wish = Wish("hunt", title="ink for less", question={"text": "ink", "price_max": "1000"})
    start_watch(project, wish)
    assert look_at_searches() == 0  # what was there when it began
    newer = LIST + "inkwell.com,fixed,700,EUR,,,,,\ninkbarn.com,fixed,5000,EUR,,,,,\n"
    bring(row, newer)
    assert look_at_searches() == 1
    assert look_at_searches() == 0
    [told] = Happening.objects.all()
    assert told.args == {"title": "ink for less", "count": 1, "names": ["inkwell.com (700.00 EUR)"]}
    # The same list again, one that lost the name, and one that has it back: not for the same price.
    for text, told_now in (
        (newer, 0), (LIST, 0), (newer, 0),
        (newer.replace("700", "600").replace("5000", "900"), 1),
    ):  # fmt: skip
        bring(row, text)
        assert look_at_searches() == told_now
    assert Happening.objects.latest("pk").args["names"] == [
        "inkwell.com (600.00 EUR)", "inkbarn.com (900.00 EUR)",
    ]  # fmt: skip
    # A list that was read for long is older than one that came meanwhile; a market may be new.
    slow, young = market("slow"), market("young")
    bring(slow, "name,kind,price,currency\ninkslow.com,fixed,50,EUR\n")
    look_at_searches()
    bring(young, "name,kind,price,currency\ninkyoung.com,fixed,60,EUR\n")
    assert look_at_searches() == 1
    told = [one.args["names"] for one in Happening.objects.order_by("pk")]
    assert told[-2:] == [["inkslow.com (50.00 EUR)"], ["inkyoung.com (60.00 EUR)"]]


def test_one_watch_that_fails_leaves_the_others_be(
    person: User, project: Project, caplog: pytest.LogCaptureFixture
) -> None:
    row = market()
    bring(row)
    broken = start_watch(project, Wish("hunt", title="broken", question={"text": "ink"}))
    start_watch(project, Wish("hunt", title="whole", question={"text": "barn"}))
    look_at_searches()
    broken.refresh_from_db()
    broken.asked = {"question": {"price_max": "call"}}
    broken.save()
    bring(row, LIST + "bookbarn.com,fixed,700,EUR,,,,,\n")
    assert look_at_searches() == 1
    assert f"watch {broken.pk} could not be looked at" in caplog.text


def test_a_seller_s_price_is_told_when_it_is_another(person: User, project: Project) -> None:
    seller = SellerRow.objects.create(
        code="larkspur", asked_at=timezone.now(),
        terms={"code": "larkspur", "name": "Larkspur", "country": "IE", "currency": "EUR"},
    )  # fmt: skip

    def lists(price: str) -> None:
        text = f"extension,action,price\ncom,register,9\ncom,renew,{price}\n"
        new_version(seller, text, timezone.localdate())

    lists("12.00")
    start_watch(project, Wish("price", seller="larkspur", extension="com", action="renew"))
    assert look_at_prices() == 0
    lists("12.00")
    assert look_at_prices() == 0
    lists("10.50")
    assert look_at_prices() == 1
    assert look_at_prices() == 0
    [told] = Happening.objects.all()
    assert (told.args["before"], told.args["after"]) == ("12.00 EUR", "10.50 EUR")
    assert PriceVersion.objects.count() == 2
