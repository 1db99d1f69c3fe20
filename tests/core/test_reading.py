"""How a typed name is read: its words, and what of the keywords they carry."""

import pytest
from hypothesis import given, settings

from tests.strategies import briefs, labels
from vinetag.core.brief import Brief, parse_brief
from vinetag.core.candidates import Candidate
from vinetag.core.grade import MEASURES, Grader, Reading
from vinetag.core.lexicon import load_lexicon
from vinetag.core.make import make_names
from vinetag.core.names import parse_label

LEXICON = load_lexicon()


def read(label: str, *words: str, **fields: object) -> Reading:
    brief = parse_brief({"keywords": list(words), **fields})
    return Grader(brief, LEXICON, MEASURES).read_label(parse_label(label))


def carried(reading: Reading) -> list[tuple[str, str, str]]:
    return [(p.text, p.kind, p.keyword) for p in reading.carried]


@pytest.mark.parametrize(
    ("label", "words", "found"),
    [
        ("inkpost", ("ink", "post"), [("ink", "keyword", "ink"), ("post", "keyword", "post")]),
        ("printedroom", ("print",), [("printed", "form", "print")]),
        ("incroom", ("ink",), [("inc", "homophone", "ink")]),
        ("violinroom", ("piano",), [("violin", "kin", "piano")]),
        ("smallbusinessbox", ("small business",), [("smallbusiness", "keyword", "small business")]),
        ("otterly", ("ink",), []),
    ],
)
def test_what_is_carried(
    label: str, words: tuple[str, ...], found: list[tuple[str, str, str]]
) -> None:
    assert carried(read(label, *words)) == found


def test_two_words_close_to_one_keyword_stay_two() -> None:
    parts = carried(read("violinpiano", "piano"))
    assert parts == [("violin", "kin", "piano"), ("piano", "keyword", "piano")]


def test_letters_left_over_make_one_new_word() -> None:
    assert read("brandolo").words == [(0, "brandolo")]
    assert read("brand-olo").words == [(0, "brand"), (6, "olo")]
    assert read("post4you").words == [(0, "post"), (4, "4"), (5, "you")]


def test_accents_are_read_away_and_remembered() -> None:
    reading = read("bücher")
    assert (reading.label, reading.accented) == ("bucher", "bücher")
    assert not reading.foreign
    assert read("inkpost").accented == ""
    assert read("пример").foreign
    assert read("straße").accented == ""


def test_an_accented_name_and_its_plain_form_are_graded_apart() -> None:
    grader = Grader(parse_brief({}), LEXICON, MEASURES)
    for _ in range(2):
        plain = grader.grade(grader.read_label("bucher")).scores["spelling"]
        accented = grader.grade(grader.read_label(parse_label("bücher"))).scores["spelling"]
        assert accented == pytest.approx(plain / 2, rel=0.01)


@given(labels, briefs)
@settings(max_examples=80, deadline=None)
def test_words_stand_where_they_say(label: str, of: Brief) -> None:
    reading = Grader(of, LEXICON, MEASURES).read_label(label)
    if reading.foreign:
        return
    for at, word in reading.words:
        assert reading.label[at : at + len(word)] == word
    assert "".join(w for _, w in reading.words) == reading.label.replace("-", "")
    for part in reading.carried:
        assert reading.label[part.start : part.start + len(part.text)] == part.text
        assert part.keyword in reading.keywords


def test_a_made_name_is_read_by_its_parts() -> None:
    of = parse_brief({"keywords": ["garden", "bread"]})
    grader = Grader(of, LEXICON, MEASURES)
    for name in make_names(of, LEXICON, limit=100).names:
        reading = grader.read_any(name.candidate)
        assert [w for _, w in reading.words] == [
            p.text for p in name.candidate.parts if p.kind != "hyphen"
        ]
        letters = Candidate(name.candidate.label, (), (), 0.0)
        assert grader.read_any(letters).label == name.candidate.label
