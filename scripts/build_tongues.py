"""Builds vinetag/core/vet/data/tongues.tsv.gz: frequent words of other languages and words that
offend in them.

    python -m scripts.build_tongues --naughty-words DIR

Frequencies are wordfreq's (requirements-words.in; code Apache-2.0, data CC BY-SA 4.0), offensive
words those of the npm package naughty-words 1.2.0 (CC BY 4.0), whose folder DIR is. Words are
folded to a to z; languages that are not written so are left out. A line has the language's code,
its English name, "words" or "offensive", and the words, the most frequent first.
"""

from __future__ import annotations

import argparse
import gzip
import json
from pathlib import Path

from vinetag.core.names import folded

OUT = Path(__file__).resolve().parents[1] / "vinetag/core/vet/data/tongues.tsv.gz"
LANGUAGES = {
    "ca": "Catalan", "cs": "Czech", "da": "Danish", "de": "German", "es": "Spanish",
    "fi": "Finnish", "fil": "Filipino", "fr": "French", "hu": "Hungarian", "id": "Indonesian",
    "is": "Icelandic", "it": "Italian", "lt": "Lithuanian", "lv": "Latvian", "ms": "Malay",
    "nb": "Norwegian", "nl": "Dutch", "pl": "Polish", "pt": "Portuguese", "ro": "Romanian",
    "sk": "Slovak", "sl": "Slovenian", "sv": "Swedish", "tr": "Turkish", "vi": "Vietnamese",
}  # fmt: skip
OFFENSIVE = {"no": "nb", "fr-CA-u-sd-caqc": "fr"}
EACH, SHORTEST = 5_000, 3


def frequent(language: str) -> list[str]:
    from wordfreq import top_n_list

    found: dict[str, None] = {}
    for word in top_n_list(language, 4 * EACH):
        plain = folded(word)
        if len(plain) >= SHORTEST and plain.isascii() and plain.isalpha():
            found[plain] = None
    return list(found)[:EACH]


def offensive(folder: Path) -> dict[str, list[str]]:
    found: dict[str, set[str]] = {}
    for path in folder.glob("*.json"):
        code = OFFENSIVE.get(path.stem, path.stem)
        words = json.loads(path.read_text("utf-8")) if code in LANGUAGES else []
        for word in map(folded, words):
            if len(word) >= SHORTEST and word.isascii() and word.isalpha():
                found.setdefault(code, set()).add(word)
    return {code: sorted(words) for code, words in found.items()}


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.split("\n")[0])
    parser.add_argument("--naughty-words", type=Path, required=True)
    rude = offensive(parser.parse_args().naughty_words)
    lines = []
    for code, name in LANGUAGES.items():
        lines.append("\t".join((code, name, "words", " ".join(frequent(code)))))
        if code in rude:
            lines.append("\t".join((code, name, "offensive", " ".join(rude[code]))))
    OUT.write_bytes(gzip.compress("\n".join(lines).encode("ascii"), 9, mtime=0))
    print(OUT, OUT.stat().st_size)


if __name__ == "__main__":
    main()
