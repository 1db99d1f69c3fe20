"""What single recipes promise beyond the contract, by hand."""

import re
from string import ascii_lowercase

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vinetag.core.brief import parse_brief
from vinetag.core.grade import MEASURES, Grader
from vinetag.core.grade.measures.sense import Sense
from vinetag.core.lexicon import load_lexicon
from vinetag.core.lexicon.endings import takes
from vinetag.core.make import RECIPES, Draft, Job, make_names, vary
from vinetag.core.make.recipes.affix import SUFFIXES, Affix, suffixed
from vinetag.core.make.recipes.invent import shape_of
from vinetag.core.make.sieve import Sieve
from vinetag.core.make.vary import words_in
from vinetag.core.names import is_ldh_label

LEXICON = load_lexicon()
BY_NAME = {r.name: r for r in RECIPES}
ENTRIES = ("saying", "couple", "call")


def drafts(recipe: str, *words: str, **fields: object) -> dict[str, Draft]:
    of = parse_brief({"keywords": list(words), **fields})
    return {d.label: d for d in BY_NAME[recipe].make(Job(of, LEXICON))}


def told(draft: Draft) -> str:
    """What was done to its first part, in words."""
    change = draft.parts[0].change
    assert change is not None
    return change.text()


@pytest.mark.parametrize(
    ("word", "suffix", "made"),
    [
        ("bake", "ery", "bakery"), ("make", "able", "makable"), ("grace", "ful", "graceful"),
        ("run", "er", "runner"), ("paint", "er", "painter"), ("happy", "ly", "happily"),
        ("story", "ist", "storist"), ("play", "er", "player"), ("peace", "able", "peaceable"),
        ("sun", "y", "sunny"), ("fix", "er", "fixer"), ("glass", "some", ""), ("free", "er", ""),
        ("candle", "ly", ""), ("school", "let", ""), ("honey", "ery", ""), ("flower", "ery", ""),
        ("coffee", "ery", ""), ("pottery", "ly", ""), ("penny", "let", "pennilet"),
    ],
)  # fmt: skip
def test_suffixes_follow_english_spelling(word: str, suffix: str, made: str) -> None:
    assert suffixed(word, suffix) == made


@given(st.text("abelryz", max_size=5), st.sampled_from([s.text for s in SUFFIXES]))
def test_any_letters_take_a_suffix_or_none(word: str, suffix: str) -> None:
    made = suffixed(word, suffix)
    assert made == "" or (made.endswith(suffix) and made[0] == word[0])


def test_affixes_stand_on_one_of_a_thing_and_on_no_act() -> None:
    found = drafts("affix", "stars", "fishing", "savings", "pottery", "spring")
    assert {"starlet", "springlet"} <= set(found)
    assert not {"starsly", "fishinglet", "savingsly", "potterily"} & set(found)


def test_endings_say_something_of_what_can_be_pictured() -> None:
    of = parse_brief(
        {"about": "Clay workshops by the river.", "keywords": ["clay", "idea", "maker"]}
    )
    ended = [d for d in Affix().make(Job(of, LEXICON)) if d.parts[-1].kind == "ending"]
    by_word: dict[str, list[str]] = {}
    for draft in ended:
        word, ending = (p.text for p in draft.parts)
        assert takes(word, ending, LEXICON)
        by_word.setdefault(word, []).append(ending)
    assert 1 <= len(by_word["clay"]) <= 2
    assert not {"idea", "maker"} & set(by_word)
    assert not takes("river", "ward", LEXICON)  # two endings in a row
    assert takes("hill", "ward", LEXICON)
    assert not takes("hill", "smith", LEXICON)
    assert not takes("hill", "let", LEXICON)
    grader = Grader(of, LEXICON, MEASURES)
    told = {f.code for f in Sense().assess(grader.read_label("claysmith")).findings}
    assert "ended" in told
    assert not {"glued", "stub", "coined"} & told


def test_forms_are_those_of_the_dictionary() -> None:
    found = drafts("form", "consult", "bakery", "dog")
    assert "dogs" in found
    assert "dogging" not in found
    assert {"consultant", "bakeries"} <= set(found)
    assert all(label in LEXICON.words for label in found)
    assert told(found["bakeries"]) == "plural of bakery"


def test_a_blend_says_what_overlaps() -> None:
    found = drafts("blend", "stamp", "amplify")
    assert told(found["stamplify"]) == "blend of stamp and amplify, sharing amp"
    assert [p.keyword for p in found["stamplify"].parts] == ["stamp", "amplify"]


def test_both_words_of_a_blend_can_be_seen() -> None:
    found = drafts("blend", "graphic", "kitchen", "pink", "candle", "glow", "climbing", "owl")
    assert "sound of c and k" in told(found["graphikitchen"])
    # Neither a word cut down to another, nor one of which a single letter is left, nor a slip.
    found |= drafts("blend", "night", "time")
    assert not {"pincandle", "glowl", "climbings", "nightime"} & set(found)


def test_a_blend_shares_two_letters_or_a_sound_so_that_no_word_hides() -> None:
    found = drafts("blend", "copper", "perfume", "honey", "lantern", "chess", "stars", "bee")
    assert told(found["copperfume"]) == "blend of copper and perfume, sharing per"
    hidden = {"honeyard", "lanternest", "freshoney", "chessong", "starstamp", "starstar"}
    assert not hidden & set(found)


@pytest.mark.parametrize(
    ("word", "made", "never"),
    [
        ("photo", "foto", "phoeto"), ("quick", "quik", "quicc"), ("night", "nite", "nit"),
        ("candy", "candi", "qandy"), ("cream", "kream", "crim"), ("surf", None, "curf"),
        ("school", None, "cchool"), ("phone", "fone", "phon"), ("history", None, "histury"),
    ],
)  # fmt: skip
def test_a_respelling_is_read_as_the_word_is_said(word: str, made: str | None, never: str) -> None:
    found = drafts("respell", word)
    assert made is None or made in found
    assert never not in found


def test_a_clip_ends_a_syllable_and_adds_nothing_to_a_keyword() -> None:
    found = drafts("clip", "candle", "telescope", "lantern")
    assert {"cand", "lant", "teles"} <= set(found)
    assert not any(label.startswith(("candle", "lantern")) for label in found)


def test_mirror_clip_and_invent_can_be_said() -> None:
    for recipe, floor in (("mirror", -3.1), ("clip", -3.2), ("invent", -2.75)):
        found = drafts(recipe, "letterpress", "lantern", "night")
        assert found, recipe
        assert all(LEXICON.sayable.score(label) >= floor for label in found)
    assert "nretnal" not in drafts("mirror", "lantern")


def test_invented_words_are_new_and_keep_their_shapes() -> None:
    found = drafts("invent", "piano", "lantern", making={"shapes": ["CVCVC", "CVCV"]})
    assert found
    assert {shape_of(label) for label in found} <= {"CVCVC", "CVCV"}
    assert not set(found) & set(LEXICON.words)


def test_invented_words_are_taken_for_no_other_word() -> None:
    stems = ("lantern", "candle", "honey", "zolvra")
    found = drafts("invent", *stems, making={"daring": 80})
    assert {d.parts[0].keyword for d in found.values()} == {*stems, ""}
    common = {w.text for w in LEXICON.words.values() if w.zipf >= 3}
    for label, draft in found.items():
        [part] = draft.parts
        assert part.change is not None
        assert label.startswith(part.change.args.get("start", ""))
        assert not re.search(r"(ing|ed|tion|sion|ness|ment|[^aeiou]s)$", label)
        assert not any(label[-n:] in common for n in range(4, len(label)))
        if len(label) > 5:
            assert not common & near(label) or label[:-1] in stems


def near(label: str) -> set[str]:
    """All that is one letter dropped, changed or added away."""
    places = range(len(label) + 1)
    cut = {label[:i] + label[i + 1 :] for i in places}
    changed = {label[:i] + c + label[i + 1 :] for i in places for c in ascii_lowercase}
    return cut | changed | {label[:i] + c + label[i:] for i in places for c in ascii_lowercase}


def test_the_purpose_moves_what_comes_first() -> None:
    def coined(purpose: str) -> int:
        of = parse_brief({"keywords": ["lantern", "garden"], "purpose": purpose})
        names = make_names(of, LEXICON, limit=60).names
        changed = {"affix", "blend", "clip", "respell", "invent"}
        return sum(g.candidate.recipes[0] in changed for g in names)

    assert coined("brand") > coined("mix") >= coined("descriptive")


def test_the_dot_falls_inside_a_word_also_before_two_levels() -> None:
    found = drafts("acrossdot", "letterpress", "night", "inkcouk")
    assert "letterpre" in found  # .ss is an extension
    for draft in found.values():
        change = draft.parts[0].change
        assert change is not None
        word, extension = change.args["word"], change.args["extension"]
        whole = f"{draft.label}.{extension}"
        assert change.text() == f"{word}, with the dot before {extension}: {whole}"
        assert whole.replace(".", "") == word


def test_places_stand_before_and_behind_with_forms() -> None:
    found = drafts("place", "piano tuning", "repair", places=["Harrowmere"])
    assert {"harrowmererepair", "repairharrowmere", "harrowmererepairs"} <= set(found)
    assert "harrowmerepianotuning" in found
    assert "harrowmere-repair" in drafts(
        "place", "repair", places=["harrowmere"], limits={"hyphens": 1}
    )


def test_initials_are_carried_by_a_word() -> None:
    found = drafts("initials", "quiet night sky", "club", making={"daring": 80})
    assert "qnsclub" in found
    assert "qnsclub" not in drafts("initials", "quiet night sky", "club")
    assert "qns" not in found  # cannot be said alone
    assert any(told(d).startswith("initials of") for d in found.values())


def test_recipes_are_switched_off_and_the_dial_is_felt() -> None:
    of = {"keywords": ["paper", "ink"]}

    def recipes(**making: object) -> list[str]:
        names = make_names(parse_brief({**of, "making": making}), LEXICON, limit=80).names
        return [g.candidate.recipes[0] for g in names]

    off = [r for r in BY_NAME if r != "tail"]
    assert set(recipes(off=off)) == {"tail"}
    assert make_names(parse_brief({**of, "making": {"off": list(BY_NAME)}}), LEXICON).names == []
    plain, daring = recipes(daring=0), recipes(daring=100)
    far = {"invent", "mirror", "respell", "clip", "blend", "acrossdot"}
    assert sum(r in far for r in daring) > 2 * sum(r in far for r in plain) + 3
    short = parse_brief({**of, "making": {"added_max": 3, "off": ["pair", *ENTRIES]}})
    tails = [
        p.text
        for g in make_names(short, LEXICON, limit=400).names
        for p in g.candidate.parts
        if p.kind in ("tail", "lead")
    ]
    assert tails
    assert max(map(len, tails)) <= 3


def test_unlucky_readings_never_appear() -> None:
    of = parse_brief({"keywords": ["pen", "island", "experts", "exchange"]})
    job, sieve = Job(of, LEXICON), Sieve(of, LEXICON)
    made = {d.label for r in RECIPES for d in r.make(job)}
    found = {d.label for r in RECIPES for d in r.make(job) if sieve.passes(d)}
    assert "penisland" in made
    assert not any("penis" in label or "sexchange" in label for label in found)
    assert "penisland" not in found


def test_one_changed_word_changes_little_elsewhere() -> None:
    about = "A club that sends handmade stationery to people who write letters."
    one = parse_brief({"about": about, "keywords": ["paper", "ink", "garden"]})
    two = parse_brief({"about": about, "keywords": ["paper", "ink", "river"]})
    lists = [
        [g.candidate.label for g in make_names(b, LEXICON, limit=400).names] for b in (one, two)
    ]
    named = [{n for n in names if "paper" in n or "ink" in n} for names in lists]
    assert len(named[0] & named[1]) > 0.6 * min(map(len, named))


@pytest.mark.parametrize("label", ["inkpost", "paperguild", "quietnightsky"])
def test_near_names_keep_the_idea(label: str) -> None:
    of = parse_brief({"keywords": ["paper", "ink"]})
    found = vary(label, of, LEXICON)
    labels = [g.candidate.label for g in found]
    assert len(found) >= 60
    assert label not in labels
    assert len(set(labels)) == len(labels)
    assert labels == [g.candidate.label for g in vary(label, of, LEXICON)]
    words = {p.text for p in Job(of, LEXICON).stems for p in ()} or {label[:3]}
    assert sum(any(w in n for w in words) or label[-3:] in n for n in labels) > 0.6 * len(labels)


@pytest.mark.parametrize(
    ("label", "words"),
    [
        ("honeyard", "honey yard"), ("lanternest", "lantern nest"), ("puzzleague", "puzzle league"),
        ("stamplify", "stamp amplify"), ("nightowl", "night owl"),
        ("quietnightsky", "quiet night sky"), ("gardenia", "gardenia"), ("zolvra", "zolvra"),
        ("ink-post", "ink post"),
    ],
)  # fmt: skip
def test_a_blend_is_varied_by_the_words_it_was_made_of(label: str, words: str) -> None:
    of = parse_brief({"keywords": ["lantern", "ink"]})
    assert words_in(label, of, LEXICON) == words.split()
    found = vary(label, of, LEXICON)
    assert all(g.candidate.label != label for g in found)
    if label == "honeyard":
        assert {"yardhoney", "honeybox"} <= {g.candidate.label for g in found}


def test_order_is_turned_and_hyphens_follow_the_brief() -> None:
    plain = {g.candidate.label for g in vary("inkpost", parse_brief({}), LEXICON)}
    dashed = {
        g.candidate.label for g in vary("inkpost", parse_brief({"limits": {"hyphens": 1}}), LEXICON)
    }
    assert "postink" in plain
    assert not any("-" in n for n in plain)
    assert "ink-post" in dashed


@pytest.mark.parametrize("label", ["a", "7", "zzyxq", "x" * 63, "xn--bcher-kva", "42-7"])
def test_odd_names_are_varied_into_names_or_not_at_all(label: str) -> None:
    found = [g.candidate.label for g in vary(label, parse_brief({}), LEXICON)]
    assert len(set(found)) == len(found)
    assert all(is_ldh_label(name) and name != label for name in found)


@pytest.mark.parametrize(
    "words", [["zzyxq"], ["a"], [f"{w}s" for w in "abcdefghijklmnopqrst"], ["inkpost"],
              ["one two three four five"]],
)  # fmt: skip
def test_odd_briefs_give_a_list_all_the_same(words: list[str]) -> None:
    found = [
        g.candidate.label
        for g in make_names(parse_brief({"keywords": words}), LEXICON, limit=100).names
    ]
    assert len(found) >= 5
    assert all(is_ldh_label(label) and len(label) <= 16 for label in found)
