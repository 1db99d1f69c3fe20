"""The models behind the measures, on samples kept from them; docs/quality.md has the whole."""

import random
from string import ascii_lowercase

import pytest
from hypothesis import given
from hypothesis import strategies as st

from scripts.judging import area_under_curve, for_tuning
from vinetag.core.grade.hearing import pronounceability
from vinetag.core.lexicon import load_lexicon
from vinetag.core.lexicon.graphones import held_out
from vinetag.core.lexicon.segment import segment

LEXICON = load_lexicon()
RNG = random.Random(5)


def sample(items: list[str], count: int) -> list[str]:
    return random.Random(5).sample(sorted(items), count)


def ease(word: str) -> float:
    said = LEXICON.graphones.say(word)
    return pronounceability(word, said[0].phones if said else (), LEXICON)


def test_words_are_easier_to_say_than_their_letters_shuffled() -> None:
    unseen = [
        w
        for w in LEXICON.sounds.words()
        if w.isalpha() and held_out(w) and len(w) > 4 and LEXICON.words[w].zipf > 3
    ]
    words = sample(unseen, 250)
    mixed = ["".join(RNG.sample(w, len(w))) for w in words]
    noise = ["".join(RNG.choices(ascii_lowercase, k=len(w))) for w in words]
    real = [ease(w) for w in words]
    assert area_under_curve(real, [ease(w) for w in mixed]) > 0.95
    assert area_under_curve(real, [ease(w) for w in noise]) > 0.98


def test_closed_up_entries_are_read_as_they_are() -> None:
    pairs = [
        phrase
        for phrase in LEXICON.thesaurus.phrases()
        if phrase.count(" ") == 1
        and all(w.isalpha() and w in LEXICON.words for w in phrase.split())
        and phrase.replace(" ", "") not in LEXICON.words
        and not for_tuning(phrase)
    ]
    judged = sample(pairs, 600)
    right = sum(segment(p.replace(" ", ""), LEXICON) == p.split() for p in judged)
    assert right / len(judged) > 0.98


def test_words_of_one_sense_are_closer_than_others_as_common() -> None:
    heads = [
        w.text
        for w in LEXICON.words.values()
        if w.pos[:1] == "n" and w.zipf > 4 and not w.lemma and len(w.text) > 3
    ]
    related, others = [], []
    for head in sample(heads, 200):
        senses = LEXICON.thesaurus.senses(head)
        words = [w for s in senses[:1] for w in s.words if w != head and w in LEXICON.words]
        if words:
            related.append(LEXICON.closeness(head, words[:1])[0])
            others.append(LEXICON.closeness(head, [RNG.choice(heads)])[0])
    assert len(related) > 50
    assert area_under_curve(related, others) > 0.85


def test_closeness_by_hand() -> None:
    near, far, unknown = LEXICON.closeness("piano", ["violin", "harbour", "qzxv"])
    assert near > 0 > far
    assert unknown < far
    assert LEXICON.closeness("piano", ["violin"]) == pytest.approx([near])
    assert LEXICON.closeness("violin", ["piano"]) == pytest.approx([near])
    assert LEXICON.closeness("piano", []) == []


values = st.lists(st.floats(-5, 5), min_size=1, max_size=20)


class TestAreaUnderTheCurve:
    def test_by_hand(self) -> None:
        assert area_under_curve([3, 2], [1, 0]) == 1
        assert area_under_curve([1], [1]) == 0.5
        assert area_under_curve([2, 0], [1]) == 0.5
        assert area_under_curve([1, 3], [2, 0]) == 0.75

    @given(values, values)
    def test_it_counts_the_pairs_in_order(self, higher: list[float], lower: list[float]) -> None:
        pairs = [(a > b) + 0.5 * (a == b) for a in higher for b in lower]
        assert area_under_curve(higher, lower) == pytest.approx(sum(pairs) / len(pairs))

    def test_every_item_is_for_tuning_or_for_judging(self) -> None:
        share = sum(for_tuning(str(i)) for i in range(2_000)) / 2_000
        assert 0.45 < share < 0.55
