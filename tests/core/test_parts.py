"""Parts of a name as they are stored, and what was done to a word."""

import re

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vinetag.core.candidates import Part, part_document, read_part, starts_of
from vinetag.core.concepts import CHANGES, PART_KINDS, Change

texts = st.text("abcdefgh", min_size=1, max_size=9)


@st.composite
def changes(draw: st.DrawFn) -> Change:
    code = draw(st.sampled_from(sorted(CHANGES)))
    names = re.findall(r"\{(\w+)\}", CHANGES[code])
    return Change(code, {name: draw(texts) for name in names})


parts = st.builds(
    Part,
    texts,
    st.sampled_from(sorted(PART_KINDS)),
    st.one_of(st.just(""), texts),
    st.integers(0, 62),
    st.one_of(st.none(), changes()),
)


@given(parts)
def test_a_part_survives_its_document(part: Part) -> None:
    document = part_document(part)
    assert read_part(document) == part
    assert "" not in document.values()
    assert starts_of([document, document]) == [part.start, part.start]


@given(changes())
def test_every_change_has_words_made_of_its_arguments(change: Change) -> None:
    assert all(value in change.text() for value in change.args.values())
    assert "{" not in change.text()


@pytest.mark.parametrize(
    ("stored", "words"),
    [
        (["ink", "keyword", "ink", 0], None),
        (["ink", "keyword", "ink", 0, ""], None),
        (["inc", "respell", "ink", 0, "ink with c for k"], "ink with c for k"),
        ({"text": "inc", "kind": "respell", "start": 0,
          "change": {"code": "of_another_version", "args": {"a": "ink", "b": "k"}}}, "ink, k"),
    ],
)  # fmt: skip
def test_parts_of_other_versions_are_read(stored: list[object], words: str | None) -> None:
    part = read_part(stored)
    assert (part.change.text() if part.change else None) == words
    assert read_part(part_document(part)) == part
