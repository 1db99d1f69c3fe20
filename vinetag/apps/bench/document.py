"""A project as one document: the typed model both its file and its copy are read by, made of what
each app adds. docs/project.schema.json is made from it.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from functools import cache
from typing import Annotated, Any, Final

import msgspec
from pydantic import Field

from vinetag.apps.accounts.joining import joined
from vinetag.core.documents import Between, Document, Line, OneOf, Text
from vinetag.core.errors import CoreError, Problem
from vinetag.core.filed import JsonObject

__all__ = ["FORMAT", "VERSION", "project_schema", "read_document"]

FORMAT: Final = "vinetag-project"
VERSION: Final = 1
MOST_TOLD: Final = 50
SCHEMA_SAYS: Final = (
    "A project as one file. Made names are not in it: the brief and the seed make them again."
)


class FileError(CoreError):
    """A project's file cannot be read, each problem at its place."""


@dataclass(frozen=True)
class Opening:
    """What every file begins with, and what names are made of."""

    format: Annotated[str, OneOf((FORMAT,))] = FORMAT
    version: Annotated[int, Between(VERSION, VERSION)] = VERSION
    written_at: Annotated[str, Text(40), Field(description="When the file was made")] = ""
    name: Annotated[str, Line(80)] = ""
    brief: Annotated[dict[str, Any], JsonObject()] = field(default_factory=dict)
    seed: Annotated[
        int,
        Between(0, 2**31 - 1),
        Field(description="With the brief it makes the same names again"),
    ] = 1


@cache
def _document() -> Document[Any]:
    shares = [one.filed.fields for one in reversed(joined()) if one.filed]
    whole: type[Any] = dataclass(frozen=True)(type("ProjectFile", (*shares, Opening), {}))
    return Document(whole, FileError)


def read_document(content: bytes) -> tuple[Any | None, list[Problem]]:
    """The document, with the fields of Opening and of every app, or what is wrong with it, each
    problem with its path, up to MOST_TOLD.
    """
    try:
        given = msgspec.json.decode(content)
    except (msgspec.DecodeError, UnicodeDecodeError, RecursionError) as error:
        return None, [Problem("file", "not_json", {"detail": str(error)[:120]})]
    if not isinstance(given, dict) or given.get("format") != FORMAT:
        return None, [Problem("file", "not_project")]
    if (said := given.get("version")) != VERSION:
        args = {"version": str(said)[:20], "known": VERSION}
        return None, [Problem("version", "version_unknown", args)]
    try:
        return _document().read(given), []
    except FileError as error:
        return None, list(error.problems[:MOST_TOLD])


def project_schema() -> dict[str, Any]:
    """The JSON Schema of a project's file, as docs/project.schema.json has it: of a file as it is
    written. When it is read, what is missing takes its default.
    """
    schema = _document().schema("Project", SCHEMA_SAYS)
    schema["properties"]["brief"] = {"$ref": "brief.schema.json"}
    return {**schema, "required": [*schema["properties"]]}
