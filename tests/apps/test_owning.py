"""Names one owns: on the list, found, asked about, renewed, told of, changed, and let go."""

from __future__ import annotations

import csv
import io
from datetime import UTC, datetime, timedelta
from decimal import Decimal
from typing import Any

import pytest
from django.core.cache import cache
from django.utils import timezone
from hypothesis import given
from hypothesis import strategies as st
from rest_framework.test import APIClient

from tests.apps.bought import HOLDER, an_order, fresh, held, states
from tests.apps.conftest import client_of
from tests.conftest import Registry
from vinetag.apps.accounts.models import User
from vinetag.apps.costs.models import SellerRow
from vinetag.apps.costs.sellers import new_version
from vinetag.apps.naming.models import Project
from vinetag.apps.ordering import errands, paying
from vinetag.apps.ordering.contacts import save_contact
from vinetag.apps.ordering.models import Errand, Order, OrderName
from vinetag.apps.ordering.settling import balance_of, work_on
from vinetag.apps.owning import listing, renewing
from vinetag.apps.owning.asking import ask_now
from vinetag.apps.owning.keeping import adopt_ordered
from vinetag.apps.owning.listing import Asked, page_of
from vinetag.apps.owning.models import OwnedName
from vinetag.apps.owning.reminding import remind
from vinetag.apps.owning.renewing import adopt_renewed, renew_by_itself
from vinetag.apps.watching.happenings import happenings_of, texts_of
from vinetag.apps.watching.models import Happening
from vinetag.core.owning import BEFORE, due_reminder, phase_of, phases_of
from vinetag.lookup.epp import gateways_from_env
from vinetag.lookup.till import till_from_env

NOW = datetime(2026, 11, 29, 12, tzinfo=UTC)
DAY = timedelta(days=1)


@pytest.fixture(autouse=True)
def _sells(simulated_world: Registry, settings: Any, monkeypatch: pytest.MonkeyPatch) -> None:
    settings.GATEWAYS = gateways_from_env(
        {**simulated_world.selling, "VINETAG_GATEWAY_TIMEOUT": "3"}
    )
    settings.TILL = till_from_env(simulated_world.selling)
    monkeypatch.setattr(errands, "wake", lambda _send: None)
    for module in (paying, renewing):
        monkeypatch.setattr(module, "can_use_credit", lambda _person: True)
    cache.clear()
    row = SellerRow.objects.create(
        code="lantern", asked_at=timezone.now(),
        terms={"code": "lantern", "name": "Lantern Names", "country": "IE", "currency": "EUR"},
    )  # fmt: skip
    prices = "extension,action,price\ncom,register,12\ncom,renew,20.51\ncom,move,11\n"
    new_version(row, prices, timezone.localdate())
    cheap = SellerRow.objects.create(
        code="corner", asked_at=timezone.now(),
        terms={"code": "corner", "name": "Corner Shop", "country": "IE", "currency": "EUR"},
    )  # fmt: skip
    new_version(cheap, prices.replace("20.51", "9.00"), timezone.localdate())


def registered(person: User, count: int = 1, **more: Any) -> list[OwnedName]:
    """Names ordered here, and on the list."""
    order = an_order(person, fresh(count), **more)
    done(order)
    adopt_ordered(person)
    names = [str(n.name) for n in order.names.all()]
    return [row for row in OwnedName.objects.filter(owner=person) if str(row.name) in names]


def done(order: Order) -> None:
    paying.pay_by_credit(order)
    assert work_on(Errand.objects.get(order=order).pk)


def owned(person: User, count: int, **fields: Any) -> None:
    OwnedName.objects.bulk_create(
        OwnedName(owner=person, label=f"name{n}", extension="com", source="imported", **fields)
        for n in range(count)
    )


def put(api: APIClient, text: str, *, table: bool = False) -> Any:
    return api.post("/api/owned/table" if table else "/api/owned", {"text": text}).json()


# On the list.


def test_what_is_registered_here_comes_onto_the_list_with_what_a_year_costs(
    api: APIClient, person: User
) -> None:
    [row] = registered(person)
    save_contact(person, HOLDER)
    found = api.get("/api/owned").json()
    assert (found["total"], found["every"]) == (1, 1)
    [shown] = found["rows"]
    assert (shown["full_name"], shown["origin"], shown["phase"]) == (
        str(row.name),
        "ordered",
        "held",
    )
    assert shown["yearly"] == "25.23"
    months = api.get("/api/owned/months").json()["months"]
    assert len(months) == 24
    assert [m["amount"] for m in months if m["names"]] == ["25.23"]


def test_by_itself_waits_for_a_ceiling(person: User) -> None:
    [row] = registered(person, renewal="itself")
    assert row.renewal == "ask"
    [text] = texts_of(happenings_of(person), "UTC")
    assert "once you agree to a ceiling" in text


def test_a_table_is_taken_line_by_line_and_what_is_wrong_is_told_at_its_line(
    api: APIClient, person: User
) -> None:
    text = (
        "full name;seller;registered;expires;locked;tags\n"
        "inkpost.com;Lantern Names;2020-01-02;2027-01-02;yes;press, old\n"
        "no such thing;;;;;\n"
        "paperbarn.net;Gullwing Names;;2027-03-04;maybe;\n"
        "inkpost.com;;;;;\n"
        "grüße.com;;;31.12.2027;;\n"
        "papermoon.net;;;;;club\n"
    )
    found = put(api, text, table=True)
    assert (found["new"], found["changed"], found["wrong"]) == (2, 0, 4)
    assert [p["where"].partition(",")[0] for p in found["problems"]] == [
        "line 3", "line 4", "line 5", "line 6",
    ]  # fmt: skip
    row = OwnedName.objects.get(label="inkpost")
    assert (row.seller, row.seller_name, row.tags) == ("lantern", "Lantern Names", "|press|old|")
    assert row.expires_at == datetime(2027, 1, 2, tzinfo=UTC)
    # Once more: what is there is changed, and what the table does not say stays.
    again = put(api, "full name,tags\ninkpost.com,new\n", table=True)
    assert (again["new"], again["changed"]) == (0, 1)
    row.refresh_from_db()
    assert (row.tags, row.seller_name) == ("|new|", "Lantern Names")


def test_a_file_given_out_is_taken_back_as_it_was(api: APIClient, person: User) -> None:
    put(
        api,
        "full name,seller,expires,tags,locked\ninkpost.com,=cmd,2027-01-02,a; b,no\n",
        table=True,
    )
    file = api.get("/api/owned/file").content.decode("utf-8-sig")
    [line] = csv.DictReader(io.StringIO(file))
    assert line["seller"] == "'=cmd"
    before = OwnedName.objects.values_list("label", "expires_at", "tags", "seller_name", "locked")
    kept = list(before)
    OwnedName.objects.all().delete()
    assert put(api, file, table=True)["new"] == 1
    assert list(before) == kept


def test_names_that_are_typed_are_read_from_the_registry(api: APIClient, person: User) -> None:
    found = put(api, "post.com, ink.com\nnot a.nosuch\nqzwxvkjhqp.com")
    assert found["new"] == 3
    assert {p["where"] for p in found["problems"]} == {"name 3", "name 4"}
    ids = list(OwnedName.objects.values_list("pk", flat=True))
    assert api.post("/api/owned/ask", {"ids": ids}).json() == {"count": 3}
    rows = {str(row.name): row for row in OwnedName.objects.all()}
    assert rows["post.com"].expires_at is not None
    assert rows["post.com"].seller_name
    assert rows["qzwxvkjhqp.com"].differs == ["nobody"]


def test_the_list_is_found_in_narrowed_and_sorted(
    api: APIClient, person: User, other: User
) -> None:
    now = timezone.now()
    for n, (days, renewal, tag) in enumerate(
        [(-3, "ask", ""), (10, "itself", "|club|"), (200, "ask", "|club|old|"), (None, "ask", "")]
    ):
        OwnedName.objects.create(
            owner=person, label=f"ink{n}", extension="com" if n else "net", source="imported",
            expires_at=None if days is None else now + days * DAY, renewal=renewal, tags=tag,
            differs=["locked"] if n == 2 else [], priced_on=timezone.localdate(),
            yearly=n or None, yearly_currency="EUR",
        )  # fmt: skip
    owned(other, 2)

    def labels(**question: Any) -> list[str]:
        rows = api.get("/api/owned", question).json()["rows"]
        return [row["full_name"].partition(".")[0] for row in rows]

    assert labels() == ["ink0", "ink1", "ink2", "ink3"]
    assert labels(sort="-expires") == ["ink2", "ink1", "ink0", "ink3"]
    assert labels(sort="-cost") == ["ink3", "ink2", "ink1", "ink0"]
    assert labels(text="INK2.com") == ["ink2"]
    assert labels(tag="club", sort="-name") == ["ink2", "ink1"]
    assert labels(when="past") == ["ink0"]
    assert labels(when="30") == ["ink1"]
    assert labels(when="unknown") == ["ink3"]
    assert labels(renewed="itself") == ["ink1"]
    assert labels(differs=True) == ["ink2"]
    assert labels(extension="net") == ["ink0"]
    facets = api.get("/api/owned/facets").json()
    assert facets["tag"] == [{"value": "club", "count": 2}, {"value": "old", "count": 1}]
    assert api.get("/api/owned", {"sort": "random"}).status_code == 400


def test_pages_follow_one_another_and_what_is_not_known_stands_last(
    api: APIClient, person: User, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(listing, "PAGE", 4)
    today = timezone.localdate()
    for n in range(11):
        known = NOW + n * DAY if n % 2 else None
        OwnedName.objects.create(
            owner=person, label=f"ink{n:02}", extension="com", source="typed", expires_at=known,
            yearly=n if n % 3 else None, yearly_currency="EUR", priced_on=today,
        )  # fmt: skip
    for sort, of in (("expires", "expires_at"), ("-expires", "expires_at"), ("cost", "yearly")):
        rows = [r for page in range(4) for r in page_of(person, Asked(sort=sort, page=page)).rows]
        assert len({row.pk for row in rows}) == len(rows) == 11, sort
        values = [getattr(row, of) for row in rows]
        known_ones = [value for value in values if value is not None]
        assert values[: len(known_ones)] == known_ones
        assert known_ones == sorted(known_ones, reverse=sort.startswith("-"))


def test_many_are_changed_at_once_and_taken_off_with_a_way_back(
    api: APIClient, person: User, other: User
) -> None:
    owned(person, 3)
    owned(other, 1)
    ids = list(OwnedName.objects.values_list("pk", flat=True))
    assert api.patch("/api/owned", {"ids": ids, "tag": "old; press|x"}).json() == {"count": 3}
    assert api.patch("/api/owned", {"ids": ids, "untag": "press"}).status_code == 200
    tags = set(OwnedName.objects.filter(owner=person).values_list("tags", flat=True))
    assert tags == {"|old|x|"}
    assert OwnedName.objects.get(owner=other).tags == ""
    refused = api.patch("/api/owned", {"ids": ids, "renewal": "itself"})
    assert refused.json()["problems"][0]["path"] == "ceiling"
    api.patch("/api/owned", {"ids": ids, "renewal": "itself", "ceiling": "30", "currency": "EUR"})
    assert OwnedName.objects.filter(ceiling=30).count() == 3
    batch = api.post("/api/owned/off", {"ids": ids}).json()["batch"]
    assert api.get("/api/owned").json()["every"] == 0
    assert client_of(other).post("/api/owned/back", {"batch": batch}).json() == {"count": 0}
    assert api.post("/api/owned/back", {"batch": batch}).json() == {"count": 3}


# What the registry says.


def test_what_the_seller_says_is_set_against_what_we_think(
    api: APIClient, person: User, simulated_world: Registry
) -> None:
    [row] = registered(person)
    OwnedName.objects.update(
        expires_at=timezone.now() + 100 * DAY, locked=False, servers=["a.b", "c.d"]
    )
    api.post("/api/owned/ask", {"ids": [row.pk]})
    row.refresh_from_db()
    assert row.differs == ["expires", "locked"]
    assert api.post("/api/owned/take-over", {"ids": [row.pk]}).json() == {"count": 1}
    row.refresh_from_db()
    assert row.differs == []
    assert row.locked is True
    assert row.expires_at is not None
    assert (row.expires_at - timezone.now()).days in (364, 365)


def test_where_nothing_is_found_out_nothing_is_changed(
    person: User, simulated_world: Registry
) -> None:
    put(client_of(person), "post.com")
    simulated_world.faults(kind="500", service="rdap")
    [row] = OwnedName.objects.all()
    ask_now([row])
    row.refresh_from_db()
    assert (row.said, row.differs, row.asked_at) == ({}, [], None)
    assert row.trouble
    assert row.ask_at is not None
    assert row.ask_at > timezone.now()


# Renewing.


def test_renewing_is_shown_with_its_price_agreed_to_ordered_and_known(
    api: APIClient, person: User, simulated_world: Registry
) -> None:
    save_contact(person, HOLDER)
    rows = registered(person, 2)
    put(api, "full name,seller\nelsewhere.com,Gullwing Names\n", table=True)
    ids = list(OwnedName.objects.values_list("pk", flat=True))
    shown = api.post("/api/owned/renewing", {"ids": ids, "years": 2}).json()
    by_name = {one["full_name"]: one for one in shown["names"]}
    assert "renew it there" in by_name["elsewhere.com"]["why_not"]
    one = by_name[str(rows[0].name)]
    assert (one["action"], one["elsewhere"]) == ("renew", "Corner Shop")
    # Two years at 20.51 with Ireland's 23 %.
    assert one["amount"] == f"{Decimal('41.02') * Decimal('1.23'):.2f}"
    assert len(shown["totals"]) == 1
    stale = api.post("/api/owned/renew", {"ids": ids, "years": 2, "sign": "x" * 32})
    assert stale.json()["code"] == "changed_elsewhere"
    body = {"ids": ids, "years": 2, "sign": shown["sign"]}
    [number] = api.post("/api/owned/renew", body).json()["orders"]
    again = renewing.renewal_of(person, rows, 2)
    assert {one.amount for one in again.names} == {None}
    assert "already" in str(api.post("/api/owned/renewing", {"ids": ids}).json()["names"])
    order = Order.objects.get(pk=number)
    done(order)
    assert states(order) == ["registered", "registered"]
    paid, back, kept = balance_of(order)
    assert (paid, back) == (kept, 0)
    assert adopt_renewed() == 2
    rows[0].refresh_from_db()
    assert rows[0].expires_at is not None
    assert (rows[0].expires_at - timezone.now()).days > 365 * 3 - 5
    [book] = held(simulated_world, [str(rows[0].name)])
    assert book["expires"][:10] == f"{rows[0].expires_at:%Y-%m-%d}"


def test_a_renewal_whose_answer_was_lost_is_found_out_and_not_paid_twice(
    person: User, simulated_world: Registry
) -> None:
    [row] = registered(person)
    assert row.expires_at is not None
    order = an_order(person, [str(row.name)], fee="20.51", action="renew", ran_until=row.expires_at)
    paying.pay_by_credit(order)
    simulated_world.faults(kind="hangup-after", service="epp")
    errand = Errand.objects.get(order=order).pk
    assert not work_on(errand)
    simulated_world.faults()
    assert work_on(errand)
    assert states(order) == ["registered"]
    renews = [c for c in simulated_world.books["charge"]
              if c["name"] == str(row.name) and c["kind"] == "renew"]  # fmt: skip
    assert len(renews) == 1


def test_what_somebody_else_renewed_meanwhile_is_not_paid_for(
    person: User, simulated_world: Registry
) -> None:
    [row] = registered(person)
    assert row.expires_at is not None
    orders = [
        an_order(person, [str(row.name)], fee="20.51", action="renew", ran_until=row.expires_at)
        for _ in range(2)
    ]
    for order in orders:
        paying.pay_by_credit(order)
        assert work_on(Errand.objects.get(order=order).pk)
    assert [states(order) for order in orders] == [["registered"], ["refunded"]]
    assert orders[1].names.get().code == 2306


def test_what_lapsed_is_had_back_with_its_price(
    api: APIClient, person: User, simulated_world: Registry
) -> None:
    [row] = registered(person)
    simulated_world.clock(365 + 45)
    try:
        shown = api.post("/api/owned/renewing", {"ids": [row.pk]}).json()
        [one] = shown["names"]
        assert one["action"] == "restore"
        body = {"ids": [row.pk], "years": 1, "sign": shown["sign"]}
        [number] = api.post("/api/owned/renew", body).json()["orders"]
        done(Order.objects.get(pk=number))
        assert states(Order.objects.get(pk=number)) == ["registered"]
    finally:
        simulated_world.clock(0)


@pytest.mark.parametrize(("ceiling", "told"), [("30.00", ""), ("5.00", "above what you agreed to")])
def test_by_itself_only_up_to_what_was_agreed_to(
    person: User, simulated_world: Registry, ceiling: str, told: str
) -> None:
    [row] = registered(person)
    OwnedName.objects.update(
        renewal="itself", ceiling=Decimal(ceiling), ceiling_currency="EUR",
        expires_at=timezone.now() + 10 * DAY,
    )  # fmt: skip
    assert renew_by_itself() == (0 if told else 1)
    assert Order.objects.filter(stage="paid").count() == (0 if told else 1)
    texts = list(texts_of(Happening.objects.all(), "UTC"))
    assert any(told in text for text in texts) if told else texts == []
    cache.clear()
    # Not again: it is under way, or was told of.
    renew_by_itself()
    assert Order.objects.filter(names__action="renew").count() == (0 if told else 1)
    assert Happening.objects.count() == (1 if told else 0)
    assert row.pk


# Told of.


@given(st.integers(-200, 200), st.integers(0, 86_399))
def test_of_each_moment_the_newest_is_told(days: int, seconds: int) -> None:
    now = NOW + timedelta(seconds=seconds)
    expires = NOW + days * DAY
    due, phases = due_reminder(expires, "com", now), phases_of(expires, "com")
    left = (expires - now) / DAY
    if left > max(BEFORE) or now >= phases.redeemable:
        assert due is None
    elif left > 0:
        assert due is not None
        assert due.of == "expires"
        assert due.sign.endswith(f":{min(b for b in BEFORE if b >= left)}")
    else:
        assert due is not None
        assert due.when > now or due.of != "expires"
    assert phase_of(phases, now) == (
        "held" if now < expires else "grace" if now < phases.renewable
        else "redemption" if now < phases.redeemable else "lost"
    )  # fmt: skip


def test_it_is_told_once_and_anew_when_it_runs_out_on_another_day(
    api: APIClient, person: User
) -> None:
    owned(person, 1, expires_at=NOW + 29 * DAY, yearly=Decimal("20.51"), yearly_currency="EUR")
    assert remind(NOW) == 1
    assert remind(NOW + timedelta(hours=3)) == 0
    assert remind(NOW + 23 * DAY) == 1
    OwnedName.objects.update(expires_at=NOW + 394 * DAY)
    assert remind(NOW + 23 * DAY) == 0
    assert remind(NOW + 394 * DAY) == 1
    texts = list(texts_of(happenings_of(person), "UTC"))
    assert texts[-1] == (
        "Your name name0.com runs out on 28 December 2026, 12:00 UTC. A year costs 20.51 EUR."
    )
    assert "has run out" in texts[0]
    rows = api.get("/api/happenings").json()["rows"]
    assert (rows[0]["project"], rows[0]["what"]) == (None, "owned")


def test_the_days_names_run_out_are_in_the_calendar(api: APIClient, person: User) -> None:
    [made] = api.post("/api/feeds", {"kind": "calendar"}).json()["feeds"]
    owned(person, 2, expires_at=timezone.now() + 40 * DAY, yearly=9, yearly_currency="EUR")
    OwnedName.objects.filter(label="name1").update(expires_at=timezone.now() - 300 * DAY)
    text = APIClient().get(made["path"]).content.decode().replace("\r\n ", "")
    assert text.count("BEGIN:VEVENT") == 1
    assert "SUMMARY:Your name name0.com runs out" in text
    assert f"DTSTART;VALUE=DATE:{timezone.now() + 40 * DAY:%Y%m%d}" in text


def test_names_are_grouped_by_project(api: APIClient, person: User, project: Project) -> None:
    owned(person, 3)
    ids = list(OwnedName.objects.values_list("pk", flat=True)[:2])
    assert api.patch("/api/owned", {"ids": ids, "project": project.pk}).json() == {"count": 2}
    assert api.get("/api/owned/facets").json()["project"] == [
        {"id": project.pk, "name": "Pressroom", "count": 2}
    ]
    assert api.get("/api/owned", {"project": project.pk}).json()["total"] == 2
    assert api.patch("/api/owned", {"ids": ids, "project": 10**6}).status_code == 400
    api.patch("/api/owned", {"ids": ids, "project": None})
    assert api.get("/api/owned/facets").json()["project"] == []


def test_what_is_off_the_list_is_not_told_of(person: User) -> None:
    owned(person, 2, expires_at=NOW + 5 * DAY, left_at=NOW)
    assert remind(NOW) == 0


# Changing, and letting go.


def test_name_servers_and_the_lock_are_changed_at_the_seller(
    api: APIClient, person: User, simulated_world: Registry
) -> None:
    rows = registered(person, 2)
    ids = [row.pk for row in rows]
    servers = ["ns1.barn.example", "ns2.barn.example"]
    assert api.post("/api/owned/servers", {"ids": ids, "servers": servers}).json()["count"] == 2
    [book, _] = held(simulated_world, [str(row.name) for row in rows])
    assert book["hosts"] == servers
    for wrong in (["ns1"], [], ["one.example"]):
        answer = api.post("/api/owned/servers", {"ids": ids, "servers": wrong})
        assert answer.status_code == 400, wrong
    assert api.post("/api/owned/lock", {"ids": ids, "locked": False}).json()["failed"] == []
    assert {one["status"] == [] for one in held(simulated_world, [str(r.name) for r in rows])} == {
        True
    }
    rows[0].refresh_from_db()
    assert (rows[0].locked, rows[0].servers) == (False, servers)


def test_a_name_is_let_go_when_it_is_typed(
    api: APIClient, person: User, simulated_world: Registry
) -> None:
    [row] = registered(person)
    wrong = api.post(f"/api/owned/{row.pk}/let-go", {"typed": "another.com"})
    assert wrong.json()["code"] == "not_typed"
    assert held(simulated_world, [str(row.name)])
    assert api.post(f"/api/owned/{row.pk}/let-go", {"typed": str(row.name)}).json()["count"] == 1
    assert held(simulated_world, [str(row.name)]) == []
    row.refresh_from_db()
    assert row.differs == ["nobody"]


def test_what_was_registered_for_somebody_else_is_out_of_reach_though_it_is_in_our_account(
    api: APIClient, person: User, other: User, simulated_world: Registry
) -> None:
    [row] = registered(other)
    name = str(row.name)
    # Whoever knows the name puts it on the list, and says where it is.
    put(api, f"full name,seller\n{name},Lantern Names\n", table=True)
    [mine] = OwnedName.objects.filter(owner=person)
    assert mine.seller == "lantern"
    before = held(simulated_world, [name])
    servers = ["ns1.evil.example", "ns2.evil.example"]
    for path, body in (
        ("servers", {"ids": [mine.pk], "servers": servers}),
        ("lock", {"ids": [mine.pk], "locked": False}),
        (f"{mine.pk}/let-go", {"typed": name}),
    ):
        answer = api.post(f"/api/owned/{path}", body).json()
        assert (answer["count"], answer["failed"][0]["why"]) == (0, "Somebody else has it."), path
    shown = api.post("/api/owned/renewing", {"ids": [mine.pk]}).json()
    assert "not registered here for you" in shown["names"][0]["why_not"]
    assert shown["totals"] == []
    assert held(simulated_world, [name]) == before
    # What is asked about it is what anybody can read.
    api.post("/api/owned/ask", {"ids": [mine.pk]})
    mine.refresh_from_db()
    assert mine.said["by"] == "registry"
    # An administrator has what nobody ordered here, and not what somebody did.
    person.is_staff = True
    person.save()
    assert api.post("/api/owned/lock", {"ids": [mine.pk], "locked": False}).json()["count"] == 0
    OrderName.objects.filter(order__owner=other).delete()
    assert api.post("/api/owned/lock", {"ids": [mine.pk], "locked": False}).json()["count"] == 1


def test_a_name_that_was_let_go_and_registered_by_somebody_else_is_theirs(
    api: APIClient, person: User, other: User, simulated_world: Registry
) -> None:
    [row] = registered(person)
    name = str(row.name)
    assert api.post(f"/api/owned/{row.pk}/let-go", {"typed": name}).json()["count"] == 1
    again = an_order(other, [name])
    done(again)
    assert states(again) == ["registered"]
    assert api.post("/api/owned/lock", {"ids": [row.pk], "locked": False}).json()["count"] == 0
    [book] = held(simulated_world, [name])
    assert book["status"] == ["clientTransferProhibited"]


def test_what_is_changed_while_the_registry_is_asked_is_not_written_over(
    person: User, simulated_world: Registry
) -> None:
    [row] = registered(person)
    stale = OwnedName.objects.get(pk=row.pk)
    OwnedName.objects.filter(pk=row.pk).update(seller_name="Moved Names", locked=False)
    ask_now([stale])
    row.refresh_from_db()
    assert (row.seller_name, row.locked) == ("Moved Names", False)
    assert row.said["by"] == "seller"
