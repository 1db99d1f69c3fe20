"""How well closed-up names are read: two-word dictionary entries with the space removed.

    python scripts/eval_clarity.py [--tune]

Entries are WordNet's two-word phrases whose words are both known and whose closed form is no word.
The constants of vinetag.core.lexicon.segment were tuned on half of them (--tune shows what moving
each one would do there); the other half judges. The baselines, in the same run, are two general
libraries for the task (requirements-words.in).
"""

from __future__ import annotations

import argparse
import json
from collections.abc import Callable, Sequence

import wordninja
import wordsegment
from judging import for_tuning

from vinetag.core.lexicon import Lexicon, load_lexicon
from vinetag.core.lexicon import segment as model

CONSTANTS = ("UNKNOWN_WORD", "SINGLE_LETTER", "OTHER_LETTER", "TWO_LETTERS", "NAME", "A_WORD")


def entries(lexicon: Lexicon) -> list[tuple[str, str]]:
    """Two-word phrases, in order."""
    pairs = (p.split() for p in lexicon.thesaurus.phrases())
    return [
        (pair[0], pair[1])
        for pair in pairs
        if len(pair) == 2
        and all(w in lexicon.words and w.isalpha() for w in pair)
        and "".join(pair) not in lexicon.words
    ]


def right(read: Callable[[str], Sequence[str]], pairs: Sequence[tuple[str, str]]) -> float:
    """The share read exactly as they are."""
    return sum(tuple(read("".join(pair))) == pair for pair in pairs) / len(pairs)


def tune(pairs: Sequence[tuple[str, str]]) -> None:
    """What each constant does on the tuning half when it is moved."""
    for name in CONSTANTS:
        usual = getattr(model, name)
        for change in (-2.0, -1.0, 0.0, 1.0, 2.0):
            setattr(model, name, usual + change)
            lexicon = Lexicon()
            share = right(lambda text, of=lexicon: model.segment(text, of), pairs)
            print(f"{name:14} {usual + change:5.1f}  {share:.4f}")
        setattr(model, name, usual)


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.splitlines()[0])
    parser.add_argument("--tune", action="store_true")
    args = parser.parse_args()
    lexicon = load_lexicon()
    pairs = entries(lexicon)
    tuned = [p for p in pairs if for_tuning(" ".join(p))]
    judged = [p for p in pairs if not for_tuning(" ".join(p))]
    if args.tune:
        tune(tuned[::4])
    wordsegment.load()
    missed = [p for p in judged if tuple(model.segment("".join(p), lexicon)) != p]
    print("missed:", " ".join("_".join(p) for p in missed[:40]))
    figures = {
        "tuned_on": len(tuned),
        "judged_on": len(judged),
        "exact_match": round(right(lambda t: model.segment(t, lexicon), judged), 4),
        "exact_match_tuning_half": round(right(lambda t: model.segment(t, lexicon), tuned), 4),
        "wordsegment": round(right(wordsegment.segment, judged), 4),
        "wordninja": round(right(wordninja.split, judged), 4),
    }
    print(json.dumps(figures))


if __name__ == "__main__":
    main()
