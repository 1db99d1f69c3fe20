"""Zone files as snapshots: delegated names only, of the zone they say, or nothing."""

from __future__ import annotations

import gzip
from collections.abc import Iterator
from datetime import date
from pathlib import Path

import numpy as np
import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from vinetag.core.market.short_names import number_of
from vinetag.lake.duck import Duck, open_duck, shared_duck
from vinetag.lake.unpacking import FeedError
from vinetag.lake.zones import (
    days_there,
    delegated,
    short_bits,
    snapshot_folder,
    write_snapshot,
    zone_of,
)

DAY = date(2026, 11, 28)
SOA = "press.\t900\tin\tsoa\ta.nic.press. hostmaster.nic.press. 1 2 3 4 5\n"
ZONE = SOA + (
    "press.\t172800\tin\tns\ta.nic.press.\n"
    "ink.press.\t3600\tin\tns\tns1.x.example.\n"
    "ink.press.\t3600\tin\tns\tns2.x.example.\n"
    "ink.press.\t3600\tin\tds\t1 8 2 AB\n"
    "INKPOST.press. IN NS ns1.x.example.\n"
    "quiet 3600 IN NS ns1.x.example.\n"
    "  3600 IN NS ns2.x.example.\n"
    "signed.press. IN 3600 DS 1 8 2 AB\n"
    "ns1.glued.press.\t3600\tin\ta\t192.0.2.1\n"
    "sub.deep.press.\t3600\tin\tns\tns1.x.example.\n"
    "other.club.\t3600\tin\tns\tns1.x.example.\n"
    "xn--bcher-kva.press.\t3600\tin\tns\tns1.x.example.\n"
    "; a note IN NS x\n"
    'nic.press.\t3600\tin\ttxt\t"in ns"\n'
)


@pytest.fixture
def duck(tmp_path: Path) -> Iterator[Duck]:
    with open_duck(tmp_path / "duck") as found:
        yield found


def kept(folder: Path) -> list[str]:
    names = snapshot_folder(folder, "press", DAY) / "names.parquet"
    with shared_duck() as reading:
        rows = reading.execute(f"select label from read_parquet('{names}')").fetchall()
    return [label for (label,) in rows]


def bring(duck: Duck, folder: Path, body: bytes, extension: str = "press") -> int:
    file = folder / "zone"
    file.write_bytes(body)
    return write_snapshot(duck, file, extension, DAY, folder / "zones").names


@pytest.mark.parametrize("packed", [False, True])
def test_delegated_names_are_kept_and_nothing_else(
    duck: Duck, tmp_path: Path, packed: bool
) -> None:
    body = gzip.compress(ZONE.encode()) if packed else ZONE.encode()
    assert bring(duck, tmp_path, body) == 5
    assert kept(tmp_path / "zones") == ["ink", "inkpost", "quiet", "signed", "xn--bcher-kva"]
    assert days_there(tmp_path / "zones") == [("press", DAY)]
    bits = short_bits(tmp_path / "zones", "press", DAY)
    assert np.flatnonzero(bits).tolist() == [number_of("ink"), number_of("quiet")]
    # Brought again, it stands in place of the one before.
    assert bring(duck, tmp_path, (SOA + "one.press. in ns a.\n").encode()) == 1
    assert kept(tmp_path / "zones") == ["one"]


@pytest.mark.parametrize(
    ("body", "code"),
    [
        (ZONE.replace("press", "club").encode(), "zone_other"),
        (b"ink.press.\t3600\tin\tns\tns1.x.example.\n", "zone_unknown"),
        (b"", "zone_unknown"),
        (b"\x00\xff\xfe nonsense", "zone_unknown"),
        (SOA.encode(), "zone_empty"),
        (gzip.compress(ZONE.encode() * 300)[:-20], "feed_broken"),
        (b"\x1f\x8bnonsense", "feed_broken"),
    ],
)
def test_what_is_no_zone_of_it_is_refused_and_what_there_was_stays(
    duck: Duck, tmp_path: Path, body: bytes, code: str
) -> None:
    bring(duck, tmp_path, ZONE.encode())
    with pytest.raises(FeedError) as refused:
        bring(duck, tmp_path, body)
    assert refused.value.problems[0].code == code
    assert refused.value.problems[0].text()
    assert str(tmp_path) not in refused.value.problems[0].text()
    assert len(kept(tmp_path / "zones")) == 5


@pytest.mark.parametrize(
    ("text", "zone"),
    [
        (SOA, "press"),
        ("$ORIGIN press.\n@ IN SOA a. b. 1 2 3 4 5\n", "press"),
        ("$TTL 900\n$ORIGIN uk.\nco IN SOA a. b. 1 2 3 4 5\n", "co.uk"),
        ("; comment\nCOM. 900 IN SOA a. b. (\n 1 2 3 4 5 )\n", "com"),
        ("ink IN NS a.\n", ""),
    ],
)
def test_a_file_says_which_zone_it_is(text: str, zone: str) -> None:
    assert zone_of(text.encode()) == zone
    assert zone_of(gzip.compress(text.encode())) == zone


LABELS = st.text("abcdefghijklmnopqrstuvwxyz0123456789", min_size=1, max_size=7)


@settings(max_examples=20, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(st.sets(LABELS, min_size=1, max_size=40), st.sets(LABELS, max_size=40))
def test_names_are_found_as_a_set_would_find_them(
    duck: Duck, tmp_path: Path, there: set[str], asked: set[str]
) -> None:
    body = SOA + "".join(f"{label}.press.\t3600\tin\tns\ta.\n" for label in sorted(there))
    assert bring(duck, tmp_path, body.encode()) == len(there)
    days = {"press": DAY}
    with shared_duck() as reading:
        found = delegated(
            reading, tmp_path / "zones", days, {"press": asked, "club": asked, "net": ()}
        )
    assert found.get("press", set()) == asked & there
    assert set(found) <= {"press"}
    bits = short_bits(tmp_path / "zones", "press", DAY)
    for label in asked:
        if len(label) <= 5 and label.isalpha():
            assert bits[number_of(label)] == (label in there)
