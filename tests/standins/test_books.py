"""What was bought in the simulation is kept, and goes its way as the world's time goes on."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from decimal import Decimal
from pathlib import Path
from typing import Any

import pytest
from defusedxml.ElementTree import fromstring

from standins.books import Books, Contact, Held, Payment, text_of
from standins.epp_xml import Answer
from standins.faults import Fault
from standins.fees import fee_of, privacy_of, sells
from standins.gateway import Gateway
from standins.owned import Owned
from standins.sellers import SELLERS
from standins.world import Offer, World
from tests.apps.bought import fresh

NOW = datetime(2026, 11, 29, 12, tzinfo=UTC)
DAY = timedelta(days=1)
LANTERN = SELLERS[0]
QUILLGATE = next(one for one in SELLERS if one.code == "quillgate")
NAME = "qxnobodyhasit.com"
DOMAIN = "urn:ietf:params:xml:ns:domain-1.0"
CONTACT = "urn:ietf:params:xml:ns:contact-1.0"


class Time:
    def __init__(self) -> None:
        self.now = NOW

    def __call__(self) -> datetime:
        return self.now


@pytest.fixture
def at() -> Time:
    return Time()


@pytest.fixture
def books() -> Books:
    return Books()


@pytest.fixture
def gateway(books: Books, at: Time) -> Gateway:
    world = World()
    world.bought = Owned(books)
    return Gateway(books, world, at)


def send(
    gateway: Gateway, verb: str, body: str, fault: Fault | None = None, trid: str = "T1",
    seller: Any = LANTERN,
) -> Answer:  # fmt: skip
    text = f'<{verb} xmlns:d="{DOMAIN}" xmlns:c="{CONTACT}">{body}</{verb}>'
    return gateway.carry_out(seller, verb, fromstring(text), None, trid, fault)


def introduce(gateway: Gateway, seller: Any = LANTERN, hidden: bool = False) -> None:
    disclose = '<c:disclose flag="0"><c:voice/></c:disclose>' if hidden else ""
    answer = send(
        gateway, "create",
        "<c:create><c:id>C1</c:id><c:postalInfo type='int'><c:name>Edda</c:name><c:addr>"
        "<c:city>Port Ferris</c:city><c:cc>IE</c:cc></c:addr></c:postalInfo>"
        f"<c:email>e@x.example</c:email>{disclose}</c:create>",
        seller=seller,
    )  # fmt: skip
    assert answer.code == 1000


def create(gateway: Gateway, name: str = NAME, years: int = 1, **more: Any) -> Answer:
    return send(
        gateway, "create",
        f"<d:create><d:name>{name}</d:name><d:period unit='y'>{years}</d:period>"
        "<d:registrant>C1</d:registrant><d:authInfo><d:pw>word</d:pw></d:authInfo></d:create>",
        **more,
    )  # fmt: skip


def test_a_file_holds_all_of_it_for_the_next_start(tmp_path: Path) -> None:
    path = str(tmp_path / "books.sqlite")
    first = Books(path)
    held = Held(NAME, "lantern", 1, text_of(NOW), text_of(NOW + 365 * DAY), text_of(NOW),
                "C1", "word", "T1", [["admin", "C1"]], ["ns1.x.example"])  # fmt: skip
    with first.change():
        first.put("held", NAME, held)
        first.put(
            "contact", "lantern C1", Contact("C1", "lantern", "Edda", "", "IE", "e@x.example")
        )
        first.put(
            "payment", "p", Payment("p", "r", "1.00", "EUR", "", "", "", refunds={"a": "0.5"})
        )
        first.charge("lantern", "create", NAME, Decimal("12.34"), "T1")
        first.put_host("ns1.x.example", "lantern")
    again = Books(path)
    assert again.document() == first.document()
    assert again.balance("lantern") == first.balance("lantern") == Decimal("49987.66")
    assert again.balance("weir") == Decimal(50_000)
    again.drop("held", NAME)
    assert Books(path).held == {}


def test_charges_and_messages_have_numbers_of_their_own(tmp_path: Path) -> None:
    path = str(tmp_path / "books.sqlite")
    first = Books(path)
    for _ in range(3):
        first.charge("lantern", "create", NAME, Decimal(1), "T1")
    again = Books(path)
    again.charge("lantern", "create", NAME, Decimal(1), "T2")
    assert len(again.charges) == 4


def test_a_name_lapses_can_be_had_back_and_is_free_in_the_end(
    gateway: Gateway, books: Books, at: Time
) -> None:
    introduce(gateway)
    assert create(gateway).code == 1000
    seen = []
    for days in (0, 364, 366, 404, 435, 440):
        at.now = NOW + days * DAY
        found = Owned(books).registration(NAME, at.now)
        seen.append(None if found is None else found.status[0])
    assert seen == [
        "client transfer prohibited", "client transfer prohibited", "auto renew period",
        "redemption period", "pending delete", None,
    ]  # fmt: skip
    assert create(gateway, trid="T2").code == 1000


def test_what_is_let_go_early_is_free_at_once_and_paid_back(
    gateway: Gateway, books: Books, at: Time
) -> None:
    introduce(gateway)
    create(gateway)
    body = f"<d:delete><d:name>{NAME}</d:name></d:delete>"
    at.now = NOW + 2 * DAY
    assert send(gateway, "delete", body).code == 1000
    assert books.balance("lantern") == Decimal(50_000)
    assert create(gateway, trid="T2").code == 1000
    at.now = NOW + 30 * DAY
    assert send(gateway, "delete", body).code == 1001
    found = Owned(books).registration(NAME, at.now)
    assert found is not None
    assert found.status == ("redemption period",)
    assert books.balance("lantern") < Decimal(50_000)


def test_what_was_thought_over_is_told_once_and_paid_back_where_it_is_refused(
    gateway: Gateway, books: Books, at: Time
) -> None:
    introduce(gateway)
    fault = Fault("pending-refused", "epp", seconds=60)
    assert create(gateway, fault=fault).code == 1001
    assert Owned(books).registration(NAME, at.now) is None
    assert create(gateway, trid="T2").code == 2302
    ask = fromstring('<poll op="req"/>')
    assert gateway.carry_out(LANTERN, "poll", ask, None, "P", None).code == 1300
    at.now = NOW + timedelta(minutes=2)
    told = gateway.carry_out(LANTERN, "poll", ask, None, "P", None)
    assert told.code == 1301
    assert 'paResult="0"' in told.told
    assert "<clTRID>T1</clTRID>" in told.told
    [number] = books.messages
    dismiss = fromstring(f'<poll op="ack" msgID="{number}"/>')
    assert gateway.carry_out(LANTERN, "poll", dismiss, None, "P", None).code == 1000
    assert gateway.carry_out(LANTERN, "poll", dismiss, None, "P", None).code == 2303
    assert books.balance("lantern") == Decimal(50_000)


def test_another_sellers_name_is_seen_by_nobody_else(gateway: Gateway) -> None:
    introduce(gateway)
    create(gateway)
    body = f"<d:info><d:name>{NAME}</d:name></d:info>"
    assert send(gateway, "info", body).code == 1000
    assert send(gateway, "info", body, seller=QUILLGATE).code == 2201
    [free] = fresh()
    assert send(gateway, "info", f"<d:info><d:name>{free}</d:name></d:info>").code == 2303


def test_staying_out_of_the_public_record_costs_what_the_list_says(
    gateway: Gateway, books: Books, at: Time
) -> None:
    today = at.now.date()
    usual = fee_of(QUILLGATE, NAME, "register", 2, today, Offer("usual"))
    assert usual is not None
    assert privacy_of(QUILLGATE, 2, today) == Decimal("7.00")
    introduce(gateway, QUILLGATE, hidden=True)
    create(gateway, years=2, seller=QUILLGATE)
    assert books.balance("quillgate") == Decimal(50_000) - usual - 7
    found = Owned(books).registration(NAME, at.now)
    assert found is not None
    assert (found.holder, found.country) == ("", "IE")


def test_fees_are_those_of_the_list_of_the_day(at: Time) -> None:
    today = at.now.date()
    one, two = (fee_of(LANTERN, NAME, "register", n, today, Offer("usual")) for n in (1, 2))
    assert one is not None
    assert two is not None
    # The first year is cheaper by the seller's offer; each has its fee for the registry.
    assert two - one > one
    assert fee_of(LANTERN, NAME, "register", 11, today, Offer("usual")) is None
    dear = fee_of(LANTERN, NAME, "register", 1, today, Offer("premium", 200.0, 200.0))
    assert dear is not None
    assert dear > 200
    hazel = next(one for one in SELLERS if one.code == "hazel")
    assert not sells(hazel, "io", today)
    assert sells(hazel, "com", today)
