"""Delegation signers (RFC 4034, section 5): what the registry says of a name's keys (DNSSEC)."""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import Final, NamedTuple

from vinetag.core.errors import Problem, add_words
from vinetag.core.zone.records import RecordError

__all__ = ["MOST_SIGNERS", "Signer", "read_signers"]

MOST_SIGNERS: Final = 8
# Digits of the digest by its kind: SHA-1, SHA-256, SHA-384.
DIGITS: Final = {1: 40, 2: 64, 4: 96}
# Those in use (RFC 8624), and the two before them which registries still hold.
ALGORITHMS: Final = frozenset({5, 7, 8, 10, 13, 14, 15, 16})

add_words(
    {
        "signer_form": "“{value}” is no key: write its tag, algorithm, kind of digest and digest, "
        "like 2371 13 2 1F98….",
        "signer_algorithm": "Nobody signs by algorithm {value}: 8, 13 and 15 are usual.",
        "signer_digest": "A digest of kind {kind} has {digits} digits (0 to F); this has {count}.",
    }
)


class Signer(NamedTuple):
    """One of them; the digest in upper case."""

    tag: int
    algorithm: int
    kind: int
    digest: str

    def __str__(self) -> str:
        return f"{self.tag} {self.algorithm} {self.kind} {self.digest}"


def read_signers(lines: Sequence[str]) -> list[Signer]:
    """As they are typed or taken from a DS record, one a line. Raises RecordError, each problem at
    `keys` and its line.
    """
    found: list[Signer] = []
    problems: list[Problem] = []
    typed = [(place, line.strip()) for place, line in enumerate(lines) if line.strip()]
    if len(typed) > MOST_SIGNERS:
        args = {"limit": MOST_SIGNERS, "count": len(typed)}
        raise RecordError(Problem("keys", "too_many", args))
    for place, line in typed:
        # All of a DS record may be pasted: what stands before its numbers is left out.
        bare = re.sub(r"^.*\bDS\s+", "", line, flags=re.IGNORECASE)
        match = re.fullmatch(r"(\d{1,5})\s+(\d{1,3})\s+(\d{1,3})\s+([0-9A-Fa-f\s]+)", bare)
        if match is None or int(match[1]) > 65_535:
            problems.append(Problem(f"keys.{place}", "signer_form", {"value": line[:60]}))
            continue
        algorithm, kind, digest = int(match[2]), int(match[3]), "".join(match[4].split()).upper()
        if algorithm not in ALGORITHMS:
            problems.append(Problem(f"keys.{place}", "signer_algorithm", {"value": algorithm}))
        elif len(digest) != DIGITS.get(kind):
            args = {"kind": kind, "digits": DIGITS.get(kind, 64), "count": len(digest)}
            problems.append(Problem(f"keys.{place}", "signer_digest", args))
        else:
            found.append(Signer(int(match[1]), algorithm, kind, digest))
    if problems:
        raise RecordError(*problems)
    return list(dict.fromkeys(found))
