"""Vettings and what they found, the platforms and their answers, and registers of marks."""

from __future__ import annotations

from typing import ClassVar

from django.db import models

from vinetag.apps.availability.leases import Carried
from vinetag.apps.availability.models import code_field
from vinetag.apps.naming.models import Project

__all__ = ["Acceptance", "FindingRow", "HandleRow", "MarkFile", "MarkRow", "PlatformRow", "Vetting"]


class Vetting(Carried):
    """One press of the button: names to be vetted. `plan` lists its steps, a name and a kind of
    finding each, in their order; those whose findings name this vetting are done.
    """

    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="vettings")
    plan = models.JSONField(default=list)
    total = models.PositiveIntegerField(default=0)

    class Meta:
        indexes: ClassVar = [
            models.Index(fields=["project", "-id"]),
            models.Index(fields=["state", "heartbeat_at"]),
        ]

    def __str__(self) -> str:
        return f"vetting {self.pk} ({self.state})"


class FindingRow(models.Model):
    """What was found last of a name, of one kind, under the extension it was meant with. `findings`
    as vinetag.apps.vetting.documents writes them, the worst first, whose weight is `weight`;
    `more` is what a kind has beside. `sign` is the same while the findings are. `imported`: it came
    with a file, and nobody here has found it.
    """

    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="findings")
    run = models.ForeignKey(Vetting, on_delete=models.SET_NULL, null=True, related_name="found")
    label = models.CharField(max_length=63, db_collation="utf8mb4_bin")
    extension = models.CharField(max_length=63, db_collation="utf8mb4_bin")
    kind = code_field()
    weight = code_field()
    findings = models.JSONField(default=list)
    more = models.JSONField(default=dict)
    sign = models.CharField(max_length=32)
    found_at = models.DateTimeField()
    imported = models.BooleanField(default=False)

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["project", "label", "kind"], name="one_finding_a_kind")
        ]

    def __str__(self) -> str:
        return f"{self.label}, {self.kind}: {self.weight}"


class Acceptance(models.Model):
    """That a person has seen what was found of a name and accepts it, with a note. It stands for
    what had this `sign`.
    """

    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="acceptances")
    label = models.CharField(max_length=63, db_collation="utf8mb4_bin")
    kind = code_field()
    sign = models.CharField(max_length=32)
    note = models.CharField(max_length=500, blank=True, default="")
    accepted_at = models.DateTimeField()

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(
                fields=["project", "label", "kind"], name="one_acceptance_a_kind"
            )
        ]

    def __str__(self) -> str:
        return f"{self.label}, {self.kind}"


class PlatformRow(models.Model):
    """One entry of the catalogue of platforms (vinetag.core.vet.platforms). `shipped`: it came with
    the application, and may be a path at the address of platforms in the settings.
    """

    code = models.CharField(max_length=30, unique=True)
    name = models.CharField(max_length=60)
    address = models.CharField(max_length=300)
    letters_min = models.PositiveSmallIntegerField(default=1)
    letters_max = models.PositiveSmallIntegerField(default=30)
    characters = models.CharField(max_length=60)
    letter_first = models.BooleanField(default=False)
    absence = code_field(default="status")
    absent = models.CharField(max_length=200, blank=True, default="")
    shipped = models.BooleanField(default=False)
    place = models.PositiveSmallIntegerField(default=0)

    def __str__(self) -> str:
        return self.code


class HandleRow(models.Model):
    """What a platform said last of a handle, whoever asked; `why` where it said nothing."""

    platform = models.ForeignKey(PlatformRow, on_delete=models.CASCADE, related_name="answers")
    handle = models.CharField(max_length=100, db_collation="utf8mb4_bin")
    says = code_field(blank=True, default="")
    why = models.CharField(max_length=120, blank=True, default="")
    asked_at = models.DateTimeField()

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["platform", "handle"], name="one_answer_a_handle")
        ]

    def __str__(self) -> str:
        return f"{self.handle}, {self.platform_id}: {self.says}"


class MarkFile(models.Model):
    """A register that was brought, for an `office` where its lines name none. `content` is the
    file, compressed, until it is read; `done` how many marks were taken; `problems` the first of
    `wrong` places.
    """

    class State(models.TextChoices):
        WAITING = "waiting"
        READING = "reading"
        DONE = "done"
        FAILED = "failed"

    name = models.CharField(max_length=120)
    office = models.CharField(max_length=60, blank=True, default="")
    state = models.CharField(max_length=8, choices=State.choices, default=State.WAITING)
    content = models.BinaryField(null=True)
    done = models.PositiveIntegerField(default=0)
    wrong = models.PositiveIntegerField(default=0)
    problems = models.JSONField(default=list)
    tries = models.PositiveSmallIntegerField(default=0)
    heartbeat_at = models.DateTimeField()
    brought_at = models.DateTimeField(auto_now_add=True)

    def __str__(self) -> str:
        return f"{self.name} ({self.state})"


class MarkRow(models.Model):
    """A mark of a register, with what its words come to (vinetag.core.vet.marks.Forms)."""

    office = models.CharField(max_length=60)
    number = models.CharField(max_length=60)
    word = models.CharField(max_length=200)
    owner = models.CharField(max_length=200, blank=True, default="")
    classes = models.CharField(max_length=140, blank=True, default="")
    status = code_field()
    filed = models.DateField(null=True, blank=True)
    registered = models.DateField(null=True, blank=True)
    expires = models.DateField(null=True, blank=True)
    letters = models.CharField(max_length=160, db_collation="ascii_bin")
    part = models.CharField(max_length=160, db_collation="ascii_bin")
    sounds = models.CharField(max_length=240, db_collation="ascii_bin")
    part_sounds = models.CharField(max_length=240, db_collation="ascii_bin")
    words = models.CharField(max_length=200, blank=True, default="", db_collation="ascii_bin")

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["office", "number"], name="one_mark_a_number")
        ]

    def __str__(self) -> str:
        return f"{self.word} ({self.office} {self.number})"
