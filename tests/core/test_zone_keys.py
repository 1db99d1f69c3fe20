"""Keys the registry names: as they are typed, pasted, and told wrong."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vinetag.core.zone.keys import DIGITS, MOST_SIGNERS, Signer, read_signers
from vinetag.core.zone.records import RecordError

DIGEST = "1F98" * 16


@pytest.mark.parametrize(
    "typed",
    [
        f"2371 13 2 {DIGEST}", f"  2371   13 2 {DIGEST.lower()} ",
        f"ink.com. 300 IN DS 2371 13 2 {DIGEST}", f"ink.com. IN ds 2371 13 2 {DIGEST}",
        f"2371 13 2 {DIGEST[:32]} {DIGEST[32:]}",
    ],
)  # fmt: skip
def test_a_key_is_read_however_it_is_pasted(typed: str) -> None:
    assert read_signers(["", typed, typed, "  "]) == [Signer(2371, 13, 2, DIGEST)]


@pytest.mark.parametrize(
    ("typed", "code"),
    [
        ("2371 13 2", "signer_form"), ("x", "signer_form"), (f"99999 13 2 {DIGEST}", "signer_form"),
        (f"1 13 2 {DIGEST}g", "signer_form"), (f"-1 13 2 {DIGEST}", "signer_form"),
        (f"1 4 2 {DIGEST}", "signer_algorithm"), (f"1 13 2 {DIGEST[:-2]}", "signer_digest"),
        (f"1 13 4 {DIGEST}", "signer_digest"), (f"1 13 9 {DIGEST}", "signer_digest"),
    ],
)  # fmt: skip
def test_what_is_no_key_is_told_at_its_line(typed: str, code: str) -> None:
    with pytest.raises(RecordError) as told:
        read_signers([f"1 13 2 {DIGEST}", typed])
    [problem] = told.value.problems
    assert (problem.path, problem.code) == ("keys.1", code)
    assert problem.text()


def test_no_name_has_more_than_a_few() -> None:
    with pytest.raises(RecordError) as told:
        read_signers([f"{n} 13 2 {DIGEST}" for n in range(MOST_SIGNERS + 1)])
    assert told.value.problems[0].code == "too_many"


signers = st.sampled_from(sorted(DIGITS)).flatmap(
    lambda kind: st.builds(
        Signer, st.integers(0, 65_535), st.sampled_from([8, 13, 15]), st.just(kind),
        st.text("0123456789ABCDEF", min_size=DIGITS[kind], max_size=DIGITS[kind]),
    )
)  # fmt: skip


@given(st.lists(signers, max_size=MOST_SIGNERS))
def test_what_is_written_is_read_as_it_was(keys: list[Signer]) -> None:
    assert read_signers([str(key) for key in keys]) == list(dict.fromkeys(keys))


@given(st.lists(st.text(max_size=120), max_size=MOST_SIGNERS))
def test_whatever_is_typed_is_a_key_or_a_problem(lines: list[str]) -> None:
    try:
        found = read_signers(lines)
    except RecordError as error:
        told = [problem.text() for problem in error.problems]
    else:
        told = []
        assert len(found) <= sum(bool(line.strip()) for line in lines)
    assert all(told)
