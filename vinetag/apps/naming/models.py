"""Projects with their briefs, and the names made for them."""

from __future__ import annotations

from django.conf import settings
from django.db import models

__all__ = ["Candidate", "Dismissed", "Look", "Project"]


class Project(models.Model):
    """Something to be named. `brief` is the document vinetag.core.brief reads; the counts say what
    became of the names of the last making.
    """

    owner = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="projects"
    )
    name = models.CharField(max_length=80)
    brief = models.JSONField()
    # How often name or brief were changed: who changes one says which they saw.
    version = models.PositiveIntegerField(default=1)
    seed = models.PositiveIntegerField(default=1)
    # How many names are listed: "more" makes the list longer.
    depth = models.PositiveIntegerField(default=2_000)
    considered = models.PositiveIntegerField(default=0)
    within = models.PositiveIntegerField(default=0)
    good = models.PositiveIntegerField(default=0)
    # How many answers about its names have come, each numbered in turn.
    answers = models.PositiveBigIntegerField(default=0)
    # How often the list was made or ordered anew, and how often a name of it was marked: who holds
    # the list in memory can tell by them whether it is still true.
    edition = models.PositiveBigIntegerField(default=0)
    marked = models.PositiveBigIntegerField(default=0)
    # How the sheet was looked at last, as the query of an address; views kept under a name.
    view = models.CharField(max_length=2000, blank=True, default="")
    views = models.JSONField(default=list)
    # The same of other sheets of the project, by what they are called.
    sheets = models.JSONField(default=dict)
    created_at = models.DateTimeField(auto_now_add=True)
    changed_at = models.DateTimeField(auto_now=True)
    archived_at = models.DateTimeField(null=True, blank=True)
    removed_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        indexes = [models.Index(fields=["owner", "removed_at", "-changed_at"])]

    def __str__(self) -> str:
        return self.name


class KeptWorld(models.Model):
    """Words a person keeps for their next projects: entries by facet (FACETS of a brief)."""

    owner = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="worlds"
    )
    title = models.CharField(max_length=60)
    entries = models.JSONField()

    class Meta:
        unique_together = [("owner", "title")]

    def __str__(self) -> str:
        return self.title


class Candidate(models.Model):
    """A made name, graded. `rank` counts from 1 in the order shown; `grade` and `scores` run from 0
    to 100 (a measure that could not be given has no score); `parts` is a list of
    [text, kind, keyword, start].
    """

    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="candidates")
    label = models.CharField(max_length=63, db_collation="utf8mb4_bin")
    rank = models.PositiveIntegerField()
    grade = models.FloatField()
    letters = models.PositiveSmallIntegerField()
    strength = models.FloatField()
    scores = models.JSONField()
    recipes = models.JSONField()
    parts = models.JSONField()
    # vinetag.core.facts; 0 where an earlier version made the name.
    syllables = models.PositiveSmallIntegerField(default=0)
    words = models.PositiveSmallIntegerField(default=0)
    added = models.JSONField(default=list)

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["project", "label"], name="one_candidate_a_label")
        ]
        indexes = [
            models.Index(fields=["project", "rank"]),
            models.Index(fields=["project", "-grade", "rank"]),
            models.Index(fields=["project", "letters", "rank"]),
        ]

    def __str__(self) -> str:
        return self.label


class Dismissed(models.Model):
    """A name the person does not want to see again here; it stays in the list, marked."""

    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="dismissed")
    label = models.CharField(max_length=63, db_collation="utf8mb4_bin")
    dismissed_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["project", "label"], name="dismissed_once_a_label")
        ]

    def __str__(self) -> str:
        return self.label


class Look(models.Model):
    """That a person has looked at a name: `seen`, or to be looked at again `later`; an empty
    verdict for a look that was undone. `number` is the project's `marked` at that time.
    """

    class Verdict(models.TextChoices):
        SEEN = "seen"
        LATER = "later"
        NONE = ""

    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="looks")
    label = models.CharField(max_length=63, db_collation="utf8mb4_bin")
    verdict = models.CharField(max_length=5, choices=Verdict.choices, blank=True)
    number = models.PositiveBigIntegerField()

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["project", "label"], name="one_look_a_label")
        ]
        indexes = [models.Index(fields=["project", "number"])]

    def __str__(self) -> str:
        return self.label
