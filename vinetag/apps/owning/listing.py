"""Finding, filtering and sorting the names one owns, and what they cost by month."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date, timedelta
from decimal import Decimal
from typing import Any, Final

from django.db.models import Count, F, Q, QuerySet, Sum
from django.db.models.functions import TruncMonth
from django.utils import timezone

from vinetag.apps.accounts.models import User
from vinetag.apps.owning.models import OwnedName

__all__ = ["PAGE", "SORTS", "WHEN", "Asked", "Month", "Page", "asked_for", "months_of", "page_of"]

PAGE: Final = 100
MONTHS: Final = 24
# From how many days before the moment a name runs out, to how many.
WHEN: Final[Mapping[str, tuple[int | None, int | None]]] = {
    "past": (None, 0), "30": (0, 30), "90": (0, 90), "365": (0, 365), "unknown": (None, None),
}  # fmt: skip
SORTS: Final[Mapping[str, Sequence[str]]] = {
    "expires": ("expires_at", "label"),
    "-expires": ("-expires_at", "label"),
    "name": ("label", "extension"),
    "-name": ("-label", "-extension"),
    "cost": ("yearly", "label"),
    "-cost": ("-yearly", "label"),
    "registered": ("registered_at", "label"),
    "-registered": ("-registered_at", "label"),
}
FACETS: Final = ("extension", "seller_name", "renewal")


@dataclass(frozen=True)
class Asked:
    """What is asked for: letters anywhere in the name, and what each field has to be."""

    text: str = ""
    extension: str = ""
    seller: str = ""
    tag: str = ""
    project: int | None = None
    when: str = ""
    renewed: str = ""
    differs: bool = False
    sort: str = "expires"
    page: int = 0


@dataclass(frozen=True)
class Page:
    """Rows of a page and how many there are in all; how many of each there would be to choose
    from, by field.
    """

    rows: Sequence[OwnedName]
    total: int
    facets: Mapping[str, Sequence[tuple[str, int]]] = field(default_factory=dict)


@dataclass(frozen=True)
class Month:
    """What renewing for a year costs in a month, and how many names that is; `unknown` of them have
    no price.
    """

    month: date
    amount: Decimal
    names: int
    unknown: int


def mine(person: User) -> QuerySet[OwnedName]:
    """A person's names."""
    return OwnedName.objects.filter(owner=person, left_at=None)


def asked_for(person: User, asked: Asked) -> QuerySet[OwnedName]:
    """Those that are asked for, without an order."""
    rows = mine(person)
    for part in asked.text.lower().split()[:5]:
        label, dot, extension = part.partition(".")
        rows = rows.filter(label__contains=label)
        if dot:
            rows = rows.filter(extension__startswith=extension)
    if asked.extension:
        rows = rows.filter(extension=asked.extension)
    if asked.seller:
        rows = rows.filter(seller_name=asked.seller)
    if asked.tag:
        rows = rows.filter(tags__contains=f"|{asked.tag}|")
    if asked.project is not None:
        rows = rows.filter(project=asked.project)
    if asked.renewed:
        rows = rows.filter(renewal=asked.renewed)
    if asked.differs:
        rows = rows.exclude(differs=[])
    if asked.when == "unknown":
        rows = rows.filter(expires_at=None)
    elif asked.when:
        low, high = WHEN[asked.when]
        now = timezone.now()
        if low is not None:
            rows = rows.filter(expires_at__gte=now + timedelta(days=low))
        if high is not None:
            rows = rows.filter(expires_at__lt=now + timedelta(days=high))
    return rows


def page_of(person: User, asked: Asked) -> Page:
    """A page of those that are asked for."""
    rows = asked_for(person, asked)
    first, *rest = SORTS[asked.sort]
    down = first.startswith("-")
    at = F(first.removeprefix("-"))
    order = at.desc(nulls_last=True) if down else at.asc(nulls_last=True)
    start = asked.page * PAGE
    shown = rows.order_by(order, *rest, "pk")[start : start + PAGE]
    return Page(list(shown.select_related("project")), rows.count(), facets_of(person))


def facets_of(person: User) -> dict[str, Sequence[tuple[str, int]]]:
    """How many of each there are, the most first, whatever is asked for."""
    found: dict[str, Sequence[tuple[str, int]]] = {}
    for name in FACETS:
        counted = mine(person).values_list(name).annotate(n=Count("pk")).order_by("-n", name)
        found[name] = [(str(value), count) for value, count in counted[:60] if value]
    tags: dict[str, int] = {}
    for text, count in mine(person).exclude(tags="").values_list("tags").annotate(n=Count("pk")):
        for tag in filter(None, str(text).split("|")):
            tags[tag] = tags.get(tag, 0) + count
    found["tag"] = sorted(tags.items(), key=lambda one: (-one[1], one[0]))[:60]
    return found


def months_of(person: User, currency: str) -> list[Month]:
    """From this month on, for two years: each name is renewed for a year whenever it runs out. What
    ran out already is of this month.
    """
    today = timezone.localdate().replace(day=1)
    counted = (
        mine(person).filter(expires_at__isnull=False)
        .annotate(month=TruncMonth("expires_at"))
        .values("month")
        .annotate(
            n=Count("pk"),
            amount=Sum("yearly", filter=Q(yearly_currency=currency)),
            known=Count("yearly", filter=Q(yearly_currency=currency)),
        )
    )  # fmt: skip
    found: dict[date, list[Any]] = {_months_on(today, n): [Decimal(0), 0, 0] for n in range(MONTHS)}
    for row in counted:
        month = max(row["month"].date(), today)
        while month in found:
            sums = found[month]
            sums[0] += row["amount"] or Decimal(0)
            sums[1] += row["n"]
            sums[2] += row["n"] - row["known"]
            month = _months_on(month, 12)
    return [Month(month, sums[0], sums[1], sums[2]) for month, sums in found.items()]


def _months_on(day: date, months: int) -> date:
    count = day.year * 12 + day.month - 1 + months
    return date(count // 12, count % 12 + 1, 1)
