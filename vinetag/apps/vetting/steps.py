"""What is done for each kind of finding: who is asked, and what the core makes of it."""

from __future__ import annotations

import asyncio
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any, Final

from vinetag.apps.availability.lookups import lookup_settings
from vinetag.apps.availability.models import Lookup
from vinetag.apps.availability.quick import look_up
from vinetag.apps.costs.listing import prices_of
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import brief_of, grader_for
from vinetag.apps.shortlists.services import entries
from vinetag.apps.vetting.mistyped import cells_by_name, likely_mistypes
from vinetag.apps.vetting.platforms import asked_about
from vinetag.apps.vetting.registers import count_marks, form_maker, index, marks_by_number
from vinetag.core.brief import Brief
from vinetag.core.candidates import Candidate
from vinetag.core.checking import read_evidence
from vinetag.core.concepts import FindingName
from vinetag.core.grade import Grader, Reading
from vinetag.core.lexicon import load_lexicon
from vinetag.core.names import FullName
from vinetag.core.sheet import NameQuote, SheetPrices, name_costs
from vinetag.core.vet import (
    Finding,
    Mistype,
    abroad_findings,
    curve,
    handle_finding,
    handle_forms,
    handles_foreign,
    held_finding,
    mistyped_finding,
    prior_findings,
    protection,
    said_findings,
    searches,
)
from vinetag.core.vet.marks import proposed_classes, query_of
from vinetag.core.vet.marks.finding import mark_findings, marks_foreign
from vinetag.lookup.search import search_for

__all__ = ["Desk", "Found", "find"]

MOST_MARKS: Final = 10
LEAST_MARK: Final = 0.6
# Seconds in which the registries are asked about a name's mistypes; the rest stays unknown.
ASKED_FOR: Final = 12.0
# A year of a protective bundle, in thousandths, where the brief names no budget.
USUAL_BUDGET: Final = 60_000
TAILS: Final[Mapping[str, str]] = {"brand": "app", "mix": "studio", "descriptive": "local"}


@dataclass
class Found:
    """The findings of a kind, and what it has beside."""

    findings: Sequence[Finding]
    more: Mapping[str, Any] = field(default_factory=dict)


@dataclass
class Desk:
    """What vetting a project's names goes by, worked out once for a slice."""

    project: Project

    @cached_property
    def brief(self) -> Brief:
        """The project's."""
        return brief_of(self.project)

    @cached_property
    def grader(self) -> Grader:
        """The brief's."""
        return grader_for(self.brief)

    @cached_property
    def classes(self) -> Sequence[int]:
        """Those of the brief, or those its words speak of."""
        return self.brief.classes or proposed_classes(self.brief, load_lexicon())

    @cached_property
    def markets(self) -> Sequence[str]:
        """The brief's countries, or its owner's."""
        own = self.brief.owner.country
        return self.brief.markets or ((own,) if own else ())

    @cached_property
    def shortlist(self) -> Sequence[Reading]:
        """The names kept, as they read."""
        return [self.read(entry.label) for entry in entries(self.project)]

    def basis(self, kind: str) -> str:
        """What of the brief a kind's findings go by: they are old once it says something else."""
        if kind == "marks":
            return " ".join(map(str, self.classes))
        if kind == "elsewhere":
            return " ".join(self.markets)
        return " ".join(self.markets[:1]) if kind in ("mistyped", "protection") else ""

    def read(self, label: str) -> Reading:
        """A name as the measures see it."""
        return self.grader.read_any(Candidate(label, (), (), 0.0))


def find(desk: Desk, name: FullName, kind: FindingName) -> Found:
    """Look at a name for one kind of finding."""
    return _FINDERS[kind](desk, name, desk.read(name.label))


def _marks(desk: Desk, name: FullName, reading: Reading) -> Found:
    count = count_marks()
    if reading.foreign:
        return Found([marks_foreign(name.label)])
    if not count:
        return Found(mark_findings(reading.shown, [], {}, 0, form_maker()))
    query = query_of(reading, desk.classes, form_maker())
    near = index().nearest(query, MOST_MARKS, LEAST_MARK)
    marks = marks_by_number(n.number for n in near)
    return Found(mark_findings(reading.shown, near, marks, count, form_maker()))


def _prior_use(desk: Desk, _name: FullName, reading: Reading) -> Found:
    settings = lookup_settings()
    keyword = desk.brief.keywords[0].text if desk.brief.keywords else ""
    answers = asyncio.run(search_for(settings, searches(reading, keyword)))
    world = reading.world
    return Found(prior_findings(reading, world, answers, service=bool(settings.search)))


def _handles(desk: Desk, name: FullName, reading: Reading) -> Found:
    if reading.foreign:
        return Found([handles_foreign(name.label)])
    words = [word for _, word in reading.words]
    forms = handle_forms(reading.label, words, TAILS[desk.brief.purpose])
    return Found([handle_finding(forms, asked_about(forms))])


def _mistyped(desk: Desk, name: FullName, reading: Reading) -> Found:
    found = likely_mistypes(desk.brief, reading, name.extension)
    names = [one.full_name for one in found]
    look_up(desk.project, names, ASKED_FOR)
    statuses, holders = _known(desk.project, found)
    return Found(
        [mistyped_finding(name, found, statuses, holders, foreign=reading.foreign)],
    )


def _known(
    project: Project, found: Sequence[Mistype]
) -> tuple[dict[FullName, str], dict[FullName, str]]:
    """Statuses of mistypes, and who holds them where the public record says so."""
    names = [one.full_name for one in found]
    cells = cells_by_name(project, names)
    holders = {}
    rows = project.lookups.filter(pk__in=[cell.pk for cell in cells.values() if cell.pk])
    for row in rows.only("label", "extension", "evidence"):
        for document in row.evidence:
            if holder := read_evidence(document).holder:
                holders[FullName(row.label, row.extension)] = holder
    return {n: cell.status for n, cell in cells.items()}, holders


def _elsewhere(desk: Desk, _name: FullName, reading: Reading) -> Found:
    return Found(abroad_findings(reading, desk.markets))


def _said(desk: Desk, name: FullName, reading: Reading) -> Found:
    return Found(said_findings(reading, desk.shortlist, form_maker(), name.extension))


def _protection(desk: Desk, name: FullName, reading: Reading) -> Found:
    found = likely_mistypes(desk.brief, reading, name.extension)
    cells = cells_by_name(desk.project, [one.full_name for one in found])
    statuses = {n: cell.status for n, cell in cells.items()}
    prices = prices_of(desk.project, [one.extension for one in found])
    currency = prices.currency
    offers = protection(found, statuses, _yearly(prices, found, cells))
    # The brief's budget is in euros.
    whole = desk.brief.owner.budget
    budget = whole * 1000 if whole is not None and currency == "EUR" else USUAL_BUDGET
    finding, chosen = held_finding(
        name,
        found,
        statuses,
        offers,
        budget,
        currency,
        priced=bool(prices.listed),
        foreign=reading.foreign,
    )
    most = max(budget, *(offer.yearly for offer in offers), 0) if offers else budget
    points = curve(offers, max(most, 2 * budget))
    whole_share = sum(one.share for one in found) or 1.0
    return Found(
        [finding],
        {
            "currency": currency,
            "budget": budget,
            "budget_is_own": whole is not None and currency == "EUR",
            "held": [offer.full_name for offer in chosen.offers],
            "curve": [
                {"yearly": p.yearly, "caught": round(p.share / whole_share, 4), "names": p.names}
                for p in points
            ],
        },
    )


def _yearly(
    prices: SheetPrices, found: Sequence[Mistype], cells: Mapping[FullName, Lookup]
) -> dict[FullName, int]:
    """What each later year of a name costs, in thousandths: by the lists, or its own price."""
    yearly = {}
    for name in (one.full_name for one in found):
        cell = cells.get(name)
        quote = cell and NameQuote(cell.status, cell.first_year, cell.renewal, cell.currency)
        known = {name.extension: quote} if quote else {}
        costs = name_costs(prices, known, [name.extension])
        if cost := costs["later"]:
            yearly[name] = cost.amount
        elif cost := costs["whole"]:
            yearly[name] = cost.amount // prices.years
    return yearly


_FINDERS: Final[Mapping[FindingName, Callable[[Desk, FullName, Reading], Found]]] = {
    "marks": _marks,
    "prior_use": _prior_use,
    "mistyped": _mistyped,
    "handles": _handles,
    "elsewhere": _elsewhere,
    "said": _said,
    "protection": _protection,
}
