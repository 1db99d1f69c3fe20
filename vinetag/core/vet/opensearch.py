"""A search service by OpenSearch 1.1: its description, the address of a question, and results as
Atom (RFC 4287). What is read is hostile until read: no document types, no entities, bounded.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final
from urllib.parse import quote, urlsplit
from xml.etree.ElementTree import Element, ParseError

from defusedxml.common import DefusedXmlException
from defusedxml.ElementTree import fromstring

__all__ = ["Result", "Results", "SearchError", "asked_at", "read_description", "read_results"]

ATOM: Final = "{http://www.w3.org/2005/Atom}"
OPENSEARCH: Final = "{http://a9.com/-/spec/opensearch/1.1/}"
ATOM_TYPE: Final = "application/atom+xml"
MOST_RESULTS: Final = 50
LONGEST: Final = 400
MOST_COUNT: Final = 10**12


class SearchError(ValueError):
    """A document of the service cannot be read; the message says why."""


@dataclass(frozen=True, slots=True)
class Result:
    """One thing that was found."""

    title: str
    summary: str = ""
    link: str = ""

    @property
    def host(self) -> str:
        """Where it is, "" where that is not known."""
        try:
            return (urlsplit(self.link).hostname or "").removeprefix("www.")
        except ValueError:
            return ""


@dataclass(frozen=True, slots=True)
class Results:
    """How many there are, the first of them, and what the service takes the question for instead
    (the role "correction" of OpenSearch 1.1), "" for nothing.
    """

    count: int
    first: tuple[Result, ...]
    correction: str = ""


def _document(body: bytes) -> Element:
    try:
        root: Element = fromstring(body, forbid_dtd=True)
    except DefusedXmlException as error:
        raise SearchError("it declares a document type or entities, which is refused") from error
    except (ParseError, ValueError, LookupError) as error:
        raise SearchError("it is no XML that can be read") from error
    return root


def read_description(body: bytes) -> str:
    """The template of the service's Atom results. Raises SearchError."""
    root = _document(body)
    if root.tag != f"{OPENSEARCH}OpenSearchDescription":
        raise SearchError("it is no description of a search service")
    for url in root.iter(f"{OPENSEARCH}Url"):
        template = (url.get("template") or "").strip()
        if (url.get("type") or "").split(";")[0].strip().lower() == ATOM_TYPE:
            if "{searchTerms}" not in template:
                raise SearchError("its address has no place for the words asked for")
            return template[:2_000]
    raise SearchError("it gives no results as Atom")


def asked_at(template: str, words: str, count: int) -> str:
    """The address of a question; places for what is optional and not known here stay empty. Raises
    SearchError for a place that must be filled and cannot be.
    """
    known = {
        "searchTerms": quote(words, safe=""), "count": str(count), "startIndex": "1",
        "startPage": "1", "language": "*", "inputEncoding": "UTF-8", "outputEncoding": "UTF-8",
    }  # fmt: skip
    made, rest = "", template
    while "{" in rest:
        before, _, rest = rest.partition("{")
        name, closed, rest = rest.partition("}")
        plain = name.rstrip("?")
        if not closed or (plain not in known and not name.endswith("?")):
            raise SearchError(f"its address wants {name[:40]!r}, which is not known here")
        made += before + known.get(plain, "")
    return made + rest


def read_results(body: bytes) -> Results:
    """Raises SearchError."""
    root = _document(body)
    if root.tag != f"{ATOM}feed":
        raise SearchError("it is no list of results")
    entries = root.findall(f"{ATOM}entry")[:MOST_RESULTS]
    found = tuple(_result(entry) for entry in entries)
    told = _text(root, f"{OPENSEARCH}totalResults")
    number = int(told) if told.isascii() and told.isdecimal() and len(told) < 16 else len(found)
    return Results(
        min(max(number, len(found)), MOST_COUNT),
        tuple(one for one in found if one.title),
        _correction(root),
    )


def _result(entry: Element) -> Result:
    link = next(
        (
            one.get("href") or ""
            for one in entry.findall(f"{ATOM}link")
            if one.get("rel", "alternate") == "alternate"
        ),
        "",
    )
    summary = _text(entry, f"{ATOM}summary") or _text(entry, f"{ATOM}content")
    return Result(_text(entry, f"{ATOM}title"), summary, link[:LONGEST])


def _correction(root: Element) -> str:
    for query in root.findall(f"{OPENSEARCH}Query"):
        if (query.get("role") or "").lower() == "correction":
            return " ".join((query.get("searchTerms") or "").split())[:100]
    return ""


def _text(element: Element, name: str) -> str:
    found = element.find(name)
    return " ".join("".join(found.itertext()).split())[:LONGEST] if found is not None else ""
