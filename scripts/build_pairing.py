"""Train the model of which word goes in front of which, and how pleasant words are.

    pip download --no-deps vaderSentiment==3.3.2      # unpack it with unzip
    python scripts/build_pairing.py --valence vaderSentiment/vader_lexicon.txt
    python scripts/build_pairing.py --evaluate        # judge what is shipped, train nothing

Run it after scripts/build_lexicon.py; both write into vinetag/core/lexicon/data. Training uses four
fifths of the pairs, chosen by a checksum of their letters; the area under the curve printed is of
the last fifth, against four kinds of false pairs, beside the likeness of the vectors alone.
"""

from __future__ import annotations

import argparse
import hashlib
import json
import zlib
from collections.abc import Mapping
from pathlib import Path

import numpy as np
import numpy.typing as npt

from vinetag.core.lexicon import Lexicon, load_lexicon
from vinetag.core.lexicon.pairing import FEATURES, LETTERS, Pairing

OUT = Path(__file__).resolve().parent.parent / "vinetag/core/lexicon/data"
EPOCHS, RATE, DECAY, BATCH = 8, 0.01, 1e-4, 1024
NEIGHBOURS = 25
COMPOUND = 0.45
NEAREST = 50
RIDGE = 20.0
VADER = {
    "name": "VADER lexicon (vaderSentiment)",
    "version": "3.3.2",
    "licence": "MIT",
    "files": ["valence.tsv"],
}

Ints = npt.NDArray[np.int64]
Floats = npt.NDArray[np.float32]


def real_pairs(lexicon: Lexicon) -> list[tuple[str, str]]:
    """Two-word nouns of the dictionary, and closed compounds close in meaning to their halves."""
    words, found = lexicon.words, set()
    for entry in lexicon.thesaurus.phrases():
        first, _, second = entry.partition(" ")
        usable = all(w in words and words[w].pos and len(w) > 2 for w in (first, second))
        if usable and lexicon.thesaurus.senses(entry)[0].pos == "n":
            found.add((first, second))
    for text, word in words.items():
        if word.pos[:1] != "n" or word.lemma or not 6 <= len(text) <= 14:
            continue
        for cut in range(3, len(text) - 2):
            halves = text[:cut], text[cut:]
            usual = all(h in words and words[h].pos and words[h].zipf >= 3.2 for h in halves)
            if usual and sum(lexicon.likeness(text, halves)) > COMPOUND:
                found.add(halves)
                break
    return sorted(found)


def held_out(pair: tuple[str, str]) -> bool:
    return zlib.crc32(" ".join(pair).encode()) % 5 == 0


def auc(real: Floats, false: Floats) -> float:
    """Area under the curve: how often a real pair scores above a false one."""
    ranks = np.concatenate([real, false]).argsort().argsort() + 1.0
    over = ranks[: len(real)].sum() - len(real) * (len(real) + 1) / 2
    return round(float(over / (len(real) * len(false))), 3)


class Trainer:
    def __init__(self, lexicon: Lexicon) -> None:
        self.texts = list(lexicon.words)
        self.known = list(lexicon.words.values())
        self.vectors = lexicon.vectors(self.texts)
        self.fields = sorted({w.field for w in self.known})
        where = {f: i for i, f in enumerate(self.fields)}
        self.field = np.array([where[w.field] for w in self.known])
        named = [w.pos[:1] for w in self.known]
        self.pos = np.array([LETTERS.index(p) if p and p in LETTERS else 4 for p in named])
        self.zipf = np.array([w.zipf / 5 for w in self.known], np.float32)
        usable = [bool(w.pos) and 2.6 <= w.zipf <= 6 for w in self.known]
        self.usable = np.flatnonzero(np.array(usable) & self.vectors.any(axis=1))
        self.chance = np.random.default_rng(1)
        pairs = real_pairs(lexicon)
        index = {t: i for i, t in enumerate(self.texts)}
        split = [(held_out(p), index[p[0]], index[p[1]]) for p in pairs]
        self.train = np.array([(a, b) for held, a, b in split if not held])
        self.test = np.array([(a, b) for held, a, b in split if held])
        self.counts = np.zeros((len(self.texts), 2), np.float32)
        np.add.at(self.counts[:, 0], self.train[:, 0], 1)
        np.add.at(self.counts[:, 1], self.train[:, 1], 1)
        n, k = self.vectors.shape[1], len(self.fields)
        shapes = {
            "cross": (n, n), "first": (n,), "second": (n,), "by_field": (k, k), "by_pos": (5, 5),
            "weights": (FEATURES,),
        }  # fmt: skip
        self.model = {name: np.zeros(shape, np.float32) for name, shape in shapes.items()}

    def kinds(self, pairs: Ints) -> dict[str, tuple[Ints, Ints]]:
        """The real pairs and six kinds of false ones."""
        one, two = pairs[:, 0], pairs[:, 1]
        shuffle, some = self.chance.permutation, self.chance.choice
        return {
            "real": (one, two),
            "another second word": (one, shuffle(two)),
            "another first word": (shuffle(one), two),
            "any word behind": (one, some(self.usable, len(one))),
            "any word in front": (some(self.usable, len(one)), two),
            "turned round": (two, one),
            "the same kind beside it": (one, self._neighbours(one)),
        }

    def _neighbours(self, words: Ints) -> Ints:
        distinct, inverse = np.unique(words, return_inverse=True)
        among = self.vectors[self.usable]
        near = [
            self.usable[np.argpartition(-self.vectors[part] @ among.T, NEIGHBOURS)[:, :NEIGHBOURS]]
            for part in np.array_split(distinct, 1 + len(distinct) // 2_000)
        ]
        return np.concatenate(near)[inverse, self.chance.integers(0, NEIGHBOURS, len(words))]

    def features(self, one: Ints, two: Ints, itself: float) -> Floats:
        """What weights act on; `itself` leaves a training pair out of its own counts."""
        before = np.maximum(self.counts[one, 0] - itself, 0)
        behind = np.maximum(self.counts[two, 1] - itself, 0)
        alike = (self.vectors[one] * self.vectors[two]).sum(1)
        columns = (
            np.ones(len(one)), np.log1p(behind), np.log1p(before), behind <= 0, before <= 0,
            self.zipf[one], self.zipf[two], alike,
        )  # fmt: skip
        return np.stack(columns, 1).astype(np.float32)

    def logits(self, one: Ints, two: Ints, features: Floats) -> Floats:
        m, v = self.model, self.vectors
        z: Floats = ((v[one] @ m["cross"]) * v[two]).sum(1)
        z += v[one] @ m["first"] + v[two] @ m["second"] + features @ m["weights"]
        z += m["by_field"][self.field[one], self.field[two]]
        z += m["by_pos"][self.pos[one], self.pos[two]]
        return z

    def fit(self) -> None:
        """Adam on the logistic loss."""
        mean = {k: np.zeros_like(p) for k, p in self.model.items()}
        square = {k: np.zeros_like(p) for k, p in self.model.items()}
        step = 0
        for epoch in range(EPOCHS):
            sets = self.kinds(self.train)
            one = np.concatenate([s[0] for s in sets.values()])
            two = np.concatenate([s[1] for s in sets.values()])
            real = np.arange(len(one)) < len(self.train)
            features = self.features(one, two, 0)
            features[real] = self.features(one[real], two[real], 1)
            order = self.chance.permutation(len(one))
            for at in range(0, len(order), BATCH):
                batch, step = order[at : at + BATCH], step + 1
                slopes = self._slopes(one[batch], two[batch], features[batch], real[batch])
                for name, slope in slopes.items():
                    mean[name] = 0.9 * mean[name] + 0.1 * slope
                    square[name] = 0.999 * square[name] + 0.001 * slope * slope
                    move = mean[name] / (1 - 0.9**step)
                    move /= np.sqrt(square[name] / (1 - 0.999**step)) + 1e-8
                    self.model[name] -= RATE * (1 - 0.9 * epoch / EPOCHS) * move

    def _slopes(self, one: Ints, two: Ints, features: Floats, real: Ints) -> dict[str, Floats]:
        error = 1 / (1 + np.exp(-self.logits(one, two, features))) - real
        error = (error / len(one)).astype(np.float32)
        v, m = self.vectors, self.model
        fields, parts = np.zeros_like(m["by_field"]), np.zeros_like(m["by_pos"])
        np.add.at(fields, (self.field[one], self.field[two]), error)
        np.add.at(parts, (self.pos[one], self.pos[two]), error)
        return {
            "cross": (v[one] * error[:, None]).T @ v[two] + DECAY * m["cross"],
            "first": v[one].T @ error,
            "second": v[two].T @ error,
            "by_field": fields + 3 * DECAY * m["by_field"],
            "by_pos": parts + DECAY * m["by_pos"],
            "weights": features.T @ error,
        }

    def judge(self) -> dict[str, dict[str, float]]:
        sets = self.kinds(self.test)
        z = {k: self.logits(a, b, self.features(a, b, 0)) for k, (a, b) in sets.items()}
        alike = {k: (self.vectors[a] * self.vectors[b]).sum(1) for k, (a, b) in sets.items()}
        return {
            name: {
                "model": auc(z["real"], z[name]),
                "vectors alone": auc(alike["real"], alike[name]),
            }
            for name in sets
            if name != "real"
        }

    def load(self, shipped: Pairing) -> None:
        self.model = {name: getattr(shipped, name) for name in self.model}
        self.counts = shipped.counts

    def crowd(self) -> Floats:
        """Mean cosine of each word's NEAREST nearest: words that are close to everything say little
        (cross-domain similarity local scaling: Conneau et al., Word translation without parallel
        data, 2018).
        """
        among = self.vectors[self.usable].T
        parts = np.array_split(self.vectors, 1 + len(self.vectors) // 2_000)
        near = np.concatenate(
            [np.partition(p @ among, -NEAREST, axis=1)[:, -NEAREST:].mean(axis=1) for p in parts]
        )
        crowd: Floats = np.where(self.vectors.any(axis=1), near, 1.0).astype(np.float32)
        return crowd

    def pleasant(self, valence: Mapping[str, float]) -> tuple[Floats, float]:
        """Ridge regression of the ratings on the vectors; and its correlation with the ratings of
        the held-out fifth.
        """
        where = {t: i for i, t in enumerate(self.texts)}
        held = np.array([zlib.crc32(w.encode()) % 5 == 0 for w in valence])
        rows = np.array([where[w] for w in valence])
        given = np.c_[self.vectors[rows], np.ones(len(rows))]
        rated = np.array(list(valence.values()))
        square = given[~held].T @ given[~held] + RIDGE * np.eye(given.shape[1])
        axis = np.linalg.solve(square, given[~held].T @ rated[~held])
        right = float(np.corrcoef(given[held] @ axis, rated[held])[0, 1])
        return axis.astype(np.float32), round(right, 3)

    def save(self, path: Path, valence: Mapping[str, float]) -> None:
        arrays = {k: v.astype(np.float16) for k, v in self.model.items()}
        counts = np.minimum(self.counts, 255).astype(np.uint8)
        arrays["crowd"] = self.crowd().astype(np.float16)
        arrays["pleasant"] = self.pleasant(valence)[0].astype(np.float16)
        np.savez_compressed(path, counts=counts, fields=np.array(self.fields), **arrays)


def write_valence(source: Path, lexicon: Lexicon) -> None:
    """Mean ratings of the words we have, -4 to 4, in tenths."""
    rows = (line.split("\t") for line in source.read_text("utf-8").splitlines())
    rated = sorted((r[0], round(10 * float(r[1]))) for r in rows if r[0] in lexicon.words)
    (OUT / "valence.tsv").write_text("".join(f"{w}\t{v}\n" for w, v in rated))


def note_sources() -> None:
    """Write the new files' digests beside the others, and where they come from."""
    path = OUT / "sources.json"
    document = json.loads(path.read_text("utf-8"))
    document["sources"] = [s for s in document["sources"] if s["name"] != VADER["name"]] + [VADER]
    for source in document["sources"]:
        if source["name"].startswith(("WordNet", "GloVe")):
            source["files"] = sorted({*source["files"], "pairing.npz"})
    document["sha256"] = {
        p.name: hashlib.sha256(p.read_bytes()).hexdigest()
        for p in sorted(OUT.glob("*.*"))
        if p.name != "sources.json"
    }
    path.write_text(json.dumps(document, indent=2) + "\n")


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.splitlines()[0])
    parser.add_argument("--valence", type=Path, help="vader_lexicon.txt")
    parser.add_argument("--evaluate", action="store_true")
    args = parser.parse_args()
    lexicon = load_lexicon()
    trainer = Trainer(lexicon)
    if args.evaluate:
        trainer.load(lexicon.pairing)
    elif args.valence:
        write_valence(args.valence, lexicon)
        trainer.fit()
        trainer.save(OUT / "pairing.npz", lexicon.valence)
        note_sources()
    else:
        parser.error("give --valence to build, or --evaluate")
    figures = {
        "pairs": len(trainer.train),
        "held_out": len(trainer.test),
        "auc": trainer.judge(),
        "correlation_with_held_out_valence": trainer.pleasant(lexicon.valence)[1],
    }
    print(json.dumps(figures))


if __name__ == "__main__":
    main()
