"""How well closeness in meaning tells related words from others.

    python scripts/eval_fit.py --related words.txt [--each 3]

`words.txt` is the Moby thesaurus (public domain, npm package moby 1.1.2): a headword and words
related to it on each line. For each headword some of its words are set against words taken at
random that are as common. No constant was tuned on either half; both are shown. The baselines are
letters in common and a direct relation in WordNet.
"""

from __future__ import annotations

import argparse
import difflib
import json
import random
from collections.abc import Callable, Sequence
from pathlib import Path

from judging import area_under_curve, for_tuning

from vinetag.core.lexicon import Lexicon, load_lexicon

SEED = 4
FEWEST = 3
RELATIONS = ("broader", "narrower", "kin", "similar", "parts", "wholes")
Triple = tuple[str, str, str]


def triples(path: Path, each: int, lexicon: Lexicon) -> list[Triple]:
    """(headword, related word, random word as common as it)."""
    words = {
        w.text: w
        for w in lexicon.words.values()
        if w.pos and not w.lemma and w.zipf >= 3 and 3 <= len(w.text) <= 12
    }
    alike: dict[int, list[str]] = {}
    for word in words.values():
        alike.setdefault(round(4 * word.zipf), []).append(word.text)
    rng, found = random.Random(SEED), []
    for line in path.read_text("latin-1").splitlines():
        head, *rest = line.strip().split(",")
        related = sorted({r for r in rest if r in words and r[:4] != head[:4]})
        if head not in words or len(related) < FEWEST:
            continue
        for word in rng.sample(related, min(each, len(related))):
            other = rng.choice(alike[round(4 * words[word].zipf)])
            if other not in related and other != head:
                found.append((head, word, other))
    return found


def direct(lexicon: Lexicon) -> Callable[[str, str], float]:
    """1 when WordNet relates the words directly."""
    known: dict[str, set[str]] = {}

    def related(head: str, word: str) -> float:
        if head not in known:
            known[head] = set()
            for sense in lexicon.thesaurus.senses(head):
                known[head].update(sense.words)
                for relation in RELATIONS:
                    for other in lexicon.thesaurus.related(sense.id, relation):
                        known[head].update(other.words)
        return float(word in known[head])

    return related


def judged(close: Callable[[str, str], float], items: Sequence[Triple]) -> float:
    related = [close(head, word) for head, word, _ in items]
    others = [close(head, other) for head, _, other in items]
    return round(area_under_curve(related, others), 3)


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.splitlines()[0])
    parser.add_argument("--related", type=Path, required=True)
    parser.add_argument("--each", type=int, default=3)
    args = parser.parse_args()
    lexicon = load_lexicon()
    items = triples(args.related, args.each, lexicon)
    rest = [t for t in items if not for_tuning(t[0])]

    def closeness(head: str, word: str) -> float:
        return lexicon.closeness(head, [word])[0]

    figures = {
        "pairs": len(rest),
        "closeness_auc": judged(closeness, rest),
        "closeness_auc_other_half": judged(closeness, [t for t in items if for_tuning(t[0])]),
        "cosine_auc": judged(lambda a, b: lexicon.likeness(a, [b])[0], rest),
        "letters_auc": judged(lambda a, b: difflib.SequenceMatcher(None, a, b).ratio(), rest),
        "wordnet_direct_auc": judged(direct(lexicon), rest),
    }
    print(json.dumps(figures))


if __name__ == "__main__":
    main()
