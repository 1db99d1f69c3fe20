"""Shared names: links for people without an account, and what those people said."""

from __future__ import annotations

from django.db import models

from vinetag.apps.naming.models import Project

__all__ = ["Comment", "Guest", "Hearing", "Recall", "Share", "Vote"]


class Share(models.Model):
    """A link under which some names of a project can be seen, judged and talked about. It ends at
    `ends_at`, or when it is revoked. `names` are labels in the owner's order. `vetted`: what
    vetting found of them is shown, too.
    """

    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="shares")
    token = models.CharField(max_length=43, unique=True, db_collation="utf8mb4_bin")
    title = models.CharField(max_length=80)
    names = models.JSONField()
    vetted = models.BooleanField(default=False)
    ends_at = models.DateTimeField()
    revoked_at = models.DateTimeField(null=True, blank=True)
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        indexes = [models.Index(fields=["project", "-id"])]

    def __str__(self) -> str:
        return self.title


class Guest(models.Model):
    """Someone who opened a link. Nothing is known of them but a first name they chose to give."""

    share = models.ForeignKey(Share, on_delete=models.CASCADE, related_name="guests")
    first_name = models.CharField(max_length=40, blank=True, default="")
    joined_at = models.DateTimeField(auto_now_add=True)

    def __str__(self) -> str:
        return self.first_name or "someone"


class Vote(models.Model):
    """What a guest thinks of a name: 1 for, -1 against, 0 no matter."""

    guest = models.ForeignKey(Guest, on_delete=models.CASCADE, related_name="votes")
    label = models.CharField(max_length=63, db_collation="utf8mb4_bin")
    value = models.SmallIntegerField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["guest", "label"], name="one_vote_a_name")]

    def __str__(self) -> str:
        return f"{self.label}: {self.value:+d}"


class Comment(models.Model):
    """What a guest said of a name; all who have the link can read it."""

    guest = models.ForeignKey(Guest, on_delete=models.CASCADE, related_name="comments")
    label = models.CharField(max_length=63, db_collation="utf8mb4_bin")
    text = models.CharField(max_length=500)
    said_at = models.DateTimeField(auto_now_add=True)

    def __str__(self) -> str:
        return self.text[:40]


class Hearing(models.Model):
    """What a guest wrote who heard a name said."""

    guest = models.ForeignKey(Guest, on_delete=models.CASCADE, related_name="hearings")
    label = models.CharField(max_length=63, db_collation="utf8mb4_bin")
    typed = models.CharField(max_length=80)
    right = models.BooleanField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["guest", "label"], name="heard_once_a_name")]

    def __str__(self) -> str:
        return f"{self.label}: {self.typed}"


class Recall(models.Model):
    """Which names a guest remembered of those shown briefly."""

    guest = models.OneToOneField(Guest, on_delete=models.CASCADE, related_name="recall")
    shown = models.JSONField()
    remembered = models.JSONField()

    def __str__(self) -> str:
        return f"{len(self.remembered)} of {len(self.shown)}"
