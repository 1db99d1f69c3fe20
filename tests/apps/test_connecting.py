"""Zones of one's own: kept, put into force, seen from outside, and nobody else's."""

from __future__ import annotations

from typing import Any

import pytest
from rest_framework.test import APIClient

from tests.apps.conftest import client_of
from tests.apps.owned_names import put, registered
from tests.conftest import Registry
from vinetag.apps.accounts.models import User
from vinetag.apps.connecting import zones
from vinetag.apps.connecting.models import Zone
from vinetag.apps.connecting.zones import hosts, proof_of
from vinetag.apps.owning.models import OwnedName
from vinetag.core.zone import read_record
from vinetag.lookup.hosting import Hosting, hosting_from_env

pytestmark = pytest.mark.usefixtures("selling")


def row(name: str, kind: str, data: str, ttl: int = 300) -> dict[str, Any]:
    return {"name": name, "kind": kind, "data": data, "ttl": ttl}


SITE = [row("@", "A", "8.8.8.8"), row("www", "CNAME", "@")]


def of(one: OwnedName, rest: str = "") -> str:
    return f"/api/owned/{one.pk}/zone{rest}"


def put_zone(api: APIClient, one: OwnedName, records: list[dict[str, Any]]) -> Any:
    edition = api.get(of(one)).json()["edition"]
    return api.put(of(one), {"records": records, "edition": edition})


def points_here(api: APIClient, one: OwnedName) -> None:
    answer = api.post("/api/owned/servers", {"ids": [one.pk], "servers": list(hosts())})
    assert answer.json()["count"] == 1, answer.json()


def looked(api: APIClient, one: OwnedName) -> dict[str, dict[str, str]]:
    found = api.post(of(one, "/look")).json()["looked"]
    return {each["code"]: each for each in found}


def test_a_zone_is_put_into_force_and_seen_by_the_world(api: APIClient, person: User) -> None:
    [one] = registered(person)
    document = put_zone(api, one, [*SITE, row("@", "TXT", "v=spf1 -all")]).json()
    assert document["current"]
    assert document["answering"]
    assert not document["trouble"]
    assert [r["data"] for r in document["records"]] == ["8.8.8.8", "v=spf1 -all", str(one.name)]
    # The registry still sends the world to the seller's own servers.
    before = looked(api, one)
    assert before["elsewhere"]["standing"] == "wrong"
    assert "records_good" not in before
    points_here(api, one)
    after = looked(api, one)
    assert {code for code, each in after.items() if each["standing"] == "good"} == {
        "delegated", "server_good", "records_good", "unsigned", "expires_later",
    }  # fmt: skip
    assert "all 3 records" in after["records_good"]["text"]
    # What is changed is in force at once, by both servers, and the former state can be had back.
    changed = put_zone(api, one, SITE[:1]).json()
    assert len(changed["past"]) == 1
    assert len(changed["past"][0]["records"]) == 3
    assert looked(api, one)["records_good"]


def test_visitors_are_sent_on(api: APIClient, person: User) -> None:
    [one] = registered(person)
    points_here(api, one)
    asked = {"set": "forward", "given": {"address": "https://shop.example/a"}, "records": SITE}
    done = api.post(of(one, "/ready"), asked).json()
    # An address in place of the old one, and what could not stand beside it went.
    assert {(g["name"], g["kind"]) for g in done["gone"]} == {("@", "A"), ("www", "CNAME")}
    assert put_zone(api, one, done["records"]).json()["current"]
    assert looked(api, one)["sent_on"]["text"].endswith("https://shop.example/a.")


def test_what_is_wrong_is_told_at_its_record_and_nothing_is_kept(
    api: APIClient, person: User
) -> None:
    [one] = registered(person)
    rows = [row("@", "A", "8.8.8.8"), row("x", "A", "300.1.1.1"), row("y", "MX", "mail")]
    answer = put_zone(api, one, rows)
    assert answer.status_code == 400
    assert {p["path"] for p in answer.json()["problems"]} == {"records.1.data", "records.2.data"}
    beside = put_zone(api, one, [row("@", "CNAME", "x.example"), row("@", "A", "8.8.8.8")])
    assert "cannot be another name" in str(beside.json())
    judged = api.post(of(one, "/judge"), {"records": [row("@", "A", "10.0.0.1")]}).json()
    assert [(r["place"], r["wrong"]) for r in judged["remarks"]] == [(None, False), (0, False)]
    assert api.get(of(one)).json()["records"] == []
    stale = api.put(of(one), {"records": SITE, "edition": 9})
    assert stale.json()["code"] == "changed_elsewhere"


def test_servers_that_fail_lose_nothing(
    api: APIClient, person: User, simulated_world: Registry
) -> None:
    [one] = registered(person)
    points_here(api, one)
    simulated_world.faults(kind="lame", service="hosting")
    document = put_zone(api, one, SITE).json()
    assert "It is kept" in document["trouble"]
    assert (len(document["records"]), document["current"]) == (2, False)
    assert "lame" in str(looked(api, one))
    simulated_world.faults()
    assert put_zone(api, one, SITE).json()["current"]
    # One that is silent is told of, the other answers.
    simulated_world.faults(kind="loss", service="hosting", registry="ns2")
    assert {"server_good", "server_silent", "records_good"} <= set(looked(api, one))


def test_nobody_answers_for_what_is_not_known_to_be_theirs(
    api: APIClient, person: User, simulated_world: Registry
) -> None:
    [one] = registered(person)
    points_here(api, one)
    assert put_zone(api, one, SITE).json()["current"]
    thief = User.objects.create_user("thief@inkpost.example", password="x" * 12)
    theirs = client_of(thief)
    put(theirs, str(one.name))
    [wanted] = OwnedName.objects.filter(owner=thief)
    answer = put_zone(theirs, wanted, [row("@", "A", "9.9.9.9")]).json()
    assert "not known yet" in answer["trouble"]
    assert not answer["current"]
    assert answer["proof"]["name"] == f"_vine-tag.{one.name}"
    assert looked(api, one)["records_good"]
    # The word at the name itself shows whose it is: here whoever has the zone puts it there.
    at, word = proof_of(wanted)
    assert put_zone(api, one, [*SITE, row(at, "TXT", word)]).json()["current"]
    assert put_zone(theirs, wanted, [row("@", "A", "9.9.9.9")]).json()["current"]
    assert Zone.objects.get(owned=one).answering is None
    assert not api.get(of(one)).json()["current"]


def test_a_zone_is_taken_out_of_force(api: APIClient, person: User) -> None:
    [one] = registered(person)
    points_here(api, one)
    put_zone(api, one, SITE)
    gone = api.post(of(one, "/withdraw")).json()
    assert (gone["answering"], len(gone["records"])) == (False, 2)
    assert {"server_lame", "records_none"} <= set(looked(api, one))


def test_a_master_file_is_read_line_by_line_and_written(api: APIClient, person: User) -> None:
    [one] = registered(person)
    text = "$TTL 1h\n@ IN NS ns1.x.\n@ A 8.8.8.8\nwww CNAME @\nmail A 1.2.3\n"
    read = api.post(of(one, "/master"), {"text": text}).json()
    assert [p["where"] for p in read["problems"]] == ["line 5"]
    assert (read["left_out"], len(read["records"])) == (1, 2)
    put_zone(api, one, read["records"])
    answer = api.get(of(one, "/file"))
    assert answer["Content-Type"] == "text/dns"
    again = api.post(of(one, "/master"), {"text": answer.content.decode()}).json()
    assert again["records"] == api.get(of(one)).json()["records"]


def test_without_name_servers_of_ours_a_zone_is_kept_alone(
    api: APIClient, person: User, settings: Any
) -> None:
    settings.HOSTING = None
    [one] = registered(person)
    document = put_zone(api, one, SITE).json()
    assert (document["hosts"], document["current"]) == ([], False)
    assert "no name servers here" in document["trouble"]
    assert "records_none" in looked(api, one)


def test_what_somebody_else_changed_at_the_servers_is_seen_and_set_right(
    api: APIClient, person: User
) -> None:
    [one] = registered(person)
    points_here(api, one)
    put_zone(api, one, SITE)
    known = zones._hosting()
    assert known is not None
    other = [read_record(str(one.name), "@", "A", 300, "9.9.9.9")]
    assert not Hosting(known).publish(str(one.name), other).trouble
    assert looked(api, one)["records_other"]["standing"] == "wrong"
    assert put_zone(api, one, SITE).json()["current"]
    assert looked(api, one)["records_good"]


def test_a_wrong_key_is_refused(person: User, simulated_world: Registry) -> None:
    given = {**simulated_world.selling, "VINETAG_HOSTING_KEY": "vine-tag:d3Jvbmc="}
    known = hosting_from_env(given)
    assert known is not None
    assert Hosting(known).publish("x.com", []).trouble in ("refused", "nonsense")


def test_keys_that_no_server_signs_with_are_told_and_taken_away(
    api: APIClient, person: User
) -> None:
    [one] = registered(person)
    points_here(api, one)
    put_zone(api, one, SITE)
    address = f"/api/owned/{one.pk}/keys"
    assert api.get(address).json() == {"keys": []}
    key = "2371 13 2 " + "1f98" * 16
    assert api.put(address, {"keys": [f"{one.name}. 300 IN DS {key}"]}).json()["count"] == 1
    assert api.get(address).json() == {"keys": [key.upper()]}
    # The name servers here sign nothing: whoever checks signatures does not reach it.
    assert looked(api, one)["signature_broken"]["standing"] == "wrong"
    one.refresh_from_db()
    assert one.signed
    refused = api.put(address, {"keys": ["2371 13 2 1f98", "", "x", "1 4 2 " + "ab" * 32]}).json()
    assert [p["path"] for p in refused["problems"]] == ["keys.0", "keys.2", "keys.3"]
    assert api.put(address, {"keys": []}).json()["count"] == 1
    assert "unsigned" in looked(api, one)


def test_two_windows_put_one_after_the_other_and_neither_is_written_over(
    api: APIClient, person: User
) -> None:
    [one] = registered(person)
    edition = api.get(of(one)).json()["edition"]
    first = api.put(of(one), {"records": SITE, "edition": edition})
    assert first.json()["edition"] == edition + 1
    other = [row("@", "A", "9.9.9.9")]
    second = api.put(of(one), {"records": other, "edition": edition})
    assert (second.status_code, second.json()["code"]) == (409, "changed_elsewhere")
    assert len(api.get(of(one)).json()["records"]) == 2


def test_the_last_ten_states_can_be_had_back_and_empty_ones_are_none(
    api: APIClient, person: User
) -> None:
    [one] = registered(person)
    for n in range(13):
        put_zone(api, one, [row("@", "A", f"8.8.8.{n}")])
    past = api.get(of(one)).json()["past"]
    assert [state["records"][0]["data"] for state in past] == [
        f"8.8.8.{n}" for n in range(11, 1, -1)
    ]
    api.post(of(one, "/withdraw"))
    again = put_zone(api, one, SITE).json()
    assert all(state["records"] for state in again["past"])


def test_as_many_records_as_there_may_be_are_put_and_seen(api: APIClient, person: User) -> None:
    [one] = registered(person)
    points_here(api, one)
    many = [row(f"h{n}", "A", f"8.8.{n // 250}.{n % 250}") for n in range(500)]
    assert put_zone(api, one, many).json()["current"]
    assert "all 500 records" in looked(api, one)["records_good"]["text"]
    more = api.put(of(one), {"records": [*many, row("x", "A", "8.8.8.8")], "edition": 1})
    assert "At most 500 records" in str(more.json()["problems"])
    far_more = api.post(of(one, "/judge"), {"records": many * 3}).json()["remarks"]
    assert [r["place"] for r in far_more] == [None]
    long = api.post(of(one, "/master"), {"text": "a A x\n" * 30_000}).json()
    assert (len(long["problems"]), long["wrong"]) == (50, 20_001)


def test_a_set_that_cannot_be_filled_in_is_told_at_its_field(api: APIClient, person: User) -> None:
    [one] = registered(person)
    asked = {"set": "mail", "given": {"servers": "-x"}, "records": []}
    told = api.post(of(one, "/ready"), asked).json()["problems"]
    assert [p["path"] for p in told] == ["given.servers"]
    unknown = api.post(of(one, "/ready"), {**asked, "set": "nothing"}).json()
    assert unknown["problems"][0]["path"] == "set"
    wrong = {**asked, "given": {"servers": "mx.a.example"}, "records": [row("@", "A", "x")]}
    first = api.post(of(one, "/ready"), wrong).json()["problems"]
    assert [p["path"] for p in first] == ["records.0.data"]
