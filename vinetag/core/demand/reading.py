"""Reading a table of demand as tools export it: encoding, separator and heading are found out,
every line that cannot be used is told, and what is good is taken.
"""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from decimal import Decimal
from functools import lru_cache
from itertools import islice
from typing import Final

from vinetag.core.demand.columns import Column
from vinetag.core.demand.figures import MONTHS, Figure, Figures, Market, columns_of
from vinetag.core.demand.numbers import (
    MOST,
    Range,
    is_missing,
    read_amount,
    read_range,
    read_share,
)
from vinetag.core.demand.opening import Preview, open_table
from vinetag.core.errors import Problem, add_words
from vinetag.core.extensions import COUNTRIES
from vinetag.core.money import currency_of
from vinetag.core.spreadsheet import plain_cell

__all__ = [
    "LONGEST_PHRASE", "MOST_LINES", "MOST_TOLD", "Defaults", "Demand", "language_of",
    "parse_phrase", "read_demand",
]  # fmt: skip

MOST_LINES: Final = 200_000
MOST_TOLD: Final = 200
MOST_MARKETS: Final = 200
LONGEST_PHRASE: Final = 120
DEAREST: Final = Decimal(2_000_000)
TOTALS: Final = frozenset(
    ("total", "totals", "sum", "overall", "all", "gesamt", "summe", "insgesamt", "somme", "totale",
     "total general", "grand total", "suma", "razem", "totaal", "totalt", "i alt", "average",
     "mean")
)  # fmt: skip

add_words(
    {
        "demand_empty": "There is no line with a phrase in it.",
        "demand_no_phrases": "Say which column has the phrases: none looks like it.",
        "demand_lines": "At most {limit:,} lines are taken; those after line {last:,} were "
        "left out.",
        "demand_no_phrase": "This line has no phrase and was left out.",
        "demand_long": "“{value}…” is longer than {limit} characters and was left out.",
        "demand_letters": "“{value}” has neither letters nor digits and was left out.",
        "demand_searches": "“{value}” is no number of searches; they count as not known.",
        "demand_month": "“{value}” is no number of searches in {month}; it counts as not known.",
        "demand_series": "“{value}” are not twelve numbers with a sign between them; not known.",
        "demand_competition": "“{value}” is no share from 0 to 1; it counts as not known.",
        "demand_price": "“{value}” is no price; it counts as not known.",
        "demand_currency": "“{value}” is no currency of ISO 4217; the price counts as not known.",
        "demand_no_currency": "Prices stand without a currency; say which, or they are left out.",
        "demand_country": "“{value}” is no country known here; the one said for the file counts.",
        "demand_markets": "More than {limit} countries and languages: the one said for the file "
        "counts.",
        "demand_totals": "“{value}” sums the others up and was left out.",
        "demand_twice": "“{value}” stands in line {first:,} with other figures, which count.",
        "demand_repeated": "{count:,} lines repeat a line above them and were left out.",
        "demand_passed": "Nothing was taken from the column “{value}”.",
        "demand_older": "Months before {month} were left out: the last twelve are kept.",
        "demand_mean": "There is no column of searches a month: they are the mean of the months.",
        "demand_scale": "Competition runs from 0 to 100 here and was divided by 100.",
    }
)


@dataclass(frozen=True, slots=True)
class Defaults:
    """What is said of the whole file, for lines that do not say it."""

    country: str = ""
    language: str = ""
    currency: str = ""


@dataclass(slots=True)
class Demand:
    """What was read; `lines` with a phrase, of which so many are rows of `figures`. The first
    MOST_TOLD `problems`, of `wrong`.
    """

    figures: Figures
    lines: int = 0
    wrong: int = 0
    problems: list[Problem] = field(default_factory=list)

    def tell(self, line: int, code: str, **args: object) -> None:
        """Something is wrong in a line, or with the whole file (0)."""
        self.wrong += 1
        if len(self.problems) < MOST_TOLD:
            self.problems.append(Problem(f"line {line}" if line else "file", code, args))


def parse_phrase(text: str) -> str:
    """A phrase as it is kept: lower case, single spaces, without the signs some write around it.
    "" where nothing is left.
    """
    plain = unicodedata.normalize("NFC", plain_cell(text.strip()))
    if plain[:1] + plain[-1:] in ("[]", '""', "“”", "''", "++"):
        plain = plain[1:-1]
    if not plain.isprintable():
        plain = "".join(c for c in plain if c.isprintable() or c.isspace())
    return " ".join(plain.lower().split())


def read_demand(
    content: bytes,
    defaults: Defaults = Defaults(),
    columns: Sequence[Column] | None = None,
    on_progress: Callable[[int], None] = lambda _: None,
) -> Demand:
    """Read a file; `columns` say what each holds where the guess was put right. Nothing is raised:
    what is wrong is told, and what is good is taken. `on_progress` hears of lines by the thousand.
    """
    preview, lines = open_table(content)
    chosen = tuple(columns or preview.guess.columns)
    demand = Demand(columns_of([]))
    if not any(column.kind == "phrase" for column in chosen):
        demand.tell(0, "demand_no_phrases" if preview.rows else "demand_empty")
        return demand
    reader = _Lines(demand, chosen, preview, defaults)
    for count, (line, cells) in enumerate(islice(lines, MOST_LINES)):
        reader.take(line, cells)
        if count % 5_000 == 0:
            on_progress(count)
    if (more := next(lines, None)) is not None:
        demand.tell(0, "demand_lines", limit=MOST_LINES, last=more[0] - 1)
    reader.close()
    return demand


class _Lines:
    """Line by line into figures."""

    def __init__(
        self, demand: Demand, columns: Sequence[Column], preview: Preview, defaults: Defaults
    ) -> None:
        self._demand, self._defaults, self._mark = demand, defaults, preview.guess.mark
        self._at = {c.kind: i for i, c in reversed(list(enumerate(columns))) if c.kind != "month"}
        months = sorted((c.month, i) for i, c in enumerate(columns) if c.kind == "month")
        self._months = months[-MONTHS:]
        self._rows: list[Figure] = []
        self._lines: list[int] = []
        self._known: dict[tuple[str, Market], int] = {}
        self._markets: set[Market] = set()
        self._repeated = self._scaled = self._unpriced = 0
        self._totals: list[int] = []
        self._means = not {"searches", "low", "high"} & self._at.keys()
        if len(months) > MONTHS:
            demand.tell(0, "demand_older", month=self._months[0][0])
        for at, column in enumerate(columns):
            heading = preview.heading[at].strip() if at < len(preview.heading) else ""
            if not column.kind and heading:
                demand.tell(0, "demand_passed", value=heading[:40])

    def take(self, line: int, cells: Sequence[str]) -> None:
        phrase = parse_phrase(self._cell(cells, "phrase"))
        if not phrase:
            if any(cell.strip() for cell in cells):
                self._demand.tell(line, "demand_no_phrase")
            return
        self._demand.lines += 1
        if len(phrase) > LONGEST_PHRASE:
            self._demand.tell(line, "demand_long", value=phrase[:30], limit=LONGEST_PHRASE)
            return
        if not any(c.isalnum() for c in phrase):
            self._demand.tell(line, "demand_letters", value=phrase[:40])
            return
        found = self._searches(line, cells)
        months = self._by_month(line, cells)
        if self._means and (known := [m for m in months if m is not None]):
            mean = round(sum(known) / len(known))
            found = Range(mean, mean)
        price, currency = self._price(line, cells)
        figure = Figure(
            phrase,
            self._market(line, cells),
            found.low if found else None,
            found.high if found else None,
            months,
            self._competition(line, cells),
            price,
            currency,
        )
        self._add(line, figure)

    def _add(self, line: int, figure: Figure) -> None:
        key = figure.phrase, figure.market
        first = self._known.setdefault(key, len(self._rows))
        if first < len(self._rows):
            if self._rows[first] == figure:
                self._repeated += 1
            else:
                value, at = figure.phrase[:40], self._lines[first]
                self._demand.tell(line, "demand_twice", value=value, first=at)
            return
        if figure.phrase in TOTALS:
            self._totals.append(len(self._rows))
        self._rows.append(figure)
        self._lines.append(line)

    def close(self) -> None:
        """Leave out what sums up, and put all into columns."""
        demand, rows = self._demand, self._rows
        whole = sum(row.low or 0 for row in rows)
        sums = set[int]()
        for at in self._totals:
            value = rows[at].low or 0
            if at in (0, len(rows) - 1) or value >= 0.9 * (whole - value) > 0:
                demand.tell(self._lines[at], "demand_totals", value=rows[at].phrase)
                sums.add(at)
        rows = [row for at, row in enumerate(rows) if at not in sums]
        if self._repeated:
            demand.tell(0, "demand_repeated", count=self._repeated)
        if self._means and any(row.low is not None for row in rows):
            demand.tell(0, "demand_mean")
        if self._unpriced:
            demand.tell(0, "demand_no_currency")
        if self._scaled:
            demand.tell(0, "demand_scale")
            rows = [
                row if row.competition is None else row._replace(competition=row.competition / 100)
                for row in rows
            ]
        if not rows:
            demand.tell(0, "demand_empty")
        demand.figures = columns_of(rows, self._months[-1][0] if self._months else "")

    def _cell(self, cells: Sequence[str], kind: str) -> str:
        at = self._at.get(kind, -1)  # type: ignore[call-overload]
        return cells[at].strip() if 0 <= at < len(cells) else ""

    def _range(self, line: int, text: str, code: str, **args: object) -> Range | None:
        try:
            return read_range(text, self._mark)
        except ValueError:
            self._demand.tell(line, code, value=text[:40], **args)
            return None

    def _searches(self, line: int, cells: Sequence[str]) -> Range | None:
        found = self._range(line, self._cell(cells, "searches"), "demand_searches")
        if found is not None:
            return found
        low = self._range(line, self._cell(cells, "low"), "demand_searches")
        high = self._range(line, self._cell(cells, "high"), "demand_searches")
        if low is None:
            return high and Range(0, high.high)
        if high is None or high.high is None:
            return Range(low.low, None)
        return Range(min(low.low, high.high), max(low.low, high.high))

    def _by_month(self, line: int, cells: Sequence[str]) -> tuple[int | None, ...]:
        if self._months:
            found: list[int | None] = []
            for month, at in self._months:
                text = cells[at].strip() if at < len(cells) else ""
                # Most are plain numbers, and twelve of them stand in each line.
                if text.isascii() and text.isdecimal():
                    found.append(min(int(text[:12]), MOST))
                    continue
                one = self._range(line, text, "demand_month", month=month)
                found.append(one.low if one else None)
            return tuple(found) if any(m is not None for m in found) else ()
        text = self._cell(cells, "series")
        if is_missing(text):
            return ()
        parts = re.findall(r"[0-9]+(?:\.[0-9]+)?", text)
        if len(parts) != MONTHS:
            self._demand.tell(line, "demand_series", value=text[:40])
            return ()
        return tuple(min(int(float(part[:12])), MOST) for part in parts)

    def _competition(self, line: int, cells: Sequence[str]) -> float | None:
        text = self._cell(cells, "competition")
        try:
            return read_share(text, self._mark)
        except ValueError:
            pass
        # Some count from 0 to 100: then all of the file does.
        plain = text.replace(",", ".")
        if re.fullmatch(r"[0-9]{1,3}(?:\.[0-9]+)?", plain) and float(plain) <= 100:
            self._scaled = 1
            return float(plain)
        self._demand.tell(line, "demand_competition", value=text[:40])
        return None

    def _price(self, line: int, cells: Sequence[str]) -> tuple[Decimal | None, str]:
        text = self._cell(cells, "price")
        try:
            read = read_amount(text, self._mark)
        except ValueError:
            self._demand.tell(line, "demand_price", value=text[:40])
            return None, ""
        if read is None:
            return None, ""
        amount, own = read
        currency = own or self._cell(cells, "currency").upper() or self._defaults.currency
        if not currency:
            self._unpriced += 1
            return None, ""
        if not _is_currency(currency):
            self._demand.tell(line, "demand_currency", value=currency[:10])
            return None, ""
        return min(amount, DEAREST).quantize(Decimal("0.001")), currency

    def _market(self, line: int, cells: Sequence[str]) -> Market:
        said = self._cell(cells, "country")
        country = _country(said) if said else self._defaults.country
        if country is None:
            self._demand.tell(line, "demand_country", value=said[:40])
            country = self._defaults.country
        language = language_of(self._cell(cells, "language")) or self._defaults.language
        market = Market(country, language)
        if market not in self._markets:
            if len(self._markets) >= MOST_MARKETS:
                self._demand.tell(line, "demand_markets", limit=MOST_MARKETS)
                return Market(self._defaults.country, self._defaults.language)
            self._markets.add(market)
        return market


@lru_cache(1_000)
def language_of(text: str) -> str:
    """A tag as BCP 47 has them, in lower case; "" for what is none."""
    plain = text.lower()[:10]
    return plain if re.fullmatch("[a-z]{2,3}(-[a-z0-9]+)*", plain) else ""


@lru_cache(1_000)
def _country(text: str) -> str | None:
    if text.upper() in COUNTRIES:
        return text.upper()
    plain = text.casefold()
    return next((code for code, name in COUNTRIES.items() if name.casefold() == plain), None)


@lru_cache(1_000)
def _is_currency(code: str) -> bool:
    try:
        return bool(currency_of(code))
    except ValueError:
        return False
