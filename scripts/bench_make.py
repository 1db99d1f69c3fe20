"""How fast names are made and graded, and where the time goes.

    python scripts/bench_make.py [--words letterpress,paper,ink,post] [--rounds 3]

Makes the best 2,000 names from a sentence and four keywords with every recipe on, on one core:
cold, in a process that has loaded nothing, warm, and with a word more that was not there before
(the best 300, which the sheet shows first, and 2,000). Then takes the stages apart, grades 20,000
names, and counts how many of the names considered are distinct. The baseline, in the same run, is
joining the drafts' parts into labels and doing nothing else.
"""

from __future__ import annotations

import argparse
import json
import resource
import subprocess
import sys
import time
from collections.abc import Callable

from vinetag.core.brief import Brief, parse_brief
from vinetag.core.grade import MEASURES, Grader
from vinetag.core.lexicon import load_lexicon
from vinetag.core.make import RECIPES, Job, make_names
from vinetag.core.make.listing import grade_drafts, merge
from vinetag.core.make.sieve import Sieve
from vinetag.core.make.variety import diversify

MANY = (
    "paper ink post letter garden piano night sky quiet coffee bread river stone music light window"
).split()
MORE = "saddle thimble cottage feather walnut spindle bottle harbour ladder barrel".split()


ABOUT = "A monthly letterpress stationery club for people who still write letters."


def brief(words: list[str]) -> Brief:
    limits = {"letters_max": 20, "hyphens": 1}
    about = {"about": ABOUT, "keywords": words}
    return parse_brief({**about, "limits": limits, "places": ["harrowmere"]})


def timed(work: Callable[[], object]) -> float:
    began = time.perf_counter()
    work()
    return time.perf_counter() - began


def best(work: Callable[[], object], rounds: int) -> float:
    return min(timed(work) for _ in range(rounds))


def cold(words: str) -> float:
    """Seconds of a whole process less those of one that only imports."""
    run = [sys.executable, "-m", "vinetag.cli", "make", "--limit", "2000"]
    run += ["--about", ABOUT, "--words", words]
    nothing = [sys.executable, "-c", "import vinetag.cli"]
    quiet = subprocess.DEVNULL
    whole = timed(lambda: subprocess.run(run, check=True, stdout=quiet))
    return whole - timed(lambda: subprocess.run(nothing, check=True, stdout=quiet))


def changing(words: list[str], limit: int) -> float:
    """Seconds of making names from words of which one is new to the process."""
    return timed(lambda: make_names(brief(words), load_lexicon(), limit=limit))


def stages(of: Brief, rounds: int) -> dict[str, float]:
    """Seconds of each stage, made apart."""
    lexicon = load_lexicon()
    job, sieve = Job(of, lexicon), Sieve(of, lexicon)
    found = {"words": best(lambda: Job(of, lexicon).stems, rounds)}
    kept = []
    for recipe in RECIPES:
        found[recipe.name] = best(lambda r=recipe: list(r.make(job)), rounds)
        kept += [(recipe.name, d) for d in recipe.make(job)]
    found["sieve"] = best(lambda: [sieve.passes(d) for _, d in kept], rounds)
    kept = [(name, d) for name, d in kept if sieve.passes(d)]
    found["merge"] = best(lambda: merge(kept), rounds)
    found["first pass"] = best(lambda: grade_drafts(kept, of, lexicon, 1), rounds)
    found["first pass"] -= found["merge"]
    _, tiers = grade_drafts(kept, of, lexicon, 1)
    began = time.perf_counter()
    graded = next(tiers)
    found["grade"] = time.perf_counter() - began
    found["order"] = best(lambda: diversify(graded, 2_000, of, lexicon), rounds)
    return found


def grading(rounds: int) -> tuple[int, float, dict[str, float]]:
    """Twenty thousand names: how many, seconds to make and grade them, seconds by measure."""
    lexicon = load_lexicon()
    of = brief(MANY)
    made = make_names(of, lexicon, limit=20_000)
    seconds = best(lambda: make_names(of, lexicon, limit=20_000), rounds)
    grader = Grader(of, lexicon, MEASURES)
    readings = [grader.read(g.candidate) for g in made.names]
    by_measure = {
        m.name: best(lambda m=m: [m.assess(r) for r in readings], rounds) for m in MEASURES
    }
    return len(readings), seconds, by_measure


def shares(seconds: dict[str, float]) -> dict[str, float]:
    total = sum(seconds.values())
    return {name: round(value / total, 3) for name, value in seconds.items()}


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.splitlines()[0])
    parser.add_argument("--words", default="letterpress,paper,ink,post")
    parser.add_argument("--rounds", type=int, default=3)
    args = parser.parse_args()
    first = cold(args.words)
    lexicon = load_lexicon()
    given = args.words.split(",")
    of = brief(given)
    made = make_names(of, lexicon)
    warm = best(lambda: make_names(of, lexicon), args.rounds)
    words = iter(MORE)
    changed = {
        limit: min(changing([*given, next(words)], limit) for _ in range(args.rounds))
        for limit in (300, 2_000)
    }
    by_stage = stages(of, args.rounds)
    job = Job(of, lexicon)
    drafts = [d for r in RECIPES for d in r.make(job)]
    bare = best(lambda: ["".join(p.text for p in d.parts) for d in drafts], args.rounds)
    count, seconds, by_measure = grading(args.rounds)
    for name, value in {**by_stage, **by_measure}.items():
        print(f"{name:10} {1000 * value:8.1f} ms")
    rates = {
        r.name: round(made.by_recipe[r.name] / by_stage[r.name]) if by_stage[r.name] else 0
        for r in RECIPES
    }
    document = {
        "words": args.words,
        "considered": made.considered,
        "graded": made.within,
        "cold_seconds": round(first, 2),
        "warm_seconds": round(warm, 2),
        "changed_first_seconds": round(changed[300], 2),
        "changed_seconds": round(changed[2_000], 2),
        "considered_per_second": round(made.considered / warm),
        "times_bare_joining": round(warm / bare, 1),
        "by_recipe_per_second": rates,
        "share_by_stage": shares(by_stage),
        "many": {
            "names": count,
            "seconds": round(seconds, 2),
            "per_second": round(count / seconds),
            "share_by_measure": shares(by_measure),
        },
        "memory_mb": round(resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024),
    }
    print(json.dumps(document))


if __name__ == "__main__":
    main()
