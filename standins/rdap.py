"""Writing RDAP responses by RFC 9083, and the bootstrap file by RFC 9224."""

from __future__ import annotations

from collections.abc import Callable
from datetime import datetime
from typing import Any

from standins.whois import WHOIS
from standins.world import EXTENSIONS, Registration

__all__ = [
    "bootstrap_document",
    "domain_document",
    "error_document",
    "help_document",
    "reserved_document",
]

CONFORMANCE = ["rdap_level_0"]
NOTICE = {
    "title": "Simulated service",
    "description": ["Every name, person and company in this answer is made up."],
}


def bootstrap_document(origin: Callable[[str], str]) -> dict[str, Any]:
    """Which registry answers for which extension, but for those that only speak WHOIS; `origin`
    gives a registry's address.
    """
    by_registry: dict[str, list[str]] = {}
    for extension, (registry, *_) in EXTENSIONS.items():
        if extension not in WHOIS:
            by_registry.setdefault(registry, []).append(extension)
    return {
        "description": "RDAP bootstrap file for the simulated registries",
        "publication": "2026-11-01T00:00:00Z",
        "services": [
            [e, [f"{origin(registry)}/{registry}/"]] for registry, e in by_registry.items()
        ],
        "version": "1.0",
    }


def domain_document(found: Registration, address: str, now: datetime) -> dict[str, Any]:
    """A domain object (RFC 9083 section 5.3)."""
    return {
        "rdapConformance": CONFORMANCE,
        "objectClassName": "domain",
        "handle": f"D{sum(found.name.encode()) * 7919 % 10**8:08d}-SIM",
        "ldhName": found.name,
        "status": list(found.status),
        "events": [
            {"eventAction": "registration", "eventDate": _time(found.created)},
            {"eventAction": "last changed", "eventDate": _time(found.changed)},
            {"eventAction": "expiration", "eventDate": _time(found.expires)},
            {"eventAction": "last update of RDAP database", "eventDate": _time(now)},
        ],
        "nameservers": [
            {"objectClassName": "nameserver", "ldhName": host} for host in found.nameservers
        ],
        "secureDNS": {"delegationSigned": found.signed},
        "entities": [
            _entity("registrar", found.registrar, found.registrar, "IE"),
            _entity("registrant", found.holder, found.organisation, found.country),
        ],
        "links": [
            {"value": address, "rel": "self", "href": address, "type": "application/rdap+json"}
        ],
        "notices": [NOTICE],
    }


def reserved_document(name: str, address: str) -> dict[str, Any]:
    """A domain the registry holds back."""
    return {
        "rdapConformance": CONFORMANCE,
        "objectClassName": "domain",
        "ldhName": name,
        "status": ["reserved"],
        "links": [
            {"value": address, "rel": "self", "href": address, "type": "application/rdap+json"}
        ],
        "notices": [NOTICE],
    }


def error_document(code: int, title: str, *description: str) -> dict[str, Any]:
    """An error (RFC 9083 section 6)."""
    return {
        "rdapConformance": CONFORMANCE,
        "errorCode": code,
        "title": title,
        "description": list(description),
        "notices": [NOTICE],
    }


def help_document() -> dict[str, Any]:
    """The answer to a help query (RFC 9083 section 7)."""
    return {"rdapConformance": CONFORMANCE, "notices": [NOTICE]}


def _entity(role: str, name: str, organisation: str, country: str) -> dict[str, Any]:
    """An entity with its contact as a jCard (RFC 7095)."""
    return {
        "objectClassName": "entity",
        "handle": f"{role[:3].upper()}{sum(name.encode()) % 100_000:05d}",
        "roles": [role],
        "vcardArray": [
            "vcard",
            [
                ["version", {}, "text", "4.0"],
                ["fn", {}, "text", name],
                ["org", {}, "text", organisation],
                ["adr", {"cc": country}, "text", ["", "", "", "", "", "", ""]],
            ],
        ],
    }


def _time(moment: datetime) -> str:
    return moment.strftime("%Y-%m-%dT%H:%M:%SZ")
