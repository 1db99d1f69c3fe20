"""What people type who mean a name, and with whom they land."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from vinetag.apps.availability.models import Lookup
from vinetag.apps.availability.progress import cells_of
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import brief_of, grader_for
from vinetag.core.candidates import Candidate
from vinetag.core.checking.pasted import read_name
from vinetag.core.names import FullName, parse_label
from vinetag.core.vet import Mistype, Shares, elsewhere, mistypes

__all__ = ["Mistyped", "mistyped_names"]

# Who types these lands with somebody; those who type the others, with nobody.
HELD: Final = frozenset({"taken", "offered", "dropping"})
NOBODYS: Final = frozenset({"open", "premium", "reserved", "barred"})


@dataclass(frozen=True)
class Mistyped:
    """The likeliest under `extension`, with what is known of each, and what becomes of all."""

    extension: str
    found: Sequence[Mistype]
    cells: Mapping[str, Lookup]
    shares: Shares


def mistyped_names(project: Project, typed: str) -> Mistyped:
    """Of a name, made or typed, alone or as a full name; the brief's first extension where it has
    none. Raises LabelError or ExtensionError.
    """
    label, extension = read_name(typed) if "." in typed else (parse_label(typed), "")
    brief = brief_of(project)
    extension = extension or (brief.extensions[0] if brief.extensions else "com")
    reading = grader_for(brief).read_any(Candidate(label, (), (), 0.0))
    found = mistypes(reading, extension)
    known = cells_of(project, [FullName(one.label, extension) for one in found])
    cells = {name: of_one[0] for name, of_one in known.items()}
    held = {
        name: True if cell.status in HELD else False if cell.status in NOBODYS else None
        for name, cell in cells.items()
    }
    return Mistyped(extension, found, cells, elsewhere(found, held))
