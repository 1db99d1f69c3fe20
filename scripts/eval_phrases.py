"""How well phrases are gathered and grouped: python -m scripts.eval_phrases.

Gathering: pairs are made by rule from nouns and adjectives of the word data. Each rule makes pairs
that say the same (another order, number, spelling, closed up, a slip of one letter) or do not (one
word more, one word another, a direction turned). Every second pair may be used to tune, the others
judge. Found is a pair put under one head; against comparing phrases by their sorted words alone.

Grouping: groups written down before anything was tuned (tests/readings/phrase_groups.json says by
whom), no package being found that has a public set. The topics for tuning chose the share of
meaning and the weight of rarity in vinetag.core.demand.grouping; the others judge, each alone and
all of them together, at the cut the tree proposes, by the adjusted Rand index (L. Hubert and P.
Arabie, 1985). Against single linkage on shared words at the cut best for it on the topics for
tuning.
"""

from __future__ import annotations

import json
import random
from collections.abc import Callable, Iterator, Sequence
from pathlib import Path

import numpy as np
from scipy.cluster.hierarchy import fcluster, linkage

from vinetag.core.demand import Folding, Space, content_words, gather, grow, words_of
from vinetag.core.lexicon import Lexicon, load_lexicon

GROUPS = Path(__file__).parent.parent / "tests" / "readings" / "phrase_groups.json"
PAIRS = 400
SEED = 19
CUTS = tuple(round(0.05 * step, 2) for step in range(1, 20))
BRITISH = (
    ("colour", "color"), ("jewellery", "jewelry"), ("grey", "gray"), ("theatre", "theater"),
    ("organiser", "organizer"), ("travelling", "traveling"), ("catalogue", "catalog"),
    ("licence", "license"), ("neighbour", "neighbor"), ("fibre", "fiber"), ("plough", "plow"),
    ("cosy", "cozy"), ("favour", "favor"), ("centre", "center"), ("defence", "defense"),
    ("harbour", "harbor"), ("modelling", "modeling"), ("personalised", "personalized"),
)  # fmt: skip
Pair = tuple[str, str]


def rand(one: Sequence[int], other: Sequence[int]) -> float:
    """The adjusted Rand index of two ways to group the same things: 1 for the same, 0 by chance."""
    table = np.zeros((max(one) + 1, max(other) + 1))
    np.add.at(table, (np.array(one), np.array(other)), 1)

    def pairs(counts: np.ndarray) -> float:
        return float((counts * (counts - 1) / 2).sum())

    both, rows, columns = pairs(table), pairs(table.sum(1)), pairs(table.sum(0))
    expected = rows * columns / (len(one) * (len(one) - 1) / 2)
    most = (rows + columns) / 2
    return (both - expected) / (most - expected) if most != expected else 1.0


def pairs_by_rule(lexicon: Lexicon) -> Iterator[tuple[str, bool, Pair]]:
    """(rule, whether they say the same, the pair)."""
    draw = random.Random(SEED)
    common = [w for w in lexicon.words.values() if 3.5 < w.zipf < 5 and len(w.text) > 3]
    nouns = [w.text for w in common if w.pos[:1] == "n" and not w.lemma and w.text[-1] != "s"]
    likes = [w.text for w in common if w.pos[:1] == "a" and not w.lemma]
    many = {w.lemma: w.text for w in lexicon.words.values() if w.lemma and w.pos[:1] == "n"}
    plural = [one for one in nouns if many.get(one, "").endswith("s")]

    def letter(word: str) -> str:
        at = draw.randrange(1, len(word) - 1)
        return word[:at] + word[at + 1 :]

    def closed() -> Pair:
        one, two = draw.sample(nouns, 2)
        third = draw.choice(nouns)
        return f"{one} {two} {third}", f"{one}{draw.choice(('', '-'))}{two} {third}"

    def slip() -> Pair:
        one, two = draw.choice(likes), draw.choice([n for n in nouns if len(n) > 6])
        return f"{one} {two}", f"{one} {letter(two)}"

    def two() -> tuple[str, str]:
        return draw.choice(likes), draw.choice(plural)

    def spelling() -> Pair:
        (british, other), noun = draw.choice(BRITISH), draw.choice(nouns)
        return f"{british} {noun}", f"{other} {noun}"

    def turned() -> Pair:
        one, other = draw.sample(nouns, 2)
        way = draw.choice(("from {} to {}", "{} without {}", "{} vs {}", "{} before {}"))
        return way.format(one, other), way.format(other, one)

    rules: list[tuple[str, bool, Callable[[], Pair]]] = [
        ("order", True, lambda: (" ".join(w := draw.sample(nouns, 3)), " ".join(reversed(w)))),
        ("number", True, lambda: (" ".join(w := two()), f"{w[0]} {many[w[1]]}")),
        ("spelling", True, spelling),
        ("closed up", True, closed),
        ("slip", True, slip),
        (
            "a word more",
            False,
            lambda: (" ".join(w := two()), f"{' '.join(w)} {draw.choice(nouns)}"),
        ),
        ("another word", False, lambda: (" ".join(w := two()), f"{w[0]} {draw.choice(nouns)}")),
        ("direction", False, turned),
    ]
    for name, same, make in rules:
        for _ in range(PAIRS):
            one, other = make()
            if one != other:
                yield name, same, (one, other)


def gathering(lexicon: Lexicon) -> dict[str, dict[str, float]]:
    """By rule the share that is right, of the pairs that judge: ours, and by sorted words alone."""
    right: dict[str, list[tuple[bool, bool]]] = {}
    for number, (rule, same, pair) in enumerate(pairs_by_rule(lexicon)):
        if number % 2 == 0:
            continue  # may be used to tune
        ours = len(set(gather(pair, (2, 1), lexicon).heads.tolist())) == 1
        plain = sorted(words_of(pair[0])) == sorted(words_of(pair[1]))
        right.setdefault(rule, []).append((ours == same, plain == same))
    return {
        rule: {
            "ours": round(sum(o for o, _ in found) / len(found), 3),
            "sorted words": round(sum(p for _, p in found) / len(found), 3),
            "pairs": len(found),
        }
        for rule, found in right.items()
    }


def topics(part: str) -> dict[str, tuple[list[str], list[int]]]:
    """By topic its phrases and their groups; "all" has every topic of the part."""
    found: dict[str, tuple[list[str], list[int]]] = {}
    everything: tuple[list[str], list[int]] = ([], [])
    for topic in json.loads(GROUPS.read_text("utf-8"))["topics"]:
        if topic["part"] != part:
            continue
        phrases = [phrase for group in topic["groups"].values() for phrase in group]
        numbers = [i for i, group in enumerate(topic["groups"].values()) for _ in group]
        found[topic["topic"]] = phrases, numbers
        first = max(everything[1], default=-1) + 1
        everything[0].extend(phrases)
        everything[1].extend(number + first for number in numbers)
    return {**found, "all": everything}


def single(phrases: Sequence[str], folding: Folding) -> np.ndarray:
    """Single linkage on the share of words two phrases have in common."""
    words = [set(content_words(phrase, folding)) for phrase in phrases]
    apart = [
        1 - len(words[i] & words[j]) / len(words[i] | words[j])
        for i in range(len(words))
        for j in range(i + 1, len(words))
    ]
    found: np.ndarray = linkage(apart, "single")
    return found


def main() -> None:
    lexicon = load_lexicon()
    folding = Folding(lexicon)
    gathered = gathering(lexicon)
    for rule, found in gathered.items():
        print(f"{rule:<14} {found['ours']:.3f}  sorted words {found['sorted words']:.3f}")
    tuned = topics("tune")
    trees = {name: single(phrases, folding) for name, (phrases, _) in tuned.items()}
    cut = max(
        CUTS,
        key=lambda c: sum(
            rand(tuned[n][1], (fcluster(t, c, "distance") - 1).tolist()) for n, t in trees.items()
        ),
    )
    grouped = {}
    for name, (phrases, numbers) in topics("judge").items():
        tree = grow(Space(phrases, lexicon, folding))
        plain = (fcluster(single(phrases, folding), cut, "distance") - 1).tolist()
        grouped[name] = {
            "ours": round(rand(numbers, tree.groups(tree.cut).tolist()), 3),
            "single link": round(rand(numbers, plain), 3),
            "cut": tree.cut,
        }
        print(f"{name:<24} {grouped[name]['ours']:.3f}  single {grouped[name]['single link']:.3f}")
    print(json.dumps({"gathering": gathered, "grouping": grouped, "single link's cut": cut}))


if __name__ == "__main__":
    main()
