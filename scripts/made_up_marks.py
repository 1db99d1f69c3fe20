"""Registers of marks that nobody owns, for evaluations and benchmarks."""

from __future__ import annotations

import random

from vinetag.core.lexicon import Lexicon

__all__ = ["made_up"]

COMMONEST, RAREST, SHORTEST = 5.6, 2.0, 3
ENDINGS = "o a ix ora ly ium eno ista able exa ify ara en is ova".split()
TRADES = "paper shop studio works company press tools foods design supply gardens house".split()


def made_up(lexicon: Lexicon, count: int, seed: int) -> list[tuple[str, list[str]]]:
    """`count` marks as registered, no two with the same letters, each with its words: a word, two
    words, two closed up, a coined word, or a word with what is sold.
    """
    words = sorted(
        word
        for word, known in lexicon.words.items()
        if word.isalpha() and len(word) >= SHORTEST and RAREST < known.zipf < COMMONEST
    )
    rng = random.Random(seed)
    found: dict[str, tuple[str, list[str]]] = {}
    while len(found) < count:
        one, two, kind = rng.choice(words), rng.choice(words), rng.random()
        if kind < 0.05:
            parts, text = [one], one
        elif kind < 0.5:
            parts, text = [one, two], f"{one} {two}"
        elif kind < 0.7:
            parts, text = [one, two], one + two
        elif kind < 0.88:
            coined = one[: rng.randint(3, 6)] + two[-3:-1] + rng.choice(ENDINGS)
            parts, text = [coined], coined
        else:
            trade = rng.choice(TRADES)
            parts, text = [one, two, trade], f"{one} {two} {trade}"
        found.setdefault("".join(parts), (text, parts))
    return list(found.values())
