"""The look-up engine with this project's settings."""

from __future__ import annotations

from django.conf import settings

from vinetag.apps.availability.catalogue import catalogue
from vinetag.apps.naming.models import Project
from vinetag.core.extensions import Barred, barred
from vinetag.core.names import FullName
from vinetag.lookup import LookupSettings
from vinetag.lookup.engine import RuleOf

__all__ = ["lookup_settings", "rule_of"]


def lookup_settings() -> LookupSettings:
    """Where to ask and how politely, with the registries of the catalogue in force."""
    given: LookupSettings = settings.LOOKUP
    return given.with_catalogue(catalogue())


def rule_of(project: Project) -> RuleOf:
    """What rules alone say, for the owner the project's brief names."""
    owner = project.brief.get("owner", {})
    country, kind = owner.get("country", ""), owner.get("kind", "")
    known = catalogue()

    def rule(name: FullName) -> Barred | None:
        return barred(name, known[name.extension], country, kind)

    return rule
