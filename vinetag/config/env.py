"""Settings from the environment, with messages that say what is missing."""

from __future__ import annotations

import os

from django.core.exceptions import ImproperlyConfigured

__all__ = ["choice", "flag", "number", "rates", "several", "text"]


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


def choice(name: str, choices: tuple[str, ...]) -> str:
    """The variable, one of `choices`, the first when it is not set. Raises ImproperlyConfigured."""
    value = os.environ.get(name) or choices[0]
    if value not in choices:
        raise ImproperlyConfigured(f"{name} should be one of {', '.join(choices)}, not {value!r}.")
    return value


def rates(name: str) -> dict[str, float]:
    """The variable as "host=number,host=number". Raises ImproperlyConfigured when it is not."""
    found = {}
    for item in filter(None, os.environ.get(name, "").split(",")):
        host, _, rate = item.partition("=")
        try:
            found[host.strip()] = float(rate)
        except ValueError as error:
            raise ImproperlyConfigured(f"{name}: {item!r} should be host=number.") from error
    return found


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
