"""Relations between words, for scripts/build_lexicon.py: senses, forms, sounds, spellings.

Everything is restricted to the vocabulary given, so that no word is offered that nobody writes.
"""

from __future__ import annotations

import gzip
import json
import math
import re
from collections import Counter, defaultdict
from collections.abc import Iterable, Mapping
from pathlib import Path

from lemminflect import getAllInflections

PARTS = {"noun": "n", "verb": "v", "adj": "a", "adv": "r"}
# Pointer symbols (wninput(5WN)) -> our kinds: broader, narrower, part, whole, similar, kin.
POINTERS = {
    "@": "b", "@i": "b", "~": "n", "~i": "n", "%p": "p", "%m": "p", "%s": "p", "#p": "w", "#m": "w",
    "#s": "w", "&": "s", "^": "k", "=": "k", "*": "k", ">": "k", ";c": "k", "-c": "k", "$": "k",
}  # fmt: skip
MOST_NARROWER = 60
GLOSS = 90
TAGS = {
    "NNS": "plural", "VBZ": "third", "VBD": "past", "VBN": "participle", "VBG": "ing",
    "JJR": "more", "JJS": "most",
}  # fmt: skip
DOER = re.compile(r"(er|or|ar|ist|ian|ant|ent|eer|man|smith|wright)$")
TRADE = re.compile(r"(ery|ry|ing|ship|ture|ance|ence|ancy|ency|ment|tion|sion|age|craft|logy)$")
# MorphyNet lists more than people write; these endings of it are kept.
SUFFIXES = set(
    "er or ist ian ery ry ly ful less ness y ish let ment ship hood able ible ation ance ence al "
    "dom ant ancy ency ive ous ward wise".split()
)
CHUNKS = ((1, 1), (2, 1), (1, 0), (1, 2), (3, 1), (2, 2), (2, 0), (4, 1))
MIN_SPELLING = 3


def _write(path: Path, lines: Iterable[str]) -> None:
    path.write_bytes(gzip.compress("\n".join(lines).encode("ascii"), 9, mtime=0))


def _known(lemma: str, vocabulary: Mapping[str, object]) -> str:
    """The lemma in our form, or '' when it is not of one or two known words."""
    words = lemma.split("(")[0].lower().split("_")
    return " ".join(words) if len(words) <= 2 and all(w in vocabulary for w in words) else ""


def read_synsets(folder: Path) -> dict[tuple[str, int], list[str]]:
    """(part of speech, offset) -> the fields of its line, the gloss last."""
    found = {}
    for name, pos in PARTS.items():
        for line in (folder / f"data.{name}").read_text("utf-8").splitlines():
            if line[0] != " ":
                head, _, gloss = line.partition(" | ")
                found[pos, int(line[:8])] = [*head.split(), gloss]
    return found


def two_word_entries(folder: Path, vocabulary: Mapping[str, object]) -> set[tuple[str, str]]:
    """Pairs of words that stand together as one entry."""
    found = set()
    for fields in read_synsets(folder).values():
        for i in range(int(fields[3], 16)):
            first, _, second = _known(fields[4 + 2 * i], vocabulary).partition(" ")
            if len(first) > 1 and len(second) > 2:
                found.add((first, second))
    return found


def _pointers(fields: list[str]) -> list[tuple[str, tuple[str, int], str]]:
    at = 4 + 2 * int(fields[3], 16)
    found = []
    for i in range(at + 1, at + 1 + 4 * int(fields[at]), 4):
        symbol, offset, pos, words = fields[i : i + 4]
        found.append((symbol, ("a" if pos == "s" else pos, int(offset)), words))
    return found


def write_senses(folder: Path, out: Path, vocabulary: Mapping[str, object]) -> None:
    """senses.tsv.gz: a synset a line; senses.index.gz: each word's synsets, commonest first."""
    synsets = read_synsets(folder)
    words = {
        key: [w for w in (_known(f[4 + 2 * i], vocabulary) for i in range(int(f[3], 16))) if w]
        for key, f in synsets.items()
    }
    number = {key: i for i, key in enumerate(k for k in synsets if words[k])}
    lines = []
    for key in number:
        fields = synsets[key]
        related: dict[str, list[int]] = defaultdict(list)
        opposites: list[str] = []
        for symbol, target, places in _pointers(fields):
            if symbol == "!" and places != "0000":
                lemma = synsets[target][4 + 2 * (int(places[2:], 16) - 1)]
                opposites.append(_known(lemma, vocabulary))
            elif symbol in POINTERS and target in number:
                related[POINTERS[symbol]].append(number[target])
        gloss = fields[-1].split(";")[0].split(" (")[0].strip().encode("ascii", "ignore").decode()
        relations = " ".join(
            f"{kind}:{','.join(map(str, ids[:MOST_NARROWER]))}" for kind, ids in related.items()
        )
        opposite = ",".join(sorted({o for o in opposites if o}))
        row = (key[0], fields[1], gloss[:GLOSS], ",".join(words[key]), relations, opposite)
        lines.append("\t".join(row))
    _write(out / "senses.tsv.gz", lines)
    counts: dict[str, list[tuple[int, int, int]]] = defaultdict(list)
    letters = {"1": "n", "2": "v", "3": "a", "4": "r", "5": "a"}
    for line in (folder / "index.sense").read_text("utf-8").splitlines():
        sense, offset, order, count = line.split(" ")
        lemma = _known(sense.split("%")[0], vocabulary)
        key = (letters[sense.split("%")[1][0]], int(offset))
        if lemma and key in number:
            counts[lemma].append((-int(count), int(order), number[key]))
    _write(
        out / "senses.index.gz",
        (
            f"{word}\t{' '.join(str(n) for _, _, n in sorted(found))}"
            for word, found in sorted(counts.items())
        ),
    )


def write_forms(
    folder: Path, morphology: Path, out: Path, vocabulary: Mapping[str, tuple[float, str, str]]
) -> None:
    """forms.tsv.gz: each word's inflections and derived words, with their kinds."""
    forms: dict[str, dict[str, str]] = defaultdict(dict)
    persons: set[str] = set()
    synsets = read_synsets(folder)
    for (pos, _), fields in synsets.items():
        if pos == "n" and int(fields[1]) == 18:
            persons |= {fields[4 + 2 * i].lower() for i in range(int(fields[3], 16))}
    for word, (zipf, pos, lemma) in vocabulary.items():
        if lemma or zipf < 2:
            continue
        for upos, letter in (("NOUN", "n"), ("VERB", "v"), ("ADJ", "a")):
            if letter in pos[:2]:
                for tag, found in getAllInflections(word, upos).items():
                    for form in found:
                        if tag in TAGS and form in vocabulary and form != word:
                            forms[word].setdefault(form, TAGS[tag])

    def derived(source: str, target: str) -> None:
        if source == target or source not in vocabulary or target not in vocabulary:
            return
        zipf, pos, _ = vocabulary[target]
        if not pos or zipf < 2.2:
            return
        kind = {"n": "noun", "v": "verb", "a": "adj", "r": "adv"}.get(pos[0], "")
        if DOER.search(target) and target in persons:
            kind = "doer"
        elif pos[0] == "n" and TRADE.search(target):
            kind = "trade"
        if kind:
            forms[source].setdefault(target, kind)

    for fields in synsets.values():
        for symbol, target, places in _pointers(fields):
            if symbol == "+" and places != "0000" and target in synsets:
                source = fields[4 + 2 * (int(places[:2], 16) - 1)].lower()
                derived(source, synsets[target][4 + 2 * (int(places[2:], 16) - 1)].lower())
    for source, entry in json.loads(morphology.read_text("utf-8")).items():
        for target, how in entry["derives_to"].items():
            stem = source.lower()[: max(3, len(source) - 2)]
            if how["affix"] in SUFFIXES and target.lower().startswith(stem):
                derived(source.lower(), target.lower())
    _write(
        out / "forms.tsv.gz",
        (
            f"{word}\t{' '.join(f'{kind}:{form}' for form, kind in sorted(found.items()))}"
            for word, found in sorted(forms.items())
        ),
    )


def write_sounds(
    variants: Mapping[str, list[list[str]]], out: Path, vocabulary: Mapping[str, object]
) -> None:
    """sounds.tsv.gz: ARPAbet phones with stress; spellings.tsv: how often letters spell phones."""
    known = {w: variants[w][0] for w in sorted(vocabulary) if w in variants}
    _write(out / "sounds.tsv.gz", (f"{w}\t{' '.join(p)}" for w, p in known.items()))
    plain = {w: [p.rstrip("012") for p in phones] for w, phones in known.items()}
    counts = _aligned(plain)
    lines = [
        f"{place}\t{phones}\t{letters}\t{n}"
        for (place, phones, letters), n in sorted(counts.items())
        if n >= MIN_SPELLING
    ]
    (out / "spellings.tsv").write_text("\n".join(lines) + "\n")


def _aligned(words: Mapping[str, list[str]], rounds: int = 4) -> Counter[tuple[str, str, str]]:
    """Letters and phones matched chunk by chunk (Viterbi training), counted by place in the word:
    ^ first, $ last, - between.
    """
    score: dict[tuple[str, str], float] = {}
    singles: Counter[str] = Counter()
    both: Counter[tuple[str, str]] = Counter()
    for word, phones in words.items():
        for i, letter in enumerate(word):
            singles[letter] += 1
            middle = round(i * (len(phones) - 1) / max(1, len(word) - 1))
            for phone in phones[max(0, middle - 1) : middle + 2]:
                both[letter, phone] += 1
    for pair, n in both.items():
        score[pair] = math.log(n / (3 * singles[pair[0]]))
    counts: Counter[tuple[str, str, str]] = Counter()
    for _ in range(rounds):
        counts = Counter()
        for word, phones in words.items():
            for place, letters, sounds in _match(word, phones, score):
                counts[place, sounds, letters] += 1
        totals: Counter[str] = Counter()
        pairs: Counter[tuple[str, str]] = Counter()
        for (_, sounds, letters), n in counts.items():
            totals[letters] += n
            pairs[letters, sounds] += n
        score = {pair: math.log(n / (totals[pair[0]] + 20)) for pair, n in pairs.items() if n > 1}
    return counts


def _match(
    word: str, phones: list[str], score: Mapping[tuple[str, str], float]
) -> list[tuple[str, str, str]]:
    best: dict[tuple[int, int], tuple[float, int, int]] = {(0, 0): (0.0, 0, 0)}
    for i in range(len(word)):
        for j in range(len(phones) + 1):
            if (i, j) not in best:
                continue
            base = best[i, j][0]
            for letters, sounds in CHUNKS:
                end = (i + letters, j + sounds)
                if end[0] > len(word) or end[1] > len(phones):
                    continue
                pair = (word[i : end[0]], " ".join(phones[j : end[1]]))
                value = base + score.get(pair, -7.0 - 2.5 * (letters - 1) - 2.0 * abs(sounds - 1))
                if end not in best or value > best[end][0]:
                    best[end] = (value, i, j)
    at = (len(word), len(phones))
    found: list[tuple[str, str, str]] = []
    if at not in best:
        return found
    while at != (0, 0):
        _, i, j = best[at]
        place = "^" if i == 0 else "$" if at[0] == len(word) else "-"
        found.append((place, word[i : at[0]], " ".join(phones[j : at[1]])))
        at = (i, j)
    return found
