"""What a look-up gives: always an answer, never an exception. Not knowing is an answer too."""

from __future__ import annotations

from collections.abc import Collection, Mapping
from dataclasses import dataclass
from datetime import datetime

from vinetag.core.checking import Aim, Evidence, Source, Status, Trouble, verdict
from vinetag.core.names import FullName

__all__ = ["Answer", "answer_of"]


@dataclass(frozen=True, slots=True)
class Answer:
    """What was found out about one full name.

    `likely`: no source with authority has said so; `trouble` says why a status is unsure and is ''
    otherwise; `evidence` stands in the order asked; `asked_at` is aware, in UTC; `reused`: it was
    known before and nobody was asked.
    """

    name: FullName
    status: Status
    asked_at: datetime
    likely: bool = False
    trouble: Trouble = ""
    aim: Aim = "scan"
    evidence: tuple[Evidence, ...] = ()
    reused: bool = False


def answer_of(
    name: FullName,
    evidence: Mapping[Source, Evidence],
    can: Collection[Source],
    aim: Aim,
    at: datetime,
) -> Answer:
    """The answer the evidence comes to."""
    found = verdict(evidence, can)
    return Answer(
        name, found.status, at, found.likely, found.trouble, aim, tuple(evidence.values())
    )
