"""Senses, relations and forms, and what opening a word promises for any word."""

import pytest
from hypothesis import given, settings

from tests.strategies import words
from vinetag.core.brief import Keyword
from vinetag.core.lexicon import load_lexicon
from vinetag.core.lexicon.thesaurus import RELATIONS, Compounds
from vinetag.core.words import GROUPS, open_up

LEXICON = load_lexicon()
THESAURUS = LEXICON.thesaurus


def test_senses_come_commonest_first_and_can_be_asked_for_again() -> None:
    senses = THESAURUS.senses("star")
    assert "celestial" in senses[0].gloss
    assert all("star" in s.words for s in senses)
    assert [THESAURUS.sense(s.id) for s in senses] == senses
    assert THESAURUS.senses("zzyxq") == []
    with pytest.raises(IndexError):
        THESAURUS.sense(10**7)


def test_relations_lead_both_ways() -> None:
    sense = THESAURUS.senses("piano")[0]
    for broader in THESAURUS.related(sense.id, "broader"):
        assert sense in THESAURUS.related(broader.id, "narrower")
    assert all(isinstance(THESAURUS.related(sense.id, r), list) for r in RELATIONS)


def test_two_word_entries_are_words_of_a_sense() -> None:
    assert any("celestial body" in s.words for s in THESAURUS.senses("celestial body"))


def test_forms_are_words_with_a_kind() -> None:
    kinds = {form: kind for kind, form in THESAURUS.forms("paint")}
    assert (kinds["painter"], kinds["painted"], kinds["paints"]) == ("doer", "past", "plural")
    assert all(form in LEXICON.words for form in kinds)
    assert THESAURUS.forms("zzyxq") == []


def test_compounds_are_made_of_known_words() -> None:
    compounds = Compounds(["paper", "paperback", "back", "newspaper", "news", "papery", "papers"])
    assert compounds.of("paper") == ["paperback", "newspaper"]
    assert compounds.of("paper", limit=1) == ["paperback"]
    assert compounds.of("zebra") == []


@given(words)
@settings(max_examples=40, deadline=None)
def test_any_word_opens_into_usable_words(word: str) -> None:
    found = open_up(Keyword((word,)), LEXICON)
    texts = [o.text for o in found.offers]
    assert word not in texts
    assert len(set(texts)) == len(texts)
    for offer in found.offers:
        assert offer.group in GROUPS
        assert 0 < offer.closeness <= 1
        assert not LEXICON.offensive & set(offer.text.split())
        assert all(w in LEXICON.words for w in offer.text.split())
    for group in GROUPS:
        closeness = [o.closeness for o in found.offers if o.group == group]
        assert closeness == sorted(closeness, reverse=True)
    assert found == open_up(Keyword((word,)), LEXICON)
