"""What a brief says is done, and the names that say it."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vinetag.core.brief import parse_brief
from vinetag.core.grade import Grader
from vinetag.core.grade.measures import MEASURES
from vinetag.core.lexicon import load_lexicon
from vinetag.core.lexicon.morphology import singular
from vinetag.core.make.draft import Draft
from vinetag.core.make.job import Job
from vinetag.core.make.recipes.task import Task
from vinetag.core.make.told import NO_SERVICES, told, verbs_of

LEXICON = load_lexicon()
WORDS = "a the my that who tuning tunes old pianos roofs and of cleans inspected to children . ,"


def tasks(about: str, *words: str) -> dict[str, Draft]:
    brief = parse_brief({"about": about, "keywords": list(words), "purpose": "descriptive"})
    return {draft.label: draft for draft in Task().make(Job(brief, LEXICON))}


@pytest.mark.parametrize(
    ("about", "expected"),
    [
        ("A company that cleans solar panels.", ["clean panels"]),
        ("a mover who carries pianos and antiques", ["carry pianos", "carry antiques"]),
        ("A firm that plans and plants balcony gardens", ["plan gardens", "plant gardens"]),
        ("A cleaner who also mends gutters", ["mend gutters"]),
        ("A locksmith who frees doors and mends locks", ["free doors", "mend locks"]),
        ("A guide to mending clothes.", ["mend clothes"]),
        ("How to repair their household appliances", ["repair appliances"]),
        ("Poems printed on receipts.", ["print poems"]),
        # What an -ing form describes is not what it is done to.
        ("A climbing wall in a church.", []),
        ("Shorts made from old fishing nets.", []),
        ("A shop selling knitting patterns.", []),
        # Nobody does it for somebody else; or there is no thing.
        ("An app for people who hate shopping.", []),
        ("A club for women who swim.", []),
        ("", []),
    ],
)
def test_the_verbs_of_a_sentence_have_their_things(about: str, expected: list[str]) -> None:
    assert [f"{verb} {thing}" for verb, thing in told(about, LEXICON)] == expected


@given(st.lists(st.sampled_from(WORDS.split()), max_size=14))
def test_any_sentence_tells_only_of_what_it_says(words: list[str]) -> None:
    for verb, thing in told(" ".join(words), LEXICON):
        assert thing in words
        assert verb in LEXICON.words
        assert verb not in NO_SERVICES
        assert any(LEXICON.lemma(w) == verb or w == "tuning" for w in words)


@given(st.text(max_size=200))
def test_any_text_is_read(text: str) -> None:
    for verb, thing in told(text, LEXICON):
        assert verb in LEXICON.words
        assert thing in text.lower()


@pytest.mark.parametrize(
    ("word", "verbs"),
    [
        ("tuner", ["tune"]),
        ("tuning", ["tune"]),
        ("repair", ["repair"]),
        ("restore", ["restore"]),
        ("cleaner", ["clean"]), ("roofers", ["roof"]),
        ("gutters", []), ("drawer", []),
        ("number", []),
        ("letter", []),
        ("piano", []),
        ("zorbly", []),
    ],
)  # fmt: skip
def test_words_that_say_what_is_done_come_from_verbs(word: str, verbs: list[str]) -> None:
    assert list(verbs_of(word, LEXICON)) == verbs


class TestTask:
    def test_an_order_and_what_is_done(self) -> None:
        found = tasks("A piano tuner who also restores old uprights.", "piano", "tuner")
        assert {"tunemypiano", "tuneyourpiano", "pianostuned"} <= set(found)
        first, small, thing = found["tunemypiano"].parts
        assert (first.kind, first.keyword) == ("form", "tuner")
        assert (small.kind, thing.kind) == ("small", "keyword")

    def test_one_or_many_as_people_speak_of_it(self) -> None:
        # Windows are spoken of as many, a roof is not.
        assert "cleanmywindows" in tasks("A firm that cleans windows.", "windows")
        assert "inspectmyroof" in tasks("A drone that inspects roofs.", "roofs")

    def test_what_the_sentence_says_is_surer_than_keywords_alone(self) -> None:
        found = tasks("A firm that cleans solar panels.", "washing", "car")
        assert found["cleanmypanels"].strength > found["washmycar"].strength

    def test_keywords_that_say_what_is_done_have_the_things_that_can_be_touched(self) -> None:
        assert "movemypiano" in tasks("", "moving", "piano")
        found = tasks("", "window", "cleaner", "gutters")
        assert {"cleanmywindow", "cleanmygutters"} <= set(found)
        assert not any("cleaner" in label for label in found)

    def test_people_are_no_things_and_strangers_are_not_joined(self) -> None:
        assert tasks("A charity teaching prisoners to read.", "prison", "reading") == {}
        assert tasks("", "baking", "opinion") == {}
        both = tasks("", "piano", "tuning", "baking")
        assert "tunemypiano" in both
        assert "bakemypiano" not in both

    def test_it_is_graded_as_speech(self) -> None:
        brief = parse_brief(
            {"about": "A firm that cleans solar panels.", "keywords": ["solar", "panels"]}
        )
        grader = Grader(brief, LEXICON, MEASURES)
        _, reasons = grader.explain(grader.read_label("cleanmypanels"))["sense"]
        assert any("as people speak" in str(reason) for reason in reasons)


@pytest.mark.parametrize(
    ("many", "one"),
    [
        ("roofs", "roof"),
        # The dictionary lists these by themselves, too.
        ("windows", "window"), ("letters", "letter"), ("barrels", "barrel"),
        # Many of these are something else, or there is no one of them.
        ("glasses", ""), ("arms", ""), ("spirits", ""), ("news", ""), ("glass", ""), ("media", ""),
    ],
)  # fmt: skip
def test_one_of_many(many: str, one: str) -> None:
    assert singular(many, LEXICON) == one
