"""A name in other languages: words that are in it, unlucky ones, and how it is read there."""

from __future__ import annotations

import gzip
import re
from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cache
from importlib.resources import files
from typing import Final

from vinetag.core.grade import Reading
from vinetag.core.vet.findings import Finding

__all__ = ["Tongue", "abroad_findings", "languages_of", "read_in", "tongues"]

# What is spoken where, the first most; ISO 3166-1 and ISO 639.
SPOKEN: Final[Mapping[str, str]] = {
    "AT": "de", "AR": "es", "BE": "nl fr de", "BR": "pt", "CA": "fr", "CH": "de fr it", "CL": "es",
    "CO": "es", "CZ": "cs", "DE": "de", "DK": "da", "EC": "es", "ES": "es ca", "FI": "fi sv",
    "FR": "fr", "HU": "hu", "ID": "id", "IS": "is", "IT": "it", "LI": "de", "LT": "lt",
    "LU": "fr de", "LV": "lv", "MC": "fr", "MD": "ro", "MX": "es", "MY": "ms", "NL": "nl",
    "NO": "nb", "PE": "es", "PH": "fil", "PL": "pl", "PT": "pt", "RO": "ro", "SE": "sv",
    "SG": "ms", "SI": "sl", "SK": "sk", "TR": "tr", "US": "es", "UY": "es", "VE": "es", "VN": "vi",
}  # fmt: skip
VERY_COMMON, COMMON = 300, 1_500
KNOWN_ENGLISH: Final = 2.8
SHORTEST_PART, SHORTEST_INSIDE = 4, 5

# How letters are read, in our own spelling: the first that matches counts. By judgement, for those
# who read a word they do not know.
_READ: Final[Mapping[str, Sequence[tuple[str, str]]]] = {
    "de": (
        ("sch", "sh"), ("tsch", "ch"), ("ch", "kh"), ("^sp", "shp"), ("^st", "sht"), ("ei", "y"),
        ("ie", "ee"), ("eu|au$", "oy"), ("ee", "ay"), ("qu", "kv"), ("th", "t"), ("ph", "f"),
        ("z", "ts"), ("v", "f"), ("w", "v"), ("j", "y"), ("y", "ue"), ("e$", "uh"), ("ck", "k"),
    ),
    "nl": (
        ("sch", "s-kh"), ("ij|ei", "ay"), ("oe", "oo"), ("ui", "ow"), ("eu", "er"), ("g", "kh"),
        ("ch", "kh"), ("w", "v"), ("j", "y"), ("uu", "ue"), ("th", "t"),
    ),
    "fr": (
        ("eau|au", "oh"), ("ou", "oo"), ("oi", "wah"), ("ai|ei", "ay"), ("ch", "sh"), ("gn", "ny"),
        ("qu", "k"), ("^h", ""), ("th", "t"), ("j", "zh"), ("ge", "zh"), ("[dpstxz]$", ""),
        ("ent$", "on"), ("in$", "an"), ("e$", ""), ("u", "ue"),
    ),
    "es": (
        ("ll", "y"), ("qu", "k"), ("ch", "ch"), ("j", "h"), ("^h", ""), ("h", ""), ("z", "th"),
        ("ce", "the"), ("ci", "thi"), ("ge", "he"), ("gi", "hi"), ("v", "b"), ("y$", "ee"),
        ("e$", "eh"), ("ee", "eh-eh"), ("oo", "oh-oh"), ("^st", "est"), ("^sp", "esp"),
    ),
    "it": (
        ("chi", "kee"), ("che", "keh"), ("ci", "chee"), ("ce", "cheh"), ("gli", "lyee"),
        ("gn", "ny"), ("gi", "jee"), ("ge", "jeh"), ("h", ""), ("j", "y"), ("z", "ts"),
        ("e$", "eh"), ("ee", "eh-eh"), ("oo", "oh-oh"), ("qu", "kw"),
    ),
    "pt": (
        ("lh", "ly"), ("nh", "ny"), ("ch", "sh"), ("qu", "k"), ("^h", ""), ("j", "zh"),
        ("^r", "h"), ("rr", "h"), ("x", "sh"), ("e$", "ee"), ("o$", "oo"), ("ei", "ay"),
    ),
    "sv": (
        ("sj|skj|stj", "sh"), ("tj|kj", "sh"), ("j", "y"), ("y", "ue"), ("^ki", "shi"),
        ("^ke", "she"), ("g(?=[eiy])", "y"), ("w", "v"), ("z", "s"), ("th", "t"), ("o", "oo"),
    ),
    "pl": (
        ("sz", "sh"), ("cz", "ch"), ("rz", "zh"), ("ch", "h"), ("w", "v"), ("j", "y"), ("c", "ts"),
        ("y", "i"), ("qu", "kv"), ("th", "t"), ("x", "ks"), ("v", "v"),
    ),
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Tongue:
    """A language: its words by how often they come, from 0, those that offend, and those that are
    English words too but mean something else, with what, and whether that is unlucky.
    """

    code: str
    name: str
    words: Mapping[str, int] = field(default_factory=dict)
    offensive: frozenset[str] = frozenset()
    friends: Mapping[str, tuple[str, bool]] = field(default_factory=dict)


@cache
def tongues() -> Mapping[str, Tongue]:
    """The languages, by their codes."""
    data = files("vinetag.core.vet").joinpath("data/tongues.tsv.gz").read_bytes()
    words: dict[str, dict[str, int]] = {}
    rude: dict[str, frozenset[str]] = {}
    names: dict[str, str] = {}
    for line in gzip.decompress(data).decode("ascii").splitlines():
        code, name, kind, text = line.split("\t")
        names[code] = name
        if kind == "words":
            words[code] = {word: place for place, word in enumerate(text.split())}
        else:
            rude[code] = frozenset(text.split())
    friends: dict[str, dict[str, tuple[str, bool]]] = {}
    text = files("vinetag.core.vet").joinpath("data/false_friends.tsv").read_text("utf-8")
    for line in text.splitlines():
        code, word, meaning, unlucky = line.split("\t")
        friends.setdefault(code, {})[word] = (meaning, unlucky == "yes")
    return {
        code: Tongue(
            code, name, words.get(code, {}), rude.get(code, frozenset()), friends.get(code, {})
        )
        for code, name in names.items()
    }


def languages_of(countries: Sequence[str]) -> list[str]:
    """The languages of countries, in their order, without English."""
    found = [code for country in countries for code in SPOKEN.get(country, "").split()]
    return list(dict.fromkeys(found))


def read_in(label: str, language: str) -> str:
    """How a reader of a language says it, in our spelling; "" where its letters say nothing else
    there, or the language's are not known here.
    """
    rules = _READ.get(language)
    plain = label.replace("-", "")
    if not rules or not plain.isalpha() or not plain.isascii():
        return ""
    made, at = "", 0
    while at < len(plain):
        for pattern, said in rules:
            start = pattern.startswith("^")
            if start and at:
                continue
            match = re.compile(pattern.lstrip("^")).match(plain, at)
            if match and match.end() > at:
                made, at = made + said, match.end()
                break
        else:
            made, at = made + plain[at], at + 1
    return made if made != plain else ""


def abroad_findings(reading: Reading, countries: Sequence[str]) -> list[Finding]:
    """What a name is in other languages; those of the brief's markets weigh more."""
    label = reading.label.replace("-", "")
    if reading.foreign or not label.isascii():
        args = {"label": reading.shown}
        return [Finding("elsewhere", "unknown", "abroad_foreign", args, (), "lists of words")]
    ours = languages_of(countries)
    known = tongues()
    order = [*ours, *(code for code in known if code not in ours)]
    found: list[Finding] = []
    for code in order:
        if code in known:
            found += _in_tongue(reading, label, known[code], ours)
    rows = tuple(
        {"language": known[code].name, "market": True, "part": label, "says": "read as",
         "said": said}
        for code in ours
        if code in known and (said := read_in(label, code))
    )  # fmt: skip
    if not found:
        clear = {"count": len(known), "label": reading.shown}
        found = [Finding("elsewhere", "clear", "abroad_clear", clear, rows, "lists of words")]
    elif rows:
        first = found[0]
        found[0] = Finding(
            "elsewhere", first.weight, first.code, first.args, (*first.evidence, *rows),
            first.source,
        )  # fmt: skip
    return found


def _in_tongue(
    reading: Reading, label: str, tongue: Tongue, ours: Collection[str]
) -> Iterator[Finding]:
    market = tongue.code in ours
    rude = _offending(reading, label, tongue)
    if rude:
        part, whole = rude
        code = "rude_abroad" if whole else "rude_abroad_inside"
        weight = ("stop" if whole else "think") if market else ("think" if whole else "note")
        yield _finding(tongue, code, weight, part, "offensive", market=market)
        return
    for word in dict.fromkeys([label, *(word for _, word in reading.words)]):
        meaning, unlucky = tongue.friends.get(word, ("", False))
        if meaning and (market or unlucky):
            weight = "think" if market and unlucky else "note"
            yield _finding(
                tongue, "friend_abroad", weight, word, f"means “{meaning}”",
                market=market, more={"meaning": meaning},
            )  # fmt: skip
            return
    english = reading.lexicon.words.get(label)
    place = tongue.words.get(label)
    if place is not None and not (english and english.zipf >= KNOWN_ENGLISH):
        args = {"label": reading.shown, "often": _often(place)}
        yield _finding(
            tongue, "word_abroad", "think" if market else "note", label, _often(place),
            market=market, more=args,
        )  # fmt: skip
    elif market:
        for _, word in reading.words:
            at = tongue.words.get(word)
            own = reading.lexicon.words.get(word)
            if at is not None and at < COMMON and len(word) >= SHORTEST_PART and not (
                own and own.zipf >= KNOWN_ENGLISH
            ):  # fmt: skip
                yield _finding(tongue, "part_abroad", "note", word, _often(at), market=market)


def _offending(reading: Reading, label: str, tongue: Tongue) -> tuple[str, bool] | None:
    """An offensive word of the language that the name is, or has in it, and whether it is all of
    it. Of English words that are innocent at home nothing is said unless they are the whole name.
    """
    if label in tongue.offensive:
        return label, True
    parts = {word for _, word in reading.words}
    for word in sorted(tongue.offensive, key=lambda w: (-len(w), w)):
        if word in label:
            edge = label.startswith(word) or label.endswith(word)
            own = reading.lexicon.words.get(word)
            plain = own is not None and own.zipf >= KNOWN_ENGLISH
            if word in parts or (edge and len(word) >= SHORTEST_PART and not plain):
                return word, False
            if len(word) >= SHORTEST_INSIDE and not plain:
                return word, False
    return None


def _often(place: int) -> str:
    if place < VERY_COMMON:
        return "one of its commonest"
    return "a common one" if place < COMMON else "not a rare one"


def _finding(
    tongue: Tongue, code: str, weight: str, part: str, says: str, *, market: bool,
    more: Mapping[str, str] | None = None,
) -> Finding:  # fmt: skip
    args = {"part": part, "language": tongue.name, **(more or {})}
    row = {"language": tongue.name, "market": market, "part": part, "says": says, "said": ""}
    return Finding("elsewhere", weight, code, args, (row,), "lists of words")  # type: ignore[arg-type]
