"""Registers of marks as they come: CSV and ST.96, right, wrong and hostile."""

from __future__ import annotations

import io
from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vinetag.core.vet.marks import Mark, marks_schema, read_register

HEAD = b"number,word,owner,office,classes,status,filed,registered,expires\n"
XML = """<?xml version="1.0" encoding="{encoding}"?>
<tmk:TrademarkTransaction xmlns:tmk="http://www.wipo.int/standards/XMLSchema/ST96/Trademark"
 xmlns:com="http://www.wipo.int/standards/XMLSchema/ST96/Common"><tmk:TrademarkBag>{marks}
</tmk:TrademarkBag></tmk:TrademarkTransaction>"""
ONE = """<tmk:Trademark>
 <com:RegistrationOfficeCode>XS</com:RegistrationOfficeCode>
 <com:ApplicationNumber><com:ApplicationNumberText>{number}</com:ApplicationNumberText>
 </com:ApplicationNumber>
 <com:ApplicationDate>2018-01-02</com:ApplicationDate>
 <com:RegistrationDate>2019-03-01Z</com:RegistrationDate>
 <tmk:MarkCurrentStatusCode>Registration published</tmk:MarkCurrentStatusCode>
 <tmk:MarkRepresentation><tmk:MarkReproduction><tmk:WordMarkSpecification>
  <tmk:MarkVerbalElementText>{word}</tmk:MarkVerbalElementText>
 </tmk:WordMarkSpecification></tmk:MarkReproduction></tmk:MarkRepresentation>
 <tmk:GoodsServicesBag><tmk:GoodsServices><tmk:ClassDescriptionBag>{classes}
 </tmk:ClassDescriptionBag></tmk:GoodsServices></tmk:GoodsServicesBag>
 <tmk:ApplicantBag><tmk:Applicant><com:Contact><com:Name><com:OrganizationName>
  <com:OrganizationStandardName>Hexley Press</com:OrganizationStandardName>
 </com:OrganizationName></com:Name></com:Contact></tmk:Applicant></tmk:ApplicantBag>
</tmk:Trademark>"""


def read(content: bytes) -> tuple[list[Mark], list[str]]:
    register = read_register(io.BytesIO(content))
    return list(register), [f"{p.path}: {p.code}" for p in register.table.problems]


def xml(*marks: tuple[str, str, str], encoding: str = "UTF-8") -> bytes:
    def classes(text: str) -> str:
        return "".join(
            f"<tmk:ClassDescription><tmk:ClassNumber>{n}</tmk:ClassNumber></tmk:ClassDescription>"
            for n in text.split()
        )

    inside = "".join(
        ONE.format(number=number, word=word, classes=classes(numbers))
        for number, word, numbers in marks
    )
    return XML.format(encoding=encoding, marks=inside).encode(encoding)


def test_a_csv_register_is_read() -> None:
    marks, problems = read(
        HEAD + b'7,"Ink Post",Hexley,Saltley,35 16,Registered,2018-01-02,2019-03-01,2029-03-01\n'
    )
    assert problems == []
    assert marks == [
        Mark(
            "7", "Ink Post", "Hexley", "Saltley", (16, 35), "registered",
            date(2018, 1, 2), date(2019, 3, 1), date(2029, 3, 1),
        )
    ]  # fmt: skip
    assert [f["name"] for f in marks_schema()["fields"]] == HEAD.decode().strip().split(",")


@pytest.mark.parametrize(
    ("line", "problem"),
    [
        (b"8,Quill,,,0 16,registered,,,", "line 2, classes: mark_class"),
        (b"8,Quill,,,46,registered,,,", "line 2, classes: mark_class"),
        (b"8,Quill,,,x,registered,,,", "line 2, classes: mark_class"),
        (b",Quill,,,16,registered,,,", "line 2, number: mark_number"),
        (b"8,,,,16,registered,,,", "line 2, word: mark_word"),
        (b"8,Quill,,,16,registered,1 May,,", "line 2, filed: not_date"),
    ],
)
def test_a_bad_line_is_told_and_the_others_taken(line: bytes, problem: str) -> None:
    marks, problems = read(HEAD + line + b"\n9,Orchard,,,29,live,,,\n")
    assert problems == [problem]
    assert [mark.word for mark in marks] == ["Orchard"]


def test_a_state_nobody_knows_is_unknown_and_said() -> None:
    marks, problems = read(HEAD + b"8,Quill,,,16,frozen,,,\n9,Reed,,,16,,,,\n")
    assert [mark.status for mark in marks] == ["unknown", "unknown"]
    assert problems == ["line 2, status: mark_status"]
    assert all(mark.alive for mark in marks)


@pytest.mark.parametrize(
    ("said", "status", "alive"),
    [
        ("Registered", "registered", True), ("Application filed", "pending", True),
        ("Opposition pending", "opposed", True), ("Registration cancelled", "cancelled", False),
        ("Expired", "expired", False), ("Withdrawn", "cancelled", False),
        ("Refused", "cancelled", False), ("LIVE", "registered", True),
    ],
)  # fmt: skip
def test_states_are_told_in_our_words(said: str, status: str, alive: bool) -> None:
    [mark], _ = read(HEAD + f"8,Quill,,,16,{said},,,\n".encode())
    assert (mark.status, mark.alive) == (status, alive)


@pytest.mark.parametrize("encoding", ["utf-8", "utf-8-sig", "utf-16", "cp1252"])
def test_a_register_in_another_encoding_is_read(encoding: str) -> None:
    content = "number;word\n1;Café Größe\n".encode(encoding)
    marks, problems = read(content)
    assert [mark.word for mark in marks] == ["Café Größe"]
    assert problems == []


@pytest.mark.parametrize("encoding", ["UTF-8", "ISO-8859-1", "UTF-16"])
def test_st96_is_read(encoding: str) -> None:
    marks, problems = read(xml(("41", "Café Post", "16 35"), ("42", "Reed", ""), encoding=encoding))
    assert problems == []
    assert marks[0] == Mark(
        "41", "Café Post", "Hexley Press", "XS", (16, 35), "registered",
        date(2018, 1, 2), date(2019, 3, 1), None,
    )  # fmt: skip
    assert (marks[1].word, marks[1].classes) == ("Reed", ())


def test_what_is_wrong_in_st96_is_told_by_its_mark() -> None:
    marks, problems = read(
        xml(("41", "Quill", "46"), ("", "Reed", "16"), ("43", "", "1"), ("44", "Oak", "20"))
    )
    assert [mark.word for mark in marks] == ["Oak"]
    assert problems == ["mark 1 (41): mark_class", "mark 2: mark_number", "mark 3 (43): mark_word"]


LAUGHS = b"""<?xml version="1.0"?><!DOCTYPE lolz [<!ENTITY lol "lol">
<!ENTITY lol2 "&lol;&lol;&lol;&lol;&lol;&lol;&lol;&lol;&lol;&lol;">]><lolz>&lol2;</lolz>"""
OUTSIDE = (
    b"""<?xml version="1.0"?><!DOCTYPE r [<!ENTITY x SYSTEM "file:///etc/passwd">]><r>&x;</r>"""
)


@pytest.mark.parametrize(
    ("content", "code"),
    [
        (LAUGHS, "xml_forbidden"),
        (OUTSIDE, "xml_forbidden"),
        (b"<a><b></a>", "xml_broken"),
        (b"<html><body>Welcome</body></html>", "xml_other"),
        (b"<a>" * 100, "xml_deep"),
        (b'<?xml version="1.0" encoding="no-such-thing"?><a/>', "xml_broken"),
        (b'{"marks": []}', "list_not_csv"),
        (b"owner,classes\nx,1\n", "column_missing"),
    ],
)
def test_what_is_no_register_is_refused(content: bytes, code: str) -> None:
    marks, problems = read(content)
    assert marks == []
    assert code in problems[0]


def test_elements_of_another_standard_are_no_marks() -> None:
    other = xml(("41", "Quill", "16")).replace(b"/ST96/", b"/OTHER/")
    assert read(other) == ([], ["file: xml_other"])


def test_a_mark_without_end_is_given_up() -> None:
    bag = "<tmk:ClassNumber>1</tmk:ClassNumber>" * 30_000
    content = XML.format(encoding="UTF-8", marks=f"<tmk:Trademark>{bag}</tmk:Trademark>").encode()
    marks, problems = read(content)
    assert (marks, problems) == ([], ["file: xml_broken"])


@given(st.binary(max_size=300))
def test_no_bytes_break_the_reader(content: bytes) -> None:
    for start in (b"", HEAD, b"<?xml version='1.0'?><a>"):
        marks, problems = read(start + content)
        assert all(mark.number and mark.word for mark in marks)
        assert all(":" in problem for problem in problems)
