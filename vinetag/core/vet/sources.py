"""Where the data of vetting come from."""

from __future__ import annotations

import json
from functools import cache
from importlib.resources import files
from typing import Any

__all__ = ["vet_sources"]


@cache
def vet_sources() -> list[dict[str, Any]]:
    """Each with its name, version, licence and the files made of it."""
    text = files("vinetag.core.vet").joinpath("data/sources.json").read_text("utf-8")
    found: list[dict[str, Any]] = json.loads(text)
    return found
