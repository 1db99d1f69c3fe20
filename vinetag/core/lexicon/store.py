"""The word data as the core asks for it, built by scripts/build_lexicon.py."""

from __future__ import annotations

import gzip
import io
import json
import re
from collections.abc import Callable, Mapping, Sequence
from functools import cache, cached_property, lru_cache
from importlib.resources import files
from typing import Any

import numpy as np
import numpy.typing as npt

from vinetag.core.lexicon.bank import Bank, read_bank
from vinetag.core.lexicon.graphones import Graphones, held_out
from vinetag.core.lexicon.meanings import Meanings
from vinetag.core.lexicon.pairing import Pairing, Side
from vinetag.core.lexicon.rarity import Rarity
from vinetag.core.lexicon.segment import LONGEST_WORD, word_cost
from vinetag.core.lexicon.sounds import Phonotactics, Sayable, Sounds, Spellings
from vinetag.core.lexicon.thesaurus import Compounds, Thesaurus
from vinetag.core.lexicon.word import Word

__all__ = ["Lexicon", "load_lexicon"]

_DATA = files("vinetag.core.lexicon").joinpath("data")
CROWD = 0.5


class Lexicon:
    """Read-only word data; each file is read when it is first asked for."""

    def __init__(self) -> None:
        self._read_followers: dict[str, Mapping[str, float]] = {}

    @cached_property
    def words(self) -> Mapping[str, Word]:
        """Every word known, commonest first."""
        found: dict[str, Word] = {}
        for line in _DATA.joinpath("words.tsv").read_text("ascii").split("\n"):
            if line:
                text, zipf, pos, lemma, field = line.split("\t")
                found[text] = Word(text, int(zipf) / 100, pos, lemma, field)
        return found

    @cached_property
    def reading_costs(self) -> Mapping[str, float]:
        """What it costs to read each word, in nats (vinetag.core.lexicon.segment)."""
        return {
            w.text: word_cost(w.text, w.zipf, known=bool(w.pos))
            for w in self.words.values()
            if len(w.text) <= LONGEST_WORD
        }

    @cached_property
    def homophones(self) -> Mapping[str, tuple[str, ...]]:
        """Words that sound the same, commonest first (CMU Pronouncing Dictionary)."""
        rows = (
            line.split("\t")
            for line in _DATA.joinpath("homophones.tsv").read_text("ascii").split("\n")
        )
        return {row[0]: tuple(row[1].split()) for row in rows if len(row) == 2}

    @cached_property
    def _pairs(self) -> Mapping[str, str]:
        text = gzip.decompress(_DATA.joinpath("pairs.tsv.gz").read_bytes()).decode("ascii")
        return dict(line.split("\t") for line in text.split("\n"))

    @cached_property
    def bank(self) -> Bank:
        """Words that lead or follow a keyword."""
        return read_bank(_DATA.joinpath("bank.txt").read_text("ascii"))

    @cached_property
    def thesaurus(self) -> Thesaurus:
        """Senses, relations and forms."""
        return Thesaurus()

    @cached_property
    def sounds(self) -> Sounds:
        """Pronunciations."""
        return Sounds()

    @cached_property
    def spellings(self) -> Spellings:
        """How sounds are spelt."""
        return Spellings()

    @cached_property
    def graphones(self) -> Graphones:
        """Letters and sounds of words nobody has listed."""
        with np.load(io.BytesIO(_DATA.joinpath("graphones.npz").read_bytes())) as saved:
            return Graphones(dict(saved))

    @cached_property
    def sayable(self) -> Sayable:
        """Which letters can follow which."""
        return Sayable(self._trained_on)

    @cached_property
    def phonotactics(self) -> Phonotactics:
        """Which sounds can follow which."""
        return Phonotactics(map(self.sounds.said, self._trained_on))

    @cached_property
    def _trained_on(self) -> Sequence[str]:
        common = (w for w in self.sounds.words() if self.words[w].zipf >= 2.5)
        return [w for w in common if w.isalpha() and not held_out(w)]

    @cached_property
    def rarity(self) -> Rarity:
        """How many words begin with, hold and end with letters."""
        return Rarity([w.text for w in self.words.values() if w.pos and w.zipf >= 2.5])

    @cached_property
    def compounds(self) -> Compounds:
        """Closed words made of two."""
        return Compounds([w.text for w in self.words.values() if w.pos and w.zipf >= 2.2])

    @cached_property
    def offensive(self) -> frozenset[str]:
        """Words nobody wants to find in a name."""
        return frozenset(_DATA.joinpath("offensive.txt").read_text("ascii").split())

    @cached_property
    def _unlucky(self) -> Mapping[str, frozenset[str]]:
        found: dict[str, set[str]] = {"word": set(), "seam": set()}
        for line in _DATA.joinpath("unlucky.txt").read_text("ascii").splitlines():
            if not line.startswith("#"):
                kind, _, words = line.partition(":")
                found[kind].update(words.split())
        return {kind: frozenset(words) for kind, words in found.items()}

    @property
    def unlucky_words(self) -> frozenset[str]:
        """Words that are rude, sick or grim where they are a word of a name."""
        return self._unlucky["word"]

    @cached_property
    def _rude(self) -> tuple[frozenset[str], re.Pattern[str]]:
        # Most names hold the beginning of no offensive word, which is quickly seen.
        rude = self.offensive | self._unlucky["seam"]
        words = "|".join(sorted(rude, key=len, reverse=True))
        return frozenset(w[:3] for w in rude), re.compile(f"(?=({words}))")

    @cached_property
    def rude_inside(self) -> Callable[[str], tuple[tuple[str, int], ...]]:
        """Of a label: every offensive word in its letters, and where it begins."""
        starts, pattern = self._rude

        @lru_cache(100_000)
        def inside(label: str) -> tuple[tuple[str, int], ...]:
            if any(label[i : i + 3] in starts for i in range(len(label) - 2)):
                return tuple((m.group(1), m.start()) for m in pattern.finditer(label))
            return ()

        return inside

    @cached_property
    def sources(self) -> Mapping[str, Any]:
        """Name, version and licence of every source."""
        document: Mapping[str, Any] = json.loads(_DATA.joinpath("sources.json").read_text("utf-8"))
        return document

    @cached_property
    def _vectors(self) -> tuple[Mapping[str, int], npt.NDArray[np.float32]]:
        rows = np.load(io.BytesIO(_DATA.joinpath("vectors.npy").read_bytes()))
        floats = rows.astype(np.float32)
        norms = np.linalg.norm(floats, axis=1, keepdims=True)
        floats /= np.where(norms == 0, 1, norms)
        return {word: i for i, word in enumerate(self.words)}, floats

    @cached_property
    def pairing(self) -> Pairing:
        """Which word goes in front of which."""
        with np.load(io.BytesIO(_DATA.joinpath("pairing.npz").read_bytes())) as saved:
            return Pairing(dict(saved))

    @cached_property
    def meanings(self) -> Meanings:
        """What words mean, for phrases and whole briefs."""
        words = self.words

        def zipf(word: str) -> float:
            return words[word].zipf if word in words else 1.6

        return Meanings(self.lemma, zipf)

    def lemma(self, word: str) -> str:
        """The word's dictionary form; itself when it is one, or nobody lists it."""
        known = self.words.get(word)
        return known.lemma if known and known.lemma else word

    def field(self, word: str) -> str:
        """What sort of thing the dictionary form of a word names (WordNet's lexicographer files:
        artifact, act, person …); "" for what names none, or nobody lists.
        """
        known = self.words.get(word)
        base = self.words.get(known.lemma, known) if known else None
        return base.field if base else ""

    @cached_property
    def valence(self) -> Mapping[str, float]:
        """How pleasant people rated a word, -4 to 4 (VADER); most words are not rated."""
        rows = _DATA.joinpath("valence.tsv").read_text("ascii").splitlines()
        return {word: int(tenths) / 10 for word, _, tenths in (r.partition("\t") for r in rows)}

    def pleasantness(self, words: Sequence[str]) -> npt.NDArray[np.float32]:
        """How pleasant each word is, -4 to 4: as people rated it, or as words like it were."""
        rated = [self.valence.get(w, np.nan) for w in words]
        axis = self.pairing.pleasant
        guess = self.vectors(words) @ axis[:-1] + axis[-1]
        filled: npt.NDArray[np.float32] = np.where(np.isnan(rated), guess, rated)
        return filled.astype(np.float32)

    def side(self, words: Sequence[str]) -> Side:
        """The words as `pairing` looks at them."""
        index, rows = self._vectors
        places = [index.get(w, -1) for w in words]
        vectors = np.where(np.array(places)[:, None] >= 0, rows[places], 0).astype(np.float32)
        return self.pairing.side([self.words.get(w) for w in words], places, vectors)

    def followers(self, word: str) -> Mapping[str, float]:
        """Words often seen right after `word`, with pointwise mutual information in nats (> 0.3).

        Source: bigram counts of wordsegment; about 14,000 first words.
        """
        if word not in self._read_followers:
            rows = (row.partition(":") for row in self._pairs.get(word, "").split())
            self._read_followers[word] = {second: int(pmi) / 10 for second, _, pmi in rows}
        return self._read_followers[word]

    def vectors(self, words: Sequence[str]) -> npt.NDArray[np.float32]:
        """Unit vectors, one row a word (or phrase, by the mean of its words); zeros if unknown."""
        index, rows = self._vectors
        places = np.array([index.get(w, -1) for w in words], np.intp)
        out: npt.NDArray[np.float32] = rows[places]
        for place in np.flatnonzero(places < 0).tolist():
            known = [index[w] for w in words[place].split() if w in index]
            out[place] = 0
            if known:
                mean = rows[known].mean(axis=0)
                out[place] = mean / (float(np.linalg.norm(mean)) or 1.0)
        return out

    def nearest(self, vector: npt.NDArray[np.float32], limit: int) -> list[tuple[str, float]]:
        """The words whose vectors are closest, with their cosines, the closest first; words that
        are close to everything stand back.
        """
        cosines = self._vectors[1] @ vector
        ranked = cosines - CROWD * self.pairing.crowd
        top = np.argpartition(-ranked, limit)[:limit]
        order = top[np.argsort(-ranked[top], kind="stable")]
        return [(self._listed[i], float(cosines[i])) for i in order]

    @cached_property
    def _listed(self) -> Sequence[str]:
        return list(self.words)

    def closeness(self, word: str, others: Sequence[str]) -> list[float]:
        """How close in meaning `word` (or phrase) is to each other: the cosine of their vectors
        less half of what each has with its own nearest words, so that words close to everything do
        not count (cross-domain similarity local scaling, A. Conneau and others, 2018). Of two words
        taken at random it is under -0.17 in nineteen of twenty; 0 and over is close.
        """
        index, _ = self._vectors
        rows = self.vectors([word, *others])
        crowd = self.pairing.crowd
        around = np.array(
            [
                np.mean([float(crowd[index[w]]) for w in text.split() if w in index] or [1.0])
                for text in (word, *others)
            ]
        )
        close: list[float] = (rows[1:] @ rows[0] - (around[1:] + around[0]) / 2).tolist()
        return close

    def likeness(self, word: str, others: Sequence[str]) -> list[float]:
        """Cosine of the word vectors, -1 to 1, of `word` with each other; 0 where one has none."""
        index, rows = self._vectors
        if word not in index:
            return [0.0] * len(others)
        places = np.array([index.get(o, -1) for o in others], dtype=np.int64)
        cosines = rows[places] @ rows[index[word]]
        cosines[places < 0] = 0.0
        result: list[float] = cosines.tolist()
        return result


@cache
def load_lexicon() -> Lexicon:
    """The one lexicon of this process."""
    return Lexicon()
