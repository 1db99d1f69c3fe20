"""Checks, what they found out about full names, pasted names, and the catalogue of extensions."""

from __future__ import annotations

from decimal import Decimal
from functools import partial
from typing import ClassVar

from django.db import models

from vinetag.apps.availability.leases import Carried
from vinetag.apps.naming.models import Project
from vinetag.core.checking import buyable
from vinetag.core.money import PLACES

__all__ = ["Check", "ExtensionRow", "LastAnswer", "Lookup", "PastAnswer", "PastedList"]


def amount_field() -> models.DecimalField[Decimal | None, Decimal | None]:
    """Amounts up to core.money.DEAREST, with its PLACES."""
    return models.DecimalField(max_digits=13, decimal_places=PLACES, null=True, blank=True)


# A code the core knows (a status, a trouble, an aim): wide enough for those to come, and without
# choices here, so that a new one changes no table.
code_field = partial(models.CharField, max_length=24)


class Check(Carried):
    """One press of the button: full names to ask about, in the background.

    The row is the truth about the job. `plan` lists the full names in the order
    they are asked; those whose lookup names this check are answered. Answers from before
    `not_before` do not count.
    """

    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="checks")
    aim = code_field(default="scan")
    plan = models.JSONField(default=list)
    total = models.PositiveIntegerField(default=0)
    not_before = models.DateTimeField(null=True, blank=True)
    away = models.JSONField(default=list)

    class Meta:
        indexes = [
            models.Index(fields=["project", "-id"]),
            models.Index(fields=["state", "heartbeat_at"]),
        ]

    def __str__(self) -> str:
        return f"check {self.pk} ({self.state})"


class Known(models.Model):
    """What was found out about one full name, by whom and when. `evidence` holds what each source
    said (vinetag.core.checking.write_evidence); the other columns tell the most of it.
    """

    label = models.CharField(max_length=63, db_collation="utf8mb4_bin")
    extension = models.CharField(max_length=63, db_collation="utf8mb4_bin")
    likely = models.BooleanField(default=False)
    trouble = code_field(blank=True, default="")
    aim = code_field(default="scan")
    evidence = models.JSONField(default=list)
    asked_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        abstract = True


class LastAnswer(Known):
    """The last answer about a full name, whoever asked: nobody has to be asked again while it is
    fresh.
    """

    status = code_field()

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["label", "extension"], name="one_answer_a_full_name")
        ]
        indexes = [models.Index(fields=["asked_at"])]

    def __str__(self) -> str:
        return f"{self.label}.{self.extension}: {self.status}"


class Lookup(Known):
    """What a project knows of one full name. `check_run` is the check that found it out last;
    `number` counts the project's answers in the order they came. A name that awaits its first
    answer has no row; it is shown by one that is not stored. `open_since` is when it was found open
    first, `open_until` when it was found to be gone, None while it is not. `imported`: it came with
    a file, and nobody here can vouch for it, so it is never fresh.
    """

    WAITING: ClassVar[str] = "waiting"
    OPEN: ClassVar[tuple[str, ...]] = buyable()

    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="lookups")
    status = code_field(default=WAITING)
    registered = models.DateTimeField(null=True, blank=True)
    expires = models.DateTimeField(null=True, blank=True)
    drops_from = models.DateTimeField(null=True, blank=True)
    drops_to = models.DateTimeField(null=True, blank=True)
    currency = models.CharField(max_length=3, blank=True, default="")
    first_year = amount_field()
    renewal = amount_field()
    holder_asks = amount_field()
    open_since = models.DateTimeField(null=True, blank=True)
    open_until = models.DateTimeField(null=True, blank=True)
    imported = models.BooleanField(default=False)
    number = models.PositiveBigIntegerField(default=0)
    check_run = models.ForeignKey(
        Check, on_delete=models.SET_NULL, null=True, blank=True, related_name="answered"
    )

    class Meta:
        constraints = [
            models.UniqueConstraint(
                fields=["project", "label", "extension"], name="one_lookup_a_full_name"
            )
        ]
        indexes = [
            models.Index(fields=["project", "extension", "status"]),
            models.Index(fields=["project", "number"]),
        ]

    # Whether it is being asked just now; set by whoever shows it.
    pending = False

    def __str__(self) -> str:
        return f"{self.label}.{self.extension}: {self.status}"


class PastAnswer(models.Model):
    """What a project knew of a full name before it was found to be otherwise."""

    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="past_answers")
    label = models.CharField(max_length=63, db_collation="utf8mb4_bin")
    extension = models.CharField(max_length=63, db_collation="utf8mb4_bin")
    status = code_field()
    likely = models.BooleanField(default=False)
    trouble = code_field(blank=True, default="")
    asked_at = models.DateTimeField()

    class Meta:
        indexes = [models.Index(fields=["project", "label", "asked_at"])]

    def __str__(self) -> str:
        return f"{self.label}.{self.extension}: {self.status}"


class PastedList(models.Model):
    """The names that were pasted or uploaded, in their order, each with the extensions it is asked
    under. The list is always read as a whole, so it is kept as one. `extensions` are those chosen
    for names that came without.
    """

    project = models.OneToOneField(
        Project, on_delete=models.CASCADE, related_name="pasted", primary_key=True
    )
    names = models.JSONField(default=dict)
    extensions = models.JSONField(default=list)

    def __str__(self) -> str:
        return f"{len(self.names)} names"


class ExtensionRow(models.Model):
    """One entry of the catalogue of extensions (vinetag.core.extensions.Entry)."""

    extension = models.CharField(max_length=63, unique=True, db_collation="utf8mb4_bin")
    kind = code_field()
    country = models.CharField(max_length=2, blank=True, default="")
    works = models.JSONField(default=list)
    use = models.CharField(max_length=200, blank=True, default="")
    eligibility = code_field(default="open")
    letters_min = models.PositiveSmallIntegerField(default=1)
    letters_max = models.PositiveSmallIntegerField(default=63)
    idn = models.BooleanField(default=True)
    yearly = amount_field()
    rdap = models.CharField(max_length=300, blank=True, default="")
    whois = models.CharField(max_length=80, blank=True, default="")
    whois_query = models.CharField(max_length=60, blank=True, default="")
    whois_absent = models.CharField(max_length=120, blank=True, default="")

    def __str__(self) -> str:
        return self.extension
