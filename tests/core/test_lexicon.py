"""The shipped word data."""

import csv
import hashlib
import io
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vinetag.core.lexicon import load_lexicon
from vinetag.core.spreadsheet import safe_cell

LEXICON = load_lexicon()
DATA = Path("vinetag/core/lexicon/data")


def test_the_files_are_those_that_were_built() -> None:
    for name, digest in LEXICON.sources["sha256"].items():
        assert hashlib.sha256((DATA / name).read_bytes()).hexdigest() == digest, name


def test_every_source_names_its_licence() -> None:
    for source in LEXICON.sources["sources"]:
        assert source["licence"]
        assert source["version"]
        assert all((DATA / name).exists() for name in source["files"])


def test_words_know_what_they_are() -> None:
    paper = LEXICON.words["paper"]
    assert paper.pos[0] == "n"
    assert LEXICON.words["pianos"].lemma == "piano"
    assert LEXICON.words["the"].zipf > paper.zipf > LEXICON.words["letterpress"].zipf
    assert "male" in LEXICON.homophones["mail"]


def test_what_goes_together_is_told_from_what_does_not() -> None:
    assert LEXICON.followers("paper")["clip"] > 3
    assert LEXICON.followers("zzyxq") == {}
    near, far = LEXICON.likeness("piano", ["violin", "cement"])
    assert near > 0.5 > far
    assert LEXICON.likeness("zzyxq", ["piano"]) == [0.0]
    assert LEXICON.likeness("piano", ["zzyxq"]) == [0.0]


@given(st.text(max_size=30))
def test_no_cell_starts_a_formula(text: str) -> None:
    cell = safe_cell(text)
    assert cell.lstrip(" ")[:1] not in {"=", "+", "-", "@", "\t", "\r", "\n"}
    assert cell.removeprefix("'") == text.removeprefix("'")


@pytest.mark.parametrize("text", ["=1+1", "+1", "-1", "@SUM(A1)", " =1", "\t=1"])
def test_formulas_are_shown_not_run(text: str) -> None:
    row = io.StringIO()
    csv.writer(row).writerow([safe_cell(text)])
    assert next(csv.reader(io.StringIO(row.getvalue(), newline="")))[0] == f"'{text}"
