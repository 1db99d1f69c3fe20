"""How words are said (CMU Pronouncing Dictionary), and how sounds are spelt."""

from __future__ import annotations

import gzip
import itertools
from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from functools import cached_property, lru_cache
from importlib.resources import files
from typing import Final

import numpy as np
import numpy.typing as npt

__all__ = ["VOWELS", "Phonotactics", "Sayable", "Sounds", "Spellings", "as_heard", "bare"]

_DATA = files("vinetag.core.lexicon").joinpath("data")
VOWELS = frozenset("AA AE AH AO AW AY EH ER EY IH IY OW OY UH UW".split())
# How a sound is written for people who do not read phonetic script.
PLAIN: Final[Mapping[str, str]] = {
    "AA": "ah", "AE": "a", "AH": "u", "AO": "aw", "AW": "ow", "EH": "e", "ER": "er",
    "AY": "y", "EY": "ay", "IH": "i", "IY": "ee", "OW": "oh", "OY": "oy", "UH": "oo", "UW": "oo",
    "HH": "h", "DH": "th", "NG": "ng", "JH": "j",
}  # fmt: skip
NO_STRESS: Final = str.maketrans("", "", "012")
ALPHABET = 27
ORDER = 4
END = 0


@lru_cache(60_000)
def bare(phones: tuple[str, ...]) -> tuple[str, ...]:
    """The phones without stress marks."""
    return tuple(p.rstrip("012") for p in phones)


# Consonants that begin a syllable together.
ONSETS: Final = frozenset(
    f"{first} {second}"
    for firsts, seconds in (
        ("P B T D K G F TH SH", "R"), ("P B K G F S", "L"), ("S", "P T K M N W"), ("T D K", "W"),
    )
    for first in firsts.split()
    for second in seconds.split()
)  # fmt: skip


@lru_cache(60_000)
def as_heard(phones: tuple[str, ...]) -> str:
    """Phones as plain letters, syllable by syllable: "le-ter-press". As many consonants as can
    begin a word together go with the vowel after them.
    """
    plain = bare(phones)
    vowels = [i for i, p in enumerate(plain) if p in VOWELS]
    cuts = set()
    for one, two in itertools.pairwise(vowels):
        together = two - one > 2 and " ".join(plain[two - 2 : two]) in ONSETS
        cuts.add(two - 2 if together else max(one + 1, two - 1))
    written = []
    for i, phone in enumerate(plain):
        written.append("-" if i in cuts else "")
        last = i + 1 == len(plain) or i + 1 in cuts
        if phone == "AY" and (i == 0 or i in cuts):
            written.append("eye")
        elif phone == "AH" and last:
            written.append("uh")
        elif phone == "AO" and plain[i + 1 : i + 2] == ("R",):
            written.append("o")
        else:
            written.append(PLAIN.get(phone, phone.lower()))
    return "".join(written)


class Phonotactics:
    """A trigram model of English sounds, trained on a pronouncing dictionary (interpolated after
    Witten and Bell, 1991). Words kept back for judging are left out.
    """

    def __init__(self, words: Iterable[str]) -> None:
        """`words` are pronunciations: phones with spaces between them, with or without stress."""
        text = " # # # ".join(words).translate(NO_STRESS)
        phones = ["#", "#", *text.split(), "#"]
        self._place = {"#": END}
        codes = np.array([self._place.setdefault(p, len(self._place)) for p in phones], np.int64)
        size = len(self._place)
        grams = (codes[:-2] * size + codes[1:-1]) * size + codes[2:]
        counts = np.bincount(grams, minlength=size**3).reshape((size,) * 3)
        counts[1:, END] = 0
        counts[END, END, END] = 0
        self._log: list[list[list[float]]] = np.log2(_interpolated(counts)).tolist()

    def steps(self, phones: Sequence[str]) -> list[float]:
        """log2 probability of each phone (without stress), and of the end, after the two before."""
        codes = [END, END, *(self._place.get(p, END) for p in phones), END]
        return [self._log[codes[i]][codes[i + 1]][codes[i + 2]] for i in range(len(codes) - 2)]


class Sounds:
    """Pronunciations by word, as ARPAbet phones."""

    @cached_property
    def _lines(self) -> Mapping[str, str]:
        text = gzip.decompress(_DATA.joinpath("sounds.tsv.gz").read_bytes()).decode("ascii")
        return dict(line.split("\t") for line in text.split("\n"))

    def __contains__(self, word: str) -> bool:
        return word in self._lines

    def said(self, word: str) -> str:
        """The phones of a word, with stress and with spaces between. Raises KeyError."""
        return self._lines[word]

    def words(self) -> Sequence[str]:
        """Every word with a known pronunciation."""
        return list(self._lines)

    def phones(self, word: str) -> tuple[str, ...]:
        """Phones without stress; () for a word that is not in the dictionary."""
        return tuple(self._lines.get(word, "").translate(NO_STRESS).split())

    @cached_property
    def _alike(self) -> Mapping[str, list[str]]:
        found: dict[str, list[str]] = defaultdict(list)
        for word, line in self._lines.items():
            found[line.translate(NO_STRESS)].append(word)
        return found

    def alike(self, phones: tuple[str, ...]) -> Sequence[str]:
        """The dictionary's words that sound so, stress apart."""
        return self._alike.get(" ".join(bare(phones)), ())

    def marked(self, word: str) -> tuple[str, ...]:
        """Phones with stress marks on vowels (0 none, 1 first, 2 second); () when unknown."""
        return tuple(self._lines.get(word, "").split())

    def syllables(self, word: str) -> int:
        """How many; 0 when it is not known."""
        return sum(p[-1] in "012" for p in self._lines.get(word, "").split())


class Spellings:
    """How often letters spell a sound, by place in the word, counted on an aligned dictionary."""

    @cached_property
    def _ways(self) -> Mapping[tuple[str, str], Mapping[str, float]]:
        counts: dict[tuple[str, str], dict[str, int]] = defaultdict(dict)
        for line in _DATA.joinpath("spellings.tsv").read_text("ascii").split("\n"):
            if line:
                place, phones, letters, count = line.split("\t")
                counts[place, phones][letters] = int(count)
        return {
            key: {letters: n / sum(found.values()) for letters, n in found.items()}
            for key, found in counts.items()
        }

    def ways(self, phones: str, place: str) -> Mapping[str, float]:
        """letters -> share of the sound's spellings at a place: ^ first, - between, $ last."""
        return self._ways.get((place, phones), {})

    @cached_property
    def _sounds(self) -> Mapping[tuple[str, str], Mapping[str, float]]:
        found: dict[tuple[str, str], dict[str, float]] = defaultdict(dict)
        for (place, phones), ways in self._ways.items():
            for letters, share in ways.items():
                found[place, letters][phones] = share
        return found

    def aligned(self, word: str, phones: Sequence[str]) -> list[tuple[str, str]]:
        """(letters, phones) chunk by chunk, the likeliest match; [] when there is none."""
        best: dict[tuple[int, int], tuple[float, int, int]] = {(0, 0): (1.0, 0, 0)}
        for i in range(len(word)):
            for j in range(len(phones) + 1):
                if (i, j) not in best:
                    continue
                for length in range(1, min(4, len(word) - i) + 1):
                    end = i + length
                    place = "^" if i == 0 else "$" if end == len(word) else "-"
                    for sounds, share in self._sounds.get((place, word[i:end]), {}).items():
                        wanted = sounds.split()
                        stop = j + len(wanted)
                        if list(phones[j:stop]) == wanted:
                            value = best[i, j][0] * max(share, 1e-4)
                            if value > best.get((end, stop), (0.0, 0, 0))[0]:
                                best[end, stop] = (value, i, j)
        at = (len(word), len(phones))
        if at not in best:
            return []
        chunks = []
        while at != (0, 0):
            _, i, j = best[at]
            chunks.append((word[i : at[0]], " ".join(phones[j : at[1]])))
            at = (i, j)
        return chunks[::-1]


class Sayable:
    """A letter 4-gram model of English spelling, trained on the words of a pronouncing dictionary
    (interpolated after Witten and Bell, 1991).
    """

    def __init__(self, words: Sequence[str]) -> None:
        text = "".join("{{{" + word + "{" for word in words).encode("ascii")
        codes = (np.frombuffer(text, np.uint8).astype(np.int64) - 96) % ALPHABET
        grams = np.zeros(len(codes) - ORDER + 1, np.int64)
        for offset in range(ORDER):
            grams = grams * ALPHABET + codes[offset : offset + len(grams)]
        counts = np.bincount(grams, minlength=ALPHABET**ORDER).reshape((ALPHABET,) * ORDER)
        # A gram that runs over the end of one word into the next says nothing.
        counts[1:, END] = 0
        counts[:, 1:, END] = 0
        counts[END, END, END, END] = 0
        self._log = np.log2(_interpolated(counts)).astype(np.float32)
        self._flat = self._log.reshape(-1).data

    def steps(self, word: str) -> list[float]:
        """log2 probability of each letter, and of the end, after the three before it."""
        found: list[float] = []
        place = END
        for code in (*(ord(c) - 96 for c in word), END):
            place = place % ALPHABET**3 * ALPHABET + code
            found.append(self._flat[place])
        return found

    def score(self, word: str) -> float:
        """Mean and worst transition together, in bits below zero: about -3 for an English word,
        under -6 for what cannot be said. Letters a to z only.
        """
        steps = self.steps(word)
        return 0.6 * sum(steps) / len(steps) + 0.4 * min(steps) / 2.5

    def next_letters(self, before: str) -> npt.NDArray[np.float32]:
        """Probability of each letter a to z, after the end of the word in place 0."""
        codes = ([END] * 3 + [ord(c) - 96 for c in before])[-3:]
        shares: npt.NDArray[np.float32] = np.exp2(self._log[tuple(codes)])
        return shares


def _interpolated(counts: npt.NDArray[np.int64]) -> npt.NDArray[np.float64]:
    """Witten-Bell: each order leans on the shorter one by how many different letters followed."""
    levels = [counts.astype(float)]
    for _ in range(counts.ndim - 1):
        levels.append(levels[-1].sum(axis=0))
    lower: npt.NDArray[np.float64] = (levels[-1] + 0.5) / (levels[-1].sum() + 0.5 * len(counts))
    for level in levels[-2::-1]:
        total = level.sum(axis=-1, keepdims=True)
        kinds = (level > 0).sum(axis=-1, keepdims=True)
        lower = (level + kinds * lower + 1e-9) / (total + kinds + 1e-9 * len(counts))
    return lower
