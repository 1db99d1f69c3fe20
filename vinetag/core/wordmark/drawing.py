"""A set name as an SVG file (SVG 1.1), with outlines or with text and the letters it needs."""

from __future__ import annotations

import base64
import io
import re
from collections.abc import Sequence
from typing import Final
from xml.sax.saxutils import escape, quoteattr

from fontTools import subset
from fontTools.ttLib import TTFont

from vinetag.core.errors import Problem, WordmarkError
from vinetag.core.wordmark.setting import Setting, font_file

__all__ = ["as_svg"]

_COLOUR = re.compile(r"#[0-9a-f]{6}", re.IGNORECASE)
MARGIN: Final = 250


def as_svg(
    setting: Setting,
    *,
    inks: Sequence[str],
    paper: str | None,
    split: int = 0,
    spacing: int = 0,
    as_text: bool = False,
) -> str:
    """The name in `inks[0]`, from character `split` on in `inks[1]` when there is one, on `paper`
    (none: see-through). Colours are #rrggbb. With `as_text` it is text, with a font of the letters
    it needs inside the file, so that it looks the same anywhere and can still be edited.

    Raises WordmarkError at `inks.N` or `paper`.
    """
    problems = [
        Problem(path, "colour", {"value": colour})
        for path, colour in [*((f"inks.{i}", ink) for i, ink in enumerate(inks)), ("paper", paper)]
        if colour is not None and not _COLOUR.fullmatch(colour)
    ]
    if problems:
        raise WordmarkError(*problems)
    first, second = inks[0], inks[-1]
    width = setting.width + 2 * MARGIN
    height = setting.ascent + setting.descent + 2 * MARGIN
    parts = [
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {width:g} {height:g}" '
        f'width="{width / 4:g}" height="{height / 4:g}" role="img" '
        f"aria-label={quoteattr(setting.text)}>"
    ]
    if paper:
        parts.append(f'<rect width="100%" height="100%" fill="{paper}"/>')
    place = f'transform="translate({MARGIN} {MARGIN + setting.ascent:g})"'
    if as_text:
        parts.append(_text(setting, place, first, second, split, spacing))
    else:
        for ink, mine in ((first, False), (second, True)):
            path = "".join(g.path for g in setting.glyphs if (0 < split <= g.at) is mine)
            if path:
                parts.append(f'<path {place} fill="{ink}" d="{path}"/>')
    return "".join([*parts, "</svg>"])


def _text(setting: Setting, place: str, first: str, second: str, split: int, spacing: int) -> str:
    family = setting.face.name
    at = split if 0 < split < len(setting.text) else len(setting.text)
    style = (
        f"@font-face{{font-family:'{family}';src:url(data:font/woff;base64,"
        f"{_letters(setting)}) format('woff')}}"
    )
    spans = f'<tspan fill="{first}">{escape(setting.text[:at])}</tspan>'
    if at < len(setting.text):
        spans += f'<tspan fill="{second}">{escape(setting.text[at:])}</tspan>'
    return (
        f'<style>{style}</style><text {place} font-family="\'{family}\'" font-size="1000" '
        f'letter-spacing="{spacing}" font-variant-ligatures="none">{spans}</text>'
    )


def _letters(setting: Setting) -> str:
    """A WOFF font of the letters of the text alone, in base64."""
    font = TTFont(font_file(setting.face.name))
    options = subset.Options(layout_features=["kern"], flavor="woff", notdef_outline=True)
    cutter = subset.Subsetter(options)
    cutter.populate(text=setting.text)
    cutter.subset(font)
    font.flavor = "woff"
    written = io.BytesIO()
    font.save(written)
    return base64.b64encode(written.getvalue()).decode("ascii")
