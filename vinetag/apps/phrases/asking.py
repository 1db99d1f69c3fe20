"""What is asked of a project's phrases: narrowed, ordered, a page at a time, and all of one."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from decimal import Decimal
from typing import Final

import numpy as np
import numpy.typing as npt

from vinetag.apps.naming.models import Project
from vinetag.apps.phrases.shelf import Shelf, View, high_of, shelf_of
from vinetag.core.demand import MONTHS, UNKNOWN, content_words, parse_phrase
from vinetag.core.demand.gathering import Folding
from vinetag.core.lexicon import load_lexicon

__all__ = [
    "SORTS", "Known", "OnePhrase", "PhraseLine", "PhrasePage", "PhraseQuestion", "Season",
    "known_of", "lines_of", "one_phrase", "page_of", "season_of", "view_of",
]  # fmt: skip

SORTS: Final = ("demand", "phrase", "competition", "price", "season", "words", "covers")
PAGE: Final = 100
COMPANIONS: Final = 12
# From how far above the mean of the year a month is a season.
SEASON: Final = 0.35


@dataclass(frozen=True, slots=True)
class PhraseQuestion:
    """Which phrases, in which order; bounds are inclusive, None for none. `view`: whose figures;
    `known`: "yes" with a figure, "no" without; `mark`: "chosen", or "" for all; `group`: those of
    the group of a phrase, at `cut`.
    """

    view: str = ""
    text: str = ""
    words_min: int | None = None
    words_max: int | None = None
    demand_min: int | None = None
    demand_max: int | None = None
    competition_max: float | None = None
    known: str = ""
    mark: str = ""
    season: bool = False
    group: str = ""
    cut: float | None = None
    sort: str = "demand"
    reverse: bool = False
    offset: int = 0


@dataclass(frozen=True, slots=True)
class Known:
    """A figure of one source. Searches a month from `low` to `high` (None: that many and more),
    both None where they are missing.
    """

    low: int | None
    high: int | None
    months: Sequence[int | None]
    last_month: str
    competition: float | None
    price: Decimal | None
    currency: str
    dated: date | None


@dataclass(frozen=True, slots=True)
class Season:
    """How uneven a year is: `peak` is the place of the strongest month among the twelve, `times`
    how many times the mean it has.
    """

    peak: int
    times: float


@dataclass(frozen=True, slots=True)
class PhraseLine:
    """A head with its figure, what all that is gathered under it comes to, and how many that is;
    `cover` is the share of all demand it would cover, None where it is not among those grouped.
    """

    phrase: str
    figure: Known
    demand: int | None
    variants: int
    season: Season | None
    cover: float | None
    chosen: bool


@dataclass(frozen=True, slots=True)
class PhrasePage:
    """A page; `total` phrases match, `heads` of `phrases` are there at all. `demand` is that of all
    that match, of `unknown` nothing is known.
    """

    lines: Sequence[PhraseLine]
    total: int
    heads: int
    phrases: int
    demand: int
    unknown: int
    view: str


@dataclass(frozen=True, slots=True)
class OnePhrase:
    """All of a phrase: its head's line, what is gathered under that (phrase, way, figure), figures
    by view, and phrases near it with how near (0 to 1).
    """

    line: PhraseLine
    gathered: Sequence[tuple[str, str, Known]]
    figures: Sequence[tuple[str, Known]]
    companions: Sequence[tuple[PhraseLine, float]]


def view_of(shelf: Shelf, asked: str) -> str:
    """The view asked for where there is one, else the usual."""
    return asked if asked in shelf.views else shelf.usual


def known_of(view: View | None, at: int) -> Known:
    """What a view knows of a phrase."""
    if view is None or view.dated[at] < 0:
        return Known(None, None, (), "", None, None, "", None)
    low, high, price = int(view.low[at]), int(view.high[at]), int(view.prices[at])
    months, share = view.months[at].tolist(), float(view.competition[at])
    dated = int(view.dated[at])
    return Known(
        None if low == UNKNOWN else low,
        high_of(low, high),
        [None if m == UNKNOWN else m for m in months] if max(months) >= 0 else (),
        view.last_months[dated],
        None if np.isnan(share) else round(share, 4),
        None if price == UNKNOWN else Decimal(price) / 1000,
        view.currencies[view.currency[at]] if price != UNKNOWN else "",
        view.days[dated],
    )


def season_of(months: Sequence[int | None]) -> Season | None:
    """The season of twelve months; None where some are missing, or the year is even."""
    if len(months) != MONTHS or any(m is None for m in months):
        return None
    known = [m or 0 for m in months]
    mean = sum(known) / MONTHS
    most = max(known)
    if not mean or most / mean - 1 < SEASON:
        return None
    return Season(known.index(most), round(most / mean, 2))


def _seasons(shelf: Shelf, view: str) -> npt.NDArray[np.float64]:
    """By phrase how many times the mean its strongest month has, NaN where that is not known."""
    found = shelf.views.get(view)
    if found is None:
        return np.full(len(shelf.phrases), np.nan)
    months = found.months.astype(np.float64)
    whole = (found.months != UNKNOWN).all(axis=1)
    means = months.mean(axis=1)
    return np.where(whole & (means > 0), months.max(axis=1) / np.where(means > 0, means, 1), np.nan)


def page_of(project: Project, asked: PhraseQuestion, limit: int = PAGE) -> PhrasePage:
    """A page of the heads that match."""
    shelf = shelf_of(project)
    view = view_of(shelf, asked.view)
    chosen = set(project.phrase_choices.values_list("phrase", flat=True))
    order = places_of(shelf, asked, view, chosen)
    demand = shelf.demand(view)[order]
    return PhrasePage(
        lines=lines_of(shelf, view, order[asked.offset : asked.offset + limit].tolist(), chosen),
        total=len(order),
        heads=len(shelf.heads),
        phrases=len(shelf.phrases),
        demand=int(np.nansum(demand)) if len(order) else 0,
        unknown=int(np.isnan(demand).sum()),
        view=view,
    )


def places_of(
    shelf: Shelf, asked: PhraseQuestion, view: str, chosen: set[str]
) -> npt.NDArray[np.intp]:
    """The places of the heads that match, in the order asked for."""
    heads = shelf.heads
    demand = shelf.demand(view)
    left = np.ones(len(heads), np.bool_)
    if text := parse_phrase(asked.text):
        left &= _with_text(shelf, text)[heads]
    if asked.words_min is not None or asked.words_max is not None:
        counts = _word_counts(shelf)[heads]
        left &= (counts >= (asked.words_min or 0)) & (counts <= (asked.words_max or 99))
    with np.errstate(invalid="ignore"):
        if asked.demand_min is not None:
            left &= demand[heads] >= asked.demand_min
        if asked.demand_max is not None:
            left &= demand[heads] <= asked.demand_max
        if asked.competition_max is not None and view:
            left &= shelf.views[view].competition[heads] <= asked.competition_max
    if asked.known:
        left &= np.isnan(demand[heads]) == (asked.known == "no")
    if asked.season:
        left &= _seasons(shelf, view)[heads] >= 1 + SEASON
    if asked.mark == "chosen":
        left &= np.array([shelf.phrases[at] in chosen for at in heads.tolist()], np.bool_)
    if asked.group:
        left &= np.isin(heads, _group_places(shelf, asked.group, asked.cut))
    kept = np.zeros(len(shelf.phrases), np.bool_)
    kept[heads] = left
    order = _ordered(shelf, view, asked)
    return order[kept[order]]


def _ordered(shelf: Shelf, view: str, asked: PhraseQuestion) -> npt.NDArray[np.intp]:
    """All heads in the order asked for; who types asks for the same one again and again."""
    key = "order", view, asked.sort, asked.reverse
    if key not in shelf.remembered:
        heads = shelf.heads
        if asked.sort == "phrase":
            named = sorted(heads.tolist(), key=shelf.phrases.__getitem__, reverse=asked.reverse)
            shelf.remembered[key] = np.array(named, np.intp)
        else:
            column, falling = _key(shelf, view, asked.sort)
            values = column[heads]
            # What is not known stands last either way.
            turned = -values if falling != asked.reverse else values
            values = np.where(np.isnan(values), np.inf, turned)
            shelf.remembered[key] = heads[np.argsort(values, kind="stable")]
    found: npt.NDArray[np.intp] = shelf.remembered[key]
    return found


def _key(shelf: Shelf, view: str, sort: str) -> tuple[npt.NDArray[np.float64], bool]:
    """What is ordered by, and whether the highest stands first."""
    found = shelf.views.get(view)
    nothing = np.full(len(shelf.phrases), np.nan)
    if sort == "words":
        return _word_counts(shelf).astype(np.float64), False
    if sort == "covers":
        nothing[list(shelf.grouped)] = shelf.covers
        return nothing, True
    if sort == "season":
        return _seasons(shelf, view), True
    if found is None or sort == "demand":
        return shelf.demand(view), True
    if sort == "competition":
        return found.competition.astype(np.float64), False
    return np.where(found.prices == UNKNOWN, np.nan, found.prices).astype(np.float64), False


def _with_text(shelf: Shelf, text: str) -> npt.NDArray[np.bool_]:
    """By head, whether it or something gathered under it has the text."""
    found = np.fromiter((text in phrase for phrase in shelf.phrases), np.bool_, len(shelf.phrases))
    of_heads = np.zeros(len(shelf.phrases), np.bool_)
    of_heads[shelf.gathered.heads[found]] = True
    return of_heads


def _word_counts(shelf: Shelf) -> npt.NDArray[np.int32]:
    if "words" not in shelf.remembered:
        counts = (phrase.count(" ") + 1 for phrase in shelf.phrases)
        shelf.remembered["words"] = np.fromiter(counts, np.int32, len(shelf.phrases))
    found: npt.NDArray[np.int32] = shelf.remembered["words"]
    return found


def _group_places(shelf: Shelf, phrase: str, cut: float | None) -> list[int]:
    """The heads in the group of a phrase."""
    at = shelf.place.get(phrase, -1)
    if at < 0 or at not in shelf.grouped:
        return []
    groups = shelf.tree.groups(shelf.tree.cut if cut is None else cut)
    mine = groups[list(shelf.grouped).index(at)]
    return [shelf.grouped[i] for i in np.flatnonzero(groups == mine).tolist()]


def lines_of(shelf: Shelf, view: str, places: Sequence[int], chosen: set[str]) -> list[PhraseLine]:
    """Lines of heads."""
    found, demand = shelf.views.get(view), shelf.demand(view)
    covered = _covers_by_place(shelf)
    lines = []
    for at in places:
        figure = known_of(found, at)
        whole = demand[at]
        lines.append(
            PhraseLine(
                phrase=shelf.phrases[at],
                figure=figure,
                demand=None if np.isnan(whole) else int(whole),
                variants=len(shelf.variants.get(at, (at,))),
                season=season_of(figure.months),
                cover=covered.get(at),
                chosen=shelf.phrases[at] in chosen,
            )
        )
    return lines


def _covers_by_place(shelf: Shelf) -> dict[int, float]:
    if "covers" not in shelf.remembered:
        pairs = zip(shelf.grouped, shelf.covers.tolist(), strict=True)
        shelf.remembered["covers"] = {at: round(share, 4) for at, share in pairs}
    found: dict[int, float] = shelf.remembered["covers"]
    return found


def one_phrase(project: Project, phrase: str, asked_view: str) -> OnePhrase | None:
    """All of a phrase; None where the project has none such."""
    shelf = shelf_of(project)
    at = shelf.place.get(parse_phrase(phrase), -1)
    if at < 0:
        return None
    view = view_of(shelf, asked_view)
    chosen = set(project.phrase_choices.values_list("phrase", flat=True))
    head = int(shelf.gathered.heads[at])
    found = shelf.views.get(view)
    return OnePhrase(
        line=lines_of(shelf, view, [head], chosen)[0],
        gathered=[
            (shelf.phrases[one], shelf.gathered.ways[one], known_of(found, one))
            for one in shelf.variants[head]
        ],
        figures=[
            (key, known_of(each, head))
            for key, each in shelf.views.items()
            if each.dated[head] >= 0
        ],
        companions=[
            (lines_of(shelf, view, [other], chosen)[0], near)
            for other, near in _companions(shelf, head)
        ],
    )


def _companions(shelf: Shelf, head: int) -> list[tuple[int, float]]:
    """Heads near one in meaning and words, the nearest first."""
    if head in shelf.grouped:
        alike = shelf.space.alike([list(shelf.grouped).index(head)])[0]
        order = np.argsort(-alike, kind="stable")[: COMPANIONS + 1].tolist()
        near = [(shelf.grouped[i], round(float(alike[i]), 3)) for i in order]
        return [(at, share) for at, share in near if at != head and share > 0.1][:COMPANIONS]
    # Too little looked for to be grouped: those that share most of its words.
    folding = Folding(load_lexicon())
    words = set(content_words(shelf.phrases[head], folding))
    shares = []
    for at in shelf.grouped:
        own = set(content_words(shelf.phrases[at], folding))
        if both := words & own:
            shares.append((at, round(len(both) / len(words | own), 3)))
    return sorted(shares, key=lambda pair: -pair[1])[:COMPANIONS]
