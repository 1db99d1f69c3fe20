"""Handles, prior use, other languages, how names are said, what to hold: by worked examples."""

from __future__ import annotations

import itertools

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from vinetag.core.brief import parse_brief
from vinetag.core.concepts import FINDING_KINDS, FINDING_NAMES, WEIGHT_KINDS, WEIGHTS, worst
from vinetag.core.errors import CatalogueError
from vinetag.core.grade import MEASURES, Grader, Reading
from vinetag.core.lexicon import load_lexicon
from vinetag.core.names import FullName
from vinetag.core.vet import (
    Asked,
    Finding,
    Mistype,
    Offer,
    Platform,
    SearchAnswer,
    abroad_findings,
    advice_of,
    choose,
    correction,
    curve,
    handle_finding,
    handle_forms,
    held_finding,
    in_words,
    mistyped_finding,
    presented,
    prior_findings,
    profile_says,
    protection,
    read_platforms,
    said_findings,
    searches,
    shipped_platforms,
    typed_extensions,
    write_platforms,
)
from vinetag.core.vet.disguises import disguises
from vinetag.core.vet.findings import _ADVICE, _WORDS
from vinetag.core.vet.marks import FormMaker
from vinetag.core.vet.opensearch import Result, Results
from vinetag.core.vet.tongues import languages_of, read_in, tongues

LEXICON = load_lexicon()
ABOUT = {"about": "A monthly letterpress stationery club", "keywords": ["ink", "paper", "post"]}
GRADER = Grader(parse_brief(ABOUT), LEXICON, MEASURES)


def reading(label: str) -> Reading:
    return GRADER.read_label(label)


def test_kinds_and_weights_are_told_once() -> None:
    assert list(FINDING_KINDS) == list(FINDING_NAMES)
    assert list(WEIGHT_KINDS) == list(WEIGHTS)
    assert worst(["clear", "note", "think"]) == "think"
    # What is not known is never clear.
    assert worst(["clear", "unknown"]) == "unknown" == worst([])
    assert set(_ADVICE) <= set(_WORDS)


# Handles


def asked(platform: str, handle: str, says: str, why: str = "") -> Asked:
    return Asked(platform.lower(), platform, handle, says, why)  # type: ignore[arg-type]


def test_forms_of_a_handle_are_those_people_fall_back_to() -> None:
    forms = [form.handle for form in handle_forms("ink-post", ["ink", "post"], "club")]
    assert forms == ["inkpost", "inkpostclub", "inkposthq", "theinkpost", "ink_post"]
    assert [f.handle for f in handle_forms("zorvo", ["zorvo"])][-1] == "thezorvo"


@pytest.mark.parametrize(
    ("says", "code", "weight"),
    [
        ({"inkpost": "fff"}, "handle_free", "clear"),
        ({"inkpost": "ftf", "inkpostapp": "fff"}, "handle_form", "note"),
        ({"inkpost": "ttf", "inkpostapp": "ftf"}, "handle_most", "think"),
        ({"inkpost": "ttt", "inkpostapp": "ttf"}, "handle_none", "think"),
        ({"inkpost": "?t?"}, "handle_unknown", "unknown"),
    ],
)
def test_one_handle_for_all_platforms_is_looked_for(
    says: dict[str, str], code: str, weight: str
) -> None:
    words = {"f": "free", "t": "taken", "?": ""}
    found = [
        asked(platform, handle, words[letter], "" if letter != "?" else "no answer")
        for handle, letters in says.items()
        for platform, letter in zip(("Larkwire", "Murmur", "Quarry"), letters, strict=True)
    ]
    finding = handle_finding(handle_forms("inkpost", ["ink", "post"])[:2], found)
    assert (finding.code, finding.weight) == (code, weight)
    assert "inkpost" in in_words(finding)
    assert len(finding.evidence) == len(found)


def test_platforms_that_never_tell_count_for_nothing() -> None:
    silent = [asked("Copperline", "inkpost", "", "the platform does not tell")]
    forms = handle_forms("inkpost", [])[:1]
    assert handle_finding(forms, silent).weight == "unknown"
    free = [*silent, asked("Murmur", "inkpost", "free")]
    assert handle_finding(forms, free).code == "handle_free"


@pytest.mark.parametrize(
    ("absence", "status", "text", "says"),
    [
        ("status", 404, "", "free"), ("status", 410, "", "free"), ("status", 200, "", "taken"),
        ("status", 403, "", ""), ("text", 200, "<p>NOBODY here</p>", "free"),
        ("text", 200, "hello", "taken"), ("text", 404, "", "free"), ("none", 200, "", ""),
        ("none", 404, "", ""), ("status", 500, "", ""),
    ],
)  # fmt: skip
def test_a_platform_tells_in_its_way(absence: str, status: int, text: str, says: str) -> None:
    platform = Platform("x", "X", "https://x.example/{handle}", absence=absence, absent="nobody")  # type: ignore[arg-type]
    found, why = profile_says(platform, status, text)
    assert found == says
    assert bool(why) == (says == "")


@pytest.mark.parametrize(
    ("handle", "why"),
    [("ab", "fewer than 3"), ("a" * 11, "more than 10"), ("ink.post", "“.”"), ("9lives", "letter")],
)
def test_rules_for_handles(handle: str, why: str) -> None:
    platform = Platform(
        "x", "X", "/x/{handle}", 3, 10, "abcdefghijklmnopqrstuvwxyz0123456789", True
    )
    assert why in platform.barred(handle)
    assert platform.barred("inkpost") == ""


def test_the_catalogue_that_ships_is_read_and_written() -> None:
    shipped = shipped_platforms()
    assert len(shipped) == 24
    assert read_platforms(write_platforms(shipped), shipped=True) == list(shipped)


@pytest.mark.parametrize(
    ("address", "code"),
    [
        ("https://example.org/", "platform_place"),
        ("https://example.org/{handle}/{handle}", "platform_place"),
        ("https://example.org/{name}", "platform_place"),
        ("/platforms/x/{handle}", "not_address"),
        ("ftp://example.org/{handle}", "not_address"),
        ("https://{handle}.example.org/", "not_address"),
        ("https://someone@example.org/{handle}", "not_address"),
        ("http://127.0.0.1/{handle}", "platform_private"),
        ("http://10.0.0.8:80/{handle}", "platform_private"),
        ("http://[::1]/{handle}", "platform_private"),
        ("http://localhost/{handle}", "platform_private"),
        ("http://printer.local/{handle}", "platform_private"),
        ("http://2130706433/{handle}", "platform_private"),
        ("http://0x7f.1/{handle}", "platform_private"),
    ],
)
def test_addresses_without_a_place_or_of_a_private_network_are_refused(
    address: str, code: str
) -> None:
    with pytest.raises(CatalogueError) as caught:
        read_platforms(f"code,name,address\nx,X,{address}\n")
    assert caught.value.problems[0].code == code


def test_a_public_platform_is_taken_and_every_problem_told() -> None:
    good = "code,name,address,letters_min,letters_max\nx,X,https://x.example.org/@{handle},3,20\n"
    [platform] = read_platforms(good)
    assert (platform.letters_min, platform.letters_max) == (3, 20)
    bad = (
        "code,name,address,letters_min,letters_max,characters,absence,absent\n"
        "X!,,https://x.example.org/{handle},9,3,abcß,text,\n"
    )
    with pytest.raises(CatalogueError) as caught:
        read_platforms(bad)
    codes = {problem.code for problem in caught.value.problems}
    assert codes == {
        "platform_code", "blank", "min_over_max", "platform_characters", "platform_absent",
    }  # fmt: skip


# Prior use


def answer(asked_: str, count: int, *results: Result, correction_: str = "") -> SearchAnswer:
    return SearchAnswer(asked_, Results(count, results, correction_))


SOMEBODY = Result(
    "Inkpost: letterpress cards", "Paper, ink and print by post", "https://www.inkpost.example/"
)
ELSEWHERE = Result("Inkpost", "Oil drilling equipment and pipes", "https://drill.example/inkpost")
ABOUT_IT = Result("On inkpost and gardens", "Seeds and spades", "https://forum.example/1")


@pytest.mark.parametrize(
    ("answers", "code", "weight"),
    [
        ([answer("inkpost", 20, SOMEBODY)], "use_somebody", "stop"),
        ([answer("inkpost", 20, ELSEWHERE)], "use_elsewhere", "think"),
        ([answer("inkpost", 20, ABOUT_IT)], "use_clear", "clear"),
        ([answer("inkpost", 5_000, ABOUT_IT)], "use_some", "note"),
        ([answer("inkpost", 9_000_000, ABOUT_IT)], "use_common", "note"),
        ([SearchAnswer("inkpost", None, "it failed")], "use_unknown", "unknown"),
        ([SearchAnswer("inkpost", None), answer("inkpost ink", 3)], "use_unknown", "unknown"),
    ],
)
def test_who_goes_by_a_name(answers: list[SearchAnswer], code: str, weight: str) -> None:
    one = reading("inkpost")
    finding = prior_findings(one, one.world, answers)[0]
    assert (finding.code, finding.weight) == (code, weight)


def test_a_correction_of_the_service_is_told() -> None:
    one = reading("inkpost")
    found = prior_findings(one, one.world, [answer("inkpost", 3, correction_="ink post")])
    assert [f.code for f in found] == ["use_clear"]  # the same letters
    found = prior_findings(one, one.world, [answer("inkpost", 3, correction_="impost")])
    assert [f.code for f in found] == ["use_clear", "corrected"]


def test_what_is_searched_for() -> None:
    assert searches(reading("inkpost"), "paper") == ["inkpost", "ink post", "inkpost paper"]
    assert searches(reading("zorvo"), "") == ["zorvo"]


@pytest.mark.parametrize(
    ("typed", "meant"), [("recieve", "receive"), ("lettr", "letter"), ("papper", "paper")]
)
def test_a_slip_is_taken_for_the_word(typed: str, meant: str) -> None:
    found = correction(typed, LEXICON)
    assert found.meant == meant
    assert found.risk > 0.8


@pytest.mark.parametrize("typed", ["inkpost", "paper", "x", "9lives", "zorvex"])
def test_what_is_known_or_far_from_words_is_left_alone(typed: str) -> None:
    assert correction(typed, LEXICON).risk < 0.3


# Elsewhere in the world


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


# Typed by mistake, and what to hold


def test_disguises_look_the_same_and_are_other_labels() -> None:
    found = disguises("ape")
    assert found[0] == "xn--80ak6a"  # all of it Cyrillic
    assert all(one.startswith("xn--") for one in found)
    assert disguises("9lives") == []


def test_extensions_are_typed_by_habit_and_country() -> None:
    known = {"com", "net", "org", "ie", "studio", "co.uk", "co"}
    assert typed_extensions("studio", "IE", known)["com"] > 0.05
    assert "ie" in typed_extensions("studio", "IE", known)
    assert "co.uk" in typed_extensions("com", "GB", known)
    assert "com" not in typed_extensions("com", "", known)
    assert set(typed_extensions("ie", "IE", {"ie"})) == set()


NAME = FullName("inkpost", "com")
TYPED = [
    Mistype("incpost", "heard", 0.10), Mistype("inkposts", "form", 0.04),
    Mistype("inkpst", "slip", 0.01), Mistype("inkpost", "extension", 0.02, "net"),
]  # fmt: skip


@pytest.mark.parametrize(
    ("statuses", "code", "weight"),
    [
        (("taken", "taken", "taken", "taken"), "mistyped_held", "stop"),
        (("open", "taken", "open", "open"), "mistyped_held", "think"),
        (("open", "open", "offered", "open"), "mistyped_held", "note"),
        (("open", "open", "open", "open"), "mistyped_open", "note"),
        (("", "open", "open", "open"), "mistyped_unknown", "unknown"),
    ],
)
def test_where_those_land_who_mistype(statuses: tuple[str, ...], code: str, weight: str) -> None:
    known = {one.full_name: s for one, s in zip(TYPED, statuses, strict=True) if s}
    finding = mistyped_finding(NAME, TYPED, known, {TYPED[1].full_name: "Alma Hexley"})
    assert (finding.code, finding.weight) == (code, weight)
    assert finding.evidence[1]["holder"] == "Alma Hexley"
    assert "inkpost.com" in in_words(finding)


def test_what_can_be_had_and_is_worth_its_price_is_offered() -> None:
    statuses = {one.full_name: "open" for one in TYPED}
    statuses[TYPED[1].full_name] = "taken"
    offers = protection(TYPED, statuses, {"com": 12_000, "net": 500_000})
    assert [offer.full_name for offer in offers] == ["incpost.com", "inkpst.com"]
    finding, chosen = held_finding(NAME, TYPED, statuses, offers, 12_000, "EUR")
    assert (finding.code, [o.full_name for o in chosen.offers]) == ("hold_some", ["incpost.com"])
    assert "12.00 EUR" in in_words(finding)
    dear, _ = held_finding(NAME, TYPED, statuses, offers, 5_000, "EUR")
    assert dear.code == "hold_dear"
    none, _ = held_finding(NAME, TYPED, statuses, [], 5_000, "EUR")
    assert (none.code, none.weight) == ("hold_none", "clear")
    unpriced, _ = held_finding(NAME, TYPED, statuses, [], 5_000, "EUR", priced=False)
    assert (unpriced.code, unpriced.weight) == ("hold_no_prices", "unknown")
    unknown, _ = held_finding(NAME, TYPED, {}, [], 5_000, "EUR")
    assert (unknown.code, unknown.weight) == ("hold_unknown", "unknown")


OFFERS = st.lists(
    st.builds(
        Offer,
        st.uuids().map(str),
        st.floats(0.001, 0.3).map(lambda x: round(x, 4)),
        st.integers(1, 60).map(lambda tenths: 100 * tenths),
    ),
    max_size=9,
)


@settings(max_examples=150, deadline=None)
@given(OFFERS, st.integers(0, 200).map(lambda tenths: 100 * tenths))
def test_the_bundle_is_the_best_there_is(offers: list[Offer], budget: int) -> None:
    """Beside trying all of them."""
    chosen = choose(offers, budget)
    assert chosen.yearly <= budget
    best = max(
        sum(o.share for o in some)
        for size in range(len(offers) + 1)
        for some in itertools.combinations(offers, size)
        if sum(o.yearly for o in some) <= budget
    )
    assert sum(o.share for o in chosen.offers) == pytest.approx(best)


@settings(max_examples=80, deadline=None)
@given(OFFERS, st.integers(0, 300).map(lambda tenths: 100 * tenths))
def test_the_curve_rises_and_each_point_is_the_best_for_its_cost(
    offers: list[Offer], most: int
) -> None:
    points = curve(offers, most)
    assert (points[0].yearly, points[0].share) == (0, 0.0)
    for one, two in itertools.pairwise(points):
        assert one.yearly < two.yearly <= most
        assert one.share < two.share
    for point in points:
        assert choose(offers, point.yearly).share == pytest.approx(point.share)


def test_every_finding_says_what_it_has_to() -> None:
    finding = Finding("handles", "clear", "handle_free", {"handle": "inkpost", "count": 3})
    assert in_words(finding) == "@inkpost is free on all 3 platforms that tell."
    assert advice_of(finding).startswith("Take it")
