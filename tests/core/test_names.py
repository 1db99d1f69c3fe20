"""Labels by the rules of the DNS."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.strategies import labels
from vinetag.core.errors import LabelError
from vinetag.core.extensions import known_extensions, parse_extension
from vinetag.core.names import is_ldh_label, parse_label, plain_words, unicode_label


@given(labels)
def test_a_label_reads_as_itself(label: str) -> None:
    assert parse_label(label) == label
    assert parse_label(f"  {label.upper()} ") == label


@given(st.text(max_size=70))
def test_whatever_is_typed_gives_a_label_or_a_sentence(text: str) -> None:
    try:
        label = parse_label(text)
    except LabelError as error:
        told = [p.text() for p in error.problems]
    else:
        told = []
        assert is_ldh_label(label) or label.startswith("xn--")
        assert len(label) <= 63
        assert parse_label(label) == label
    assert all(told)


@pytest.mark.parametrize(
    ("typed", "code"),
    [
        ("  ", "label_blank"),
        ("a" * 64, "label_long"),
        ("ink post", "label_character"),
        ("ink_post", "label_character"),
        ("-ink", "label_edge_hyphen"),
        ("ink-", "label_edge_hyphen"),
        ("in--k", "label_reserved_hyphens"),
        ("<script>", "label_character"),
        ("ink😀", "label_idna"),
        ("xn--zzzzzzzzzzzz!", "label_character"),
    ],
)
def test_what_is_no_label_says_why(typed: str, code: str) -> None:
    with pytest.raises(LabelError) as caught:
        parse_label(typed)
    assert [p.code for p in caught.value.problems] == [code]


def test_other_scripts_become_a_labels_and_back() -> None:
    # RFC 5891 and UTS 46: capital letters fold, ß stays a letter of its own.
    assert parse_label("Bücher") == "xn--bcher-kva"
    assert unicode_label("xn--bcher-kva") == "bücher"
    assert unicode_label(parse_label("straße")) == "straße"
    assert unicode_label("xn--\u0000") == "xn--\u0000"


def test_a_label_of_63_letters_is_the_longest() -> None:
    assert parse_label("a" * 63) == "a" * 63
    assert not is_ldh_label("a" * 64)
    assert not is_ldh_label("")


def test_plain_words_of_a_name() -> None:
    assert plain_words("Alder & Daughter's Café") == ["alder", "and", "daughters", "cafe"]
    assert plain_words("Студия ink") == []


def test_extensions_are_read_from_what_people_type() -> None:
    assert parse_extension(" .CO.NZ ") == "co.nz"
    assert {"com", "ie", "co.uk", "io", "de"} <= known_extensions()
    for typed, code in (("", "extension_blank"), ("nosuch", "extension_unknown")):
        with pytest.raises(ValueError, match=r"\S") as caught:
            parse_extension(typed, "ext")
        assert caught.value.problems[0].code == code
        assert caught.value.problems[0].path == "ext"
