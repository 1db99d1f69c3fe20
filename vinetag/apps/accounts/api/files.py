"""Answers a browser stores as files."""

from __future__ import annotations

from django.http import HttpResponse
from django.utils.text import slugify

__all__ = ["download"]


def download(content: str | bytes, kind: str, name: str, ending: str) -> HttpResponse:
    """A file of media type `kind`, called after `name` (anything a person wrote) with `ending`."""
    response = HttpResponse(content, content_type=kind)
    called = f"{slugify(name) or 'vine-tag'}{ending}"
    response.headers["Content-Disposition"] = f'attachment; filename="{called}"'
    return response
