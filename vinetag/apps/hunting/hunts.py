"""The hunt: offers and drops that suit a project's brief, graded as its own names are."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from functools import lru_cache
from pathlib import Path
from threading import Lock
from typing import Final

from django.utils import timezone

from vinetag.apps.costs.listing import usual_currency
from vinetag.apps.costs.rates import rates_in_force
from vinetag.apps.market.lists import edition_files, word_numbers
from vinetag.apps.market.offers import offers_of
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import brief_of, grader_for
from vinetag.apps.shortlists.services import entries
from vinetag.core.brief import Brief
from vinetag.core.candidates import Candidate
from vinetag.core.cost import RateError
from vinetag.core.grade import Grade, Grader
from vinetag.core.lexicon import load_lexicon
from vinetag.core.market import Hunt, Offer
from vinetag.core.market.nearness import word_nearness
from vinetag.core.money import Money
from vinetag.core.names import FullName
from vinetag.core.world.world import world_of
from vinetag.lake.duck import shared_duck
from vinetag.lake.hunting import (
    Asked,
    Hit,
    Lists,
    Scores,
    counts_by,
    hunt,
    prices_by_length,
    suits_of,
)

__all__ = ["HuntPage", "Hunted", "hunt_counts", "hunt_page", "length_prices"]

# Lists judged by a brief that this process holds: four bytes a name.
MOST_HELD: Final = 8
GRADES_HELD: Final = 20_000


@dataclass(frozen=True, slots=True)
class Hunted:
    """One name a market tells of: how well it suits (0 to 100), what it costs in the person's
    currency, None where that is not known, its grade, None where it cannot be judged, and whether
    its label is on the shortlist.
    """

    offer: Offer
    suits: float
    cost: float | None
    grade: Grade | None
    starts: Sequence[int]
    words: int
    kept: bool


@dataclass(frozen=True, slots=True)
class HuntPage:
    """`total` counts what the question leaves, `names` what the lists hold in all."""

    rows: Sequence[Hunted]
    total: int
    currency: str


def hunt_page(
    project: Project, question: Hunt, offset: int, limit: int,
    since: Mapping[str, datetime] | None = None,
) -> HuntPage:  # fmt: skip
    """One page of what a question leaves; with `since` only what markets list anew after that."""
    currency = usual_currency(project.owner)
    lists, brief, now = _lists(currency), brief_of(project), timezone.now()
    suits = {market: _suits(file, brief) for market, file in lists.files.items()}
    with shared_duck() as duck:
        found = hunt(duck, lists, suits, question, now, offset, limit, since)
    return HuntPage(_with_all(project, brief, found.hits), found.total, currency)


def hunt_counts(project: Project, question: Hunt) -> Mapping[str, Mapping[str, int]]:
    """What a question leaves, by kind, market and extension."""
    with shared_duck() as duck:
        return counts_by(duck, _lists(usual_currency(project.owner)), question, timezone.now())


def length_prices(project: Project, extensions: Sequence[str]) -> tuple[str, Sequence[Asked]]:
    """What names for sale cost by extension and letters, in the person's currency; worked out once
    for the lists in force.
    """
    currency = usual_currency(project.owner)
    return currency, _length_prices(
        tuple(sorted(edition_files().items())), currency, tuple(sorted(extensions))
    )


@lru_cache(32)
def _length_prices(
    files: tuple[tuple[str, Path], ...], currency: str, extensions: tuple[str, ...]
) -> Sequence[Asked]:
    with shared_duck() as duck:
        return prices_by_length(duck, Lists(dict(files), _worth(currency)), extensions)


def _lists(currency: str) -> Lists:
    return Lists(edition_files(), _worth(currency))


def _worth(currency: str) -> dict[str, Decimal]:
    """What a currency is in the person's own, by code, by the newest rates."""
    rates, found = rates_in_force(), {currency: Decimal(1)}
    for code in rates.by_day[rates.newest] if rates.newest else ():
        try:
            money = rates.convert(Money(1, code), currency, timezone.localdate()).money
        except RateError:
            continue
        found[code] = money.amount
    return found


def _with_all(project: Project, brief: Brief, hits: Sequence[Hit]) -> list[Hunted]:
    """With what the lists tell, in their order; what was changed meanwhile is left out."""
    known = offers_of({FullName(hit.label, hit.extension) for hit in hits})
    labels = {hit.label for hit in hits}
    kept = set(entries(project).filter(label__in=labels).values_list("label", flat=True))
    rows = []
    for hit in hits:
        offers = known.get(FullName(hit.label, hit.extension), ())
        offer = next((one for one in offers if one.market == hit.market), None)
        if offer is not None:
            grade, starts = _graded(brief, hit.label)
            rows.append(
                Hunted(
                    offer, round(hit.suits, 1), hit.cost, grade, starts, len(starts),
                    hit.label in kept,
                )
            )  # fmt: skip
    return rows


@lru_cache(4)
def _grader(brief: Brief) -> Grader:
    return grader_for(brief)


@lru_cache(GRADES_HELD)
def _graded(brief: Brief, label: str) -> tuple[Grade | None, tuple[int, ...]]:
    """The grade, and where its words begin."""
    grader = _grader(brief)
    reading = grader.read_any(Candidate(label, (), (), 0.0))
    grade = grader.grade(reading)
    return (grade if grade.whole else None), tuple(at for at, _ in reading.words)


@lru_cache(MOST_HELD)
def _near(brief: Brief) -> Scores:
    lexicon = load_lexicon()
    keywords = {k.text: min(1.0, k.weight / 3) for k in brief.keywords}
    rude = {*lexicon.offensive, *lexicon.unlucky_words}
    return word_nearness(world_of(brief, lexicon), keywords, list(word_numbers()), rude)


_held: OrderedDict[tuple[Path, Brief], Scores] = OrderedDict()
_lock = Lock()


def _suits(file: Path, brief: Brief) -> Scores:
    """How well each name of a list suits, worked out once."""
    key = file, brief
    with _lock:
        if key in _held:
            _held.move_to_end(key)
            return _held[key]
    with shared_duck() as duck:
        found = suits_of(duck, file, _near(brief))
    with _lock:
        _held[key] = found
        while len(_held) > MOST_HELD:
            _held.popitem(last=False)
    return found
