"""Letters and sounds together: how a word may be said, and how sounds may be written."""

from __future__ import annotations

import math
import zlib
from collections import defaultdict
from collections.abc import Mapping, Sequence
from typing import Any, NamedTuple

import numpy as np
import numpy.typing as npt

__all__ = ["ORDER", "Graphones", "Said", "Unit", "held_out"]

ORDER = 4
LONGEST = 4
WORST = 5.0
MOST_REMEMBERED = 600_000
END = 0


class Said(NamedTuple):
    """One way to say a word: its phones (ARPAbet, vowels with 0 or 1 for stress), and the share of
    readers who would say it so, 0 to 1.
    """

    phones: tuple[str, ...]
    share: float


class Unit(NamedTuple):
    """Letters with their sound in a word, from the letter at `start`. `share`: how many writers
    would choose these letters, 0 to 1; `others`: what the rest would write, likeliest first.
    """

    letters: str
    sound: str
    start: int
    share: float
    others: tuple[tuple[str, float], ...]


def held_out(word: str) -> bool:
    """Whether a word is kept from training, to judge the model by."""
    return zlib.crc32(word.encode("ascii")) % 10 == 0


class Graphones:
    """An n-gram model over units of letters with their sounds, trained on an aligned pronouncing
    dictionary and interpolated after Witten and Bell. One model serves both ways: from letters to
    sounds and from sounds to letters (M. Bisani and H. Ney, Joint-sequence models for
    grapheme-to-phoneme conversion, 2008).
    """

    def __init__(self, saved: Mapping[str, npt.NDArray[Any]]) -> None:
        self.letters: list[str] = saved["letters"].tolist()
        self.sounds: list[str] = saved["sounds"].tolist()
        self._size = len(self.letters)
        self._values: list[dict[int, float]] = []
        self._backs: list[dict[int, float]] = []
        for order in range(ORDER):
            values = saved[f"values{order}"].astype(np.float32).tolist()
            weights = saved[f"weights{order}"].astype(np.float32).tolist()
            self._values.append(dict(zip(saved[f"keys{order}"].tolist(), values, strict=True)))
            self._backs.append(dict(zip(saved[f"backs{order}"].tolist(), weights, strict=True)))
        self._sounds_of = [tuple(sounds.split()) for sounds in self.sounds]
        self._by_letters: dict[str, list[int]] = defaultdict(list)
        self._by_sounds: dict[tuple[str, ...], list[int]] = defaultdict(list)
        for unit in range(1, self._size):
            self._by_letters[self.letters[unit]].append(unit)
            self._by_sounds[self._sounds_of[unit]].append(unit)
        self._span = self._size ** (ORDER - 2)
        self._memo: dict[int, float] = {}

    def _log(self, history: int, unit: int) -> float:
        """Natural log of the unit's probability after the units before it (ORDER - 1 of them in one
        number), by backing off.
        """
        key = history * self._size + unit
        value = self._memo.get(key)
        if value is None:
            if len(self._memo) > MOST_REMEMBERED:
                self._memo.clear()
            value = self._memo[key] = self._backed_off(history, unit, ORDER - 1)
        return value

    def _backed_off(self, history: int, unit: int, order: int) -> float:
        size, lost = self._size, 0.0
        for shorter in range(order, -1, -1):
            code = history % size**shorter
            value = self._values[shorter].get(code * size + unit)
            if value is not None:
                return lost + value
            lost += self._backs[shorter].get(code, 0.0)
        return lost - math.log(size)

    def _after(self, last: int, unit: int) -> float:
        """Natural log of the unit's probability after one other."""
        key = -1 - (last * self._size + unit)
        value = self._memo.get(key)
        if value is None:
            value = self._memo[key] = self._backed_off(last, unit, 1)
        return value

    def say(self, word: str, *, beam: int = 24, most: int = 8) -> list[Said]:
        """The likeliest ways to say a word of letters a to z, with their shares among all found;
        [] when it cannot be read at all.
        """
        steps = [
            [
                (unit, size)
                for size in range(1, min(LONGEST, len(word) - at) + 1)
                for unit in self._by_letters.get(word[at : at + size], ())
            ]
            for at in range(len(word))
        ]
        return [Said(tuple(t.split()), share) for t, share in self._search(steps, beam)[:most]]

    def units(self, word: str, phones: Sequence[str]) -> list[Unit]:
        """The word's letters matched to its phones, unit by unit, each with the other ways to write
        its sound there, weighed by the unit before and the unit after; [] when they do not match.
        """
        path = self._align(word, phones)
        found, at = [], 0
        for place, unit in enumerate(path):
            before = path[place - 1] if place else END
            after = path[place + 1] if place + 1 < len(path) else END
            weights = {
                other: math.exp(self._after(before, other) + self._after(other, after))
                for other in self._by_sounds[self._sounds_of[unit]]
            }
            whole = sum(weights.values())
            ranked = sorted(weights.items(), key=lambda w: (-w[1], w[0]))
            others = tuple((self.letters[u], w / whole) for u, w in ranked if u != unit)
            letters = self.letters[unit]
            found.append(Unit(letters, self.sounds[unit], at, weights[unit] / whole, others))
            at += len(letters)
        return found

    def _align(self, word: str, phones: Sequence[str]) -> tuple[int, ...]:
        """The likeliest units that give both the letters and the phones (Viterbi on bigrams)."""
        best: dict[tuple[int, int], dict[int, tuple[float, tuple[int, ...]]]] = {
            (0, 0): {END: (0.0, ())}
        }
        for i in range(len(word)):
            for j in range(len(phones)):
                front = best.get((i, j))
                if not front:
                    continue
                for size in range(1, min(LONGEST, len(word) - i) + 1):
                    for unit in self._by_letters.get(word[i : i + size], ()):
                        sounds = self._sounds_of[unit]
                        if tuple(phones[j : j + len(sounds)]) != sounds:
                            continue
                        value, path = max(
                            (v + self._after(last, unit), p) for last, (v, p) in front.items()
                        )
                        here = best.setdefault((i + size, j + len(sounds)), {})
                        if unit not in here or value > here[unit][0]:
                            here[unit] = (value, (*path, unit))
        done = best.get((len(word), len(phones)))
        return max(done.values())[1] if done else ()

    def _search(
        self, steps: Sequence[Sequence[tuple[int, int]]], beam: int
    ) -> list[tuple[str, float]]:
        """Phones with their shares by beam search; paths that sound the same count together."""
        emit = self.sounds
        end, memo, size, span = len(steps), self._memo, self._size, self._span
        fronts: list[list[tuple[float, int, str]]] = [[] for _ in range(end + 1)]
        fronts[0].append((0.0, 0, ""))
        for at, units in enumerate(steps):
            front = sorted(fronts[at], reverse=True)[:beam]
            if not front:
                continue
            floor = front[0][0] - WORST
            for value, history, text in front:
                if value < floor:
                    break
                start, kept = history * size, history % span * size
                for unit, long in units:
                    if at + long <= end:
                        gain = memo.get(start + unit)
                        if gain is None:
                            gain = self._log(history, unit)
                        fronts[at + long].append(
                            (value + gain, kept + unit, text + " " + emit[unit])
                        )
        shares: dict[str, float] = defaultdict(float)
        done = [(text, value + self._log(history, END)) for value, history, text in fronts[end]]
        top = max((value for _, value in done), default=0.0)
        for text, value in done:
            shares[text] += math.exp(value - top)
        whole = sum(shares.values())
        return sorted(((t, s / whole) for t, s in shares.items()), key=lambda f: (-f[1], f[0]))
