"""What is known of a project's names from vetting: all of them at a glance, and one whole."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Final

from django.utils import timezone

from vinetag.apps.naming.models import Project
from vinetag.apps.vetting.documents import told
from vinetag.apps.vetting.models import Acceptance, FindingRow
from vinetag.apps.vetting.steps import Desk
from vinetag.apps.vetting.vettings import is_old, vetted_names
from vinetag.core.concepts import FINDING_NAMES, WEIGHTS
from vinetag.core.names import FullName

__all__ = ["Known", "handles_of", "known_of", "report", "weighed"]

ANY: Final[Mapping[str, str]] = {}


@dataclass(frozen=True)
class Known:
    """What was found of a name of one kind, and whether somebody accepts it. `changed`: it was
    accepted when it said something else.
    """

    row: FindingRow
    findings: Sequence[Mapping[str, Any]]
    old: bool
    acceptance: Acceptance | None
    changed: bool

    @property
    def accepted(self) -> bool:
        """Whether what it says now is accepted."""
        return self.acceptance is not None and not self.changed


def known_of(
    project: Project, labels: Iterable[str], meant: Mapping[str, str] = ANY
) -> dict[str, dict[str, Known]]:
    """By label and kind; what was found of one under another extension than it is `meant` with by
    now is old.
    """
    labels, now, desk = list(labels), timezone.now(), Desk(project)
    accepted = {(one.label, one.kind): one for one in project.acceptances.filter(label__in=labels)}
    found: dict[str, dict[str, Known]] = {}
    for row in project.findings.filter(label__in=labels):
        if row.kind in FINDING_NAMES:
            other = meant.get(row.label, row.extension) != row.extension
            old = other or is_old(row, now, desk)
            found.setdefault(row.label, {})[row.kind] = _known(row, accepted, old=old)
    return found


def _known(row: FindingRow, accepted: Mapping[tuple[str, str], Acceptance], *, old: bool) -> Known:
    acceptance = accepted.get((row.label, row.kind))
    return Known(
        row,
        [told(row.kind, document) for document in row.findings],
        old,
        acceptance,
        acceptance is not None and acceptance.sign != row.sign,
    )


def weighed(known: Mapping[str, Known]) -> tuple[int, int, int, int]:
    """A name's place among others by what is not accepted: how many findings of each weight there
    are, the worst first; a name nobody vetted comes last.
    """
    open_ = [one.row.weight for one in known.values() if not one.accepted]
    stop, think, unknown, note = (-open_.count(weight) for weight in WEIGHTS[:4])
    return stop, think, unknown, note


def handles_of(
    known: Mapping[str, Mapping[str, Known]], labels: Sequence[str]
) -> list[dict[str, Any]]:
    """By platform, what each says of the handle each name is, as far as it was asked."""
    found: dict[str, dict[str, str]] = {}
    for label in labels:
        one = known.get(label, {}).get("handles")
        rows = one.findings[0]["evidence"] if one and one.findings else []
        for row in rows:
            if row.get("form") == "same":
                found.setdefault(str(row["platform"]), {})[label] = str(row["says"])
    return [
        {"platform": platform, "says": [by_label.get(label, "") for label in labels]}
        for platform, by_label in found.items()
    ]


def report(project: Project) -> list[tuple[FullName, Mapping[str, Known]]]:
    """The names of the shortlist with what is known of them, the worst first."""
    names = vetted_names(project)
    meant = {name.label: name.extension for name in names}
    known = known_of(project, meant, meant)
    rows = [(name, known.get(name.label, {})) for name in names]
    return sorted(rows, key=lambda row: (not row[1], weighed(row[1])))
