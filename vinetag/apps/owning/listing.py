"""Finding, filtering and sorting the names one owns, and what they cost by month."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from decimal import Decimal
from typing import Any, Final

from django.db.models import Count, Q, QuerySet, Sum
from django.db.models.functions import TruncMonth
from django.utils import timezone

from vinetag.apps.accounts.models import User
from vinetag.apps.owning.models import OwnedName

__all__ = [
    "LONGEST_AFTER", "PAGE", "SORTS", "WHEN", "Asked", "Month", "Page", "asked_for", "facets_of",
    "months_of", "page_of",
]  # fmt: skip

PAGE: Final = 100
MONTHS: Final = 24
# No extension keeps a name for its holder for so long after it ran out.
LONGEST_AFTER: Final = timedelta(days=140)
# From how many days before the moment a name runs out, to how many.
WHEN: Final[Mapping[str, tuple[int | None, int | None]]] = {
    "past": (None, 0), "30": (0, 30), "90": (0, 90), "365": (0, 365), "unknown": (None, None),
}  # fmt: skip
# Each along an index; names of one moment or amount stand in the order they came.
SORTS: Final[Mapping[str, Sequence[str]]] = {
    "expires": ("expires_at", "pk"),
    "-expires": ("-expires_at", "-pk"),
    "name": ("label", "extension"),
    "-name": ("-label", "-extension"),
    "cost": ("yearly", "pk"),
    "-cost": ("-yearly", "-pk"),
    "registered": ("registered_at", "pk"),
    "-registered": ("-registered_at", "-pk"),
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
    """Rows of a page, how many there are of what is asked for, and of all."""

    rows: Sequence[OwnedName]
    total: int
    every: int


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
    return mine(person).filter(_narrowed(asked))


def _narrowed(asked: Asked) -> Q:
    """What somebody's names are narrowed by."""
    wanted = Q()
    for part in asked.text.lower().split()[:5]:
        label, dot, extension = part.partition(".")
        wanted &= Q(label__contains=label)
        if dot:
            wanted &= Q(extension__startswith=extension)
    given = {
        "extension": asked.extension, "seller_name": asked.seller, "renewal": asked.renewed,
        "project": asked.project, "tags__contains": f"|{asked.tag}|" if asked.tag else "",
    }  # fmt: skip
    wanted &= Q(**{field: value for field, value in given.items() if value not in ("", None)})
    if asked.differs:
        wanted &= ~Q(differs=[])
    if asked.when == "unknown":
        wanted &= Q(expires_at=None)
    elif asked.when:
        low, high = WHEN[asked.when]
        now = timezone.now()
        if low is not None:
            wanted &= Q(expires_at__gte=now + timedelta(days=low))
        if high is not None:
            wanted &= Q(expires_at__lt=now + timedelta(days=high))
    return wanted


def page_of(person: User, asked: Asked) -> Page:
    """A page of those that are asked for."""
    rows = asked_for(person, asked)
    pks = _sorted(rows, SORTS[asked.sort], asked.page * PAGE)
    # What is sorted is narrow; the rows themselves are fetched for the page alone.
    whole = [field.attname for field in OwnedName._meta.concrete_fields]
    rows = OwnedName.objects.select_related("project").only(*whole, "project__name")
    found = rows.in_bulk(pks)
    # Both at once: counted by itself, what is narrowed is looked up row by row in an index's order.
    counted = mine(person).aggregate(
        every=Count("pk"), total=Count("pk", filter=_narrowed(asked) or None)
    )
    return Page([found[pk] for pk in pks if pk in found], counted["total"], counted["every"])


def _sorted(rows: QuerySet[OwnedName], order: Sequence[str], start: int) -> list[int]:
    """The keys of a page. What has no such moment or amount stands last, which the database does by
    itself from the greatest down, and otherwise only without an index: so in two steps.
    """

    def some(of: QuerySet[OwnedName], since: int, count: int) -> list[int]:
        return list(of.order_by(*order).values_list("pk", flat=True)[since : since + count])

    first = order[0]
    if first.startswith("-") or first == "label":
        return some(rows, start, PAGE)
    known = rows.filter(**{f"{first}__isnull": False})
    found = some(known, start, PAGE)
    if len(found) < PAGE:
        unknown = rows.filter(**{f"{first}__isnull": True})
        since = start + len(found) - (known.count() if start else len(found))
        found += some(unknown, max(0, since), PAGE - len(found))
    return found


def facets_of(person: User) -> dict[str, Sequence[tuple[str, int]]]:
    """How many of each there are, the most first, whatever is asked for."""
    counts: dict[str, Counter[str]] = {name: Counter() for name in (*FACETS, "tag")}
    groups = mine(person).values_list(*FACETS, "tags").annotate(n=Count("pk"))
    for *values, tags, count in groups.order_by():
        for name, value in zip(FACETS, values, strict=True):
            counts[name][str(value)] += count
        for tag in filter(None, str(tags).split("|")):
            counts["tag"][tag] += count
    projects = mine(person).exclude(project=None).values_list("project", "project__name")
    named = {str(pk): name for pk, name in projects.distinct()}
    for number, count in (
        mine(person).exclude(project=None).values_list("project").annotate(n=Count("pk"))
    ):
        counts.setdefault("project", Counter())[f"{number} {named[str(number)]}"] = count
    counts.setdefault("project", Counter())
    return {
        name: sorted(((v, n) for v, n in found.items() if v), key=lambda one: (-one[1], one[0]))[
            :60
        ]
        for name, found in counts.items()
    }


def months_of(person: User, currency: str) -> list[Month]:
    """From this month on, for two years: each name is renewed for a year whenever it runs out. What
    ran out already is of this month, as long as it can be had back.
    """
    today = timezone.localdate().replace(day=1)
    counted = (
        mine(person).filter(expires_at__gt=timezone.now() - LONGEST_AFTER)
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
