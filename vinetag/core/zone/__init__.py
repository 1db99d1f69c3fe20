"""What name servers say of a name: records read, judged, written, and looked at from outside."""

from vinetag.core.zone.judging import Remark, judge
from vinetag.core.zone.keys import Signer, read_signers
from vinetag.core.zone.masters import ReadMaster, read_master, write_master
from vinetag.core.zone.ready import READY, Ready, fill, merge
from vinetag.core.zone.records import (
    KINDS,
    LONGEST_TTL,
    MOST_RECORDS,
    SHORTEST_TTL,
    USUAL_TTL,
    Record,
    read_record,
    shown_data,
    sorted_records,
)
from vinetag.core.zone.visible import Finding, Looked, ServerLooked, findings

__all__ = [
    "KINDS", "LONGEST_TTL", "MOST_RECORDS", "READY", "SHORTEST_TTL", "USUAL_TTL", "Finding",
    "Looked", "ReadMaster", "Ready", "Record", "Remark", "ServerLooked", "Signer",
    "fill", "findings", "judge", "merge", "read_master", "read_record", "read_signers",
    "shown_data", "sorted_records", "write_master",
]  # fmt: skip
