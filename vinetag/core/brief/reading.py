"""Reading a brief from a document, in the interface and on the command line alike. Every problem is
collected, not the first.
"""

from __future__ import annotations

import unicodedata
from collections.abc import Callable, Mapping, Sequence
from typing import TypeVar, cast

from vinetag.core.brief.model import (
    FACETS,
    LIMIT_RANGES,
    MEASURE_NAMES,
    PURPOSES,
    RECIPE_NAMES,
    Brief,
    Chosen,
    Keyword,
    Limits,
    Making,
    Owner,
    Purpose,
    brief_document,
)
from vinetag.core.checking.fallback import RUNGS
from vinetag.core.errors import BriefError, ExtensionError, Problem
from vinetag.core.extensions import COUNTRIES, OWNER_KINDS, WORKS, parse_extension
from vinetag.core.names import folded

__all__ = ["parse_brief", "parse_what_is_valid"]

T = TypeVar("T")

MAX_NAME = 80
MAX_KEYWORDS = 40
MAX_KEYWORD_LENGTH = 40
MAX_KEYWORD_WORDS = 5
MAX_AVOID = 100
MAX_EXTENSIONS = 20
MAX_PLACES = 20
MAX_SENSES = 20
MAX_DROP = 300
MAX_BUDGET = 100_000
MAX_ABOUT = 400
MAX_FIELDS = 40
MAX_WORLD_WORDS = 600
MAX_ENTRY_LETTERS = 40
MAX_FIELD_TITLE = 60


def parse_brief(document: object) -> Brief:
    """Read a brief document; what is missing takes its default.

    Raises BriefError with every problem and its path (`keywords.3.text`).
    """
    return _Reader().read(document)


def parse_what_is_valid(document: object, before: Brief) -> tuple[Brief, Sequence[Problem]]:
    """Read as much of a brief document as makes sense: an entry of a list that does not is left
    out, any other part is as it was `before`. The problems are those parse_brief would raise.
    """
    try:
        return parse_brief(document), ()
    except BriefError as error:
        problems = error.problems
    if not isinstance(document, dict):
        return before, problems
    kept = brief_document(before)
    tried, wrong = {k: v for k, v in document.items() if k in kept}, list(problems)
    for _ in range(3):
        places: dict[str, set[int]] = {}
        for problem in wrong:
            part, _, rest = problem.path.partition(".")
            at = rest.partition(".")[0]
            if at.isdecimal() and isinstance(tried.get(part), list):
                places.setdefault(part, set()).add(int(at))
            elif part in kept:
                tried[part] = kept[part]
                places.pop(part, None)
        for part, bad in places.items():
            tried[part] = [item for i, item in enumerate(tried[part]) if i not in bad]
        try:
            return parse_brief(tried), problems
        except BriefError as error:
            wrong = list(error.problems)
    return before, problems


class _Reader:
    def __init__(self) -> None:
        self.problems: list[Problem] = []

    def note(self, path: str, code: str, **args: object) -> None:
        self.problems.append(Problem(path, code, args))

    def read(self, document: object) -> Brief:
        fields = self._object(document, "", set(brief_document(Brief())))
        name = self._text(fields.get("name", ""), "name", MAX_NAME)
        about = self._text(fields.get("about", ""), "about", MAX_ABOUT)
        purpose = fields.get("purpose", "mix")
        if purpose not in PURPOSES:
            self.note("purpose", "unknown_choice", value=purpose, choices=", ".join(PURPOSES))
        keywords = self._list(fields.get("keywords", []), "keywords", MAX_KEYWORDS, self._keyword)
        avoid = self._list(fields.get("avoid", []), "avoid", MAX_AVOID, self._avoided)
        limits = self._limits(fields.get("limits", {}))
        extensions = self._list(
            fields.get("extensions", ["com"]), "extensions", MAX_EXTENSIONS, self._extension
        )
        places = self._list(fields.get("places", []), "places", MAX_PLACES, self._avoided)
        making = self._making(fields.get("making", {}))
        weights = self._weights(fields.get("weights", {}))
        owner = self._owner(fields.get("owner", {}))
        fallback = self._list(
            fields.get("fallback", list(RUNGS)),
            "fallback",
            len(RUNGS),
            lambda v, at: self._choice(v, at, tuple(RUNGS)),
        )
        world = self._world(fields.get("world", {}))
        self._repeats([f for f in fallback if f], "fallback")
        self._repeats([k.text for k in keywords if k], "keywords")
        self._repeats([e for e in extensions if e], "extensions")
        if fields.get("extensions") == []:
            self.note("extensions", "too_few", limit=1)
        for i, keyword in enumerate(keywords):
            if keyword and keyword.text in avoid:
                self.note(f"keywords.{i}.text", "avoided_keyword", value=keyword.text)
        if self.problems:
            raise BriefError(*self.problems)
        return Brief(
            name=name,
            about=about,
            purpose=cast(Purpose, purpose),
            keywords=tuple(k for k in keywords if k),
            avoid=tuple(dict.fromkeys(a for a in avoid if a)),
            limits=limits,
            extensions=tuple(e for e in extensions if e),
            places=tuple(dict.fromkeys(p for p in places if p)),
            making=making,
            weights=weights,
            owner=owner,
            fallback=tuple(f for f in fallback if f),
            world=world,
        )

    def _object(self, value: object, path: str, known: set[str]) -> Mapping[str, object]:
        if not isinstance(value, dict):
            self.note(path, "not_object")
            return {}
        prefix = f"{path}." if path else ""
        for key in value:
            if key not in known:
                self.note(f"{prefix}{str(key)[:40]}", "unknown_field", field=str(key)[:40])
        return value

    def _text(self, value: object, path: str, limit: int) -> str:
        if not isinstance(value, str):
            self.note(path, "not_text")
            return ""
        text = " ".join(value.split())
        if len(text) > limit:
            self.note(path, "too_long", limit=limit, length=len(text))
        return text

    def _list(
        self, value: object, path: str, limit: int, read: Callable[[object, str], T]
    ) -> list[T]:
        if not isinstance(value, list):
            self.note(path, "not_list")
            return []
        if len(value) > limit:
            self.note(path, "too_many", limit=limit, count=len(value))
            return []
        return [read(item, f"{path}.{i}") for i, item in enumerate(value)]

    def _repeats(self, values: list[str], path: str) -> None:
        for i, value in enumerate(values):
            if value in values[:i]:
                self.note(f"{path}.{i}", "repeated", value=value)

    def _words(self, value: object, path: str) -> tuple[str, ...]:
        if not isinstance(value, str):
            self.note(path, "not_text")
            return ()
        text = folded(value).strip()
        if not text:
            self.note(path, "blank")
            return ()
        if len(text) > MAX_KEYWORD_LENGTH:
            self.note(path, "too_long", limit=MAX_KEYWORD_LENGTH, length=len(text))
            return ()
        if "." in text.strip("."):
            self.note(path, "full_name", value=text, label=text.split(".")[0])
            return ()
        odd = next((c for c in text if not (c.isascii() and (c.isalnum() or c in " -'"))), None)
        if odd is not None:
            self._odd_character(text, odd, path)
            return ()
        words = tuple(text.replace("-", " ").replace("'", "").split())
        if not words:
            self.note(path, "blank")
        if len(words) > MAX_KEYWORD_WORDS:
            self.note(path, "too_many", limit=f"{MAX_KEYWORD_WORDS} words", count=len(words))
            return ()
        return words

    def _odd_character(self, text: str, odd: str, path: str) -> None:
        if odd.isalpha() and not odd.isascii():
            script = unicodedata.name(odd, "other").split(" ")[0].title()
            self.note(path, "script", value=text, script=script)
            return
        shown = unicodedata.name(odd, "").lower() if odd.isspace() or not odd.isprintable() else odd
        self.note(path, "letters_only", value=text, what=f"the character {shown or '?'}")

    def _keyword(self, value: object, path: str) -> Keyword | None:
        if isinstance(value, str):
            value = {"text": value}
        fields = self._object(value, path, {"text", "weight", "senses", "drop"})
        if not fields:
            return None
        words = self._words(fields.get("text"), f"{path}.text")
        weight = self._number(fields.get("weight", 3), f"{path}.weight", 1, 5)
        senses = self._list(
            fields.get("senses", []),
            f"{path}.senses",
            MAX_SENSES,
            lambda v, at: self._number(v, at, 0, 10**6),
        )
        drop = self._list(fields.get("drop", []), f"{path}.drop", MAX_DROP, self._avoided)
        return Keyword(words, weight, tuple(senses), tuple(d for d in drop if d)) if words else None

    def _avoided(self, value: object, path: str) -> str:
        return " ".join(self._words(value, path))

    def _extension(self, value: object, path: str) -> str:
        if not isinstance(value, str):
            self.note(path, "not_text")
            return ""
        try:
            return parse_extension(value, path)
        except ExtensionError as error:
            self.problems.extend(error.problems)
            return ""

    def _number(self, value: object, path: str, low: int, high: int) -> int:
        if not isinstance(value, int) or isinstance(value, bool):
            self.note(path, "not_number")
            return low
        if not low <= value <= high:
            self.note(path, "out_of_range", value=value, low=low, high=high)
            return low
        return value

    def _making(self, value: object) -> Making:
        fields = self._object(value, "making", {"off", "daring", "added_max", "shapes"})
        usual = Making()
        off = self._list(fields.get("off", []), "making.off", len(RECIPE_NAMES), self._recipe)
        shapes = self._list(fields.get("shapes", []), "making.shapes", 8, self._shape)
        return Making(
            tuple(dict.fromkeys(o for o in off if o)),
            self._number(fields.get("daring", usual.daring), "making.daring", 0, 100),
            self._number(fields.get("added_max", usual.added_max), "making.added_max", 1, 12),
            tuple(dict.fromkeys(s for s in shapes if s)),
        )

    def _world(self, value: object) -> Chosen:
        fields = self._object(value, "world", {"on", "off", "drop", "weights", "own"})
        titles = {
            name: self._list(
                fields.get(name, []),
                f"world.{name}",
                MAX_FIELDS,
                lambda v, at: self._text(v, at, MAX_FIELD_TITLE),
            )
            for name in ("on", "off")
        }
        drop = self._list(fields.get("drop", []), "world.drop", MAX_WORLD_WORDS, self._entry)
        weighed = fields.get("weights", {})
        weights = []
        for word, weight in weighed.items() if isinstance(weighed, dict) else ():
            at = f"world.weights.{str(word)[:MAX_ENTRY_LETTERS]}"
            weights.append((self._entry(word, at), self._number(weight, at, 1, 5)))
        if not isinstance(weighed, dict):
            self.note("world.weights", "not_object")
        elif len(weights) > MAX_WORLD_WORDS:
            self.note("world.weights", "too_many", limit=MAX_WORLD_WORDS, count=len(weights))
        own = self._object(fields.get("own", {}), "world.own", set(FACETS))
        entries = {
            facet: self._list(own[facet], f"world.own.{facet}", MAX_WORLD_WORDS, self._entry)
            for facet in FACETS
            if facet in own
        }
        return Chosen(
            tuple(dict.fromkeys(t for t in titles["on"] if t)),
            tuple(dict.fromkeys(t for t in titles["off"] if t)),
            tuple(dict.fromkeys(d for d in drop if d)),
            tuple({w: n for w, n in weights if w}.items()),
            tuple(
                (facet, tuple(dict.fromkeys(e for e in found if e)))
                for facet, found in entries.items()
                if any(found)
            ),
        )

    def _entry(self, value: object, path: str) -> str:
        """A word or short phrase of a world; `a & b` for two that go together."""
        if not isinstance(value, str):
            self.note(path, "not_text")
            return ""
        text = " ".join(folded(value).replace("&", " & ").split())
        if len(text) > MAX_ENTRY_LETTERS:
            self.note(path, "too_long", limit=MAX_ENTRY_LETTERS, length=len(text))
            return ""
        odd = next((c for c in text if not (c.isascii() and (c.isalpha() or c in " -'&"))), None)
        if odd is not None:
            self._odd_character(text, odd, path)
            return ""
        return text

    def _owner(self, value: object) -> Owner:
        fields = self._object(value, "owner", {"country", "kind", "work", "budget"})
        budget = fields.get("budget")
        return Owner(
            self._choice(fields.get("country", ""), "owner.country", ("", *COUNTRIES)),
            self._choice(fields.get("kind", ""), "owner.kind", ("", *OWNER_KINDS)),
            self._choice(fields.get("work", "any"), "owner.work", tuple(WORKS)),
            None if budget is None else self._number(budget, "owner.budget", 1, MAX_BUDGET),
        )

    def _choice(self, value: object, path: str, choices: tuple[str, ...]) -> str:
        if value in choices:
            return str(value)
        told = ", ".join(choices[:8]) + (" …" if len(choices) > 8 else "")
        self.note(path, "unknown_choice", value=str(value)[:40], choices=told.strip(", "))
        return choices[0]

    def _weights(self, value: object) -> tuple[tuple[str, int], ...]:
        fields = self._object(value, "weights", set(MEASURE_NAMES))
        weights = tuple(
            (name, self._number(fields[name], f"weights.{name}", 0, 10))
            for name in MEASURE_NAMES
            if name in fields
        )
        if weights and all(fields[name] == 0 for name, _ in weights):
            self.note("weights", "no_weight")
        return weights

    def _recipe(self, value: object, path: str) -> str:
        if value not in RECIPE_NAMES:
            self.note(path, "unknown_choice", value=value, choices=", ".join(RECIPE_NAMES))
            return ""
        return str(value)

    def _shape(self, value: object, path: str) -> str:
        shape = value.strip().upper() if isinstance(value, str) else ""
        if not 3 <= len(shape) <= 12 or set(shape) - {"C", "V"}:
            self.note(path, "shape")
            return ""
        return shape

    def _limits(self, value: object) -> Limits:
        fields = self._object(value, "limits", set(LIMIT_RANGES))
        before = len(self.problems)
        read = {
            name: self._number(fields[name], f"limits.{name}", *LIMIT_RANGES[name])
            for name in LIMIT_RANGES
            if name in fields
        }
        limits = Limits(**read)
        if len(self.problems) == before and limits.letters_min > limits.letters_max:
            low, high = limits.letters_min, limits.letters_max
            self.note("limits.letters_min", "min_over_max", low=low, high=high)
        return limits
