"""Reading briefs: every problem, each at its place."""

import contextlib
import json
from pathlib import Path

import jsonschema
import pytest
from hypothesis import given

from tests.strategies import briefs, json_values
from vinetag.core.brief import Brief, brief_document, parse_brief, parse_what_is_valid
from vinetag.core.errors import BriefError

SCHEMA = json.loads(Path("docs/brief.schema.json").read_text())


def problems(document: object) -> dict[str, str]:
    with pytest.raises(BriefError) as caught:
        parse_brief(document)
    assert all(p.text() for p in caught.value.problems)
    return {p.path: p.code for p in caught.value.problems}


@given(briefs)
def test_a_brief_survives_its_document(brief: Brief) -> None:
    document = brief_document(brief)
    assert parse_brief(json.loads(json.dumps(document))) == brief
    jsonschema.validate(document, SCHEMA)


@given(json_values)
def test_no_document_breaks_the_reader(document: object) -> None:
    with contextlib.suppress(BriefError):
        parse_brief(document)


@pytest.mark.parametrize(
    ("keyword", "code"),
    [
        ("   ", "blank"),
        ("a" * 300, "too_long"),
        ("бумага", "script"),
        ("紙", "script"),
        ("inkpost.com", "full_name"),
        ("ink 🖋", "letters_only"),
        ("<script>", "letters_only"),
        ("one two three four five six", "too_many"),
        (7, "not_text"),
        ("-'-", "blank"),
    ],
)
def test_a_keyword_that_will_not_do(keyword: object, code: str) -> None:
    found = problems({"keywords": ["ink", {"text": keyword}]})
    assert found == {"keywords.1.text": code}


def test_messages_name_what_was_typed() -> None:
    with pytest.raises(BriefError) as caught:
        parse_brief({"keywords": ["бумага"], "extensions": ["nosuch"]})
    said = [p.text() for p in caught.value.problems]
    assert "Cyrillic" in said[0]
    assert "“.nosuch”" in said[1]


def test_every_problem_is_told_at_once() -> None:
    found = problems(
        {
            "name": "n" * 81,
            "purpose": "fun",
            "keywords": ["ink", "ink", {"text": "post", "weight": 9}],
            "avoid": ["ink"],
            "limits": {"letters_max": 0, "words": "two", "vowels": 3},
            "extensions": [],
            "colour": "red",
        }
    )
    assert found == {
        "name": "too_long",
        "purpose": "unknown_choice",
        "keywords.0.text": "avoided_keyword",
        "keywords.1.text": "avoided_keyword",
        "keywords.1": "repeated",
        "keywords.2.weight": "out_of_range",
        "limits.letters_max": "out_of_range",
        "limits.words": "not_number",
        "limits.vowels": "unknown_field",
        "extensions": "too_few",
        "colour": "unknown_field",
    }


def test_limits_that_contradict_each_other() -> None:
    document = {"limits": {"letters_min": 9, "letters_max": 5}}
    assert problems(document) == {"limits.letters_min": "min_over_max"}


def test_five_hundred_keywords_are_too_many() -> None:
    found = problems({"keywords": [f"word{i}" for i in range(500)]})
    assert found == {"keywords": "too_many"}


def test_what_is_missing_takes_its_default() -> None:
    assert parse_brief({}) == Brief()
    assert parse_brief({"keywords": ["Ink-Post's"]}).keywords[0].words == ("ink", "posts")


@pytest.mark.parametrize(
    ("typed", "read"),
    [("Dún Laoghaire", "dun laoghaire"), ("Björk", "bjork"), ("Straße", "strasse"),
     ("Łódź", "lodz"), ("Søren’s", "sorens"), ("NAÏVE", "naive")],
)  # fmt: skip
def test_accents_are_taken_as_they_are_typed(typed: str, read: str) -> None:
    brief = parse_brief({"keywords": [typed], "places": [typed], "avoid": ["x" + typed]})
    assert brief.keywords[0].text == brief.places[0] == read
    assert brief.avoid == ("x" + read,)


def test_one_bad_entry_does_not_keep_the_others_out() -> None:
    before = parse_brief({"keywords": ["ink"], "limits": {"letters_max": 9}})
    document = {
        "keywords": ["paper", "🎈", {"text": "post", "weight": 9}, "club"],
        "places": ["Dún Laoghaire", "Москва"],
        "limits": {"letters_max": 99},
        "purpose": "world peace",
        "extensions": [],
        "nonsense": 1,
    }
    brief, wrong = parse_what_is_valid(document, before)
    assert [k.text for k in brief.keywords] == ["paper", "club"]
    assert brief.places == ("dun laoghaire",)
    assert (brief.limits, brief.purpose, brief.extensions) == (before.limits, "mix", ("com",))
    assert {p.path for p in wrong} == {
        "keywords.1.text", "keywords.2.weight", "places.1", "limits.letters_max", "purpose",
        "extensions", "nonsense",
    }  # fmt: skip
    assert parse_what_is_valid(7, before)[0] == before
    assert parse_what_is_valid({"keywords": ["ink"]}, before)[1] == ()
