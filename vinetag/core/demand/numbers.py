"""Numbers as tables of demand write them: thousands apart in several ways, K and M, ranges."""

from __future__ import annotations

import re
from collections.abc import Iterable
from decimal import Decimal, InvalidOperation
from functools import lru_cache
from typing import Final, NamedTuple

__all__ = ["MOST", "Range", "decimal_mark", "is_missing", "read_amount", "read_range", "read_share"]

MOST: Final = 2_000_000_000
MISSING: Final = frozenset(
    ("", "-", "--", "–", "—", "n/a", "na", "n.a.", "nan", "none", "null", "nil", "?", "k.a.",
     "k. a.", "s/o", "s.o.", "nd", "n.d.", "n/d", "nc", "unknown", "unbekannt")
)  # fmt: skip
TIMES: Final = {
    "": 1, "k": 1_000, "tsd": 1_000, "tys": 1_000, "m": 1_000_000, "mio": 1_000_000,
    "mln": 1_000_000, "mn": 1_000_000, "b": 1_000_000_000, "bn": 1_000_000_000,
    "mrd": 1_000_000_000,
}  # fmt: skip
_SPACES: Final = re.compile(r"[\s\u00a0\u2007\u2009\u202f'’]+")
_ONE: Final = re.compile(r"([0-9][0-9.,]*)([a-z]*)\.?")
_BETWEEN: Final = re.compile(r"\s*(?:[-–—−~〜]|\.\.+|…|\bto\b|\bbis\b|\bà\b)\s*")
_DIGITS: Final = re.compile(r"[0-9]")
# Groups as most write them (1.234.567), and as in India (12,34,567).
_GROUPED: Final = re.compile(r"[0-9]{1,3}(?:[.,][0-9]{2,3})*[.,][0-9]{3}")
CURRENCY_SIGNS: Final = {
    "€": "EUR", "$": "USD", "£": "GBP", "¥": "JPY", "₹": "INR", "zł": "PLN", "kr": "", "chf": "CHF",
}  # fmt: skip


class Range(NamedTuple):
    """Searches from `low` to `high`, both included; `high` None for that many and more."""

    low: int
    high: int | None


def is_missing(text: str) -> bool:
    """Whether the cell says that nothing is known; 0 is a figure."""
    return text.strip().casefold() in MISSING


def decimal_mark(texts: Iterable[str]) -> str:
    """ "." or "," where the numbers among the texts show which stands before decimals; "" where
    they do not.
    """
    votes = {".": 0, ",": 0}
    for text in texts:
        for number in re.findall(r"[0-9][0-9.,]*[0-9]", _SPACES.sub("", text)):
            dots, commas = number.count("."), number.count(",")
            if dots and commas:
                last = "." if number.rfind(".") > number.rfind(",") else ","
                if number.count(last) == 1:
                    votes[last] += 2
            elif dots + commas == 1:
                mark = "." if dots else ","
                if len(number) - number.index(mark) - 1 != 3 or number.startswith("0"):
                    votes[mark] += 1
            elif dots + commas > 1:
                votes["," if dots else "."] += 1
    if votes["."] == votes[","]:
        return ""
    return "." if votes["."] > votes[","] else ","


def read_range(text: str, mark: str = "") -> Range | None:
    """Searches a month: a number, a range ("1K – 10K"), "100+", "<10"; None where it is missing.
    `mark` stands before decimals, "" where that is not known. Raises ValueError.
    """
    # What most cells are.
    if text.isdecimal() and text.isascii():
        whole = min(int(text[:12]), MOST)
        return Range(whole, whole)
    return _range(text, mark)


@lru_cache(20_000)
def _range(text: str, mark: str) -> Range | None:
    if is_missing(text):
        return None
    plain = text.strip().casefold()
    if plain.startswith(("<", "≤", "under ")):
        most = _whole(*_parts(plain.lstrip("<≤ =").removeprefix("under "), mark, grouped=True))
        return Range(0, max(0, most - 1) if plain.startswith("<") and "=" not in plain else most)
    more = plain.startswith((">", "≥", "over ")) or plain.endswith("+")
    plain = plain.lstrip("><≥~≈= ").removeprefix("over ").rstrip("+ ")
    halves = _BETWEEN.split(plain)
    if len(halves) == 1:
        low = _whole(*_parts(plain, mark, grouped=True))
        return Range(low, None if more else low)
    if len(halves) != 2 or more:
        raise ValueError(text)
    (first, times), (second, wider) = (_parts(half, mark, grouped=True) for half in halves)
    # "1-10K" means thousands on both sides, "100-1K" does not.
    if times == 1 < wider and first < second:
        times = wider
    low, high = _whole(first, times), _whole(second, wider)
    if low > high:
        raise ValueError(text)
    return Range(low, high)


def read_amount(text: str, mark: str = "") -> tuple[Decimal, str] | None:
    """An amount of money and its currency, "" where none stands there; None where it is missing.
    Raises ValueError.
    """
    if is_missing(text):
        return None
    plain, currency = text.strip(), ""
    for sign, code in CURRENCY_SIGNS.items():
        if sign in plain.casefold():
            plain, currency = re.sub(re.escape(sign), "", plain, flags=re.IGNORECASE), code
    if found := re.match(r"\s*([A-Z]{3})\b|.*\b([A-Z]{3})\s*$", plain):
        currency = found[1] or found[2]
        plain = plain.replace(currency, "")
    number, times = _parts(plain.strip().casefold(), mark, grouped=False)
    return number * times, currency


def read_share(text: str, mark: str = "") -> float | None:
    """A share from 0 to 1, as it is or in per cent; None where it is missing. Raises ValueError."""
    if is_missing(text):
        return None
    plain = text.strip()
    percent = plain.endswith("%")
    number, times = _parts(plain.rstrip("% ").casefold(), mark, grouped=False)
    share = float(number) * times / (100 if percent else 1)
    if not 0 <= share <= 1:
        raise ValueError(text)
    return share


def _parts(text: str, mark: str, *, grouped: bool) -> tuple[Decimal, int]:
    """The number and what it is to be taken times; a lone separator before three digits stands
    between thousands where numbers are `grouped`, else before decimals, unless `mark` says so.
    """
    found = _ONE.fullmatch(_SPACES.sub("", text))
    if not found or found[2] not in TIMES or len(found[1]) > 20:
        raise ValueError(text)
    number, times = found[1], TIMES[found[2]]
    marks = [c for c in number if c in ".,"]
    if len(set(marks)) == 2:
        last = marks[-1]
        if marks.count(last) > 1:
            raise ValueError(text)
        number = number.replace("," if last == "." else ".", "").replace(last, ".")
    elif len(marks) > 1:
        if not _GROUPED.fullmatch(number):
            raise ValueError(text)
        number = number.replace(marks[0], "")
    elif marks:
        three = len(number) - number.index(marks[0]) - 1 == 3 and number[0] != "0"
        thousands = three and marks[0] != mark and (grouped or mark != "") and times == 1
        number = number.replace(marks[0], "" if thousands else ".")
    try:
        return Decimal(number), times
    except InvalidOperation:
        raise ValueError(text) from None


def _whole(number: Decimal, times: int) -> int:
    return min(int((number * times).to_integral_value()), MOST)
