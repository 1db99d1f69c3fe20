"""vinetag check: whether full names can be had, asked of the look-up services."""

from __future__ import annotations

import argparse
import asyncio
import os
import sys
from collections.abc import Callable, Sequence
from time import monotonic
from typing import Any

from vinetag.core.checking import TROUBLE_WORDING, in_words, read_pasted, write_evidence
from vinetag.core.extensions import (
    COUNTRIES,
    OWNER_KINDS,
    Barred,
    barred,
    parse_extension,
    shipped_catalogue,
)
from vinetag.core.names import FullName
from vinetag.lookup import Answer, LookupSettings, open_engine

__all__ = ["MOST_NAMES", "add_check", "checked"]

MOST_NAMES = 100_000
TELL_EVERY = 0.5


def add_check(commands: Any, shared: argparse.ArgumentParser) -> argparse.ArgumentParser:
    """The command's options."""
    check: argparse.ArgumentParser = commands.add_parser(
        "check", parents=[shared], help="look up names and full names from standard input"
    )
    check.add_argument(
        "--ext", default="com", help="extensions for names without one, separated by commas (com)"
    )
    check.add_argument("--buying", action="store_true", help="ask the registry and a seller too")
    check.add_argument("--country", default="", choices=("", *COUNTRIES), help="of the owner")
    check.add_argument("--kind", default="", choices=("", *OWNER_KINDS), help="of owner")
    check.add_argument("--quiet", action="store_true", help="no progress on standard error")
    return check


def checked(
    args: argparse.Namespace, say: Callable[[str], None], fault: type[Exception]
) -> list[dict[str, Any]]:
    """A row for each full name. Sets `args.exit`: 1 when something stayed unsure, 2 when a line was
    no name.
    """
    extensions = list(dict.fromkeys(parse_extension(e, "--ext") for e in args.ext.split(",")))
    pasted = read_pasted(sys.stdin.read(), MOST_NAMES, MOST_NAMES)
    for bad in pasted.bad:
        say(f"vinetag: line {bad.line}: “{bad.text}”: {bad.reason}")
    if pasted.left_out:
        say(f"vinetag: {pasted.left_out:,} lines beyond the first {MOST_NAMES:,} were left out.")
    if pasted.names_left_out:
        say(f"vinetag: {pasted.names_left_out:,} names beyond {MOST_NAMES:,} were left out.")
    names = [
        FullName(label, e)
        for label, own in pasted.names.items()
        for e in dict.fromkeys([*own, *(extensions if label in pasted.bare else ())])
    ]
    if not names:
        raise fault("no names came on standard input; give one a line.")
    if len(names) > MOST_NAMES:
        raise fault(f"at most {MOST_NAMES:,} full names at once; these are {len(names):,}.")
    answers = asyncio.run(_ask(names, args, say))
    unsure = any(a.status == "unsure" for a in answers.values())
    args.exit = 2 if pasted.bad else int(unsure)
    return [_answer(answers[name], args) for name in names]


async def _ask(
    names: Sequence[FullName], args: argparse.Namespace, say: Callable[[str], None]
) -> dict[FullName, Answer]:
    got: dict[FullName, Answer] = {}
    began, last_line = monotonic(), 0.0

    def deliver(answer: Answer) -> None:
        nonlocal last_line
        got[answer.name] = answer
        done, now = len(got), monotonic()
        if not args.quiet and (now - last_line > TELL_EVERY or done == len(names)):
            last_line = now
            rate = done / max(now - began, 0.001)
            unsure = sum(a.status == "unsure" for a in got.values())
            left = (len(names) - done) / rate
            text = f"{done:,} of {len(names):,} · {rate:,.0f} a second · {left:,.0f} s left"
            print(f"\r{text} · {unsure:,} unsure ", end="", file=sys.stderr, flush=True)  # noqa: T201

    catalogue = shipped_catalogue()
    settings = LookupSettings.from_env(os.environ).with_catalogue(catalogue)

    def rule(name: FullName) -> Barred | None:
        return barred(name, catalogue[name.extension], args.country, args.kind)

    async with open_engine(settings, rule) as engine:
        await engine.sweep(names, deliver, aim="buying" if args.buying else "scan")
    if not args.quiet:
        say("")
    return got


def _answer(answer: Answer, args: argparse.Namespace) -> dict[str, Any]:
    quote = next((e.quote for e in answer.evidence if e.quote), None)

    def first(name: str) -> str | None:
        moments = (getattr(e, name) for e in answer.evidence)
        return next((m.isoformat() for m in moments if m), None)

    def amount(name: str) -> str | None:
        exact = getattr(quote, name, None)
        return None if exact is None else str(exact)

    drops = next((e.drops for e in answer.evidence if e.drops), None)
    found: dict[str, Any] = {
        "name": str(answer.name),
        "label": answer.name.label,
        "extension": answer.name.extension,
        "status": answer.status,
        "likely": answer.likely,
        "reason": TROUBLE_WORDING[answer.trouble],
        "registered": first("registered"),
        "expires": first("expires"),
        "may_open_from": drops[0].isoformat() if drops else None,
        "may_open_until": drops[1].isoformat() if drops else None,
        "currency": quote.currency if quote else None,
        "first_year": amount("first_year"),
        "renewal": amount("renewal"),
        "holder_asks": amount("asked"),
        "asked_at": answer.asked_at.isoformat(timespec="seconds"),
    }
    if args.format == "json":
        found["evidence"] = [write_evidence(e) for e in answer.evidence]
    else:
        found["evidence"] = " ".join(in_words(e) for e in answer.evidence)
    return found
