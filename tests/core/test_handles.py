"""Handles: forms, what platforms tell, their catalogue."""

from __future__ import annotations

import pytest

from vinetag.core.errors import CatalogueError
from vinetag.core.vet import (
    Asked,
    Platform,
    handle_finding,
    handle_forms,
    in_words,
    profile_says,
    read_platforms,
    shipped_platforms,
    write_platforms,
)


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
