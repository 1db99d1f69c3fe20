"""What offers and drops cost, against the bare work on the same lines: the import of 3,000,000
lines, the filters of the hunt over them; a zone file of 20,000,000 names, a project's names against
it, all names of five letters under three extensions; 10,000 watched names (bench_watching.py).

    python -m scripts.bench_market [--lines 3000000] [--zone 20000000]
                                   [--only offers|zones|watching]

The bare work of an import is reading the same file with DuckDB's own reader of CSV and loading it
into the same table of the database in the order of the file; of names against a zone, DuckDB's join
of the same two tables. Starts a database of its own. Prints one JSON object.
"""

from __future__ import annotations

import argparse
import gzip
import json
import os
import random
import resource
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator, Mapping
from datetime import date
from decimal import Decimal
from pathlib import Path
from typing import Any

import django
import numpy as np
from django.core.management import call_command

from ops.test import servers

WORDS_USED = 20_000
ZONE_PART, NAMES_ASKED = 100_000, 50_000
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
    parser.add_argument("--zone", type=int, default=20_000_000)
    parser.add_argument("--only", choices=("offers", "zones", "watching"))
    args = parser.parse_args()
    found: dict[str, Any] = {}
    if args.only in (None, "watching"):
        found["watching"] = watching_measured()
    if args.only == "watching":
        print(json.dumps(found))
        return
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
        if args.only != "zones":
            found |= measured(args.lines, Path(folder))
        if args.only != "offers":
            found |= zones_measured(args.zone, Path(folder))
    print(json.dumps(found))


def watching_measured() -> Any:
    """What scripts.bench_watching finds, which starts what it needs itself."""
    done = subprocess.run(
        [sys.executable, "-m", "scripts.bench_watching"], check=True, stdout=subprocess.PIPE
    )
    return json.loads(done.stdout)


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


def zone_file(target: Path, count: int) -> None:
    """A made-up zone of .com, packed: names of three to twelve letters, two servers each."""
    rng = np.random.default_rng(3)
    with gzip.open(target, "wt", compresslevel=1, encoding="ascii") as out:
        out.write("com.\t900\tin\tsoa\ta.nic. hostmaster.nic. 1 2 3 4 5\n")
        for _ in range(count // ZONE_PART):
            letters = rng.integers(97, 123, (ZONE_PART, 12), np.uint8).tobytes().decode()
            lengths = rng.integers(3, 13, ZONE_PART)
            names = (letters[12 * n : 12 * n + size] for n, size in enumerate(lengths))
            out.writelines(
                f"{name}.com.\t172800\tin\tns\tns{n}.x.net.\n" for name in names for n in (1, 2)
            )


def zones_measured(count: int, folder: Path) -> dict[str, Any]:
    from vinetag.apps.market.lists import lake, workshop
    from vinetag.core.lexicon import load_lexicon
    from vinetag.core.market.short_names import matching, parse_short
    from vinetag.lake.duck import open_duck, shared_duck
    from vinetag.lake.zones import delegated, short_bits, snapshot_folder, write_snapshot

    file, zones, day = folder / "com.zone.gz", lake() / "zones", date(2026, 11, 28)
    zone_file(file, count)
    with workshop() as work, open_duck(work) as duck:
        began = time.monotonic()
        snapshot = write_snapshot(duck, file, "com", day, zones)
        imported = time.monotonic() - began
    file.unlink()
    rng = random.Random(5)
    asked = ["".join(rng.choices("abcdefghijklmnopqrstuvwxyz", k=rng.randint(3, 8)))
             for _ in range(NAMES_ASKED)]  # fmt: skip
    names = snapshot_folder(zones, "com", day) / "names.parquet"
    ours, bare = [], []
    with shared_duck() as reading:
        for _ in range(7):
            began = time.monotonic()
            found = delegated(reading, zones, {"com": day}, {"com": asked})["com"]
            ours.append(time.monotonic() - began)
            reading.register("w", {"label": np.array(asked, dtype=object)})
            began = time.monotonic()
            rows = reading.execute(
                f"select distinct z.label from read_parquet('{names}') z join w using (label)"
            ).fetchall()
            bare.append(time.monotonic() - began)
            reading.unregister("w")
            if len(rows) != len(found):
                raise SystemExit("the join found others")
    scans = []
    lexicon = load_lexicon()
    for asked_for in ({"shape": "?????"}, {"shape": "?????", "sayable": "1"}):
        began = time.monotonic()
        numbers = matching(parse_short(asked_for), lexicon)
        taken = [short_bits(zones, "com", day)[numbers] for _ in range(3)]
        free = numbers[~np.logical_and.reduce(taken)]
        scans.append(time.monotonic() - began)
        if not len(free):
            raise SystemExit("nothing was free")
    ours_s, bare_s = statistics.median(ours), statistics.median(bare)
    return {
        "zone_names": snapshot.names,
        "zone_import_s": round(imported, 1),
        "zone_peak_mb": round(resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1e3),
        "names_asked": NAMES_ASKED,
        "names_against_zone_s": round(ours_s, 3),
        "names_against_bare_join": round(ours_s / bare_s, 2),
        "scan_five_letters_three_extensions_s": round(scans[0], 2),
        "scan_that_can_be_said_s": round(scans[1], 2),
    }


if __name__ == "__main__":
    main()
