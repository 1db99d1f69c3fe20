"""Does the grade agree with readers? Marks that blind readers gave names, beside our grades.

    python scripts/eval_appeal.py [--half tuned|held|both] [--measures]

`tests/readings/marks.json` holds 38 briefs with the mark (1 to 5) of every name and where the name
came from, which the grade never sees. Briefs are split in halves by a checksum of their id: one was
looked at while the measures were weighed, the other was not. Prints one JSON object: the area under
the curve of the grade for usable names (3 and more) over all names, over those without our fields'
own entries, and the mean rank correlation within a brief among the names of earlier programs.
"""

from __future__ import annotations

import argparse
import json
import zlib
from collections.abc import Callable, Sequence
from pathlib import Path
from typing import Any

import numpy as np

from vinetag.core.brief import MEASURE_NAMES, parse_brief
from vinetag.core.grade import MEASURES, Grader
from vinetag.core.lexicon import load_lexicon

MARKS = Path(__file__).resolve().parent.parent / "tests/readings/marks.json"
USABLE = 3
Row = dict[str, Any]


def half_of(brief: str) -> str:
    return "tuned" if zlib.crc32(brief.encode()) % 2 else "held"


def ranks(values: Sequence[float]) -> np.ndarray[Any, Any]:
    """Ranks from 1, equals sharing their mean."""
    array = np.asarray(values, float)
    order = array.argsort(kind="stable")
    found = np.empty(len(array))
    found[order] = np.arange(1, len(array) + 1)
    for value in np.unique(array):
        found[array == value] = found[array == value].mean()
    return found


def area(values: Sequence[float], usable: Sequence[bool]) -> float:
    """How often a usable name is above another, equals counting half."""
    ranked, chosen = ranks(values), np.asarray(usable)
    count = int(chosen.sum())
    over = ranked[chosen].sum() - count * (count + 1) / 2
    return float(over / (count * (len(ranked) - count)))


def correlation(one: Sequence[float], two: Sequence[float]) -> float:
    """Spearman's rank correlation; nan when one side is all alike."""
    first, second = ranks(one), ranks(two)
    if first.std() == 0 or second.std() == 0:
        return float("nan")
    return float(np.corrcoef(first, second)[0, 1])


def graded(document: Sequence[dict[str, Any]], half: str) -> list[Row]:
    lexicon, rows = load_lexicon(), []
    for entry in document:
        if half not in ("both", half_of(entry["id"])):
            continue
        keywords = [{"text": word} for word in entry["words"]]
        about, purpose = entry["about"], entry["purpose"]
        brief = parse_brief({"about": about, "purpose": purpose, "keywords": keywords})
        grader = Grader(brief, lexicon, MEASURES)
        for name in entry["names"]:
            grade = grader.grade(grader.read_label(name["label"]))
            rows.append({"brief": entry["id"], **name, "grade": grade.grade, **grade.scores})
    return rows


def within(rows: Sequence[Row], key: str, chosen: Callable[[Row], bool]) -> float:
    """The mean over briefs of the rank correlation among the chosen names."""
    found = []
    for brief in sorted({r["brief"] for r in rows}):
        few = [r for r in rows if r["brief"] == brief and chosen(r)]
        if len(few) > 2:
            found.append(correlation([r.get(key, 0.0) for r in few], [r["mark"] for r in few]))
    return float(np.nanmean(found))


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--half", choices=("tuned", "held", "both"), default="both")
    parser.add_argument("--measures", action="store_true", help="each measure alone as well")
    args = parser.parse_args()
    rows = graded(json.loads(MARKS.read_text("utf-8")), args.half)

    def agreement(key: str) -> dict[str, float]:
        free = [r for r in rows if not r["made_by"].startswith("world")]
        found = {
            "area": area([r.get(key, 0.0) for r in rows], [r["mark"] >= USABLE for r in rows]),
            "area_without_entries": area(
                [r.get(key, 0.0) for r in free], [r["mark"] >= USABLE for r in free]
            ),
            "within_program": within(rows, key, lambda r: r["made_by"] == "program"),
            "within_world": within(rows, key, lambda r: r["made_by"].startswith("world")),
        }
        return {name: round(value, 3) for name, value in found.items()}

    figures: dict[str, Any] = {"half": args.half, "names": len(rows), **agreement("grade")}
    if args.measures:
        figures["measures"] = {name: agreement(name) for name in MEASURE_NAMES}
    print(json.dumps(figures))


if __name__ == "__main__":
    main()
