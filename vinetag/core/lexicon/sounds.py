"""How words are said (CMU Pronouncing Dictionary), and how sounds are spelt."""

from __future__ import annotations

import gzip
from collections import defaultdict
from collections.abc import Mapping, Sequence
from functools import cached_property
from importlib.resources import files

import numpy as np
import numpy.typing as npt

__all__ = ["Sayable", "Sounds", "Spellings"]

_DATA = files("vinetag.core.lexicon").joinpath("data")
VOWELS = frozenset("AA AE AH AO AW AY EH ER EY IH IY OW OY UH UW".split())
ALPHABET = 27
ORDER = 4
END = 0


class Sounds:
    """Pronunciations by word, as ARPAbet phones."""

    @cached_property
    def _lines(self) -> Mapping[str, str]:
        text = gzip.decompress(_DATA.joinpath("sounds.tsv.gz").read_bytes()).decode("ascii")
        return dict(line.split("\t") for line in text.split("\n"))

    def __contains__(self, word: str) -> bool:
        return word in self._lines

    def words(self) -> Sequence[str]:
        """Every word with a known pronunciation."""
        return list(self._lines)

    def phones(self, word: str) -> tuple[str, ...]:
        """Phones without stress; () for a word that is not in the dictionary."""
        return tuple(p.rstrip("012") for p in self._lines.get(word, "").split())

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

    def transitions(self, word: str) -> npt.NDArray[np.float32]:
        """log2 probability of each letter, and of the end, after the three before it."""
        codes = [END] * 3 + [ord(c) - 96 for c in word] + [END]
        return np.array(
            [self._log[tuple(codes[i : i + ORDER])] for i in range(len(codes) - 3)], np.float32
        )

    def score(self, word: str) -> float:
        """Mean and worst transition together, in bits below zero: about -3 for an English word,
        under -6 for what cannot be said. Letters a to z only.
        """
        steps = self.transitions(word)
        return float(0.6 * steps.mean() + 0.4 * steps.min() / 2.5)

    def next_letters(self, before: str) -> npt.NDArray[np.float32]:
        """Probability of each letter a to z, after the end of the word in place 0."""
        codes = ([END] * 3 + [ord(c) - 96 for c in before])[-3:]
        shares: npt.NDArray[np.float32] = np.exp2(self._log[tuple(codes)])
        return shares


def _interpolated(counts: npt.NDArray[np.int64]) -> npt.NDArray[np.float64]:
    """Witten-Bell: each order leans on the shorter one by how many different letters followed."""
    levels = [counts.astype(float)]
    for _ in range(ORDER - 1):
        levels.append(levels[-1].sum(axis=0))
    lower: npt.NDArray[np.float64] = (levels[-1] + 0.5) / (levels[-1].sum() + 0.5 * ALPHABET)
    for level in levels[-2::-1]:
        total = level.sum(axis=-1, keepdims=True)
        kinds = (level > 0).sum(axis=-1, keepdims=True)
        lower = (level + kinds * lower + 1e-9) / (total + kinds + 1e-9 * ALPHABET)
    return lower
