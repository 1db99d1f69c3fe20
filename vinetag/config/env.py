"""Settings from the environment, with messages that say what is missing."""

from __future__ import annotations

import os

from django.core.exceptions import ImproperlyConfigured

__all__ = ["flag", "number", "several", "text"]


def text(name: str, default: str | None = None) -> str:
    """The variable's value. Raises ImproperlyConfigured when it has neither value nor default."""
    value = os.environ.get(name, default)
    if value is None:
        raise ImproperlyConfigured(
            f"{name} is not set. ./start and ./test set it; README.md lists what can be set."
        )
    return value


def several(name: str) -> list[str]:
    """The variable as a list, its items set apart by commas; empty when it is not set."""
    return [item.strip() for item in os.environ.get(name, "").split(",") if item.strip()]


def number(name: str, default: float) -> float:
    """The variable as a number; raises ImproperlyConfigured when it is none."""
    value = os.environ.get(name)
    try:
        return float(value) if value else default
    except ValueError as error:
        raise ImproperlyConfigured(f"{name} should be a number, not {value!r}.") from error


def flag(name: str, default: bool = False) -> bool:
    """Whether the variable is 1, true or yes."""
    return os.environ.get(name, str(default)).lower() in ("1", "true", "yes")
