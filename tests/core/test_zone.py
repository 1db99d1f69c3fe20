"""Records as they are typed, kept, judged, written as files, read again, and seen from outside."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vinetag.core.errors import CoreError
from vinetag.core.owning import traps_of
from vinetag.core.zone import (
    KINDS,
    MOST_RECORDS,
    READY,
    Looked,
    Record,
    ServerLooked,
    fill,
    findings,
    judge,
    merge,
    read_master,
    read_record,
    shown_data,
    sorted_records,
    write_master,
)
from vinetag.core.zone.records import RecordError, name_in, rdata_of

ORIGIN = "inkpost.com"
NOW = datetime(2026, 11, 30, 12, tzinfo=UTC)


def record(name: str, kind: str, data: str, ttl: int = 3_600) -> Record:
    return read_record(ORIGIN, name, kind, ttl, data)


# As they are typed.


@pytest.mark.parametrize(
    ("typed", "kept"),
    [
        ("", "@"), ("@", "@"), ("inkpost.com", "@"), ("INKPOST.com.", "@"), ("www", "www"),
        ("www.inkpost.com", "www"), ("www.inkpost.com.", "www"), ("a.b", "a.b"), ("*", "*"),
        ("*.dev", "*.dev"), ("_sip._tcp", "_sip._tcp"), ("bücher", "xn--bcher-kva"),
    ],
)  # fmt: skip
def test_names_are_read_as_people_mean_them(typed: str, kept: str) -> None:
    assert record(typed, "A", "8.8.8.8").name == kept


@pytest.mark.parametrize(
    "typed", ["www.other.com.", "a..b", "-x", "x y", "a.*", "x" * 64, "ü" * 60, "a." * 130, "\x00"]
)
def test_what_is_no_name_here_is_told(typed: str) -> None:
    with pytest.raises(RecordError) as told:
        record(typed, "A", "8.8.8.8")
    assert [p.path for p in told.value.problems] == ["name"]


@pytest.mark.parametrize(
    ("kind", "typed", "kept", "shown"),
    [
        ("A", "8.8.8.8", "8.8.8.8", "8.8.8.8"),
        ("AAAA", "2001:DB8:0::1", "2001:db8::1", "2001:db8::1"),
        ("CNAME", "shop.example", "shop.example.", "shop.example"),
        ("CNAME", "@", "inkpost.com.", "inkpost.com"),
        ("MX", "10 mail", "10 mail.inkpost.com.", "10 mail.inkpost.com"),
        ("MX", "0 .", "0 .", "0 ."),
        ("TXT", "v=spf1 -all", '"v=spf1 -all"', "v=spf1 -all"),
        ("TXT", 'say "ink"', '"say \\"ink\\""', 'say "ink"'),
        ("TXT", '"a" "b"', '"ab"', "ab"),
        ("TXT", "naïve", '"na\\195\\175ve"', "naïve"),
        ("CAA", '0 issue "ca.example"', '0 issue "ca.example"', '0 issue "ca.example"'),
        ("SRV", "1 2 5060 sip.example.", "1 2 5060 sip.example.", "1 2 5060 sip.example"),
        ("URI", "10 1 https://a.example/b;c", '10 1 "https://a.example/b;c"', None),
    ],
)
def test_data_are_kept_as_in_master_files(
    kind: str, typed: str, kept: str, shown: str | None
) -> None:
    one = record("x", kind, typed)
    assert one.data == kept
    assert shown_data(one) == (kept if shown is None else shown)
    assert record("x", kind, shown_data(one)) == one


@pytest.mark.parametrize(
    ("kind", "typed"),
    [
        ("A", "300.1.1.1"), ("A", "8.8.8.8 9"), ("A", ""), ("AAAA", "8.8.8.8"), ("MX", "mail"),
        ("SRV", "1 2 sip.example"), ("CAA", "issue ca"), ("TXT", '"open'), ("TXT", "a\nb"),
        ("URI", "https://a.example"), ("NAPTR", "x"), ("TXT", "x" * 5_000), ("CNAME", "a b"),
        ("MX", "99999 mail.example"), ("CNAME", "xn--\u00fc.example"),
    ],
)  # fmt: skip
def test_what_is_no_record_is_told_with_what_it_needs(kind: str, typed: str) -> None:
    with pytest.raises(RecordError) as told:
        read_record(ORIGIN, "x", kind, 3_600, typed, "records.4.")
    [problem] = told.value.problems
    assert problem.path == ("records.4.kind" if kind == "NAPTR" else "records.4.data")
    assert problem.text()


@given(st.text(max_size=300), st.sampled_from(KINDS), st.integers(), st.text(max_size=60))
def test_whatever_is_typed_is_a_record_or_a_problem(
    data: str, kind: str, ttl: int, name: str
) -> None:
    try:
        one = read_record(ORIGIN, name, kind, ttl, data)
    except CoreError as error:
        told = [problem.text() for problem in error.problems]
    else:
        told = []
    if told:
        return
    # What is kept is read alike by the library, and by us as it is shown.
    assert rdata_of(one).to_text() == one.data
    assert read_record(ORIGIN, one.name, kind, one.ttl, shown_data(one)) == one


# Master files.

labels = st.from_regex(r"[a-z]([a-z0-9-]{0,8}[a-z0-9])?", fullmatch=True)
names = st.one_of(st.just("@"), labels, st.builds("*.{}".format, labels))
texts = st.text(min_size=1, max_size=300).filter(lambda t: t.isprintable() and t.strip())
records = st.one_of(
    st.builds(lambda n, a: (n, "A", str(a)), names, st.ip_addresses(v=4)),
    st.builds(lambda n, a: (n, "AAAA", str(a)), names, st.ip_addresses(v=6)),
    st.builds(lambda n, t: (n, "CNAME", f"{t}.example"), names, labels),
    st.builds(lambda n, p, t: (n, "MX", f"{p} {t}.example"), names, st.integers(0, 65535), labels),
    st.builds(lambda n, t: (n, "TXT", t), names, texts),
    st.builds(lambda n, t: (n, "CAA", f'0 issue "{t}.example"'), names, labels),
)


@given(st.lists(st.tuples(records, st.integers(60, 604_800)), max_size=20))
def test_a_zone_written_as_a_file_is_read_as_it_was(
    given_rows: list[tuple[tuple[str, str, str], int]],
) -> None:
    kept = []
    for (name, kind, data), ttl in given_rows:
        try:
            kept.append(read_record(ORIGIN, name, kind, ttl, data))
        except CoreError:
            continue
    text = write_master(ORIGIN, kept, ["ns1.host.example", "ns2.host.example"], 7)
    read = read_master(text, ORIGIN)
    assert (read.wrong, read.left_out) == (0, 3)
    assert sorted_records(read.records) == sorted_records(kept)


@given(st.text(max_size=400))
def test_whatever_a_file_says_is_read_or_told(text: str) -> None:
    read = read_master(text, ORIGIN)
    assert all(problem.text() for problem in read.problems)


def test_a_file_as_others_write_it() -> None:
    text = (
        "$TTL 1h\n"
        "@ IN SOA ns1.x. h.x. (\n  2026113001 ; serial\n  2h 15m 2w 5m )\n"
        "   NS ns1.x.\n"
        "@ 300 A 8.8.8.8\n"
        "www 2d IN CNAME @ ; the site\n"
        '  TXT "a;b" ( "c"\n   "d" )\n'
        "bad A 1.2.3\n"
        "$INCLUDE other.zone\n"
        "$ORIGIN sub.inkpost.com.\n"
        "a MX 5 b\n"
        "y CH A 8.8.8.8\n"
        "elsewhere.example. A 8.8.8.8\n"
        "z A\n"
        'open TXT "never closed\n'
        "last A 8.8.4.4"
    )
    read = read_master(text, ORIGIN)
    assert read.records == [
        Record("@", "A", 300, "8.8.8.8"),
        Record("www", "CNAME", 172_800, "inkpost.com."),
        Record("www", "TXT", 3_600, '"a;bcd"'),
        Record("a.sub", "MX", 3_600, "5 b.sub.inkpost.com."),
        Record("last.sub", "A", 3_600, "8.8.4.4"),
    ]
    assert [problem.path for problem in read.problems] == [
        "line 10", "line 11", "line 14", "line 15", "line 16", "line 17",
    ]  # fmt: skip
    assert read.left_out == 2


def test_a_file_with_too_much_in_it_is_taken_as_far_as_it_goes() -> None:
    many = "\n".join(f"h{n} A 8.8.8.8" for n in range(MOST_RECORDS + 50))
    read = read_master(many, ORIGIN)
    assert len(read.records) == MOST_RECORDS
    assert [p.code for p in read.problems] == ["master_many"]


# Beside each other.


@pytest.mark.parametrize(
    ("rows", "code", "wrong"),
    [
        ([("@", "CNAME", "x.example")], "zone_alias_apex", True),
        ([("w", "CNAME", "x.example"), ("w", "A", "8.8.8.8")], "zone_alias_beside", True),
        ([("w", "CNAME", "x.example"), ("w", "CNAME", "y.example")], "zone_alias_beside", True),
        ([("w", "A", "8.8.8.8"), ("w", "A", "8.8.8.8")], "zone_double", True),
        ([("w", "CNAME", "x.example"), ("@", "MX", "5 w")], "zone_to_alias", True),
        ([("@", "MX", "0 ."), ("@", "MX", "5 x.example")], "zone_no_mail_beside", True),
        ([("sip", "SRV", "1 2 3 x.example")], "zone_service_name", True),
        ([("@", "MX", "5 mail")], "zone_to_nothing", False),
        ([("w", "A", "192.168.1.2")], "zone_private", False),
        ([("@", "TXT", "v=spf1 -all"), ("@", "TXT", "v=spf1 mx")], "zone_spf_twice", False),
        ([("@", "CAA", '0 isue "x"')], "zone_caa_tag", False),
        ([("@", "A", "8.8.8.8")], "zone_no_www", False),
        ([("@", "MX", "5 x.example")], "zone_no_spf", False),
    ],
)
def test_what_does_not_go_together_is_told(
    rows: list[tuple[str, str, str]], code: str, wrong: bool
) -> None:
    found = {one.code: one for one in judge(ORIGIN, [record(*row) for row in rows])}
    assert found[code].wrong is wrong
    assert found[code].text()


def test_what_is_as_it_should_be_is_not_told_of() -> None:
    rows = [
        record("@", "A", "8.8.8.8"), record("*", "CNAME", "@"), record("@", "MX", "5 mail"),
        record("mail", "A", "8.8.8.8"), record("@", "TXT", "v=spf1 mx -all"),
        record("_sip._tcp", "SRV", "1 2 3 pbx.example"), record("@", "CAA", '0 issue "x.example"'),
    ]  # fmt: skip
    assert judge(ORIGIN, rows) == []
    unlike = [record("w", "A", "8.8.8.8", 300), record("w", "A", "8.8.4.4", 600)]
    assert [one.code for one in judge(ORIGIN, unlike)] == ["zone_ttl"]
    large = [record(f"t{n}", "TXT", "x" * 3_900) for n in range(20)]
    assert "zone_large" in {one.code for one in judge(ORIGIN, large)}
    many = [record(f"h{n}", "A", "8.8.8.8") for n in range(MOST_RECORDS + 1)]
    assert [one.code for one in judge(ORIGIN, many)] == ["zone_many"]


# Ready made.

GIVEN = {
    "site": {"addresses": "8.8.8.8, 2001:4860:4860::8888"},
    "mail": {"servers": "mx1.a.example mx2.a.example", "senders": "spf.a.example"},
    "nomail": {},
    "forward": {"address": "https://shop.example/a?b=c"},
    "proof": {"text": "word=1"},
    "issuers": {"issuers": "ca.example", "reports": "me@a.example"},
}


@pytest.mark.parametrize("code", [one.code for one in READY])
def test_every_ready_set_can_be_put_into_force_however_often(code: str) -> None:
    before = [record("@", "A", "9.9.9.9"), record("www", "A", "9.9.9.9"), record("x", "TXT", "y")]
    new = fill(code, GIVEN[code], ORIGIN, "203.0.113.9")
    put, _ = merge(before, new)
    assert [one for one in judge(ORIGIN, put, {"203.0.113.9"}) if one.wrong] == []
    assert merge(put, new) == (merge(put, new)[0], [])
    assert sorted_records(merge(put, new)[0]) == sorted_records(put)
    # What has nothing to do with it stays.
    assert record("x", "TXT", "y") in put


@given(st.sampled_from([one.code for one in READY]), st.sampled_from([one.code for one in READY]))
def test_any_two_sets_go_one_after_the_other(first: str, second: str) -> None:
    put: list[Record] = []
    for code in (first, second):
        put, _ = merge(put, fill(code, GIVEN[code], ORIGIN, "203.0.113.9"))
        assert [one for one in judge(ORIGIN, put, {"203.0.113.9"}) if one.wrong] == []


@pytest.mark.parametrize(
    ("code", "said", "field"),
    [
        ("site", {}, "addresses"), ("site", {"addresses": "8.8.8"}, "addresses"),
        ("mail", {"servers": "a b c d e f"}, "servers"), ("mail", {"servers": "-x"}, "servers"),
        ("mail", {"servers": "a.b", "reports": "nobody"}, "reports"),
        ("forward", {"address": "shop.example"}, "address"),
        ("forward", {"address": "javascript:alert(1)"}, "address"),
        ("forward", {"address": "https://www.inkpost.com/"}, "address"),
        ("forward", {"address": "https://[x/"}, "address"),
        ("proof", {"text": ""}, "text"), ("proof", {"text": "x", "name": "-"}, "name"),
        ("issuers", {"issuers": "ca.example", "reports": "x"}, "reports"),
    ],
)  # fmt: skip
def test_what_was_filled_in_wrong_is_told_at_its_field(
    code: str, said: dict[str, str], field: str
) -> None:
    with pytest.raises(RecordError) as told:
        fill(code, said, ORIGIN, "203.0.113.9")
    assert {problem.path for problem in told.value.problems} == {field}


# Seen from outside.

OURS = ("ns1.host.example", "ns2.host.example")
SITE = [record("@", "A", "8.8.8.8"), record("@", "TXT", "Hi"), record("w", "CNAME", "X.example")]
ALL = {(name_in(ORIGIN, one.name), one.kind): frozenset({one.data.lower() if one.kind != "TXT"
       else one.data}) for one in SITE}  # fmt: skip


def good(host: str, serial: int = 5, **other: object) -> ServerLooked:
    return ServerLooked(host, "good", serial, {**ALL, **other})  # type: ignore[dict-item]


def codes(looked: Looked, **more: object) -> dict[str, str]:
    given_now = {"serial": 5, "expires": NOW + timedelta(days=300), **more}
    found = findings(ORIGIN, SITE, looked, OURS, NOW, **given_now)  # type: ignore[arg-type]
    assert all(one.text() for one in found)
    return {one.code: one.standing for one in found}


WELL = Looked(list(OURS), [good(host) for host in OURS], ALL, "none")


def test_what_is_well_is_said_to_be_well() -> None:
    assert set(codes(WELL).values()) == {"good"}


@pytest.mark.parametrize(
    ("looked", "code", "standing"),
    [
        (Looked(None, (), None, "unknown"), "parent_unknown", "unknown"),
        (Looked(None, (), None, "unknown"), "records_unknown", "unknown"),
        (Looked([]), "undelegated", "wrong"),
        (Looked(["ns1.other.example", "ns2.other.example"]), "elsewhere", "wrong"),
        (Looked([*OURS, "ns1.other.example"], WELL.servers, ALL), "partly", "wrong"),
        (Looked(["ns1.host.example"], WELL.servers[:1], ALL), "servers_one", "warn"),
        (Looked(list(OURS), [ServerLooked("ns1.host.example", "lame")]), "server_lame", "wrong"),
        (Looked(list(OURS), [ServerLooked("ns1.host.example", "silent")]), "server_silent",
         "wrong"),
        (Looked(list(OURS), [good("ns1.host.example", 4)], ALL), "server_old", "warn"),
        (Looked(list(OURS), [ServerLooked("ns1.host.example", "good", 5,
                {("inkpost.com", "A"): frozenset({"9.9.9.9"})})], ALL), "records_other", "wrong"),
        (Looked(list(OURS), WELL.servers, {**ALL, ("inkpost.com", "A"): frozenset()}),
         "records_late", "warn"),
        (Looked(list(OURS), WELL.servers, {}), "records_unknown", "unknown"),
        (Looked(list(OURS), WELL.servers, ALL, "broken"), "signature_broken", "wrong"),
        (Looked(list(OURS), WELL.servers, ALL, "unused"), "signature_unused", "warn"),
    ],
)  # fmt: skip
def test_what_is_not_is_said_in_plain_words(looked: Looked, code: str, standing: str) -> None:
    assert codes(looked)[code] == standing


def test_expiry_holds_and_where_visitors_go_are_told() -> None:
    assert codes(WELL, expires=NOW - timedelta(days=1))["expired"] == "wrong"
    assert codes(WELL, expires=NOW + timedelta(days=9))["expires_soon"] == "warn"
    assert codes(WELL, expires=None)["expiry_unknown"] == "unknown"
    # Which edition the servers of others should have, nobody here knows.
    others = Looked(["ns1.other.example"], [good("ns1.other.example", 1)], ALL)
    assert "server_old" not in codes(others)
    assert codes(WELL, statuses=["client hold"])["held"] == "wrong"
    sent = Looked(WELL.parent, WELL.servers, ALL, "none", ("https://a.example/", ""))
    assert codes(sent, forwards="https://a.example/")["sent_on"] == "good"
    assert codes(sent, forwards="https://b.example/")["sent_nowhere"] == "wrong"


# Moving a name.


@pytest.mark.parametrize(
    ("given_now", "bars", "told"),
    [
        ({}, [], []),
        ({"statuses": ["client transfer prohibited"]}, ["locked"], []),
        ({"statuses": ["clientTransferProhibited"], "ours": True}, [], ["opened"]),
        ({"statuses": ["server transfer prohibited"]}, ["forbidden"], []),
        ({"statuses": ["pendingTransfer"]}, ["moving"], []),
        ({"statuses": ["redemptionPeriod"]}, ["lapsed"], []),
        ({"statuses": ["client hold"]}, ["held"], []),
        ({"registered": NOW - timedelta(days=59)}, ["settled"], []),
        ({"registered": NOW - timedelta(days=61)}, [], []),
        ({"registered": NOW - timedelta(days=900), "moved": NOW - timedelta(days=1)},
         ["settled"], []),
        ({"expires": NOW + timedelta(days=4)}, [], ["runs_out"]),
        ({"expires": NOW + timedelta(days=3_500)}, [], ["ten_years"]),
        ({"signed": True, "own_servers": True, "asked": False}, [],
         ["signed", "servers", "unknown"]),
        ({"taken": False, "statuses": ["pendingTransfer"]}, ["nobody"], []),
    ],
)  # fmt: skip
def test_what_stands_against_moving_is_told_before(
    given_now: dict[str, object], bars: list[str], told: list[str]
) -> None:
    found = traps_of(given_now.pop("statuses", ()), NOW, **given_now)  # type: ignore[arg-type]
    assert [trap.code for trap in found if trap.bars] == bars
    assert [trap.code for trap in found if not trap.bars] == told
    assert all(trap.text() for trap in found)
