"""Kinds and weights, other languages, and how names are said: by worked examples."""

from __future__ import annotations

import pytest

from tests.core.reading import LEXICON, reading
from vinetag.core.concepts import FINDING_KINDS, FINDING_NAMES, WEIGHT_KINDS, WEIGHTS, worst
from vinetag.core.vet import (
    Finding,
    abroad_findings,
    advice_of,
    in_words,
    presented,
    said_findings,
)
from vinetag.core.vet.findings import _ADVICE, _WORDS
from vinetag.core.vet.marks import FormMaker
from vinetag.core.vet.tongues import languages_of, read_in, tongues


def test_kinds_and_weights_are_told_once() -> None:
    assert list(FINDING_KINDS) == list(FINDING_NAMES)
    assert list(WEIGHT_KINDS) == list(WEIGHTS)
    assert worst(["clear", "note", "think"]) == "think"
    # What is not known is never clear.
    assert worst(["clear", "unknown"]) == "unknown" == worst([])
    assert set(_ADVICE) <= set(_WORDS)


def test_every_finding_says_what_it_has_to() -> None:
    finding = Finding("handles", "clear", "handle_free", {"handle": "inkpost", "count": 3})
    assert in_words(finding) == "@inkpost is free on all 3 platforms that tell."
    assert advice_of(finding).startswith("Take it")


def test_markets_speak_languages() -> None:
    assert languages_of(["AT", "CH", "IE"]) == ["de", "fr", "it"]
    assert set(languages_of(["DE", "FR", "ES", "IT", "SE", "PL"])) <= set(tongues())


@pytest.mark.parametrize(
    ("label", "countries", "code", "weight"),
    [
        ("gift", ["DE"], "friend_abroad", "think"),
        ("puta", ["ES"], "rude_abroad", "stop"),
        ("puta", [], "rude_abroad", "think"),
        ("nochepaper", ["ES"], "part_abroad", "note"),
        ("inkpost", ["DE"], "abroad_clear", "clear"),
    ],
)
def test_a_name_in_other_languages(
    label: str, countries: list[str], code: str, weight: str
) -> None:
    found = abroad_findings(reading(label), countries)
    assert (code, weight) in {(f.code, f.weight) for f in found}
    assert all(in_words(f).endswith(".") for f in found)


def test_a_market_reads_it_in_its_own_way() -> None:
    assert read_in("quietsky", "de") == "kveetskue"
    assert read_in("inkpost", "de") == ""
    assert read_in("stern", "de") == "shtern"
    assert read_in("inkpost", "xx") == ""
    assert abroad_findings(reading("quietsky"), ["DE"])[0].evidence[0]["said"] == "kveetskue"


def test_other_letters_are_not_looked_into() -> None:
    foreign = reading("inkpost")._replace(foreign=True)
    assert abroad_findings(foreign, ["DE"])[0].weight == "unknown"


# Said and written


def test_a_name_is_spelt_and_said() -> None:
    met = presented(reading("inkpost"), "com")
    assert [word for _, word in met.alphabet][:3] == ["India", "November", "Kilo"]
    assert (met.capitals, met.email, met.handle) == ("INKPOST", "hello@inkpost.com", "@inkpost")
    assert met.said
    assert presented(reading("a-9"), "ie").alphabet[1:] == [("-", "hyphen"), ("9", "nine")]


def test_names_of_a_shortlist_that_are_alike_are_told() -> None:
    forms = FormMaker(LEXICON)
    found = said_findings(
        reading("inkpost"),
        [reading("inkpost"), reading("ynkpost"), reading("orchard")],
        forms,
        "com",
    )
    assert [(f.code, f.args["other"]) for f in found if f.code == "said_like"] == [
        ("said_like", "ynkpost")
    ]
    assert said_findings(reading("orchard"), [], forms, "com")[0].weight == "clear"
    capitals = said_findings(reading("barnyard"), [], forms, "com")
    assert "seen_alike" in {f.code for f in capitals}
