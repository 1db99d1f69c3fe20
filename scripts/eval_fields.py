"""How near the nearest field comes to ventures of all kinds: where one is missing, names suffer.

    python scripts/eval_fields.py [--below 8.5]

`tests/readings/ventures.json` holds a sentence and keywords of each; `seen` says whether fields
were written with it in view. Of entries from a field at a nearness of 9 and more most are usable,
below 6.5 hardly any. Lists the ventures whose nearest field is further off than --below, with the
fields found, and prints one JSON object: how many there are, their median nearness, and the share
at 9 and more, of those seen and of the others.
"""

from __future__ import annotations

import argparse
import json
from pathlib import Path
from statistics import median

from vinetag.core.brief import parse_brief
from vinetag.core.lexicon import load_lexicon
from vinetag.core.world.world import world_of

VENTURES = Path(__file__).resolve().parent.parent / "tests/readings/ventures.json"
NEAR = 9.0
SHOWN = 3


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--below", type=float, default=8.5, help="list what is further off")
    below = parser.parse_args().below
    lexicon = load_lexicon()
    nearest: dict[bool, list[float]] = {True: [], False: []}
    for venture in json.loads(VENTURES.read_text("utf-8")):
        brief = parse_brief({name: venture[name] for name in ("about", "keywords")})
        ranked = world_of(brief, lexicon).ranked
        nearest[venture["seen"]].append(ranked[0].nearness)
        if ranked[0].nearness < below:
            told = ", ".join(f"{f.field.title} {f.nearness:.1f}" for f in ranked[:SHOWN])
            print(f"{venture['about']} {told}")
    figures = {
        name: {
            "ventures": len(values),
            "median": round(median(values), 1),
            "at_9_and_more": round(sum(v >= NEAR for v in values) / len(values), 2),
        }
        for name, values in (("seen", nearest[True]), ("unseen", nearest[False]))
    }
    print(json.dumps({"fields": len(ranked), **figures}))


if __name__ == "__main__":
    main()
