"""Cells that a spreadsheet shows instead of running."""

from __future__ import annotations

__all__ = ["safe_cell"]

DANGEROUS = ("=", "+", "-", "@", "\t", "\r", "\n")


def safe_cell(text: str) -> str:
    """The text, with an apostrophe before what a spreadsheet would run as a formula."""
    return f"'{text}" if text.lstrip(" ").startswith(DANGEROUS) else text
