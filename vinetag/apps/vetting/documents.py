"""Findings as they are stored, sent and written to files."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Mapping, Sequence
from typing import Any, cast

from vinetag.core.concepts import WEIGHTS, FindingName, Weight, worst
from vinetag.core.vet import Finding, advice_of, in_words

__all__ = ["finding_document", "read_finding", "sign_of", "told", "weight_of"]


def finding_document(finding: Finding) -> dict[str, Any]:
    """As it is stored."""
    return {
        "weight": finding.weight,
        "code": finding.code,
        "args": dict(finding.args),
        "evidence": [dict(row) for row in finding.evidence],
        "source": finding.source,
    }


def read_finding(kind: str, document: Mapping[str, Any]) -> Finding:
    """What finding_document wrote. Raises KeyError for what it did not."""
    return Finding(
        cast(FindingName, kind), cast(Weight, document["weight"]), document["code"],
        document["args"], tuple(document["evidence"]), document["source"],
    )  # fmt: skip


def told(kind: str, document: Mapping[str, Any]) -> dict[str, Any]:
    """As it is told: with its sentence, and what one could do. One whose words are not known here
    (a later version wrote it) is told by its code.
    """
    try:
        finding = read_finding(kind, document)
        text, advice = in_words(finding), advice_of(finding)
    except (KeyError, IndexError, ValueError, AttributeError):
        text, advice = str(document.get("code", "")), ""
    return {
        "weight": document.get("weight", "unknown"),
        "code": document.get("code", ""),
        "text": text,
        "advice": advice,
        "evidence": document.get("evidence", []),
        "source": document.get("source", ""),
    }


def weight_of(findings: Sequence[Finding]) -> Weight:
    """The worst of them."""
    return worst([finding.weight for finding in findings])


def sign_of(findings: Sequence[Finding]) -> str:
    """The same for findings that say the same: weights, codes and whom they speak of, whatever the
    counts in them.
    """
    plain = sorted(
        (WEIGHTS.index(f.weight), f.code, *(str(f.args.get(k, "")) for k in ("word", "who", "meant",
        "other", "part", "most", "language")))
        for f in findings
    )  # fmt: skip
    return hashlib.blake2b(json.dumps(plain).encode(), digest_size=16).hexdigest()
