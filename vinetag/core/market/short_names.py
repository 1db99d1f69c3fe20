"""Every name of up to five letters, numbered, so that all of them can be gone through at once:
shorter before longer, then by the alphabet. 12,356,630 in all.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Annotated, Any, ClassVar, Final

import numpy as np
import numpy.typing as npt
from pydantic import ConfigDict, Field

from vinetag.core.documents import Document, Marker, refusal
from vinetag.core.errors import QuestionError, add_words
from vinetag.core.lexicon import Lexicon
from vinetag.core.sheet.fields import Flag, Letters

__all__ = [
    "LONGEST", "OFFSETS", "ShortQuestion", "bit_count", "label_of", "matching", "number_of",
    "parse_short", "shape_counts", "shape_size", "short_schema",
]  # fmt: skip

LONGEST: Final = 5
A: Final = ord("a")
VOWELS: Final = "aeiou"
# The first number of each length.
OFFSETS: Final[tuple[int, ...]] = tuple(
    sum(26**shorter for shorter in range(1, length)) for length in range(LONGEST + 2)
)
# In a shape: any consonant, any vowel, any letter; small letters stand for themselves.
ANY_CONSONANT, ANY_VOWEL, ANY = "C", "V", "?"
# Three letters in a row are said together when so many common words have them.
OFTEN: Final = 3
COMMON_ZIPF: Final = 2.5

add_words(
    {
        "short_shape": "A shape is one to five of C, V, ? and small letters; “{value}” is none.",
        "short_letters": "Only the letters a to z can be allowed.",
        "short_initials": "Initials are letters a to z, or words that begin with them.",
    }
)

Numbers = npt.NDArray[np.int32]


@dataclass(frozen=True)
class _Shape(Marker):
    def read(self, value: str) -> str:
        letters = [c for c in value if c in (ANY_CONSONANT, ANY_VOWEL, ANY) or "a" <= c <= "z"]
        if not 1 <= len(value) <= LONGEST or len(letters) != len(value):
            raise refusal("short_shape", value=value[:20])
        return value

    def described(self) -> dict[str, Any]:
        return {"type": "string", "pattern": "^[CV?a-z]{1,5}$"}


@dataclass(frozen=True)
class _Alphabet(Marker):
    def read(self, value: str) -> str:
        text = "".join(sorted(set(value.lower().replace(",", "").replace(" ", ""))))
        if not all("a" <= c <= "z" for c in text):
            raise refusal("short_letters")
        return text

    def described(self) -> dict[str, Any]:
        return {"type": "string"}


@dataclass(frozen=True)
class _Initials(Marker):
    """Initials, or the words they are of."""

    def read(self, value: str) -> str:
        words = value.lower().split()
        text = "".join(word[0] for word in words) if len(words) > 1 else "".join(words)
        if not all("a" <= c <= "z" for c in text):
            raise refusal("short_initials")
        return text

    def described(self) -> dict[str, Any]:
        return {"type": "string"}


@dataclass(frozen=True, slots=True)
class ShortQuestion:
    """Which short names: of a `shape`, of these `letters` only ("" for all), with `text` in them,
    beginning with `starts`; with these `initials`, the first in front and the rest in this order
    somewhere behind; `sayable`: whose letters follow each other in common words.
    """

    __pydantic_config__: ClassVar[ConfigDict] = ConfigDict(extra="ignore")

    shape: Annotated[
        str, _Shape(), Field(description="One to five of C (consonant), V (vowel), ? and letters")
    ] = "????"
    letters: Annotated[str, _Alphabet(), Field(description="Only these, a to z")] = ""
    text: Letters = ""
    starts: Letters = ""
    initials: Annotated[
        str, _Initials(), Field(description="Letters, or words whose first letters count")
    ] = ""
    sayable: Flag = False


_DOCUMENT: Final = Document(ShortQuestion, QuestionError)


def parse_short(given: dict[str, str]) -> ShortQuestion:
    """Read an address's fields. Raises QuestionError with a problem at each that makes no sense."""
    return _DOCUMENT.read({name: text for name, raw in given.items() if (text := raw.strip())})


def short_schema() -> dict[str, Any]:
    """The JSON Schema of the question."""
    return _DOCUMENT.schema("Short names", "Which short names, in the fields of an address.")


def bit_count() -> int:
    """How many names there are."""
    return OFFSETS[LONGEST + 1]


def number_of(label: str) -> int:
    """The number of a label of one to LONGEST letters a to z."""
    code = 0
    for letter in label:
        code = code * 26 + ord(letter) - A
    return OFFSETS[len(label)] + code


def label_of(number: int) -> str:
    """The label of a number."""
    length = next(n for n in range(1, LONGEST + 1) if number < OFFSETS[n + 1])
    code, letters = number - OFFSETS[length], []
    for _ in range(length):
        code, letter = divmod(code, 26)
        letters.append(chr(A + letter))
    return "".join(reversed(letters))


def matching(question: ShortQuestion, lexicon: Lexicon) -> Numbers:
    """The numbers of all names of a question, in order. An array of up to 26 ** 5."""
    length = len(question.shape)
    choices = [_choices(mark, question.letters) for mark in question.shape]
    for front in (question.starts, question.initials[:1]):
        for place, letter in enumerate(front[:length]):
            choices[place] = np.intersect1d(choices[place], [ord(letter) - A])
    if max(len(question.starts), len(question.text), len(question.initials)) > length:
        return np.empty(0, np.int32)
    grid = np.zeros(1, np.int32)
    for allowed in choices:
        grid = (grid[:, None] * 26 + allowed[None, :]).ravel().astype(np.int32)
    if question.text:
        grid = grid[_contains(grid, length, question.text)]
    if question.initials:
        grid = grid[_in_order(grid, length, question.initials)]
    if question.sayable:
        grid = grid[_sayable(grid, length, lexicon)]
    return (grid + OFFSETS[length]).astype(np.int32)


def shape_size(shape: str) -> int:
    """How many names there are of a shape of C, V and ?; 0 for what is none."""
    sizes = {ANY_CONSONANT: 26 - len(VOWELS), ANY_VOWEL: len(VOWELS), ANY: 26}
    if not 1 <= len(shape) <= LONGEST or not set(shape) <= set(sizes):
        return 0
    return math.prod(sizes[mark] for mark in shape)


def shape_counts(bits: npt.NDArray[np.bool_]) -> dict[str, int]:
    """By shape of consonants and vowels, and by length ("????"), how many names are set in `bits`,
    which has one for each number.
    """
    vowels = np.isin(np.arange(26), [ord(c) - A for c in VOWELS])
    found: dict[str, int] = {}
    for length in range(1, LONGEST + 1):
        codes = np.flatnonzero(bits[OFFSETS[length] : OFFSETS[length + 1]]).astype(np.int32)
        kinds = np.zeros(len(codes), np.int32)
        for place in range(length):
            kinds = kinds * 2 + vowels[_letter(codes, length, place)]
        counts = np.bincount(kinds, minlength=2**length)
        found[ANY * length] = len(codes)
        for kind, count in enumerate(counts.tolist()):
            marks = f"{kind:0{length}b}".replace("0", ANY_CONSONANT).replace("1", ANY_VOWEL)
            found[marks] = count
    return found


def _choices(mark: str, letters: str) -> Numbers:
    alphabet = letters or "abcdefghijklmnopqrstuvwxyz"
    if mark == ANY_CONSONANT:
        found: Sequence[str] = [c for c in alphabet if c not in VOWELS]
    elif mark == ANY_VOWEL:
        found = [c for c in alphabet if c in VOWELS]
    elif mark == ANY:
        found = alphabet
    else:
        found = [mark]
    return np.array([ord(c) - A for c in found], np.int32)


def _letter(codes: Numbers, length: int, place: int) -> Numbers:
    found: Numbers = codes // 26 ** (length - 1 - place) % 26
    return found


def _contains(codes: Numbers, length: int, text: str) -> npt.NDArray[np.bool_]:
    wanted = 0
    for letter in text:
        if not "a" <= letter <= "z":
            return np.zeros(len(codes), np.bool_)
        wanted = wanted * 26 + ord(letter) - A
    found = np.zeros(len(codes), np.bool_)
    for after in range(length - len(text) + 1):
        found |= codes // 26**after % 26 ** len(text) == wanted
    return found


def _in_order(codes: Numbers, length: int, text: str) -> npt.NDArray[np.bool_]:
    """Whether the letters of `text` come one after another, with others between them or none."""
    wanted = np.array([*(ord(c) - A for c in text), -1], np.int32)
    seen = np.zeros(len(codes), np.int32)
    for place in range(length):
        seen += _letter(codes, length, place) == wanted[seen]
    found: npt.NDArray[np.bool_] = seen == len(text)
    return found


@lru_cache(1)
def _said_together(lexicon: Lexicon) -> npt.NDArray[np.bool_]:
    """By three letters in a row, 26 for the beginning or end, whether common words have them."""
    counts = np.zeros((27, 27, 27), np.int32)
    for word, told in lexicon.words.items():
        if told.zipf >= COMMON_ZIPF and word.isascii() and word.isalpha() and word.islower():
            places = [26, *(ord(c) - A for c in word), 26]
            for three in zip(places, places[1:], places[2:], strict=False):
                counts[three] += 1
    often: npt.NDArray[np.bool_] = counts >= OFTEN
    return often


def _sayable(codes: Numbers, length: int, lexicon: Lexicon) -> npt.NDArray[np.bool_]:
    """Whether a name has a vowel (or y) and every three letters of it stand in common words."""
    known = _said_together(lexicon)
    edge = np.full(len(codes), 26, np.int32)
    letters = [edge, *(_letter(codes, length, place) for place in range(length)), edge]
    found = np.ones(len(codes), np.bool_)
    for one, two, three in zip(letters, letters[1:], letters[2:], strict=False):
        found &= known[one, two, three]
    vowels = np.isin(np.arange(27), [ord(c) - A for c in (*VOWELS, "y")])
    spoken = np.zeros(len(codes), np.bool_)
    for letter in letters[1:-1]:
        spoken |= vowels[letter]
    return found & spoken
