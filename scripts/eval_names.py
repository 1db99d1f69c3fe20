"""Lists of names for blind readers, and what their marks come to.

    python scripts/eval_names.py                              # the first 50 of each brief
    python scripts/eval_names.py prepare OUT --others FILE    # lists to be read
    python scripts/eval_names.py take KEY --marks A B         # the readers' marks
    python scripts/eval_names.py known                        # marks given before, of our names now

`prepare` makes, for each brief of `tests/readings/briefs.json` (or --briefs), the first 50 names,
mixes them with the others of FILE ({brief: [label, …]}, written for the same briefs by somebody who
saw none of ours), shuffles them, and writes `lists.json`, which is all a reader gets, and
`key.json`, which says where each name came from. A reader writes {brief: {label: mark}}, marks from
1 (rubbish) to 5 (excellent); 3 and more is usable. `take` prints shares and means by source, by
purpose and by recipe, and how the readers' marks correlate. `known` takes the marks that blind
readers gave before (`tests/readings/marks.json`), of the names that are among our first 50 now, and
of the briefs nothing was weighed on apart. Every command ends with a JSON object.
"""

from __future__ import annotations

import argparse
import json
import random
from collections import defaultdict
from collections.abc import Mapping, Sequence
from datetime import UTC, datetime
from pathlib import Path
from statistics import mean
from typing import Any

from eval_appeal import MARKS, USABLE, correlation, half_of

from standins.world import World
from vinetag.apps.bench.demo_briefs import DEMO
from vinetag.core.brief import parse_brief
from vinetag.core.lexicon import load_lexicon
from vinetag.core.make import make_names

BRIEFS = Path(__file__).resolve().parent.parent / "tests/readings/briefs.json"
NOW = datetime(2026, 11, 28, tzinfo=UTC)
FIRST, CHECKED = 50, 200
FEW = 20


def ours(document: Mapping[str, Any], count: int, seed: int) -> list[tuple[str, str]]:
    """(label, its first recipe), in our order."""
    names = make_names(parse_brief(document), load_lexicon(), seed=seed, limit=count).names
    return [(g.candidate.label, g.candidate.recipes[0]) for g in names]


def show(briefs: Sequence[Mapping[str, Any]], seed: int) -> dict[str, Any]:
    found = {}
    for entry in briefs:
        names = ours(entry["brief"], FIRST, seed)
        print(f"## {entry['id']}: {entry['brief']['about']} ({entry['brief']['purpose']})")
        print(" ".join(label for label, _ in names), "\n")
        recipes: dict[str, int] = defaultdict(int)
        for _, recipe in names:
            recipes[recipe] += 1
        found[entry["id"]] = dict(recipes)
    world, free = World(), {}
    for item in DEMO:
        labels = [label for label, _ in ours(item["brief"], CHECKED, seed)]
        open_ones = sum(world.registration(label, "com", NOW) is None for label in labels)
        free[item["name"]] = round(open_ones / len(labels), 3)
    return {"recipes_of_the_first": found, f"open_in_com_of_first_{CHECKED}": free}


def placed(made: Sequence[tuple[str, str]]) -> dict[str, dict[str, Any]]:
    """What is known of each of our names, by label."""
    return {
        label: {"from": "ours", "recipe": recipe, "place": place}
        for place, (label, recipe) in enumerate(made, 1)
    }


def prepare(
    briefs: Sequence[Mapping[str, Any]], out: Path, others: Mapping[str, Sequence[str]], seed: int
) -> dict[str, Any]:
    lists, key = [], {}
    for entry in briefs:
        known = placed(ours(entry["brief"], FIRST, seed))
        for label in others.get(entry["id"], ()):
            known.setdefault(label, {"from": "other", "recipe": "", "place": 0})
        labels = sorted(known)
        random.Random(f"{seed}/{entry['id']}").shuffle(labels)
        asked = {name: entry["brief"][name] for name in ("about", "purpose")}
        lists.append({"id": entry["id"], **asked, "names": labels})
        key[entry["id"]] = {"purpose": entry["brief"]["purpose"], "names": known}
    out.mkdir(parents=True, exist_ok=True)
    (out / "lists.json").write_text(json.dumps(lists, indent=1) + "\n", "utf-8")
    (out / "key.json").write_text(json.dumps(key, indent=1) + "\n", "utf-8")
    return {"briefs": len(lists), "names": sum(len(entry["names"]) for entry in lists)}


def take(key: Mapping[str, Any], readers: Sequence[Mapping[str, Any]]) -> dict[str, Any]:
    rows = []
    for brief, held in key.items():
        for label, known in held["names"].items():
            marks = [r[brief][label] for r in readers if label in r.get(brief, {})]
            if any(m not in (1, 2, 3, 4, 5) for m in marks):
                raise SystemExit(f"{brief}: “{label}” has a mark that is none of 1 to 5.")
            if marks:
                rows.append({**known, "brief": brief, "purpose": held["purpose"], "marks": marks})

    def figures_of(chosen: Sequence[Mapping[str, Any]]) -> dict[str, Any]:
        means = [mean(row["marks"]) for row in chosen]
        usable = sum(m >= USABLE for m in means) / len(means) if means else None
        return {
            "names": len(means),
            "usable": None if usable is None else round(usable, 3),
            "mean": round(mean(means), 2) if means else None,
        }

    mine = [row for row in rows if row["from"] == "ours"]
    both = [row["marks"] for row in rows if len(row["marks"]) == len(readers) > 1]
    return {
        "ours": figures_of(mine),
        f"ours_first_{FEW}": figures_of([row for row in mine if row["place"] <= FEW]),
        "others": figures_of([row for row in rows if row["from"] == "other"]),
        "by_purpose": {
            p: figures_of([row for row in mine if row["purpose"] == p])
            for p in sorted({row["purpose"] for row in mine})
        },
        "by_recipe": {
            r: figures_of([row for row in mine if row["recipe"] == r])
            for r in sorted({row["recipe"] for row in mine})
        },
        "readers_agree": (
            round(correlation([m[0] for m in both], [m[1] for m in both]), 2) if both else None
        ),
    }


def known_marks(seed: int) -> dict[str, Any]:
    key, reader = {}, {}
    for entry in json.loads(MARKS.read_text("utf-8")):
        brief = {"keywords": entry["words"], **{n: entry[n] for n in ("about", "purpose")}}
        names = placed(ours(brief, FIRST, seed))
        key[entry["id"]] = {"purpose": entry["purpose"], "names": names}
        reader[entry["id"]] = {n["label"]: n["mark"] for n in entry["names"]}
    held = {brief: of for brief, of in key.items() if half_of(brief) == "held"}
    return {**take(key, [reader]), "held": take(held, [reader])["ours"]}


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.splitlines()[0])
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--briefs", type=Path, default=BRIEFS)
    commands = parser.add_subparsers(dest="command")
    making = commands.add_parser("prepare")
    making.add_argument("out", type=Path)
    making.add_argument("--others", type=Path)
    taking = commands.add_parser("take")
    taking.add_argument("key", type=Path)
    taking.add_argument("--marks", type=Path, nargs="+", required=True)
    commands.add_parser("known")
    args = parser.parse_args()
    if args.command == "known":
        print(json.dumps(known_marks(args.seed)))
        return
    if args.command == "take":
        readers = [json.loads(path.read_text("utf-8")) for path in args.marks]
        print(json.dumps(take(json.loads(args.key.read_text("utf-8")), readers)))
        return
    briefs = json.loads(args.briefs.read_text("utf-8"))
    if args.command == "prepare":
        others = json.loads(args.others.read_text("utf-8")) if args.others else {}
        print(json.dumps(prepare(briefs, args.out, others, args.seed)))
    else:
        print(json.dumps(show(briefs, args.seed)))


if __name__ == "__main__":
    main()
