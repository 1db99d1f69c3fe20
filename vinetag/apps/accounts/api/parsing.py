"""Reading bodies: whatever is sent, it becomes values that can be stored, or a clear error."""

from __future__ import annotations

import re
from collections.abc import Mapping
from typing import Any, Final

import msgspec
from rest_framework.exceptions import ParseError
from rest_framework.parsers import BaseParser

__all__ = ["AnyFile", "StrictJson"]

# Only long runs of digits can be a number that is out of range.
LONG_NUMBER: Final = re.compile(rb"\d{17}|\d[eE]")
LARGEST: Final = 2**53


class AnyFile(BaseParser):
    """The body as it arrives: a worker reads it, and tells its problems."""

    media_type = "application/octet-stream"

    def parse(self, stream: Any, *_about: Any, **_more: Any) -> Any:
        return stream


class StrictJson(BaseParser):
    """JSON (RFC 8259) without what Python's own reader lets through: lone surrogates, NaN, nesting
    without end, and numbers no database column holds.
    """

    media_type = "application/json"

    def parse(self, stream: Any, *_about: Any, **_more: Any) -> Any:
        """The document. Raises ParseError."""
        body = stream.read()
        if not body:
            return {}
        try:
            document = msgspec.json.decode(body)
        except RecursionError:
            raise ParseError("This is nested too deeply.") from None
        except (msgspec.DecodeError, UnicodeDecodeError, ValueError) as error:
            raise ParseError(f"This is not JSON: {str(error)[:120]}") from None
        if LONG_NUMBER.search(body) and not _in_range(document):
            raise ParseError("A number in this is too large.")
        return document


def _in_range(value: Any) -> bool:
    if isinstance(value, int | float):
        return abs(value) <= LARGEST
    if isinstance(value, Mapping):
        return all(map(_in_range, value.values()))
    return not isinstance(value, list) or all(map(_in_range, value))
