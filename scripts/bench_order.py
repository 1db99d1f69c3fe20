"""Ordering 200 names against a bare loop over the same client, and what is left of the promises
when the worker, the database and the queue are killed and the gateways misbehave.

    python -m scripts.bench_order [--names 200] [--orders 8] [--seconds 90]

The baseline signs in, makes the contact known and registers as many other names by the same client,
one after another, and writes nothing down; both in turn, five times, the median counts. Then orders
of 40 names, half of them paid at the payment page, are worked on by Celery's worker and schedule,
killed (SIGKILL) every five seconds with the database or the queue killed in between, while gateways
cut the line before and after carrying out, think names over, and refuse some. Every order is
checked against the books of the simulated sellers and the payment page: registered twice, charged
twice, lost, and whether paid less refunded is registered. Starts what it needs. Prints one JSON
object. Last, 20,000 owned names: pages of the list against pages of the sheet of made names, by the
same client, and what reminding of all of them takes, each with something to be told.
"""

from __future__ import annotations

import argparse
import json
import os
import random
import shutil
import signal
import statistics
import subprocess
import sys
import tempfile
import time
import urllib.error
import urllib.request
import uuid
from collections import Counter
from datetime import UTC, datetime
from decimal import Decimal
from typing import Any

import django
from django.core.management import call_command

from scripts.beside import Parts, parts

ROUNDS = 5
OF_ONE = 40
KILLED_EVERY = 5.0
PATIENCE = 240.0
SELLERS = (("lantern", "EUR"), ("quillgate", "GBP"), ("ninefold", "USD"))
FAULTS = [
    {"service": "epp", "kind": kind, "rate": rate, "extension": "com", "seconds": 5}
    for kind, rate in (
        ("hangup-after", 0.05), ("hangup", 0.03), ("pending", 0.05), ("pending-refused", 0.03),
        ("2400", 0.03), ("2306", 0.03), ("dearer", 0.03), ("nonsense", 0.005),
    )
]  # fmt: skip


def fresh(count: int) -> list[str]:
    """Labels nobody in the simulated world has."""
    from standins.world import World

    world, now = World(), datetime.now(UTC)
    found: list[str] = []
    while len(found) < count:
        label = f"qx{uuid.uuid4().hex[:16]}"
        if world.offer(label, "com", now).kind == "usual":
            found.append(label)
    return found


def somebody() -> Any:
    from vinetag.core.ordering import check_person

    given = {
        "name": "Edda Birchwell", "street": "4 Quay Lane", "city": "Port Ferris", "country": "IE",
        "phone": "+353871234567", "email": "edda@inkpost.example",
    }  # fmt: skip
    return check_person(given)[0]


def an_order(person: Any, seller: str, currency: str, count: int) -> Any:
    from vinetag.apps.ordering.placing import Bought, make_order
    from vinetag.core.names import FullName
    from vinetag.core.ordering import ROLES

    who = dict.fromkeys(ROLES, somebody())
    bought = [Bought(FullName(label, "com"), Decimal("30.00"), 1, people=who)
              for label in fresh(count)]  # fmt: skip
    terms = {"rule": "charged", "country": "IE", "percent": "23"}
    tax = Decimal("6.90") * count
    return make_order(
        person, seller, seller.title(), "IE", currency, bought, tax, terms, somebody()
    )


def pay_by_credit(order: Any) -> int:
    from vinetag.apps.ordering.models import Errand
    from vinetag.apps.ordering.paying import pay_by_credit

    pay_by_credit(order)
    return int(Errand.objects.get(order=order).pk)


def bare(count: int) -> float:
    """Seconds for as many names without any of ours."""
    from django.conf import settings

    from vinetag.apps.ordering.gateways import make_people
    from vinetag.core.ordering import ROLES
    from vinetag.lookup.epp import EppGateway, Wish

    labels = fresh(count)
    began = time.perf_counter()
    gateway = EppGateway(settings.GATEWAYS["lantern"])
    gateway.open()
    numbers, _ = make_people(gateway, 0, dict.fromkeys(ROLES, somebody()), withheld=False)
    contacts = [(role, number) for role, number in numbers.items() if role != "registrant"]
    for label in labels:
        done = gateway.register(
            Wish(
                f"{label}.com", 1, numbers["registrant"], contacts, (), uuid.uuid4().hex,
                f"VT-{uuid.uuid4().hex}", Decimal("30.00"), "EUR",
            )
        )  # fmt: skip
        if not done.good:
            raise SystemExit(f"the baseline failed: {done}")
    gateway.close()
    return time.perf_counter() - began


def ours(person: Any, count: int) -> float:
    """Seconds for an order of as many names."""
    from vinetag.apps.ordering.settling import work_on

    errand = pay_by_credit(an_order(person, "lantern", "EUR", count))
    began = time.perf_counter()
    if not work_on(errand):
        raise SystemExit("the order was not finished at once")
    return time.perf_counter() - began


def _start(what: str, folder: str) -> subprocess.Popen[bytes]:
    words = {
        "worker": "worker --queues ordering --concurrency 2 --without-gossip --without-mingle",
        "beat": f"beat --schedule {folder}/beat --pidfile=",
    }[what]
    command = f"-m celery -A vinetag.jobs {words} --loglevel error"
    return subprocess.Popen([sys.executable, *command.split()], start_new_session=True,
                            stderr=subprocess.DEVNULL, stdout=subprocess.DEVNULL)  # fmt: skip


def _kill(process: subprocess.Popen[bytes]) -> None:
    os.killpg(process.pid, signal.SIGKILL)
    process.wait()


def killed(beside: Parts, orders: list[Any], seconds: float) -> tuple[Counter[str], float]:
    """Have the orders worked on while everything is killed; how often what was, and how long until
    all of them were done, None if they were not.
    """
    from django.db import close_old_connections, connection

    from vinetag.apps.ordering.models import Order

    kills: Counter[str] = Counter()
    folder = tempfile.mkdtemp(prefix="vinetag-beat-")
    worker, beat = _start("worker", folder), _start("beat", folder)
    began = time.monotonic()
    beside.tell("faults", FAULTS)
    next_kill, calm = began + KILLED_EVERY, False
    try:
        while time.monotonic() < began + seconds + PATIENCE:
            time.sleep(0.25)
            if not calm and time.monotonic() > began + seconds:
                beside.tell("faults", {})
                calm = True
            if not calm and time.monotonic() > next_kill:
                _kill(worker)
                kills["worker"] += 1
                if kills["worker"] % 3 == 0:
                    connection.close()
                    beside.kill_database()
                    kills["database"] += 1
                elif kills["worker"] % 3 == 1:
                    beside.kill_queue()
                    kills["queue"] += 1
                worker, next_kill = _start("worker", folder), time.monotonic() + KILLED_EVERY
            close_old_connections()
            left = Order.objects.filter(pk__in=[o.pk for o in orders]).exclude(stage="done")
            if calm and not left.exists():
                break
    finally:
        _kill(worker)
        _kill(beat)
        shutil.rmtree(folder, ignore_errors=True)
    return kills, time.monotonic() - began


def pay_at_page(order: Any) -> None:
    """As somebody who goes there and presses the button; the message finds nobody, and is asked
    for.
    """
    from vinetag.apps.ordering.paying import pay_at_page as begin

    page = begin(order).page
    request = urllib.request.Request(f"{page}/pay", b"", method="POST")  # noqa: S310 - loopback

    class Stay(urllib.request.HTTPRedirectHandler):
        def redirect_request(self, *_: Any) -> None:
            return None

    try:
        urllib.request.build_opener(Stay).open(request, timeout=10).close()
    except urllib.error.HTTPError as error:
        error.close()
        if error.code != 303:
            raise


def checked(beside: Parts, orders: list[Any]) -> dict[str, Any]:
    """Every order against the sellers' and the payment page's own books."""
    from vinetag.apps.ordering.models import Order, OrderName
    from vinetag.apps.ordering.settling import balance_of

    books = beside.read("books")
    held = {one["name"]: one for one in books["held"]}
    creates: Counter[str] = Counter()
    taken: dict[str, Decimal] = {}
    for charge in books["charge"]:
        creates[charge["name"]] += 1 if charge["kind"] == "create" else -1
        taken[charge["name"]] = taken.get(charge["name"], Decimal(0)) + Decimal(charge["amount"])
    payments = {p["id"]: p for p in books["payment"]}
    pks = [order.pk for order in orders]
    names = list(OrderName.objects.filter(order__in=pks).select_related("order"))
    states = Counter(name.state for name in names)
    unbalanced = at_page = 0
    for order in Order.objects.filter(pk__in=pks):
        paid, refunded, kept = balance_of(order)
        unbalanced += paid - refunded != kept
        for payment in order.payments.filter(state="accepted"):
            told = payments[payment.number]
            back = sum((Decimal(x) for x in told["refunds"].values()), Decimal(0))
            at_page += Decimal(told["amount"]) - back != kept
    trids = {name.trid for name in names}
    return {
        "names": len(names),
        "ended_as": dict(states),
        "registered_twice": sum(n > 1 for n in creates.values()),
        "charged_twice": sum(
            creates[str(n.name)] != (1 if n.state == "registered" else 0) for n in names
        ),
        "lost": sum((n.state == "registered") != (str(n.name) in held) for n in names),
        "by_another_transaction": sum(
            held[str(n.name)]["trid"] not in trids for n in names if str(n.name) in held
        ),
        "left_unfinished": sum(states[s] for s in ("agreed", "paid", "sent", "pending", "failed")),
        "orders_unbalanced": unbalanced,
        "payments_unbalanced": at_page,
    }


def owned_measured(person: Any, count: int) -> dict[str, Any]:
    """Milliseconds of pages of the list and of the sheet, and seconds of reminding."""
    from datetime import timedelta

    from django.conf import settings
    from django.utils import timezone
    from rest_framework.test import APIClient

    from vinetag.apps.naming.services import create_project
    from vinetag.apps.owning.models import OwnedName
    from vinetag.apps.owning.reminding import remind

    settings.ALLOWED_HOSTS = ["*"]
    rng, now, today = random.Random(5), timezone.now(), timezone.localdate()
    extensions = ("com", "net", "org", "ie", "studio", "press")
    OwnedName.objects.bulk_create(
        (
            OwnedName(
                owner=person, label=label, extension=rng.choice(extensions), source="imported",
                seller_name=rng.choice(("Lantern Names", "Quillgate", "Gullwing Names")),
                expires_at=now + timedelta(days=rng.uniform(-60, 700)), priced_on=today,
                yearly=rng.randrange(500, 6000) / 100, yearly_currency="EUR",
                tags=rng.choice(("", "|club|", "|old|press|")),
            )
            for label in {f"{rng.choice(('ink', 'paper', 'post'))}{n}" for n in range(count)}
        ),
        2_000,
    )  # fmt: skip
    client = APIClient()
    client.force_login(person)
    brief = {"keywords": [{"text": "ink", "weight": 5}, {"text": "post", "weight": 3}]}
    project = create_project(owner=person, name="Pressroom", brief=brief, whole=True)

    def median(address: str) -> float:
        times = []
        for _ in range(9):
            began = time.perf_counter()
            answer = client.get(address)
            times.append(time.perf_counter() - began)
            if answer.status_code != 200:
                raise SystemExit(f"{address}: {answer.status_code} {answer.content[:200]!r}")
        return round(1000 * statistics.median(times), 1)

    soon: list[OwnedName] = []
    sheet = {
        "open": median(f"/api/projects/{project.pk}/names"),
        "filter": median(f"/api/projects/{project.pk}/names?text=in"),
        "sort": median(f"/api/projects/{project.pk}/names?sort=name"),
    }
    owned = {
        "open": median("/api/owned"),
        "filter": median("/api/owned?text=in&tag=club&when=365"),
        "sort": median("/api/owned?sort=-cost"),
    }
    for row in OwnedName.objects.only("pk").iterator():
        row.expires_at = now + timedelta(days=rng.uniform(-20, 88))
        row.reminded = ""
        soon.append(row)
    OwnedName.objects.bulk_update(soon, ["expires_at", "reminded"], 2_000)
    began = time.perf_counter()
    told = remind()
    took = time.perf_counter() - began
    began = time.perf_counter()
    remind()
    return {
        "owned_names": OwnedName.objects.count(),
        "sheet_ms": sheet,
        "owned_ms": owned,
        "owned_against_sheet": {k: round(owned[k] / sheet[k], 2) for k in sheet},
        "months_ms": median("/api/owned/months"),
        "reminded": told,
        "reminding_s": round(took, 2),
        "nothing_new_s": round(time.perf_counter() - began, 2),
    }


def main() -> None:
    parser = argparse.ArgumentParser()
    parser.add_argument("--names", type=int, default=200)
    parser.add_argument("--orders", type=int, default=8)
    parser.add_argument("--seconds", type=float, default=90.0)
    parser.add_argument("--owned", type=int, default=20_000)
    args = parser.parse_args()
    with parts({"VINETAG_GATEWAY_TIMEOUT": "3", "VINETAG_CHECK_LEASE": "3"}) as beside:
        django.setup()
        call_command("migrate", verbosity=0)
        from vinetag.apps.accounts.models import User

        person = User.objects.create_user("edda", is_staff=True)
        ours(person, 20)
        bare(20)
        pairs = [(bare(args.names), ours(person, args.names)) for _ in range(ROUNDS)]
        orders = []
        for place in range(args.orders):
            order = an_order(person, *SELLERS[place % len(SELLERS)], OF_ONE)
            (pay_at_page if place % 2 else pay_by_credit)(order)
            orders.append(order)
        kills, took = killed(beside, orders, args.seconds)
        bare_s, ours_s = (statistics.median(side) for side in zip(*pairs, strict=True))
        print(
            json.dumps(
                {
                    "names_of_an_order": args.names,
                    "bare_loop_s": round(bare_s, 3),
                    "order_s": round(ours_s, 3),
                    "order_against_bare_loop": round(statistics.median(b / o for b, o in pairs), 2),
                    "killed": dict(kills),
                    "all_done_after_s": round(took, 1),
                    **checked(beside, orders),
                    **owned_measured(person, args.owned),
                },
                indent=1,
            )
        )


if __name__ == "__main__":
    main()
