"""Errors the apps raise; the API maps each to one response.

AppError
├── NotFoundError   there is no such thing, or it is someone else's
├── ConflictError   it cannot be done now
└── RefusedError    the input has problems
"""

from __future__ import annotations

from collections.abc import Sequence

from vinetag.core.errors import Problem

__all__ = ["AppError", "ConflictError", "NotFoundError", "RefusedError"]


class AppError(Exception):
    """Base of the tree; never raised itself."""


class NotFoundError(AppError):
    """There is no such thing, or it is someone else's: the two look the same."""


class ConflictError(AppError):
    """It cannot be done now. `code` names why, `message` says it; `current` is what is there
    instead of what was to be changed, as a document.
    """

    def __init__(self, code: str, message: str, current: object = None) -> None:
        self.code, self.message, self.current = code, message, current
        super().__init__(message)


class RefusedError(AppError):
    """The input has problems, each at a path."""

    def __init__(self, problems: Sequence[Problem]) -> None:
        self.problems = problems
        super().__init__("; ".join(p.text() for p in problems))
