"""Who goes by a name already, and what correctors make of it."""

from __future__ import annotations

import pytest

from tests.core.reading import LEXICON, reading
from vinetag.core.vet import (
    SearchAnswer,
    correction,
    prior_findings,
    searches,
)
from vinetag.core.vet.opensearch import Result, Results


def answer(asked_: str, count: int, *results: Result, correction_: str = "") -> SearchAnswer:
    return SearchAnswer(asked_, Results(count, results, correction_))


SOMEBODY = Result(
    "Inkpost: letterpress cards", "Paper, ink and print by post", "https://www.inkpost.example/"
)
ELSEWHERE = Result("Inkpost", "Oil drilling equipment and pipes", "https://drill.example/inkpost")
ABOUT_IT = Result("On inkpost and gardens", "Seeds and spades", "https://forum.example/1")


@pytest.mark.parametrize(
    ("answers", "code", "weight"),
    [
        ([answer("inkpost", 20, SOMEBODY)], "use_somebody", "stop"),
        ([answer("inkpost", 20, ELSEWHERE)], "use_elsewhere", "think"),
        ([answer("inkpost", 20, ABOUT_IT)], "use_clear", "clear"),
        ([answer("inkpost", 5_000, ABOUT_IT)], "use_some", "note"),
        ([answer("inkpost", 9_000_000, ABOUT_IT)], "use_common", "note"),
        ([SearchAnswer("inkpost", None, "it failed")], "use_unknown", "unknown"),
        ([SearchAnswer("inkpost", None), answer("inkpost ink", 3)], "use_unknown", "unknown"),
    ],
)
def test_who_goes_by_a_name(answers: list[SearchAnswer], code: str, weight: str) -> None:
    one = reading("inkpost")
    finding = prior_findings(one, one.world, answers)[0]
    assert (finding.code, finding.weight) == (code, weight)


def test_a_correction_of_the_service_is_told() -> None:
    one = reading("inkpost")
    found = prior_findings(one, one.world, [answer("inkpost", 3, correction_="ink post")])
    assert [f.code for f in found] == ["use_clear"]  # the same letters
    found = prior_findings(one, one.world, [answer("inkpost", 3, correction_="impost")])
    assert [f.code for f in found] == ["use_clear", "corrected"]


def test_what_is_searched_for() -> None:
    assert searches(reading("inkpost"), "paper") == ["inkpost", "ink post", "inkpost paper"]
    assert searches(reading("zorvo"), "") == ["zorvo"]


@pytest.mark.parametrize(
    ("typed", "meant"), [("recieve", "receive"), ("lettr", "letter"), ("papper", "paper")]
)
def test_a_slip_is_taken_for_the_word(typed: str, meant: str) -> None:
    found = correction(typed, LEXICON)
    assert found.meant == meant
    assert found.risk > 0.8


@pytest.mark.parametrize("typed", ["inkpost", "paper", "x", "9lives", "zorvex"])
def test_what_is_known_or_far_from_words_is_left_alone(typed: str) -> None:
    assert correction(typed, LEXICON).risk < 0.3
