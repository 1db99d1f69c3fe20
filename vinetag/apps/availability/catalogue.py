"""The catalogue as administrators keep it, beginning with the one that ships."""

from __future__ import annotations

from dataclasses import asdict, fields
from typing import Any

from django.core.cache import cache
from django.db import transaction

from vinetag.apps.accounts.errors import ConflictError, NotFoundError
from vinetag.apps.accounts.models import User
from vinetag.apps.availability.models import ExtensionRow
from vinetag.core.extensions import Catalogue, Entry, shipped_catalogue
from vinetag.core.money import amount_of

__all__ = ["catalogue", "load_catalogue", "put_entry", "replace_catalogue", "require_administrator"]

CACHED = "extensions"
FIELDS = [f.name for f in fields(Entry)]


def catalogue() -> Catalogue:
    """The catalogue in force."""
    rows = cache.get(CACHED)
    if rows is None:
        rows = list(ExtensionRow.objects.order_by("id").values(*FIELDS))
        for row in rows:
            row["yearly"] = None if row["yearly"] is None else str(row["yearly"])
        cache.set(CACHED, rows, 3600)
    entries = [_entry(row) for row in rows]
    return Catalogue({e.extension: e for e in entries}) if entries else shipped_catalogue()


def _entry(row: dict[str, Any]) -> Entry:
    """As the cache has it: plain JSON."""
    yearly = None if row["yearly"] is None else amount_of(row["yearly"])
    return Entry(**{**row, "works": tuple(row["works"]), "yearly": yearly})


def load_catalogue() -> bool:
    """Fill an empty table with the catalogue that ships; True when it was empty."""
    if ExtensionRow.objects.exists():
        return False
    replace_catalogue(shipped_catalogue())
    return True


def replace_catalogue(new: Catalogue) -> None:
    """Put `new` in place of the catalogue, in its order. Raises ConflictError when it is empty."""
    if not len(new):
        raise ConflictError("empty", "The file holds no extension.")
    with transaction.atomic():
        ExtensionRow.objects.all().delete()
        ExtensionRow.objects.bulk_create([ExtensionRow(**_row(entry)) for entry in new])
    cache.delete(CACHED)


def put_entry(entry: Entry) -> None:
    """Change or add one extension."""
    row = _row(entry)
    ExtensionRow.objects.update_or_create(extension=row.pop("extension"), defaults=row)
    cache.delete(CACHED)


def require_administrator(person: User) -> None:
    """Raises NotFoundError for anyone else: what they may not do is not there for them."""
    if not person.is_staff:
        raise NotFoundError


def _row(entry: Entry) -> dict[str, object]:
    return {**asdict(entry), "works": list(entry.works)}
