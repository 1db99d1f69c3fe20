"""The ranking from duels, its uncertainty, and which pair is asked next."""

import math
import random

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from vinetag.core.duels import ENOUGH, PRIOR_VARIANCE, Duel, rank

NAMES = ("inkpost", "inkwell", "goink", "penny")
DUELS = st.lists(
    st.builds(Duel, st.sampled_from(NAMES), st.sampled_from(NAMES), st.booleans()), max_size=20
)


def test_without_answers_all_are_equal_and_nothing_is_certain() -> None:
    ranking = rank(NAMES, [])
    assert [s.label for s in ranking.standings] == list(NAMES)
    assert {s.strength for s in ranking.standings} == {0.0}
    assert all(s.error == pytest.approx(math.sqrt(PRIOR_VARIANCE)) for s in ranking.standings)
    assert ranking.certainty == pytest.approx(1 / 4, abs=0.05)
    assert not ranking.enough
    assert ranking.pair


def test_one_duel_by_hand() -> None:
    """With one answer the mode solves a = v(1 - p), b = -a, p = logistic(a - b)."""
    first, second = rank(NAMES[:2], [Duel("inkwell", "inkpost")]).standings
    assert (first.label, second.strength) == ("inkwell", pytest.approx(-first.strength))
    chance = 1 / (1 + math.exp(-2 * first.strength))
    assert first.strength == pytest.approx(PRIOR_VARIANCE * (1 - chance), abs=1e-9)
    # Information along the difference: 2/v from the prior for (a - b)/sqrt 2, plus 2 p(1 - p).
    along = 1 / (1 / PRIOR_VARIANCE + 2 * chance * (1 - chance))
    assert first.error**2 == pytest.approx((PRIOR_VARIANCE + along) / 2)


@given(DUELS)
@settings(max_examples=80, deadline=None)
def test_properties(duels: list[Duel]) -> None:
    ranking = rank(NAMES, duels)
    assert {s.label for s in ranking.standings} == set(NAMES)
    assert sum(s.best for s in ranking.standings) == pytest.approx(1)
    assert sum(s.strength for s in ranking.standings) == pytest.approx(0, abs=1e-6)
    strengths = [s.strength for s in ranking.standings]
    assert strengths == pytest.approx(sorted(strengths, reverse=True), abs=1e-8)
    assert all(0 < s.error <= math.sqrt(PRIOR_VARIANCE) + 1e-9 for s in ranking.standings)
    assert ranking.pair
    assert ranking.pair[0] != ranking.pair[1]
    real = [d for d in duels if d.winner != d.loser]
    assert sum(s.duels for s in ranking.standings) == 2 * len(real)
    turned = rank(NAMES, [d._replace(winner=d.loser, loser=d.winner) for d in real if not d.tie])
    plain = rank(NAMES, [d for d in real if not d.tie])
    for one in plain.standings:
        [other] = [s for s in turned.standings if s.label == one.label]
        assert other.strength == pytest.approx(-one.strength, abs=1e-6)


def test_a_tie_moves_neither_but_tells_something() -> None:
    one, other = rank(NAMES[:2], [Duel("inkpost", "inkwell", tie=True)]).standings
    assert one.strength == other.strength == pytest.approx(0)
    assert one.error < math.sqrt(PRIOR_VARIANCE)


def test_asking_what_tells_most_finds_the_best_in_few_duels() -> None:
    rng = random.Random(4)
    labels = [f"name{i}" for i in range(10)]
    truth = {label: 3.0 - 0.8 * i for i, label in enumerate(labels)}

    def asked_until_enough(chosen: bool) -> int:
        duels: list[Duel] = []
        order = rng.sample(labels, len(labels))
        ranking = rank(order, duels)
        for count in range(1, 400):
            pair = ranking.pair if chosen else tuple(rng.sample(order, 2))
            assert pair
            one, other = pair
            wins = rng.random() < 1 / (1 + math.exp(truth[other] - truth[one]))
            duels.append(Duel(one, other) if wins else Duel(other, one))
            ranking = rank(order, duels)
            if ranking.certainty >= ENOUGH:
                return count
        return 400

    by_choice = sorted(asked_until_enough(True) for _ in range(5))
    by_chance = sorted(asked_until_enough(False) for _ in range(5))
    assert by_choice[2] < by_chance[2]


def test_names_no_longer_kept_are_passed_over() -> None:
    ranking = rank(("inkpost",), [Duel("inkpost", "gone"), Duel("gone", "inkpost")])
    assert [s.duels for s in ranking.standings] == [0]
    assert ranking.pair is None
    assert rank((), []).standings == []
