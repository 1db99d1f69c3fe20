"""How well what can be said is told from what cannot, and how well new words are said.

    python scripts/eval_sound.py [--words 3000]

Every tenth word of the pronouncing dictionary (by a checksum of its letters) was kept from every
model here. Those with a Zipf value of at least 2.5 are set against their own letters shuffled and
against random letters of the same length, all said by the letter-to-sound model, whether listed or
not. Then the model's pronunciations are compared with the dictionary's, beside those of g2p_en
(requirements-words.in), which has seen the dictionary, these words included.
"""

from __future__ import annotations

import argparse
import json
import random
from collections.abc import Callable, Sequence
from string import ascii_lowercase
from types import SimpleNamespace

from judging import area_under_curve

from vinetag.core.grade.hearing import pronounceability
from vinetag.core.lexicon import Lexicon, load_lexicon
from vinetag.core.lexicon.graphones import held_out
from vinetag.core.lexicon.sounds import bare

SEED = 7
COMMON = 2.5


def shuffled(word: str, rng: random.Random) -> str:
    letters = list(word)
    for _ in range(20):
        rng.shuffle(letters)
        if "".join(letters) != word:
            break
    return "".join(letters)


def ease(word: str, lexicon: Lexicon) -> float:
    said = lexicon.graphones.say(word)
    return pronounceability(word, said[0].phones if said else (), lexicon)


def slips(one: Sequence[str], two: Sequence[str]) -> int:
    """Levenshtein distance."""
    row = list(range(len(two) + 1))
    for i, a in enumerate(one, start=1):
        before, row[0] = row[0], i
        for j, b in enumerate(two, start=1):
            before, row[j] = row[j], min(row[j] + 1, row[j - 1] + 1, before + (a != b))
    return row[-1]


def spoken(
    say: Callable[[str], Sequence[str]], words: Sequence[str], lexicon: Lexicon
) -> dict[str, float]:
    """Shares of phones wrong and of words wholly right, stress apart."""
    wrong = phones = right = 0
    for word in words:
        said, true = tuple(say(word)), lexicon.sounds.phones(word)
        wrong += slips(said, true)
        phones += len(true)
        right += said == true
    return {"phone_error": round(wrong / phones, 4), "words_right": round(right / len(words), 4)}


def published() -> Callable[[str], Sequence[str]]:
    """The neural model of g2p_en alone, without its dictionary and its taggers."""
    import nltk

    nltk.download = lambda *_args, **_options: True
    from g2p_en import g2p

    g2p.cmudict = SimpleNamespace(dict=dict)
    model = g2p.G2p()
    return lambda word: [p.rstrip("012") for p in model.predict(word)]


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.splitlines()[0])
    parser.add_argument("--words", type=int, default=3_000)
    args = parser.parse_args()
    lexicon, rng = load_lexicon(), random.Random(SEED)
    words = [
        w
        for w in lexicon.sounds.words()
        if w.isalpha() and held_out(w) and lexicon.words[w].zipf >= COMMON and len(w) >= 4
    ]
    words = sorted(rng.sample(words, min(args.words, len(words))))
    real = [ease(w, lexicon) for w in words]
    mixed = [ease(shuffled(w, rng), lexicon) for w in words]
    noise = [ease("".join(rng.choices(ascii_lowercase, k=len(w))), lexicon) for w in words]
    letters = [lexicon.sayable.score(w) for w in words]
    rng = random.Random(SEED + 1)
    letters_mixed = [lexicon.sayable.score(shuffled(w, rng)) for w in words]
    figures = {
        "words": len(words),
        "auc_against_shuffled": round(area_under_curve(real, mixed), 4),
        "auc_against_random": round(area_under_curve(real, noise), 4),
        "auc_letters_alone_against_shuffled": round(area_under_curve(letters, letters_mixed), 4),
        "said": spoken(lambda w: bare(lexicon.graphones.say(w)[0].phones), words, lexicon),
        "said_by_g2p_en": spoken(published(), words, lexicon),
    }
    print(json.dumps(figures))


if __name__ == "__main__":
    main()
