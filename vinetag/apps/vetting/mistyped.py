"""What people type who mean a name, and with whom they land."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from vinetag.apps.availability.catalogue import catalogue
from vinetag.apps.availability.models import Lookup
from vinetag.apps.availability.progress import cells_of
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import brief_of, grader_for
from vinetag.core.brief import Brief
from vinetag.core.candidates import Candidate
from vinetag.core.checking.pasted import meant_name
from vinetag.core.grade import Reading
from vinetag.core.names import FullName
from vinetag.core.vet import (
    Mistype,
    Shares,
    elsewhere,
    land_of,
    mistypes,
    typed_extensions,
)

__all__ = ["Mistyped", "cells_by_name", "likely_mistypes", "mistyped_names"]


@dataclass(frozen=True)
class Mistyped:
    """The likeliest of who means a name under `extension`, with what is known of each, and what
    becomes of all.
    """

    extension: str
    found: Sequence[Mistype]
    cells: Mapping[FullName, Lookup]
    shares: Shares


def likely_mistypes(brief: Brief, reading: Reading, extension: str) -> list[Mistype]:
    """Of a name read, under an extension."""
    known = {entry.extension for entry in catalogue()}
    country = brief.markets[0] if brief.markets else brief.owner.country
    others = typed_extensions(extension, country, known)
    return mistypes(reading, extension, others=others)


def cells_by_name(project: Project, names: Sequence[FullName]) -> dict[FullName, Lookup]:
    """What is known of full names."""
    found = cells_of(project, names)
    return {
        FullName(cell.label, cell.extension): cell for cells in found.values() for cell in cells
    }


def mistyped_names(project: Project, typed: str) -> Mistyped:
    """Of a name, alone or as a full name. Raises LabelError or ExtensionError."""
    brief = brief_of(project)
    name = meant_name(typed, brief.extensions)
    reading = grader_for(brief).read_any(Candidate(name.label, (), (), 0.0))
    found = likely_mistypes(brief, reading, name.extension)
    cells = cells_by_name(project, [one.full_name for one in found])
    lands = {n: land for n, cell in cells.items() if (land := land_of(cell.status))}
    return Mistyped(name.extension, found, cells, elsewhere(found, lands))
