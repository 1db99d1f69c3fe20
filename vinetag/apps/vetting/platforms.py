"""The catalogue of platforms in force, and what they said of handles."""

from __future__ import annotations

import asyncio
from collections.abc import Iterable, Sequence
from datetime import timedelta
from typing import Final, cast

from django.db import transaction
from django.utils import timezone

from vinetag.apps.availability.lookups import lookup_settings
from vinetag.apps.vetting.models import HandleRow, PlatformRow
from vinetag.core.vet import (
    Asked,
    HandleForm,
    Platform,
    read_platforms,
    shipped_platforms,
    write_platforms,
)
from vinetag.core.vet.handles import HandleSays
from vinetag.core.vet.platforms import Absence
from vinetag.lookup.profiles import (
    HandleAnswer,
    fetch_handles,
    profile_address,
    wanted_and_barred,
)

__all__ = ["asked_about", "keep_platforms", "load_platforms", "platforms"]

LASTS: Final = timedelta(days=1)
# What was not found out is asked again sooner.
AGAIN: Final = timedelta(minutes=20)
FIELDS: Final = (
    "code", "name", "address", "letters_min", "letters_max", "characters", "letter_first",
    "absence", "absent",
)  # fmt: skip


def load_platforms() -> None:
    """Fill the catalogue with the platforms that ship, once."""
    if not PlatformRow.objects.exists():
        _store(shipped_platforms(), shipped=True)


def platforms() -> list[Platform]:
    """Those of the catalogue, in their order."""
    return [_platform(row) for row in PlatformRow.objects.order_by("place", "id")]


def keep_platforms(text: str) -> list[Platform]:
    """A catalogue in place of the one in force. Raises CatalogueError. Those that ship stay as they
    are where the file has them unchanged.
    """
    shipped = {one.code: one for one in shipped_platforms()}
    read = {one.code: one for one in read_platforms(text, shipped=True)}
    # A path is right for those alone that ship; others are read by the strict rule.
    own = [one for code, one in read.items() if shipped.get(code) != one]
    if own:
        read_platforms(write_platforms(own))
    with transaction.atomic():
        PlatformRow.objects.exclude(code__in=read).delete()
        _store(read.values(), shipped=False)
        PlatformRow.objects.filter(code__in=[c for c in read if shipped.get(c) == read[c]]).update(
            shipped=True
        )
    return list(read.values())


def _store(found: Iterable[Platform], *, shipped: bool) -> None:
    for place, one in enumerate(found):
        PlatformRow.objects.update_or_create(
            code=one.code,
            defaults={
                **{field: getattr(one, field) for field in FIELDS if field != "code"},
                "shipped": shipped,
                "place": place,
            },
        )


def _platform(row: PlatformRow) -> Platform:
    return Platform(
        row.code, row.name, row.address, row.letters_min, row.letters_max, row.characters,
        row.letter_first, cast(Absence, row.absence), row.absent,
    )  # fmt: skip


def asked_about(forms: Sequence[HandleForm]) -> list[Asked]:
    """What every platform says of the forms of a name: of the name itself, and of the others where
    it is not free everywhere. What is known and fresh is not asked again.
    """
    found = _asked(forms[:1])
    if any(one.says == "taken" or one.says == "barred" for one in found):
        found += _asked(forms[1:])
    return found


def _asked(forms: Sequence[HandleForm]) -> list[Asked]:
    rows = {row.code: row for row in PlatformRow.objects.order_by("place", "id")}
    known, new = _known(forms), []
    wanted, asked = wanted_and_barred(map(_platform, rows.values()), forms)
    for one in wanted:
        if row := known.get((one.platform.code, one.handle)):
            asked.append(_told(one.platform, row))
        else:
            new.append(one)
    for answer in asyncio.run(fetch_handles(lookup_settings(), new)) if new else ():
        _keep(rows[answer.wanted.platform.code], answer)
        asked.append(answer.asked)
    order = {code: place for place, code in enumerate(rows)}
    handles = [form.handle for form in forms]
    return sorted(asked, key=lambda one: (order[one.platform], handles.index(one.handle)))


def _known(forms: Sequence[HandleForm]) -> dict[tuple[str, str], HandleRow]:
    now = timezone.now()
    rows = HandleRow.objects.filter(
        handle__in=[form.handle for form in forms], asked_at__gt=now - LASTS
    ).select_related("platform")
    return {
        (row.platform.code, row.handle): row
        for row in rows
        if row.says or row.asked_at > now - AGAIN
    }


def _told(platform: Platform, row: HandleRow) -> Asked:
    return Asked(
        platform.code, platform.name, row.handle, cast(HandleSays, row.says), row.why,
        profile_address(lookup_settings(), platform, row.handle), row.asked_at.isoformat(),
    )  # fmt: skip


def _keep(row: PlatformRow, answer: HandleAnswer) -> None:
    HandleRow.objects.update_or_create(
        platform=row,
        handle=answer.wanted.handle,
        defaults={"says": answer.says, "why": answer.why[:120], "asked_at": answer.at},
    )
