"""Links for people without an account: what they may do, what it comes to, and when it ends."""

import logging
from datetime import datetime, timedelta
from typing import Any

import pytest
from django.core.cache import cache
from django.utils import timezone
from rest_framework.test import APIClient

from tests.apps.conftest import client_of
from vinetag.apps.accounts.models import User
from vinetag.apps.availability.models import Lookup
from vinetag.apps.naming.models import Project
from vinetag.apps.sharing import services
from vinetag.apps.sharing.api.guests import JoinThrottle
from vinetag.apps.sharing.models import Guest, Share
from vinetag.apps.shortlists.services import keep, unkeep
from vinetag.apps.vetting import vettings
from vinetag.apps.vetting.tasks import run_vetting
from vinetag.config.logs import WithoutTokens

NAMES = ["inkpost", "knightpost"]


def in_days(days: float) -> datetime:
    return timezone.now() + timedelta(days=days)


@pytest.fixture
def share(project: Project) -> Share:
    keep(project=project, labels=[*NAMES, "secretname"])
    return services.share_names(project=project, title="Which?", labels=NAMES, ends_at=in_days(7))


def guest_of(share: Share, name: str = "") -> APIClient:
    client = APIClient()
    assert client.post(f"/api/shared/{share.token}/join", {"first_name": name}).status_code == 200
    return client


def results(project: Project, share: Share) -> dict[str, Any]:
    page = client_of(project.owner).get(f"/api/projects/{project.pk}/shares/{share.pk}").json()
    return {"people": page["people"], **{o["label"]: o for o in page["outcomes"]}}


def test_the_owner_makes_a_link_for_kept_names(api: APIClient, project: Project) -> None:
    keep(project=project, labels=NAMES)
    address = f"/api/projects/{project.pk}/shares"
    body = {"title": "Which?", "labels": NAMES, "ends_at": in_days(7).isoformat()}
    made = api.post(address, body).json()
    assert (made["state"], made["people"], made["labels"]) == ("open", 0, NAMES)
    assert len(made["token"]) >= 32
    wrong = {"title": " ", "labels": ["gone"], "ends_at": in_days(-1).isoformat()}
    refused = api.post(address, wrong).json()["problems"]
    assert [p["path"] for p in refused] == ["title", "labels.0", "ends_at"]
    assert [s["id"] for s in api.get(address).json()] == [made["id"]]


def test_guests_see_only_the_names_chosen_and_nothing_of_the_owner(share: Share) -> None:
    page = APIClient().get(f"/api/shared/{share.token}")
    assert [n["label"] for n in page.json()["names"]] == NAMES
    assert not page.json()["joined"]
    assert "secretname" not in page.content.decode()
    assert share.project.owner.username not in page.content.decode()


def test_guests_vote_and_may_change_their_minds(project: Project, share: Share) -> None:
    ana, ben = guest_of(share, "Ana"), guest_of(share)
    address = f"/api/shared/{share.token}"
    for client, value in ((ana, 1), (ana, -1), (ben, 1)):
        voted = client.post(f"{address}/vote", {"label": "inkpost", "value": value})
        assert voted.status_code == 204
    mine = ana.get(address).json()
    assert (mine["names"][0]["vote"], mine["first_name"]) == (-1, "Ana")
    found = results(project, share)
    assert (found["people"], found["inkpost"]["liked"], found["inkpost"]["disliked"]) == (2, 1, 1)
    assert ana.post(f"{address}/vote", {"label": "secretname", "value": 1}).status_code == 400
    # Joining again is the same guest.
    ana.post(f"{address}/join", {"first_name": "Someone else"})
    assert Guest.objects.filter(share=share).count() == 2


def test_who_has_not_joined_takes_no_part(share: Share) -> None:
    address = f"/api/shared/{share.token}"
    client = APIClient()
    for path, body in (
        ("vote", {"label": "inkpost", "value": 1}),
        ("comments", {"label": "inkpost", "text": "hello"}),
        ("hearing", {"label": "inkpost", "typed": "x"}),
        ("recall", {"shown": NAMES, "typed": "x"}),
    ):
        answer = client.post(f"{address}/{path}", body)
        assert (answer.status_code, answer.json()["code"]) == (409, "not_joined")


def test_comments_are_read_by_all_and_taken_back_by_their_author(share: Share) -> None:
    ana, ben = guest_of(share, "Ana"), guest_of(share, "Ben")
    address = f"/api/shared/{share.token}/comments"
    said = ana.post(address, {"label": "inkpost", "text": " <b>Nice</b> "}).json()
    assert (said["text"], said["first_name"]) == ("<b>Nice</b>", "Ana")
    page = ben.get(f"/api/shared/{share.token}").json()
    assert [c["text"] for c in page["names"][0]["comments"]] == ["<b>Nice</b>"]
    assert page["mine"] == []
    assert ben.delete(f"{address}/{said['id']}").status_code == 404
    assert ana.delete(f"{address}/{said['id']}").status_code == 204
    for text in ("", "x" * 501):
        assert ana.post(address, {"label": "inkpost", "text": text}).status_code == 400


def test_hearing_stands_beside_the_computed_spelling(project: Project, share: Share) -> None:
    address = f"/api/shared/{share.token}/hearing"
    for typed, right in (("Night Post", False), ("knight post", True), ("nightpost", False)):
        client = guest_of(share)
        told = client.post(address, {"label": "knightpost", "typed": typed}).json()
        assert told == {"right": right}
        again = client.post(address, {"label": "knightpost", "typed": "knightpost"}).json()
        assert again == {"right": right}  # only the first try counts
    found = results(project, share)["knightpost"]
    assert (found["heard"], found["right"]) == (3, 1)
    assert found["wrong"] == {"night post": 1, "nightpost": 1}
    assert found["spelling"] < 60
    assert results(project, share)["inkpost"]["heard"] == 0


def test_what_is_remembered(project: Project, share: Share) -> None:
    client = guest_of(share)
    address = f"/api/shared/{share.token}/recall"
    told = client.post(address, {"shown": NAMES, "typed": "ink post, skyowl"}).json()
    assert told == {"remembered": ["inkpost"]}
    client.post(address, {"shown": NAMES, "typed": "knightpost"})
    found = results(project, share)
    assert (found["inkpost"]["shown"], found["inkpost"]["remembered"]) == (1, 1)
    assert (found["knightpost"]["shown"], found["knightpost"]["remembered"]) == (1, 0)
    assert client.get(f"/api/shared/{share.token}").json()["recalled"]
    assert guest_of(share).post(address, {"shown": [], "typed": ""}).status_code == 400


def test_a_link_ends(api: APIClient, project: Project, share: Share) -> None:
    guest = guest_of(share)
    address = f"/api/shared/{share.token}"
    own = f"/api/projects/{project.pk}/shares/{share.pk}"
    assert api.patch(own, {"revoked": True}).json()["state"] == "revoked"
    closed = guest.get(address)
    assert (closed.status_code, closed.json()["code"]) == (409, "share_closed")
    assert guest.post(f"{address}/vote", {"label": "inkpost", "value": 1}).status_code == 409
    assert api.patch(own, {"revoked": False}).json()["state"] == "open"
    assert guest.get(address).json()["joined"]
    Share.objects.update(ends_at=in_days(-1))
    assert "has ended" in guest.get(address).json()["message"]
    assert api.get(own).json()["share"]["state"] == "ended"
    assert guest.get("/api/shared/none").status_code == 404


def test_names_taken_off_the_shortlist_stay_under_the_link(share: Share) -> None:
    unkeep(project=share.project, labels=["inkpost"])
    page = guest_of(share).get(f"/api/shared/{share.token}").json()
    assert [n["label"] for n in page["names"]] == NAMES


def test_limits_hold(
    share: Share, project: Project, person: User, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(services, "MOST_GUESTS", 1)
    monkeypatch.setattr(services, "MOST_SHARES", 1)
    guest_of(share)
    full = APIClient().post(f"/api/shared/{share.token}/join", {})
    assert (full.status_code, full.json()["code"]) == (409, "share_full")
    body = {"title": "More", "labels": NAMES, "ends_at": in_days(7).isoformat()}
    assert client_of(person).post(f"/api/projects/{project.pk}/shares", body).status_code == 409


def test_one_visitor_cannot_use_a_link_up(
    share: Share, settings: Any, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(JoinThrottle, "THROTTLE_RATES", {"guests": "500/min", "joining": "3/hour"})
    cache.clear()
    said = [
        APIClient(REMOTE_ADDR="10.7.7.7").post(f"/api/shared/{share.token}/join", {}).status_code
        for _ in range(5)
    ]
    assert said == [200, 200, 200, 429, 429]
    other = APIClient(REMOTE_ADDR="10.7.7.8").post(f"/api/shared/{share.token}/join", {})
    assert other.status_code == 200


def test_a_token_is_compared_to_the_letter_and_kept_out_of_logs(
    share: Share, caplog: pytest.LogCaptureFixture
) -> None:
    turned = share.token.swapcase()
    assert APIClient().get(f"/api/shared/{turned}").status_code == 404
    record = logging.LogRecord(
        "x", logging.WARNING, "", 1, "Not Found: %s", (f"/api/shared/{share.token}/vote",), None
    )
    assert WithoutTokens().filter(record)
    assert record.getMessage() == "Not Found: /api/shared/…/vote"
    for path in (f"/api/feeds/{share.token}/dates.ics", f"/watching?confirm={share.token}"):
        record = logging.LogRecord("x", logging.WARNING, "", 1, "Not Found: %s", (path,), None)
        WithoutTokens().filter(record)
        assert share.token not in record.getMessage()
        assert record.getMessage().startswith("Not Found: /")


def test_a_guest_is_shown_an_extension_that_is_not_gone(project: Project, share: Share) -> None:
    for extension, status in (("com", "taken"), ("net", "open")):
        Lookup.objects.create(
            project=project, label=NAMES[0], extension=extension, status=status,
            asked_at=timezone.now(),
        )  # fmt: skip
    names = APIClient().get(f"/api/shared/{share.token}").json()["names"]
    assert [n["extension"] for n in names[:2]] == ["net", "com"]
    Lookup.objects.update(status="taken")
    names = APIClient().get(f"/api/shared/{share.token}").json()["names"]
    assert names[0]["extension"] == ""


@pytest.mark.parametrize("vetted", [True, False])
def test_what_was_found_is_shown_where_the_owner_chose_so(
    api: APIClient, project: Project, share: Share, vetted: bool
) -> None:
    found = vettings.start_vetting(project=project, names=["inkpost"], kinds=["said"])
    run_vetting(found.pk)
    vettings.accept(project=project, label="inkpost", kind="said", accepted=True, note="Mine.")
    body = {"title": "W", "labels": NAMES, "ends_at": in_days(2).isoformat(), "vetted": vetted}
    made = api.post(f"/api/projects/{project.pk}/shares", body).json()
    assert made["vetted"] is vetted
    guest = APIClient()
    guest.post(f"/api/shared/{made['token']}/join", {})
    names = {n["label"]: n for n in guest.get(f"/api/shared/{made['token']}").json()["names"]}
    assert [one["kind"] for one in names["inkpost"]["vetted"]] == (["said"] if vetted else [])
    assert names["knightpost"]["vetted"] == []
    # The owner's own notes stay theirs.
    assert "Mine." not in str(names)
