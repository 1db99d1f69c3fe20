"""Modules that are found by the name of what they do."""

from __future__ import annotations

from importlib import import_module
from typing import Any

__all__ = ["named_in"]


def named_in(package: str, name: str) -> Any:
    """An instance of the class that says it is called `name`, from the module of that name in a
    package. Raises ModuleNotFoundError, or LookupError where the module has no such class.
    """
    module = import_module(f"{package}.{name}")
    for found in vars(module).values():
        if isinstance(found, type) and vars(found).get("name") == name:
            return found()
    raise LookupError(f"{module.__name__} has no class called {name!r}.")
