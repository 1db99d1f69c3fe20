"""Train the joint model of letters and sounds (vinetag/core/lexicon/graphones.py).

    python scripts/build_graphones.py

Run it after scripts/build_lexicon.py: it reads the pronunciations in vinetag/core/lexicon/data and
writes graphones.npz beside them. Every tenth word, by a checksum of its letters, is left out, so
that scripts/eval_sounds.py can judge what is shipped.
"""

from __future__ import annotations

import math
from collections import Counter, defaultdict
from collections.abc import Iterable, Mapping, Sequence
from pathlib import Path

import numpy as np
from build_pairing import note_sources

from vinetag.core.lexicon import load_lexicon
from vinetag.core.lexicon.graphones import ORDER, held_out

OUT = Path(__file__).resolve().parent.parent / "vinetag/core/lexicon/data/graphones.npz"
SIZES = ((1, 1), (2, 1), (3, 1), (4, 1), (1, 2), (2, 2))
ROUNDS = 4
LEAST = 3
UNSEEN = -14.0
A_SIZE = {(1, 1): 0.0, (2, 1): -0.5, (3, 1): -1.5, (4, 1): -2.5, (1, 2): -2.0, (2, 2): -2.5}
VOWELS, VOWEL_SOUNDS = set("aeiouy"), set("AEIOU")

Unit = tuple[str, str]


def start(letters: str, sounds: str) -> float:
    """What a unit is worth before anything was counted: vowels spell vowels."""
    value = A_SIZE[len(letters), len(sounds.split())] * 2
    spoken = sounds[0] in VOWEL_SOUNDS
    if spoken != bool(VOWELS & set(letters)):
        value -= 6
    first = {"k": "K", "c": "KS", "g": "GJ", "j": "J", "q": "K", "x": "KZ", "h": "H", "w": "WR"}
    if not spoken and sounds[0] not in first.get(letters[0], letters[0].upper()):
        value -= 3
    return value


def match(word: str, phones: Sequence[str], worth: Mapping[Unit, float]) -> list[Unit]:
    """The best split of a word and its sounds into units, [] when there is none (Viterbi)."""
    best: dict[tuple[int, int], tuple[float, int, int]] = {(0, 0): (0.0, 0, 0)}
    for i in range(len(word)):
        for j in range(len(phones)):
            if (i, j) not in best:
                continue
            base = best[i, j][0]
            for m, n in SIZES:
                end = (i + m, j + n)
                if end[0] > len(word) or end[1] > len(phones):
                    continue
                unit = (word[i : end[0]], " ".join(phones[j : end[1]]))
                value = base + worth.get(unit, UNSEEN + start(*unit))
                if end not in best or value > best[end][0]:
                    best[end] = (value, i, j)
    at = (len(word), len(phones))
    units: list[Unit] = []
    if at not in best:
        return units
    while at != (0, 0):
        _, i, j = best[at]
        units.append((word[i : at[0]], " ".join(phones[j : at[1]])))
        at = (i, j)
    return units[::-1]


def align(words: Mapping[str, Sequence[str]]) -> dict[str, list[Unit]]:
    """Viterbi training; units met fewer than LEAST times are given up, with their words."""
    worth: dict[Unit, float] = {}
    for word, phones in words.items():
        for i in range(len(word)):
            for m, n in SIZES:
                for j in range(max(0, i - 3), min(len(phones), i + 3)):
                    if i + m <= len(word) and j + n <= len(phones):
                        unit = (word[i : i + m], " ".join(phones[j : j + n]))
                        worth.setdefault(unit, start(*unit))
    matched: dict[str, list[Unit]] = {}
    for _ in range(ROUNDS):
        matched = {w: match(w, phones, worth) for w, phones in words.items()}
        counts = Counter(unit for units in matched.values() for unit in units)
        by_sound: Counter[str] = Counter()
        for (_, sounds), n in counts.items():
            by_sound[sounds] += n
        total = sum(counts.values())
        worth = {
            u: 0.5 * math.log(n / by_sound[u[1]])
            + 0.5 * math.log(n / total)
            + A_SIZE[len(u[0]), len(u[1].split())]
            for u, n in counts.items()
        }
    usual = {u for u, n in counts.items() if n >= LEAST}
    return {w: units for w, units in matched.items() if units and usual.issuperset(units)}


def grams(rows: Iterable[Sequence[int]]) -> list[dict[tuple[int, ...], Counter[int]]]:
    """By order, from 0: history -> how often each unit came next."""
    counts: list[dict[tuple[int, ...], Counter[int]]] = [defaultdict(Counter) for _ in range(ORDER)]
    for row in rows:
        padded = [0] * (ORDER - 1) + list(row) + [0]
        for at in range(ORDER - 1, len(padded)):
            for order in range(ORDER):
                counts[order][tuple(padded[at - order : at])][padded[at]] += 1
    return counts


def main() -> None:
    lexicon = load_lexicon()
    spoken = {
        word: [p.replace("2", "1") for p in lexicon.sounds.marked(word)]
        for word in lexicon.sounds.words()
        if word.isalpha() and not held_out(word)
    }
    matched = align(spoken)
    inventory = sorted({u for units in matched.values() for u in units})
    place = {u: i + 1 for i, u in enumerate(inventory)}
    size = len(inventory) + 1
    saved: dict[str, np.ndarray] = {
        "letters": np.array(["", *(u[0] for u in inventory)]),
        "sounds": np.array(["", *(u[1] for u in inventory)]),
    }
    lower: dict[tuple[int, ...], dict[int, float]] = {}
    for order, level in enumerate(grams([place[u] for u in m] for m in matched.values())):
        keys, values, backs, weights = [], [], [], []
        here: dict[tuple[int, ...], dict[int, float]] = {}
        for history, nexts in sorted(level.items()):
            total, kinds = sum(nexts.values()), len(nexts)
            share = lower.get(history[1:], {})
            here[history] = {
                unit: (n + kinds * (share[unit] if order else 1 / size)) / (total + kinds)
                for unit, n in nexts.items()
            }
            if order == ORDER - 1 and total == 1:
                continue  # a long history met once says no more than the shorter one does
            code = 0
            for unit in history:
                code = code * size + unit
            backs.append(code)
            weights.append(math.log(kinds / (total + kinds)))
            for unit, value in sorted(here[history].items()):
                keys.append(code * size + unit)
                values.append(math.log(value))
        lower = here
        saved[f"keys{order}"] = np.array(keys, np.int64)
        saved[f"values{order}"] = np.array(values, np.float16)
        saved[f"backs{order}"] = np.array(backs, np.int64)
        saved[f"weights{order}"] = np.array(weights, np.float16)
    np.savez_compressed(OUT, **saved)
    note_sources()
    print(f"{len(matched):,} of {len(spoken):,} words, {len(inventory)} units")


if __name__ == "__main__":
    main()
