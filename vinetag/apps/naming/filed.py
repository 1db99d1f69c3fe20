"""What is looked at and dismissed, and the views of a sheet, in a project's file."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Any

from pydantic import Field

from vinetag.apps.accounts.joining import Bringing
from vinetag.apps.naming.marks import dismiss, look
from vinetag.apps.naming.models import Look, Project
from vinetag.apps.naming.services import keep_views
from vinetag.core.documents import Text
from vinetag.core.filed import Label, Once

__all__ = ["NamingFields", "bring", "write"]

PLACES = ("hunt",)
MARKS = (Look.Verdict.SEEN, Look.Verdict.LATER)


@dataclass(frozen=True, slots=True)
class View:
    """A view of the sheet kept under a name."""

    name: Annotated[str, Text(40)]
    search: Annotated[str, Text(2_000)]


Labels = Annotated[tuple[Label, ...], Field(max_length=50_000), Once]


@dataclass(frozen=True, slots=True)
class Looked:
    """Names somebody has looked at, and put off."""

    seen: Labels = ()
    later: Labels = ()


@dataclass(frozen=True, slots=True)
class OtherSheet:
    """Another sheet of the project: as looked at last, and its views."""

    view: Annotated[str, Text(2_000)] = ""
    views: Annotated[tuple[View, ...], Field(max_length=30)] = ()


@dataclass(frozen=True, slots=True)
class OtherSheets:
    """The sheets that are not that of the names."""

    hunt: OtherSheet = OtherSheet()


@dataclass(frozen=True)
class NamingFields:
    """What the file has of marks and views."""

    view: Annotated[
        str,
        Text(2_000),
        Field(description="The sheet as looked at last, the query of an address"),
    ] = ""
    views: Annotated[tuple[View, ...], Field(max_length=30)] = ()
    sheets: OtherSheets = OtherSheets()
    dismissed: Annotated[tuple[Label, ...], Field(max_length=20_000)] = ()
    looked: Looked = Looked()


def write(project: Project) -> dict[str, Any]:
    """The fields' values as documents have them."""
    return {
        "view": project.view,
        "views": project.views,
        "sheets": {
            place: {"view": "", "views": [], **project.sheets.get(place, {})} for place in PLACES
        },
        "dismissed": list(project.dismissed.order_by("id").values_list("label", flat=True)),
        "looked": {
            mark.value: list(
                project.looks.filter(verdict=mark).order_by("id").values_list("label", flat=True)
            )
            for mark in MARKS
        },
    }


def bring(brought: Bringing) -> None:
    """Store what a file had of them."""
    project, file = brought.project, brought.file
    views = [{"name": v.name, "search": v.search} for v in file.views]
    keep_views(project=project, view=file.view, views=views)
    for place in PLACES:
        sheet = getattr(file.sheets, place)
        others = [{"name": v.name, "search": v.search} for v in sheet.views]
        if sheet.view or others:
            keep_views(project=project, view=sheet.view, views=others, place=place)
    if file.dismissed:
        dismiss(project=project, labels=file.dismissed)
    for mark in MARKS:
        if labels := getattr(file.looked, mark.value):
            look(project=project, labels=labels, verdict=mark)
