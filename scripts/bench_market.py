"""What offers and drops cost, against the bare work on the same lines: the import of 3,000,000
lines, the filters of the hunt over them.

    python -m scripts.bench_market [--lines 3000000]

The bare work is reading the same file with DuckDB's own reader of CSV and loading it into the same
table of the database in the order of the file. Starts a database of its own. Prints one JSON
object.
"""

from __future__ import annotations

import argparse
import json
import os
import random
import resource
import statistics
import tempfile
import time
from collections.abc import Iterator, Mapping
from decimal import Decimal
from pathlib import Path
from typing import Any

import django
from django.core.management import call_command

from ops.test import servers

WORDS_USED = 20_000
QUESTIONS: Mapping[str, Mapping[str, str]] = {
    "everything": {},
    "price": {"price_max": "100"},
    "contained": {"text": "lake"},
    "auctions soon": {"kinds": "auction", "within": "72", "extensions": "com"},
    "old and linked": {"age_min": "10", "links_min": "1000", "letters_max": "9"},
    "begins, clean": {"starts": "sea", "hyphen": "no", "digit": "no", "clean": "1"},
    "also under": {"also": "net"},
    "by price": {"sort": "price"},
    "by end": {"sort": "ends", "kinds": "auction"},
}


def lines(count: int, words: list[str], seed: int) -> Iterator[str]:
    """A made-up list, four fifths of it two words."""
    rng = random.Random(seed)
    extensions = ["com"] * 6 + ["net", "org", "io", "co", "ie", "co.uk", "studio", "club"]
    seen: set[str] = set()
    yield (
        "name,kind,price,currency,bids,ends,address,first_registered,times_registered,links,"
        "linking_sites,archived,used_for,rank,also_registered\n"
    )
    while len(seen) < count:
        label = rng.choice(words) + rng.choice(words)
        if rng.random() < 0.2:
            label += rng.choice(words)
        name = f"{label}.{rng.choice(extensions)}"
        if name in seen or len(label) > 40:
            continue
        seen.add(name)
        kind = rng.choice(("fixed", "asking", "auction"))
        auction = kind == "auction"
        price = "" if kind == "asking" else str(rng.randint(10, 9_999))
        ends = f"2099-12-{rng.randint(1, 28):02}T12:{rng.randint(0, 59):02}:00Z" if auction else ""
        yield (
            f"{name},{kind},{price},EUR,{rng.randint(0, 40) if auction else ''},{ends},"
            f"https://fair.example/n/{name},{rng.randint(1996, 2025)}-05-{rng.randint(1, 28):02},"
            f"{rng.randint(1, 4)},{rng.randint(0, 9_000)},{rng.randint(0, 400)},"
            f"{rng.randint(0, 300)},,{rng.randint(1, 10**6) if rng.random() < 0.5 else ''},"
            f"{rng.choice(('', 'net org', 'com'))}\n"
        )


def bare_load(file: Path, market: int) -> float:
    """Seconds: the same lines parsed and loaded, and nothing else."""
    from django.db import connection

    from vinetag.apps.market.models import OfferRow
    from vinetag.lake.duck import open_duck
    from vinetag.lake.editions import ROW_COLUMNS

    began = time.monotonic()
    with tempfile.TemporaryDirectory() as work:
        out = Path(work) / "rows.tsv"
        with open_duck(Path(work)) as duck:
            named = next(lines(0, [], 0)).strip().split(",")
            there = {name: f'"{name}"' for name in named[1:]}
            there |= {
                "label": "split_part(name, '.', 1)",
                "extension": "substr(name, strpos(name, '.') + 1)",
                "ends": "strftime(try_cast(ends as timestamptz), '%Y-%m-%d %H:%M:%S')",
            }
            texts = ("state", "archived_about", "used_for")
            cells = ", ".join(
                f"coalesce({there.get(column, 'null')}, '')"
                if column in texts
                else there.get(column, "null")
                for column in ROW_COLUMNS
            )
            duck.execute(
                f"copy (select {cells} from read_csv('{file}', all_varchar=true)) to '{out}' "
                "(header false, delim '\t', nullstr '\\N', quote '', escape '')"
            )
        columns = ", ".join(f"`{column}`" for column in ROW_COLUMNS)
        with connection.cursor() as cursor:
            cursor.execute(
                f"LOAD DATA LOCAL INFILE '{out}' INTO TABLE `{OfferRow._meta.db_table}` "
                f"CHARACTER SET utf8mb4 FIELDS TERMINATED BY '\\t' ESCAPED BY '\\\\' ({columns}) "
                f"SET market_id = {market}"
            )
    return time.monotonic() - began


def emptied() -> None:
    from django.db import connection

    from vinetag.apps.market.models import OfferChange, OfferRow

    with connection.cursor() as cursor:
        for model in (OfferRow, OfferChange):
            cursor.execute(f"TRUNCATE TABLE `{model._meta.db_table}`")


def main() -> None:
    parser = argparse.ArgumentParser()
    parser.add_argument("--lines", type=int, default=3_000_000)
    count = parser.parse_args().lines
    with tempfile.TemporaryDirectory() as folder, servers() as environment:
        os.environ.update(
            {
                **environment,
                "VINETAG_LAKE": f"{folder}/lake",
                "DJANGO_SETTINGS_MODULE": "vinetag.config.settings.test",
            }
        )
        django.setup()
        call_command("migrate", verbosity=0)
        found = measured(count, Path(folder))
    print(json.dumps(found))


def measured(count: int, folder: Path) -> dict[str, Any]:
    from django.utils import timezone

    from vinetag.apps.hunting.hunts import _near
    from vinetag.apps.market.lists import bring_list, edition_files, word_numbers
    from vinetag.apps.market.models import MarketRow
    from vinetag.core.brief import parse_brief
    from vinetag.core.lexicon import load_lexicon
    from vinetag.core.market import parse_hunt
    from vinetag.lake.duck import shared_duck
    from vinetag.lake.hunting import Lists, hunt, suits_of

    lexicon = load_lexicon()
    words = [word for word in word_numbers() if 2 <= len(word) <= 9][:WORDS_USED]
    files = [folder / f"{n}.csv" for n in (1, 2)]
    for n, file in enumerate(files):
        # The second list is the first with one line in twenty otherwise, as a day later.
        if n == 0:
            with file.open("w") as out:
                out.writelines(lines(count, words, 4))
        else:
            with files[0].open() as old, file.open("w") as new:
                for place, line in enumerate(old):
                    new.write(line.replace(",fixed,", ",asking,", 1) if place % 20 == 7 else line)
    emptied()
    row, _ = MarketRow.objects.get_or_create(code="bench", defaults={"name": "Bench"})
    row.edition = ""
    row.save()
    bare = bare_load(files[0], row.pk)
    emptied()
    peaks, seconds = [resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1e3], []
    for file in files:
        began = time.monotonic()
        with file.open("rb") as source:
            brought = bring_list(row, source)
        seconds.append(time.monotonic() - began)
        peaks.append(resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1e3)
        if brought.read.taken != count:
            raise SystemExit(f"{brought.read.taken} of {count} lines were taken")
    brief = parse_brief({"about": "boats on a quiet lake", "keywords": [{"text": "lake"}]})
    lists, now = Lists(edition_files(), {"EUR": Decimal(1)}), timezone.now()
    times: dict[str, float] = {}
    with shared_duck() as duck:
        began = time.monotonic()
        suits = {market: suits_of(duck, file, _near(brief)) for market, file in lists.files.items()}
        judged = time.monotonic() - began
        for name, asked in QUESTIONS.items():
            each = []
            for _ in range(5):
                began = time.monotonic()
                hunt(duck, lists, suits, parse_hunt(asked), now, 0, 60)
                each.append(time.monotonic() - began)
            times[name] = round(statistics.median(each), 3)
    emptied()
    row.delete()
    del lexicon
    return {
        "lines": count,
        "bare_parse_and_load_s": round(bare, 1),
        "import_s": round(seconds[0], 1),
        "import_rate_of_bare": round(bare / seconds[0], 2),
        "import_a_day_later_s": round(seconds[1], 1),
        "peak_mb": [round(peak) for peak in peaks],
        "judged_by_a_brief_s": round(judged, 2),
        "hunt_median_s": times,
        "hunt_worst_median_s": max(times.values()),
    }


if __name__ == "__main__":
    main()
