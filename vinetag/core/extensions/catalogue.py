"""The catalogue of extensions: what is known of each, read from and written to CSV."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Iterator, Mapping
from dataclasses import astuple, dataclass
from decimal import Decimal
from functools import cache
from importlib.resources import files
from typing import Final, cast
from urllib.parse import urlsplit

from vinetag.core.errors import CatalogueError, ExtensionError, Problem
from vinetag.core.extensions.eligibility import COUNTRIES, RULES
from vinetag.core.extensions.known import parse_extension
from vinetag.core.money import amount_of
from vinetag.core.spreadsheet import plain_cell, safe_cell

__all__ = [
    "COLUMNS", "KINDS", "WORKS", "Catalogue", "Entry", "read_catalogue", "shipped_catalogue",
    "write_catalogue",
]  # fmt: skip

KINDS: Final = ("generic", "newer", "country", "second-level")
WORKS: Final[Mapping[str, str]] = {
    "any": "anything",
    "shop": "selling goods",
    "software": "software",
    "media": "publishing",
    "craft": "crafts and making",
    "art": "art and design",
    "music": "music and sound",
    "food": "food and drink",
    "travel": "travel",
    "local": "a local trade",
    "health": "health",
    "wellness": "wellness and beauty",
    "sport": "sport and fitness",
    "leisure": "leisure and play",
    "learning": "teaching",
    "money": "advice and money",
    "community": "a club or a cause",
    "events": "events",
    "personal": "oneself",
}
COLUMNS: Final = (
    "extension", "kind", "country", "works", "use", "eligibility", "letters_min", "letters_max",
    "idn", "yearly", "rdap", "whois", "whois_query", "whois_absent",
)  # fmt: skip
MOST = 2_000
LONGEST_USE = 200
LONGEST_LINE = 120
HOST = re.compile(r"(?=.{4,80}$)[a-z0-9-]+(\.[a-z0-9-]+)+(:[1-9]\d{0,4})?")
QUERY = re.compile(r"(?=.{6,60}$)[ -z|~]*\{name\}[ -z|~]*")


@dataclass(frozen=True, slots=True)
class Entry:
    """What is known of one extension.

    `country` is an ISO 3166-1 code or "EU", "" for none; `works` are kinds of work it suits;
    `eligibility` names a rule of RULES; labels have `letters_min` to `letters_max` characters;
    `idn`: whether labels beyond a to z are taken; `yearly`: a guide to the usual price of a year in
    euros, None when not known; `rdap`: where its registry answers, "" when the bootstrap says.
    `whois`: the host, with a port where it is not 43, where it answers by WHOIS, "" for none; the
    question is `whois_query` with the name for "{name}", "" for the name alone; `whois_absent` is
    the line that says that there is no registration, "" when not known.
    """

    extension: str
    kind: str = "newer"
    country: str = ""
    works: tuple[str, ...] = ("any",)
    use: str = ""
    eligibility: str = "open"
    letters_min: int = 1
    letters_max: int = 63
    idn: bool = True
    yearly: Decimal | None = None
    rdap: str = ""
    whois: str = ""
    whois_query: str = ""
    whois_absent: str = ""


@dataclass(frozen=True, slots=True)
class Catalogue:
    """Entries by extension, in the catalogue's own order."""

    entries: Mapping[str, Entry]

    def __getitem__(self, extension: str) -> Entry:
        """What is known; an extension beyond the catalogue has an entry that says nothing."""
        return self.entries.get(extension) or Entry(extension)

    def __contains__(self, extension: str) -> bool:
        return extension in self.entries

    def __iter__(self) -> Iterator[Entry]:
        return iter(self.entries.values())

    def __len__(self) -> int:
        return len(self.entries)


@cache
def shipped_catalogue() -> Catalogue:
    """The catalogue that comes with the project."""
    text = files("vinetag.core.extensions").joinpath("catalogue.csv").read_text("utf-8")
    return read_catalogue(text)


def write_catalogue(catalogue: Catalogue) -> str:
    """As CSV with a heading, which read_catalogue reads back."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(COLUMNS)
    for entry in catalogue:
        writer.writerow([safe_cell(cell) for cell in _cells(entry)])
    return out.getvalue()


def _cells(entry: Entry) -> list[str]:
    def cell(value: object) -> str:
        if isinstance(value, bool):
            return "yes" if value else "no"
        if isinstance(value, tuple):
            return " ".join(value)
        if isinstance(value, float):
            return f"{value:g}"
        return "" if value is None else str(value)

    return [cell(value) for value in astuple(entry)]


def read_catalogue(text: str) -> Catalogue:
    """Read CSV whose first line names the COLUMNS, in any order; all but `extension` may be left
    out. Raises CatalogueError with every problem and its line.
    """
    rows = csv.DictReader(io.StringIO(text.removeprefix("\ufeff")), restkey="", strict=False)
    problems: list[Problem] = []
    entries: dict[str, Entry] = {}
    heading = [(name or "").strip().lower() for name in rows.fieldnames or ()]
    for name in heading:
        if name not in COLUMNS:
            problems.append(Problem("line 1", "column_unknown", {"value": name[:40]}))
    if "extension" not in heading:
        problems.append(Problem("line 1", "column_missing", {"value": "extension"}))
    if problems:
        raise CatalogueError(*problems)
    rows.fieldnames = heading
    for row in rows:
        line = f"line {rows.line_num}"
        if len(entries) >= MOST:
            problems.append(Problem(line, "too_many", {"limit": MOST, "count": MOST + 1}))
            break
        entry = _read(row, line, problems)
        if entry and entry.extension in entries:
            problems.append(Problem(line, "repeated", {"value": entry.extension}))
        elif entry:
            entries[entry.extension] = entry
    if problems:
        raise CatalogueError(*problems)
    return Catalogue(entries)


def _read(row: Mapping[str, object], line: str, problems: list[Problem]) -> Entry | None:
    before = len(problems)
    cells = {key: plain_cell(str(value or "").strip()) for key, value in row.items() if key}
    usual = Entry("")

    def choice(name: str, choices: object, default: str) -> str:
        value = cells.get(name) or default
        listed = list(cast("list[str]", choices))
        if value not in listed:
            args = {"value": value[:40], "choices": ", ".join(c or "nothing" for c in listed)}
            problems.append(Problem(f"{line}, {name}", "unknown_choice", args))
        return value

    def number(name: str, low: int, high: int, default: int) -> int:
        text = cells.get(name) or str(default)
        if not text.isdecimal():
            problems.append(Problem(f"{line}, {name}", "not_number"))
            return default
        if not low <= int(text) <= high:
            args = {"value": text, "low": low, "high": high}
            problems.append(Problem(f"{line}, {name}", "out_of_range", args))
        return int(text)

    try:
        extension = parse_extension(cells.get("extension", ""), f"{line}, extension", new=True)
    except ExtensionError as error:
        problems.extend(error.problems)
        return None
    works = tuple((cells.get("works") or "any").split())
    for work in works:
        if work not in WORKS:
            args = {"value": work[:40], "choices": ", ".join(WORKS)}
            problems.append(Problem(f"{line}, works", "unknown_choice", args))
    use = cells.get("use", "")
    if len(use) > LONGEST_USE:
        long = {"limit": LONGEST_USE, "length": len(use)}
        problems.append(Problem(f"{line}, use", "too_long", long))
    yearly = cells.get("yearly", "")
    price: Decimal | None = None
    if yearly:
        try:
            price = amount_of(yearly)
            if price >= 1_000_000:
                raise ValueError
        except ValueError:
            problems.append(Problem(f"{line}, yearly", "not_price", {"value": yearly[:20]}))
    rdap = cells.get("rdap", "")
    if rdap and (urlsplit(rdap).scheme not in ("http", "https") or not urlsplit(rdap).netloc):
        problems.append(Problem(f"{line}, rdap", "not_address", {"value": rdap[:80]}))
    whois, query = cells.get("whois", "").lower(), cells.get("whois_query", "")
    if whois and not (HOST.fullmatch(whois) and int(whois.partition(":")[2] or 43) < 65_536):
        problems.append(Problem(f"{line}, whois", "not_host", {"value": whois[:80]}))
    if query and not QUERY.fullmatch(query):
        problems.append(Problem(f"{line}, whois_query", "not_query", {"value": query[:80]}))
    absent = cells.get("whois_absent", "")
    if len(absent) > LONGEST_LINE or not absent.isprintable():
        long = {"limit": LONGEST_LINE, "length": len(absent)}
        problems.append(Problem(f"{line}, whois_absent", "too_long", long))
    entry = Entry(
        extension=extension,
        kind=choice("kind", KINDS, usual.kind),
        country=choice("country", ("", *COUNTRIES), ""),
        works=works,
        use=use,
        eligibility=choice("eligibility", RULES, "open"),
        letters_min=number("letters_min", 1, 63, usual.letters_min),
        letters_max=number("letters_max", 1, 63, usual.letters_max),
        idn=choice("idn", ("yes", "no"), "yes") == "yes",
        yearly=price,
        rdap=rdap,
        whois=whois,
        whois_query=query,
        whois_absent=absent,
    )
    return entry if len(problems) == before else None
