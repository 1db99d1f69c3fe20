"""What a service of demand answers, as standins/data/demand.openapi.json describes it."""

from __future__ import annotations

import json
import re
from dataclasses import dataclass
from decimal import Decimal
from typing import Any, Final

from vinetag.core.demand.figures import MONTHS, Figure, Market
from vinetag.core.demand.numbers import MOST
from vinetag.core.demand.reading import LONGEST_PHRASE, parse_phrase
from vinetag.core.money import currency_of

__all__ = ["MOST_ASKED", "ServiceAnswer", "ServiceError", "read_answer"]

MOST_ASKED: Final = 100
MOST_ROWS: Final = 200
DEAREST: Final = Decimal(2_000_000)


class ServiceError(ValueError):
    """An answer that makes no sense; the message says why."""


@dataclass(frozen=True, slots=True)
class ServiceAnswer:
    """Figures of a `source`; `passed` of them could not be used."""

    source: str
    last_month: str
    figures: tuple[Figure, ...]
    passed: int


def read_answer(body: bytes, market: Market) -> ServiceAnswer:
    """An answer, of the market that was asked for. Raises ServiceError for one that is none; of the
    figures, those that make no sense are passed over and counted.
    """
    try:
        document = json.loads(body)
    except (ValueError, RecursionError):
        raise ServiceError("its answer is no JSON") from None
    if not isinstance(document, dict) or not isinstance(document.get("figures"), list):
        raise ServiceError("its answer has no figures")
    source = " ".join(str(document.get("source") or "").split()).replace("|", "/")[:60]
    month = document.get("last_month")
    given = month if isinstance(month, str) else ""
    last_month = given if re.fullmatch(r"[0-9]{4}-(0[1-9]|1[0-2])", given) else ""
    currency = _currency(document.get("currency"))
    rows = document["figures"]
    figures = []
    for row in rows[:MOST_ROWS]:
        figure = _figure(row, market, currency)
        if figure is not None:
            figures.append(figure)
    return ServiceAnswer(
        source or "the service", last_month, tuple(figures), len(rows) - len(figures)
    )


def _currency(given: object) -> str:
    try:
        return currency_of(given) if isinstance(given, str) else ""
    except ValueError:
        return ""


def _figure(row: Any, market: Market, currency: str) -> Figure | None:
    if not isinstance(row, dict) or not isinstance(row.get("phrase"), str):
        return None
    phrase = parse_phrase(row["phrase"][: 2 * LONGEST_PHRASE])
    if not 0 < len(phrase) <= LONGEST_PHRASE or not any(c.isalnum() for c in phrase):
        return None
    searches = row.get("searches")
    low: int | None
    high: int | None
    if isinstance(searches, dict):
        low, high = _count(searches.get("from")), _count(searches.get("to"))
        if low is None or (high is not None and high < low):
            return None
    else:
        low = high = _count(searches)
        if searches is not None and low is None:
            return None
    months = row.get("months")
    series: tuple[int | None, ...] = ()
    if isinstance(months, list) and len(months) == MONTHS:
        series = tuple(_count(one) for one in months)
    share = row.get("competition")
    price = _price(row.get("click_price")) if currency else None
    return Figure(
        phrase, market, low, high, series if any(m is not None for m in series) else (),
        _share(share), price, currency if price is not None else "",
    )  # fmt: skip


def _count(given: object) -> int | None:
    if isinstance(given, int) and not isinstance(given, bool) and given >= 0:
        return min(given, MOST)
    return None


def _share(given: object) -> float | None:
    if isinstance(given, int | float) and not isinstance(given, bool) and 0 <= given <= 1:
        return float(given)
    return None


def _price(given: object) -> Decimal | None:
    if isinstance(given, str) and re.fullmatch(r"[0-9]{1,9}(\.[0-9]{1,6})?", given):
        return min(Decimal(given), DEAREST).quantize(Decimal("0.001"))
    return None
