"""The catalogue of extensions, its rules, and which ones are proposed."""

from decimal import Decimal

import pytest

from standins.world import EXTENSIONS
from vinetag.core.errors import CatalogueError
from vinetag.core.extensions import (
    RULES,
    Costing,
    Entry,
    Means,
    barred,
    eligible,
    known_extensions,
    parse_extension,
    propose,
    read_catalogue,
    shipped_catalogue,
    write_catalogue,
)
from vinetag.core.names import FullName

CATALOGUE = shipped_catalogue()


def test_the_catalogue_is_large_and_whole() -> None:
    assert len(CATALOGUE) >= 150
    kinds = {entry.kind for entry in CATALOGUE}
    assert kinds == {"generic", "newer", "country", "second-level"}
    for entry in CATALOGUE:
        assert entry.use.endswith(".")
        assert entry.extension in known_extensions()
        assert bool(entry.country) == (entry.kind in ("country", "second-level"))
        assert entry.yearly
    assert set(EXTENSIONS) >= {entry.extension for entry in CATALOGUE}


def test_it_is_read_as_it_was_written() -> None:
    assert read_catalogue(write_catalogue(CATALOGUE)) == CATALOGUE
    odd = read_catalogue("use,extension\n=1+1,.COM\n")
    assert odd["com"] == Entry("com", use="=1+1")
    assert "'=1+1" in write_catalogue(odd)
    assert read_catalogue(write_catalogue(odd)) == odd


@pytest.mark.parametrize(
    ("row", "path", "says"),
    [
        ("nosuch,newer", "line 2, extension", "There is no extension “.nosuch”."),
        ("com,old", "line 2, kind", "“old” is not one of generic"),
        ("com,newer,XX", "line 2, country", "“XX” is not one of"),
        ("com,newer,,0", "line 2, letters_min", "Choose a number from 1 to 63"),
        ("com,newer,,two", "line 2, letters_min", "whole number"),
        ("com,newer,,1,cheap", "line 2, yearly", "“cheap” is no price"),
        ("com,newer,,1,5,ftp://x", "line 2, rdap", "no web address"),
        ("com,newer,,1,5,,fun", "line 2, works", "“fun” is not one of"),
    ],
)
def test_what_is_wrong_in_a_file_is_told_with_its_line(row: str, path: str, says: str) -> None:
    heading = "extension,kind,country,letters_min,yearly,rdap,works"
    with pytest.raises(CatalogueError) as refused:
        read_catalogue(f"{heading}\n{row}\n")
    [problem] = refused.value.problems
    assert problem.path == path
    assert says in problem.text()


def test_columns_and_repeats() -> None:
    with pytest.raises(CatalogueError, match="no column called “colour”"):
        read_catalogue("extension,colour\ncom,red\n")
    with pytest.raises(CatalogueError, match="“extension” is missing"):
        read_catalogue("kind\nnewer\n")
    with pytest.raises(CatalogueError, match="listed twice"):
        read_catalogue("extension\ncom\n.com\n")


@pytest.mark.parametrize(
    ("whois", "query", "absent", "column"),
    [
        ("localhost", "", "", "whois"),
        ("whois.nic.example:70000", "", "", "whois"),
        ("http://whois.nic.example", "", "", "whois"),
        ("whois.nic.example", "domain", "", "whois_query"),
        ("whois.nic.example", "{name}\tx", "", "whois_query"),
        ("whois.nic.example", "", "x" * 121, "whois_absent"),
    ],
)
def test_how_whois_is_asked_is_checked(whois: str, query: str, absent: str, column: str) -> None:
    heading = "extension,whois,whois_query,whois_absent\n"
    with pytest.raises(CatalogueError) as refused:
        read_catalogue(f'{heading}io,{whois},"{query}",{absent}\n')
    assert [p.path for p in refused.value.problems] == [f"line 2, {column}"]
    assert refused.value.problems[0].text()
    [entry] = read_catalogue(f"{heading}io,Whois.Nic.Example:4343,-T {{name}},No match\n")
    assert (entry.whois, entry.whois_query) == ("whois.nic.example:4343", "-T {name}")


@pytest.mark.parametrize(
    ("rule", "country", "kind", "may"),
    [
        ("open", "", "", "yes"),
        ("eu", "IE", "person", "yes"),
        ("eu", "US", "company", "no"),
        ("eu", "", "", "ask"),
        ("fr", "CH", "", "yes"),
        ("ie", "FR", "company", "ask"),
        ("us", "GB", "person", "ask"),
        ("au", "NZ", "company", "no"),
        ("jp_company", "JP", "person", "no"),
        ("jp_company", "JP", "company", "yes"),
        ("jp_company", "JP", "", "ask"),
        ("lawyer", "IE", "person", "ask"),
    ],
)
def test_who_may_register(rule: str, country: str, kind: str, may: str) -> None:
    found = eligible(rule, country, kind)
    assert (found.may, found.sentence) == (may, RULES[rule].sentence)


@pytest.mark.parametrize(
    ("name", "status", "says"),
    [
        (("co", "uk"), "reserved", "itself an extension"),
        (("example", "org"), "reserved", "RFC 6761"),
        (("nic", "shop"), "reserved", "registry itself"),
        (("q", "com"), "barred", "at least 2"),
        (("xn--bcher-kva", "uk"), "barred", "a to z only"),
        (("inkpost", "com.au"), "barred", "Australia"),
        (("inkpost", "com"), None, ""),
        (("xn--bcher-kva", "de"), None, ""),
        (("inkpost", "zuerich"), None, ""),
    ],
)
def test_what_rules_alone_say(name: tuple[str, str], status: str | None, says: str) -> None:
    found = barred(FullName(*name), CATALOGUE[name[1]], "IE", "person")
    assert (found.status if found else None) == status
    assert says in (found.sentence if found else "")


def test_extensions_of_the_public_suffix_list_can_be_added() -> None:
    assert parse_extension("co.uk") == "co.uk"
    with pytest.raises(ValueError, match="no extension"):
        parse_extension("gov.uk")
    assert parse_extension("gov.uk", new=True) == "gov.uk"
    with pytest.raises(ValueError, match="no extension"):
        parse_extension("inkpost.com", new=True)


def test_proposals_follow_country_work_and_budget() -> None:
    def first(**wish: object) -> list[str]:
        return [p.entry.extension for p in propose(CATALOGUE, **wish)]  # type: ignore[arg-type]

    assert first(country="NZ", work="shop")[:3] == ["co.nz", "com", "nz"]
    assert first(country="IE", work="music")[:2] == ["com", "ie"]
    assert set(first(country="DE", work="software")[:4]) >= {"com", "de"}
    assert "au" not in first(country="NZ", limit=300)
    dear = {p.entry.extension: p for p in propose(CATALOGUE, means=Means(Decimal(15)), limit=300)}
    assert "studio" not in dear
    assert "Within your €15 a year." in dear["com"].reasons
    for proposed in propose(CATALOGUE, country="FR", work="art", limit=300):
        assert proposed.reasons
        assert proposed.entry.kind != "second-level" or proposed.entry.country == "FR"


def test_proposals_go_by_what_names_really_cost_where_that_is_known() -> None:
    costs = {
        "com": Costing(Decimal("1.5"), Decimal(19), Decimal("77.5"), "Lantern"),
        "net": Costing(Decimal(12), None, Decimal(60), "Weir"),
    }

    def found(**limits: object) -> dict[str, str]:
        means = Means(costs=costs, **limits)  # type: ignore[arg-type]
        proposed = propose(CATALOGUE, means=means, limit=300)
        return {p.entry.extension: " ".join(p.reasons) for p in proposed}

    told = found()["com"]
    assert "€1.50 the first year, then €19.00 a year; €77.50 over 5 years" in told
    # A cheap first year does not make it cheap.
    assert {"com", "net"} & {*found(budget=Decimal(15))} == {"net"}
    assert {"com", "net"} & {*found(whole=Decimal(70))} == {"net"}
    # What has no list goes by the guide, for as many years.
    by_guide = found(whole=Decimal(70), years=5)
    assert "studio" not in by_guide
    assert "Within your €70 over 5 years." in by_guide["net"]


def test_what_is_for_people_is_not_proposed_to_companies() -> None:
    def proposed(**wish: str) -> list[str]:
        return [p.entry.extension for p in propose(CATALOGUE, limit=300, **wish)]

    assert "name" not in proposed(kind="company")
    assert "name" not in proposed()[:5]
    assert "name" in proposed(kind="person", work="personal")[:6]
    assert eligible("person", "", "company").may == "no"
    assert eligible("person", "", "person").may == "yes"


@pytest.mark.parametrize("work", ["leisure", "sport", "wellness", "food", "craft"])
def test_there_is_something_for_every_trade(work: str) -> None:
    best = [p.entry for p in propose(CATALOGUE, work=work)]
    assert sum(work in entry.works for entry in best) >= 3
