"""Snapshots of zones: what they answer before anybody is asked, and short names against them."""

from __future__ import annotations

import gzip
from datetime import date, timedelta
from pathlib import Path
from typing import Any

import pytest
from django.core.management import CommandError, call_command
from django.utils import timezone
from rest_framework.test import APIClient

from tests.conftest import Registry
from vinetag.apps.availability import checks, tasks
from vinetag.apps.availability.models import LastAnswer
from vinetag.apps.market import snapshots
from vinetag.apps.market.models import SnapshotRow
from vinetag.apps.naming.models import Project
from vinetag.core.market.short_names import number_of
from vinetag.core.names import FullName
from vinetag.lake.unpacking import FeedError

YESTERDAY = timezone.now().date() - timedelta(days=1)
FREE = "qwzxvkjhqp"


def zone(extension: str, *labels: str) -> bytes:
    soa = f"{extension}. 900 in soa a. b. 1 2 3 4 5\n"
    return (soa + "".join(f"{n}.{extension}. 900 in ns a.\n" for n in sorted(labels))).encode()


def bring(
    tmp_path: Path, extension: str, *labels: str, day: date = YESTERDAY
) -> SnapshotRow:  # fmt: skip
    file = tmp_path / "a.zone"
    file.write_bytes(gzip.compress(zone(extension, *labels)))
    return snapshots.bring_zone(extension, day, file)


def test_names_of_a_zone_are_taken_and_the_others_are_asked(
    project: Project, simulated_world: Registry, tmp_path: Path
) -> None:
    bring(tmp_path, "com", FREE, "inkpost")
    before = simulated_world.served
    check = checks.start_check(project=project, labels=[FREE, "qzxwvkjhpq"])
    tasks.run_check(check.pk)
    rows = {f"{row.label}.{row.extension}": row for row in project.lookups.all()}
    taken = rows[f"{FREE}.com"]
    # By the zone alone, and as old as that: whatever the registry would say today.
    assert (taken.status, [e["source"] for e in taken.evidence]) == ("taken", ["zone"])
    assert taken.asked_at is not None
    assert taken.asked_at.date() == YESTERDAY
    # Not there then is no answer: the registry was asked, and has the last word.
    asked = rows["qzxwvkjhpq.com"]
    assert asked.status == "open"
    assert asked.evidence[0]["source"] == "zone"
    assert {"dns", "rdap"} & {e["source"] for e in asked.evidence}
    # Of an extension without a zone file nothing is said by one.
    assert all(e["source"] != "zone" for e in rows[f"{FREE}.net"].evidence)
    assert simulated_world.served - before == 3


def test_a_zone_file_of_the_same_day_takes_the_place_of_the_other(db: None, tmp_path: Path) -> None:
    bring(tmp_path, "com", "abc")
    assert snapshots.bits_of("com", YESTERDAY)[number_of("abc")]
    bring(tmp_path, "com", "abd", "abe")
    bits = snapshots.bits_of("com", YESTERDAY)
    assert [bool(bits[number_of(label)]) for label in ("abc", "abd")] == [False, True]
    assert SnapshotRow.objects.get().names == 2


def test_what_is_younger_than_a_zone_is_asked_again(
    project: Project, simulated_world: Registry, tmp_path: Path
) -> None:
    # A zone file is of the end of its day: what was asked today is younger, however early it is.
    LastAnswer.objects.create(
        label=FREE, extension="com", status="open", asked_at=timezone.now()
    )  # fmt: skip
    bring(tmp_path, "com", FREE)
    check = checks.start_check(project=project, labels=[FREE])
    tasks.run_check(check.pk)
    assert project.lookups.get(label=FREE, extension="com").status == "open"


@pytest.mark.parametrize("aim", ["buying", "scan"])
def test_before_buying_no_zone_file_is_enough(
    project: Project, simulated_world: Registry, tmp_path: Path, aim: Any
) -> None:
    old = YESTERDAY if aim == "buying" else YESTERDAY - timedelta(days=9)
    bring(tmp_path, "com", FREE, day=old)
    check = checks.start_check(project=project, labels=[FREE], aim=aim)
    tasks.run_check(check.pk)
    assert project.lookups.get(label=FREE, extension="com").status == "open"


def test_the_newest_zone_counts_and_old_ones_are_forgotten(db: None, tmp_path: Path) -> None:
    for back in range(12):
        bring(tmp_path, "com", f"name{back}", "ink", day=YESTERDAY - timedelta(days=back))
    rows = SnapshotRow.objects.filter(extension="com")
    assert rows.count() == 12
    assert rows.filter(there=True).count() == snapshots.KEPT_DAYS
    assert snapshots.latest_days() == {"com": YESTERDAY}
    found = snapshots.delegated_names(
        [FullName("name0", "com"), FullName("name5", "com"), FullName("name0", "net")]
    )
    assert {str(name): there for name, (there, _) in found.items()} == {
        "name0.com": True, "name5.com": False,
    }  # fmt: skip
    short = SnapshotRow.objects.get(day=YESTERDAY).short
    assert {shape: count for shape, count in short.items() if count} == {"???": 1, "VCC": 1}


def test_a_zone_that_is_none_changes_nothing(db: None, tmp_path: Path) -> None:
    bring(tmp_path, "com", "ink")
    file = tmp_path / "b.zone"
    file.write_bytes(zone("net", "ink"))
    with pytest.raises(FeedError):
        snapshots.bring_zone("com", YESTERDAY, file)
    with pytest.raises(FeedError):
        snapshots.bring_zone("net", date(2999, 1, 1), file)
    assert SnapshotRow.objects.count() == 1


def test_zone_files_of_the_settings_are_fetched_once(
    db: None, registry: Registry, settings: Any
) -> None:
    settings.LOOKUP = type(settings.LOOKUP).from_env(registry.environment)
    registry.faults({"service": "zones", "kind": "500", "registry": "studio"})
    found = snapshots.refresh_zones()
    assert found is not None
    assert {*found.troubles} == {"studio"}
    assert not snapshots.zones_due()
    rows = SnapshotRow.objects.order_by("day")
    assert {row.extension for row in rows} == {"press"}
    assert len(rows) == 5
    # The younger the zone, the fewer short names are left.
    assert rows[0].short["????"] <= rows[4].short["????"]
    assert rows[4].names > 10_000
    again = snapshots.refresh_zones()
    assert again is not None
    assert again.files == {}


def test_a_command_brings_a_zone(
    db: None, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    file = tmp_path / "com.zone"
    file.write_bytes(zone("com", "ink", "post"))
    call_command("bring_zone", ".COM", str(file), "--day", str(YESTERDAY))
    assert f"2 names of .com on {YESTERDAY}" in capsys.readouterr().out
    for wrong in (("net", str(file)), ("com", str(tmp_path / "missing"))):
        with pytest.raises(CommandError):
            call_command("bring_zone", *wrong)


def short(api: APIClient, project: Project, query: str) -> Any:
    answer = api.get(f"/api/projects/{project.pk}/short?{query}")
    assert answer.status_code == 200, answer.json()
    return answer.json()


def test_short_names_are_gone_through_against_the_zones(
    api: APIClient, project: Project, tmp_path: Path
) -> None:
    bring(tmp_path, "com", "bab", "bac", "zuz")
    page = short(api, project, "shape=CVC&limit=3")
    assert (page["matching"], page["total"]) == (21 * 5 * 21, 21 * 5 * 21 - 3)
    assert [row["label"] for row in page["rows"]] == ["bad", "baf", "bag"]
    com = next(e for e in page["extensions"] if e["extension"] == "com")
    assert (com["day"], com["free"]) == (str(YESTERDAY), 21 * 5 * 21 - 3)
    both = short(api, project, "shape=CVC&limit=3&every=1&extensions=com,net")
    assert [row["had"] for row in both["rows"]] == [
        {"com": True, "net": None}, {"com": True, "net": None}, {"com": False, "net": None},
    ]  # fmt: skip
    bring(tmp_path, "net", "bad")
    either = short(api, project, "shape=ba%3F&extensions=com,net&limit=4")
    # Free under one of them is enough to be shown.
    assert either["total"] == 26
    assert [e["free"] for e in either["extensions"]] == [24, 25]
    assert short(api, project, "shape=CVC&text=uz&starts=z&extensions=com")["total"] == 0
    for wrong in ("shape=CVCVCV", "extensions=nowhere", "limit=0", "letters=%C3%A4"):
        assert api.get(f"/api/projects/{project.pk}/short?{wrong}").status_code == 400
