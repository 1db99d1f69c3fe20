"""Pasted lists, the quick check, the ladder, exports, and the stream."""

import asyncio
import csv
import io
import json
from datetime import UTC, datetime, timedelta
from decimal import Decimal
from typing import Any
from urllib.parse import quote

import msgspec
import pytest
import redis
from asgiref.sync import sync_to_async
from django.test import AsyncClient
from django.utils import timezone
from openpyxl import load_workbook
from rest_framework.test import APIClient

from tests.apps.conftest import BRIEF
from tests.conftest import Registry
from vinetag.apps.accounts.models import User
from vinetag.apps.accounts.services import end_sessions
from vinetag.apps.availability import tasks
from vinetag.apps.availability.answer_store import claim_names, save_answers
from vinetag.apps.availability.api import streaming
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import create_project
from vinetag.core.checking import Evidence, Quote
from vinetag.core.names import FullName
from vinetag.lookup import Answer

pytestmark = pytest.mark.usefixtures("simulated_world", "delivered")

FREE = "qwzxvkjhqp"


def answer(label: str, extension: str = "com", status: str = "open", **fields: Any) -> Answer:
    return Answer(FullName(label, extension), status, timezone.now(), **fields)  # type: ignore[arg-type]


def test_a_list_is_taken_checked_and_filtered(api: APIClient, project: Project) -> None:
    address = f"/api/projects/{project.pk}/pasted"
    text = f"{FREE}\nletter.com, letter.org\n-x\n{FREE}\n"
    taken = api.put(address, {"text": text, "extensions": ["net", ".shop"]})
    assert taken.status_code == 201
    report = taken.json()
    assert (report["names"], report["full_names"], report["merged"]) == (2, 4, 1)
    assert [(b["line"], b["text"]) for b in report["bad"]] == [(3, "-x")]
    assert api.get(address).json()["statuses"] == {"not asked": 4}
    check = api.post(f"/api/projects/{project.pk}/checks", {"what": "pasted"}).json()
    waiting = api.get(address).json()
    assert {c["status"] for row in waiting["rows"] for c in row["cells"]} == {"waiting"}
    tasks.run_check(check["id"])
    page = api.get(address).json()
    assert page["statuses"] == {"open": 2, "taken": 2}
    assert [row["label"] for row in page["rows"]] == [FREE, "letter"]
    only = api.get(address, {"status": "taken"}).json()
    assert [row["label"] for row in only["rows"]] == ["letter"]
    assert {c["extension"] for c in only["rows"][0]["cells"]} == {"com", "org"}
    assert api.delete(address).status_code == 204
    assert api.get(address).json()["names"] == 0


def test_a_list_without_a_name_leaves_the_last_one(api: APIClient, project: Project) -> None:
    address = f"/api/projects/{project.pk}/pasted"
    api.put(address, {"text": "inkpost.com"})
    refused = api.put(address, {"text": "-x\n?\n"})
    assert refused.status_code == 400
    assert [p["path"] for p in refused.json()["problems"]] == ["line 1", "line 2"]
    assert api.put(address, {"text": "ink", "extensions": ["nosuch"]}).status_code == 400
    assert api.get(address).json()["names"] == 1


def test_five_thousand_names_under_ten_extensions_begin_at_once(
    api: APIClient, project: Project
) -> None:
    extensions = "com net org info ie co.uk shop studio club press".split()
    text = "\n".join(f"bulkname{n}" for n in range(5_000))
    api.put(f"/api/projects/{project.pk}/pasted", {"text": text, "extensions": extensions})
    check = api.post(f"/api/projects/{project.pk}/checks", {"what": "pasted"}).json()
    assert check["total"] == 50_000
    first = project.checks.get().plan[:26]
    assert first[0] == "bulkname0.com"
    assert first[25] == "bulkname0.net"


def test_the_quick_check_tells_at_once_and_keeps_what_it_found(
    api: APIClient, project: Project, registry: Registry
) -> None:
    address = f"/api/projects/{project.pk}/quick"
    cells = api.post(address, {"label": "InkWorks"}).json()
    assert {c["extension"]: c["status"] for c in cells} == {"com": "taken", "net": "open"}
    before = registry.served
    assert api.post(address, {"label": "inkworks"}).json() == cells
    assert registry.served == before
    registry.faults({"service": "dns", "kind": "loss"})
    slow = api.post(address, {"label": FREE})
    assert slow.json() == []
    assert not project.lookups.filter(label=FREE).exists()
    assert api.post(address, {"label": "-x"}).status_code == 400
    registry.faults()
    names = [FullName(FREE, e) for e in ("com", "net")]
    claim_names(names[:1], "somebody")
    assert [c["extension"] for c in api.post(address, {"label": FREE}).json()] == ["net"]
    assert claim_names(names[1:], "another") == names[1:]


def test_what_is_to_be_checked_has_to_be_said(api: APIClient, project: Project) -> None:
    address = f"/api/projects/{project.pk}/checks"
    for what in ("labels", "full_names"):
        refused = api.post(address, {"what": what})
        assert refused.status_code == 400
        assert refused.json()["problems"][0]["path"] == what
    many = {"what": "labels", "labels": [f"name{n}" for n in range(600)], "everywhere": True}
    refused = api.post(address, many)
    assert refused.status_code == 409
    assert "At most 100,000 full names" in refused.json()["message"]


def test_the_ladder_shows_the_first_open_form(api: APIClient, project: Project) -> None:
    address = f"/api/projects/{project.pk}/names/inkpost/fallback"
    save_answers(project.pk, [answer("inkpost", status="taken"), answer("ink-post", likely=True)])
    rungs = api.get(address).json()
    assert [r["kind"] for r in rungs[:3]] == ["exact_first", "exact_next", "hyphen_first"]
    assert rungs[0]["names"][0]["status"] == "taken"
    assert rungs[2]["names"][0] | {"asked_at": None} == {
        "full_name": "ink-post.com", "label": "ink-post", "extension": "com", "status": "open",
        "likely": True, "asked_at": None,
    }  # fmt: skip
    added = next(r for r in rungs if r["kind"] == "added_first")
    assert len(added["names"]) >= 3
    assert all("inkpost" in n["label"] for n in added["names"])
    brief = {**project.brief, "fallback": ["hyphen_first", "exact_first"]}
    api.patch(f"/api/projects/{project.pk}", {"brief": brief})
    assert [r["kind"] for r in api.get(address).json()] == ["hyphen_first", "exact_first"]
    names = [n["full_name"] for r in rungs for n in r["names"]]
    body = {"what": "full_names", "full_names": names}
    started = api.post(f"/api/projects/{project.pk}/checks", body).json()
    assert 0 < started["total"] < len(names) + 1


def priced(label: str) -> Answer:
    moment = datetime(2026, 11, 25, 10, tzinfo=UTC)
    seller = Evidence("quote", "premium", moment, quote=Quote("EUR", Decimal(120), Decimal(30)))
    registry = Evidence("rdap", "unregistered", moment, "http://registry.example/x")
    return answer(label, status="premium", evidence=(registry, seller), aim="buying")


def test_statuses_leave_as_csv_xlsx_and_json(api: APIClient, project: Project) -> None:
    api.put(f"/api/projects/{project.pk}/pasted", {"text": f"{FREE}\nletter.org"})
    save_answers(project.pk, [priced(FREE)])
    address = f"/api/projects/{project.pk}/export"
    rows = list(
        csv.DictReader(
            io.StringIO(api.get(address, {"what": "pasted"}).content.decode("utf-8-sig"))
        )
    )
    assert [r["full name"] for r in rows] == [f"{FREE}.com", f"{FREE}.net", "letter.org"]
    first = rows[0]
    assert (first["status"], first["first year"], first["currency"]) == ("premium", "120", "EUR")
    assert "Registry (RDAP) has no such registration. (2026-11-25 10:00)" in first["evidence"]
    assert first["age in minutes"] == "0"
    assert rows[1]["status"] == "not asked"
    xlsx = api.get(address, {"what": "pasted", "form": "xlsx"})
    sheet = load_workbook(io.BytesIO(xlsx.content)).active
    assert sheet is not None
    assert [c.value for c in sheet[2]][:3] == [f"{FREE}.com", FREE, ".com"]
    assert all(c.data_type != "f" for row in sheet.iter_rows() for c in row)
    told = json.loads(api.get(address, {"what": "pasted", "form": "json"}).content)
    assert told[0]["holder asks"] is None
    shown = api.get(address, {"text": "ink", "open_in": "any"})
    assert shown.content.decode("utf-8-sig").count("\n") == 1
    assert "attachment" in shown["Content-Disposition"]
    assert api.get(address, {"form": "pdf"}).status_code == 400


def test_the_rows_shown_are_checked(api: APIClient, project: Project) -> None:
    some = project.candidates.order_by("rank").values_list("label", flat=True)[3][:4]
    address = f"/api/projects/{project.pk}/names/check"
    started = api.post(address, {"shown": {"text": some}}).json()
    assert started["total"] == 2 * project.candidates.filter(label__contains=some).count()
    refused = api.post(address, {"shown": {"open_in": "zuerich"}})
    assert refused.status_code == 400


@pytest.mark.django_db(transaction=True)
def test_answers_stream_by_number_and_a_break_loses_none(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(streaming, "PROGRESS_EVERY", 0.1)
    owner = User.objects.create_user("clio")
    project = create_project(owner=owner, name="Streamed", brief=BRIEF)
    other = User.objects.create_user("joss")

    async def read(client: AsyncClient, after: str, wanted: int) -> list[tuple[str, list[str]]]:
        address = f"/api/projects/{project.pk}/checks/stream{after}"
        response = await client.get(address)
        assert response.status_code == 200
        found: list[tuple[str, list[str]]] = []
        async for chunk in response.streaming_content:
            for block in chunk.decode().split("\n\n"):
                lines = dict(line.split(": ", 1) for line in block.splitlines() if ": " in line)
                if lines.get("event") == "answers":
                    cells = json.loads(lines["data"])["cells"]
                    found.append((lines["id"], [c["label"] for c in cells]))
            if sum(len(labels) for _, labels in found) >= wanted:
                break
        await response.streaming_content.aclose()
        return found

    async def story() -> None:
        client, stranger = AsyncClient(), AsyncClient()
        await client.aforce_login(owner)
        await stranger.aforce_login(other)
        address = f"/api/projects/{project.pk}/checks/stream"
        assert (await AsyncClient().get(address)).status_code == 403
        assert (await stranger.get(address)).status_code == 404
        assert (await client.get(f"{address}?after=x")).status_code == 400
        store = sync_to_async(save_answers)
        await store(project.pk, [answer("one"), answer("two")])
        seen = await read(client, "?after=0", 2)
        assert seen == [("2", ["one", "two"])]
        # The browser is away while the third comes; it asks for what came after the last it saw.
        await store(project.pk, [answer("three")])
        reading = asyncio.create_task(read(client, "?after=2", 2))
        await asyncio.sleep(0.5)
        await store(project.pk, [answer("four")])
        assert await asyncio.wait_for(reading, 10) == [("3", ["three"]), ("4", ["four"])]

    asyncio.run(story())


async def test_streams_are_counted_for_each_person_and_in_total_before_they_begin(
    settings: Any,
) -> None:
    redis.Redis.from_url(settings.REDIS_URL).flushdb()
    settings.MOST_STREAMS, settings.MOST_STREAMS_OF_ONE = 5, 3
    for url in (settings.REDIS_URL, "redis://127.0.0.1:9/0"):  # while Redis is away, too
        settings.REDIS_URL = url
        seats = streaming._Seats()
        mine = await asyncio.gather(*(seats.take(f"a{n}", 1) for n in range(8)))
        assert sum(mine) == 3
        others = await asyncio.gather(*(seats.take(f"b{n}", n + 2) for n in range(8)))
        assert sum(others) == 2
        await seats.leave(f"a{mine.index(True)}", 1)
        assert await seats.take("c", 9)
        assert not await seats.take("d", 10)


@pytest.mark.django_db(transaction=True)
def test_a_stream_is_refused_beyond_the_limit_and_ends_with_the_session(
    settings: Any, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(streaming, "SESSION_EVERY", 0.1)
    redis.Redis.from_url(settings.REDIS_URL).flushdb()
    settings.MOST_STREAMS_OF_ONE = 1
    owner = User.objects.create_user("thea")
    project = create_project(owner=owner, name="Streamed", brief=BRIEF)

    async def story() -> None:
        client = AsyncClient()
        await client.aforce_login(owner)
        address = f"/api/projects/{project.pk}/checks/stream"
        stream = (await client.get(address)).streaming_content
        assert "retry" in (await anext(stream)).decode()
        second = await client.get(address)
        assert (second.status_code, json.loads(second.content)["code"]) == (503, "too_many_streams")
        assert int(second["Retry-After"]) > 0
        await sync_to_async(end_sessions)(owner)
        async with asyncio.timeout(10):
            async for _ in stream:
                pass
        assert (await client.get(address)).status_code == 403

    asyncio.run(story())


def test_a_price_stands_after_a_check_that_asks_no_seller(api: APIClient, project: Project) -> None:
    """Only a seller knows of a price; that a registry finds the name free says nothing of it."""
    now = timezone.now()
    seller = Evidence(
        "quote", "premium", now - timedelta(hours=3), quote=Quote("EUR", Decimal(900), Decimal(60))
    )
    registry = Evidence("rdap", "unregistered", now, "http://registry.example/x")
    bought = answer("inkpost", status="premium", evidence=(registry, seller), aim="buying")
    save_answers(project.pk, [bought])
    save_answers(project.pk, [answer("inkpost", evidence=(registry,))])
    cell = project.lookups.get()
    assert (cell.status, cell.first_year, cell.currency) == ("premium", 900.0, "EUR")
    told = api.get(f"/api/projects/{project.pk}/names/inkpost").json()["evidence"]
    assert [e["earlier"] for e in told] == [False, True]
    # A registry that cannot be asked does not make it forgotten, either.
    failed = Evidence("rdap", "", now, trouble="timeout")
    save_answers(project.pk, [answer("inkpost", status="unsure", evidence=(failed,))])
    assert project.lookups.get().status == "unsure"
    save_answers(project.pk, [answer("inkpost", evidence=(registry,))])
    assert project.lookups.get().status == "premium"
    # What speaks against it does, and so does time.
    taken = Evidence("rdap", "registered", now)
    save_answers(project.pk, [answer("inkpost", status="taken", evidence=(taken,))])
    assert project.lookups.get().status == "taken"
    old = msgspec.structs.replace(seller, at=now - timedelta(days=8))
    late = answer("paperpost", status="premium", evidence=(registry, old), aim="buying")
    save_answers(project.pk, [late])
    save_answers(project.pk, [answer("paperpost", evidence=(registry,))])
    assert project.lookups.get(label="paperpost").status == "open"


def test_a_name_that_also_stands_with_an_extension_is_asked_under_those_chosen_too(
    api: APIClient, project: Project
) -> None:
    address = f"/api/projects/{project.pk}/pasted"
    text = "inkpost.ie\ninkpost\nquill.org\nbücher"
    taken = api.put(address, {"text": text, "extensions": ["net", "shop"]}).json()
    assert (taken["names"], taken["full_names"]) == (3, 6)
    page = api.get(address).json()
    assert {r["label"]: r["extensions"] for r in page["rows"]} == {
        "inkpost": ["ie", "net", "shop"], "quill": ["org"], "xn--bcher-kva": ["net", "shop"],
    }  # fmt: skip
    assert page["rows"][2]["shown"] == "bücher"
    assert page["extensions"] == ["net", "shop"]


def test_one_line_of_commas_is_as_many_names_as_may_be_taken(
    api: APIClient, project: Project
) -> None:
    address = f"/api/projects/{project.pk}/pasted"
    text = ",".join(f"n{n}" for n in range(20_000))
    taken = api.put(address, {"text": text}).json()
    assert (taken["lines"], taken["names"], taken["names_left_out"]) == (1, 5_000, 15_000)
    columns = api.put(address, {"text": "name,price\nink,12.50\npost,9\n"}).json()
    assert (columns["names"], columns["passed_over"], columns["bad_count"]) == (2, 2, 0)
    refused = api.put(address, {"text": "foo..com"}).json()["problems"]
    assert "Two dots follow each other" in refused[0]["message"]


def test_a_full_name_can_be_typed_and_looked_up_and_what_is_none_gets_its_reason(
    api: APIClient, project: Project
) -> None:
    names = f"/api/projects/{project.pk}/names"
    typed = api.get(f"{names}/InkPost.IE").json()
    assert (typed["label"], typed["typed_extension"]) == ("inkpost", "ie")
    quick = api.post(f"/api/projects/{project.pk}/quick", {"label": f"{FREE}.ie"}).json()
    assert {c["extension"] for c in quick} <= {"ie", "com", "net"}
    for odd, says in (
        ("-ink", "begin or end with a hyphen"), ("a" * 64, "at most 63"), ("ink/post", "“/”"),
        ("ink.nosuchthing", "no extension"), ("🎈", "not valid"), ("ink..com", "Two dots"),
    ):  # fmt: skip
        refused = api.get(f"{names}/{quote(odd, safe='')}")
        assert refused.status_code == 400, odd
        assert says in refused.json()["problems"][0]["message"]


def test_answers_before_buying_carry_prices_and_dates(api: APIClient, project: Project) -> None:
    gone = timezone.now() - timedelta(days=3)
    evidence = Evidence(
        "rdap",
        "dropping",
        gone,
        statuses=("pending delete",),
        registrar="Gullwing Names",
        drops=(gone, gone + timedelta(days=5)),
    )
    leaving = answer("inkpost", "net", "dropping", evidence=(evidence,))
    save_answers(project.pk, [priced("inkpost"), leaving])
    told = api.get(f"/api/projects/{project.pk}/names/inkpost").json()
    com, net = told["cells"]
    assert (com["first_year"], com["renewal"], com["currency"]) == ("120", "30", "EUR")
    assert net["drops_to"] > net["drops_from"]
    assert told["evidence"][-1]["registrar"] == "Gullwing Names"
    assert told["evidence"][-1]["statuses"] == ["pending delete"]
