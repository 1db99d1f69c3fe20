"""Reading an RDAP answer about a domain (RFC 7480, RFC 9083). Pure: bytes in, a finding out."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, datetime
from urllib.parse import quote

import msgspec

from vinetag.core.names import FullName
from vinetag.lookup.answers import Status, Trouble

__all__ = ["Found", "domain_address", "read_domain"]

LONGEST_DETAIL = 200


class _Event(msgspec.Struct, rename="camel"):
    event_action: str
    event_date: str = ""


class _Domain(msgspec.Struct, rename="camel"):
    object_class_name: str
    ldh_name: str = ""
    status: list[str] = []
    events: list[_Event] = []


@dataclass(frozen=True, slots=True)
class Found:
    """What one response says."""

    status: Status
    trouble: Trouble = ""
    detail: str = ""
    registered: datetime | None = None
    expires: datetime | None = None
    rdap_status: tuple[str, ...] = ()


def domain_address(base: str, name: FullName) -> str:
    """The query for a domain at a base address that ends in a slash (RFC 9082 section 3.1.3)."""
    return f"{base}domain/{quote(str(name))}"


def read_domain(http_status: int, content_type: str, body: bytes, name: FullName) -> Found:
    """What a response says of the name asked for.

    Only 200 with that very domain is taken, and only a 404 that is no web page is open (RFC 7480
    section 5.3). Everything else is unsure.
    """
    if http_status == 200:
        return _read_found(body, name)
    if http_status == 404:
        if "html" in content_type.lower():
            return _unsure("nonsense", "a web page, with HTTP status 404")
        return Found("open")
    if http_status == 429:
        return _unsure("rate_limited", "HTTP status 429")
    if 300 <= http_status < 400:
        return _unsure("redirected", f"HTTP status {http_status}")
    trouble: Trouble = "server_error" if http_status >= 500 else "refused"
    return _unsure(trouble, f"HTTP status {http_status}")


def _read_found(body: bytes, name: FullName) -> Found:
    try:
        domain = _DECODER.decode(body)
    except (msgspec.DecodeError, UnicodeDecodeError) as error:
        return _unsure("nonsense", str(error))
    if domain.object_class_name != "domain":
        return _unsure("nonsense", f"an object of class {domain.object_class_name!r}")
    if domain.ldh_name.lower().rstrip(".") != str(name):
        return _unsure("nonsense", f"an answer about {domain.ldh_name!r}")
    dates = {e.event_action: _read_date(e.event_date) for e in domain.events}
    return Found(
        "taken",
        registered=dates.get("registration"),
        expires=dates.get("expiration"),
        rdap_status=tuple(domain.status),
    )


def _read_date(text: str) -> datetime | None:
    """An RFC 3339 time in UTC; None where it is none, for dates are not worth refusing all for."""
    try:
        read = datetime.fromisoformat(text)
    except ValueError:
        return None
    return read.astimezone(UTC) if read.tzinfo else read.replace(tzinfo=UTC)


def _unsure(trouble: Trouble, detail: str) -> Found:
    return Found("unsure", trouble=trouble, detail=detail[:LONGEST_DETAIL])


_DECODER = msgspec.json.Decoder(_Domain)
