"""What happened as an Atom feed (RFC 4287), and what is to come as a calendar (RFC 5545), at
addresses that need no signing in, until they are revoked.
"""

from __future__ import annotations

import re
import secrets
from collections.abc import Iterator, Sequence
from datetime import date, datetime, timedelta
from itertools import chain, islice
from typing import Any, Final

from django.conf import settings
from django.utils import timezone
from django.utils.feedgenerator import Atom1Feed
from icalendar import Calendar, Event

from vinetag.apps.accounts.errors import ConflictError, NotFoundError
from vinetag.apps.accounts.joining import CalendarDay, joined
from vinetag.apps.accounts.models import User
from vinetag.apps.watching.happenings import happenings_of, texts_of
from vinetag.apps.watching.letters import telling_of
from vinetag.apps.watching.models import Happening, PrivateFeed, Watched
from vinetag.core.names import FullName
from vinetag.core.watching import Seen, read_seen

__all__ = [
    "atom_feed", "calendar_feed", "feeds_of", "make_feed", "opened_feed", "revoke_feed",
]  # fmt: skip

MOST_FEEDS: Final = 10
MOST_ENTRIES: Final = 100
MOST_EVENTS: Final = 2_000
# Letters no XML may have (XML 1.0, section 2.2).
NO_XML: Final = re.compile(r"[\x00-\x08\x0b\x0c\x0e-\x1f\ud800-\udfff\ufffe\uffff]")


def feeds_of(person: User) -> Sequence[PrivateFeed]:
    """A person's feeds, the oldest first."""
    return list(person.private_feeds.order_by("pk"))


def make_feed(person: User, kind: str) -> PrivateFeed:
    """A new address. Raises ConflictError where there are many."""
    if person.private_feeds.count() >= MOST_FEEDS:
        message = f"At most {MOST_FEEDS} addresses. Revoke one first."
        raise ConflictError("too_many", message)
    return PrivateFeed.objects.create(owner=person, kind=kind, token=secrets.token_urlsafe(32))


def revoke_feed(person: User, feed_id: int) -> None:
    """Whoever has the address reads nothing more. Raises NotFoundError."""
    if not person.private_feeds.filter(pk=feed_id).delete()[0]:
        raise NotFoundError


def opened_feed(token: str, kind: str) -> PrivateFeed:
    """The feed at an address. Raises NotFoundError where there is none, or its person left."""
    row = PrivateFeed.objects.select_related("owner").filter(token=token, kind=kind).first()
    if row is None or not row.owner.is_active:
        raise NotFoundError
    now = timezone.now()
    if row.read_at is None or now - row.read_at > timedelta(minutes=10):
        PrivateFeed.objects.filter(pk=row.pk).update(read_at=now)
    return row


def atom_feed(feed: PrivateFeed) -> str:
    """The last things that happened."""
    person = feed.owner
    rows = happenings_of(person, limit=MOST_ENTRIES)
    found = Atom1Feed(
        title="Vine Tag: what you watch",
        link=f"{settings.PUBLIC_ADDRESS}/watching",
        description="What happened to names, searches and prices you watch",
        feed_url=f"{settings.PUBLIC_ADDRESS}/api/feeds/{feed.token}/changes.atom",
        feed_guid=f"urn:vinetag:feed:{feed.pk}",
    )
    for row, text in zip(rows, texts_of(rows, telling_of(person).zone), strict=True):
        why = row.watch.reason if row.watch else ""
        reason = f" You watch it because: {why}" if why else ""
        found.add_item(
            title=_plain(text),
            link=_link(row),
            description=_plain(text + reason),
            unique_id=f"urn:vinetag:happening:{row.pk}",
            pubdate=row.at,
            updateddate=row.at,
        )
    if not rows:
        found.latest_post_date = lambda: feed.made_at  # type: ignore[method-assign]
    return found.writeString("utf-8")


def _link(row: Happening) -> str:
    if row.watch is None:
        return f"{settings.PUBLIC_ADDRESS}/owned?text={row.label}.{row.extension}"
    return address_of(row.watch.project_id, row.label, row.extension)


def address_of(project: int, label: str, extension: str) -> str:
    """Where the interface tells of it."""
    if not label:
        return f"{settings.PUBLIC_ADDRESS}/watching"
    return f"{settings.PUBLIC_ADDRESS}/projects/{project}/names/{label}.{extension}"


def _plain(text: str) -> str:
    return NO_XML.sub(" ", text)


def calendar_feed(feed: PrivateFeed) -> bytes:
    """Ends of auctions, when names may become open, when they run out, and what other apps add."""
    calendar = Calendar()
    calendar.add("prodid", "-//Vine Tag//watching//EN")
    calendar.add("version", "2.0")
    calendar.add("name", "Vine Tag: what you watch")
    rows = (
        Watched.objects.filter(
            watch__project__owner=feed.owner, watch__project__removed_at=None, watch__ended_at=None
        )
        .select_related("watch")
        .order_by("pk")
    )
    count, told = 0, set()
    for row in rows.iterator(1_000):
        for uid, about in _dates(row, read_seen(row.known)):
            if uid in told or count >= MOST_EVENTS:
                continue
            told.add(uid)
            count += 1
            event = Event()
            event.add("uid", f"{uid}@vinetag.example")
            event.add("dtstamp", row.asked_at or feed.made_at)
            for name, value in about.items():
                event.add(name, value)
            event.add("url", address_of(row.watch.project_id, row.label, row.extension))
            if row.watch.reason:
                event.add("comment", _plain(row.watch.reason))
            calendar.add_component(event)
    for one in _days_of_others(feed.owner, MOST_EVENTS - count):
        calendar.add_component(_day_event(one, feed.made_at))
    return bytes(calendar.to_ical())


def _days_of_others(person: User, most: int) -> Iterator[CalendarDay]:
    """What other apps have to tell."""
    found = (one.dates(person) for one in joined() if one.dates is not None)
    return islice(chain.from_iterable(found), max(0, most))


def _day_event(one: CalendarDay, made_at: datetime) -> Event:
    event = Event()
    event.add("uid", f"{one.uid}@vinetag.example")
    event.add("dtstamp", one.known_at or made_at)
    event.add("summary", _plain(one.summary))
    event.add("description", _plain(one.description))
    event.add("dtstart", one.day)
    event.add("dtend", one.day + timedelta(days=1))
    event.add("url", f"{settings.PUBLIC_ADDRESS}{one.address}")
    return event


def _dates(row: Watched, seen: Seen) -> Iterator[tuple[str, dict[str, Any]]]:
    """Each moment with its identity, which stays while the moment moves."""
    name = FullName(row.label, row.extension)
    if seen.status == "offered" and seen.kind == "auction" and seen.ends:
        price = f", {seen.price:.2f} {seen.currency} by now" if seen.price is not None else ""
        yield (
            f"ends-{name}",
            {
                "summary": _plain(f"Auction of {name.shown} ends"),
                "description": _plain(f"At {seen.market}{price}."),
                "dtstart": seen.ends - timedelta(minutes=15),
                "dtend": seen.ends,
            },
        )
    if seen.status == "dropping" and seen.drops_from and seen.drops_to:
        days = (seen.drops_to - seen.drops_from).days
        unsure = "within a day" if days < 1 else f"within {days + 1} days"
        yield (
            f"drops-{name}",
            {
                "summary": f"{name.shown} may become open",
                "description": f"By the rules of its extension, {unsure}, unless it is renewed.",
                **_span(seen.drops_from, seen.drops_to),
            },
        )
    if seen.status in ("taken", "offered") and seen.expires:
        yield (
            f"expires-{name}",
            {
                "summary": f"{name.shown} runs out",
                "description": "Its holder can renew it before, and for some time after.",
                "dtstart": seen.expires.date(),
                "dtend": seen.expires.date() + timedelta(days=1),
            },
        )


def _span(first: datetime, last: datetime) -> dict[str, date | datetime]:
    """A range of more than two days as whole days."""
    if last - first > timedelta(days=2):
        return {"dtstart": first.date(), "dtend": last.date() + timedelta(days=1)}
    return {"dtstart": first, "dtend": last}
