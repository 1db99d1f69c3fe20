"""What markets tell stands beside what was asked, and never against it."""

from __future__ import annotations

from datetime import timedelta
from decimal import Decimal
from typing import Any

import pytest
from django.utils import timezone

from vinetag.apps.availability import checks
from vinetag.apps.availability.answer_store import save_answers, spread_offers
from vinetag.apps.availability.models import Lookup
from vinetag.apps.availability.offered import evidence_of_offers, with_offers
from vinetag.apps.market.models import MarketRow, OfferRow
from vinetag.apps.naming.models import Project
from vinetag.core.checking import Evidence, Quote, Says, Source, Status
from vinetag.core.market import Offer
from vinetag.core.names import FullName
from vinetag.lookup import Answer

NOW = timezone.now()
NAME = FullName("inkpost", "com")
NAMES = {"fair": "The Fair", "ebb": "Ebb"}


def offer(kind: str, market: str = "fair", **more: Any) -> Offer:
    return Offer(NAME, market, kind, NOW, **more)  # type: ignore[arg-type]


def told(kind: str = "fixed", code: str = "fair", **more: Any) -> OfferRow:
    market, _ = MarketRow.objects.get_or_create(
        code=code, defaults={"name": NAMES.get(code, code), "told_at": NOW, "edition": "one"}
    )
    fields = {"price": Decimal(90), "currency": "EUR"} if kind == "fixed" else {}
    return OfferRow.objects.create(
        label="inkpost", extension="com", market=market, kind=kind, **{**fields, **more}
    )


def answer(status: Status, **says: Says) -> Answer:
    evidence = tuple(Evidence(source, said, NOW) for source, said in says.items())  # type: ignore[arg-type]
    return Answer(NAME, status, NOW, evidence=evidence)


def test_what_can_be_bought_goes_before_what_may_drop() -> None:
    first, last = NOW + timedelta(days=3), NOW + timedelta(days=4)
    drop = offer("dropping", "ebb", drops_from=first, drops_to=last, state="pending")
    dear = offer("fixed", "oldgate", price=Decimal(900), currency="EUR")
    cheap = offer("fixed", price=Decimal(90), currency="USD", address="https://fair.example/x")
    found = evidence_of_offers([drop, dear, cheap, offer("asking")], NAMES)
    assert (found.says, found.address, found.drops) == ("offered", "https://fair.example/x", None)
    assert found.quote == Quote("USD", asked=Decimal(90))
    assert found.detail == (
        "for sale at The Fair, 90.00 USD; for sale at oldgate, 900.00 EUR; offers heard at The "
        "Fair; dropping at Ebb"
    )
    alone = evidence_of_offers([drop], NAMES)
    assert (alone.says, alone.drops, alone.quote) == ("dropping", (first, last), None)
    # What is bid so far is no price that buys it.
    bid = evidence_of_offers([offer("auction", price=Decimal(9), currency="EUR", bids=1)], NAMES)
    assert bid.quote is None
    assert bid.detail == "auction at The Fair, 9.00 EUR, one bid"


@pytest.mark.parametrize(
    ("status", "says", "after"),
    [
        ("taken", {"rdap": "registered"}, "offered"),
        ("taken", {"dns": "delegated"}, "offered"),
        ("taken", {"zone": "delegated"}, "offered"),
        ("dropping", {"rdap": "dropping"}, "dropping"),
        ("open", {"rdap": "unregistered"}, "open"),
        ("reserved", {"rdap": "reserved"}, "reserved"),
        ("unsure", {"rdap": ""}, "unsure"),
        ("barred", {"rules": "barred"}, "barred"),
    ],
)  # fmt: skip
def test_a_market_speaks_only_of_what_is_held(
    status: Status, says: dict[Source, Says], after: Status
) -> None:
    told()
    [found] = with_offers([answer(status, **says)])  # type: ignore[arg-type]
    assert found.status == after
    heard = any(one.source == "market" for one in found.evidence)
    assert heard == (status in ("taken", "offered", "dropping"))
    # Said again, it is the same.
    assert with_offers([found]) == [found]


def test_what_is_over_is_not_told() -> None:
    told("auction", ends=NOW - timedelta(minutes=1))
    told("dropping", "ebb", drops_from=NOW - timedelta(days=2), drops_to=NOW - timedelta(days=1))
    told("fixed", "gone", gone_at=NOW)
    [found] = with_offers([answer("taken", rdap="registered")])
    assert (found.status, len(found.evidence)) == ("taken", 1)


def test_what_came_with_a_file_is_left_as_it_came(project: Project) -> None:
    told()
    save_answers(project.pk, [answer("taken", rdap="registered")])
    Lookup.objects.update(imported=True, status="taken", evidence=[])
    MarketRow.objects.update(spread="")
    assert spread_offers() == 0
    assert Lookup.objects.get().status == "taken"
    assert MarketRow.objects.get().spread == "one"


def test_the_check_that_found_a_name_keeps_its_count(project: Project) -> None:
    check = checks.start_check(project=project, labels=["inkpost"])
    save_answers(project.pk, [answer("taken", rdap="registered")], check.pk)
    told()
    MarketRow.objects.update(spread="")
    assert spread_offers() == 1
    row = Lookup.objects.get()
    assert (row.status, row.check_run_id) == ("offered", check.pk)
