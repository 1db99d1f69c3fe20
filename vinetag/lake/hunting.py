"""The hunt: which of millions of offers a question leaves, the ones that suit best first."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from pathlib import Path
from typing import Any, Final, NamedTuple

import numpy as np
import numpy.typing as npt

from vinetag.core.concepts import PAST_USES
from vinetag.core.market import Hunt
from vinetag.lake.duck import Duck, first_row, literal

__all__ = [
    "Asked", "Found", "Hit", "Lists", "counts_by", "hunt", "prices_by_length", "suits_of",
]  # fmt: skip

Scores = npt.NDArray[np.float32]

# How much of what suits comes from the name, the rest from its figures, where any are told.
OF_NAME: Final = 0.8
# Of the name, how much the nearest of its words; the rest is the mean of all.
OF_BEST: Final = 0.6
LONG, A_LETTER = 12, 0.02
MOST_COUNTED: Final = 400
MOST_LETTERS, LEAST_PRICED = 20, 5
_SORTS: Final[Mapping[str, str]] = {
    "name": "label", "letters": "letters", "words": "words",
    "price": "cost", "bids": "bids desc", "ends": "coalesce(ends, drops_from)",
    "age": "first_registered", "links": "links desc", "sites": "linking_sites desc",
    "rank": "rank",
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Lists:
    """What the hunt goes through: files by market; what a currency is worth in the person's own, by
    code.
    """

    files: Mapping[str, Path]
    worth: Mapping[str, Decimal]


class Hit(NamedTuple):
    """A name a market tells of, how well it suits from 0 to 100, and what it costs in the person's
    currency, None where that is not known.
    """

    label: str
    extension: str
    market: str
    suits: float
    cost: float | None


@dataclass(frozen=True, slots=True)
class Found:
    """One page of what is left, and how much there is in all."""

    hits: Sequence[Hit]
    total: int


class Asked(NamedTuple):
    """What is asked for names of so many letters that are for sale under an extension, each name
    once at its lowest price: how many names, and the quartiles of their prices.
    """

    extension: str
    letters: int
    names: int
    low: float
    middle: float
    high: float


Suits = Mapping[str, Scores]


def suits_of(duck: Duck, file: Path, near: Scores) -> Scores:
    """By row of a list, how well it suits, from 0 to 100: its words, the nearest counting most,
    less what is long; and what is told of its past. `near`: how near each word is to the brief,
    from 0 to 1, by its number.
    """
    columns = duck.execute(
        "select coalesce(w1, $none)::integer as a, coalesce(w2, $none)::integer as b, "
        "coalesce(w3, $none)::integer as c, coalesce(words, 1) as words, letters, "
        f"coalesce(past, 'nan'::float) as past from read_parquet({literal(str(file))})",
        {"none": len(near)},
    ).fetchnumpy()
    worths = np.append(near, np.float32(0))
    a, b, c = (worths[columns[name]] for name in "abc")
    name = np.maximum(np.maximum(a, b), c) * np.float32(OF_BEST)
    name += (a + b + c) * (np.float32(1 - OF_BEST) / columns["words"].astype(np.float32))
    name -= np.maximum(columns["letters"].astype(np.float32) - LONG, 0) * np.float32(A_LETTER)
    np.clip(name, 0, 1, out=name)
    past = columns["past"]
    whole = np.where(np.isnan(past), name, OF_NAME * name + (1 - OF_NAME) * past)
    # What is rude stands behind all else.
    whole[np.minimum(np.minimum(a, b), c) < 0] = 0
    return np.asarray(whole * 100, np.float32)


def hunt(
    duck: Duck, lists: Lists, suits: Suits, question: Hunt, now: datetime, offset: int, limit: int,
    since: Mapping[str, datetime] | None = None,
) -> Found:  # fmt: skip
    """One page of what is left. What has ended by `now` is passed over; with `since` only what is
    listed anew, or for less, in lists of after a moment, by market; of others all of it.
    """
    where, values = _where(question)
    values |= {"now": now}
    if since:
        whens = " ".join(
            f"when {literal(code)} then since > $since{n}" for n, code in enumerate(since)
        )
        where = f"{where} and case market {whens} else true end"
        values |= {f"since{n}": at for n, at in enumerate(since.values())}
    if not lists.files:
        return Found((), 0)
    source = _source(lists)
    if question.sort != "best":
        (total,) = first_row(duck, f"select count(*) from ({source}) where {where}", values)
        order = _SORTS[question.sort]
        if question.reverse:
            order = order.removesuffix(" desc") if order.endswith(" desc") else f"{order} desc"
        places = duck.execute(
            f"select list, place from ({source}) where {where} order by {order} nulls last, "
            "list, place limit $limit offset $offset",
            values | {"limit": limit, "offset": offset},
        ).fetchall()
    else:
        left = duck.execute(
            f"select list, place from ({source}) where {where}", values
        ).fetchnumpy()
        total = len(left["place"])
        places = _best(left, [suits[m] for m in lists.files], offset, limit, question.reverse)
    return Found(_hits(duck, lists, suits, places), total)


def _best(
    left: Mapping[str, Any], suits: Sequence[Scores], offset: int, limit: int, reverse: bool
) -> list[tuple[int, int]]:
    """The places of one page, those that suit best first."""
    scores = np.empty(len(left["place"]), np.float32)
    for number, given in enumerate(suits):
        mine = left["list"] == number
        scores[mine] = given[left["place"][mine]]
    if not reverse:
        np.negative(scores, out=scores)
    last = min(offset + limit, len(scores))
    if last < len(scores):
        first = np.flatnonzero(scores <= np.partition(scores, last - 1)[last - 1])
    else:
        first = np.arange(len(scores))
    order = first[np.lexsort((left["place"][first], left["list"][first], scores[first]))]
    page = order[offset:last]
    return list(zip(left["list"][page].tolist(), left["place"][page].tolist(), strict=True))


def _hits(
    duck: Duck, lists: Lists, suits: Suits, places: Sequence[tuple[int, int]]
) -> Sequence[Hit]:
    """The names at these places, in their order."""
    found: dict[tuple[int, int], Hit] = {}
    for number, market in enumerate(lists.files):
        mine = sorted(place for one, place in places if one == number)
        if not mine:
            continue
        rows = duck.execute(
            f"select place, label, extension, cost from ({_source(lists, market)}) "
            "where place in (select unnest($places))",
            {"places": mine},
        ).fetchall()
        for place, label, extension, cost in rows:
            score = float(suits[market][place])
            found[number, place] = Hit(label, extension, market, score, cost)
    return [found[one] for one in places if one in found]


def counts_by(
    duck: Duck, lists: Lists, question: Hunt, now: datetime
) -> Mapping[str, Mapping[str, int]]:
    """How many are left by kind, market and extension, the most first."""
    if not lists.files:
        return {}
    where, values = _where(question)
    found: dict[str, dict[str, int]] = {}
    for what in ("kind", "market", "extension"):
        rows = duck.execute(
            f"select {what}, count(*) from ({_source(lists)}) where {where} group by 1 "
            f"order by 2 desc, 1 limit {MOST_COUNTED}",
            values | {"now": now},
        ).fetchall()
        found[what] = {str(name): count for name, count in rows}
    return found


def prices_by_length(duck: Duck, lists: Lists, extensions: Sequence[str]) -> Sequence[Asked]:
    """What names for sale cost under each of the extensions, by their letters; of lengths with
    fewer than LEAST_PRICED names nothing is said.
    """
    if not lists.files:
        return []
    rows = duck.execute(
        "select extension, letters, count(*), quantile_cont(cost, 0.25), median(cost), "
        "quantile_cont(cost, 0.75) from (select extension, any_value(letters) as letters, "
        f"min(cost) as cost from ({_source(lists)}) where kind = 'fixed' and cost is not null "
        "and letters <= $most and list_contains($extensions, extension) "
        "group by extension, label) group by all having count(*) >= $least order by 1, 2",
        {"extensions": list(extensions), "most": MOST_LETTERS, "least": LEAST_PRICED},
    ).fetchall()
    return [Asked(*row) for row in rows]


def _source(lists: Lists, only: str = "") -> str:
    """All lists as one, or one of them, prices in one currency."""
    worth = " ".join(
        f"when {literal(code)} then price * {factor:f}" for code, factor in lists.worth.items()
    )
    cost = f"case currency {worth} end" if worth else "null"
    return " union all by name ".join(
        f"select *, {literal(market)} as market, {number} as list, file_row_number as place, "
        f"({cost})::double as cost from read_parquet({literal(str(file))}, file_row_number=true)"
        for number, (market, file) in enumerate(lists.files.items())
        if only in ("", market)
    )


def _where(question: Hunt) -> tuple[str, dict[str, Any]]:
    """The filters in SQL, with their values."""
    q = question
    parts = ["(ends is null or ends > $now)", "(drops_to is null or drops_to > $now)"]
    values: dict[str, Any] = {}

    def put(name: str, value: Any, condition: str) -> None:
        if value not in (None, "", ()):
            parts.append(condition)
            values[name] = value

    put("text", q.text, "contains(label, $text)")
    put("starts", q.starts, "starts_with(label, $starts)")
    put("ending", q.ends, "ends_with(label, $ending)")
    for column in ("letters", "words"):
        put(f"{column}_min", getattr(q, f"{column}_min"), f"{column} >= ${column}_min")
        put(f"{column}_max", getattr(q, f"{column}_max"), f"{column} <= ${column}_max")
    for name, column in (("kinds", "kind"), ("markets", "market"), ("extensions", "extension")):
        put(name, list(getattr(q, name)) or None, f"list_contains(${name}, {column})")
    for place, extension in enumerate(q.also):
        also = f"contains(' ' || lower(also_registered) || ' ', $also{place})"
        put(f"also{place}", f" {extension} ", also)
    put("price_min", None if q.price_min is None else float(q.price_min), "cost >= $price_min")
    put("price_max", None if q.price_max is None else float(q.price_max), "cost <= $price_max")
    put("bids_min", q.bids_min, "bids >= $bids_min")
    put("bids_max", q.bids_max, "coalesce(bids, 0) <= $bids_max")
    put(
        "within", q.within,
        "coalesce(ends, drops_from) <= $now::timestamptz + to_hours($within::bigint)",
    )  # fmt: skip
    put(
        "age_min", q.age_min,
        "first_registered <= $now::date - to_years($age_min::integer)",
    )  # fmt: skip
    put("links_min", q.links_min, "links >= $links_min")
    put("sites_min", q.sites_min, "linking_sites >= $sites_min")
    if q.clean:
        risky = ", ".join(literal(use.name) for use in PAST_USES.values() if use.risk)
        parts.append(f"coalesce(used_for, '') not in ({risky})")
    for name, pattern in (
        ("hyphen", "contains(label, '-')"),
        ("digit", "regexp_matches(label, '[0-9]')"),
    ):
        wanted = getattr(q, name)
        if wanted:
            parts.append(pattern if wanted == "yes" else f"not {pattern}")
    return " and ".join(parts), values
