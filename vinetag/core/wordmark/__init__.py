"""A name set in type: outlines, and files of them."""

from vinetag.core.wordmark.drawing import as_svg
from vinetag.core.wordmark.setting import CASES, Face, Glyph, Setting, faces, set_name

__all__ = ["CASES", "Face", "Glyph", "Setting", "as_svg", "faces", "set_name"]
