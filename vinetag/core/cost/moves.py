"""Extensions in which a move to another seller adds no year."""

from __future__ import annotations

from typing import Final

__all__ = ["moves_add_year"]

# As their registries have it: the term stays as it was paid for.
WITHOUT: Final = frozenset({"at", "be", "ch", "de", "dk", "eu", "is", "li", "nl", "no", "se", "uk"})


def moves_add_year(extension: str) -> bool:
    """Whether a move adds a year to what is paid, as it does under most extensions."""
    return extension.rpartition(".")[2] not in WITHOUT
