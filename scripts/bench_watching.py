"""10,000 watched names: what watching costs against asking alone, and what is left of its promises
when the worker and the database are killed again and again.

    python -m scripts.bench_watching [--names 10000] [--seconds 150]

First as many names as one budget allows are asked about by rounds of watching, without kills; the
baseline asks about as many others of the same list by the same engine in the same portions, and
does nothing with the answers. Then the rest is watched by a process that is killed (SIGKILL) every
15 seconds, with the database killed in between, for so many seconds. Every name was known to be
otherwise before, so that each answer has a change to be told: counted are look-ups against budgets
and the registries' limits, how long after its answer each change was written, what was told twice
or not at all, in the application and by letter. Starts what it needs. Prints one JSON object.
"""

from __future__ import annotations

import argparse
import asyncio
import json
import random
import signal
import statistics
import subprocess
import sys
import time
from collections import Counter
from typing import Any

import django
from django.core.management import call_command

from scripts.beside import Parts, parts

PEOPLE = (("many", 0.7), ("few", 0.2), ("fewer", 0.1))
BUDGET = 2_500
# A registry's limit, in questions a second, and what is asked of it at the most.
LIMIT, ASKED = 60, 50
KILLED_EVERY = 15.0
ASKING = {
    "VINETAG_WATCH_LOOKUPS": str(BUDGET),
    "VINETAG_RDAP_PER_SECOND": str(ASKED),
    "VINETAG_WHOIS_PER_SECOND": str(ASKED),
    "VINETAG_WHOIS_AT_ONCE": "8",
    # What arrives at one moment is no more than the registry's bucket holds.
    "VINETAG_RDAP_AT_ONCE": "8",
    # The seller is asked of each name that is open.
    "VINETAG_SELLER": "",
}
EXTENSIONS = ("com", "net", "org", "io", "ie", "club", "studio", "press")


def limit(beside: Parts) -> None:
    """Every registry refuses what is asked too fast."""
    from standins.world import REGISTRIES

    beside.tell("limits", {"per_second": dict.fromkeys(REGISTRIES, LIMIT)})


def watched(count: int, others: int) -> tuple[list[Any], list[str]]:
    """People with projects and watches, each name known to be otherwise than the world has it; and
    further names that nobody watches.
    """
    from django.utils import timezone

    from vinetag.apps.accounts.models import User
    from vinetag.apps.naming.services import create_project
    from vinetag.apps.watching.models import Telling, Watched
    from vinetag.apps.watching.watches import Wish, start_watch
    from vinetag.core.watching import Seen, write_seen

    rng = random.Random(7)
    letters = "bcdfghklmnprstvz"

    def name() -> str:
        middle = "".join(
            rng.choice(letters) + rng.choice("aeiou") for _ in range(rng.choice((2, 4)))
        )
        return f"{middle}.{rng.choice(EXTENSIONS)}"

    names: set[str] = set()
    while len(names) < count + others:
        names.add(name())
    left = sorted(names)
    rng.shuffle(left)
    people = []
    for who, share in PEOPLE:
        person = User.objects.create_user(who)
        project = create_project(owner=person, name=who, brief={"keywords": []})
        mine = [left.pop() for _ in range(int(count * share))]
        start_watch(project, Wish("name", names=mine, title="all of it"))
        Telling.objects.create(
            owner=person, address=f"{who}@quietpress.example", how="at_once",
            confirmed_at=timezone.now(),
        )  # fmt: skip
        people.append(person)
    # Without a seller nobody says that of any.
    Watched.objects.update(known=write_seen(Seen("premium")))
    return people, left


async def bare(names: list[str]) -> None:
    """The same questions in portions as large, and nothing else."""
    from vinetag.apps.availability.lookups import lookup_settings
    from vinetag.apps.watching.asking import PLACES, SECONDS
    from vinetag.core.names import FullName
    from vinetag.lookup import open_engine

    for first in range(0, len(names), PLACES):
        async with open_engine(lookup_settings(), lambda _name: None) as engine:
            part = [FullName(*text.split(".", 1)) for text in names[first : first + PLACES]]
            await asyncio.gather(*(engine.ask(one, "buying", SECONDS) for one in part))


def work() -> None:
    """Rounds without end, for the process that is killed."""
    django.setup()
    from django.db import close_old_connections

    from vinetag.apps.watching.rounds import go_round

    while True:
        try:
            go_round()
        except Exception as error:
            print(f"a round failed: {error}", file=sys.stderr)
        close_old_connections()
        time.sleep(0.5)


def killed(beside: Parts, seconds: float) -> tuple[list[float], Counter[str]]:
    """Watch while everything is killed; how long after its answer each change was written, and how
    often what was killed.
    """
    from django.db import close_old_connections
    from django.utils import timezone

    from vinetag.apps.watching.models import Happening

    delays: list[float] = []
    kills: Counter[str] = Counter()
    upto = Happening.objects.order_by("-pk").values_list("pk", flat=True).first() or 0
    ends, next_kill = time.monotonic() + seconds, time.monotonic() + KILLED_EVERY
    worker = _worker()
    while time.monotonic() < ends:
        time.sleep(0.25)
        if time.monotonic() > next_kill:
            worker.send_signal(signal.SIGKILL)
            worker.wait()
            kills["worker"] += 1
            if kills["worker"] % 3 == 0:
                close_old_connections()
                beside.kill_database()
                kills["database"] += 1
            worker, next_kill = _worker(), time.monotonic() + KILLED_EVERY
        close_old_connections()
        now = timezone.now()
        for pk, at in Happening.objects.filter(pk__gt=upto).values_list("pk", "at"):
            delays.append((now - at).total_seconds())
            upto = max(upto, pk)
    # What was being done is done in peace.
    time.sleep(20)
    worker.terminate()
    worker.wait()
    return delays, kills


def _worker() -> subprocess.Popen[bytes]:
    return subprocess.Popen([sys.executable, "-m", "scripts.bench_watching", "--worker"])


def watching_measured(beside: Parts, count: int, seconds: float) -> dict[str, Any]:
    from django.conf import settings
    from django.db import connection

    from vinetag.apps.availability.catalogue import load_catalogue
    from vinetag.apps.availability.models import Lookup
    from vinetag.apps.watching.asking import ask_due
    from vinetag.apps.watching.models import Happening, Letter, SpentDay, Watched
    from vinetag.apps.watching.telling import tell_changes

    load_catalogue()
    limit(beside)
    asked_alone = min(1_200, count // 4)
    people, others = watched(count, asked_alone)
    began = time.monotonic()
    done = 0
    while done < asked_alone and (some := ask_due()):
        tell_changes()
        done += some
    ours = time.monotonic() - began
    began = time.monotonic()
    asyncio.run(bare(others[:done]))
    alone = time.monotonic() - began
    began = time.monotonic()
    tell_changes()
    idle = time.monotonic() - began
    connection.close()
    delays, kills = killed(beside, seconds)
    told = Counter(
        Happening.objects.values_list("watch__project__owner", "label", "extension", "what")
    )
    answered = {(row.label, row.extension) for row in Lookup.objects.exclude(status="unsure")}
    silent = [
        one for one in Watched.objects.filter(asked_at__isnull=False)
        if (one.label, one.extension) not in {(k[1], k[2]) for k in told}
    ]  # fmt: skip
    text = "".join(letter["text"] for letter in beside.read("mail")["letters"])
    lines = Counter(
        line for line in text.splitlines() if line.startswith("- ") and " more" not in line
    )
    spent = list(SpentDay.objects.values_list("lookups", flat=True))
    limits = beside.read("limits")
    return {
        "watched_names": Watched.objects.count(),
        "people": len(people),
        "asked_in_rounds_a_second": round(done / ours, 1),
        "asked_alone_a_second": round(done / alone, 1),
        "rounds_against_asking_alone": round(alone / ours, 2),
        "a_round_with_nothing_new_s": round(idle, 3),
        "killed": dict(kills),
        "answered": len(answered),
        "look_ups_by_person": sorted(spent),
        "budget": settings.WATCH_LOOKUPS,
        "over_budget": sum(one > settings.WATCH_LOOKUPS for one in spent),
        "over_registries_limits": sum(limits["violations"].values()),
        "changes_told": sum(told.values()),
        "told_twice": sum(n > 1 for n in told.values()),
        "answered_and_not_told": len(silent),
        "told_after_s_median": round(statistics.median(delays), 2) if delays else None,
        "told_after_s_worst": round(max(delays), 1) if delays else None,
        "letters": dict(Counter(Letter.objects.values_list("state", flat=True))),
        "lines_of_letters_twice": sum(n > 1 for n in lines.values()),
    }


def main() -> None:
    parser = argparse.ArgumentParser()
    parser.add_argument("--names", type=int, default=10_000)
    parser.add_argument("--seconds", type=float, default=150.0)
    parser.add_argument("--worker", action="store_true", help=argparse.SUPPRESS)
    args = parser.parse_args()
    if args.worker:
        work()
        return
    with parts(ASKING) as beside:
        django.setup()
        call_command("migrate", verbosity=0)
        print(json.dumps(watching_measured(beside, args.names, args.seconds), indent=1))


if __name__ == "__main__":
    main()
