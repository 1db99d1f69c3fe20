"""The fallback order: where to look for the best open form of a phrase when the first is gone."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from vinetag.core.names import FullName, is_ldh_label

__all__ = ["RUNGS", "RUNG_NAMES", "Rung", "ladder"]

# In the usual order; a person may put them in another, and leave some out.
RUNGS: Final[Mapping[str, str]] = {
    "exact_first": "as it is, first extension",
    "exact_next": "as it is, next extensions",
    "hyphen_first": "with a hyphen, first extension",
    "added_first": "one added word, first extension",
    "hyphen_next": "with a hyphen, next extensions",
    "added_next": "one added word, next extensions",
}
RUNG_NAMES: Final = tuple(RUNGS)


@dataclass(frozen=True, slots=True)
class Rung:
    """One step down: its kind, a key of RUNGS, and the full names on it, best first."""

    kind: str
    names: tuple[FullName, ...]


def ladder(
    words: Sequence[str],
    added: Sequence[str],
    extensions: Sequence[str],
    order: Sequence[str] = tuple(RUNGS),
) -> list[Rung]:
    """The rungs for a phrase of `words`, in the order given; those with no name are left out.

    `added` are labels with one word more, best first; `extensions` in order of preference. A name
    stands on one rung only, the first.
    """
    exact = "".join(words)
    hyphened = "-".join(words) if len(words) > 1 else ""
    forms = {"exact": [exact], "hyphen": [hyphened], "added": list(added)}
    seen: set[FullName] = set()
    rungs = []
    for kind in order:
        form, _, where = kind.partition("_")
        chosen = extensions[:1] if where == "first" else extensions[1:]
        names = []
        for label in forms[form]:
            for extension in chosen:
                name = FullName(label, extension)
                if is_ldh_label(label) and name not in seen:
                    seen.add(name)
                    names.append(name)
        if names:
            rungs.append(Rung(kind, tuple(names)))
    return rungs
