"""What a mark or a name comes to when it is heard, read and understood: its letters closed up, its
sounds, the words it stands for, each whole and of the part alone that distinguishes it.
"""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from functools import cache
from importlib.resources import files
from typing import Final, NamedTuple

from vinetag.core.lexicon import Lexicon
from vinetag.core.lexicon.segment import segment
from vinetag.core.lexicon.sounds import VOWELS
from vinetag.core.names import folded
from vinetag.core.vet.marks.classes import class_words

__all__ = ["PHONES", "FormMaker", "Forms", "phones_in"]

LONGEST: Final = 120
MOST_REMEMBERED: Final = 400_000
BEAM: Final = 2
FEWEST_LETTERS: Final = 3
# A word this common in English is read as English, whatever it is elsewhere.
PLAIN_ENGLISH: Final = 3.4
# Words that tell how somebody trades, not who they are.
FORMS_OF_TRADE: Final = frozenset(
    "the and of for a an by de la le company co inc incorporated ltd limited llc plc gmbh ag sa "
    "srl bv oy ab group holding holdings global international worldwide services service shop "
    "store studio works house online digital web app systems solutions media design designs "
    "products product brand brands official original best new pro plus club supply supplies "
    "trading goods market partners associates brothers sons daughters hq cooperative".split()
)
# One character a sound, so that sounds can be compared as letters are.
PHONES: Final = dict(
    zip(
        (
            "AA AE AH AO AW AY EH ER EY IH IY OW OY UH UW B CH D DH F G HH JH K L M N NG P R S SH "
            "T TH V W Y Z ZH"
        ).split(),
        "aeuoAIERYijOWvUBCDdFGHJKLMNnPrSsTtVwyZz",
        strict=True,
    )
)
VOWEL_SIGNS: Final = frozenset(PHONES[vowel] for vowel in VOWELS)


@cache
def translated() -> Mapping[str, str]:
    """By words of other languages, what they mean in English: those many marks are made of."""
    text = files("vinetag.core.vet").joinpath("data/translated.tsv").read_text("ascii")
    found: dict[str, str] = {}
    for line in text.splitlines():
        english, others = line.split("\t")
        for word in others.split():
            found.setdefault(word, english)
    return found


class Forms(NamedTuple):
    """`letters` closed up, a to z and digits; `part`: of the words that distinguish; `sounds` and
    `part_sounds`: a character of PHONES each, digits as they are; `words`: all but words of trade,
    in their dictionary forms, in English and in order of the alphabet, "" where one is not known.
    """

    letters: str
    part: str
    sounds: str
    part_sounds: str
    words: str


def phones_in(signs: str) -> tuple[str, ...]:
    """The phones of signs, digits left out."""
    names = {sign: phone for phone, sign in PHONES.items()}
    return tuple(names[sign] for sign in signs if sign in names)


class FormMaker:
    """Makes forms; sounds of words are remembered."""

    def __init__(self, lexicon: Lexicon) -> None:
        self._lexicon = lexicon
        self._sounds: dict[str, str] = {}

    def of_text(self, text: str, classes: Collection[int] = ()) -> Forms | None:
        """Of a mark as registered, in such classes; None where it has nothing in a to z or
        digits. Of very long ones the first LONGEST characters.
        """
        plain = folded(text[:LONGEST].replace("&", " and ")).replace("'", "")
        tokens = "".join(c if c.isascii() and c.isalnum() else " " for c in plain).split()
        words = [word for token in tokens for word in self._taken_apart(token)]
        return self.of_words(words, classes) if words else None

    def of_words(self, words: Sequence[str], classes: Collection[int] = ()) -> Forms:
        """Of words in a to z and digits."""
        merely = FORMS_OF_TRADE | class_words(frozenset(classes))
        lemma = self._lexicon.lemma
        part = [w for w in words if w not in merely and lemma(w) not in merely]
        named = [w for w in words if w not in FORMS_OF_TRADE] or list(words)
        if sum(map(len, part)) < FEWEST_LETTERS:
            part = named
        meant = [self._meant(word) for word in named]
        # A house is no name in any language.
        meant = [word for word in meant if word not in FORMS_OF_TRADE] or meant
        return Forms(
            "".join(words),
            "".join(part),
            self._said(words),
            self._said(part),
            " ".join(sorted(meant)) if all(meant) else "",
        )

    def _meant(self, word: str) -> str:
        """Its dictionary form, of another tongue in English; "" where it is not known."""
        own = self._lexicon.words.get(word)
        other = translated().get(word, "")
        plain = own is not None and own.pos and own.field != "name" and own.zipf >= PLAIN_ENGLISH
        if other and not plain:
            return other
        return self._lexicon.lemma(word) or word if own else ""

    def _taken_apart(self, token: str) -> list[str]:
        if token in self._lexicon.words or len(token) < 6 or not token.isalpha():
            return [token]
        words = segment(token, self._lexicon)
        known = all(len(w) > 2 and w in self._lexicon.words for w in words)
        return words if known else [token]

    def _said(self, words: Sequence[str]) -> str:
        return "".join(map(self.sounds, words))

    def sounds(self, word: str) -> str:
        """A word's sounds by the dictionary, or by the model of letters and sounds."""
        known = self._sounds.get(word)
        if known is None:
            if len(self._sounds) >= MOST_REMEMBERED:
                self._sounds.clear()
            known = self._sounds[word] = self._heard(word)
        return known

    def _heard(self, word: str) -> str:
        if not word.isalpha():
            return "".join(c for c in word if c.isdigit()) or word
        phones: Sequence[str] = self._lexicon.sounds.phones(word)
        if not phones:
            said = self._lexicon.graphones.say(word, beam=BEAM, most=1)
            phones = [p.rstrip("012") for p in said[0].phones] if said else ()
        return "".join(PHONES[phone] for phone in phones)
