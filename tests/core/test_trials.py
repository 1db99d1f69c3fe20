"""Hear and write, and recall."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vinetag.core.trials import recalled, words_typed, wrote_right

NAMES = st.text("abcdefgh", min_size=3, max_size=12)


@pytest.mark.parametrize(
    ("typed", "right"),
    [("inkpost", True), (" Ink Post ", True), ("ink-post", True), ("incpost", False), ("", False)],
)
def test_capitals_spaces_and_hyphens_cannot_be_heard(typed: str, right: bool) -> None:
    assert wrote_right(typed, "inkpost") is right


def test_names_are_remembered_though_misspelt_a_little() -> None:
    labels = ["inkpost", "paperplate", "skyowl"]
    assert recalled(["Ink Post", "papperplatte", "owl"], labels) == {"inkpost", "paperplate"}
    assert recalled(["paper"], labels) == set()
    assert recalled(["", "inkpost"], []) == set()
    assert words_typed("ink post, skyowl\n\n paper;x") == ["ink post", "skyowl", "paper", "x"]
    assert len(words_typed("a," * 500)) == 60


@given(st.lists(NAMES, unique=True, max_size=6), st.data())
def test_what_is_typed_as_it_is_counts_once(labels: list[str], data: st.DataObject) -> None:
    typed = data.draw(st.lists(st.sampled_from(labels), max_size=6) if labels else st.just([]))
    assert recalled(typed, labels) == set(typed)
