"""Watches, what happened, and how people are told."""

from __future__ import annotations

from typing import ClassVar

from django.conf import settings
from django.db import models

from vinetag.apps.naming.models import Project

__all__ = ["Happening", "Letter", "PrivateFeed", "SpentDay", "Telling", "Watch", "Watched"]


class Watch(models.Model):
    """Something watched, for a `reason`, until the day `ends_on`, or until it was `ended_at`.

    `kind` is one of WATCH_NAMES; `asked`: of a search its question, of a price whose and of what;
    `known`: what was told of those so far. `answers`: up to which of the project's answers its
    names were looked through.
    """

    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="watches")
    kind = models.CharField(max_length=12)
    title = models.CharField(max_length=120)
    reason = models.CharField(max_length=200, blank=True, default="")
    asked = models.JSONField(default=dict)
    known = models.JSONField(default=dict)
    answers = models.PositiveBigIntegerField(default=0)
    ends_on = models.DateField()
    ended_at = models.DateTimeField(null=True, blank=True)
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        indexes: ClassVar = [models.Index(fields=["kind", "ended_at"])]

    def __str__(self) -> str:
        return self.title


class Watched(models.Model):
    """A full name under a watch: what was known of it when it was looked at last
    (vinetag.core.watching.Seen), when it is asked about again, None while its watch is over, and
    when something of it is told before it comes. `failures`: how often in a row nothing was found
    out, with the last `trouble`.
    """

    watch = models.ForeignKey(Watch, on_delete=models.CASCADE, related_name="names")
    label = models.CharField(max_length=63, db_collation="utf8mb4_bin")
    extension = models.CharField(max_length=63, db_collation="utf8mb4_bin")
    known = models.JSONField(default=dict)
    number = models.PositiveBigIntegerField(default=0)
    asked_at = models.DateTimeField(null=True, blank=True)
    next_at = models.DateTimeField(null=True, blank=True)
    urgent = models.BooleanField(default=False)
    remind_at = models.DateTimeField(null=True, blank=True)
    failures = models.PositiveSmallIntegerField(default=0)
    trouble = models.CharField(max_length=24, blank=True, default="")

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(
                fields=["watch", "label", "extension"], name="watched_once_a_watch"
            )
        ]
        indexes: ClassVar = [
            models.Index(fields=["next_at"]),
            models.Index(fields=["remind_at"]),
            models.Index(fields=["label", "extension"]),
        ]

    def __str__(self) -> str:
        return f"{self.label}.{self.extension}"


class Letter(models.Model):
    """A letter to a person. Whether one went that was being sent when something broke off is not
    known (`unsure`): it is not sent again, for nobody is told twice.
    """

    class State(models.TextChoices):
        WAITING = "waiting"
        SENDING = "sending"
        SENT = "sent"
        UNSURE = "unsure"
        REFUSED = "refused"
        FAILED = "failed"

    owner = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="letters"
    )
    address = models.CharField(max_length=254)
    subject = models.CharField(max_length=160)
    text = models.TextField()
    state = models.CharField(max_length=8, choices=State.choices, default=State.WAITING)
    tries = models.PositiveSmallIntegerField(default=0)
    next_at = models.DateTimeField()
    made_at = models.DateTimeField(auto_now_add=True)
    sent_at = models.DateTimeField(null=True, blank=True)
    trouble = models.CharField(max_length=200, blank=True, default="")

    class Meta:
        indexes: ClassVar = [models.Index(fields=["state", "next_at"])]

    def __str__(self) -> str:
        return self.subject


class Happening(models.Model):
    """Something that happened to what is watched, or owned (then without a `watch`): `what`
    (HAPPENING_NAMES) with its `args`, as vinetag.core.watching.sentence tells it. `sign` makes it
    one of its person's: it is told once, however many of their watches it is under.
    """

    owner = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="happenings"
    )
    watch = models.ForeignKey(
        Watch, on_delete=models.CASCADE, null=True, blank=True, related_name="happenings"
    )
    label = models.CharField(max_length=63, blank=True, default="", db_collation="utf8mb4_bin")
    extension = models.CharField(max_length=63, blank=True, default="", db_collation="utf8mb4_bin")
    what = models.CharField(max_length=12)
    args = models.JSONField(default=dict)
    sign = models.CharField(max_length=160, db_collation="utf8mb4_bin")
    at = models.DateTimeField()
    read_at = models.DateTimeField(null=True, blank=True)
    letter = models.ForeignKey(
        Letter, on_delete=models.SET_NULL, null=True, blank=True, related_name="happenings"
    )

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["owner", "sign"], name="told_once_a_person")
        ]
        indexes: ClassVar = [models.Index(fields=["owner", "-id"])]

    def __str__(self) -> str:
        return f"{self.what}: {self.sign}"


class SpentDay(models.Model):
    """How many look-ups watching had for a person on a day (UTC), those under way among them."""

    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+")
    day = models.DateField()
    lookups = models.PositiveIntegerField(default=0)

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["owner", "day"], name="one_count_a_day")
        ]

    def __str__(self) -> str:
        return f"{self.day}: {self.lookups}"


class Telling(models.Model):
    """How a person is told: in which `zone` (IANA), and by letters to an `address` once it is
    `confirmed_at`: at once, or once a day at an `hour`. `trouble`: why letters to it are held back.
    `told`: up to which happening letters were written.
    """

    class How(models.TextChoices):
        OFF = "off"
        AT_ONCE = "at_once"
        DAILY = "daily"

    owner = models.OneToOneField(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="telling"
    )
    zone = models.CharField(max_length=60, default="UTC")
    address = models.CharField(max_length=254, blank=True, default="")
    how = models.CharField(max_length=8, choices=How.choices, default=How.OFF)
    hour = models.PositiveSmallIntegerField(default=8)
    code = models.CharField(max_length=43, blank=True, default="", db_collation="utf8mb4_bin")
    confirmed_at = models.DateTimeField(null=True, blank=True)
    trouble = models.CharField(max_length=200, blank=True, default="")
    told = models.PositiveBigIntegerField(default=0)
    written_at = models.DateTimeField(null=True, blank=True)
    digest_on = models.DateField(null=True, blank=True)

    def __str__(self) -> str:
        return self.address or "nowhere"


class PrivateFeed(models.Model):
    """An address at which a person's happenings (Atom) or dates (iCalendar) can be read without
    signing in, by whoever has it, until it is revoked.
    """

    class Kind(models.TextChoices):
        ATOM = "atom"
        CALENDAR = "calendar"

    owner = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="private_feeds"
    )
    kind = models.CharField(max_length=8, choices=Kind.choices)
    token = models.CharField(max_length=43, unique=True, db_collation="utf8mb4_bin")
    made_at = models.DateTimeField(auto_now_add=True)
    read_at = models.DateTimeField(null=True, blank=True)

    def __str__(self) -> str:
        return self.kind
