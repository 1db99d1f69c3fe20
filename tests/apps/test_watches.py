"""Watches: kept with a reason and an end, refused as a whole, read page by page."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

import pytest
from django.core.cache import cache
from django.utils import timezone
from rest_framework.test import APIClient

from tests.apps.conftest import BRIEF, client_of
from tests.apps.test_hunted import know
from tests.apps.watched import watch
from vinetag.apps.accounts.errors import ConflictError, RefusedError
from vinetag.apps.accounts.joining import Bringing
from vinetag.apps.accounts.models import User
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import create_project
from vinetag.apps.watching.filed import AskedItem, WatchingFields, WatchItem, write
from vinetag.apps.watching.filed import bring as bring_filed
from vinetag.apps.watching.models import Happening, Watch, Watched
from vinetag.apps.watching.telling import tell_changes
from vinetag.apps.watching.watches import (
    change_watch,
    end_overdue,
    forget_old,
)

DAY = timedelta(days=1)


def test_a_watch_is_kept_with_its_reason_and_its_end(api: APIClient, project: Project) -> None:
    path = f"/api/projects/{project.pk}/watches"
    sent = {"kind": "name", "names": ["inkpost.com"], "reason": "  the  favourite "}
    made = api.post(path, sent)
    assert made.status_code == 201, made.json()
    kept = made.json()
    assert (kept["title"], kept["reason"], kept["names"]) == ("inkpost.com", "the favourite", 1)
    assert kept["ends_on"] == (timezone.localdate() + 90 * DAY).isoformat()
    assert kept["first"] == "inkpost.com"
    several = {"kind": "label", "names": ["paperbarn"], "extensions": ["com", ".ie"]}
    assert api.post(path, several).json()["title"] == "paperbarn under 2 extensions"
    listed = api.get("/api/watches").json()
    assert [one["kind"] for one in listed["watches"]] == ["label", "name"]
    assert listed["standing"] == {
        "names": 3, "most_names": 10_000, "watches": 2, "spent": 0, "budget": 2_000,
    }  # fmt: skip
    page = api.get(f"/api/projects/{project.pk}/names/paperbarn").json()
    assert [one["extension"] for one in page["watched"]] == ["com", "ie"]
    # Ended and gone on with; what is over is asked about no more.
    one = f"/api/watches/{kept['id']}"
    assert api.patch(one, {"ended": True}).json()["ended_at"] is not None
    assert Watched.objects.get(watch=kept["id"]).next_at is None
    assert api.get(f"/api/projects/{project.pk}/names/inkpost").json()["watched"] == []
    assert api.patch(one, {"ended": False, "reason": "again"}).json()["ended_at"] is None
    assert Watched.objects.get(watch=kept["id"]).next_at is not None
    [row] = api.get(f"{one}/names").json()["rows"]
    assert (row["label"], row["known"], row["trouble"]) == ("inkpost", {}, "")
    assert api.delete(one).status_code == 204


@pytest.mark.parametrize(
    ("sent", "paths"),
    [
        ({"kind": "name", "names": []}, {"names"}),
        ({"kind": "name", "names": ["ink post.com", "-x.com", "a.nosuch"]},
         {"names.0", "names.1", "names.2"}),
        ({"kind": "label", "names": ["ink"], "extensions": ["com", "nosuch"]}, {"extensions.1"}),
        ({"kind": "name", "names": ["ink.com"], "ends_on": "2020-01-01"}, {"ends_on"}),
        ({"kind": "name", "names": ["ink.com"], "ends_on": "soon"}, {"ends_on"}),
        ({"kind": "garden", "names": ["ink.com"]}, {"kind"}),
        ({"kind": "hunt", "question": {"price_max": "cheap"}}, {"price_max"}),
        ({"kind": "price", "seller": "nobody", "extension": "nosuch", "action": "move"},
         {"seller", "extension", "action"}),
    ],
)  # fmt: skip
def test_what_makes_no_sense_is_refused_with_its_place(
    api: APIClient, project: Project, sent: dict[str, Any], paths: set[str]
) -> None:
    answer = api.post(f"/api/projects/{project.pk}/watches", sent)
    assert answer.status_code == 400
    assert {p["path"] for p in answer.json()["problems"]} == paths
    assert all(p["message"] for p in answer.json()["problems"])
    assert not Watch.objects.exists()


def test_more_than_can_be_watched_is_refused_as_a_whole(
    api: APIClient, project: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    names = [f"n{i}" for i in range(100_000)]
    answer = api.post(f"/api/projects/{project.pk}/watches", {"kind": "name", "names": names})
    assert answer.status_code == 400
    assert answer.json()["problems"][0]["message"] == (
        "At most 10,000 here; these are 100,000. Nothing was added."
    )
    monkeypatch.setattr("vinetag.apps.watching.watches.MOST_NAMES", 3)
    watch(project, "inkpost.com", "inkpost.net")
    with pytest.raises(ConflictError, match="you watch 2, and these are 2 more"):
        watch(project, "paperbarn.com", "paperbarn.net")
    with pytest.raises(ConflictError, match="is watched already"):
        watch(project, "inkpost.com")
    assert Watched.objects.count() == 2


def test_nobody_sees_or_changes_what_another_watches(other: User, project: Project) -> None:
    one = watch(project)
    api = client_of(other)
    assert api.get("/api/watches").json()["watches"] == []
    for method, path in (
        ("patch", f"watches/{one.pk}"), ("delete", f"watches/{one.pk}"),
        ("get", f"watches/{one.pk}/names"), ("post", f"projects/{project.pk}/watches"),
    ):  # fmt: skip
        assert getattr(api, method)(f"/api/{path}", {}).status_code == 404
    know(project, "inkpost.com", "registered")
    tell_changes()
    know(project, "inkpost.com", "unregistered")
    tell_changes()
    assert Happening.objects.count() == 1
    assert api.get("/api/happenings").json() == {"rows": [], "unread": 0}
    api.post("/api/happenings/read", {"upto": 1_000_000})
    assert client_of(project.owner).get("/api/happenings").json()["unread"] == 1


def test_watches_end_on_their_day(project: Project) -> None:
    one = watch(project)
    assert end_overdue() == 0
    Watch.objects.update(ends_on=timezone.localdate())
    assert end_overdue() == 1
    assert Watched.objects.get(watch=one).next_at is None
    again = change_watch(one, ended=False)
    assert again.ended_at is None
    assert again.ends_on > timezone.localdate()
    with pytest.raises(RefusedError):
        change_watch(one, ends_on=timezone.localdate())


def test_what_is_long_over_is_forgotten_once_a_day(project: Project) -> None:
    one, now = watch(project), timezone.now()
    for days in (1, 500):
        Happening.objects.create(
            owner=project.owner, watch=one, what="status", sign=str(days), at=now - days * DAY
        )
    cache.clear()
    assert (forget_old(), forget_old()) == (1, 0)
    assert Happening.objects.get().sign == "1"


def test_what_a_file_has_of_watches_is_watched_as_far_as_it_can_be(
    project: Project, other: User
) -> None:
    watch(project, "inkpost.com", reason="ours")
    ended = watch(project, "gone.com")
    change_watch(ended, ended=True)
    [kept] = write(project)["watches"]
    assert (kept["names"], kept["reason"]) == (["inkpost.com"], "ours")
    theirs = create_project(owner=other, name="Theirs", brief=BRIEF)
    past = (timezone.localdate() - DAY).isoformat()
    items = (
        WatchItem("name", "one", "", "", ("inkpost.com",)),
        # A day that is over gives way to the usual time.
        WatchItem("name", "two", "", past, ("paperbarn.com",)),
        WatchItem("name", "three", "", "soon", ("reed.com",)),
        # What makes no sense here is left out, and holds up nothing.
        WatchItem("name", "bad", "", "", ("-x.com",)),
        WatchItem("price", "bad", "", "", (), AskedItem(seller="nobody", extension="com")),
        WatchItem("hunt", "bad", "", "", (), AskedItem({"price_max": "call"})),
        WatchItem("hunt", "four", "", "", (), AskedItem({"price_max": "100"})),
    )
    bring_filed(Bringing(theirs, WatchingFields(items), True, lambda _share: None))
    titles = list(theirs.watches.order_by("pk").values_list("title", flat=True))
    assert titles == ["one", "two", "three", "four"]
    assert all(one.ends_on > timezone.localdate() for one in theirs.watches.all())


def test_names_of_a_watch_are_read_page_by_page(api: APIClient, project: Project) -> None:
    one = watch(project, *(f"ink{n:03}.com" for n in range(120)), title="many")
    page = api.get(f"/api/watches/{one.pk}/names?offset=100&limit=50").json()
    assert (page["total"], len(page["rows"]), page["rows"][0]["label"]) == (120, 20, "ink100")
    for wrong in ("?limit=0", "?limit=1000", "?offset=-1", "?offset=x"):
        assert api.get(f"/api/watches/{one.pk}/names{wrong}").status_code == 400
    assert api.get("/api/watches").json()["watches"][0]["first"] == ""


def test_happenings_are_read_back_in_time(api: APIClient, person: User, project: Project) -> None:
    one = watch(project)
    for n in range(5):
        Happening.objects.create(
            owner=person, watch=one, label="inkpost", extension="com", what="near",
            args={"name": "inkpost.com", "of": "ends", "after": "2027-01-02T12:00:00+00:00"},
            sign=str(n), at=timezone.now(),
        )  # fmt: skip
    first = api.get("/api/happenings?limit=2&zone=Europe/Stockholm").json()
    assert first["unread"] == 5
    assert first["rows"][0]["text"].endswith("2 January 2027, 13:00 CET.")
    oldest = first["rows"][-1]["id"]
    rest = api.get(f"/api/happenings?before={oldest}").json()["rows"]
    assert [row["id"] for row in rest] == sorted((r["id"] for r in rest), reverse=True)
    assert len(rest) == 3
    # A zone nobody knows is that of the seas.
    text = api.get("/api/happenings?zone=Mars/Crater").json()["rows"][0]["text"]
    assert text.endswith("12:00 UTC.")
