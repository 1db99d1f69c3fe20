"""Measures: the contract each keeps, worked examples, and how they are weighed."""

import pytest
from hypothesis import given, settings

from tests.strategies import briefs, labels
from vinetag.core.brief import Brief, parse_brief
from vinetag.core.grade import MEASURES, WEIGHTS, Grader, Measure, weigh
from vinetag.core.grade.scale import reasons
from vinetag.core.lexicon import load_lexicon
from vinetag.core.lexicon.segment import segment
from vinetag.core.make import make_names

LEXICON = load_lexicon()


def grader(*words: str, **fields: object) -> Grader:
    return Grader(parse_brief({"keywords": list(words), **fields}), LEXICON, MEASURES)


def explained(label: str, *words: str, **fields: object) -> dict[str, tuple[float, list[str]]]:
    one = grader(*words, **fields)
    found = one.explain(one.read_label(label))
    return {name: (score, [r.text for r in why]) for name, (score, why) in found.items()}


@pytest.mark.parametrize("measure", MEASURES, ids=lambda m: m.name)
class TestEveryMeasure:
    @given(label=labels, of=briefs)
    @settings(max_examples=60, deadline=None)
    def test_any_label_gets_a_score_and_reasons(
        self, measure: Measure, label: str, of: Brief
    ) -> None:
        reading = Grader(of, LEXICON, MEASURES).read_label(label)
        found = measure.assess(reading)
        assert 0 <= found.score <= 100
        assert found == measure.assess(reading)
        told = reasons(measure, found)
        assert told
        for reason in told:
            assert reason.text
            assert "{" not in reason.text
            assert 0 <= reason.start <= reason.end <= len(label)

    def test_it_is_weighed_for_every_purpose(self, measure: Measure) -> None:
        assert all(measure.name in weights for weights in WEIGHTS.values())

    @pytest.mark.parametrize("label", ["a", "7", "a" * 63, "1234567", "x-y-z", "xn--bcher-kva"])
    def test_odd_labels_too(self, measure: Measure, label: str) -> None:
        found = measure.assess(grader().read_label(label))
        assert 0 <= found.score <= 100


def test_grading_one_by_one_or_in_any_order_is_the_same() -> None:
    of = parse_brief({"keywords": ["paper", "ink"]})
    made = make_names(of, LEXICON, limit=200).names
    one = Grader(of, LEXICON, MEASURES)
    again = {g.candidate.label: one.grade(one.read(g.candidate)) for g in reversed(made)}
    assert all(again[g.candidate.label] == g.grade for g in made)


def test_length_by_hand() -> None:
    assert explained("inkpost")["length"][0] == 100
    assert explained("letterpressclub")["length"][0] == 100 - 7 * 6  # 15 letters, 6 beyond nine
    assert explained("ink")["length"][0] == 100 - 5 * 2
    score, told = explained("ink-post")["length"]
    assert score == 92
    assert "1 hyphen to type and to say." in told


def test_spelling_hears_what_goes_wrong() -> None:
    plain = explained("paperpost")["spelling"][0]
    assert plain == 100
    for label, telling in (
        ("knightpost", "“kn” in “knight”"),
        ("mailpost", "“mail” sounds like “male”"),
        ("ink4post", "in digits or in words"),
        ("ink-post", "“inkpost” is what people will type"),
        ("blackkite", "one letter may be lost"),
        ("zzyxqpost", "no word people know"),
    ):
        score, told = explained(label)["spelling"]
        assert score < plain, label
        assert any(telling in t for t in told), (label, told)


def test_fit_counts_the_keywords_carried() -> None:
    fit = {
        label: explained(label, "ink", "post", name="Pressroom")["fit"][0]
        for label in ("inkpost", "inkwell", "postbox", "otterly", "pressroom")
    }
    assert fit["inkpost"] > fit["inkwell"] > fit["otterly"] == 0
    assert fit["pressroom"] > 50
    score, told = explained("inkpost")["fit"]
    assert (score, told) == (50, ["No words were given to compare it with."])


def test_the_grade_is_the_weighted_mean() -> None:
    scores = {"length": 100.0, "spelling": 50.0, "fit": 0.0}
    assert weigh(scores, "descriptive") == pytest.approx(0.2 * 100 + 0.3 * 50)
    assert weigh({"length": 80.0}, "brand") == 80
    assert weigh({}, "mix") == 0
    assert all(sum(w.values()) == pytest.approx(1) for w in WEIGHTS.values())


@pytest.mark.parametrize(
    ("closed", "words"),
    [
        ("inkpost", ["ink", "post"]),
        ("paperboat", ["paper", "boat"]),
        ("thequietsky", ["the", "quiet", "sky"]),
        ("bookkeeper", ["bookkeeper"]),
        ("club42", ["club", "42"]),
        ("a", ["a"]),
        ("", []),
    ],
)
def test_closed_names_fall_into_words(closed: str, words: list[str]) -> None:
    assert segment(closed, LEXICON) == words


def test_given_words_are_seen_first() -> None:
    assert segment("harrowmerepiano", LEXICON, {"harrowmere"}) == ["harrowmere", "piano"]


@given(labels)
def test_segments_spell_the_name(label: str) -> None:
    closed = label.replace("-", "")
    assert "".join(segment(closed, LEXICON)) == closed
