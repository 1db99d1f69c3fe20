"""What every kind of finding owes, whatever the name: the contract of those that need no asking."""

from __future__ import annotations

import math
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic_core import PydanticCustomError

from tests.core.reading import LEXICON, reading
from tests.strategies import labels
from vinetag.core.concepts import FINDING_NAMES, WEIGHTS, FindingName
from vinetag.core.filed import PlainObject
from vinetag.core.names import FullName
from vinetag.core.vet import (
    Asked,
    Finding,
    Mistype,
    Offer,
    SearchAnswer,
    abroad_findings,
    advice_of,
    handle_finding,
    handle_forms,
    handles_foreign,
    held_finding,
    in_words,
    mistyped_finding,
    mistypes,
    presented,
    prior_findings,
    protection,
    said_findings,
    searches,
    shipped_platforms,
)
from vinetag.core.vet.marks import FormMaker, Index, Indexed, Mark, query_of
from vinetag.core.vet.marks.finding import mark_findings, marks_foreign
from vinetag.core.vet.opensearch import Result, Results

FORMS = FormMaker(LEXICON)
MARKS = {
    number: Mark(str(number), word, "Hexley Press", "Saltley", classes, "registered")
    for number, (word, classes) in enumerate(
        [("Inkpoast", (16,)), ("Quiet Skies", (9, 41)), ("Harrow", ()), ("A", (35,))]
    )
}
MADE = {number: FORMS.of_text(mark.word, mark.classes) for number, mark in MARKS.items()}
INDEX = Index(Indexed(n, made, MARKS[n].classes, True) for n, made in MADE.items() if made)
ODD = ["a", "9", "inkpost", "ink-post", "q" * 63, "xn--bcher-kva", "x-9-x", "rnvv", "zuqvarendo"]
FOUND = Results(12, (Result("Inkpost", "Paper by post", "https://inkpost.example/"),), "impost")


def marks(label: str) -> list[Finding]:
    query = query_of(reading(label), (16,), FORMS)
    near = INDEX.nearest(query, 10, 0.5)
    return mark_findings(label, near, MARKS, len(MARKS), FORMS)


def prior(label: str) -> list[Finding]:
    one = reading(label)
    questions = searches(one, "paper")
    answers = [SearchAnswer(asked, FOUND if i else None) for i, asked in enumerate(questions)]
    return prior_findings(one, one.world, answers)


def handles(label: str) -> list[Finding]:
    forms = handle_forms(label, [word for _, word in reading(label).words])
    says = ("free", "taken", "")
    asked = [
        Asked(platform.code, platform.name, form.handle, says[(i + j) % 3])  # type: ignore[arg-type]
        for i, platform in enumerate(shipped_platforms())
        for j, form in enumerate(forms)
    ]
    return [handle_finding(forms, asked)]


def typed(label: str) -> tuple[FullName, list[Mistype], dict[FullName, str]]:
    found = mistypes(reading(label), "com", others={"net": 0.01})
    statuses = ("open", "taken", "offered", "premium")
    known = {one.full_name: statuses[i % 4] for i, one in enumerate(found)}
    return FullName(label, "com"), found, known


def mistyped(label: str) -> list[Finding]:
    name, found, statuses = typed(label)
    return [mistyped_finding(name, found, statuses, {}, foreign=reading(label).foreign)]


def hold(label: str) -> list[Finding]:
    name, found, statuses = typed(label)
    offers = protection(found, statuses, {one.full_name: 12_000 for one in found})
    return [held_finding(name, found, statuses, offers, 40_000, "EUR")[0]]


FINDERS: dict[FindingName, Any] = {
    "marks": marks,
    "prior_use": prior,
    "mistyped": mistyped,
    "handles": handles,
    "elsewhere": lambda label: abroad_findings(reading(label), ["DE", "ES"]),
    "said": lambda label: said_findings(reading(label), [reading("inkpoast")], FORMS, "com"),
    "protection": hold,
}


def test_every_kind_is_here() -> None:
    assert set(FINDERS) == set(FINDING_NAMES)


@pytest.mark.parametrize("kind", FINDERS)
@pytest.mark.parametrize("label", ODD)
def test_a_finding_is_of_its_kind_weighs_and_is_a_sentence(kind: FindingName, label: str) -> None:
    found = FINDERS[kind](label)
    assert found
    for one in found:
        assert (one.kind, one.weight in WEIGHTS) == (kind, True)
        assert in_words(one).strip()[-1] in ".?"
        assert "{" not in in_words(one) + advice_of(one)
        assert not advice_of(one) or advice_of(one).endswith(".")
        # Whatever speaks for it can go to a file and come back.
        for row in (one.args, *one.evidence):
            assert PlainObject().read(dict(row)) == dict(row)
    # Evidence is told once, and what is said to be clear is said alone; a correction has its own.
    if kind != "prior_use":
        assert sum(bool(one.evidence) for one in found) <= 1
        assert len(found) == 1 or "clear" not in {one.weight for one in found}


@settings(max_examples=40, deadline=None)
@given(labels, st.sampled_from(sorted(FINDERS)))
def test_no_name_is_too_odd_for_a_kind(label: str, kind: FindingName) -> None:
    for one in FINDERS[kind](label):
        assert in_words(one)


@given(labels)
def test_a_name_is_presented_letter_by_letter(label: str) -> None:
    met = presented(reading(label), "ie")
    if not reading(label).foreign:
        assert "".join(letter for letter, _ in met.alphabet) == label.upper()
    assert met.email.startswith("hello@")
    assert met.email.endswith(".ie")
    assert "-" not in met.handle


def test_other_letters_are_told_as_a_person_writes_them() -> None:
    assert "bücher" in in_words(marks_foreign("xn--bcher-kva"))
    assert marks_foreign("xn--bcher-kva").weight == "unknown"
    met = presented(reading("xn--e1afmkfd"), "de")
    assert (met.email, met.said, met.handle) == ("hello@пример.de", "", "")
    assert FullName("xn--bcher-kva", "de").shown == "bücher.de"


def test_accents_are_written_but_the_same_without_them_is_what_is_typed() -> None:
    read = reading("xn--bcher-kva")
    met = presented(read, "de")
    assert (met.email, met.handle) == ("hello@bücher.de", "@bucher")
    slips = {one.full_name for one in mistypes(read, "de", others={"com": 0.01})}
    assert FullName("bucher", "de") in slips
    assert FullName("xn--bcher-kva", "com") in slips
    assert FullName("xn--bcher-kva", "de") not in slips
    assert handle_forms(read.label, [])[0].handle == "bucher"
    assert searches(read, "paper")[0] == "bücher"
    assert handles_foreign("xn--e1afmkfd").args["label"] == "пример"


def test_letters_that_run_together_in_capitals_are_told() -> None:
    codes = {f.code: f.args for f in said_findings(reading("barnvvood"), [], FORMS, "com")}
    assert "seen_alike" in codes
    assert (codes["seen_alike"]["letters"], codes["seen_alike"]["other"]) in {
        ("VV", "W"), ("RN", "M"),
    }  # fmt: skip


def test_what_is_dearer_than_the_budget_is_not_held_however_much_it_catches() -> None:
    name, found, statuses = typed("inkpost")
    dear = [
        Offer(str(found[0].full_name), 0.3, 80_000),
        Offer(str(found[4].full_name), 0.01, 9_000),
    ]
    finding, chosen = held_finding(name, found, statuses, dear, 40_000, "EUR")
    assert [offer.full_name for offer in chosen.offers] == [str(found[4].full_name)]
    rows = {row["full_name"]: row["held"] for row in finding.evidence}
    assert list(rows.values()) == [False, True]


VALUES = st.none() | st.booleans() | st.integers() | st.floats() | st.text(max_size=2_100)


@given(
    st.dictionaries(st.text(max_size=50) | st.integers(), VALUES | st.lists(VALUES), max_size=45)
    | VALUES
)
def test_an_object_from_outside_is_plain_and_bounded_or_refused(value: Any) -> None:
    try:
        read = PlainObject().read(value)
    except PydanticCustomError:
        return
    assert len(read) <= PlainObject.MOST_FIELDS
    for field, one in read.items():
        assert len(field) <= PlainObject.LONGEST_FIELD
        assert one is None or isinstance(one, str | bool | int | float)
        assert not isinstance(one, str) or len(one) <= PlainObject.LONGEST_TEXT
        assert not isinstance(one, float) or math.isfinite(one)
