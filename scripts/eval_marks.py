"""How well marks like a name are found in a register of a million: python -m scripts.eval_marks
--moby words.txt [--marks N] [--each N].

Pairs of a mark and a name that is like it are made by rules, written down before anything was
tuned: RULES, each with the kind of likeness. Every second rule of a kind may be used for tuning,
the others judge. A rule of letters changes every place it can; those of sound and look go to marks
of at most nine letters, since one letter of a long mark is found by anything. Words of one meaning
are those the Moby thesaurus (public domain, npm package moby 1.1.2) has under each other, of few
that are that near. The marks stand among made-up ones, no two with the same letters, in a class of
the name's; the others are in any. Found is a mark that is among the first ten.

Against: plain edit distance of the letters; and a classical phonetic code (metaphone), by the
distance of codes and then of letters. Needs what requirements-words.in lists.
"""

from __future__ import annotations

import argparse
import json
import random
import re
import time
from collections.abc import Callable, Iterator, Mapping, Sequence
from pathlib import Path

import jellyfish
import numpy as np
from rapidfuzz import process
from rapidfuzz.distance import Levenshtein

from scripts.made_up_marks import made_up
from vinetag.core.brief import Brief
from vinetag.core.candidates import Candidate
from vinetag.core.grade import MEASURES, Grader
from vinetag.core.lexicon import Lexicon, load_lexicon
from vinetag.core.vet.marks import FormMaker, Index, Indexed, query_of

FIRST = 10
Rule = Callable[[list[str]], str]
Register = Sequence[tuple[str, list[str]]]


def swap(*pairs: tuple[str, str]) -> Rule:
    """Wherever these letters stand in the name they become the others, each place once; "" where
    none stands.
    """
    turns = dict(pairs)
    at = re.compile("|".join(sorted(turns, key=len, reverse=True)))

    def rule(words: list[str]) -> str:
        label = "".join(words)
        made = at.sub(lambda found: turns[found[0]], label)
        return "" if made == label else made

    return rule


def both(one: Rule, two: Rule) -> Rule:
    """One rule after the other."""
    return lambda words: (first := one(words)) and two([first])


def ending(*pairs: tuple[str, str]) -> Rule:
    """The last word with another ending."""

    def rule(words: list[str]) -> str:
        for old, new in pairs:
            if words[-1].endswith(old) and len(words[-1]) > len(old) + 2:
                return "".join(words[:-1]) + words[-1].removesuffix(old) + new
        return ""

    return rule


C_AS_K = swap(("ck", "k"), ("ca", "ka"), ("co", "ko"), ("cu", "ku"), ("cr", "kr"))
I_AS_Y = swap(("i", "y"))
RULES: dict[str, list[tuple[str, Rule]]] = {
    "sound": [
        ("c or ck as k", C_AS_K),
        ("ph as f, f as ph", swap(("ph", "f"), ("f", "ph"))),
        ("i as y, s as z", both(I_AS_Y, swap(("s", "z")))),
        ("ee, ea, ie", swap(("ee", "ea"), ("ea", "ee"), ("ie", "ee"))),
        ("c as k, i as y", both(C_AS_K, I_AS_Y)),
        ("long vowels", swap(("ai", "ay"), ("ay", "ai"), ("oa", "oe"), ("ow", "oa"), ("oo", "u"))),
        ("x as ks, qu as kw", swap(("x", "ks"), ("qu", "kw"))),
        ("doubled letters", swap(*((a + a, a) for a in "lstpnmrfgdb"), ("l", "ll"), ("t", "tt"))),
        ("er, or, ar as a", both(swap(("er", "a"), ("or", "a"), ("ar", "a")), C_AS_K)),
        ("ight as ite, y as ee", swap(("ight", "ite"), ("y", "ee"), ("gh", ""))),
    ],
    "look": [
        ("rn, m", swap(("rn", "m"), ("m", "rn"))),
        ("cl, d", swap(("cl", "d"), ("d", "cl"))),
        ("w as vv", swap(("w", "vv"))),
        ("l, i, 1", swap(("l", "1"), ("i", "l"))),
        ("o as 0", swap(("o", "0"), ("l", "1"))),
        ("u, v; h, n", swap(("u", "v"), ("h", "n"))),
    ],
    "meaning": [
        ("plural", ending(("y", "ies"), ("sh", "shes"), ("", "s"))),
        ("singular or short form", ending(("ing", ""), ("s", ""), ("er", ""))),
        ("other order", lambda words: "".join(reversed(words)) if len(words) == 2 else ""),
        ("a word of trade behind", lambda words: "".join(words) + "studio"),
    ],
    "holding": [
        ("another word behind", lambda words: "".join(words) + "river"),
        ("another word in front", lambda words: "little" + "".join(words)),
    ],
}
SHORT = 9
FEW = 40


def synonyms(path: Path, lexicon: Lexicon) -> Rule:
    """A word in place of one of the name's that the thesaurus has under each other."""
    listed: dict[str, list[str]] = {}
    for line in path.read_text("utf-8").splitlines():
        head, *others = line.strip().split(",")
        listed[head] = others

    def rule(words: list[str]) -> str:
        if len(words) != 2:
            return ""
        for place, word in enumerate(words):
            others = listed.get(word, ())
            for other in others if len(others) <= FEW else ():
                mutual = word in listed.get(other, ()) and len(listed[other]) <= FEW
                if mutual and other.isalpha() and other in lexicon.words:
                    return "".join([*words[:place], other, *words[place + 1 :]])
        return ""

    return rule


def pairs(
    register: Register, rules_of: Mapping[str, Sequence[tuple[str, Rule]]], each: int, seed: int
) -> Iterator[tuple[str, str, bool, int, str]]:
    """Kind, rule, whether it may be tuned by, the mark's place and the name like it."""
    rng = random.Random(seed)
    order = [i for i, (text, _) in enumerate(register) if len(text.replace(" ", "")) >= 5]
    rng.shuffle(order)
    known = {"".join(words) for _, words in register}
    for kind, rules in rules_of.items():
        longest = SHORT if kind in ("sound", "look") else 63
        for place, (name, rule) in enumerate(rules):
            found = 0
            for i in order:
                if sum(map(len, register[i][1])) > longest:
                    continue
                made = rule(register[i][1])
                # A name that is another's mark is that one's.
                if made and made not in known:
                    yield kind, name, place % 2 == 0, i, made
                    found += 1
                if found == each:
                    break


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.split("\n")[0])
    parser.add_argument("--moby", type=Path, required=True)
    parser.add_argument("--marks", type=int, default=1_000_000)
    parser.add_argument("--each", type=int, default=24, help="pairs a rule")
    parser.add_argument("--seed", type=int, default=5)
    args = parser.parse_args()
    lexicon = load_lexicon()
    forms = FormMaker(lexicon)
    register = made_up(lexicon, args.marks, args.seed)
    began = time.perf_counter()
    rng = random.Random(args.seed)
    index = Index(_indexed(register, forms, rng))
    built = time.perf_counter() - began
    letters = [text.replace(" ", "") for text, _ in register]
    codes = [jellyfish.metaphone(text) for text, _ in register]
    rules = {**RULES, "synonym": [("one word of two", synonyms(args.moby, lexicon))]}
    asked = list(pairs(register, rules, args.each, args.seed))
    rows, seconds = [], []
    for kind, rule, tuned, place, name in asked:
        began = time.perf_counter()
        found = index.nearest(_query(name, index, place, forms, lexicon), FIRST)
        seconds.append(time.perf_counter() - began)
        ours = any(near.number == place for near in found)
        rows.append((kind, rule, tuned, ours, _plain(name, letters, place),
                     _coded(name, codes, letters, place)))  # fmt: skip
    print(json.dumps(_told(rows, seconds, built, args.marks), indent=1))


def _indexed(
    register: list[tuple[str, list[str]]], forms: FormMaker, rng: random.Random
) -> Iterator[Indexed]:
    for i, (_, words) in enumerate(register):
        classes = (rng.randint(1, 45),)
        yield Indexed(i, forms.of_words(words, classes), classes, alive=True)


def _query(name: str, index: Index, place: int, forms: FormMaker, lexicon: Lexicon):  # type: ignore[no-untyped-def]
    grader = Grader(Brief(), lexicon, MEASURES)
    return query_of(grader.read_any(Candidate(name, (), (), 0.0)), index.classes_of(place), forms)


def _plain(name: str, letters: list[str], place: int) -> bool:
    """Among the first ten by edit distance; of those equally far the expected share."""
    found = process.cdist([name], letters, scorer=Levenshtein.distance, dtype=np.uint8)[0]
    nearer, as_near = int((found < found[place]).sum()), int((found == found[place]).sum())
    return random.random() < min(1.0, max(0.0, (FIRST - nearer) / as_near))


def _coded(name: str, codes: list[str], letters: list[str], place: int) -> bool:
    """The same by distance of codes, then of letters."""
    code = jellyfish.metaphone(name)
    found = process.cdist([code], codes, scorer=Levenshtein.distance, dtype=np.uint8)[0]
    as_near = np.flatnonzero(found == found[place])
    nearer = int((found < found[place]).sum())
    plain = process.cdist([name], [letters[i] for i in as_near], scorer=Levenshtein.distance)[0]
    own = plain[int(np.searchsorted(as_near, place))]
    nearer, same = nearer + int((plain < own).sum()), int((plain == own).sum())
    return random.random() < min(1.0, max(0.0, (FIRST - nearer) / same))


def _told(rows, seconds, built, marks):  # type: ignore[no-untyped-def]
    def share(chosen, which):  # type: ignore[no-untyped-def]
        return round(sum(row[which] for row in chosen) / max(1, len(chosen)), 3)

    def three(chosen):  # type: ignore[no-untyped-def]
        return {
            "pairs": len(chosen),
            "ours": share(chosen, 3),
            "edit_distance": share(chosen, 4),
            "metaphone": share(chosen, 5),
        }

    judged = [row for row in rows if not row[2] or row[0] == "synonym"]
    return {
        "marks": marks,
        "judged": three(judged),
        "tuned": three([row for row in rows if row[2]]),
        "kinds": {
            kind: three([row for row in judged if row[0] == kind])
            for kind in {row[0]: 0 for row in rows}
        },
        "rules": {row[1]: three([r for r in rows if r[1] == row[1]]) for row in rows},
        "index_built_s": round(built, 1),
        "a_name_s": {
            "mean": round(sum(seconds) / len(seconds), 3),
            "worst": round(max(seconds), 3),
        },
    }


if __name__ == "__main__":
    main()
