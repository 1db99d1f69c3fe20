"""XML as the simulated gateways write and read it."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal, InvalidOperation
from typing import Any, Final
from xml.sax.saxutils import escape

__all__ = [
    "BALANCE", "NAMESPACES", "Answer", "about", "agreed_fee", "every", "first", "key_of", "keys_of",
    "local", "number_of", "object_of", "statuses_of", "text_of", "time_of",
    "token_of",
]  # fmt: skip

NAMESPACES: Final = {
    "domain": "urn:ietf:params:xml:ns:domain-1.0",
    "contact": "urn:ietf:params:xml:ns:contact-1.0",
    "host": "urn:ietf:params:xml:ns:host-1.0",
    "secDNS": "urn:ietf:params:xml:ns:secDNS-1.1",
    "rgp": "urn:ietf:params:xml:ns:rgp-1.0",
    "fee": "urn:ietf:params:xml:ns:epp:fee-1.0",
    "allocationToken": "urn:ietf:params:xml:ns:allocationToken-1.0",
}
BALANCE: Final = "http://gateway.example/epp/balance-1.0"


@dataclass(frozen=True)
class Answer:
    """A result code, and what is told: of objects, in extensions, of the queue, and of errors."""

    code: int
    told: str = ""
    more: str = ""
    queue: str = ""
    value: str = ""


def local(tag: str) -> str:
    """A tag without its namespace."""
    return tag.rpartition("}")[2]


def first(element: Any, name: str) -> Any:
    """The first element of that name within, at any depth, None where there is none."""
    if element is None:
        return None
    return next((e for e in element.iter() if local(e.tag) == name and e is not element), None)


def every(element: Any, name: str) -> list[str]:
    if element is None:
        return []
    return [text_of(one) for one in element.iter() if local(one.tag) == name]


def statuses_of(element: Any) -> list[str]:
    if element is None:
        return []
    return [one.get("s", "") for one in element.iter() if local(one.tag) == "status"]


def keys_of(element: Any) -> list[list[str]]:
    """Delegation signers (RFC 5910)."""
    if element is None:
        return []
    found = [one for one in element.iter() if local(one.tag) == "dsData"]
    parts = ("keyTag", "alg", "digestType", "digest")
    return [[text_of(first(one, part)) for part in parts] for one in found]


def key_of(parts: list[str]) -> str:
    names = ("keyTag", "alg", "digestType", "digest")
    body = "".join(
        f"<secDNS:{n}>{escape(v)}</secDNS:{n}>" for n, v in zip(names, parts, strict=True)
    )
    return f"<secDNS:dsData>{body}</secDNS:dsData>"


def agreed_fee(extension: Any, kind: str) -> tuple[Decimal, str] | None:
    """The fee somebody agreed to, and its currency."""
    for one in extension.iter():
        if one.tag == f"{{{NAMESPACES['fee']}}}{kind}":
            try:
                return Decimal(text_of(first(one, "fee"))), text_of(first(one, "currency"))
            except InvalidOperation:
                return Decimal(0), ""
    return None


def token_of(extension: Any) -> str:
    """What somebody has to show to be given something (RFC 8495), "" for nothing."""
    for one in () if extension is None else extension:
        if one.tag == f"{{{NAMESPACES['allocationToken']}}}allocationToken":
            return text_of(one)
    return ""


def number_of(element: Any, usual: int) -> int:
    text = text_of(element)
    return int(text) if text.isdigit() and len(text) < 4 else usual


def text_of(element: Any) -> str:
    return (element.text or "").strip() if element is not None else ""


def time_of(text: str) -> str:
    return datetime.fromisoformat(text).strftime("%Y-%m-%dT%H:%M:%SZ")


def object_of(prefix: str, tag: str, body: str) -> str:
    return f'<{prefix}:{tag} xmlns:{prefix}="{NAMESPACES[prefix]}">{body}</{prefix}:{tag}>'


def about(prefix: str, tag: str, value: str, reason: str) -> str:
    """What was wrong (RFC 5730, section 2.6)."""
    inner = (
        f'<{prefix}:{tag} xmlns:{prefix}="{NAMESPACES[prefix]}">{escape(value)}</{prefix}:{tag}>'
    )
    return f"<value>{inner}</value><reason>{escape(reason)}</reason>"
