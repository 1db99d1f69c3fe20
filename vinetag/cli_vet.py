"""`vinetag vet`: names looked at from outside, without a server or a database."""

from __future__ import annotations

import argparse
import asyncio
import json
import os
from collections.abc import Callable, Iterable, Iterator
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from vinetag.core.brief import Brief
from vinetag.core.candidates import Candidate
from vinetag.core.checking.pasted import meant_name
from vinetag.core.concepts import FINDING_KINDS, FINDING_NAMES, WEIGHT_KINDS, WEIGHTS
from vinetag.core.extensions import barred, shipped_catalogue
from vinetag.core.grade import MEASURES, Grader, Reading
from vinetag.core.lexicon import Lexicon
from vinetag.core.names import FullName
from vinetag.core.vet import (
    Finding,
    abroad_findings,
    advice_of,
    handle_finding,
    handle_forms,
    handles_foreign,
    in_words,
    mistyped_finding,
    mistypes,
    prior_findings,
    said_findings,
    searches,
    shipped_platforms,
    typed_extensions,
)
from vinetag.core.vet.marks import (
    FormMaker,
    Index,
    Indexed,
    Mark,
    proposed_classes,
    query_of,
    read_register,
)
from vinetag.core.vet.marks.finding import mark_findings, marks_foreign
from vinetag.lookup import Answer, LookupSettings, open_engine
from vinetag.lookup.profiles import fetch_handles, wanted_and_barred
from vinetag.lookup.search import search_for

__all__ = ["add_vet", "vet"]

MOST_NAMES = 60
MOST_MARKS = 10
LEAST_MARK = 0.6
# What is worth holding depends on prices of sellers: `vinetag cost` knows them.
KINDS = tuple(name for name in FINDING_NAMES if name != "protection")


def add_vet(commands: Any, shared: list[argparse.ArgumentParser]) -> argparse.ArgumentParser:
    """The command's arguments."""
    parser: argparse.ArgumentParser = commands.add_parser(
        "vet", parents=shared, help="look at names from outside, before paying for one"
    )
    parser.add_argument("names", nargs="+", help="names or full names")
    parser.add_argument("--marks", type=Path, help="a register of marks: CSV, or XML (WIPO ST.96)")
    parser.add_argument(
        "--kinds",
        default=",".join(KINDS),
        help=f"of finding, separated by commas ({','.join(KINDS)})",
    )
    return parser


def vet(
    args: argparse.Namespace,
    brief: Brief,
    lexicon: Lexicon,
    say: Callable[[str], None],
    fault: type[Exception],
) -> list[dict[str, Any]]:
    """A row a finding, the worst first; `args.exit` is 1 where something stayed unknown."""
    kinds = [kind.strip() for kind in args.kinds.split(",") if kind.strip()]
    for kind in kinds:
        if kind not in KINDS:
            raise fault(f"--kinds: {kind!r} is not one of {', '.join(KINDS)}.")
    if len(args.names) > MOST_NAMES:
        raise fault(f"at most {MOST_NAMES} names at once; these are {len(args.names)}.")
    desk = _Desk(brief, lexicon, args.marks, say, fault)
    names = [desk.name_of(typed) for typed in args.names]
    others = [desk.read(name.label) for name in names]
    rows = []
    for name in dict.fromkeys(names):
        found = [f for kind in kinds for f in desk.find(name, kind, others)]
        found.sort(key=lambda one: WEIGHTS.index(one.weight))
        rows += [_row(name, one, evidence=args.format == "json") for one in found]
    args.exit = int(any(row["weight"] == WEIGHT_KINDS["unknown"].word for row in rows))
    return rows


def _row(name: FullName, finding: Finding, *, evidence: bool) -> dict[str, Any]:
    row: dict[str, Any] = {
        "full_name": str(name),
        "kind": FINDING_KINDS[finding.kind].word,
        "weight": WEIGHT_KINDS[finding.weight].word,
        "finding": in_words(finding),
        "advice": advice_of(finding),
        "source": finding.source,
        "found_at": datetime.now(UTC).isoformat(timespec="seconds"),
    }
    if evidence:
        row["evidence"] = json.loads(json.dumps(list(finding.evidence)))
    return row


class _Desk:
    """What names are vetted by."""

    def __init__(
        self,
        brief: Brief,
        lexicon: Lexicon,
        marks: Path | None,
        say: Callable[[str], None],
        fault: type[Exception],
    ) -> None:
        self._brief, self._lexicon = brief, lexicon
        self._grader = Grader(brief, lexicon, MEASURES)
        self._forms = FormMaker(lexicon)
        self._settings = LookupSettings.from_env(os.environ).with_catalogue(shipped_catalogue())
        self._register: list[Mark] = []
        if marks is not None:
            self._register = list(_marks(marks, say, fault))
        self._index = Index(self._indexed()) if self._register else None
        self._classes = brief.classes or proposed_classes(brief, lexicon)
        own = brief.owner.country
        self._markets = brief.markets or ((own,) if own else ())

    def name_of(self, typed: str) -> FullName:
        """Under the brief's first extension where it has none. Raises CoreError."""
        return meant_name(typed, self._brief.extensions)

    def read(self, label: str) -> Reading:
        """As the measures see it."""
        return self._grader.read_any(Candidate(label, (), (), 0.0))

    def _indexed(self) -> Iterator[Indexed]:
        for number, mark in enumerate(self._register):
            forms = self._forms.of_text(mark.word, mark.classes)
            if forms:
                yield Indexed(number, forms, mark.classes, mark.alive)

    def find(self, name: FullName, kind: str, others: list[Reading]) -> list[Finding]:
        """What is found of one kind."""
        reading = self.read(name.label)
        match kind:
            case "said":
                return said_findings(reading, others, self._forms, name.extension)
            case "elsewhere":
                return abroad_findings(reading, self._markets)
            case "marks":
                return self._marks(reading)
            case "prior_use":
                word = self._brief.keywords[0].text if self._brief.keywords else ""
                answers = asyncio.run(search_for(self._settings, searches(reading, word)))
                service = bool(self._settings.search)
                return prior_findings(reading, reading.world, answers, service=service)
            case "handles":
                return [self._handles(reading)]
        return [self._mistyped(name, reading)]

    def _marks(self, reading: Reading) -> list[Finding]:
        if reading.foreign:
            return [marks_foreign(reading.label)]
        if self._index is None:
            return mark_findings(reading.shown, [], {}, 0, self._forms)
        query = query_of(reading, self._classes, self._forms)
        near = self._index.nearest(query, MOST_MARKS, LEAST_MARK)
        marks = {one.number: self._register[one.number] for one in near}
        return mark_findings(reading.shown, near, marks, len(self._register), self._forms)

    def _handles(self, reading: Reading) -> Finding:
        if reading.foreign:
            return handles_foreign(reading.label)
        forms = handle_forms(reading.label, [word for _, word in reading.words])
        platforms = shipped_platforms()
        if not self._settings.platforms:
            platforms = tuple(one for one in platforms if not one.address.startswith("/"))
        wanted, asked = wanted_and_barred(platforms, forms)
        answers = asyncio.run(fetch_handles(self._settings, wanted))
        return handle_finding(forms, [*asked, *(answer.asked for answer in answers)])

    def _mistyped(self, name: FullName, reading: Reading) -> Finding:
        catalogue = shipped_catalogue()
        known = {entry.extension for entry in catalogue}
        country = self._markets[0] if self._markets else ""
        others = typed_extensions(name.extension, country, known)
        found = mistypes(reading, name.extension, others=others)
        answers = asyncio.run(self._ask(one.full_name for one in found))
        statuses = {answer.name: answer.status for answer in answers}
        holders = {
            answer.name: evidence.holder
            for answer in answers
            for evidence in answer.evidence
            if evidence.holder
        }
        return mistyped_finding(name, found, statuses, holders, foreign=reading.foreign)

    async def _ask(self, names: Iterable[FullName]) -> list[Answer]:
        catalogue, owner = shipped_catalogue(), self._brief.owner
        answers: list[Answer] = []

        def rule(name: FullName) -> Any:
            return barred(name, catalogue[name.extension], owner.country, owner.kind)

        async with open_engine(self._settings, rule) as engine:
            await engine.sweep(names, answers.append)
        return answers


def _marks(path: Path, say: Callable[[str], None], fault: type[Exception]) -> Iterator[Mark]:
    try:
        with path.open("rb") as file:
            register = read_register(file)
            yield from register
    except OSError as error:
        raise fault(f"--marks {path}: {error}") from error
    for problem in register.table.problems[:20]:
        say(f"vinetag: {path}, {problem.path}: {problem.text()}")
    if register.table.wrong > 20:
        say(f"vinetag: {path}: something was wrong in {register.table.wrong:,} places.")
