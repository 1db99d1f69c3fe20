"""Opening up keywords, and the word data behind it."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vinetag.core.brief import Keyword, parse_brief
from vinetag.core.lexicon import load_lexicon
from vinetag.core.words import GROUPS, did_you_mean, open_up
from vinetag.core.words.spelling import distance

LEXICON = load_lexicon()


def opened(text: str, **fields: object) -> dict[str, list[str]]:
    found = open_up(Keyword(tuple(text.split()), **fields), LEXICON)
    return {g: [o.text for o in found.offers if o.group == g] for g in GROUPS}


def test_a_keyword_leads_to_words_by_group() -> None:
    tune = opened("tune")
    assert "melody" in tune["synonyms"]
    assert {"tunes", "tuned", "tuning"} <= set(tune["forms"])
    assert "tuner" in tune["derived"]
    assert "day" in opened("night")["opposites"]
    assert "starlight" in opened("star")["compounds"]
    assert "photo" in opened("photograph")["short"]
    assert {"guitar", "violin"} & {w for words in opened("piano").values() for w in words}
    assert "consultant" in opened("consult")["derived"]


def test_the_sense_that_is_meant_keeps_the_others_words_out() -> None:
    senses = LEXICON.thesaurus.senses("star")
    sky = next(s for s in senses if "celestial" in s.gloss)
    actor = next(s for s in senses if "actor" in s.gloss)
    words = {
        s.id: {o.text for o in open_up(Keyword(("star",), senses=(s.id,)), LEXICON).offers}
        for s in (sky, actor)
    }
    assert "lead" in words[actor.id]
    assert "lead" not in words[sky.id]
    assert words[sky.id] & {"nova", "supernova", "galaxy", "sun"}


def test_the_company_of_other_keywords_picks_the_sense() -> None:
    bank = Keyword(("bank",))
    river = open_up(bank, LEXICON, [bank, Keyword(("river",)), Keyword(("water",))])
    money = open_up(bank, LEXICON, [bank, Keyword(("money",)), Keyword(("loan",))])
    gloss = {s.id: s.gloss for s in river.senses}
    assert any("slop" in gloss[i] or "land" in gloss[i] for i in river.taken)
    assert river.taken != money.taken


def test_dropped_words_stay_away_and_no_word_comes_twice() -> None:
    before = open_up(Keyword(("paper",)), LEXICON).offers
    dropped = before[0].text
    after = open_up(Keyword(("paper",), drop=(dropped,)), LEXICON).offers
    assert dropped not in {o.text for o in after}
    assert len({o.text for o in before}) == len(before)
    assert all(0 < o.closeness <= 1 for o in before)


@pytest.mark.parametrize("text", ["zzyxq", "harrowmere", "quux blarg", "q", "42", "night sky"])
def test_what_the_data_does_not_know_is_opened_without_fuss(text: str) -> None:
    found = open_up(Keyword(tuple(text.split())), LEXICON)
    assert found.keyword == text
    assert found.known == all(w in LEXICON.words for w in text.split())


@pytest.mark.parametrize(
    ("typed", "meant"),
    [
        ("letterpres", "letterpress"), ("recieve", "receive"), ("gardenning", "gardening"),
        ("stationary", ""), ("colour", ""), ("harrowmere", ""), ("ink", ""), ("zzyxq", ""),
    ],
)  # fmt: skip
def test_a_misspelt_keyword_is_noticed(typed: str, meant: str) -> None:
    found = did_you_mean(typed, LEXICON)
    assert found == meant or (typed == "letterpres" and found == "letters")


@given(st.text("abc", max_size=6), st.text("abc", max_size=6))
def test_slips_are_a_distance(one: str, two: str) -> None:
    assert (distance(one, two, 9) == 0) == (one == two)
    assert distance(one, two, 9) == distance(two, one, 9)
    assert distance(one, two, 9) <= max(len(one), len(two))
    assert distance(one, two, 1) == min(2, distance(one, two, 9))


def test_slips_by_hand() -> None:
    assert distance("abc", "acb", 5) == 1
    assert distance("kitten", "sitting", 5) == 3


@pytest.mark.parametrize("word", ["paper", "night", "quiet", "letter", "bridge", "phone"])
def test_letters_are_matched_to_sounds(word: str) -> None:
    phones = LEXICON.sounds.phones(word)
    chunks = LEXICON.spellings.aligned(word, phones)
    assert "".join(letters for letters, _ in chunks) == word
    assert " ".join(sound for _, sound in chunks if sound).split() == list(phones)


def test_spellings_of_a_sound_share_out_to_one() -> None:
    ways = LEXICON.spellings.ways("F", "^")
    assert sum(ways.values()) == pytest.approx(1)
    assert ways["f"] > ways["ph"] > 0
    assert LEXICON.spellings.ways("no such", "^") == {}


def test_what_can_be_said_is_told_from_what_cannot() -> None:
    sayable = LEXICON.sayable
    for good, bad in (("lantern", "lnatern"), ("brimble", "bmrible"), ("strength", "strngths")):
        assert sayable.score(good) > sayable.score(bad)
    assert sayable.next_letters("q")[21] > 0.5  # u
    assert sayable.next_letters("lan").sum() == pytest.approx(1, abs=0.01)


@pytest.mark.parametrize(
    ("word", "beside", "says"),
    [
        ("steam", "sauna wood lake", "water at boiling"),
        ("bark", "tree forest", "covering of the woody stems"),
        ("bark", "dog puppy", "a noise"),
        ("mouse", "computer keyboard", "electronic device"),
        ("bow", "violin strings", "taut horsehair"),
        ("bank", "money loan", "financial institution"),
        ("bank", "river fishing", "sloping land"),
    ],
)
def test_the_sense_follows_the_other_keywords(word: str, beside: str, says: str) -> None:
    brief = parse_brief({"keywords": [word, *beside.split()]})
    opened = open_up(brief.keywords[0], load_lexicon(), brief.keywords)
    [taken] = [s for s in opened.senses if s.id in opened.taken]
    assert says in taken.gloss
