"""How fast names are graded, whole and by measure.

    python scripts/bench_grade.py [--names 2000] [--rounds 3]

Grades the best names of a brief in full on one core: first with nothing remembered of their words,
then with the words known, then names that were graded before. The first pass that ranks candidates
for the making is timed on as many drafts as there are.
The baseline, in the same run, is splitting each name into words.
"""

from __future__ import annotations

import argparse
import json
import time
from collections.abc import Callable

from vinetag.core.brief import parse_brief
from vinetag.core.grade import MEASURES, Grader
from vinetag.core.grade.judge import hearing_of
from vinetag.core.lexicon import load_lexicon
from vinetag.core.lexicon.segment import segment
from vinetag.core.make import RECIPES, Job, make_names
from vinetag.core.make.expected import expected
from vinetag.core.make.listing import merge
from vinetag.core.make.sieve import Sieve

WORDS = "letterpress,paper,stars,garden,piano"


def best(work: Callable[[], object], rounds: int) -> float:
    times = []
    for _ in range(rounds):
        began = time.perf_counter()
        work()
        times.append(time.perf_counter() - began)
    return min(times)


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.splitlines()[0])
    parser.add_argument("--names", type=int, default=2_000)
    parser.add_argument("--rounds", type=int, default=3)
    args = parser.parse_args()
    lexicon = load_lexicon()
    brief = parse_brief({"keywords": WORDS.split(",")})
    # Other names of the same kind warm up what is loaded, not what is remembered of words.
    make_names(parse_brief({"keywords": ["coffee", "river"]}), lexicon, limit=200)
    made = make_names(brief, lexicon, limit=args.names).names
    grader = Grader(brief, lexicon, MEASURES)

    hearing = hearing_of(lexicon)

    def grade_all() -> None:
        hearing.forget_names()
        for g in made:
            grader.grade(grader.read(g.candidate))

    readings = [grader.read(g.candidate) for g in made]
    hearing.word.cache_clear()
    fresh = best(grade_all, 1)
    warm = best(grade_all, args.rounds)
    again = best(lambda: [grader.grade(r) for r in readings], args.rounds)
    typed = [g.candidate.label for g in made]

    def grade_typed() -> None:
        hearing.forget_names()
        for text in typed:
            grader.grade(grader.read_label(text))

    from_letters = best(grade_typed, args.rounds)
    bare = best(lambda: [segment(t, lexicon) for t in typed], args.rounds)
    measures = {
        m.name: round(
            len(readings) / best(lambda m=m: [m.assess(r) for r in readings], args.rounds)
        )
        for m in MEASURES
    }
    job, sieve = Job(brief, lexicon), Sieve(brief, lexicon)
    drafts = [(r.name, d) for r in RECIPES for d in r.make(job) if sieve.passes(d)]
    candidates = merge(drafts)
    passing = best(lambda: expected(candidates, brief, lexicon), args.rounds)
    count = len(readings)
    for name, rate in measures.items():
        print(f"{name:10} {rate:>9,} names/s")
    print(
        json.dumps(
            {
                "names": count,
                "seconds_fresh_words": round(fresh, 2),
                "seconds_warm": round(warm, 3),
                "seconds_known_names": round(again, 3),
                "per_second_fresh": round(count / fresh),
                "per_second_warm": round(count / warm),
                "per_second_from_letters": round(count / from_letters),
                "times_splitting_alone": round(from_letters / bare, 1),
                "by_measure_per_second": measures,
                "first_pass_per_second": round(len(candidates) / passing),
            }
        )
    )


if __name__ == "__main__":
    main()
