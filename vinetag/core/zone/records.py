"""Records of a zone (RFC 1035 and what came after it), as they are typed and as they are kept.

A record is kept in the text of master files, names in it written out with a dot at their end, so
that it means the same wherever it is read; `dnspython` knows the forms of the kinds.
"""

from __future__ import annotations

import re
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Final

import dns.exception
import dns.name
import dns.rdata
import dns.rdataclass
import dns.rdatatype
import dns.rdtypes.txtbase
import dns.tokenizer
import idna

from vinetag.core.errors import CoreError, Problem, add_words

__all__ = [
    "KINDS", "LONGEST_TTL", "MOST_RECORDS", "SHORTEST_TTL", "USUAL_TTL", "Record", "RecordError",
    "at_name", "is_host", "name_in", "rdata_of", "read_record", "shown_data", "sorted_records",
    "target_of",
]  # fmt: skip

# URI (RFC 7553) says where visitors are sent on to.
KINDS: Final = ("A", "AAAA", "CNAME", "MX", "TXT", "CAA", "SRV", "URI")
SHORTEST_TTL: Final = 60
LONGEST_TTL: Final = 604_800
USUAL_TTL: Final = 3_600
MOST_RECORDS: Final = 500
LONGEST: Final = 4_000
STRING: Final = 255
APEX: Final = "@"

_FORMS: Final = {
    "A": "four numbers from 0 to 255, like 192.0.2.10",
    "AAAA": "an address of version 6, like 2001:db8::10",
    "CNAME": "the other name, like shop.example",
    "MX": "a preference and a mail server, like 10 mail.example",
    "TXT": "text",
    "CAA": 'a flag, issue, issuewild or iodef, and a value, like 0 issue "ca.example"',
    "SRV": "priority, weight, port and server, like 10 5 5060 calls.example",
    "URI": 'priority, weight and an address, like 10 1 "https://shop.example/"',
}

add_words(
    {
        "record_kind": "“{value}” is no kind of record kept here: {kinds}.",
        "record_name": "“{value}” is no name under {origin}: {why}.",
        "record_outside": "“{value}” is outside {origin}: its records are kept elsewhere.",
        "record_ttl": "A record is remembered for {low:,} to {high:,} seconds; {value} is outside.",
        "record_form": "“{value}” is no {kind} record: it needs {form}.",
    }
)


class RecordError(CoreError):
    """A record cannot be read."""


@dataclass(frozen=True, slots=True)
class Record:
    """One record: `name` under the zone's own, "@" for that itself; `ttl` in seconds; `data` as in
    master files.
    """

    name: str
    kind: str
    ttl: int
    data: str


def read_record(
    origin: str, name: str, kind: str, ttl: int, data: str, path: str = "", *, strict: bool = False
) -> Record:
    """A record as it was typed under `origin` (`inkpost.example`, A-labels).

    Names are read as people mean them: one that ends with the zone's own is that one, one with a
    dot in it is a name of its own, and plain text needs no quotes. When `strict`, they are read as
    RFC 1035 says of master files: whatever has no dot at its end is under the zone's own.

    Raises RecordError, each problem at `path` with its field.
    """
    kind = kind.strip().upper()
    problems: list[Problem] = []
    if kind not in KINDS:
        args = {"value": kind[:20], "kinds": ", ".join(KINDS)}
        problems.append(Problem(f"{path}kind", "record_kind", args))
    at = ""
    try:
        at = at_name(origin, name, strict=strict)
    except CoreError as error:
        problems += [Problem(f"{path}name", p.code, p.args) for p in error.problems]
    if not SHORTEST_TTL <= ttl <= LONGEST_TTL and not (strict and 0 <= ttl <= 2**31 - 1):
        args_of_ttl = {"value": ttl, "low": SHORTEST_TTL, "high": LONGEST_TTL}
        problems.append(Problem(f"{path}ttl", "record_ttl", args_of_ttl))
    text = ""
    if kind in KINDS:
        try:
            text = _data_of(origin, kind, data.strip(), strict=strict)
        except (dns.exception.DNSException, idna.IDNAError, ValueError) as error:
            form = {"value": data.strip()[:80], "kind": kind, "form": _FORMS[kind]}
            problems.append(Problem(f"{path}data", "record_form", form))
            if isinstance(error, CoreError):
                problems[-1] = Problem(
                    f"{path}data", error.problems[0].code, error.problems[0].args
                )
    if problems:
        raise RecordError(*problems)
    return Record(at, kind, min(max(ttl, SHORTEST_TTL), LONGEST_TTL), text)


def at_name(origin: str, typed: str, *, strict: bool = False) -> str:
    """A name under the zone's, relative to it, "@" for that itself. Raises RecordError."""
    text = typed.strip().lower() or APEX
    if text == APEX:
        return APEX
    absolute = text.endswith(".")
    bare = text.rstrip(".")
    try:
        bare = ".".join(
            _label(label, first=place == 0) for place, label in enumerate(bare.split("."))
        )
    except (idna.IDNAError, ValueError) as error:
        args = {"value": typed[:80], "origin": origin, "why": str(error)[:80] or "not a name"}
        raise RecordError(Problem("name", "record_name", args)) from error
    if bare == origin and (absolute or not strict):
        return APEX
    if bare.endswith(f".{origin}") and (absolute or not strict):
        found = bare[: -len(origin) - 1]
    elif absolute:
        raise RecordError(
            Problem("name", "record_outside", {"value": typed[:80], "origin": origin})
        )
    else:
        found = bare
    if len(found) + len(origin) + 1 > 253:
        args = {"value": f"{typed[:40]}…", "origin": origin, "why": "longer than 253 characters"}
        raise RecordError(Problem("name", "record_name", args))
    return found


def _label(label: str, *, first: bool) -> str:
    """A label as the DNS has it: letters of other scripts as A-labels, underscores as they are."""
    if label == "*":
        if not first:
            raise ValueError("a star stands first and alone")
        return label
    if label.isascii():
        if not re.fullmatch(r"_?[a-z0-9_]([a-z0-9_-]*[a-z0-9_])?|_", label) or len(label) > 63:
            raise ValueError("letters, digits, hyphens and underscores, up to 63 between dots")
        return label
    return idna.encode(label, uts46=True).decode("ascii")


def is_host(typed: str) -> bool:
    """Whether it can be the name of a server."""
    try:
        return all(_label(label.lower(), first=False) for label in typed.rstrip(".").split("."))
    except (idna.IDNAError, ValueError):
        return False


def name_in(origin: str, name: str) -> str:
    """The whole name of a record, without a dot at its end."""
    return origin if name == APEX else f"{name}.{origin}"


def _data_of(origin: str, kind: str, data: str, *, strict: bool) -> str:
    if not data or len(data) > LONGEST or not data.isprintable():
        raise ValueError("empty, too long, or with characters that cannot be written")
    if kind == "TXT" and not strict and not data.startswith('"'):
        return _quoted(data.encode("utf-8"))
    if not strict:
        data = _as_meant(origin, kind, data)
    tokens = dns.tokenizer.Tokenizer(data)
    under = dns.name.from_text(origin + ".")
    read = dns.rdata.from_text(
        dns.rdataclass.IN, dns.rdatatype.from_text(kind), tokens, under, relativize=False,
        idna_codec=dns.name.IDNA_2008_Practical,
    )  # fmt: skip
    if isinstance(read, dns.rdtypes.txtbase.TXTBase):
        return _quoted(b"".join(read.strings))
    text: str = read.to_text()
    if len(text) > LONGEST:
        raise ValueError("too long")
    if kind in ("CNAME", "MX", "SRV"):
        for label in filter(None, text.split()[-1].lower().split(".")):
            _label(label, first=False)
    return text


def _as_meant(origin: str, kind: str, data: str) -> str:
    """With a dot at the end of the last word where that is a name of its own, and quotes around an
    address or a value that came without.
    """
    words = data.split()
    last = words[-1]
    if kind in ("CNAME", "MX", "SRV"):
        if last == APEX:
            words[-1] = origin + "."
        elif "." in last.rstrip("."):
            words[-1] = last.rstrip(".") + "."
        return " ".join(words)
    if kind == "URI" and '"' not in data:
        words[-1] = f'"{last}"'
        return " ".join(words)
    return data


def _quoted(text: bytes) -> str:
    """As character strings of 255 octets and less (RFC 1035, section 3.3.14)."""
    parts = [text[start : start + STRING] for start in range(0, len(text), STRING)] or [b""]
    return " ".join(f'"{_escaped(part)}"' for part in parts)


def _escaped(part: bytes) -> str:
    return "".join(
        f"\\{chr(c)}" if c in b'"\\' else chr(c) if 32 <= c < 127 else f"\\{c:03}" for c in part
    )


def rdata_of(record: Record) -> dns.rdata.Rdata:
    """As the library has it."""
    kind = dns.rdatatype.from_text(record.kind)
    return dns.rdata.from_text(dns.rdataclass.IN, kind, record.data)


def target_of(record: Record) -> str:
    """The name a record leads to, without a dot at its end; "" where it leads to none."""
    if record.kind not in ("CNAME", "MX", "SRV"):
        return ""
    return record.data.split()[-1].rstrip(".")


def shown_data(record: Record) -> str:
    """As a person would type it: text without quotes, names without a dot at their end."""
    if record.kind == "TXT":
        found = rdata_of(record)
        assert isinstance(found, dns.rdtypes.txtbase.TXTBase)  # noqa: S101 - by its kind
        try:
            plain = b"".join(found.strings).decode("utf-8")
        except UnicodeDecodeError:
            return record.data
        fits = plain.isprintable() and plain == plain.strip() and plain and plain[0] != '"'
        return plain if fits else record.data
    if target := target_of(record):
        before = record.data.rpartition(" ")[0]
        words = target if "." in target else f"{target}."
        return f"{before} {words}".strip()
    return record.data


def sorted_records(records: Iterable[Record]) -> list[Record]:
    """The zone's own first, then by name from its end, in the order of kinds."""

    def key(one: Record) -> tuple[list[str], int, str]:
        where = [] if one.name == APEX else one.name.split(".")[::-1]
        return where, KINDS.index(one.kind), one.data

    return sorted(records, key=key)
