"""How long the server takes for the first page of the bench, with 2,000 names and their statuses.

    python scripts/bench_page.py [--rounds 40]

Starts a database and a queue of its own. The baseline, in the same run, is one bare query of the
same 100 rows through the ORM, without counting, statuses or JSON.
"""

from __future__ import annotations

import argparse
import json
import os
import statistics
import time
from collections.abc import Callable

from ops.test import servers


def median(work: Callable[[], object], rounds: int) -> float:
    seconds = []
    for _ in range(rounds):
        began = time.perf_counter()
        work()
        seconds.append(time.perf_counter() - began)
    return statistics.median(seconds)


def measure(rounds: int) -> dict[str, object]:
    import django
    from django.core.management import call_command
    from django.db import connection
    from django.test.utils import CaptureQueriesContext

    django.setup()
    call_command("migrate", verbosity=0)
    from rest_framework.test import APIClient

    from vinetag.apps.availability.models import Lookup
    from vinetag.apps.bench.demo import load_demo
    from vinetag.apps.naming.models import Project

    load_demo()
    project = Project.objects.get(name="Pressroom")
    Lookup.objects.bulk_create(
        Lookup(project=project, label=label, extension=extension, status="open")
        for label in project.candidates.values_list("label", flat=True)
        for extension in project.brief["extensions"]
    )
    client = APIClient(SERVER_NAME="localhost")
    client.force_login(project.owner)
    address = f"/api/projects/{project.pk}/names"
    assert client.get(address).status_code == 200  # noqa: S101 - a benchmark of an error is none
    with CaptureQueriesContext(
        connection,
    ) as queries:
        client.get(address)
    asked = len(queries)
    rows = project.candidates.order_by("rank")[:100]
    bare = median(lambda: list(rows.all()), rounds)
    page = median(lambda: client.get(address), rounds)
    return {
        "names": project.candidates.count(),
        "lookups": project.lookups.count(),
        "queries": asked,
        "page_ms": round(1000 * page, 1),
        "bare_rows_ms": round(1000 * bare, 1),
        "ratio": round(page / bare, 1),
    }


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.splitlines()[0])
    parser.add_argument("--rounds", type=int, default=40)
    args = parser.parse_args()
    with servers() as places:
        os.environ.update(places, DJANGO_SETTINGS_MODULE="vinetag.config.settings.test")
        print(json.dumps(measure(args.rounds)))


if __name__ == "__main__":
    main()
