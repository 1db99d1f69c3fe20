"""The catalogue as administrators keep it, beginning with the one that ships. A catalogue is seen
by its `version`, an entry by its fields, as the API tells them.
"""

from __future__ import annotations

import hashlib
from collections.abc import Callable
from dataclasses import asdict, fields
from typing import Any

from django.core.cache import cache
from django.db import transaction
from django.db.models import QuerySet

from vinetag.apps.accounts.errors import ConflictError, NotFoundError
from vinetag.apps.accounts.models import User
from vinetag.apps.accounts.seen import Seen, require_seen
from vinetag.apps.availability.models import ExtensionRow
from vinetag.core.extensions import Catalogue, Entry, shipped_catalogue, write_catalogue
from vinetag.core.money import amount_of

__all__ = [
    "catalogue", "load_catalogue", "put_entry", "replace_catalogue", "require_administrator",
    "version_of",
]  # fmt: skip

CACHED = "extensions"
FIELDS = [f.name for f in fields(Entry)]


def catalogue() -> Catalogue:
    """The catalogue in force."""
    rows = cache.get(CACHED)
    if rows is None:
        rows = _plain(ExtensionRow.objects.all())
        cache.set(CACHED, rows, 3600)
    return _read(rows)


def _plain(rows: QuerySet[ExtensionRow]) -> list[dict[str, Any]]:
    """As the cache has it: plain JSON."""
    plain = list(rows.order_by("id").values(*FIELDS))
    for row in plain:
        row["yearly"] = None if row["yearly"] is None else str(row["yearly"])
    return plain


def _read(rows: list[dict[str, Any]]) -> Catalogue:
    entries = {}
    for row in rows:
        yearly = None if row["yearly"] is None else amount_of(row["yearly"])
        values = {**row, "works": tuple(row["works"]), "yearly": yearly}
        entries[row["extension"]] = Entry(**values)
    return Catalogue(entries) if entries else shipped_catalogue()


def load_catalogue() -> bool:
    """Fill an empty table with the catalogue that ships; True when it was empty."""
    if ExtensionRow.objects.exists():
        return False
    replace_catalogue(shipped_catalogue())
    return True


def version_of(entries: Catalogue) -> str:
    """A short digest of all that is in it."""
    return hashlib.sha256(write_catalogue(entries).encode()).hexdigest()[:16]


def replace_catalogue(new: Catalogue, seen: Seen = None) -> None:
    """Put `new` in place of the catalogue, in its order. Raises ConflictError when it is empty, and
    require_seen's error when the catalogue's `version` is not the one `seen`.
    """
    if not len(new):
        raise ConflictError("empty", "The file holds no extension.")
    with transaction.atomic():
        require_seen(seen, {"version": version_of(_locked())})
        ExtensionRow.objects.all().delete()
        ExtensionRow.objects.bulk_create([ExtensionRow(**_row(entry)) for entry in new])
    cache.delete(CACHED)


def put_entry(
    entry: Entry, seen: Seen = None, shown: Callable[[Entry], dict[str, object]] = asdict
) -> None:
    """Change or add one extension. Raises require_seen's error when it is there and not as it was
    `seen`, by the fields `shown` tells of it.
    """
    row = _row(entry)
    with transaction.atomic():
        known = _locked()
        if entry.extension in known and known[entry.extension] != entry:
            require_seen(seen, shown(known[entry.extension]))
        ExtensionRow.objects.update_or_create(extension=row.pop("extension"), defaults=row)
    cache.delete(CACHED)


def _locked() -> Catalogue:
    """The catalogue in force, which nobody else changes until the transaction ends."""
    return _read(_plain(ExtensionRow.objects.select_for_update()))


def require_administrator(person: User) -> None:
    """Raises NotFoundError for anyone else: what they may not do is not there for them."""
    if not person.is_staff:
        raise NotFoundError


def _row(entry: Entry) -> dict[str, object]:
    return {**asdict(entry), "works": list(entry.works)}
