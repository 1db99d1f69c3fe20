"""Answers a browser stores as files."""

from __future__ import annotations

from typing import Final

from django.http import HttpResponse
from django.utils.text import slugify
from drf_spectacular.types import OpenApiTypes

from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.core.spreadsheet import FORMS

__all__ = ["FILES", "download"]

# What an address answers that gives a project's data away in each of the open formats.
FILES: Final = {
    (200, "text/csv"): OpenApiTypes.STR,
    (200, FORMS["xlsx"]): OpenApiTypes.BINARY,
    (200, FORMS["json"]): OpenApiTypes.ANY,
    400: ErrorSerializer,
    404: ErrorSerializer,
}


def download(content: str | bytes, kind: str, name: str, ending: str) -> HttpResponse:
    """A file of media type `kind`, called after `name` (anything a person wrote) with `ending`."""
    response = HttpResponse(content, content_type=kind)
    called = f"{slugify(name) or 'vine-tag'}{ending}"
    response.headers["Content-Disposition"] = f'attachment; filename="{called}"'
    return response
