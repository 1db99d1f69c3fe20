"""`vinetag phrases`: groups of what people look for, and what one phrase covers of the rest."""

from __future__ import annotations

import argparse
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import numpy as np

from vinetag.core.brief import Brief
from vinetag.core.demand import (
    MOST_GROUPED,
    UNKNOWN,
    Defaults,
    Folding,
    Space,
    covered,
    covers,
    gather,
    grow,
    head_of,
    read_demand,
    words_of,
)
from vinetag.core.lexicon import Lexicon

__all__ = ["add_phrases", "phrases"]

MOST_BYTES = 60_000_000
MOST_TOLD = 20


def add_phrases(commands: Any, shared: list[argparse.ArgumentParser]) -> argparse.ArgumentParser:
    """The command's arguments."""
    parser: argparse.ArgumentParser = commands.add_parser(
        "phrases", parents=shared, help="groups of what people look for, from a table of demand"
    )
    parser.add_argument(
        "--demand", type=Path, required=True,
        help="a table of phrases with searches a month; --words leaves those with any of the words",
    )  # fmt: skip
    parser.add_argument("--country", default="", help="whose figures, where it has several (IE)")
    parser.add_argument("--cut", type=float, help="how far apart phrases of a group lie, 0 to 1")
    return parser


def phrases(
    args: argparse.Namespace,
    brief: Brief,
    lexicon: Lexicon,
    say: Callable[[str], None],
    refused: type[Exception],
) -> list[dict[str, Any]]:
    """A row a phrase: its group's head, demand, and how much of both it would cover."""
    if args.cut is not None and not 0 <= args.cut <= 1:
        raise refused("--cut is a number from 0 to 1.")
    try:
        content = args.demand.read_bytes()[: MOST_BYTES + 1]
    except OSError as error:
        raise refused(f"--demand {args.demand}: {error.strerror}") from error
    if len(content) > MOST_BYTES:
        raise refused(f"--demand: at most {MOST_BYTES // 1_000_000} MB.")
    read = read_demand(content, Defaults(country=args.country.upper()))
    for problem in read.problems[:MOST_TOLD]:
        say(f"vinetag: {problem.path}: {problem.text()}")
    if read.wrong > MOST_TOLD:
        say(f"vinetag: and {read.wrong - MOST_TOLD:,} more.")
    figures = read.figures
    rows = [figures.one(at) for at in range(len(figures))]
    markets = list(dict.fromkeys(row.market for row in rows))
    wanted = [m for m in markets if not args.country or m.country == args.country.upper()]
    if not wanted:
        raise refused("--demand: there are no figures in it.")
    if len(wanted) > 1:
        say(f"vinetag: of {len(wanted)} countries and languages the first counts: {wanted[0]}.")
    folding = Folding(lexicon)
    asked = {folding.fold(word) for keyword in brief.keywords for word in keyword.words}
    rows = [row for row in rows if row.market == wanted[0]]
    if asked:
        rows = [r for r in rows if asked & {folding.fold(word) for word in words_of(r.phrase)}]
    if not rows:
        raise refused("--words: no phrase has any of them.")
    return list(_grouped([(r.phrase, r.low) for r in rows], args.cut, lexicon, folding))


def _grouped(
    given: list[tuple[str, int | None]], cut: float | None, lexicon: Lexicon, folding: Folding
) -> Iterator[dict[str, Any]]:
    texts = [phrase for phrase, _ in given]
    lows = [UNKNOWN if low is None else low for _, low in given]
    variants = gather(texts, [float(max(0, low)) for low in lows], lexicon).variants()
    summed = {
        head: sum({lows[at] for at in group if lows[at] != UNKNOWN})
        if any(lows[at] != UNKNOWN for at in group)
        else None
        for head, group in variants.items()
    }
    heads = sorted(variants, key=lambda head: -(summed[head] or 0))[:MOST_GROUPED]
    space = Space([texts[head] for head in heads], lexicon, folding)
    demand = np.array([np.nan if summed[h] is None else float(summed[h] or 0) for h in heads])
    tree = grow(space)
    numbers = tree.groups(tree.cut if cut is None else cut)
    of_all = covers(space, demand)
    members: dict[int, list[int]] = {}
    for place, number in enumerate(numbers.tolist()):
        members.setdefault(number, []).append(place)
    order = sorted(members.values(), key=lambda own: -float(np.nansum(demand[own])))
    for count, own in enumerate(order, 1):
        shares = covers(space, demand, own)
        head = head_of(shares, demand, own)
        why = covered(space, demand, head, own)
        for place, share in sorted(zip(own, shares.tolist(), strict=True), key=lambda p: p[0]):
            yield {
                "group": count,
                "head": texts[heads[head]],
                "phrase": texts[heads[place]],
                "searches": None if np.isnan(demand[place]) else int(demand[place]),
                "gathered": [texts[at] for at in variants[heads[place]][1:]],
                "group_searches": int(np.nansum(demand[own])),
                "head_covers": round(why.share, 4),
                "covers_group": round(share, 4),
                "covers_all": round(float(of_all[place]), 4),
            }
