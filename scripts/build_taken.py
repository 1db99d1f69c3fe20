"""Writes standins/data/taken.tsv.gz: what nearly everybody would want as a name, and so is taken in
the simulated world: words of the dictionary, its compounds closed up ("redtide"), and pairs of
words people often say together. Each with how common it is, 0 to 9.

    python -m scripts.build_taken
"""

from __future__ import annotations

import gzip
import io
from pathlib import Path

from vinetag.core.lexicon import load_lexicon

TARGET = Path(__file__).resolve().parents[1] / "standins/data/taken.tsv.gz"
LONGEST = 18
# Of a pair's strength in the lexicon's own table, what is said often.
OFTEN = 30


def taken() -> dict[str, int]:
    """By label."""
    lexicon = load_lexicon()
    words = lexicon.words
    found: dict[str, int] = {}

    def add(label: str, common: float) -> None:
        if label.isascii() and label.isalpha() and 4 <= len(label) <= LONGEST:
            found[label] = max(found.get(label, 0), round(max(0, min(9, common))))

    for word, told in words.items():
        add(word, 2 * told.zipf - 4)
    data = Path(__file__).resolve().parents[1] / "vinetag/core/lexicon/data"
    with gzip.open(data / "senses.index.gz", "rt", encoding="utf-8") as lines:
        for line in lines:
            parts = line.split("\t")[0].split()
            said = [part for part in parts if part.isalpha()]
            if len(said) == 2 and all(part in words for part in said):
                add("".join(said), sum(words[part].zipf for part in said) - 4)
    with gzip.open(data / "pairs.tsv.gz", "rt", encoding="utf-8") as lines:
        for line in lines:
            first, _, seconds = line.rstrip("\n").partition("\t")
            for pair in seconds.split():
                second, _, strength = pair.partition(":")
                both = first in words and second in words
                if both and int(strength) >= OFTEN and min(len(first), len(second)) > 2:
                    add(first + second, words[first].zipf + words[second].zipf - 5)
    return found


if __name__ == "__main__":
    out = io.BytesIO()
    with gzip.GzipFile(fileobj=out, mode="wb", mtime=0) as file:
        file.write("".join(f"{k}\t{v}\n" for k, v in sorted(taken().items())).encode())
    TARGET.write_bytes(out.getvalue())
    print(f"{TARGET.name}: {len(out.getvalue()):,} bytes")
