"""What prices cost the sheet: pages, sorts and counts of 50,000 names with price lists, quotes and
a price filter, over the same without.

    python scripts/bench_sheet.py [--rounds 60] [--names 50000]

Starts a database and a queue of its own; the lists are those of the simulated sellers. The
baseline, in the same run and in turns with it, is a like project of which no price is known,
asked without a price filter.
"""

from __future__ import annotations

import argparse
import json
import os
import time
from collections.abc import Callable, Iterable
from datetime import date
from decimal import Decimal
from itertools import count
from typing import Any

from ops.test import servers
from scripts.bench_api import fill
from standins.sellers import SELLERS, prices_of

EXTENSIONS = ["com", "net", "org", "ie", "shop", "studio"]
TODAY = date(2026, 11, 29)
BATCH = 5_000


def quick_ms(*works: Callable[[], object], rounds: int) -> list[float]:
    """Milliseconds that a quarter of the rounds stay below, done in turns: machines are noisy."""
    seconds: list[list[float]] = [[] for _ in works]
    for _ in range(rounds):
        for work, of_one in zip(works, seconds, strict=True):
            began = time.perf_counter()
            work()
            of_one.append(time.perf_counter() - began)
    return [round(1000 * sorted(of_one)[rounds // 4], 1) for of_one in seconds]


def keep_sellers() -> None:
    """As if the simulated sellers had been asked."""
    from django.utils import timezone

    from vinetag.apps.costs.listing import prices_changed
    from vinetag.apps.costs.models import SellerRow
    from vinetag.apps.costs.sellers import new_version

    for place, seller in enumerate(SELLERS):
        row = SellerRow.objects.create(
            code=seller.code, place=place, terms=seller.terms(), asked_at=timezone.now()
        )
        new_version(row, prices_of(seller, TODAY), TODAY)
    prices_changed()


def answers(project: Any, labels: Iterable[str]) -> Any:
    """Every other name is known, one in ten of them as a premium one."""
    from vinetag.apps.availability.models import Lookup

    for place, label in enumerate(labels):
        for turn, extension in enumerate(EXTENSIONS):
            if (place + turn) % 2:
                continue
            status = ("open", "taken", "open", "open", "premium")[(place // 2) % 5]
            priced = {}
            if status == "premium":
                price = Decimal(100 + place % 900)
                priced = {"currency": "EUR", "first_year": price, "renewal": price}
            yield Lookup(
                project=project, label=label, extension=extension, status=status, number=1, **priced
            )


def measure(rounds: int, names: int) -> dict[str, Any]:
    import django
    from django.core.management import call_command

    django.setup()
    call_command("migrate", verbosity=0)
    from rest_framework.test import APIClient

    from vinetag.apps.accounts.models import User
    from vinetag.apps.availability.models import Lookup
    from vinetag.apps.bench import sheet_cache
    from vinetag.apps.naming.models import Project
    from vinetag.core.brief import brief_document, parse_brief
    from vinetag.core.sheet import SheetPrices

    owner = User.objects.create_user("bench")
    given = {"keywords": ["ink"], "extensions": EXTENSIONS, "owner": {"country": "IE"}}
    brief = brief_document(parse_brief(given))
    client = APIClient(SERVER_NAME="localhost")
    client.force_login(owner)

    def project() -> Project:
        made = Project.objects.create(owner=owner, name="Bench", brief=brief, answers=1)
        fill(made, names)
        labels = list(made.candidates.order_by("rank").values_list("label", flat=True))
        Lookup.objects.bulk_create(answers(made, labels), batch_size=BATCH)
        return made

    keep_sellers()
    bare, priced = project(), project()
    real = sheet_cache.prices_of
    sheet_cache.prices_of = lambda of: SheetPrices() if of.pk == bare.pk else real(of)
    turn = count()

    def get(of: Project, path: str = "", **question: Any) -> None:
        asked = {"limit": 100, "grade_min": next(turn) / 1000, **question}
        reply = client.get(f"/api/projects/{of.pk}/names{path}", asked)
        assert reply.status_code == 200, reply.content  # noqa: S101 - an error is no figure

    limits = {"whole_max": 9_000, "price_max": 5_000}
    figures: dict[str, Any] = {}
    # Another question each time: nothing is remembered of it.
    for what, path, question in (
        ("page", "", {}),
        ("text", "", {"text": "a"}),
        ("sort", "", {"sort": "sound"}),
        ("counts", "/counts", {}),
    ):
        without, with_prices = quick_ms(
            lambda: get(bare, path, **question),  # noqa: B023 - called at once
            lambda: get(priced, path, **question, **limits),  # noqa: B023
            rounds=rounds,
        )
        figures[what] = {
            "without_ms": without,
            "with_ms": with_prices,
            "ratio": round(with_prices / without, 2),
        }
    [by_price] = quick_ms(lambda: get(priced, sort="whole", whole_max=9_000), rounds=rounds)
    return {
        "names": names,
        "answers": Lookup.objects.count() // 2,
        **figures,
        "sort_by_price_ms": by_price,
    }


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.splitlines()[0])
    parser.add_argument("--rounds", type=int, default=60)
    parser.add_argument("--names", type=int, default=50_000)
    args = parser.parse_args()
    with servers() as places:
        os.environ.update(places, DJANGO_SETTINGS_MODULE="vinetag.config.settings.test")
        print(json.dumps(measure(args.rounds, args.names)))


if __name__ == "__main__":
    main()
