"""What answers come to, what to ask next, and names read from pasted text."""

from datetime import UTC, datetime, timedelta
from typing import get_args

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vinetag.core.checking import (
    LIFETIMES,
    RUNGS,
    STATUSES,
    TROUBLE_WORDING,
    Evidence,
    Quote,
    Says,
    Source,
    Trouble,
    in_words,
    is_fresh,
    ladder,
    next_step,
    read_evidence,
    read_pasted,
    record_of,
    verdict,
    write_evidence,
)
from vinetag.core.checking.pasted import meant_name, read_typed
from vinetag.core.errors import CoreError
from vinetag.core.money import neat
from vinetag.core.names import FullName

NOW = datetime(2026, 11, 25, 12, tzinfo=UTC)
ALL: tuple[Source, ...] = ("dns", "rdap", "quote")
SAYS = {
    "rules": ("barred", "reserved"),
    "dns": ("", "delegated", "absent"),
    "rdap": ("", "registered", "dropping", "unregistered", "reserved"),
    "quote": ("", "usual", "premium", "offered", "unavailable", "reserved"),
}
TROUBLES = [t for t in get_args(Trouble) if t]


def said(source: Source, says: Says, trouble: Trouble = "") -> Evidence:
    return Evidence(source, says, NOW, trouble=trouble if says == "" else "")


def evidence(*pairs: str) -> dict[Source, Evidence]:
    """From "dns absent", "rdap timeout" …"""
    found = {}
    for pair in pairs:
        source, word = pair.split()
        says, trouble = ("", word) if word in TROUBLES else (word, "")
        found[source] = said(source, says, trouble)  # type: ignore[arg-type]
    return found  # type: ignore[return-value]


@pytest.mark.parametrize(
    ("known", "can", "status", "likely", "trouble"),
    [
        (["rules barred"], ALL, "barred", False, ""),
        (["rules reserved"], ALL, "reserved", False, ""),
        (["dns delegated"], ALL, "taken", False, ""),
        (["dns delegated", "rdap registered", "quote offered"], ALL, "offered", False, ""),
        (["dns delegated", "rdap timeout"], ALL, "taken", False, ""),
        (["dns absent", "rdap unregistered"], ALL, "open", False, ""),
        (["dns lame", "rdap unregistered"], ALL, "open", False, ""),
        (["dns absent", "rdap unregistered", "quote premium"], ALL, "premium", False, ""),
        (["dns absent", "rdap unregistered", "quote timeout"], ALL, "open", False, ""),
        (["dns absent", "rdap unregistered", "quote reserved"], ALL, "reserved", False, ""),
        (["dns absent", "rdap registered"], ALL, "taken", False, ""),
        (["dns absent", "rdap dropping"], ALL, "dropping", False, ""),
        (["dns absent", "rdap reserved"], ALL, "reserved", False, ""),
        (["dns absent", "rdap rate_limited"], ALL, "unsure", False, "rate_limited"),
        (["dns absent"], ALL, "unsure", False, "late"),
        (["dns delegated", "rdap unregistered"], ALL, "unsure", False, "contradiction"),
        (
            ["dns absent", "rdap unregistered", "quote unavailable"],
            ALL,
            "unsure",
            False,
            "contradiction",
        ),
        (
            ["dns delegated", "rdap registered", "quote usual"],
            ALL,
            "unsure",
            False,
            "contradiction",
        ),
        (["dns absent"], ("dns",), "open", True, ""),
        (["dns absent", "quote premium"], ("dns", "quote"), "premium", True, ""),
        (["dns timeout"], ("dns",), "unsure", False, "timeout"),
        ([], (), "unsure", False, "no_service"),
    ],
)
def test_what_the_answers_come_to(
    known: list[str], can: tuple[Source, ...], status: str, likely: bool, trouble: str
) -> None:
    found = verdict(evidence(*known), can)
    assert (found.status, found.likely, found.trouble) == (status, likely, trouble)


@st.composite
def worlds(draw: st.DrawFn) -> tuple[dict[Source, Evidence], tuple[Source, ...]]:
    """What each source would say, and which there are."""
    can = tuple(s for s in ALL if draw(st.booleans()))
    answers: dict[Source, Evidence] = {}
    for source in can:
        says = draw(st.sampled_from(SAYS[source]))
        answers[source] = said(source, says, draw(st.sampled_from(TROUBLES)))  # type: ignore[arg-type]
    return answers, can


@given(worlds(), st.sampled_from(["scan", "buying"]))
def test_asking_ends_and_never_asks_twice(
    world: tuple[dict[Source, Evidence], tuple[Source, ...]], aim: str
) -> None:
    answers, can = world
    known: dict[Source, Evidence] = {}
    while step := next_step(known, aim, can):  # type: ignore[arg-type]
        assert step in can
        assert step not in known
        known[step] = answers[step]
    found = verdict(known, can)
    assert found.status in STATUSES
    assert (found.trouble != "") == (found.status == "unsure")
    says = {source: e.says for source, e in known.items()}
    if found.status in ("open", "premium") and not found.likely:
        # Only the registry's own word makes a name plainly open.
        assert says["rdap"] == "unregistered"
        assert says.get("dns") != "delegated"
    if found.status == "taken":
        assert "delegated" in says.values() or says["rdap"] == "registered"
    if aim == "scan" and says.get("dns") == "delegated":
        assert list(known) == ["dns"]
    if aim == "buying" and "rdap" in can:
        assert "rdap" in known


@given(st.dictionaries(st.sampled_from(ALL), st.sampled_from(TROUBLES), min_size=1))
def test_failures_alone_never_make_a_name_open_or_taken(troubles: dict[Source, Trouble]) -> None:
    known = {source: said(source, "", trouble) for source, trouble in troubles.items()}
    assert verdict(known, tuple(known)).status == "unsure"


def test_answers_last_by_status() -> None:
    def fresh(status: str, **ago: float) -> bool:
        return is_fresh(status, NOW - timedelta(**ago), NOW)  # type: ignore[arg-type]

    assert fresh("taken", days=2)
    assert not fresh("open", minutes=16)
    assert fresh("open", minutes=14)
    assert not fresh("unsure", minutes=1)
    assert not fresh("barred", seconds=1)
    order = [LIFETIMES[s] for s in ("taken", "offered", "dropping", "premium", "open", "unsure")]
    assert order == sorted(order, reverse=True)
    assert set(LIFETIMES) == set(STATUSES)


AMOUNTS = st.decimals(0, 10**6, places=3).map(neat)


@given(
    st.sampled_from(ALL),
    st.sampled_from(get_args(Says)),
    st.sampled_from(get_args(Trouble)),
    st.text(max_size=20),
    st.none() | st.datetimes(timezones=st.just(UTC)),
    st.none()
    | st.builds(Quote, st.just("EUR"), st.none() | st.decimals(0, 10**6, places=3).map(neat)),
)
def test_evidence_is_read_as_it_was_written(
    source: Source, says: Says, trouble: Trouble, detail: str, moment: object, quote: object
) -> None:
    whole = Evidence(
        source, says, NOW, "http://x.example/", trouble, detail, registered=moment,  # type: ignore[arg-type]
        drops=(NOW, NOW), statuses=("active",), quote=quote,  # type: ignore[arg-type]
    )  # fmt: skip
    assert read_evidence(write_evidence(whole)) == whole
    assert in_words(whole)
    assert set(TROUBLE_WORDING) == set(get_args(Trouble))


PASTED = """domain
https://www.InkPost.com/about?x=1,a fine name,12.50
inkwell;quiet-sky.co.nz\tpaperwren
"press.qqq"
bad name here
-x
shop.inkpost.com
inkwell
bücher.de, user@mail.example.org:8080
www.net
a.com b.net
nothing.nosuchext
"""


def test_pasted_names_in_any_reasonable_form() -> None:
    found = read_pasted(PASTED)
    assert found.names == {
        "inkpost": ["com"],
        "inkwell": [],
        "quiet-sky": ["co.nz"],
        "paperwren": [],
        "xn--bcher-kva": ["de"],
        "example": ["org"],
        "www": ["net"],
        "a": ["com"],
        "b": ["net"],
    }
    assert found.merged == 2
    bad = {b.line: b for b in found.bad}
    assert set(bad) == {4, 5, 6, 12}
    assert "“.qqq”" in bad[4].reason
    assert bad[5].text == "bad name here"
    assert "begin or end" in bad[6].reason


def test_of_a_table_with_a_heading_only_the_names_are_read() -> None:
    table = "note;Domain;price\nmine;inkpost.com;12\n;paperwren;cheap\ntheirs\n"
    assert read_pasted(table).names == {"inkpost": ["com"], "paperwren": []}


def test_pasting_too_much_is_cut_and_said() -> None:
    found = read_pasted("\n".join(f"name{n}" for n in range(5_003)))
    assert (len(found.names), found.left_out) == (5_000, 3)
    assert read_pasted(" \n\t\n").names == {}


@pytest.mark.parametrize(
    ("typed", "label", "extension"),
    [
        ("inkpost", "inkpost", ""), (" Inkpost ", "inkpost", ""),
        ("inkpost.co.nz", "inkpost", "co.nz"),
        ("https://www.inkpost.ie/a?b", "inkpost", "ie"), ("bücher.de", "xn--bcher-kva", "de"),
    ],
)  # fmt: skip
def test_a_typed_name_is_read_alone_or_with_its_extension(
    typed: str, label: str, extension: str
) -> None:
    assert read_typed(typed) == (label, extension)
    assert meant_name(typed, ["studio", "com"]) == FullName(label, extension or "studio")
    assert meant_name(typed, []) == FullName(label, extension or "com")


@pytest.mark.parametrize("typed", ["", "ink post", "ink/post", "inkpost.nowhere", "a..com", "-x"])
def test_what_is_no_name_is_refused(typed: str) -> None:
    # Of a bare name nothing is passed over: a slash in it is a slip, not a path.
    with pytest.raises(CoreError):
        read_typed(typed)


@given(st.text(max_size=120))
def test_no_text_breaks_the_reading(text: str) -> None:
    found = read_pasted(text)
    for label in found.names:
        assert 0 < len(label) <= 63
    assert all(1 <= bad.line <= found.lines + text.count("\n") + 40 for bad in found.bad)


def test_the_ladder_goes_down_in_the_persons_order() -> None:
    rungs = ladder(["ink", "post"], ["theinkpost", "inkpostclub"], ["com", "net", "org"])
    told_of = [(r.kind, [str(n) for n in r.names]) for r in rungs]
    assert told_of[:4] == [
        ("exact_first", ["inkpost.com"]),
        ("exact_next", ["inkpost.net", "inkpost.org"]),
        ("hyphen_first", ["ink-post.com"]),
        ("added_first", ["theinkpost.com", "inkpostclub.com"]),
    ]
    turned = ladder(["ink", "post"], [], ["com"], tuple(reversed(RUNGS)))
    assert [r.kind for r in turned] == ["hyphen_first", "exact_first"]
    assert [r.names for r in ladder(["ink"], [], ["com"])] == [(FullName("ink", "com"),)]


def test_what_was_kept_under_an_earlier_word_is_read() -> None:
    kept = write_evidence(Evidence("quote", "unavailable", datetime(2026, 11, 1, tzinfo=UTC)))
    assert read_evidence({**kept, "says": "held"}).says == "unavailable"


def test_the_public_record_is_told_in_sentences() -> None:
    at = datetime(2026, 11, 25, tzinfo=UTC)
    evidence = Evidence(
        "rdap",
        "registered",
        at,
        registered=datetime(2004, 3, 1, tzinfo=UTC),
        expires=datetime(2026, 3, 1, tzinfo=UTC),
        statuses=("active", "client transfer prohibited", "odd word"),
        registrar="Gullwing Names",
        holder="Ana Soto (Kestrel Oy, FI)",
    )
    assert record_of(evidence) == [
        "Held by Ana Soto (Kestrel Oy, FI).",
        "Registered on 2004-03-01.",
        "Ran out on 2026-03-01.",
        "Through the registrar Gullwing Names.",
        "It is locked against being moved to another registrar.",
        "Its status is “odd word”.",
    ]
    assert record_of(Evidence("rdap", "unregistered", at)) == []
    assert record_of(Evidence("rdap", "registered", at))[0].startswith("The record does not say")
    assert read_evidence(write_evidence(evidence)) == evidence
