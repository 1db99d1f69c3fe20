"""Zones as master files (RFC 1035, section 5)."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from typing import Final

import dns.exception
import dns.rdataclass
import dns.rdatatype
import dns.ttl

from vinetag.core.errors import CoreError, Problem, add_words
from vinetag.core.zone.records import (
    APEX,
    KINDS,
    MOST_RECORDS,
    USUAL_TTL,
    Record,
    at_name,
    read_record,
    sorted_records,
)

__all__ = ["LARGEST_FILE", "ReadMaster", "read_master", "write_master"]

LARGEST_FILE: Final = 1_000_000
# Reading what is wrong takes as long as reading what is kept.
MOST_ENTRIES: Final = 20_000
MOST_TOLD: Final = 50
# What the servers that answer for a zone say by themselves.
OF_SERVERS: Final = frozenset({"SOA", "NS"})
SIGNATURES: Final = frozenset({"DNSKEY", "RRSIG", "NSEC", "NSEC3", "NSEC3PARAM", "CDS", "CDNSKEY"})

add_words(
    {
        "master_directive": "{value} is not followed here: only $ORIGIN and $TTL are.",
        "master_ttl": "“{value}” is no time to be remembered.",
        "master_class": "“{value}”: only records of the Internet (IN) are kept.",
        "master_unfinished": "A parenthesis or a quote is opened and never closed.",
        "master_short": "This line says too little: a name, a kind and what it says are needed.",
        "master_long": "At most {limit:,} entries are read: what follows was left out.",
        "master_many": "At most {limit:,} records are kept: what follows was left out.",
    }
)


@dataclass
class ReadMaster:
    """What a file says: its records, what is wrong by line, and how many were `left_out` because
    name servers say them by themselves.
    """

    records: list[Record] = field(default_factory=list)
    problems: list[Problem] = field(default_factory=list)
    wrong: int = 0
    left_out: int = 0

    def note(self, line: int, code: str, **args: object) -> None:
        """Something wrong in a line."""
        self.wrong += 1
        if len(self.problems) < MOST_TOLD:
            self.problems.append(Problem(f"line {line}", code, args))


def read_master(text: str, origin: str) -> ReadMaster:
    """Read a file as it stands for `origin`; whatever is wrong is told at its line, and all else is
    taken.
    """
    read = ReadMaster()
    under, ttl, last = origin, USUAL_TTL, ""
    for count, (line, entry, begins) in enumerate(_entries(text[:LARGEST_FILE], read)):
        if count == MOST_ENTRIES:
            read.note(line, "master_long", limit=MOST_ENTRIES)
            break
        words = entry.split(None, 1)
        if words[0].startswith("$"):
            under, ttl = _directive(read, line, words, under, ttl, origin)
            continue
        name, rest = (words[0], words[1] if len(words) > 1 else "") if begins else (last, entry)
        if not name:
            read.note(line, "master_short")
            continue
        if begins:
            name = last = _absolute(name, under)
        if not _take(read, line, origin, under, ttl, name, rest):
            break
    return read


def _absolute(name: str, under: str) -> str:
    if name == APEX:
        return f"{under}."
    return name if name.endswith(".") else f"{name}.{under}."


def _directive(
    read: ReadMaster, line: int, words: Sequence[str], under: str, ttl: int, origin: str
) -> tuple[str, int]:
    value = words[1].split()[0] if len(words) > 1 else ""
    if words[0].upper() == "$ORIGIN" and value:
        return _absolute(value.lower(), under).rstrip(".") or origin, ttl
    if words[0].upper() == "$TTL":
        try:
            return under, dns.ttl.from_text(value)
        except dns.exception.DNSException:
            read.note(line, "master_ttl", value=value[:20])
            return under, ttl
    read.note(line, "master_directive", value=words[0][:20])
    return under, ttl


def _take(
    read: ReadMaster, line: int, origin: str, under: str, ttl: int, name: str, rest: str
) -> bool:
    """Take one entry. False when there are too many."""
    words = rest.split()
    while words:
        head = words[0].upper()
        if head in ("CH", "HS", "CS", "CHAOS", "HESIOD"):
            read.note(line, "master_class", value=head)
            return True
        if head == "IN":
            words.pop(0)
        elif head[0].isdigit():
            try:
                ttl = dns.ttl.from_text(words[0])
            except dns.exception.DNSException:
                read.note(line, "master_ttl", value=words[0][:20])
                return True
            words.pop(0)
        else:
            break
    if len(words) < 2:
        read.note(line, "master_short")
        return True
    kind = words[0].upper()
    if kind in OF_SERVERS | SIGNATURES:
        read.left_out += 1
        return True
    if kind not in KINDS:
        read.note(line, "record_kind", value=kind[:20], kinds=", ".join(KINDS))
        return True
    if len(read.records) >= MOST_RECORDS:
        read.note(line, "master_many", limit=MOST_RECORDS)
        return False
    data = rest[_start_of(rest, kind) :]
    try:
        at = at_name(origin, name, strict=True)
        # Names in the data are under the file's own origin, which may be another by now.
        there = read_record(under, APEX, kind, ttl, data, strict=True)
        read.records.append(Record(at, there.kind, there.ttl, there.data))
    except CoreError as error:
        for problem in error.problems:
            read.note(line, problem.code, **problem.args)
    return True


def _start_of(rest: str, kind: str) -> int:
    """Where the data begin: behind the kind, which is a word of its own."""
    at = 0
    for word in rest.split():
        at = rest.index(word, at) + len(word)
        if word.upper() == kind:
            break
    return at


def _entries(text: str, read: ReadMaster) -> Iterator[tuple[int, str, bool]]:
    """Each entry in one line, with the line it begins at, and whether it begins with a name;
    without comments and parentheses, which set lines together.
    """
    entry: list[str] = []
    first, depth, quoted, begins = 1, 0, False, True
    for number, line in enumerate(text.splitlines(), 1):
        if not entry:
            first, begins = number, not line[:1].isspace()
        escaped = False
        for character in line:
            if escaped or character == "\\":
                escaped = not escaped
                entry.append(character)
                continue
            if character == '"':
                quoted = not quoted
            elif not quoted and character == ";":
                break
            elif not quoted and character in "()":
                depth += 1 if character == "(" else -1
                entry.append(" ")
                continue
            entry.append(character)
        if depth > 0 and not quoted:
            entry.append(" ")
            continue
        if quoted or depth < 0:
            read.note(number, "master_unfinished")
            quoted, depth = False, 0
            entry.clear()
            continue
        whole = "".join(entry)
        entry.clear()
        if whole.strip():
            yield first, whole.strip(), begins
    if entry:
        read.note(first, "master_unfinished")


def write_master(
    origin: str, records: Sequence[Record], servers: Sequence[str] = (), serial: int = 1
) -> str:
    """The zone as a file, with the start of authority and the servers that answer for it where
    they are known.
    """
    lines = [f"$ORIGIN {origin}.", f"$TTL {USUAL_TTL}"]
    if servers:
        start = f"{servers[0]}. hostmaster.{origin}. {serial} 7200 900 1209600 300"
        lines.append(f"@\t{USUAL_TTL}\tIN\tSOA\t{start}")
        lines += [f"@\t{USUAL_TTL}\tIN\tNS\t{host}." for host in servers]
    lines += [
        f"{one.name}\t{one.ttl}\tIN\t{one.kind}\t{one.data}" for one in sorted_records(records)
    ]
    return "\n".join(lines) + "\n"
