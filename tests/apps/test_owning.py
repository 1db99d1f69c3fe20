"""Names one owns: on the list, found, asked about, told of before they run out."""

from __future__ import annotations

import csv
import io
from datetime import UTC, datetime, timedelta
from decimal import Decimal
from typing import Any

import pytest
from django.utils import timezone
from hypothesis import given
from hypothesis import strategies as st
from rest_framework.test import APIClient

from tests.apps.bought import HOLDER
from tests.apps.conftest import client_of
from tests.apps.owned_names import owned, put, registered
from tests.conftest import Registry
from vinetag.apps.accounts.models import User
from vinetag.apps.costs.models import SellerRow
from vinetag.apps.costs.sellers import new_version
from vinetag.apps.naming.models import Project
from vinetag.apps.ordering.contacts import save_contact
from vinetag.apps.owning import listing
from vinetag.apps.owning.asking import ask_now
from vinetag.apps.owning.listing import Asked, page_of
from vinetag.apps.owning.models import OwnedName
from vinetag.apps.owning.reminding import remind
from vinetag.apps.watching.happenings import happenings_of, texts_of
from vinetag.apps.watching.models import Happening
from vinetag.core.owning import BEFORE, due_reminder, phase_of, phases_of

pytestmark = pytest.mark.usefixtures("selling")
NOW = datetime(2026, 11, 29, 12, tzinfo=UTC)
DAY = timedelta(days=1)


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


def test_what_having_it_back_costs_is_told_with_the_days(person: User, selling: None) -> None:
    [row] = SellerRow.objects.filter(code="lantern")
    prices = "extension,action,price\ncom,register,12\ncom,renew,20\ncom,restore,80\n"
    new_version(row, prices, timezone.localdate())
    save_contact(person, HOLDER)
    owned(person, 1, expires_at=NOW - 50 * DAY, seller="lantern")
    assert remind(NOW) == 1
    [text] = texts_of(happenings_of(person), "UTC")
    # The fee and a year, with Ireland's 23 %.
    assert "Having it back costs 123.00 EUR, with a year." in text
    # Where the list does not say, nothing is made up.
    elsewhere = OwnedName.objects.create(
        owner=person, label="other", extension="com", seller_name="Gullwing Names",
        expires_at=NOW - 50 * DAY, source="imported",
    )  # fmt: skip
    assert remind(NOW) == 1
    assert "back" not in Happening.objects.get(label=elsewhere.label).args


def test_what_is_off_the_list_is_not_told_of(person: User) -> None:
    owned(person, 2, expires_at=NOW + 5 * DAY, left_at=NOW)
    assert remind(NOW) == 0


def test_names_are_found_at_the_sellers_that_have_them(
    administrator: User, selling: None, simulated_world: Registry
) -> None:
    api = client_of(administrator)
    rows = registered(administrator, 2)
    OwnedName.objects.update(seller="", seller_name="", expires_at=None, said={})
    put(api, "coffee.com")
    ids = list(OwnedName.objects.values_list("pk", flat=True))
    assert api.post("/api/owned/find", {"ids": ids}).json() == {"count": 2, "unsure": 0}
    found = OwnedName.objects.get(pk=rows[0].pk)
    assert (found.seller, found.seller_name) == ("lantern", "Lantern Names")
    assert found.expires_at is not None
    assert not OwnedName.objects.get(label="coffee").seller
    # Who did not register them, and looks after nothing, finds nothing.
    other = User.objects.create_user("other@inkpost.example", password="x" * 12)
    put(client_of(other), str(rows[0].name))
    [theirs] = OwnedName.objects.filter(owner=other)
    assert client_of(other).post("/api/owned/find", {"ids": [theirs.pk]}).json()["count"] == 0
    # A seller that does not answer leaves it open, and says so.
    OwnedName.objects.filter(owner=administrator).update(seller="", seller_name="")
    simulated_world.faults(kind="2200", service="epp", extension="login")
    left = api.post("/api/owned/find", {"ids": ids[:1]}).json()
    simulated_world.faults()
    assert left == {"count": 0, "unsure": 1}
