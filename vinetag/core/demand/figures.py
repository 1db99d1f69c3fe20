"""Figures of many phrases as columns, and as bytes to be kept."""

from __future__ import annotations

import io
import json
import zlib
from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from typing import Any, Final, NamedTuple

import numpy as np
import numpy.typing as npt

__all__ = [
    "AND_MORE",
    "MONTHS",
    "UNKNOWN",
    "Figure",
    "Figures",
    "Market",
    "columns_of",
    "packed",
    "unpacked",
]

MONTHS: Final = 12
UNKNOWN: Final = -1
# As the most searches of a range without an end.
AND_MORE: Final = -2
Whole = npt.NDArray[np.int32]


class Market(NamedTuple):
    """Where and in which language phrases are looked for; "" where it was not said."""

    country: str
    language: str


class Figure(NamedTuple):
    """What is known of one phrase in one market; None where it is missing. `high` of searches "100
    and more" is None with a `low`; `months`: the last twelve, oldest first, or none.
    """

    phrase: str
    market: Market
    low: int | None
    high: int | None
    months: tuple[int | None, ...]
    competition: float | None
    price: Decimal | None
    currency: str


@dataclass(frozen=True, slots=True)
class Figures:
    """One row a phrase and market. Searches a month: `low` and `high` with UNKNOWN and AND_MORE;
    `months` (rows, 12), oldest first, the last of them `last_month` (2026-10, "" where nobody
    said); `competition` 0 to 1 with NaN; `prices` in thousandths with UNKNOWN; `market` and
    `currency` are places in `markets` and `currencies`.
    """

    phrases: Sequence[str]
    markets: Sequence[Market]
    currencies: Sequence[str]
    low: Whole
    high: Whole
    months: Whole
    last_month: str
    competition: npt.NDArray[np.float32]
    prices: Whole
    market: npt.NDArray[np.uint8]
    currency: npt.NDArray[np.uint8]

    def __len__(self) -> int:
        return len(self.phrases)

    def one(self, at: int) -> Figure:
        """A row."""
        low, high, price = int(self.low[at]), int(self.high[at]), int(self.prices[at])
        months = self.months[at].tolist()
        share = float(self.competition[at])
        return Figure(
            self.phrases[at],
            self.markets[self.market[at]],
            None if low == UNKNOWN else low,
            None if high < 0 else high,
            tuple(None if m < 0 else m for m in months) if max(months) >= 0 else (),
            None if np.isnan(share) else round(share, 4),
            None if price == UNKNOWN else Decimal(price) / 1000,
            self.currencies[self.currency[at]] if price != UNKNOWN else "",
        )

    def of_market(self, market: Market) -> npt.NDArray[np.intp]:
        """The rows of a market."""
        if market not in self.markets:
            return np.zeros(0, np.intp)
        return np.flatnonzero(self.market == list(self.markets).index(market))


def columns_of(rows: Sequence[Figure], last_month: str = "") -> Figures:
    """Figures one by one as columns; amounts are kept to the thousandth."""
    markets = list(dict.fromkeys(row.market for row in rows)) or [Market("", "")]
    currencies = list(dict.fromkeys(["", *(row.currency for row in rows)]))

    places = {market: at for at, market in enumerate(markets)}
    coins = {code: at for at, code in enumerate(currencies)}

    def whole(values: Sequence[int] | Sequence[Sequence[int]]) -> Whole:
        return np.array(values, np.int32)

    return Figures(
        [row.phrase for row in rows],
        markets,
        currencies,
        whole([UNKNOWN if row.low is None else row.low for row in rows]),
        whole([_most(row) for row in rows]),
        whole([_months(row) for row in rows]).reshape(len(rows), MONTHS),
        last_month,
        np.array([np.nan if r.competition is None else r.competition for r in rows], np.float32),
        whole([UNKNOWN if row.price is None else int(row.price * 1000) for row in rows]),
        np.array([places[row.market] for row in rows], np.uint8),
        np.array([coins[row.currency] for row in rows], np.uint8),
    )


def _most(row: Figure) -> int:
    if row.high is not None:
        return row.high
    return UNKNOWN if row.low is None else AND_MORE


def _months(row: Figure) -> list[int]:
    given = [UNKNOWN if m is None else m for m in row.months[-MONTHS:]]
    return [UNKNOWN] * (MONTHS - len(given)) + given


ARRAYS: Final = ("low", "high", "months", "competition", "prices", "market", "currency")


def packed(figures: Figures) -> bytes:
    """As bytes; `unpacked` gives the same back."""
    told = {
        "markets": figures.markets, "currencies": figures.currencies,
        "last_month": figures.last_month, "phrases": "\n".join(figures.phrases),
    }  # fmt: skip
    out = io.BytesIO()
    arrays: dict[str, Any] = {name: getattr(figures, name) for name in ARRAYS}
    text = np.frombuffer(json.dumps(told).encode(), np.uint8)
    np.savez(out, told=text, **arrays)
    return zlib.compress(out.getvalue(), 1)


def unpacked(content: bytes) -> Figures:
    """What `packed` made."""
    with np.load(io.BytesIO(zlib.decompress(content)), allow_pickle=False) as saved:
        told = json.loads(saved["told"].tobytes())
        arrays = {name: saved[name] for name in ARRAYS}
    phrases = told["phrases"].split("\n") if len(arrays["low"]) else []
    markets = [Market(*one) for one in told["markets"]]
    return Figures(phrases, markets, told["currencies"], last_month=told["last_month"], **arrays)
