"""What watching adds: watches in a project's file and on a name's page, and words."""

from __future__ import annotations

from typing import Any

from vinetag.apps.accounts.joining import Filed, Joined, Shown
from vinetag.apps.naming.models import Project
from vinetag.apps.watching.api.serializers import WatchedByNameSerializer
from vinetag.apps.watching.filed import WatchingFields, bring, write
from vinetag.apps.watching.models import Watched

__all__ = ["JOINED"]


def show(project: Project, label: str) -> dict[str, Any]:
    """Who of the project watches the name, under any extension."""
    rows = Watched.objects.filter(
        watch__project=project, watch__ended_at=None, label=label
    ).select_related("watch")
    return {
        "watched": [
            {
                "watch": row.watch_id,
                "kind": row.watch.kind,
                "extension": row.extension,
                "reason": row.watch.reason,
                "ends_on": row.watch.ends_on,
                "next_at": row.next_at,
            }
            for row in rows.order_by("extension", "watch_id")
        ]
    }


JOINED = Joined(
    filed=Filed(WatchingFields, write, bring),
    shown=Shown({"watched": WatchedByNameSerializer(many=True, help_text="Who watches it")}, show),
    words={
        "watch_end": "Choose a day after today, and within {days} days.",
        "too_many_watched": "At most {limit:,} here; these are {count:,}. Nothing was added.",
        "time_zone": "“{value}” is no time zone.",
        "mail_address": "“{value}” is no mail address.",
        "mail_code": "This address was confirmed already, or another letter was sent since.",
    },
)
