"""Figures that were brought, the phrases chosen among them, and what was worked out of both."""

from __future__ import annotations

from typing import ClassVar

from django.conf import settings
from django.db import models

from vinetag.apps.naming.models import Project

__all__ = ["ColumnHabit", "PhraseBook", "PhraseChoice", "PhraseFile"]


class PhraseFile(models.Model):
    """Figures of one source as of a day, or phrases somebody typed. `content` is the file,
    compressed, until a worker has read it; `figures` what was read, as vinetag.core.demand packs
    it. `country`, `language` and `currency` count for lines that say none; `columns` were put right
    by hand. The first `problems` of `wrong` places. A removed one stays, for undoing.
    """

    class Kind(models.TextChoices):
        FILE = "file"
        SERVICE = "service"
        TYPED = "typed"

    class State(models.TextChoices):
        WAITING = "waiting"
        READING = "reading"
        DONE = "done"
        FAILED = "failed"

    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="phrase_files")
    kind = models.CharField(max_length=8, choices=Kind.choices, default=Kind.FILE)
    source = models.CharField(max_length=60)
    name = models.CharField(max_length=120, blank=True, default="")
    country = models.CharField(max_length=2, blank=True, default="")
    language = models.CharField(max_length=10, blank=True, default="")
    currency = models.CharField(max_length=3, blank=True, default="")
    dated = models.DateField()
    columns = models.JSONField(default=list)
    state = models.CharField(max_length=8, choices=State.choices, default=State.WAITING)
    content = models.BinaryField(null=True)
    figures = models.BinaryField(null=True)
    lines = models.PositiveIntegerField(default=0)
    taken = models.PositiveIntegerField(default=0)
    wrong = models.PositiveIntegerField(default=0)
    problems = models.JSONField(default=list)
    done = models.PositiveIntegerField(default=0)
    tries = models.PositiveSmallIntegerField(default=0)
    heartbeat_at = models.DateTimeField()
    brought_at = models.DateTimeField(auto_now_add=True)
    removed_at = models.DateTimeField(null=True)

    class Meta:
        indexes: ClassVar = [
            models.Index(fields=["project", "state"]),
            models.Index(fields=["state", "heartbeat_at"]),
        ]

    def __str__(self) -> str:
        return f"{self.source}, {self.dated} ({self.state})"


class PhraseBook(models.Model):
    """What a person decided about a project's phrases: those `apart` are gathered under none, those
    `dropped` are out of sight. `edition` counts changes of any of it; `worked` is what was worked
    out of `worked_edition`, as shelf.py packs it.
    """

    project = models.OneToOneField(Project, on_delete=models.CASCADE, related_name="phrase_book")
    edition = models.PositiveIntegerField(default=0)
    apart = models.JSONField(default=list)
    dropped = models.JSONField(default=list)
    worked = models.BinaryField(null=True)
    worked_edition = models.PositiveIntegerField(default=0)

    def __str__(self) -> str:
        return f"phrases of {self.project_id}, edition {self.edition}"


class PhraseChoice(models.Model):
    """A phrase chosen to become a name, in the order of choosing."""

    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="phrase_choices")
    phrase = models.CharField(max_length=120, db_collation="utf8mb4_bin")
    chosen_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["project", "phrase"], name="one_choice_a_phrase")
        ]

    def __str__(self) -> str:
        return self.phrase


class ColumnHabit(models.Model):
    """What a person said of the columns under a heading, for the next file of its kind."""

    owner = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="column_habits"
    )
    sign = models.CharField(max_length=64, db_collation="ascii_bin")
    columns = models.JSONField(default=list)
    said_at = models.DateTimeField(auto_now=True)

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["owner", "sign"], name="one_habit_a_heading")
        ]

    def __str__(self) -> str:
        return f"{self.owner_id}: {self.sign}"
