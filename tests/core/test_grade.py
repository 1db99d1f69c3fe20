"""Measures: the contract each keeps, worked examples, and how they are weighed."""

import random

import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from tests.strategies import briefs, labels
from vinetag.core.brief import Brief, parse_brief
from vinetag.core.candidates import Candidate
from vinetag.core.errors import BriefError
from vinetag.core.grade import (
    MEASURES,
    PRESETS,
    Grader,
    Measure,
    misspellings,
    shares,
    warnings,
    weigh,
    weights_of,
)
from vinetag.core.grade.judge import hearing_of
from vinetag.core.grade.scale import reasons
from vinetag.core.lexicon import load_lexicon
from vinetag.core.make import make_names
from vinetag.core.names import parse_label

LEXICON = load_lexicon()
NAMES = [m.name for m in MEASURES]


def grader(*words: str, **fields: object) -> Grader:
    return Grader(parse_brief({"keywords": list(words), **fields}), LEXICON, MEASURES)


def explained(
    label: str, *words: str, **fields: object
) -> dict[str, tuple[float | None, list[str]]]:
    one = grader(*words, **fields)
    found = one.explain(one.read_label(parse_label(label)))
    return {name: (score, [r.text for r in why]) for name, (score, why) in found.items()}


def score(measure: str, label: str, *words: str, **fields: object) -> float:
    found = explained(label, *words, **fields)[measure][0]
    assert found is not None
    return found


@pytest.mark.parametrize("measure", MEASURES, ids=lambda m: m.name)
class TestEveryMeasure:
    @given(label=labels, of=briefs)
    @example(label="a" * 63, of=parse_brief({}))
    @example(label="7", of=parse_brief({"keywords": ["ink"]}))
    @example(label="xn--e1afmkfd", of=parse_brief({"keywords": ["ink"]}))
    @settings(max_examples=60, deadline=None)
    def test_any_label_gets_a_score_or_is_said_not_to_be_graded(
        self, measure: Measure, label: str, of: Brief
    ) -> None:
        reading = Grader(of, LEXICON, MEASURES).read_label(label)
        found = measure.assess(reading)
        told = reasons(measure, found)
        assert found == measure.assess(reading)
        assert 1 <= len(told) <= 3
        if found.score is None:
            assert told[0].text.startswith("Not graded, because")
        else:
            assert 0 <= found.score <= 100
        for reason in told:
            assert reason.text[-1] in ".?”"
            assert "{" not in reason.text
            assert 0 <= reason.start <= reason.end <= len(label)

    def test_it_is_weighed_for_every_purpose(self, measure: Measure) -> None:
        assert all(0 < weights[measure.name] <= 10 for weights in PRESETS.values())

    def test_what_it_says_is_about_the_name(self, measure: Measure) -> None:
        """No sentence without something of the name in it."""
        assert all("{" in wording for wording in measure.wording.values() if "brief" not in wording)


def test_grading_one_by_one_or_in_any_order_is_the_same() -> None:
    of = parse_brief({"keywords": ["paper", "ink"]})
    made = [g.candidate for g in make_names(of, LEXICON, limit=200).names]
    typed = [Candidate(c.label, (), (), 0.0) for c in made[:60]]
    one = Grader(of, LEXICON, MEASURES)
    in_bulk = [one.grade(one.read_any(c)) for c in made + typed]
    shuffled = list(range(len(in_bulk)))
    random.Random(3).shuffle(shuffled)
    hearing_of(LEXICON).forget_names()
    hearing_of(LEXICON).word.cache_clear()
    for i in shuffled:
        alone = Grader(of, LEXICON, MEASURES)
        assert alone.grade(alone.read_any((made + typed)[i])) == in_bulk[i]


@given(st.lists(labels, max_size=6))
def test_many_names_are_graded_as_each_alone(found: list[str]) -> None:
    of = {"about": "A club for people who write letters.", "extensions": ["com"]}
    together, apart = grader("ink", "letter", **of), grader("ink", "letter", **of)
    readings = [together.read_label(label) for label in found]
    for grade, label in zip(together.grades(readings), found, strict=True):
        alone = apart.grade(apart.read_label(label))
        assert grade.grade == pytest.approx(alone.grade, abs=1e-3)
        assert grade.scores == pytest.approx(alone.scores, abs=1e-3)


def test_length_by_hand() -> None:
    assert score("length", "inkpost") == 100
    # 15 letters, 5 beyond ten; 4 beats are within bounds.
    assert score("length", "letterpressclub") == 100 - 6 * 5
    assert score("length", "ink") == 100 - 5 * 2
    assert score("length", "ink-post") == 92
    assert score("length", "letterpressclub", purpose="descriptive") == 100 - 4.5
    assert score("length", "inkpost", extensions=["photography"]) < 100
    told = explained("ink-post")["length"][1]
    assert "The hyphen after “ink” is one more thing to type and to say." in told


@pytest.mark.parametrize(
    ("label", "most", "telling", "wrong"),
    [
        ("knightsky", 40, "heard as “night” too", "nightsky"),
        ("klaypost", 40, "heard as “clay” too", "claypost"),
        ("ink4post", 60, "heard as “four”", "inkfourpost"),
        ("ink-post", 35, "The hyphen is not heard", "inkpost"),
        ("blackkite", 90, "where “black” meets “kite” is heard as one", "blackite"),
        ("bücher", 50, "“ü” is not heard", "bucher"),
        ("pstlpress", 20, "cannot be said as a word", ""),
        ("brandolo", 60, "heard as “bran-duh-loh”", "brandalo"),
    ],
)
def test_spelling_hears_what_goes_wrong(label: str, most: float, telling: str, wrong: str) -> None:
    found, told = explained(label)["spelling"]
    assert found is not None
    assert found < most < score("spelling", "paperboat")
    assert any(telling in t for t in told), told
    one = grader()
    listed = dict(misspellings(one.read_label(parse_label(label))))
    assert not wrong or listed[wrong] == pytest.approx(max(listed.values()), rel=0.99)


@given(labels)
@settings(max_examples=80, deadline=None)
def test_misspellings_are_other_names_the_likeliest_first(label: str) -> None:
    listed = misspellings(grader().read_label(label))
    assert label not in dict(listed)
    found = [share for _, share in listed]
    assert found == sorted(found, reverse=True)
    assert all(0 < share <= 1 for share in found)
    assert len(listed) <= 10


def test_a_word_that_sounds_alike_is_less_likely_where_it_makes_no_sense() -> None:
    mail = dict(misspellings(grader().read_label("mailpost")))["malepost"]
    assert mail < dict(misspellings(grader().read_label("mail")))["male"]


def test_fit_counts_the_keywords_carried() -> None:
    fit = {
        label: score("fit", label, "ink", "post", name="Pressroom")
        for label in ("inkpost", "postink", "inkwell", "inking", "incpost", "envelope", "otterly")
    }
    assert fit["inkpost"] >= fit["postink"] > fit["inkwell"] > fit["otterly"] == 0
    assert fit["inkpost"] > fit["inking"] > fit["envelope"] > fit["otterly"]
    assert fit["inkpost"] > fit["incpost"] > fit["otterly"]
    assert score("fit", "pressroom", "ink", name="Pressroom") > 80
    light = {"keywords": [{"text": "ink", "weight": 1}, {"text": "post", "weight": 5}]}
    one = Grader(parse_brief(light), LEXICON, MEASURES)
    by_weight = [one.grade(one.read_label(t)).scores["fit"] for t in ("postwell", "inkwell")]
    assert by_weight[0] > by_weight[1]


@pytest.mark.parametrize(
    ("label", "words", "told"),
    [
        ("pianotuner", "piano tuning", "Carries “tuning” (weight 3 of 5) as “tuner”."),
        ("starnight", "stars night", "Carries “stars” (weight 3 of 5) as “star”."),
        ("nightstars", "stars night", "Carries “stars” as well (weight 3 of 5)."),
    ],
)
def test_a_keyword_in_another_form_is_told_and_graded_alike_made_and_typed(
    label: str, words: str, told: str
) -> None:
    of = parse_brief({"keywords": words.split()})
    [made] = [g for g in make_names(of, LEXICON).names if g.candidate.label == label]
    fit, why = explained(label, *words.split())["fit"]
    assert made.grade.scores["fit"] == fit
    assert told in why


def test_fit_says_what_it_found() -> None:
    told = explained("stationeryclub", "paper")["fit"][1]
    assert told[0].startswith("“stationery” is closer in meaning to “paper” than 9")
    assert explained("incpost", "ink")["fit"][1][0] == "“inc” sounds like your word “ink”."
    assert "none of your words" in explained("brandolo", "ink")["fit"][1][0]
    assert explained("inkpost")["fit"] == (
        None, ["Not graded, because the brief has no words to compare it with."],
    )  # fmt: skip


def test_sound_by_hand() -> None:
    assert score("sound", "skyowl") >= 85
    assert score("sound", "brightstrand") < score("sound", "skyboat")
    assert score("sound", "pstlpress") < 30
    assert score("sound", "readroom") < score("sound", "bookroom")
    told = explained("brightstrand")["sound"][1]
    assert "4 consonants meet where “bright” joins “strand”." in told
    assert (
        "“read” is said “reed” or “red”, and nothing tells which."
        in (explained("readroom")["sound"][1])
    )
    assert any("of English words" in t for t in explained("xkvorta")["sound"][1])


def test_memory_by_hand() -> None:
    assert score("memory", "skyowl") > score("memory", "truthquota") > score("memory", "quixaria")
    assert score("memory", "paperboat") > score("memory", "paperboatclubhouse")
    told = explained("foxfield")["memory"][1]
    assert "“fox” can be pictured: an animal." in told
    assert "“peak” and “peril” begin alike." not in told
    one = grader()
    memory = next(m for m in MEASURES if m.name == "memory")
    every = {r.code for r in memory.assess(one.read_label("peakperil")).findings}
    assert "alliteration" in every


def test_clarity_by_hand() -> None:
    assert score("clarity", "paperpost") > 95
    found, told = explained("pressexchange")["clarity"]
    assert found is not None
    assert found < 50
    assert told[0] == "“sex” can be read in it."
    assert score("clarity", "inksandpress", "ink", "sand") < 70
    assert score("clarity", "l1lypad") < score("clarity", "lilypad")
    assert score("clarity", "pstl") < 90
    # Inside an ordinary word nothing is unlucky.
    assert score("clarity", "sussexpress") > 60


@pytest.mark.parametrize(
    ("label", "code", "letters"),
    [
        ("gogle", "autocorrect", "gogle"),
        ("pressexchange", "unlucky", "sex"),
        ("knightsky", "homophone", "knight"),
        ("post4all", "digit", "4"),
        ("ink-post", "hyphen", "-"),
        ("barnmill", "alike", "rn"),
        ("letterpresspapercompany", "long", "any"),
    ],
)
def test_every_warning_speaks_of_its_letters(label: str, code: str, letters: str) -> None:
    one = grader("ink")
    found = {w.code: w for w in warnings(one.read_label(label))}
    if code == "autocorrect":
        assert any(w.code == code for w in warnings(one.read_label("letterz")))
        return
    assert code in found, found
    assert label[found[code].start : found[code].end] == letters
    assert warnings(one.read_label("skyowl")) == []


def test_names_in_other_letters_have_a_length_and_no_grade() -> None:
    one = grader("ink")
    grade = one.grade(one.read_label(parse_label("пример")))
    assert not grade.whole
    assert set(grade.scores) == {"length"}
    assert one.grade(one.read_label(parse_label("bücher"))).whole


scored = st.fixed_dictionaries({name: st.floats(0, 100) for name in NAMES})
weighted = st.fixed_dictionaries({name: st.integers(0, 10) for name in NAMES})


class TestTheGrade:
    @given(scored, weighted)
    def test_it_lies_between_its_measures_and_not_above_their_mean(
        self, scores: dict[str, float], weights: dict[str, int]
    ) -> None:
        grade = weigh(scores, weights)
        counted = [scores[n] for n in NAMES if weights[n]] or list(scores.values())
        assert min(counted) - 1e-6 <= grade <= max(counted) + 1e-6
        mean = sum(scores[n] * share for n, share in shares(weights).items())
        assert grade <= mean + 1e-6

    @given(scored, weighted, st.sampled_from(NAMES), st.floats(0, 50))
    def test_a_better_measure_never_lowers_it(
        self, scores: dict[str, float], weights: dict[str, int], name: str, more: float
    ) -> None:
        better = {**scores, name: min(100.0, scores[name] + more)}
        assert weigh(better, weights) >= weigh(scores, weights) - 1e-6

    def test_a_very_low_measure_pulls_it_down_more_than_an_average_would(self) -> None:
        # By hand: ((100^0.4 + 0) / 2)^(1 / 0.4) = 100 / 2^2.5
        assert weigh({"a": 100, "b": 0}, {"a": 1, "b": 1}) == pytest.approx(100 / 2**2.5)
        assert weigh({"a": 50, "b": 50}, {"a": 1, "b": 1}) == pytest.approx(50)

    def test_what_was_not_given_is_not_counted(self) -> None:
        assert weigh({"length": 80.0}, PRESETS["brand"]) == pytest.approx(80)
        assert weigh({}, PRESETS["mix"]) == 0

    def test_weights_come_from_the_person_or_the_purpose(self) -> None:
        assert weights_of(parse_brief({"purpose": "brand"})) == PRESETS["brand"]
        own = parse_brief({"weights": {"length": 10, "fit": 2}})
        assert weights_of(own) == {"length": 10, "fit": 2}

    @pytest.mark.parametrize(
        ("weights", "path"),
        [({"length": 11}, "weights.length"), ({"beauty": 1}, "weights.beauty"),
         ({"length": 0}, "weights"), ([], "weights"), ({"fit": "much"}, "weights.fit")],
    )  # fmt: skip
    def test_odd_weights_are_refused(self, weights: object, path: str) -> None:
        with pytest.raises(BriefError) as caught:
            parse_brief({"weights": weights})
        assert [p.path for p in caught.value.problems] == [path]


@pytest.mark.parametrize(
    "label", ["peed", "goldenshower", "pissbeach", "inkfart", "beachgoldenshowerclub", "sexpress"]
)
def test_rude_and_unlucky_readings_are_warned_of(label: str) -> None:
    found = {
        w.code
        for w in warnings(Grader(parse_brief({}), load_lexicon(), MEASURES).read_label(label))
    }
    assert "unlucky" in found


@pytest.mark.parametrize("label", ["paperpost", "speedpress", "passport", "shiitake", "inkpeel"])
def test_ordinary_names_are_not(label: str) -> None:
    found = {
        w.code
        for w in warnings(Grader(parse_brief({}), load_lexicon(), MEASURES).read_label(label))
    }
    assert "unlucky" not in found
