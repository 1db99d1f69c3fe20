"""How long the server takes for a page, a filter, a sort and the counts of every filter.

    python scripts/bench_api.py [--rounds 25] [--most 1000000]

Starts a database and a queue of its own. A project of 1,000 names is asked while the table holds
1,000 candidates and again when other projects have filled it to 1,000,000; then a project of 50,000
names is opened (its list read for the first time) and asked. The baseline, in the same run, is a
bare query of the same 100 rows through the ORM, without counting, statuses or JSON.
"""

from __future__ import annotations

import argparse
import json
import os
import random
import statistics
import time
from collections.abc import Callable, Iterator
from typing import Any

from ops.test import servers

LARGE = 50_000
BATCH = 5_000


def median_ms(work: Callable[[], object], rounds: int) -> float:
    seconds = []
    for _ in range(rounds):
        began = time.perf_counter()
        work()
        seconds.append(time.perf_counter() - began)
    return round(1000 * statistics.median(seconds), 1)


def fill(project: Any, count: int) -> None:
    """Made-up candidates, all columns filled as real ones are."""
    from vinetag.apps.naming.models import Candidate
    from vinetag.core.brief import MEASURE_NAMES, RECIPE_NAMES
    from vinetag.core.candidates import Part, part_document

    rng = random.Random(project.pk)

    def rows() -> Iterator[Candidate]:
        for rank in range(1, count + 1):
            label = "".join(rng.choice("abcdefghilmnoprstu") for _ in range(rng.randint(5, 14)))
            yield Candidate(
                project=project,
                label=f"{label}{rank % 10 if rank % 7 == 0 else ''}{rank:x}",
                rank=rank,
                grade=round(100 - 60 * rank / count, 1),
                letters=len(label),
                strength=0.5,
                scores={name: round(rng.uniform(20, 100), 2) for name in MEASURE_NAMES},
                recipes=[rng.choice(RECIPE_NAMES)],
                parts=[
                    part_document(Part(label[:3], "lead", "", 0)),
                    part_document(Part(label[3:], "tail", "", 3)),
                ],
                syllables=rng.randint(1, 5),
                words=rng.randint(1, 3),
                added=["noun"],
            )

    made, batch = rows(), []
    for row in made:
        batch.append(row)
        if len(batch) == BATCH:
            Candidate.objects.bulk_create(batch)
            batch = []
    Candidate.objects.bulk_create(batch)


def measure(rounds: int, most: int) -> dict[str, Any]:
    import django
    from django.core.management import call_command

    django.setup()
    call_command("migrate", verbosity=0)
    from rest_framework.test import APIClient

    from vinetag.apps.accounts.models import User
    from vinetag.apps.availability.models import Lookup
    from vinetag.apps.bench import sheet_cache
    from vinetag.apps.naming.models import Candidate, Project
    from vinetag.core.brief import brief_document, parse_brief

    owner = User.objects.create_user("bench")
    brief = brief_document(parse_brief({"keywords": ["ink"], "extensions": ["com", "net", "org"]}))
    client = APIClient(SERVER_NAME="localhost")
    client.force_login(owner)

    def project(count: int) -> Project:
        made = Project.objects.create(owner=owner, name="Bench", brief=brief)
        fill(made, count)
        return made

    def answer(of: Project, count: int) -> None:
        labels = of.candidates.order_by("rank").values_list("label", flat=True)[:count]
        Lookup.objects.bulk_create(
            (
                Lookup(project=of, label=a, extension=e, status="open", number=1)
                for a in labels
                for e in brief["extensions"]
            ),
            batch_size=BATCH,
        )
        Project.objects.filter(pk=of.pk).update(answers=1)

    def ask(of: Project) -> dict[str, float]:
        address = f"/api/projects/{of.pk}/names"
        rows = of.candidates.order_by("rank")[:100]
        turn = iter(range(10**6))

        def get(path: str = "", **question: Any) -> None:
            reply = client.get(address + path, question)
            assert reply.status_code == 200, reply.content  # noqa: S101 - an error is no figure

        return {
            "bare_rows_ms": median_ms(lambda: list(rows.all()), rounds),
            "page_ms": median_ms(get, rounds),
            # Another question each time: nothing is remembered of it.
            "filter_ms": median_ms(lambda: get(text="a", grade_min=next(turn) / 100), rounds),
            "sort_ms": median_ms(lambda: get(sort="sound", price_max=1e5 + next(turn)), rounds),
            "counts_ms": median_ms(lambda: get("/counts", grade_min=next(turn) / 100), rounds),
        }

    small = project(1_000)
    answer(small, 1_000)
    few = ask(small)
    others = range(0, most - LARGE, LARGE)
    for _ in others:
        project(LARGE)
    many = ask(small)
    large = Project.objects.filter(owner=owner).latest("pk")
    answer(large, 5_000)
    sheet_cache._cache.clear()  # as after a start
    began = time.perf_counter()
    client.get(f"/api/projects/{large.pk}/names")
    opened = time.perf_counter() - began
    began = time.perf_counter()
    client.get(f"/api/projects/{large.pk}/names/counts")
    held_after = time.perf_counter() - began
    return {
        "candidates_in_table": Candidate.objects.count(),
        "few": few,
        "many": many,
        "page_many_over_few": round(many["page_ms"] / few["page_ms"], 2),
        "filter_many_over_few": round(many["filter_ms"] / few["filter_ms"], 2),
        "page_over_bare": round(many["page_ms"] / many["bare_rows_ms"], 1),
        "large_names": large.candidates.count(),
        "large_opened_ms": round(1000 * opened),
        "large_first_counts_ms": round(1000 * held_after),
        "large": ask(large),
    }


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.splitlines()[0])
    parser.add_argument("--rounds", type=int, default=25)
    parser.add_argument("--most", type=int, default=1_000_000)
    args = parser.parse_args()
    with servers() as places:
        os.environ.update(places, DJANGO_SETTINGS_MODULE="vinetag.config.settings.test")
        print(json.dumps(measure(args.rounds, args.most)))


if __name__ == "__main__":
    main()
