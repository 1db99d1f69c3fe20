"""Setting a name in a typeface: shaping with kerning, and the outlines of its glyphs."""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence
from functools import cache
from pathlib import Path
from typing import Final, NamedTuple

import uharfbuzz as hb

from vinetag.core.errors import Problem, WordmarkError

__all__ = ["CASES", "UNITS", "Face", "Glyph", "Setting", "faces", "set_name"]

_FOLDER = Path(__file__).parent / "faces"
CASES: Final = ("typed", "lower", "upper")
# All measures are in thousandths of the type size.
UNITS: Final = 1000
SPACING: Final = (-120, 500)
LONGEST: Final = 63
# Letters that join would leave nothing to set apart or to colour; kerning stays.
FEATURES: Final = {"liga": False, "clig": False, "calt": False, "kern": True}


class Face(NamedTuple):
    """A typeface that ships: `word` says its kind, `suggests` what such letters tend to suggest."""

    name: str
    word: str
    suggests: str
    version: str
    licence: str
    notice: str


class Glyph(NamedTuple):
    """One outline as SVG path data, y downwards from the baseline; `at`: the place of its first
    character in the text.
    """

    at: int
    path: str


class Setting(NamedTuple):
    """A name set in a face, in thousandths of the type size. `missing`: characters the face has
    not.
    """

    face: Face
    text: str
    glyphs: Sequence[Glyph]
    width: float
    ascent: float
    descent: float
    missing: str


@cache
def faces() -> Mapping[str, Face]:
    """The typefaces by name."""
    listed = json.loads((_FOLDER / "faces.json").read_text("utf-8"))
    return {face["name"]: Face(**face) for face in listed}


@cache
def _font(name: str) -> hb.Font:
    return hb.Font(hb.Face(hb.Blob.from_file_path(str(font_file(name)))))


def font_file(name: str) -> Path:
    """Where the face's file is."""
    return _FOLDER / f"{name}.ttf"


def set_name(text: str, name: str, *, spacing: int = 0, case: str = "typed") -> Setting:
    """Set a text in a face, with `spacing` added between letters (thousandths of the size, -120 to
    500). Raises WordmarkError with a problem at `text`, `face`, `spacing` or `case`.
    """
    problems: list[Problem] = []
    args: dict[str, object]
    if not text.strip():
        problems.append(Problem("text", "blank"))
    elif len(text) > LONGEST:
        problems.append(Problem("text", "too_long", {"limit": LONGEST, "length": len(text)}))
    low, high = SPACING
    if not low <= spacing <= high:
        args = {"value": spacing, "low": low, "high": high}
        problems.append(Problem("spacing", "out_of_range", args))
    for path, value, choices in (("face", name, faces()), ("case", case, CASES)):
        if value not in choices:
            args = {"value": value, "choices": ", ".join(choices)}
            problems.append(Problem(path, "unknown_choice", args))
    if problems:
        raise WordmarkError(*problems)
    text = {"typed": text, "lower": text.lower(), "upper": text.upper()}[case]
    font = _font(name)
    scale = UNITS / font.face.upem
    buffer = hb.Buffer()
    buffer.add_str(text)
    buffer.guess_segment_properties()
    hb.shape(font, buffer, FEATURES)
    glyphs, across, missing = [], 0.0, []
    for info, place in zip(buffer.glyph_infos, buffer.glyph_positions, strict=True):
        if info.codepoint == 0:
            missing.append(text[info.cluster])
        origin = (across + place.x_offset * scale, place.y_offset * scale)
        path = _outline(font, info.codepoint, scale, origin)
        if path:
            glyphs.append(Glyph(info.cluster, path))
        across += place.x_advance * scale + spacing
    extents = font.get_font_extents("ltr")
    return Setting(
        faces()[name],
        text,
        glyphs,
        round(across - spacing, 1),
        round(extents.ascender * scale, 1),
        round(-extents.descender * scale, 1),
        "".join(dict.fromkeys(missing)),
    )


def _outline(font: hb.Font, glyph: int, scale: float, origin: tuple[float, float]) -> str:
    """The glyph's outline at its place."""
    said: list[str] = []

    def point(x: float, y: float) -> str:
        return f"{round(x * scale + origin[0], 1):g} {round(-(y * scale + origin[1]), 1):g}"

    functions = hb.DrawFuncs()
    functions.set_move_to_func(lambda x, y, _: said.append(f"M{point(x, y)}"))
    functions.set_line_to_func(lambda x, y, _: said.append(f"L{point(x, y)}"))
    functions.set_quadratic_to_func(
        lambda a, b, x, y, _: said.append(f"Q{point(a, b)} {point(x, y)}")
    )
    functions.set_cubic_to_func(
        lambda a, b, c, d, x, y, _: said.append(f"C{point(a, b)} {point(c, d)} {point(x, y)}")
    )
    functions.set_close_path_func(lambda _: said.append("Z"))
    font.draw_glyph(glyph, functions, None)
    return "".join(said)
