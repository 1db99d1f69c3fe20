"""What the columns of a table of demand hold: by their headings in several languages, and by what
stands in them.
"""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from typing import Final, Literal

from babel import Locale

from vinetag.core.demand.numbers import (
    decimal_mark,
    is_missing,
    read_amount,
    read_range,
    read_share,
)

__all__ = ["KINDS", "Column", "Guess", "Kind", "guess_columns", "heading_sign", "kind_of_heading"]

Kind = Literal[
    "", "phrase", "searches", "low", "high", "month", "series", "competition", "price",
    "currency", "language", "country",
]  # fmt: skip
KINDS: Final[Mapping[Kind, str]] = {
    "": "passed over",
    "phrase": "the phrase",
    "searches": "searches a month",
    "low": "searches a month, at least",
    "high": "searches a month, at most",
    "month": "searches in one month",
    "series": "searches of twelve months in one cell",
    "competition": "competition, 0 to 1",
    "price": "price of a click",
    "currency": "currency of the price",
    "language": "language",
    "country": "country",
}
# Headings as they stand in English, German, French, Spanish, Italian, Dutch, Portuguese, Polish,
# Swedish and Danish; without accents, and nothing but letters and spaces.
_HEADINGS: Final[Mapping[Kind, str]] = {
    "phrase": "phrase;keyword;keywords;search term;search terms;search query;query;queries;term;"
    "searched for;suchbegriff;suchbegriffe;suchwort;suchphrase;begriff;schlagwort;mot cle;"
    "mots cles;requete;expression;palabra clave;palabras clave;consulta;termino;"
    "parola chiave;parole chiave;ricerca;zoekwoord;zoekterm;trefwoord;palavra chave;"
    "palavras chave;pesquisa;fraza;slowo kluczowe;sokord;sokfras;nyckelord;sogeord;soegeord",
    "searches": "searches;searches a month;monthly searches;search volume;volume;demand;"
    "average searches;average monthly searches;avg monthly searches;avg searches;"
    "searches per month;suchvolumen;suchanfragen;suchanfragen pro monat;"
    "durchschn suchanfragen pro monat;volume de recherche;recherches mensuelles;recherches;"
    "volumen;volumen de busqueda;busquedas;busquedas mensuales;volume di ricerca;"
    "ricerche mensili;ricerche;zoekvolume;zoekopdrachten;zoekopdrachten per maand;"
    "volume de pesquisa;pesquisas mensais;buscas;liczba wyszukiwan;wyszukiwania;sokvolym;"
    "sokningar;sokningar per manad;sogevolumen;sogninger;soegninger",
    "low": "min searches;minimum searches;searches from;searches min;at least;suchanfragen min;"
    "suchanfragen von;recherches min;busquedas min",
    "high": "max searches;maximum searches;searches to;searches max;at most;suchanfragen max;"
    "suchanfragen bis;recherches max;busquedas max",
    "series": "trend;monthly values;months;by month;twelve months;last twelve months;season;"
    "monatswerte;verlauf;tendance;tendencia;andamento;trend per month;miesiace;manader",
    "competition": "competition;competition index;contested;competitiveness;wettbewerb;konkurrenz;"
    "concurrence;competencia;concorrenza;concurrentie;concorrencia;konkurencja;konkurrens",
    "price": "price a click;price per click;click price;cost per click;cost a click;cpc;"
    "average price;klickpreis;kosten pro klick;preis pro klick;cout par clic;prix du clic;"
    "coste por clic;costo por clic;costo per clic;kosten per klik;custo por clique;"
    "koszt klikniecia;klickpris;klikpris",
    "currency": "currency;wahrung;waehrung;devise;moneda;divisa;valuta;moeda;waluta",
    "language": "language;lang;sprache;langue;idioma;lingua;taal;jezyk;sprak;sprog",
    "country": "country;market;region;location;place;land;pays;pais;paese;kraj;lokalizacja",
}
_BY_HEADING: Final[Mapping[str, Kind]] = {
    text: kind for kind, texts in _HEADINGS.items() for text in texts.split(";")
}
LANGUAGES: Final = ("en", "de", "fr", "es", "it", "nl", "pt", "pl", "sv", "da")
SAMPLE: Final = 200
SURE: Final = 0.85
SERIES_MONTHS: Final = 12


@dataclass(frozen=True, slots=True)
class Column:
    """What a column holds; `month` as 2026-10 where it is one of a month."""

    kind: Kind
    month: str = ""


@dataclass(frozen=True, slots=True)
class Guess:
    """The columns in their order, and what stands before decimals ("" where nothing shows it)."""

    columns: tuple[Column, ...]
    mark: str


def heading_sign(heading: Sequence[str]) -> str:
    """By what tables of the same make are known again."""
    return ";".join(_plain(text) for text in heading)[:1_000]


def kind_of_heading(text: str) -> Column | None:
    """What a heading says, if it is known."""
    if month := _month_of(text):
        return Column("month", month)
    plain = re.sub(r"\b(in )?(usd|eur|gbp|ca|approx)\b", "", _plain(text)).strip()
    kind = _BY_HEADING.get(re.sub(r" +", " ", plain))
    return Column(kind) if kind else None


def guess_columns(heading: Sequence[str], rows: Sequence[Sequence[str]]) -> Guess:
    """What each column holds: what its heading says, and where that says nothing, what the first
    SAMPLE `rows` have in it. No kind but months stands twice.
    """
    width = max([len(heading), *map(len, rows)], default=0)
    cells = [
        [row[at].strip() for row in rows[:SAMPLE] if at < len(row) and not is_missing(row[at])]
        for at in range(width)
    ]
    mark = decimal_mark(cell for column in cells for cell in column if not _is_series(cell))
    found = [kind_of_heading(heading[at]) if at < len(heading) else None for at in range(width)]
    # Several columns under one heading: the first that has what it says.
    columns: list[Column] = []
    taken: set[Kind] = set()
    for at, said in enumerate(found):
        if said and (said.kind in taken or not _holds(said.kind, cells[at], mark)):
            said = None
        columns.append(said or Column(""))
        if said and said.kind != "month":
            taken.add(said.kind)
    for kind in _BY_CONTENT:
        if kind in taken or (kind == "searches" and taken & {"low", "high"}):
            continue
        best = _best(kind, columns, found, cells, mark)
        if best is not None:
            columns[best] = Column(kind)
            taken.add(kind)
    return Guess(tuple(columns), mark)


def _best(
    kind: Kind,
    columns: Sequence[Column],
    found: Sequence[Column | None],
    cells: Sequence[Sequence[str]],
    mark: str,
) -> int | None:
    """The column that is most likely of a kind, by what stands in it."""
    worth = {
        at: _BY_CONTENT[kind](cells[at], mark)
        for at, column in enumerate(columns)
        if not column.kind and cells[at] and not (found[at] and kind not in ("phrase", "searches"))
    }
    best = max(worth, key=worth.__getitem__, default=None)
    return best if best is not None and worth[best] > 0 else None


def _share(cells: Sequence[str], good: Callable[[str], bool]) -> float:
    return sum(map(good, cells)) / len(cells) if cells else 0.0


def _mostly(cells: Sequence[str], good: Callable[[str], bool]) -> bool:
    """Whether nearly all of them are; of a few, all but one."""
    bad = len(cells) - sum(map(good, cells))
    return bad <= max(1, (1 - SURE) * len(cells)) and bad < len(cells)


def _reads(reader: Callable[[str, str], object], mark: str) -> Callable[[str], bool]:
    def good(cell: str) -> bool:
        try:
            return reader(cell, mark) is not None
        except ValueError:
            return False

    return good


def _holds(kind: Kind, cells: Sequence[str], mark: str) -> bool:
    """Whether a column that says so has a good part of what it says; an empty one may."""
    if not cells or kind not in ("searches", "low", "high", "phrase"):
        return True
    if kind == "phrase":
        return _share(cells, _has_letters) > 0.3
    return _share(cells, _reads(read_range, mark)) > 0.3


def _has_letters(cell: str) -> bool:
    return sum(c.isalpha() for c in cell) >= 2 and not _range_like(cell)


def _range_like(cell: str) -> bool:
    return _reads(read_range, "")(cell)


def _is_series(cell: str) -> bool:
    return len(re.findall(r"[0-9]+", cell)) >= SERIES_MONTHS and bool(
        re.fullmatch(r"[0-9\s,;|\[\].]+", cell)
    )


def _as_phrase(cells: Sequence[str], _mark: str) -> float:
    """Many different texts, some of several words."""
    share = _share(cells, _has_letters)
    several = _share(cells, lambda cell: " " in cell.strip())
    different = len(set(cells)) / len(cells)
    short = _share(cells, lambda cell: len(cell) <= 3)
    return share * different * (0.5 + several) - short if share >= SURE else 0.0


def _as_searches(cells: Sequence[str], mark: str) -> float:
    """Whole numbers or ranges, the larger the likelier."""
    if not _mostly(cells, _reads(read_range, mark)):
        return 0.0
    found = [read for cell in cells if _range_like(cell) and (read := read_range(cell, mark))]
    decimals = _share(cells, lambda cell: bool(re.search(r"[.,][0-9]{1,2}$", cell)))
    most = max((one.low for one in found), default=0)
    return most / 1_000_000 + 0.01 if decimals < 0.2 and most > 1 else 0.0


def _as_competition(cells: Sequence[str], mark: str) -> float:
    """Shares with decimals."""
    if not _mostly(cells, _reads(read_share, mark)):
        return 0.0
    return _share(cells, lambda cell: bool(re.search(r"[.,%]", cell)))


def _as_price(cells: Sequence[str], mark: str) -> float:
    if not _mostly(cells, _reads(read_amount, mark)):
        return 0.0
    return _share(cells, lambda cell: bool(re.search(r"[.,][0-9]{1,2}\D*$|[€$£]", cell)))


def _as_code(pattern: str) -> Callable[[Sequence[str], str], float]:
    def worth(cells: Sequence[str], _mark: str) -> float:
        share = _share(cells, lambda cell: bool(re.fullmatch(pattern, cell)))
        return share if share >= SURE and len(set(cells)) < max(3, len(cells) / 3) else 0.0

    return worth


_BY_CONTENT: Final[Mapping[Kind, Callable[[Sequence[str], str], float]]] = {
    "series": lambda cells, _: _share(cells, _is_series) if _share(cells, _is_series) > 0.5 else 0,
    "phrase": _as_phrase,
    "searches": _as_searches,
    "competition": _as_competition,
    "price": _as_price,
    "currency": _as_code("[A-Z]{3}"),
    "country": _as_code("[A-Z]{2}"),
    "language": _as_code("[a-z]{2}(-[A-Za-z]{2,4})?"),
}


def _plain(text: str) -> str:
    bare = unicodedata.normalize("NFKD", text.casefold().replace("ł", "l").replace("ø", "o"))
    letters = "".join(c if c.isalpha() else " " for c in bare if not unicodedata.combining(c))
    return " ".join(letters.split())


@cache
def _months() -> Mapping[str, int]:
    """Names of months, long and short, in the languages headings are known in."""
    found: dict[str, int] = {}
    for language in LANGUAGES:
        names = Locale(language).months
        for width in ("wide", "abbreviated"):
            for form in ("format", "stand-alone"):
                for number, name in names[form][width].items():
                    found.setdefault(_plain(name), number)
    return found


@cache
def _month_of(text: str) -> str:
    """2026-10 from a heading such as "Searches: Oct 2026", "2026-10" or "10/2026"; "" for others.
    One of twelve months without a year is none: nobody knows which.
    """
    if found := re.search(r"\b((?:19|20)[0-9]{2})[-/. ](0?[1-9]|1[0-2])\b(?![-/.][0-9])", text):
        return f"{found[1]}-{int(found[2]):02}"
    if found := re.search(r"\b(0?[1-9]|1[0-2])[-/.]((?:19|20)[0-9]{2})\b", text):
        return f"{found[2]}-{int(found[1]):02}"
    year = re.search(r"\b((?:19|20)[0-9]{2})\b|'([0-9]{2})\b|[-. ]([0-9]{2})$", text.strip())
    if not year:
        return ""
    for word in _plain(text).split():
        if number := _months().get(word):
            full = year[1] or f"20{year[2] or year[3]}"
            return f"{full}-{number:02}"
    return ""
