"""The look-up engine with this project's settings."""

from __future__ import annotations

from django.conf import settings

from vinetag.apps.availability.catalogue import catalogue
from vinetag.apps.naming.models import Project
from vinetag.core.extensions import Barred, barred
from vinetag.core.names import FullName
from vinetag.lookup import HostLimits, LookupSettings
from vinetag.lookup.engine import RuleOf

__all__ = ["lookup_settings", "rule_of"]


def lookup_settings() -> LookupSettings:
    """Where to ask and how politely; limits hold across all processes."""
    usual = HostLimits(settings.RDAP_AT_ONCE_A_HOST, settings.RDAP_PER_SECOND_A_HOST)
    return LookupSettings(
        bootstrap=settings.RDAP_BOOTSTRAP_URL,
        dns=settings.DNS_SERVER,
        seller=settings.SELLER_URL,
        redis=settings.REDIS_URL,
        limits=usual,
        by_host={
            host: HostLimits(settings.RDAP_AT_ONCE_A_HOST, rate)
            for host, rate in settings.RDAP_PER_SECOND_BY_HOST.items()
        },
        # The simulated bootstrap lists every extension; an address of the catalogue is a real one.
        bases={e.extension: e.rdap for e in catalogue() if e.rdap} if settings.LIVE else {},
        timeout=settings.RDAP_TIMEOUT_SECONDS,
        dns_timeout=settings.DNS_TIMEOUT_SECONDS,
    )


def rule_of(project: Project) -> RuleOf:
    """What rules alone say, for the owner the project's brief names."""
    owner = project.brief.get("owner", {})
    country, kind = owner.get("country", ""), owner.get("kind", "")
    known = catalogue()

    def rule(name: FullName) -> Barred | None:
        return barred(name, known[name.extension], country, kind)

    return rule
