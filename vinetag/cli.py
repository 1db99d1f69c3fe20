"""vinetag on the command line: open up words; make, vary, grade and check names without a browser.

All but check need neither database nor server; check asks the look-up services that the
environment names (VINETAG_LOOKUP and the others README.md lists), by default the simulated ones of
./start.
"""

from __future__ import annotations

import argparse
import csv
import gc
import json
import os
import sys
from collections.abc import Iterable, Sequence
from pathlib import Path
from typing import Any

from vinetag.cli_check import MOST_NAMES, add_check, checked
from vinetag.cli_cost import add_cost, cost
from vinetag.cli_phrases import add_phrases, phrases
from vinetag.cli_vet import add_vet, vet
from vinetag.core.brief import Brief, parse_brief
from vinetag.core.candidates import Candidate, part_document
from vinetag.core.errors import CoreError, Problem
from vinetag.core.extensions import parse_extension
from vinetag.core.grade import MEASURES, Grade, Grader, misspellings, warnings
from vinetag.core.lexicon import Lexicon, load_lexicon
from vinetag.core.make import make_names, vary
from vinetag.core.names import parse_label
from vinetag.core.spreadsheet import safe_cell
from vinetag.core.vet import mistypes
from vinetag.core.words import open_up
from vinetag.lookup import SettingsError

__all__ = ["main"]


class UsageError(Exception):
    """What was asked cannot be done; the message says why."""


def _word_data() -> Lexicon:
    """The word data. They stay, so the collector need not go through them again and again."""
    gc.disable()
    try:
        return load_lexicon()
    finally:
        gc.freeze()
        gc.enable()


def main(argv: Sequence[str] | None = None) -> int:
    """Run a command; the exit code is 0, 2 when something about the input is wrong, and of check 1
    when something stayed unsure.
    """
    args = _parser().parse_args(argv)
    try:
        rows = args.run(args)
    except CoreError as error:
        for problem in error.problems:
            where = f"{problem.path}: " if problem.path else ""
            _say(f"vinetag: {where}{problem.text()}")
        return 2
    except (UsageError, SettingsError) as error:
        _say(f"vinetag: {error}")
        return 2
    try:
        _write(rows, args.format)
        sys.stdout.flush()
    except BrokenPipeError:
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
    return int(getattr(args, "exit", 0))


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="vinetag", description=__doc__.split("\n")[0])
    commands = parser.add_subparsers(
        required=True, metavar="words | make | vary | grade | check | cost | vet | phrases"
    )
    shared = argparse.ArgumentParser(add_help=False)
    shared.add_argument("--format", choices=("csv", "json"), default="csv")
    briefed = argparse.ArgumentParser(add_help=False)
    briefed.add_argument("--words", help="keywords, separated by commas")
    briefed.add_argument("--about", help="one sentence: what it is and for whom")
    briefed.add_argument("--brief", type=Path, help="a brief as JSON; see docs/brief.schema.json")
    words = commands.add_parser(
        "words", parents=[shared, briefed], help="what each keyword leads to, by group"
    )
    words.set_defaults(run=_words)
    near = commands.add_parser(
        "vary", parents=[shared, briefed], help="near names of names from standard input"
    )
    near.add_argument("--limit", type=int, default=60, help="how many a name at most (60)")
    near.set_defaults(run=_vary)
    make = commands.add_parser("make", parents=[shared, briefed], help="make and grade names")
    make.add_argument("--limit", type=int, default=100, help="how many names at most (100)")
    make.add_argument("--seed", type=int, default=1, help="decides between equals (1)")
    make.set_defaults(run=_make)
    grade = commands.add_parser(
        "grade", parents=[shared, briefed], help="grade names from standard input, one a line"
    )
    grade.set_defaults(run=_grade)
    typed = commands.add_parser(
        "mistypes",
        parents=[shared, briefed],
        help="what people type who mean names from standard input",
    )
    typed.add_argument("--limit", type=int, default=20, help="how many a name at most (20)")
    typed.add_argument("--ext", default="com", help="the extension that is said with it (com)")
    typed.set_defaults(run=_mistypes)
    check = add_check(commands, shared)
    check.set_defaults(run=lambda args: checked(args, _say, UsageError))
    vetted = add_vet(commands, [shared, briefed])
    vetted.set_defaults(run=lambda args: vet(args, _brief(args), _word_data(), _say, UsageError))
    demand = add_phrases(commands, [shared, briefed])
    demand.set_defaults(
        run=lambda args: phrases(args, _brief(args), _word_data(), _say, UsageError)
    )
    costs = add_cost(commands, shared)
    costs.set_defaults(run=lambda args: cost(args, _say, UsageError))
    return parser


def _brief(args: argparse.Namespace) -> Brief:
    """The brief of --brief, with --about and --words in place of its own."""
    document: Any = {}
    if args.brief:
        try:
            document = json.loads(args.brief.read_text("utf-8"))
        except (OSError, ValueError) as error:
            raise UsageError(f"--brief {args.brief}: {error}") from error
    given = {
        "about": args.about,
        "keywords": None if args.words is None else args.words.split(","),
    }
    given = {key: value for key, value in given.items() if value is not None}
    if given and not isinstance(document, dict):
        raise UsageError("--brief: the file should hold an object.")
    document = {**document, **given} if given else document
    return parse_brief(document)


def _make(args: argparse.Namespace) -> list[dict[str, Any]]:
    _within_limit(args)
    brief = _brief(args)
    if not brief.keywords and not brief.name:
        raise UsageError("give --words or a --brief with keywords.")
    lexicon = _word_data()
    grader = Grader(brief, lexicon, MEASURES)
    made = make_names(brief, lexicon, seed=args.seed, limit=args.limit)
    return [
        {
            **_graded(grader, g.candidate, g.grade, why=args.format == "json"),
            "recipes": list(g.candidate.recipes),
            "parts": [part_document(part) for part in g.candidate.parts],
        }
        for g in made.names
    ]


def _words(args: argparse.Namespace) -> list[dict[str, Any]]:
    brief = _brief(args)
    if not brief.keywords:
        raise UsageError("give --words or a --brief with keywords.")
    opened = [open_up(k, _word_data(), brief.keywords) for k in brief.keywords]
    return [{"keyword": o.keyword, **offer._asdict()} for o in opened for offer in o.offers]


def _vary(args: argparse.Namespace) -> list[dict[str, Any]]:
    _within_limit(args)
    brief, lexicon = _brief(args), _word_data()
    return [
        {
            "of": label,
            "label": g.candidate.label,
            "grade": round(g.grade.grade, 1),
            "parts": [part_document(part) for part in g.candidate.parts],
        }
        for label in _names_in()
        for g in vary(label, brief, lexicon, limit=args.limit)
    ]


def _grade(args: argparse.Namespace) -> list[dict[str, Any]]:
    grader = Grader(_brief(args), _word_data(), MEASURES)
    why = args.format == "json"
    return [_graded(grader, Candidate(label, (), (), 0.0), why=why) for label in _names_in()]


def _within_limit(args: argparse.Namespace) -> None:
    if not 1 <= args.limit <= MOST_NAMES:
        raise UsageError(f"--limit: choose a number from 1 to {MOST_NAMES:,}.")


def _mistypes(args: argparse.Namespace) -> list[dict[str, Any]]:
    """A row for each; piped into `check` they tell who holds them."""
    _within_limit(args)
    extension = parse_extension(args.ext, "--ext")
    grader = Grader(_brief(args), _word_data(), MEASURES)
    return [
        {
            "of": label,
            "label": one.label,
            "full_name": str(one.full_name),
            "kind": one.kind,
            "share": round(one.share, 5),
        }
        for label in _names_in()
        for one in mistypes(grader.read_any(Candidate(label, (), (), 0.0)), extension, args.limit)[
            : args.limit
        ]
    ]


def _graded(
    grader: Grader, candidate: Candidate, grade: Grade | None = None, *, why: bool
) -> dict[str, Any]:
    """The grade, unless it is known, and its measures; with `why`, reasons, warnings and likely
    misspellings too.
    """
    reading = grader.read_any(candidate)
    grade = grade or grader.grade(reading)
    scores = {m.name: grade.scores.get(m.name) for m in MEASURES}
    found: dict[str, Any] = {
        "label": candidate.label,
        "grade": round(grade.grade, 1) if grade.whole else None,
        "measures": {
            name: {"score": None if score is None else round(score, 1)}
            for name, score in scores.items()
        },
    }
    if why:
        for name, (_, reasons) in grader.explain(reading).items():
            found["measures"][name]["reasons"] = [r._asdict() for r in reasons]
        found["warnings"] = [w._asdict() for w in warnings(reading)]
        found["misspellings"] = [
            {"label": text, "share": round(share, 4)} for text, share in misspellings(reading)
        ]
    return found


def _say(text: str) -> None:
    print(text, file=sys.stderr)  # noqa: T201 - a command


def _names_in() -> list[str]:
    """Labels from standard input; blank lines and repeats are passed over. A line that is no label
    raises CoreError naming its number.
    """
    labels: dict[str, None] = {}
    problems: list[Problem] = []
    for number, line in enumerate(sys.stdin, start=1):
        if not line.strip():
            continue
        try:
            labels[parse_label(line)] = None
        except CoreError as error:
            problems += [Problem(f"line {number}", p.code, p.args) for p in error.problems]
    if problems:
        raise CoreError(*problems)
    if not labels:
        raise UsageError("no names came on standard input; give one a line.")
    if len(labels) > MOST_NAMES:
        raise UsageError(f"at most {MOST_NAMES:,} names at once; there are {len(labels):,}.")
    return list(labels)


def _write(rows: Iterable[dict[str, Any]], form: str) -> None:
    rows = list(rows)
    if form == "json":
        json.dump(rows, sys.stdout, indent=1, ensure_ascii=False)
        sys.stdout.write("\n")
        return
    flat = [_flat(row) for row in rows]
    writer = csv.DictWriter(sys.stdout, flat[0].keys() if flat else ["label"])
    writer.writeheader()
    writer.writerows(flat)


def _flat(row: dict[str, Any]) -> dict[str, Any]:
    """A row for CSV: scores in columns, recipes in one, parts by their seams."""
    flat: dict[str, Any] = {}
    for key, value in row.items():
        if key == "measures":
            flat.update({name: measure["score"] for name, measure in value.items()})
        elif key == "recipes":
            flat[key] = " ".join(value)
        elif key == "parts":
            flat[key] = "|".join(part["text"] for part in value)
        else:
            flat[key] = safe_cell(value) if isinstance(value, str) else value
    return flat


if __name__ == "__main__":
    sys.exit(main())
