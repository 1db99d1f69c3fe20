"""Documents from outside: whatever stands in them, each problem is told at its place, and what is
taken is as its schema describes it.
"""

from __future__ import annotations

import contextlib
import json
from dataclasses import fields
from pathlib import Path
from typing import Any

import jsonschema
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.strategies import json_values
from vinetag.apps.accounts.preferences import Preferences, PreferencesError, changed
from vinetag.apps.bench.document import FORMAT, VERSION, read_document
from vinetag.core.errors import Problem, QuestionError
from vinetag.core.sheet import Question, parse_question

DOCS = Path("docs")
PREFERENCES = json.loads((DOCS / "preferences.schema.json").read_text("utf-8"))
PROJECT = json.loads((DOCS / "project.schema.json").read_text("utf-8"))
QUESTION = [field.name for field in fields(Question)]
words = st.one_of(
    st.text(max_size=70),
    st.sampled_from(["1", "yes", "grade", "fit:60", ".com", "any,.ie", "kept", "9e9", "nan", "-1"]),
)


@given(st.dictionaries(st.sampled_from(QUESTION), words))
def test_no_address_breaks_the_sheet(asked: dict[str, str]) -> None:
    problems: list[Problem] = []
    try:
        parse_question(asked, ("com", "ie"))
    except QuestionError as error:
        problems += error.problems
    assert {p.path for p in problems} <= asked.keys()
    assert all(p.text() for p in problems)


@given(
    st.dictionaries(st.sampled_from([f.name for f in fields(Preferences)]), json_values, max_size=4)
)
def test_what_is_taken_as_preferences_is_as_described(part: dict[str, Any]) -> None:
    with contextlib.suppress(PreferencesError):
        kept = changed({}, part)
        jsonschema.validate(kept, PREFERENCES)
        assert changed({}, json.loads(json.dumps(kept))) == kept


@given(st.sampled_from(sorted(set(PROJECT["properties"]) - {"format", "version"})), json_values)
def test_a_file_tells_where_it_is_wrong(field: str, value: Any) -> None:
    content = json.dumps({"format": FORMAT, "version": VERSION, field: value}).encode()
    file, problems = read_document(content)
    assert (file is None) == bool(problems)
    assert all(p.path.split(".")[0] in (field, "file") for p in problems)
    assert all(p.text() for p in problems)


@pytest.mark.parametrize(
    ("entry", "places"),
    [
        ({"label": "ink", "note": 7, "tags": ["a", 3]}, ["note", "tags.1"]),
        ({"label": "no name", "strength": 2}, ["label", "strength"]),
        ({"label": "ink", "parts": [{"text": "sea", "kind": "keyword", "start": 0}]}, [""]),
    ],
)
def test_every_problem_of_an_entry_is_told(entry: dict[str, Any], places: list[str]) -> None:
    document = {"format": FORMAT, "version": VERSION, "shortlist": [{"label": "inkpost"}, entry]}
    _, problems = read_document(json.dumps(document).encode())
    assert [p.path for p in problems] == [f"shortlist.1.{at}".rstrip(".") for at in places]
