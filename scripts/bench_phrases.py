"""What phrases cost at their largest: python -m scripts.bench_phrases [--lines 200000].

A made-up table of so many lines with twelve months each is brought as the interface brings it, and
read by the worker's code; then a page is narrowed by typing, the tree is cut, and the ladders of
300 chosen phrases, whose forms are all known, are read, all through the API. Starts a database, a
queue and a simulated world of its own.

Baselines, in the same run: for reading, Python's csv module over the same lines, which understands
nothing; for grouping 5,000 phrases, the same linkage over all distances of their meanings by scipy,
which knows no words in common; for ladders, the forms of one name on the bench, 300 times (measured
on five); for typing, the same letters sought by the database (LIKE) in a table of the phrases.
"""

from __future__ import annotations

import argparse
import csv
import io
import json
import random
import statistics
import time
from collections.abc import Callable
from typing import Any

from scripts.beside import parts

CHOSEN = 300
TYPED = ("p", "pi", "pia", "pian", "piano", "piano t", "tun", "garden", "zz", "a")
HEADING = "Keyword,Avg. monthly searches,Competition,Price per click,Currency,Country"


def table(lines: int) -> bytes:
    """A made-up export: phrases of one to four words of a vocabulary of three thousand."""
    from vinetag.core.lexicon import load_lexicon

    draw = random.Random(19)
    words = [w.text for w in load_lexicon().words.values() if 3.4 < w.zipf < 5.5][:3000]
    words += ["piano", "tuning", "garden"]
    months = ",".join(f"2026-{m:02}" for m in range(1, 13))
    rows, seen = [f"{HEADING},{months}"], set[str]()
    while len(rows) <= lines:
        phrase = " ".join(draw.choices(words, k=draw.choice((2, 3, 3, 4))))
        if phrase in seen:
            continue
        seen.add(phrase)
        searches = int(10 ** (4 * draw.random()))
        by_month = ",".join(str(round(searches * (0.6 + 0.8 * draw.random()))) for _ in range(12))
        rows.append(
            f"{phrase},{searches},{draw.random():.2f},{3 * draw.random():.2f},EUR,IE,{by_month}"
        )
    return "\n".join(rows).encode()


def seconds(work: Callable[[], object]) -> float:
    began = time.perf_counter()
    work()
    return time.perf_counter() - began


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.split("\n")[0])
    parser.add_argument("--lines", type=int, default=200_000)
    args = parser.parse_args()
    with parts():
        import django

        django.setup()
        from django.core.management import call_command

        call_command("migrate", verbosity=0)
        figures = measured(args.lines)
    print(json.dumps(figures))


def measured(lines: int) -> dict[str, float]:
    import numpy as np
    from django.db import connection
    from django.utils import timezone
    from rest_framework.test import APIClient
    from scipy.cluster.hierarchy import linkage
    from scipy.spatial.distance import pdist

    from vinetag.apps.accounts.models import User
    from vinetag.apps.availability.models import Lookup
    from vinetag.apps.bench.selectors import fallback
    from vinetag.apps.naming.services import create_project
    from vinetag.apps.phrases import shelf
    from vinetag.apps.phrases.bringing import read_waiting
    from vinetag.apps.phrases.ladders import names_to_check
    from vinetag.apps.phrases.models import PhraseFile
    from vinetag.apps.phrases.tasks import read_figures
    from vinetag.core.demand import Folding, Space, grow
    from vinetag.core.lexicon import load_lexicon

    lexicon = load_lexicon()
    lexicon.meanings.place("piano")
    person = User.objects.create_user("bench", password="only-for-benchmarks")  # noqa: S106
    brief = {"keywords": ["piano", "tuning"], "extensions": ["com", "net", "ie"], "purpose": "mix"}
    project = create_project(owner=person, name="Bench", brief=brief)
    api: Any = APIClient(SERVER_NAME="localhost")
    api.force_login(person)
    at = f"/api/projects/{project.pk}/phrases"
    content = table(lines)
    figures: dict[str, float] = {"lines": lines, "MB": round(len(content) / 1e6, 1)}

    plain = seconds(lambda: list(csv.reader(io.StringIO(content.decode(), newline=""))))
    read_figures.delay = lambda _: None  # type: ignore[method-assign]
    taken = seconds(
        lambda: api.post(
            f"{at}/figures?source=Bench", content, content_type="application/octet-stream"
        )
    )
    file = PhraseFile.objects.get()
    read = seconds(lambda: read_waiting(file.pk))
    file.refresh_from_db()
    if (file.state, file.taken) != ("done", lines):
        raise SystemExit(f"not all was taken: {file.problems[:3]}")
    figures |= {"taken s": taken, "read, gathered, grouped s": read, "read over csv": read / plain}
    print(f"taken {taken:.1f} s, read, gathered and grouped {read:.1f} s; csv alone {plain:.1f} s")

    own = shelf.shelf_of(project)
    texts = [own.phrases[place] for place in own.grouped]
    grouping = seconds(lambda: grow(Space(texts, lexicon, Folding(lexicon))))
    meaning = lexicon.meanings.phrases([text.split() for text in texts])
    base = seconds(lambda: linkage(pdist(meaning.astype(np.float64), "cosine"), "average"))
    figures |= {
        "phrases grouped": len(texts),
        "grouped s": grouping,
        "grouped over scipy": grouping / base,
    }
    print(f"{len(texts):,} phrases grouped {grouping:.2f} s; scipy on meanings alone {base:.2f} s")

    first = seconds(lambda: api.get(at))
    typing = [seconds(lambda text=text: api.get(at, {"text": text})) for text in TYPED * 3]
    with connection.cursor() as cursor:
        cursor.execute("CREATE TEMPORARY TABLE said (phrase VARCHAR(120), low INT)")
        rows = list(zip(own.phrases, own.views[own.usual].low.tolist(), strict=True))
        for start in range(0, len(rows), 5_000):
            cursor.executemany("INSERT INTO said VALUES (%s, %s)", rows[start : start + 5_000])

        def like(text: str) -> None:
            ask = "SELECT SQL_CALC_FOUND_ROWS phrase FROM said WHERE phrase LIKE %s"
            cursor.execute(f"{ask} ORDER BY low DESC LIMIT 100", [f"%{text}%"])
            cursor.fetchall()

        sought = [seconds(lambda text=text: like(text)) for text in TYPED * 3]
    usual, most = statistics.median(typing), max(typing)
    figures |= {
        "first page s": first, "typing ms": 1000 * usual, "typing, slowest ms": 1000 * most,
        "typing over LIKE": usual / statistics.median(sought),
    }  # fmt: skip
    print(
        f"a page by typing {1000 * usual:.0f} ms, at most {1000 * most:.0f} ms; first {first:.1f} s"
    )

    cuts = [
        seconds(lambda cut=cut: api.get(f"{at}/groups", {"cut": cut})) for cut in (0.5, 0.7, 0.9)
    ]
    figures["groups at another cut s"] = max(cuts)

    body = {"phrases": texts[:CHOSEN]}
    api.post(f"{at}/chosen", body, format="json")
    Lookup.objects.bulk_create(
        [
            Lookup(
                project=project, label=name.label, extension=name.extension, number=n,
                status=("taken", "taken", "open")[n % 3], asked_at=timezone.now(),
            )
            for n, name in enumerate(names_to_check(project), 1)
        ],
        batch_size=1_000,
    )  # fmt: skip
    began = seconds(lambda: api.get(f"{at}/names"))
    ladders = statistics.median(seconds(lambda: api.get(f"{at}/names")) for _ in range(5))
    labels = ["".join(text.split()) for text in texts[:5]]
    one_by_one = CHOSEN * seconds(lambda: [fallback(project, a) for a in labels]) / len(labels)
    figures |= {
        "ladders s": ladders,
        "ladders, first s": began,
        "ladders over one by one": ladders / one_by_one,
    }
    print(f"{CHOSEN} ladders {ladders:.2f} s (first {began:.2f} s); one by one {one_by_one:.0f} s")
    return {name: round(value, 3) for name, value in figures.items()}


if __name__ == "__main__":
    main()
