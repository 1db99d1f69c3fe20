"""A vetting report as a file: finding by finding as CSV or XLSX, all of it with its evidence as
JSON.
"""

from __future__ import annotations

import json
from collections.abc import Iterator, Mapping, Sequence
from typing import Any, Final

from vinetag.apps.vetting.reports import Known
from vinetag.core.concepts import FINDING_KINDS, FINDING_NAMES, WEIGHT_KINDS
from vinetag.core.names import FullName
from vinetag.core.spreadsheet import Cell, as_csv, as_xlsx

__all__ = ["exported_report", "report_document"]

COLUMNS: Final = (
    "full name", "kind", "weight", "finding", "what one could do", "source", "found (UTC)", "old",
    "accepted", "note",
)  # fmt: skip
LEGAL: Final = "None of this is legal advice."
Report = Sequence[tuple[FullName, Mapping[str, Known]]]


def exported_report(report: Report, form: str) -> bytes:
    """The file; `form` is a key of FORMS."""
    if form == "json":
        text = json.dumps(report_document(report), ensure_ascii=False, indent=1, default=str)
        return text.encode()
    return (as_csv if form == "csv" else as_xlsx)(COLUMNS, _rows(report))


def report_document(report: Report) -> dict[str, Any]:
    """All of it."""
    return {
        "about": LEGAL,
        "names": [
            {
                "full_name": str(name),
                "kinds": {
                    kind: {
                        "weight": one.row.weight,
                        "found_at": one.row.found_at,
                        "old": one.old,
                        "accepted": one.accepted,
                        "note": one.acceptance.note if one.acceptance else "",
                        "findings": one.findings,
                        "more": one.row.more,
                    }
                    for kind, one in known.items()
                },
            }
            for name, known in report
        ],
    }


def _rows(report: Report) -> Iterator[list[Cell]]:
    for name, known in report:
        shown = name.shown
        if not known:
            yield [shown, "", "", "not vetted yet", *[""] * 6]
        for kind in FINDING_NAMES:
            if kind not in known:
                continue
            one = known[kind]
            for finding in one.findings:
                word = WEIGHT_KINDS.get(finding["weight"])
                yield [
                    shown,
                    FINDING_KINDS[kind].word,
                    word.word if word else finding["weight"],
                    finding["text"],
                    finding["advice"],
                    finding["source"],
                    one.row.found_at.strftime("%Y-%m-%d %H:%M"),
                    "yes" if one.old else "no",
                    "yes" if one.accepted else "no",
                    one.acceptance.note if one.acceptance else "",
                ]
