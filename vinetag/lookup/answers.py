"""What a look-up gives: always an answer, never an exception. Not knowing is an answer too."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Final, Literal

from vinetag.core.names import FullName

__all__ = ["TROUBLE_WORDING", "Answer", "Status", "Trouble"]

Status = Literal["open", "taken", "unsure"]
Trouble = Literal[
    "",
    "no_service",
    "no_bootstrap",
    "unreachable",
    "timeout",
    "rate_limited",
    "server_error",
    "refused",
    "redirected",
    "nonsense",
    "resting",
]

TROUBLE_WORDING: Final[Mapping[Trouble, str]] = {
    "": "",
    "no_service": "This extension has no open look-up service.",
    "no_bootstrap": "The list of look-up services could not be read. Try again later.",
    "unreachable": "The look-up service could not be reached. Try again later.",
    "timeout": "The look-up service did not answer in time. Try again.",
    "rate_limited": "The look-up service asked us to slow down. Try again later.",
    "server_error": "The look-up service failed. Try again later.",
    "refused": "The look-up service refused the question.",
    "redirected": "The look-up service sent us to an address we do not know.",
    "nonsense": "The look-up service gave an answer that makes no sense.",
    "resting": "The look-up service failed too often and is left alone. Try again later.",
}


@dataclass(frozen=True, slots=True)
class Answer:
    """What was found out about one full name, by whom and when.

    `trouble` says why a status is unsure and is '' otherwise; `detail` is the particular (an HTTP
    status, a parse fault); `source` is the address asked, '' if none was; times are aware, in UTC.
    """

    name: FullName
    status: Status
    asked_at: datetime
    source: str = ""
    trouble: Trouble = ""
    detail: str = ""
    registered: datetime | None = None
    expires: datetime | None = None
    rdap_status: tuple[str, ...] = ()
