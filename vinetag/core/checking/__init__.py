"""What is known of a full name, what to ask next, and what the answers come to."""

from vinetag.core.checking.dropping import DropRule, Drops, drop_rules, likely_drop
from vinetag.core.checking.evidence import (
    TROUBLE_WORDING,
    Aim,
    Evidence,
    Quote,
    Says,
    Trouble,
    in_words,
    read_evidence,
    reason_of,
    write_evidence,
)
from vinetag.core.checking.fallback import RUNG_NAMES, RUNGS, Rung, ladder
from vinetag.core.checking.fresh import is_fresh
from vinetag.core.checking.pasted import BadLine, Pasted, read_pasted
from vinetag.core.checking.planner import Verdict, next_step, standing_quote, verdict
from vinetag.core.checking.record import record_of
from vinetag.core.checking.sources import SOURCES, Source, SourceKind
from vinetag.core.checking.statuses import (
    LIFETIMES,
    STATUS_KINDS,
    STATUSES,
    Status,
    StatusKind,
    buyable,
)

__all__ = [
    "LIFETIMES", "RUNGS", "RUNG_NAMES", "SOURCES", "STATUSES", "STATUS_KINDS", "TROUBLE_WORDING",
    "Aim",
    "BadLine", "DropRule", "Drops", "Evidence", "Pasted", "Quote", "Rung", "Says", "Source",
    "SourceKind", "Status", "StatusKind", "Trouble", "Verdict", "buyable", "drop_rules",
    "in_words", "is_fresh", "ladder", "likely_drop", "next_step", "read_evidence", "read_pasted",
    "reason_of", "record_of", "standing_quote", "verdict", "write_evidence",
]  # fmt: skip
