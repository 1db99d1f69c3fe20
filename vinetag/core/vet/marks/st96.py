"""Marks in XML after WIPO Standard ST.96 (Trademark component), as far as a search needs them:

    Trademark / ApplicationNumber / ApplicationNumberText, RegistrationNumber,
    RegistrationOfficeCode, ApplicationDate, RegistrationDate, ExpiryDate,
    MarkCurrentStatusCode, MarkVerbalElementText,
    ClassDescription / ClassNumber, Applicant or Holder / ... / OrganizationStandardName, EntityName
    or PersonFullName

Elements are known by their local names in any ST.96 namespace, and read one Trademark at a time. A
file that declares a document type or entities is refused.
"""

from __future__ import annotations

from collections.abc import Iterator
from datetime import date
from typing import BinaryIO, Final
from xml.etree.ElementTree import Element, ParseError

from defusedxml.common import DefusedXmlException, DTDForbidden
from defusedxml.ElementTree import iterparse

from vinetag.core.cells import Table
from vinetag.core.vet.marks.record import (
    LONGEST_NUMBER,
    LONGEST_OWNER,
    LONGEST_WORD,
    Mark,
    plain_status,
)

__all__ = ["MarksInXml"]

NAMESPACE: Final = "/ST96/"
MARK: Final = "Trademark"
WORDS: Final = ("MarkVerbalElementText", "MarkSignificantVerbalElementText")
NAMES: Final = (
    "OrganizationStandardName", "OrganizationName", "EntityName", "PersonFullName",
)  # fmt: skip
DEEPEST: Final = 60
# Of one mark; what goes beyond is no mark of a register.
MOST_ELEMENTS: Final = 20_000


class MarksInXml:
    """The marks of a file, which can be gone through once; what is wrong is in `table`."""

    def __init__(self, file: BinaryIO) -> None:
        self.table = Table()
        self._file = file

    def __iter__(self) -> Iterator[Mark]:
        found = 0
        try:
            for element in self._elements():
                found += 1
                mark = self._mark(element, found)
                if mark is not None:
                    yield mark
        except DTDForbidden:
            self.table.problem("file", "xml_forbidden", {"what": "a document type"})
        except DefusedXmlException:
            self.table.problem("file", "xml_forbidden", {"what": "entities"})
        except (ParseError, ValueError, LookupError, UnicodeError) as error:
            self.table.problem("file", "xml_broken", {"detail": str(error)[:120]})
        if not found and not self.table.wrong:
            self.table.problem("file", "xml_other", {"wanted": MARK})

    def _elements(self) -> Iterator[Element]:
        """Each Trademark when it is whole; what was read of the file is let go."""
        above: list[Element] = []
        inside = elements = 0
        for event, element in iterparse(self._file, ("start", "end"), forbid_dtd=True):
            space, name = _named(element)
            if event == "start":
                above.append(element)
                elements += 1
                if len(above) > DEEPEST:
                    self.table.problem("file", "xml_deep", {"limit": DEEPEST})
                    return
                if name == MARK and NAMESPACE in space:
                    inside, elements = inside + 1, 0
                if inside and elements > MOST_ELEMENTS:
                    raise ValueError("one mark without end")
                continue
            above.pop()
            if name == MARK and NAMESPACE in space:
                inside -= 1
                yield element
            if not inside and above:
                above[-1].remove(element)

    def _mark(self, element: Element, count: int) -> Mark | None:
        texts: dict[str, list[str]] = {}
        for one in element.iter():
            text = " ".join((one.text or "").split())
            if text:
                texts.setdefault(_named(one)[1], []).append(text)

        def first(*names: str) -> str:
            return next((texts[name][0] for name in names if name in texts), "")

        number = first("ApplicationNumberText", "ApplicationNumber", "RegistrationNumber")
        place = f"mark {count}" + (f" ({number[:LONGEST_NUMBER]})" if number else "")
        wrong = self.table.wrong
        if not number:
            self.table.problem(place, "mark_number", {})
        word = first(*WORDS)
        if not word:
            self.table.problem(place, "mark_word", {})
        classes = self._classes(texts.get("ClassNumber", []), place)
        filed, registered, expires = (
            self._day(first(name), place)
            for name in ("ApplicationDate", "RegistrationDate", "ExpiryDate")
        )
        if self.table.wrong > wrong:
            return None
        said = first("MarkCurrentStatusCode", "MarkCurrentStatusText")
        status = plain_status(said)
        if status is None:
            self.table.problem(place, "mark_status", {"value": said[:40]})
        return Mark(
            number[:LONGEST_NUMBER], word[:LONGEST_WORD], first(*NAMES)[:LONGEST_OWNER],
            first("RegistrationOfficeCode", "IPOfficeCode", "ReceivingOfficeCode")[:LONGEST_NUMBER],
            classes, status or "unknown", filed, registered, expires,
        )  # fmt: skip

    def _classes(self, texts: list[str], place: str) -> tuple[int, ...]:
        found = set()
        for text in texts:
            if text.isascii() and text.isdecimal() and len(text) <= 3 and 1 <= int(text) <= 45:
                found.add(int(text))
            else:
                self.table.problem(place, "mark_class", {"value": text[:20]})
        return tuple(sorted(found))

    def _day(self, text: str, place: str) -> date | None:
        try:
            return date.fromisoformat(text[:10]) if text else None
        except ValueError:
            self.table.problem(place, "not_date", {"value": text[:20]})
            return None


def _named(element: Element) -> tuple[str, str]:
    """Namespace and local name."""
    space, _, name = str(element.tag).rpartition("}")
    return space, name
