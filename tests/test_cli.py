"""vinetag on the command line, as a person runs it."""

import csv
import io
import json
import subprocess
import sys
from datetime import UTC, datetime
from decimal import Decimal
from pathlib import Path

import pytest

from tests.conftest import Registry
from vinetag.cli import main


def run(capsys: pytest.CaptureFixture[str], *words: str) -> tuple[int, str, str]:
    code = main(words)
    out, err = capsys.readouterr()
    return code, out, err


def typed(monkeypatch: pytest.MonkeyPatch, text: str) -> None:
    monkeypatch.setattr(sys, "stdin", io.StringIO(text))


def test_make_gives_rows_and_objects_alike(capsys: pytest.CaptureFixture[str]) -> None:
    _, text, _ = run(capsys, "make", "--words", "letterpress,paper", "--limit", "50")
    rows = list(csv.DictReader(io.StringIO(text)))
    _, document, _ = run(
        capsys, "make", "--words", "letterpress,paper", "--limit", "50", "--format", "json"
    )
    objects = json.loads(document)
    assert len(rows) == len(objects) == 50
    for row, item in zip(rows, objects, strict=True):
        assert row["label"] == item["label"]
        assert "".join(p["text"] for p in item["parts"]) == item["label"]
        assert item["recipes"]
        assert 0 <= item["grade"] <= 100
        assert list(item["measures"]) == [
            "length", "spelling", "fit", "sense", "sound", "memory", "clarity",
        ]  # fmt: skip
        assert all(m["reasons"] for m in item["measures"].values())
        assert float(row["length"]) == item["measures"]["length"]["score"]


def test_a_brief_from_a_file(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    brief = tmp_path / "brief.json"
    brief.write_text('{"keywords": ["ink"], "limits": {"letters_max": 6}}')
    code, out, _ = run(capsys, "make", "--brief", str(brief), "--format", "json")
    assert code == 0
    assert all(len(item["label"]) <= 6 for item in json.loads(out))


def test_grade_reads_names_and_keeps_their_order(
    capsys: pytest.CaptureFixture[str], monkeypatch: pytest.MonkeyPatch
) -> None:
    typed(monkeypatch, "inkpost\n\nBücher\ninkpost\nq-8\n")
    code, out, _ = run(capsys, "grade", "--words", "ink", "--format", "json")
    assert code == 0
    graded = {item["label"]: item for item in json.loads(out)}
    assert list(graded) == ["inkpost", "xn--bcher-kva", "q-8"]
    assert graded["inkpost"]["misspellings"][0]["label"] == "incpost"
    assert [w["code"] for w in graded["q-8"]["warnings"]] == ["digit", "hyphen", "alike"]
    typed(monkeypatch, "пример\n")
    [foreign] = json.loads(run(capsys, "grade", "--words", "ink", "--format", "json")[1])
    assert foreign["grade"] is None
    assert foreign["measures"]["sound"]["score"] is None


@pytest.mark.parametrize(
    ("words", "stdin", "says"),
    [
        (["make", "--words", "  "], "", "keywords.0.text: Write something here."),
        (["make", "--words", "бумага"], "", "Cyrillic"),
        (["make", "--words", "ink", "--limit", "0"], "", "--limit"),
        (["make"], "", "give --words"),
        (["make", "--brief", "/no/such.json"], "", "--brief"),
        (["grade"], "ink post\nfine\n-x\n", "line 1: A name cannot contain “ ”"),
        (["grade"], "fine\n-x\n", "line 2: A name cannot begin or end with a hyphen."),
        (["grade"], "", "no names came"),
        (["check", "--ext", "nosuch"], "ink\n", "--ext: There is no extension “.nosuch”."),
    ],
)
def test_bad_input_is_told_on_standard_error(
    capsys: pytest.CaptureFixture[str],
    monkeypatch: pytest.MonkeyPatch,
    words: list[str],
    stdin: str,
    says: str,
) -> None:
    typed(monkeypatch, stdin)
    code, out, err = run(capsys, *words)
    assert (code, out) == (2, "")
    assert says in err


def test_check_is_honest_when_nobody_answers(
    capsys: pytest.CaptureFixture[str], monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("VINETAG_RDAP_BOOTSTRAP", "http://127.0.0.1:9/dns.json")
    monkeypatch.setenv("VINETAG_DNS", "127.0.0.1:9")
    typed(monkeypatch, "inkpost\npaper\n")
    code, out, err = run(capsys, "check", "--ext", "com,net", "--format", "json")
    answers = json.loads(out)
    assert code == 1
    assert [a["name"] for a in answers] == ["inkpost.com", "inkpost.net", "paper.com", "paper.net"]
    assert {a["status"] for a in answers} == {"unsure"}
    assert all("could not be read" in a["reason"] for a in answers)
    assert "4 of 4" in err
    assert "4 unsure" in err


def test_check_reads_names_and_full_names_and_tells_bad_lines(
    capsys: pytest.CaptureFixture[str], monkeypatch: pytest.MonkeyPatch, registry: Registry
) -> None:
    monkeypatch.setenv("VINETAG_RDAP_BOOTSTRAP", registry.bootstrap)
    monkeypatch.setenv("VINETAG_DNS", registry.dns)
    monkeypatch.setenv("VINETAG_SELLER", registry.seller)
    typed(monkeypatch, "https://www.letter.com/about\nqwzxvkjhqp, -bad\n")
    words = ["check", "--ext", "net", "--buying", "--quiet", "--format", "json"]
    code, out, err = run(capsys, *words)
    letter, odd = json.loads(out)
    assert code == 2
    assert err.startswith("vinetag: line 2: “-bad”: ")
    assert (letter["name"], letter["status"]) == ("letter.com", "taken")
    assert [e["source"] for e in letter["evidence"]] == ["dns", "rdap", "quote"]
    assert (odd["name"], odd["status"], odd["currency"]) == ("qwzxvkjhqp.net", "open", "EUR")
    assert Decimal(odd["first_year"]) > 0


def test_making_needs_no_server_and_a_closed_pipe_is_no_crash() -> None:
    command = [sys.executable, "-m", "vinetag.cli", "make", "--words", "ink,paper"]
    clean = {"PATH": "/usr/bin:/bin"}
    with subprocess.Popen(
        command, stdout=subprocess.PIPE, stderr=subprocess.PIPE, env=clean, text=True
    ) as process:
        assert process.stdout is not None
        assert process.stdout.readline().startswith("label,grade,")
        process.stdout.close()
        assert process.stderr is not None
        assert process.stderr.read() == ""
    assert process.returncode == 0


def test_words_lists_what_each_keyword_leads_to(capsys: pytest.CaptureFixture[str]) -> None:
    code, out, _ = run(capsys, "words", "--words", "tune,piano", "--format", "json")
    offers = json.loads(out)
    assert code == 0
    assert {o["keyword"] for o in offers} == {"tune", "piano"}
    assert {"text", "group", "pos", "closeness"} <= set(offers[0])
    assert run(capsys, "words")[0] == 2


def test_vary_gives_near_names_of_each_name(
    capsys: pytest.CaptureFixture[str], monkeypatch: pytest.MonkeyPatch
) -> None:
    typed(monkeypatch, "inkpost\npaperguild\n")
    code, out, _ = run(capsys, "vary", "--limit", "20", "--format", "json")
    rows = json.loads(out)
    assert code == 0
    assert [r["of"] for r in rows] == ["inkpost"] * 20 + ["paperguild"] * 20
    assert "postink" in {r["label"] for r in rows}
    assert run(capsys, "vary", "--limit", "0")[0] == 2


def test_mistypes_tells_what_people_type_instead(
    capsys: pytest.CaptureFixture[str], monkeypatch: pytest.MonkeyPatch
) -> None:
    typed(monkeypatch, "inkpost\nknightsky\n")
    _, out, _ = run(capsys, "mistypes", "--limit", "5", "--ext", "co.uk", "--format", "json")
    rows = json.loads(out)
    assert [row["of"] for row in rows] == ["inkpost"] * 5 + ["knightsky"] * 5
    assert (rows[5]["label"], rows[5]["kind"]) == ("nightsky", "heard")
    assert rows[0]["share"] > rows[4]["share"] > 0
    typed(monkeypatch, "inkpost\n")
    assert run(capsys, "mistypes", "--limit", "0")[0] == 2
    assert run(capsys, "mistypes", "--ext", "nosuch")[0] == 2


def test_cost_tells_each_seller_and_the_cheapest_way(
    capsys: pytest.CaptureFixture[str], monkeypatch: pytest.MonkeyPatch, registry: Registry
) -> None:
    monkeypatch.setenv("VINETAG_SELLERS", f"{registry.origin}/sellers.json")
    words = ["cost", "inkpost.com", "--years", "3", "--country", "IE", "--format", "json"]
    code, out, err = run(capsys, *words)
    *stay, best = json.loads(out)
    assert (code, err) == (0, "")
    assert {row["where"] for row in stay} >= {"Lantern Names", "Weir & Daughter", "Hazel Lane"}
    assert best["where"] == "cheapest way"
    assert Decimal(best["total"]) <= min(Decimal(row["total"]) for row in stay)
    assert Decimal(best["total"]) == sum(Decimal(step["amount"]) for step in best["steps"])
    assert all(row["tax"] == "included" for row in stay)
    typed(monkeypatch, "inkpost.com\nquietsky.ie\n")
    words = ["cost", "--sellers", "weir", "--stay", "--vat", "DE136695976", "--currency", "sek"]
    _, out, err = run(capsys, *words)
    rows = list(csv.DictReader(io.StringIO(out)))
    assert [(r["name"], r["where"], r["currency"]) for r in rows] == [
        ("inkpost.com", "Weir & Daughter", "SEK"), ("quietsky.ie", "Weir & Daughter", "SEK"),
    ]  # fmt: skip
    assert rows[0]["way"] == "register at Weir & Daughter for 5 years"


@pytest.mark.parametrize(
    ("words", "said"),
    [
        (["--years", "0"], "choose a number from 1 to 10"),
        (["--years", "11"], "choose a number from 1 to 10"),
        (["--currency", "ECU1"], "no currency"),
        (["--trouble", "-1"], "no amount"),
        (["--ahead", "much"], "--ahead"),
        (["--vat", "DE136695977"], "no VAT number of DE"),
        (["--sellers", "nobody"], "nobody: there are hazel"),
    ],
)
def test_cost_says_what_is_wrong(
    capsys: pytest.CaptureFixture[str],
    monkeypatch: pytest.MonkeyPatch,
    registry: Registry,
    words: list[str],
    said: str,
) -> None:
    monkeypatch.setenv("VINETAG_SELLERS", f"{registry.origin}/sellers.json")
    code, out, err = run(capsys, "cost", "inkpost.com", *words)
    assert (code, out) == (2, "")
    assert said in err


def test_cost_asks_about_names_and_takes_newer_rates(
    capsys: pytest.CaptureFixture[str],
    registry: Registry,
    monkeypatch: pytest.MonkeyPatch,
    tmp_path: Path,
) -> None:
    monkeypatch.setenv("VINETAG_SELLERS", f"{registry.origin}/sellers.json")
    odd = ["cost", "vlorkinquelt.studio", "--sellers", "longacre,weir", "--format", "json"]
    _, out, _ = run(capsys, *odd)
    by_list = {row["where"]: row for row in json.loads(out)}
    _, out, _ = run(capsys, *odd, "--quotes")
    asked = {row["where"]: row for row in json.loads(out)}
    # The one whose list is behind its prices costs more than that says, the other what it says.
    longacre, weir = "Longacre Registrations", "Weir & Daughter"
    assert Decimal(asked[longacre]["total"]) > Decimal(by_list[longacre]["total"])
    assert asked[weir] == by_list[weir]
    assert asked[longacre]["steps"][0]["lines"][0]["reason"] == "quoted"
    # A name that is taken is sold by nobody.
    _, out, err = run(capsys, "cost", "the.com", "--sellers", "weir", "--quotes")
    assert "weir" not in out.lower()
    registry.faults(service="lists", registry="weir quotes", kind="nonsense")
    _, out, err = run(capsys, *odd, "--quotes")
    assert "weir gave no answer of use; its list counts" in err
    registry.faults()
    rates = tmp_path / "rates.csv"
    rates.write_text(f"Date,SEK\n{datetime.now(UTC).date()},22.2\n", "utf-8")
    words = ["cost", "inkpost.com", "--sellers", "weir", "--currency", "SEK", "--format", "json"]
    _, out, _ = run(capsys, *words)
    _, dear, _ = run(capsys, *words, "--rates", str(rates))
    before, after = (Decimal(json.loads(text)[0]["total"]) for text in (out, dear))
    assert after > Decimal("1.5") * before
    rates.write_text("Date,SEK\nyesterday,22.2\n", "utf-8")
    code, _, err = run(capsys, *words, "--rates", str(rates))
    assert code == 2
    assert "line 2" in err


REGISTER = """number,word,owner,classes,status
1,Inkpost,Hexley Press,16,registered
2,Quill,Garlock,99,registered
"""


def test_vet_looks_at_names_from_outside(
    capsys: pytest.CaptureFixture[str],
    monkeypatch: pytest.MonkeyPatch,
    registry: Registry,
    tmp_path: Path,
) -> None:
    for name, value in registry.environment.items():
        monkeypatch.setenv(name, value)
    marks, brief = tmp_path / "marks.csv", tmp_path / "brief.json"
    marks.write_text(REGISTER)
    brief.write_text('{"keywords": ["ink", "paper"], "classes": [16], "markets": ["DE"]}')
    asked = ("vet", "inkpost.net", "--brief", str(brief), "--marks", str(marks))
    code, out, err = run(capsys, *asked, "--format", "json")
    rows = json.loads(out)
    assert {row["kind"] for row in rows} == {
        "Marks", "Prior use", "Typed by mistake", "Handles", "Elsewhere in the world",
        "Said and written",
    }  # fmt: skip
    (mark,) = [row for row in rows if row["kind"] == "Marks"]
    assert mark["weight"] == "Stop"
    assert "Hexley Press" in mark["finding"]
    assert mark["evidence"][0]["likeness"] == 1
    assert code == int(any(row["weight"] == "Unknown" for row in rows))
    # What is wrong with a register is told, and the rest of it taken.
    assert "line 3, classes" in err
    code, out, _ = run(capsys, "vet", "inkpost", "--words", "ink", "--kinds", "marks,said")
    found = list(csv.DictReader(io.StringIO(out)))
    assert found[0]["weight"] == "Unknown"
    assert code == 1


@pytest.mark.parametrize(
    ("words", "told"),
    [
        (("vet", "ink post!"), "cannot contain"),
        (("vet", "inkpost", "--kinds", "fate"), "is not one of"),
        (("vet", "inkpost", "--marks", "/nowhere.csv"), "--marks /nowhere.csv"),
        (("vet", *["a" * n for n in range(1, 63)]), "at most 60"),
    ],
)
def test_vet_says_what_is_wrong(
    capsys: pytest.CaptureFixture[str], words: tuple[str, ...], told: str
) -> None:
    code, _, err = run(capsys, *words)
    assert code == 2
    assert told in err


def test_phrases_are_grouped_with_what_one_covers(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    table = tmp_path / "demand.tsv"
    lines = "piano tuning\t1000\ntuning piano\t1000\npiano tuning cork\t50\npiano key\tx\nink\t4\n"
    table.write_bytes(f"phrase\tsearches\n{lines}".encode("utf-16"))
    given = ("phrases", "--demand", str(table), "--words", "piano,tuning")
    code, out, err = run(capsys, *given)
    rows = list(csv.DictReader(io.StringIO(out)))
    assert code == 0
    assert "line 5: “x” is no number of searches" in err
    assert [row["phrase"] for row in rows[:2]] == ["piano tuning", "piano tuning cork"]
    assert rows[0]["head"] == "piano tuning"
    assert (rows[0]["group_searches"], rows[0]["covers_group"]) == ("1050", "1.0")
    assert rows[-1]["searches"] == ""
    _, document, _ = run(capsys, *given, "--cut", "0", "--format", "json")
    assert {item["group"] for item in json.loads(document)} == {1, 2, 3}
    assert json.loads(document)[0]["gathered"] == ["tuning piano"]
    for wrong in (("--cut", "2"), ("--words", "garden"), ("--country", "FR")):
        code, _, err = run(capsys, *given[:3], *wrong)
        assert (code, err.startswith("vinetag: ")) == (2 if wrong[0] != "--country" else 0, True)
    code, _, err = run(capsys, "phrases", "--demand", str(tmp_path / "none.csv"))
    assert (code, "none.csv" in err) == (2, True)
