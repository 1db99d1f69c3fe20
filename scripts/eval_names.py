"""What a reader sees: the first names of each brief in tests/briefs, and how many of a demo
project's first 200 are open in .com in the simulated world.

    python scripts/eval_names.py [--first 50] [--seed 1] [--briefs tests/briefs/unseen]

The lists are for reading; docs/quality.md says what was thought of them.
"""

from __future__ import annotations

import argparse
import json
from collections import Counter
from datetime import UTC, datetime
from pathlib import Path

from standins.world import World
from vinetag.apps.bench.demo_briefs import DEMO
from vinetag.core.brief import Brief, parse_brief
from vinetag.core.lexicon import load_lexicon
from vinetag.core.make import make_names

BRIEFS = Path(__file__).resolve().parent.parent / "tests/briefs"
NOW = datetime(2026, 11, 25, tzinfo=UTC)
CHECKED = 200


def first(of: Brief, count: int, seed: int) -> list[str]:
    names = make_names(of, load_lexicon(), seed=seed, limit=count).names
    return [g.candidate.label for g in names]


def recipes(of: Brief, count: int, seed: int) -> dict[str, int]:
    names = make_names(of, load_lexicon(), seed=seed, limit=count).names
    return dict(Counter(g.candidate.recipes[0] for g in names).most_common())


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.splitlines()[0])
    parser.add_argument("--first", type=int, default=50)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--briefs", type=Path, default=BRIEFS)
    args = parser.parse_args()
    found: dict[str, dict[str, int]] = {}
    for path in sorted(args.briefs.glob("*.json")):
        of = parse_brief(json.loads(path.read_text()))
        print(f"## {path.stem}: {', '.join(k.text for k in of.keywords)}")
        print(" ".join(first(of, args.first, args.seed)), "\n")
        found[path.stem] = recipes(of, args.first, args.seed)
    world = World()
    open_share = {}
    for item in DEMO:
        names = first(parse_brief(item["brief"]), CHECKED, args.seed)
        free = sum(world.registration(name, "com", NOW) is None for name in names)
        open_share[item["name"]] = round(free / len(names), 3)
    print(json.dumps({"recipes_of_the_first": found, "open_in_com_of_first_200": open_share}))


if __name__ == "__main__":
    main()
