"""Names kept."""

from __future__ import annotations

from django.db import models

from vinetag.apps.naming.models import Project

__all__ = ["DuelRow", "Entry"]


class Entry(models.Model):
    """A kept name, or a full name when it has an extension, with a note and tags, at a place in
    the person's order. What made it is kept too, for the list it came from may change. A removed
    entry stays for undoing.
    """

    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="shortlist")
    label = models.CharField(max_length=63, db_collation="utf8mb4_bin")
    extension = models.CharField(max_length=63, blank=True, default="")
    note = models.TextField(blank=True, default="", max_length=2000)
    tags = models.JSONField(default=list)
    position = models.PositiveIntegerField()
    recipes = models.JSONField(default=list)
    parts = models.JSONField(default=list)
    strength = models.FloatField(default=0)
    kept_at = models.DateTimeField(auto_now_add=True)
    removed_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["project", "label"], name="one_entry_a_label")
        ]
        indexes = [models.Index(fields=["project", "removed_at", "position"])]

    def __str__(self) -> str:
        return self.label


class DuelRow(models.Model):
    """One answer of the owner to "which of the two is better?"."""

    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="duels")
    winner = models.CharField(max_length=63, db_collation="utf8mb4_bin")
    loser = models.CharField(max_length=63, db_collation="utf8mb4_bin")
    tie = models.BooleanField(default=False)
    asked_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        indexes = [models.Index(fields=["project", "id"])]

    def __str__(self) -> str:
        return f"{self.winner} over {self.loser}"
