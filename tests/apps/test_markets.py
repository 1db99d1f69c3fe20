"""Markets: lists brought as a whole or not at all."""

from __future__ import annotations

import gzip
import io
from collections.abc import Callable
from datetime import timedelta
from pathlib import Path
from typing import Any

import pytest
from django.core.management import CommandError, call_command
from django.utils import timezone
from rest_framework.test import APIClient

from tests.apps.market_lists import LIST, bring, market
from tests.conftest import Registry
from vinetag.apps.market import lists, refresh, tasks
from vinetag.apps.market.models import ListFile, MarketRow, OfferChange, OfferRow
from vinetag.apps.market.offers import offers_of
from vinetag.core.names import FullName
from vinetag.lake.unpacking import FeedError


@pytest.fixture
def read_at_once(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(tasks.read_list, "delay", tasks.read_list)


@pytest.mark.usefixtures("administrator", "read_at_once")
def test_a_list_is_brought_and_what_is_wrong_is_told(api: APIClient) -> None:
    answer = api.post(
        "/api/markets/fair/list?name=The+Fair", gzip.compress(LIST.encode()),
        content_type="application/octet-stream",
    )  # fmt: skip
    assert answer.status_code == 202, answer.json()
    told = api.get("/api/markets").json()
    [row], [file] = told["markets"], told["files"]
    assert (row["code"], row["name"], row["names"], row["followed"]) == (
        "fair",
        "The Fair",
        3,
        False,
    )
    assert (file["state"], file["taken"], file["new"], file["wrong"]) == ("done", 3, 3, 1)
    [problem] = file["problems"]
    assert (problem["path"], problem["code"]) == ("line 5, price", "feed_unpriced")
    assert OfferRow.objects.count() == 3
    assert list((lists.lake() / "inbox").iterdir()) == []


@pytest.mark.parametrize(
    ("code", "body", "status"),
    [("Fair Names", LIST, 400), ("fair", "", 400), ("fair", "  \n", 400), ("followed", LIST, 409)],
)
@pytest.mark.usefixtures("administrator")
def test_what_cannot_be_brought_is_refused(
    api: APIClient, code: str, body: str, status: int
) -> None:
    market("followed", address="/list.csv")
    answer = api.post(
        f"/api/markets/{code}/list", body.encode(), content_type="application/octet-stream"
    )
    assert answer.status_code == status, answer.json()
    assert not ListFile.objects.exists()


def test_only_administrators_bring_lists(api: APIClient) -> None:
    answer = api.post("/api/markets/fair/list", LIST, content_type="application/octet-stream")
    assert answer.status_code == 404
    told = api.get("/api/markets").json()
    assert (told["may_edit"], told["files"]) == (False, [])


def test_a_newer_list_tells_what_changed(db: None) -> None:
    row = market()
    bring(row)
    dearer = LIST.replace("1200", "1500").replace("paperbarn.com,asking,,,,,,,\n", "")
    brought = bring(row, dearer)
    edition = brought.edition
    assert (edition.new, edition.changed, edition.gone) == (0, 1, 1)
    changes = {c.label: (c.what, c.before, c.after) for c in OfferChange.objects.all()}
    assert changes == {
        "inkpost": ("price", "1200.000 EUR", "1500.000 EUR"), "paperbarn": ("gone", "", ""),
    }  # fmt: skip
    assert OfferRow.objects.get(label="paperbarn").gone_at is not None
    known = offers_of([FullName("paperbarn", "com"), FullName("inkpost", "com")])
    assert {str(name) for name in known} == {"inkpost.com"}
    # The same once more changes nothing, and one that comes back is there again.
    assert bring(row, dearer).edition.changed == 0
    bring(row)
    assert OfferRow.objects.get(label="paperbarn").gone_at is None
    assert OfferRow.objects.count() == 3


@pytest.mark.parametrize("body", ["<html>", LIST.replace("name,", "domain,"), "name,kind\nx,y\n"])
def test_a_list_that_is_none_leaves_the_one_before(db: None, body: str) -> None:
    row = market()
    bring(row)
    before = row.edition
    with pytest.raises(FeedError):
        bring(row, body)
    row.refresh_from_db()
    assert row.edition == before
    assert OfferRow.objects.filter(gone_at=None).count() == 3
    assert len(list((lists.lake() / "offers" / "fair").iterdir())) == 1


def test_a_list_cut_off_is_told_and_not_half_taken(db: None) -> None:
    row = market()
    file = refresh._queue(row, "a.gz", io.BytesIO(gzip.compress(LIST.encode())[:-12]), [])
    ListFile.objects.update(heartbeat_at=timezone.now() - timedelta(hours=1))
    refresh.read_file(file.pk)
    file.refresh_from_db()
    row.refresh_from_db()
    assert (file.state, [p["code"] for p in file.problems]) == ("failed", ["feed_broken"])
    assert "ends in the middle" in row.trouble
    assert not OfferRow.objects.exists()


def test_killed_while_it_is_stored_nothing_of_it_counts(
    db: None, monkeypatch: pytest.MonkeyPatch
) -> None:
    row = market()
    bring(row)
    file = refresh._queue(row, "b.csv", io.BytesIO(LIST.replace("1200", "9").encode()), [])
    ListFile.objects.update(heartbeat_at=timezone.now() - timedelta(hours=1))
    load = lists._load

    def killed(*about: Any) -> None:
        load(*about)
        raise KeyboardInterrupt

    monkeypatch.setattr(lists, "_load", killed)
    with pytest.raises(KeyboardInterrupt):
        refresh.read_file(file.pk)
    assert OfferRow.objects.get(label="inkpost", extension="com").price == 1200
    assert refresh.waiting_files() == []
    # Whoever finds it without a worker reads it again, and it counts once.
    monkeypatch.setattr(lists, "_load", load)
    ListFile.objects.update(heartbeat_at=timezone.now() - timedelta(hours=1))
    assert refresh.waiting_files() == [file.pk]
    refresh.read_file(file.pk)
    refresh.read_file(file.pk)
    assert OfferRow.objects.get(label="inkpost", extension="com").price == 9
    assert OfferChange.objects.count() == 1
    assert ListFile.objects.get(pk=file.pk).state == "done"


def test_a_list_that_kills_its_readers_is_given_up(db: None) -> None:
    file = refresh._queue(market(), "c.csv", io.BytesIO(LIST.encode()), [])
    long_ago = timezone.now() - timedelta(hours=1)
    ListFile.objects.update(heartbeat_at=long_ago, tries=refresh.MOST_TRIES)
    refresh.read_file(file.pk)
    file.refresh_from_db()
    assert (file.state, [p["code"] for p in file.problems]) == ("failed", ["feed_given_up"])


def test_nobody_reads_a_list_before_all_of_it_is_there(db: None) -> None:
    seen: list[list[int]] = []

    class Slow(io.BytesIO):
        def read(self, size: int | None = -1) -> bytes:
            seen.append(refresh.waiting_files())
            return super().read(size)

    row = market()
    older = refresh._queue(row, "old.csv", Slow(LIST.encode()), [])
    newer = refresh._queue(row, "new.csv", Slow(LIST.encode()), [])
    assert seen[0] == []
    assert seen[-1] == [older.pk]
    # Of two that wait only the newer is of use, and nothing is left of the other.
    assert refresh.waiting_files() == [newer.pk]
    assert [f.name for f in (lists.lake() / "inbox").iterdir()] == [f"{newer.pk}.bin"]


def test_two_lists_at_once_do_not_mix(db: None) -> None:
    row = market()
    stale = MarketRow.objects.get(pk=row.pk)
    bring(row)
    with pytest.raises(FeedError) as refused:
        lists.bring_list(stale, io.BytesIO(LIST.replace("1200", "1").encode()))
    assert refused.value.problems[0].code == "feed_overtaken"
    assert OfferRow.objects.get(label="inkpost", extension="com").price == 1200


def test_markets_of_the_settings_are_followed(
    db: None, registry: Registry, settings: Any, read_at_once: None
) -> None:
    settings.LOOKUP = type(settings.LOOKUP).from_env(registry.environment)
    assert refresh.is_due()
    assert refresh.is_coming()
    tasks.refresh_when_due()
    assert not refresh.is_due()
    assert not refresh.is_coming()
    rows = {row.code: row for row in MarketRow.objects.all()}
    assert len(rows) == 5
    assert all(row.names > 100 and not row.trouble for row in rows.values())
    assert {f.state for f in ListFile.objects.all()} == {"done"}
    # What has not changed does not come again; what fails keeps its list and says so.
    registry.faults({"service": "markets", "kind": "500", "registry": "ebb"})
    refresh.refresh_markets()
    assert ListFile.objects.count() == 5
    assert MarketRow.objects.get(code="ebb").trouble
    assert MarketRow.objects.get(code="ebb").names == rows["ebb"].names


def test_a_command_brings_a_list_of_any_size(
    db: None, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    file = tmp_path / "offers.csv"
    file.write_text(LIST, "utf-8")
    call_command("bring_offers", "fair", str(file), "--name", "The Fair")
    out = capsys.readouterr()
    assert "3 names" in out.out
    assert "line 5, price" in out.err
    assert MarketRow.objects.get(code="fair").name == "The Fair"
    with pytest.raises(CommandError):
        call_command("bring_offers", "fair", str(tmp_path / "missing.csv"))
    file.write_text("<html>", "utf-8")
    with pytest.raises(CommandError):
        call_command("bring_offers", "fair", str(file))


def test_what_is_thrown_away_is_swept(
    db: None, monkeypatch: pytest.MonkeyPatch, django_assert_max_num_queries: Callable[..., Any]
) -> None:
    left = lists.lake() / "work" / "left"
    left.mkdir(parents=True)
    (left / "plain").write_text("x")
    lists.sweep_workshop(1e6)
    assert left.exists()
    lists.sweep_workshop(-1)
    assert not left.exists()
    bring(market())
    with django_assert_max_num_queries(3):
        assert len(offers_of(FullName(f"name{n}", "com") for n in range(1_500))) == 0
