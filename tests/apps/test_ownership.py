"""Every endpoint of a project: the owner may, nobody else may even know it is there."""

from datetime import timedelta

import pytest
from django.urls import URLPattern, URLResolver, get_resolver
from django.utils import timezone
from rest_framework.test import APIClient

from tests.apps.bought import HOLDER, an_order
from tests.apps.conftest import client_of
from vinetag.apps.accounts.models import User
from vinetag.apps.availability.checks import start_check
from vinetag.apps.bench.filing import start_copy
from vinetag.apps.costs.by_hand import make_seller
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.worlds import keep_world
from vinetag.apps.ordering.basket import add_names
from vinetag.apps.ordering.contacts import save_contact
from vinetag.apps.ordering.models import Receipt
from vinetag.apps.owning.models import OwnedName
from vinetag.apps.phrases.bringing import type_phrases
from vinetag.apps.sharing.services import share_names
from vinetag.apps.shortlists.services import keep
from vinetag.apps.vetting.vettings import start_vetting
from vinetag.apps.watching.feeds import make_feed
from vinetag.apps.watching.watches import Wish, start_watch

TERMS = {"name": "Corner Shop Names", "country": "IE", "currency": "EUR"}
COUPON = "code,takes,value\nX,percent,5\n"
OF_A_PROJECT = [
    ("get", "projects/{p}", None, 200),
    ("patch", "projects/{p}", {"name": "New"}, 200),
    ("delete", "projects/{p}", None, 204),
    ("post", "projects/{p}/restore", None, 200),
    ("get", "projects/{p}/names", None, 200),
    ("get", "projects/{p}/names/inkpost", None, 200),
    ("get", "projects/{p}/names/inkpost/near", None, 200),
    ("get", "projects/{p}/names/inkpost/mistypes", None, 200),
    ("get", "projects/{p}/names/inkpost/vetting", None, 200),
    ("put", "projects/{p}/names/inkpost/vetting/marks", {"accepted": False}, 200),
    ("get", "projects/{p}/vetting", None, 200),
    ("get", "projects/{p}/phrases", None, 200),
    ("get", "projects/{p}/phrases/figures", None, 200),
    ("post", "projects/{p}/phrases/typed", {"text": "ink post"}, 200),
    ("post", "projects/{p}/phrases/asked", {"phrases": ["ink post"]}, 200),
    ("get", "projects/{p}/phrases/groups", None, 200),
    ("post", "projects/{p}/phrases/chosen", {"phrases": ["ink post"], "chosen": False}, 200),
    ("post", "projects/{p}/phrases/apart", {"phrases": ["ink post"]}, 204),
    ("post", "projects/{p}/phrases/aside", {"phrases": ["ink post"]}, 204),
    ("post", "projects/{p}/phrases/keywords", {"phrases": ["inkwell"]}, 404),
    ("post", "projects/{p}/phrases/head", {"phrase": "ink post"}, 200),
    ("get", "projects/{p}/phrases/names", None, 200),
    ("post", "projects/{p}/phrases/names/check", {}, 409),
    ("get", "projects/{p}/phrases/file", None, 200),
    ("get", "projects/{p}/phrases/one/ink post", None, 200),
    ("post", "projects/{p}/phrases/figures/look", None, 200),
    ("delete", "projects/{p}/phrases/figures/{h}", None, 200),
    ("get", "projects/{p}/hunt", None, 200),
    ("get", "projects/{p}/hunt/counts", None, 200),
    ("get", "projects/{p}/short", None, 200),
    ("get", "projects/{p}/prices", None, 200),
    ("post", "projects/{p}/watches", {"kind": "name", "names": ["inkwell.com"]}, 201),
    ("patch", "watches/{t}", {"reason": "short"}, 200),
    ("get", "watches/{t}/names", None, 200),
    ("delete", "watches/{t}", None, 204),
    ("delete", "feeds/{e}", None, 200),
    ("post", "projects/{p}/basket", {"names": ["inkwell.com"]}, 201),
    ("patch", "basket/items/{b}", {"years": 2}, 200),
    ("post", "basket/items/{b}/agree", {"sign": "x"}, 409),
    ("delete", "basket/items/{b}", None, 200),
    ("put", "contacts/{n}", {**HOLDER, "name": "Bram"}, 200),
    ("delete", "contacts/{n}", None, 200),
    ("patch", "contact-sets/{m}", {"name": "Ours"}, 200),
    ("delete", "contact-sets/{m}", None, 200),
    ("get", "orders/{d}", None, 200),
    ("post", "orders/{d}/pay", None, 409),
    ("post", "orders/{d}/pay-by-credit", None, 409),
    ("post", "orders/{d}/call-off", None, 200),
    ("post", "orders/{d}/carry-on", None, 200),
    ("get", "orders/{d}/receipts/receipt", None, 200),
    ("get", "orders/{d}/receipts/receipt/file", None, 200),
    ("post", "owned/{x}/let-go", {"typed": "another.com"}, 409),
    ("post", "owned/{x}/moving", {}, 200),
    ("post", "owned/{x}/move", {"sign": "x"}, 409),
    ("post", "owned/{x}/code", None, 409),
    ("get", "owned/{x}/keys", None, 409),
    ("put", "owned/{x}/keys", {"keys": []}, 200),
    ("post", "owned/{x}/leaving", {"allow": True}, 200),
    ("get", "owned/{x}/zone", None, 200),
    ("put", "owned/{x}/zone", {"records": [], "edition": 0}, 200),
    ("post", "owned/{x}/zone/judge", {"records": []}, 200),
    ("post", "owned/{x}/zone/master", {"text": "@ A 8.8.8.8"}, 200),
    ("post", "owned/{x}/zone/ready", {"set": "nomail", "given": {}, "records": []}, 200),
    ("get", "owned/{x}/zone/file", None, 200),
    ("post", "owned/{x}/zone/look", None, 200),
    ("post", "owned/{x}/zone/withdraw", None, 200),
    ("post", "projects/{p}/vetting", {"kinds": ["said"]}, 409),
    ("get", "projects/{p}/vetting/file", None, 200),
    ("post", "projects/{p}/vetting/{v}/stop", None, 200),
    ("post", "projects/{p}/vetting/{v}/resume", None, 409),
    ("get", "projects/{p}/words", None, 200),
    ("get", "projects/{p}/world", None, 200),
    ("delete", "worlds/{w}", None, 204),
    ("get", "projects/{p}/dots", None, 200),
    ("post", "projects/{p}/more", None, 200),
    ("get", "projects/{p}/dismissed", None, 200),
    ("post", "projects/{p}/dismissed", {"labels": ["inkwell"]}, 204),
    ("delete", "projects/{p}/dismissed", None, 204),
    ("post", "projects/{p}/dismissed/back", {"labels": ["inkwell"]}, 204),
    ("post", "projects/{p}/looks", {"labels": ["inkpost"], "verdict": "later"}, 204),
    ("get", "projects/{p}/names/counts", None, 200),
    ("get", "projects/{p}/names/labels", None, 200),
    ("put", "projects/{p}/views", {"view": "sort=name", "views": []}, 200),
    ("get", "projects/{p}/funnel", None, 200),
    ("get", "projects/{p}/checks", None, 200),
    ("post", "projects/{p}/checks", {"what": "labels", "labels": ["inkpost"]}, 409),
    ("post", "projects/{p}/names/check", {"shown": {"text": "inkpost"}}, 409),
    ("post", "projects/{p}/checks/{c}/resume", None, 409),
    ("get", "projects/{p}/checks/stream", None, 200),
    ("post", "projects/{p}/quick", {"label": "inkpost"}, 200),
    ("get", "projects/{p}/pasted", None, 200),
    ("put", "projects/{p}/pasted", {"text": "inkpost.com"}, 201),
    ("delete", "projects/{p}/pasted", None, 204),
    ("get", "projects/{p}/export", None, 200),
    ("get", "projects/{p}/names/inkpost/fallback", None, 200),
    ("post", "projects/{p}/checks/{c}/stop", None, 200),
    ("get", "projects/{p}/shortlist", None, 200),
    ("post", "projects/{p}/shortlist", {"labels": ["inkwell"]}, 201),
    ("get", "projects/{p}/shortlist/file", None, 200),
    ("get", "projects/{p}/duels", None, 200),
    ("post", "projects/{p}/duels", {"winner": "inkpost", "loser": "gone"}, 400),
    ("post", "projects/{p}/duels/back", None, 200),
    ("post", "projects/{p}/duels/order", None, 204),
    ("delete", "projects/{p}/duels", None, 204),
    ("get", "projects/{p}/file", None, 200),
    ("post", "projects/{p}/duplicate", None, 202),
    ("get", "filings/{f}", None, 200),
    ("put", "projects/{p}/archive", {"archived": True}, 200),
    ("get", "projects/{p}/shares", None, 200),
    ("post", "projects/{p}/shares", {"title": "", "labels": [], "ends_at": "2026-01-01"}, 400),
    ("get", "projects/{p}/shares/{s}", None, 200),
    ("patch", "projects/{p}/shares/{s}", {"revoked": True}, 200),
    ("delete", "projects/{p}/shares/{s}", None, 204),
    ("put", "projects/{p}/shortlist/order", {"labels": ["inkpost"]}, 204),
    ("patch", "projects/{p}/shortlist/names/inkpost", {"note": "x"}, 200),
    ("post", "projects/{p}/costs", {"full_names": ["inkpost.com"]}, 200),
    ("post", "projects/{p}/costs/file", {"full_names": ["inkpost.com"], "form": "csv"}, 200),
    ("put", "sellers/{o}", {"terms": TERMS}, 200),
    ("get", "sellers/{o}/prices", None, 200),
    ("put", "sellers/{o}/prices", {"text": "extension,action,price\ncom,register,9\n"}, 200),
    ("put", "sellers/{o}/coupons", {"text": COUPON}, 200),
    ("post", "sellers/{o}/held-coupons", {"text": COUPON}, 204),
    # It publishes nothing that could be asked for.
    ("post", "sellers/{o}/follow", None, 404),
    ("delete", "sellers/{o}", None, 204),
    ("post", "projects/{p}/shortlist/off", {"labels": ["inkpost"]}, 204),
]
FOR_EVERYONE = {
    "concepts", "session", "session/password", "session/end-all", "session/leave",
    "session/sign-up", "session/sign-in", "session/sign-out", "session/demo",
    "shared/<str:token>", "shared/<str:token>/join", "shared/<str:token>/vote",
    "shared/<str:token>/comments", "shared/<str:token>/comments/<int:comment_id>",
    "shared/<str:token>/hearing", "shared/<str:token>/recall",
    "feeds/<str:token>/changes.atom", "feeds/<str:token>/dates.ics", "payments/notice",
}  # fmt: skip
FOR_PEOPLE = {
    "projects", "vocabulary", "examples", "extensions", "proposals", "extensions/file",
    "extensions/<str:extension>", "wordmarks", "wordmark", "overview", "projects/file",
    "preferences", "fields", "worlds", "sellers", "sellers/refresh", "coupons/reports", "rates",
    "marks", "platforms", "markets", "markets/{o}/list", "scarcity",
    "basket", "basket/back", "basket/review", "basket/file",
    "contacts", "contacts/form", "contact-sets", "orders",
    "owned", "owned/facets", "owned/table", "owned/file", "owned/months", "owned/off",
    "owned/back", "owned/ask", "owned/find", "owned/take-over", "owned/renewing", "owned/renew",
    "owned/servers", "owned/lock",
    "watches", "happenings", "happenings/read", "telling", "telling/confirm", "feeds",
}  # fmt: skip


@pytest.mark.parametrize(("method", "path", "body", "status"), OF_A_PROJECT)
def test_a_project_answers_its_owner_only(
    person: User, other: User, project: Project, method: str, path: str, body: object, status: int
) -> None:
    keep(project=project, labels=["inkpost"])
    check = start_check(project=project, labels=["inkpost"])
    end = timezone.now() + timedelta(days=7)
    share = share_names(project=project, title="Which?", labels=["inkpost"], ends_at=end)
    kept = keep_world(owner=person, title="Clay", entries={"things": ["kiln"]})
    filed = start_copy(owner=person, project=project)
    vetting = start_vetting(project=project, kinds=["said"]).pk
    watch = start_watch(project, Wish("name", names=["inkpost.com"])).pk
    feed = make_feed(person, "atom").pk
    own = make_seller(person, TERMS, everybody=False).code
    ids = {"c": check.pk, "s": share.pk, "f": filed.pk, "w": kept.pk, "o": own, "v": vetting}
    add_names(project, ["inkpost.com"])
    ids |= {"t": watch, "e": feed, "b": project.basket.get().pk}
    owned = OwnedName.objects.create(
        owner=person, label="inkwell", extension="com", asked_at=timezone.now()
    )
    ids["x"] = owned.pk
    type_phrases(project, ["ink post"])
    ids["h"] = project.phrase_files.get().pk
    ids["n"] = save_contact(person, HOLDER).pk
    order = an_order(person, ["inkwell.com"])
    Receipt.objects.create(order=order, kind="receipt", number="R1", document={}, buyer=order.buyer)
    ids |= {"m": person.contact_sets.get().pk, "d": order.pk}
    address = "/api/" + path.format(p=project.pk, **ids)
    asked = {
        who: getattr(client, method)(address, body)
        for who, client in (
            ("nobody", APIClient()),
            ("other", client_of(other)),
            ("owner", client_of(person)),
        )
    }
    assert asked["nobody"].status_code == 403
    assert asked["nobody"].json()["code"] == "not_authenticated"
    assert asked["other"].status_code == 404
    assert asked["other"].json()["code"] == "not_found"
    assert asked["owner"].status_code == status


def test_every_address_of_the_api_is_in_the_table() -> None:
    def routes(resolver: URLResolver, before: str = "") -> list[str]:
        found: list[str] = []
        for entry in resolver.url_patterns:
            path = before + str(entry.pattern)
            found += routes(entry, path) if isinstance(entry, URLResolver) else [path]
            assert isinstance(entry, URLPattern | URLResolver)
        return found

    listed = {
        path.replace("<int:project_id>", "{p}")
        .replace("<int:check_id>", "{c}")
        .replace("<int:share_id>", "{s}")
        .replace("<int:contact_id>", "{n}")
        .replace("<int:owned_id>", "{x}")
        .replace("<int:set_id>", "{m}")
        .replace("<int:order_id>", "{d}")
        .replace("<slug:kind>", "receipt")
        .replace("<int:filing_id>", "{f}")
        .replace("<int:world_id>", "{w}")
        .replace("<int:vetting_id>", "{v}")
        .replace("<int:file_id>", "{h}")
        .replace("<path:phrase>", "ink post")
        .replace("<int:watch_id>", "{t}")
        .replace("<int:feed_id>", "{e}")
        .replace("<int:item_id>", "{b}")
        .replace("<str:kind>", "marks")
        .replace("<str:code>", "{o}")
        .replace("<slug:code>", "{o}")
        .replace("<str:label>", "inkpost")
        .replace("<path:label>", "inkpost")
        .removeprefix("api/")
        for path in routes(get_resolver())
        if path.startswith("api/") and "<" in path + "<"
    }
    table = {path for _, path, _, _ in OF_A_PROJECT}
    assert listed == table | FOR_EVERYONE | FOR_PEOPLE


def test_projects_are_listed_for_their_owner(person: User, other: User, project: Project) -> None:
    assert [p["id"] for p in client_of(person).get("/api/projects").json()] == [project.pk]
    assert client_of(other).get("/api/projects").json() == []
    assert APIClient().get("/api/projects").status_code == 403


def test_what_is_nowhere_is_said_in_json(api: APIClient) -> None:
    response = api.get("/api/nothing/here")
    assert (response.status_code, response.json()["code"]) == (404, "not_found")
