"""The shapes of watching in the API."""

from __future__ import annotations

from typing import Any

from rest_framework import serializers

from vinetag.apps.watching.letters import SHOWN
from vinetag.apps.watching.models import Happening, Letter, PrivateFeed, Telling, Watch, Watched
from vinetag.core.concepts import HAPPENING_NAMES, WATCH_NAMES
from vinetag.core.watching import read_seen, write_seen

__all__ = [
    "ConfirmSerializer",
    "FeedsSerializer",
    "HappeningSerializer",
    "HappeningsSerializer",
    "KeptWatchSerializer",
    "NewFeedSerializer",
    "PlaceSerializer",
    "ReadSerializer",
    "TellingChangeSerializer",
    "TellingSerializer",
    "WatchChangeSerializer",
    "WatchWishSerializer",
    "WatchedByNameSerializer",
    "WatchedSerializer",
    "WatchesSerializer",
    "happening_document",
    "watch_document",
    "watched_document",
]  # fmt: skip

MOST_ROWS = 200


class KeptWatchSerializer(serializers.Serializer[Any]):
    id = serializers.IntegerField()
    project = serializers.IntegerField()
    project_name = serializers.CharField()
    kind = serializers.ChoiceField(choices=WATCH_NAMES)
    title = serializers.CharField()
    reason = serializers.CharField(allow_blank=True)
    ends_on = serializers.DateField()
    ended_at = serializers.DateTimeField(allow_null=True)
    created_at = serializers.DateTimeField()
    names = serializers.IntegerField(help_text="How many full names")
    next_at = serializers.DateTimeField(allow_null=True, help_text="When the next is asked about")
    question = serializers.DictField(child=serializers.CharField())
    first = serializers.CharField(allow_blank=True, help_text="Its full name, where it has one")


class WatchStandingSerializer(serializers.Serializer[Any]):
    names = serializers.IntegerField(help_text="Full names watched")
    most_names = serializers.IntegerField()
    watches = serializers.IntegerField()
    spent = serializers.IntegerField(help_text="Look-ups watching had today (UTC)")
    budget = serializers.IntegerField(help_text="Those it may have a day")


class WatchesSerializer(serializers.Serializer[Any]):
    watches = KeptWatchSerializer(many=True)
    standing = WatchStandingSerializer()


class WatchWishSerializer(serializers.Serializer[Any]):
    kind = serializers.ChoiceField(choices=WATCH_NAMES)
    title = serializers.CharField(max_length=120, default="", allow_blank=True)
    reason = serializers.CharField(max_length=200, default="", allow_blank=True)
    ends_on = serializers.DateField(allow_null=True, default=None)
    names = serializers.ListField(
        child=serializers.CharField(max_length=300, trim_whitespace=True),
        default=list,
        help_text="Full names, or names where extensions are given",
    )
    extensions = serializers.ListField(child=serializers.CharField(max_length=80), default=list)
    question = serializers.DictField(
        child=serializers.CharField(max_length=400, allow_blank=True),
        default=dict,
        help_text="Of a search: the fields of the hunt's address",
    )
    seller = serializers.CharField(max_length=40, default="", allow_blank=True)
    extension = serializers.CharField(max_length=80, default="", allow_blank=True)
    action = serializers.CharField(max_length=20, default="renew", help_text="register or renew")


class WatchChangeSerializer(serializers.Serializer[Any]):
    title = serializers.CharField(max_length=120, required=False)
    reason = serializers.CharField(max_length=200, required=False, allow_blank=True)
    ends_on = serializers.DateField(required=False)
    ended = serializers.BooleanField(required=False)


class SeenSerializer(serializers.Serializer[Any]):
    """What was known of it when it was looked at last."""

    status = serializers.CharField(required=False)
    expires = serializers.DateTimeField(required=False)
    drops_from = serializers.DateTimeField(required=False)
    drops_to = serializers.DateTimeField(required=False)
    kind = serializers.CharField(required=False)
    market = serializers.CharField(required=False)
    price = serializers.CharField(required=False)
    currency = serializers.CharField(required=False)
    ends = serializers.DateTimeField(required=False)
    first_year = serializers.CharField(required=False)
    renewal = serializers.CharField(required=False)
    terms_currency = serializers.CharField(required=False)


class WatchedSerializer(serializers.Serializer[Any]):
    """A full name under a watch."""

    label = serializers.CharField()  # type: ignore[assignment] # a field called as DRF's own
    extension = serializers.CharField()
    known = SeenSerializer()
    asked_at = serializers.DateTimeField(allow_null=True)
    next_at = serializers.DateTimeField(allow_null=True)
    trouble = serializers.CharField(allow_blank=True, help_text="Why nothing was found out last")


class WatchedPageSerializer(serializers.Serializer[Any]):
    rows = WatchedSerializer(many=True)
    total = serializers.IntegerField()


class PlaceSerializer(serializers.Serializer[Any]):
    offset = serializers.IntegerField(default=0, min_value=0, max_value=1_000_000)
    limit = serializers.IntegerField(default=50, min_value=1, max_value=MOST_ROWS)


class HappeningPlaceSerializer(serializers.Serializer[Any]):
    before = serializers.IntegerField(required=False, min_value=1)
    limit = serializers.IntegerField(default=50, min_value=1, max_value=100)
    zone = serializers.CharField(
        default="", allow_blank=True, max_length=60, help_text="For moments (IANA)"
    )


class HappeningSerializer(serializers.Serializer[Any]):
    id = serializers.IntegerField()
    watch = serializers.IntegerField(allow_null=True, help_text="None of a name one owns")
    title = serializers.CharField(allow_blank=True, help_text="Of the watch")
    project = serializers.IntegerField(allow_null=True)
    label = serializers.CharField(allow_blank=True)  # type: ignore[assignment] # as DRF's own
    extension = serializers.CharField(allow_blank=True)
    what = serializers.ChoiceField(choices=HAPPENING_NAMES)
    text = serializers.CharField(help_text="As a sentence, moments in the zone asked for")
    at = serializers.DateTimeField()
    read = serializers.BooleanField()
    question = serializers.DictField(child=serializers.CharField())


class HappeningsSerializer(serializers.Serializer[Any]):
    rows = HappeningSerializer(many=True)
    unread = serializers.IntegerField()


class ReadSerializer(serializers.Serializer[Any]):
    upto = serializers.IntegerField(min_value=0, help_text="The id of the newest that was read")


class LetterSerializer(serializers.Serializer[Any]):
    subject = serializers.CharField()
    address = serializers.CharField()
    state = serializers.ChoiceField(choices=Letter.State.choices)
    made_at = serializers.DateTimeField()
    sent_at = serializers.DateTimeField(allow_null=True)
    trouble = serializers.CharField(allow_blank=True)


class TellingSerializer(serializers.Serializer[Any]):
    """How the person is told."""

    can_mail = serializers.BooleanField(help_text="Whether letters are sent here")
    reader = serializers.CharField(
        allow_blank=True, help_text="Where letters a simulated host kept can be read"
    )
    zone = serializers.CharField()
    address = serializers.CharField(allow_blank=True)
    how = serializers.ChoiceField(choices=Telling.How.choices)
    hour = serializers.IntegerField()
    confirmed = serializers.BooleanField()
    trouble = serializers.CharField(allow_blank=True, help_text="Why letters are held back")
    letters = LetterSerializer(many=True, help_text=f"The last {SHOWN}")


class TellingChangeSerializer(serializers.Serializer[Any]):
    zone = serializers.CharField(max_length=60, required=False)
    address = serializers.CharField(max_length=254, required=False, allow_blank=True)
    how = serializers.ChoiceField(choices=Telling.How.choices, required=False)
    hour = serializers.IntegerField(min_value=0, max_value=23, required=False)


class ConfirmSerializer(serializers.Serializer[Any]):
    code = serializers.CharField(max_length=60)


class NewFeedSerializer(serializers.Serializer[Any]):
    kind = serializers.ChoiceField(choices=PrivateFeed.Kind.choices)


class FeedSerializer(serializers.Serializer[Any]):
    id = serializers.IntegerField()
    kind = serializers.ChoiceField(choices=PrivateFeed.Kind.choices)
    path = serializers.CharField(help_text="Its address under this host")
    made_at = serializers.DateTimeField()
    read_at = serializers.DateTimeField(allow_null=True)


class FeedsSerializer(serializers.Serializer[Any]):
    feeds = FeedSerializer(many=True)


class WatchedByNameSerializer(serializers.Serializer[Any]):
    """A watch a name's page tells of."""

    watch = serializers.IntegerField()
    kind = serializers.ChoiceField(choices=WATCH_NAMES)
    extension = serializers.CharField()
    reason = serializers.CharField(allow_blank=True)
    ends_on = serializers.DateField()
    next_at = serializers.DateTimeField(allow_null=True)


def watch_document(watch: Watch) -> dict[str, Any]:
    """As KeptWatchSerializer describes it; of own_watches."""
    count = getattr(watch, "count", 0)
    only = f"{getattr(watch, 'label', '')}.{getattr(watch, 'extension', '')}"
    return {
        "id": watch.pk,
        "project": watch.project_id,
        "project_name": watch.project.name,
        "kind": watch.kind,
        "title": watch.title,
        "reason": watch.reason,
        "ends_on": watch.ends_on,
        "ended_at": watch.ended_at,
        "created_at": watch.created_at,
        "names": count,
        "next_at": getattr(watch, "next_at", None),
        "question": watch.asked.get("question", {}),
        "first": only if count == 1 else "",
    }


def watched_document(row: Watched) -> dict[str, Any]:
    """As WatchedSerializer describes it."""
    return {
        "label": row.label,
        "extension": row.extension,
        "known": write_seen(read_seen(row.known)),
        "asked_at": row.asked_at,
        "next_at": row.next_at,
        "trouble": row.trouble,
    }


def happening_document(row: Happening, text: str) -> dict[str, Any]:
    """As HappeningSerializer describes it."""
    return {
        "id": row.pk,
        "watch": row.watch_id,
        "title": row.watch.title if row.watch else "",
        "project": row.watch.project_id if row.watch else None,
        "label": row.label,
        "extension": row.extension,
        "what": row.what,
        "text": text,
        "at": row.at,
        "read": row.read_at is not None,
        "question": row.watch.asked.get("question", {}) if row.watch else {},
    }
