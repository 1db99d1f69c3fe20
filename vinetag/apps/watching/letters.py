"""Letters of what happened: written once together with the note that it was, sent once at most."""

from __future__ import annotations

import logging
import secrets
import smtplib
import time
from collections.abc import Sequence
from datetime import datetime, timedelta
from typing import Final
from zoneinfo import ZoneInfo

from django.conf import settings
from django.core.exceptions import ValidationError
from django.core.mail import EmailMessage, get_connection
from django.core.mail.backends.base import BaseEmailBackend
from django.core.validators import validate_email
from django.db import transaction
from django.db.models import F
from django.utils import timezone

from vinetag.apps.accounts.errors import ConflictError, RefusedError
from vinetag.apps.accounts.models import User
from vinetag.apps.watching.happenings import texts_of
from vinetag.apps.watching.models import Happening, Letter, Telling
from vinetag.apps.watching.zones import zone_of
from vinetag.core.errors import Problem

__all__ = [
    "can_mail", "confirm", "letters_of", "send_letters", "set_telling", "telling_of",
    "write_letters",
]  # fmt: skip

MOST_LINES: Final = 60
MOST_CONFIRMATIONS: Final = 5
# How long sending may take in one round, and a letter until nobody knows what became of it.
SECONDS: Final = 15.0
LEASE: Final = timedelta(minutes=2)
WAITS: Final = (1, 5, 30, 120, 360, 720)
LONGEST_TROUBLE: Final = 200
SHOWN: Final = 20
# Between two letters there is so much time; more once there were many in a day.
APART, MANY, FURTHER = timedelta(minutes=1), 10, timedelta(minutes=15)

log = logging.getLogger(__name__)


def can_mail(person: User) -> bool:
    """Whether letters go out for a person: from the workspace anybody enters to no outside."""
    return bool(settings.MAIL_HOST) and not (person.is_demo and not settings.MAIL_READER)


def telling_of(person: User) -> Telling:
    """How the person is told."""
    return Telling.objects.get_or_create(owner=person)[0]


def letters_of(person: User) -> Sequence[Letter]:
    """The last letters, the newest first."""
    return list(person.letters.order_by("-pk")[:SHOWN])


def set_telling(
    person: User, *, zone: str | None = None, address: str | None = None, how: str | None = None,
    hour: int | None = None,
) -> Telling:  # fmt: skip
    """Change how the person is told. Another address has to be confirmed by what is written to it.
    Raises RefusedError, and ConflictError where no letters are sent.
    """
    telling_of(person)
    with transaction.atomic():
        row = Telling.objects.select_for_update().get(owner=person)
        if zone is not None:
            if zone_of(zone) is None:
                raise RefusedError([Problem("zone", "time_zone", {"value": zone[:40]})])
            row.zone = zone
        if hour is not None:
            row.hour = hour
        if address is not None:
            _set_address(person, row, address.strip())
        if how is not None and how != row.how:
            if how != Telling.How.OFF and not row.address:
                raise RefusedError([Problem("address", "blank")])
            if row.how == Telling.How.OFF:
                # What happened before is not written of.
                row.told = _newest(person)
            row.how = how
        row.save()
    return row


def _newest(person: User) -> int:
    newest = Happening.objects.filter(owner=person).order_by("-pk").values_list("pk", flat=True)
    return newest.first() or 0


def _set_address(person: User, row: Telling, address: str) -> None:
    if address != row.address:
        waiting = person.letters.filter(state=Letter.State.WAITING)
        waiting.update(state=Letter.State.FAILED, trouble="Its address is used no more.")
    if not address:
        row.address, row.code, row.trouble = "", "", ""
        row.confirmed_at, row.how = None, Telling.How.OFF
        return
    if not can_mail(person):
        raise ConflictError("no_mail", "This installation sends no letters.")
    try:
        validate_email(address)
    except ValidationError:
        raise RefusedError([Problem("address", "mail_address", {"value": address[:60]})]) from None
    if address == row.address and (row.confirmed_at or row.code) and not row.trouble:
        return
    lately = person.letters.filter(
        subject=_CONFIRM, made_at__gt=timezone.now() - timedelta(days=1)
    ).count()
    if lately >= MOST_CONFIRMATIONS:
        message = f"At most {MOST_CONFIRMATIONS} addresses are tried in a day. Try again tomorrow."
        raise ConflictError("too_many", message)
    row.address, row.confirmed_at, row.trouble = address, None, ""
    row.code = secrets.token_urlsafe(32)
    Letter.objects.create(
        owner=person,
        address=address,
        subject=_CONFIRM,
        text=(
            "Somebody, likely you, wants to be written to at this address by Vine Tag, when "
            "something happens to names they watch.\n\nTo agree, open this:\n\n"
            f"{settings.PUBLIC_ADDRESS}/watching?confirm={row.code}\n\n"
            "If it was not you, do nothing: nothing more will come."
        ),
        next_at=timezone.now(),
    )


_CONFIRM: Final = "Shall Vine Tag write to you here?"


def confirm(person: User, code: str) -> Telling:
    """The address of a letter is the person's. Raises RefusedError for another code."""
    telling_of(person)
    with transaction.atomic():
        row = Telling.objects.select_for_update().get(owner=person)
        if not row.code or not secrets.compare_digest(row.code.encode(), code.encode()):
            raise RefusedError([Problem("code", "mail_code")])
        row.confirmed_at, row.code, row.trouble = timezone.now(), "", ""
        row.told = _newest(person)
        if row.how == Telling.How.OFF:
            row.how = Telling.How.AT_ONCE
        row.save()
    return row


def write_letters() -> int:
    """Write of what happened since the last letter, to those whose time it is; how many."""
    if not settings.MAIL_HOST:
        return 0
    rows = Telling.objects.filter(confirmed_at__isnull=False, trouble="", owner__is_active=True)
    new = rows.exclude(how=Telling.How.OFF).filter(owner__happenings__pk__gt=F("told")).distinct()
    count = 0
    for pk, how, zone, hour in new.values_list("pk", "how", "zone", "hour"):
        here = timezone.now().astimezone(zone_of(zone) or ZoneInfo("UTC"))
        if how == Telling.How.AT_ONCE:
            count += _write(pk, here)
        elif here.hour >= hour:
            count += _write(pk, here, daily=True)
    return count


def _write(pk: int, here: datetime, *, daily: bool = False) -> int:
    with transaction.atomic():
        row = Telling.objects.select_for_update().select_related("owner").get(pk=pk)
        if row.digest_on == here.date() if daily else _too_soon(row):
            return 0
        since = Happening.objects.filter(owner=row.owner, pk__gt=row.told).order_by("pk")
        happened = list(since.select_related("watch"))
        if not happened:
            return 0
        lines = list(texts_of(happened[:MOST_LINES], row.zone))
        letter = Letter.objects.create(
            owner=row.owner,
            address=row.address,
            subject=_subject(lines, len(happened), daily=daily),
            text=_text(happened, lines),
            next_at=timezone.now(),
        )
        Happening.objects.filter(pk__in=[one.pk for one in happened]).update(letter=letter)
        row.told, row.written_at = happened[-1].pk, timezone.now()
        row.digest_on = here.date() if daily else row.digest_on
        row.save(update_fields=["told", "written_at", "digest_on"])
    return 1


def _too_soon(row: Telling) -> bool:
    """Whether the last letter is so young that what happened since waits for the next."""
    if row.written_at is None:
        return False
    now = timezone.now()
    lately = row.owner.letters.filter(made_at__gt=now - timedelta(days=1)).count()
    return now - row.written_at < (APART if lately < MANY else FURTHER)


def _subject(lines: Sequence[str], count: int, *, daily: bool) -> str:
    if count == 1:
        return " ".join(lines[0].split())[:150]
    return f"{count:,} things happened to what you watch or own" + (
        " since yesterday" if daily else ""
    )


def _text(happened: Sequence[Happening], lines: Sequence[str]) -> str:
    parts = []
    for one, line in zip(happened, lines, strict=False):
        why = one.watch.reason if one.watch else ""
        reason = f"\n  You watch it because: {why}" if why else ""
        parts.append(f"- {line}{reason}")
    if len(happened) > len(lines):
        parts.append(f"- and {len(happened) - len(lines):,} more")
    listed = "\n".join(parts)
    return (
        f"{listed}\n\nAll of it: {settings.PUBLIC_ADDRESS}/watching\n"
        "There you also say whether and when you are written to."
    )


def send_letters() -> int:
    """Send what waits, each once at most; how many went."""
    now = timezone.now()
    # Whoever was sending these is gone, and nobody knows whether they went.
    Letter.objects.filter(state=Letter.State.SENDING, next_at__lte=now).update(
        state=Letter.State.UNSURE, trouble="The connection broke off while it was sent."
    )
    if not settings.MAIL_HOST:
        return 0
    waiting = Letter.objects.filter(state=Letter.State.WAITING, next_at__lte=now).order_by(
        "next_at"
    )
    pks = list(waiting.values_list("pk", flat=True)[:200])
    if not pks:
        return 0
    deadline = time.monotonic() + SECONDS
    post: BaseEmailBackend = get_connection()
    count = 0
    try:
        try:
            post.open()
        except (OSError, smtplib.SMTPException) as error:
            # Nothing was said yet: all of them wait.
            for letter in Letter.objects.filter(pk__in=pks, state=Letter.State.WAITING):
                _wait(letter, error)
            return 0
        for pk in pks:
            state = _send(pk, post)
            count += state == Letter.State.SENT
            # What the others are told of goes by a connection of its own, in the next round.
            if state == Letter.State.UNSURE or time.monotonic() > deadline:
                break
    finally:
        try:
            post.close()
        except (OSError, smtplib.SMTPException) as error:
            log.info("the mail server hung up: %s", error)
    return count


def _send(pk: int, post: BaseEmailBackend) -> str:
    """Send one; its state afterwards, "" where it waits no more."""
    mine = Letter.objects.filter(pk=pk, state=Letter.State.WAITING)
    # From here on it is said before it is done, so that it is never done twice.
    if not mine.update(state=Letter.State.SENDING, next_at=timezone.now() + LEASE):
        return ""
    letter = Letter.objects.get(pk=pk)
    host = settings.DEFAULT_FROM_EMAIL.rpartition("@")[2].strip("> ")
    message = EmailMessage(
        letter.subject,
        letter.text,
        to=[letter.address],
        headers={
            "Message-ID": f"<letter-{letter.pk}-{letter.made_at:%Y%m%d%H%M%S}@{host}>",
            "Auto-Submitted": "auto-generated",
        },
        connection=post,
    )
    try:
        message.send()
    except smtplib.SMTPRecipientsRefused as error:
        code, why = next(iter(error.recipients.values()), (550, b""))
        _refused(letter, code, why)
    except smtplib.SMTPResponseException as error:
        _refused(letter, error.smtp_code, error.smtp_error)
    except (OSError, smtplib.SMTPException) as error:
        letter.state = Letter.State.UNSURE
        letter.trouble = f"The connection broke off while it was sent: {error}"[:LONGEST_TROUBLE]
        letter.save(update_fields=["state", "trouble"])
    else:
        letter.state, letter.sent_at, letter.trouble = Letter.State.SENT, timezone.now(), ""
        letter.save(update_fields=["state", "sent_at", "trouble"])
    return letter.state


def _refused(letter: Letter, code: int, why: bytes | str) -> None:
    """The server said no: for now (4xx), or for good (5xx), which holds back what goes there."""
    text = why.decode("utf-8", "replace") if isinstance(why, bytes) else why
    said = " ".join(f"{code} {text}".split())[:LONGEST_TROUBLE]
    if code < 500:
        _wait(letter, said)
        return
    letter.state, letter.trouble = Letter.State.REFUSED, said
    letter.save(update_fields=["state", "trouble"])
    Telling.objects.filter(owner=letter.owner_id, address=letter.address).update(trouble=said)


def _wait(letter: Letter, why: object) -> None:
    """Try it again later; after some hours it is given up."""
    letter.tries += 1
    letter.trouble = " ".join(str(why).split())[:LONGEST_TROUBLE]
    if letter.tries > len(WAITS):
        letter.state = Letter.State.FAILED
    else:
        letter.state = Letter.State.WAITING
        letter.next_at = timezone.now() + timedelta(minutes=WAITS[letter.tries - 1])
    letter.save(update_fields=["state", "tries", "trouble", "next_at"])
