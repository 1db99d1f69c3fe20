"""How fast names are made and graded, and where the time goes.

    python scripts/bench_make.py [--candidates 20000] [--rounds 3]

Adds keywords until the recipes make at least so many distinct names, then makes and grades them
all on one core. The baseline, in the same run, is joining the same drafts' parts into labels.
"""

from __future__ import annotations

import argparse
import json
import time
from collections.abc import Callable, Iterator

from vinetag.core.brief import Brief, Keyword, Limits
from vinetag.core.grade import MEASURES, Grader
from vinetag.core.lexicon import load_lexicon
from vinetag.core.make import RECIPES, Job, make_names

WORDS = (
    "paper ink post letter press garden piano night sky quiet coffee bread river stone music "
    "light window craft forest ocean summer copper linen honey maple harbor"
).split()


def brief(count: int) -> Brief:
    words = tuple(Keyword((word,)) for word in WORDS[:count])
    return Brief(keywords=words, limits=Limits(letters_max=20, hyphens=1))


def timed(work: Callable[[], object]) -> float:
    began = time.perf_counter()
    work()
    return time.perf_counter() - began


def best(work: Callable[[], object], rounds: int) -> float:
    return min(timed(work) for _ in range(rounds))


def shares(seconds: dict[str, float]) -> dict[str, float]:
    total = sum(seconds.values())
    return {name: round(value / total, 3) for name, value in seconds.items()}


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.splitlines()[0])
    parser.add_argument("--candidates", type=int, default=20_000)
    parser.add_argument("--rounds", type=int, default=3)
    args = parser.parse_args()
    lexicon = load_lexicon()
    cold = timed(lambda: make_names(brief(2), lexicon))
    count = 2
    while make_names(brief(count), lexicon).within < args.candidates and count < len(WORDS):
        count += 1
    of = brief(count)
    made = make_names(of, lexicon)
    whole = best(lambda: make_names(of, lexicon), args.rounds)
    job = Job(of, lexicon)
    by_recipe = {r.name: best(lambda r=r: list(r.make(job)), args.rounds) for r in RECIPES}
    drafts = [d for r in RECIPES for d in r.make(job)]
    bare = best(lambda: ["".join(p.text for p in d.parts) for d in drafts], args.rounds)
    everyone = make_names(of, lexicon, limit=10**9).names
    grader = Grader(of, lexicon, MEASURES)
    readings = [grader.read(g.candidate) for g in everyone]

    def assess(measure: object) -> Iterator[object]:
        return (measure.assess(reading) for reading in readings)

    by_measure = {m.name: best(lambda m=m: list(assess(m)), args.rounds) for m in MEASURES}
    for name, seconds in {**by_recipe, **by_measure}.items():
        print(f"{name:10} {1000 * seconds:8.1f} ms")
    print(
        json.dumps(
            {
                "keywords": count,
                "candidates": made.within,
                "seconds": round(whole, 3),
                "candidates_per_second": round(made.within / whole),
                "first_run_seconds": round(cold, 3),
                "times_bare_joining": round(whole / bare, 1),
                "share_by_recipe": shares(by_recipe),
                "share_by_measure": shares(by_measure),
                "making_of_whole": round(sum(by_recipe.values()) / whole, 3),
                "measuring_of_whole": round(sum(by_measure.values()) / whole, 3),
            }
        )
    )


if __name__ == "__main__":
    main()
