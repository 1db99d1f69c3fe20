"""The measure of sense, and names made of a world: worked examples and what must never be."""

from collections import Counter

import pytest

from vinetag.core.brief import parse_brief
from vinetag.core.grade import MEASURES, Grader
from vinetag.core.lexicon import load_lexicon
from vinetag.core.make import make_names
from vinetag.core.make.vary import vary

LEXICON = load_lexicon()
ABOUT = "A pottery studio with open hours for beginners and regular hobby makers."
OF = {"about": ABOUT, "purpose": "brand", "keywords": ["pottery", "clay", "studio", "wheel"]}


def grader(**fields: object) -> Grader:
    return Grader(parse_brief({**OF, **fields}), LEXICON, MEASURES)


def codes(label: str, **fields: object) -> set[str]:
    one = grader(**fields)
    [sense] = [m for m in MEASURES if m.name == "sense"]
    return {f.code for f in sense.assess(one.read_label(label)).findings}


@pytest.mark.parametrize(
    ("label", "code"),
    [
        ("throwntogether", "saying"),
        ("clayandkiln", "couple"),
        ("firethekiln", "call"),
        ("redtide", "elsewhere"),
        ("claytax", "glued"),
        ("clayhub", "tacked"),
        ("studio", "incidental"),
        ("clay", "category"),
        ("claypottery", "twice"),
        ("kilnxq", "coined"),
    ],
)
def test_each_thing_it_sees(label: str, code: str) -> None:
    assert code in codes(label)


def test_what_works_against_the_promise_is_told() -> None:
    about = "Vegan lunch boxes delivered to offices."
    assert "against" in codes("lambandleaf", about=about, keywords=["vegan", "lunch"])


def test_a_saying_of_the_world_beats_glue_and_says_why() -> None:
    one = grader()
    grades = {
        label: one.grade(one.read_label(label)).grade
        for label in ("throwntogether", "clayandkiln", "clayhub", "smallstudio", "studioscout")
    }
    assert grades["throwntogether"] > grades["clayhub"] + 15
    assert grades["clayandkiln"] > grades["smallstudio"] + 15
    assert grades["clayandkiln"] > grades["studioscout"] + 15
    told = one.explain(one.read_label("throwntogether"))["sense"][1][0].text
    assert told == "“thrown together” is said in pottery and ceramics."
    fit = [r.text for r in one.explain(one.read_label("kilnlight"))["fit"][1]]
    assert "“kiln” belongs to pottery and ceramics, your world." in fit


def test_a_name_is_graded_alike_made_and_typed() -> None:
    of = parse_brief(OF)
    one = Grader(of, LEXICON, MEASURES)
    for name in make_names(of, LEXICON, limit=50).names:
        if name.candidate.recipes[0] in ("saying", "couple", "call"):
            typed = one.grade(one.read_label(name.candidate.label))
            assert typed.scores["sense"] == pytest.approx(name.grade.scores["sense"])


@pytest.mark.parametrize("purpose", ["brand", "mix", "descriptive"])
def test_the_first_screen_is_of_the_world_and_no_kind_or_word_fills_it(purpose: str) -> None:
    made = make_names(parse_brief({**OF, "purpose": purpose}), LEXICON, limit=50).names
    recipes = Counter(g.candidate.recipes[0] for g in made)
    assert recipes["couple"] <= 10
    worldly = sum(recipes[r] for r in ("saying", "couple", "call"))
    assert worldly >= (25 if purpose != "descriptive" else 18)
    words = Counter(p.text for g in made for p in g.candidate.parts if p.kind != "small")
    assert max(words.values()) <= 10


def test_purposes_give_different_first_screens() -> None:
    screens = {
        purpose: {
            g.candidate.label
            for g in make_names(parse_brief({**OF, "purpose": purpose}), LEXICON, limit=50).names
        }
        for purpose in ("brand", "mix", "descriptive")
    }
    assert len(screens["brand"] & screens["descriptive"]) <= 35
    assert screens["brand"] != screens["mix"]


def test_near_names_come_of_the_world_too() -> None:
    ways = {g.candidate.recipes[0] for g in vary("clayandkiln", parse_brief(OF), LEXICON)}
    assert {"saying", "couple"} & ways
    assert "world" in ways


BAD = {
    "no sentence": {"about": ""},
    "only the kind of venture": {"about": "An app.", "keywords": []},
    "another language": {"about": "Ein Laden für alte Fahrräder und ihre Freunde.", "keywords": []},
    "contradicted": {"about": "Vegan food.", "keywords": ["lamb", "butcher"]},
    "made-up words": {"about": "Zorbling for vexmups.", "keywords": ["zorble", "vexmup"]},
    "twenty keywords": {
        "keywords": "clay mug jug bowl kiln slip glaze rim pot wheel hand earth fire ash mud water "
        "sand throw shape form".split()
    },
    "long": {"about": "clay " * 80},
}


@pytest.mark.parametrize("fields", BAD.values(), ids=BAD)
def test_odd_briefs_get_a_sensible_list(fields: dict[str, object]) -> None:
    made = make_names(parse_brief({**OF, **fields}), LEXICON, limit=100).names
    nothing = fields.get("keywords") == [] and "app" in str(fields["about"])
    assert len(made) >= (0 if nothing else 40)
    assert len({g.candidate.label for g in made}) == len(made)


def test_what_is_dropped_is_in_no_name() -> None:
    chosen = {"drop": ["kiln", "glaze"]}
    made = make_names(parse_brief({**OF, "world": chosen}), LEXICON, limit=300).names
    words = [
        {p.text for p in g.candidate.parts}
        for g in made
        if "world" in {p.kind for p in g.candidate.parts}
    ]
    assert not any({"kiln", "glaze"} & w for w in words)
