"""Watching: what is known of a full name, what changed of it, when to ask and to tell again."""

from vinetag.core.watching.changes import Change, changes
from vinetag.core.watching.reminders import Reminder, next_reminder
from vinetag.core.watching.schedule import Turn, allowed, fair_turns, next_turn, retry_turn
from vinetag.core.watching.seen import NOTHING, Seen, read_seen, write_seen
from vinetag.core.watching.wording import sentence

__all__ = [
    "NOTHING", "Change", "Reminder", "Seen", "Turn", "allowed", "changes", "fair_turns",
    "next_reminder", "next_turn", "read_seen", "retry_turn", "sentence", "write_seen",
]  # fmt: skip
