"""A name set in type."""

import re
from xml.etree import ElementTree

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from vinetag.core.errors import WordmarkError
from vinetag.core.wordmark import as_svg, faces, set_name

SVG = "{http://www.w3.org/2000/svg}"


def tree(document: str) -> ElementTree.Element:
    return ElementTree.fromstring(document)  # noqa: S314 - it is our own


@pytest.mark.parametrize("name", faces())
def test_every_face_sets_a_name(name: str) -> None:
    setting = set_name("ink-post9", name)
    assert [g.at for g in setting.glyphs] == list(range(9))
    assert setting.missing == ""
    assert 1_500 < setting.width < 8_000
    assert setting.ascent > 500
    assert faces()[name].licence == "OFL-1.1"


def test_there_are_a_dozen() -> None:
    assert len(faces()) == 12


@given(st.integers(-120, 500), st.sampled_from(sorted(faces())))
@settings(max_examples=20, deadline=None)
def test_spacing_goes_between_letters_only(spacing: int, name: str) -> None:
    plain, spaced = set_name("inkpost", name), set_name("inkpost", name, spacing=spacing)
    assert spaced.width == pytest.approx(plain.width + 6 * spacing, abs=0.2)
    assert spaced.glyphs[0].path == plain.glyphs[0].path


def test_letters_are_kerned() -> None:
    pair = set_name("AV", "literata").width
    alone = set_name("A", "literata").width + set_name("V", "literata").width
    assert pair < alone


def test_case_and_letters_a_face_has_not() -> None:
    assert set_name("inkPost", "quicksand", case="upper").text == "INKPOST"
    assert set_name("InkPost", "quicksand", case="lower").text == "inkpost"
    assert set_name("пример", "archivo-black").missing == "приме"


@pytest.mark.parametrize(
    ("asked", "paths"),
    [
        ({"text": " "}, ["text"]),
        ({"text": "x" * 64}, ["text"]),
        ({"name": "comic", "spacing": 501}, ["spacing", "face"]),
        ({"case": "title"}, ["case"]),
    ],
)
def test_what_cannot_be_set_is_told(asked: dict[str, object], paths: list[str]) -> None:
    given_words = {"text": "ink", "name": "literata", **asked}
    with pytest.raises(WordmarkError) as refused:
        set_name(**given_words)  # type: ignore[arg-type]
    assert [p.path for p in refused.value.problems] == paths


def test_outlines_in_two_colours() -> None:
    setting = set_name("inkpost", "literata")
    document = as_svg(setting, inks=["#24625b", "#8A5208"], paper="#fdf8ee", split=3)
    root = tree(document)
    assert root.get("aria-label") == "inkpost"
    paths = root.findall(f"{SVG}path")
    assert [p.get("fill") for p in paths] == ["#24625b", "#8A5208"]
    assert "".join(p.get("d", "") for p in paths) == "".join(g.path for g in setting.glyphs)
    [paper] = root.findall(f"{SVG}rect")
    assert paper.get("fill") == "#fdf8ee"
    one = tree(as_svg(setting, inks=["#24625b"], paper=None))
    assert len(one.findall(f"{SVG}path")) == 1
    assert not one.findall(f"{SVG}rect")


def test_text_brings_the_letters_it_needs() -> None:
    setting = set_name("ink&post", "playfair-display")
    document = as_svg(
        setting, inks=["#000000", "#111111"], paper=None, split=4, spacing=20, as_text=True
    )
    root = tree(document)
    [text] = root.findall(f"{SVG}text")
    assert [s.text for s in text] == ["ink&", "post"]
    assert text.get("letter-spacing") == "20"
    assert "font/woff;base64," in document
    assert len(document) < 20_000
    assert not re.search(r"https?://(?!www\.w3\.org/2000/svg)", document)


def test_colours_are_checked() -> None:
    setting = set_name("ink", "literata")
    with pytest.raises(WordmarkError) as refused:
        as_svg(setting, inks=["red", "#12345"], paper='#fff"/>')
    assert [p.path for p in refused.value.problems] == ["inks.0", "inks.1", "paper"]
