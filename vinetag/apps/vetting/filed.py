"""What was found by vetting, and what is accepted of it, in a project's file."""

from __future__ import annotations

from dataclasses import asdict, dataclass
from datetime import datetime
from typing import Annotated, Any, Final

from django.utils import timezone
from django.utils.dateparse import parse_datetime
from pydantic import Field

from vinetag.apps.accounts.joining import Bringing
from vinetag.apps.naming.models import Project
from vinetag.apps.vetting.models import Acceptance, FindingRow
from vinetag.core.concepts import FINDING_NAMES, WEIGHTS
from vinetag.core.documents import Amount, Between, OneOf, Text
from vinetag.core.filed import AnyExtension, Currency, Label, PlainObject, YesNo

__all__ = ["VettingFields", "bring", "write"]

BATCH: Final = 500
PlainRow = Annotated[dict[str, Any], PlainObject()]
Whole = Annotated[int, Between(0, 1_000_000_000)]


@dataclass(frozen=True, slots=True)
class SaidItem:
    """One finding, and what speaks for it."""

    weight: Annotated[str, OneOf(WEIGHTS)]
    code: Annotated[str, Text(40)]
    args: PlainRow
    evidence: Annotated[tuple[PlainRow, ...], Field(max_length=500)]
    source: Annotated[str, Text(80)]


@dataclass(frozen=True, slots=True)
class PointItem:
    """What a cost a year, in thousandths of the currency, catches of those who mistype."""

    yearly: Whole
    caught: Annotated[float, Amount(0, 1)]
    names: Whole


@dataclass(frozen=True, slots=True)
class MoreItem:
    """What a kind has beside its findings: `basis`, what of the brief they went by; of protection
    the budget, in thousandths of the currency, the names to hold, and the curve.
    """

    basis: Annotated[str, Text(2_000)] = ""
    currency: Currency = ""
    budget: Whole = 0
    budget_is_own: YesNo = False
    held: Annotated[tuple[Annotated[str, Text(300)], ...], Field(max_length=300)] = ()
    curve: Annotated[tuple[PointItem, ...], Field(max_length=100)] = ()


@dataclass(frozen=True, slots=True)
class FindingItem:
    """What was found of a name of one kind."""

    label: Label
    extension: AnyExtension
    kind: Annotated[str, OneOf(FINDING_NAMES)]
    weight: Annotated[str, OneOf(WEIGHTS)]
    findings: Annotated[tuple[SaidItem, ...], Field(max_length=100)] = ()
    more: MoreItem = MoreItem()
    sign: Annotated[str, Text(32)] = ""
    found_at: Annotated[str, Text(40)] = ""
    accepted: YesNo = False
    accepted_sign: Annotated[str, Text(32)] = ""
    note: Annotated[str, Text(500)] = ""


@dataclass(frozen=True)
class VettingFields:
    """What the file has of vetting."""

    vetting: Annotated[
        tuple[FindingItem, ...], Field(max_length=3_000, description="What was found of names")
    ] = ()


def write(project: Project) -> dict[str, Any]:
    """The fields' values as documents have them."""
    accepted = {(one.label, one.kind): one for one in project.acceptances.all()}
    return {"vetting": [_item(row, accepted) for row in project.findings.order_by("id")]}


def _item(row: FindingRow, accepted: dict[tuple[str, str], Acceptance]) -> dict[str, Any]:
    acceptance = accepted.get((row.label, row.kind))
    return {
        "label": row.label, "extension": row.extension, "kind": row.kind, "weight": row.weight,
        "findings": row.findings, "more": row.more, "sign": row.sign,
        "found_at": row.found_at.isoformat(), "accepted": acceptance is not None,
        "accepted_sign": acceptance.sign if acceptance else "",
        "note": acceptance.note if acceptance else "",
    }  # fmt: skip


def bring(brought: Bringing) -> None:
    """Store what a file had of them; of what somebody brought nobody here can vouch."""
    now = timezone.now()
    items = {(item.label, item.kind): item for item in brought.file.vetting}
    FindingRow.objects.bulk_create(
        [
            FindingRow(
                project=brought.project, label=item.label, extension=item.extension,
                kind=item.kind, weight=item.weight, findings=[asdict(one) for one in item.findings],
                more={name: value for name, value in asdict(item.more).items() if value},
                sign=item.sign, found_at=_moment(item.found_at, now), imported=brought.imported,
            )
            for item in items.values()
        ],
        BATCH,
    )  # fmt: skip
    Acceptance.objects.bulk_create(
        [
            Acceptance(
                project=brought.project, label=item.label, kind=item.kind,
                sign=item.accepted_sign, note=item.note, accepted_at=now,
            )
            for item in items.values()
            if item.accepted
        ],
        BATCH,
    )  # fmt: skip


def _moment(text: str, now: datetime) -> datetime:
    """When it was found; nothing was in the future."""
    try:
        found = parse_datetime(text)
    except ValueError:
        found = None
    if found is None or found.tzinfo is None or found > now or found.year < 2000:
        return now
    return found
