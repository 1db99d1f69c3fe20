"""How long names stayed open by what was seen, and what that says of others; scarcity."""

from __future__ import annotations

from datetime import date, datetime, timedelta
from pathlib import Path

import pytest
from django.utils import timezone
from rest_framework.test import APIClient

from vinetag.apps.availability.answer_store import save_answers
from vinetag.apps.availability.models import Lookup
from vinetag.apps.hunting.going import going_like
from vinetag.apps.market.models import SnapshotRow
from vinetag.apps.market.snapshots import bring_zone
from vinetag.apps.naming.models import Candidate, Project
from vinetag.core.checking import Evidence, Status
from vinetag.core.names import FullName
from vinetag.lookup import Answer

NOW = timezone.now()
BEGAN = NOW - timedelta(days=100)


def know(
    project: Project, label: str, status: Status, at: datetime, registered: datetime | None = None,
    *, likely: bool = False,
) -> Lookup:  # fmt: skip
    says = "unregistered" if status == "open" else "registered"
    evidence = Evidence("rdap", says, at, registered=registered)  # type: ignore[arg-type]
    name = FullName(label, "com")
    save_answers(project.pk, [Answer(name, status, at, likely=likely, evidence=(evidence,))])
    return project.lookups.get(label=label)


def test_since_when_and_until_when_a_name_was_open(project: Project) -> None:
    later, last = BEGAN + timedelta(days=20), BEGAN + timedelta(days=50)
    assert know(project, "inkpost", "open", BEGAN).open_since == BEGAN
    assert know(project, "inkpost", "open", later).open_since == BEGAN
    # Not knowing ends nothing.
    row = know(project, "inkpost", "unsure", later)
    assert (row.open_since, row.open_until) == (BEGAN, None)
    told = BEGAN + timedelta(days=30)
    row = know(project, "inkpost", "taken", last, registered=told)
    assert (row.open_since, row.open_until) == (BEGAN, told)
    # Found taken again, it was gone when it was.
    assert know(project, "inkpost", "taken", NOW).open_until == told
    # Open once more is another time; and a name first found taken was never seen open.
    row = know(project, "inkpost", "open", NOW)
    assert (row.open_since, row.open_until) == (NOW, None)
    assert know(project, "reed", "taken", NOW).open_since is None
    assert know(project, "quill", "open", NOW, likely=True).open_since is None
    know(project, "barn", "open", BEGAN)
    assert know(project, "barn", "taken", last).open_until == last


def test_names_alike_tell_how_fast_one_goes(api: APIClient, project: Project) -> None:
    assert going_like(project, "inkpost", "com") == []
    rows = [
        Lookup(
            project=project, label=f"name{n:03}", extension="com", open_since=BEGAN,
            status="taken" if n < 5 else "open", asked_at=NOW,
            open_until=BEGAN + timedelta(days=10) if n < 5 else None,
        )
        for n in range(50)
    ]  # fmt: skip
    rows.append(
        Lookup(project=project, label="x" * 20, extension="com", status="open", asked_at=NOW)
    )
    Lookup.objects.bulk_create(rows)
    week, month, quarter = going_like(project, "inkpost", "com")
    assert (week.share, month.share, quarter.share) == (0, pytest.approx(0.1), pytest.approx(0.1))
    assert (month.names, month.extension, month.letters_from, month.letters_to) == (50, "com", 6, 7)
    # Too few under .net: those under any extension are told instead.
    assert going_like(project, "inkpost", "net")[1].extension == ""
    assert going_like(project, "a" * 20, "com") == []
    page = api.get(f"/api/projects/{project.pk}/names/inkpost").json()
    assert [one["days"] for one in page["going"]] == [7, 30, 90]
    assert (week.words, week.grade_from) == (None, None)


def test_the_more_alike_the_better_where_enough_were_followed(project: Project) -> None:
    made = list(project.candidates.filter(letters__range=(6, 7), words__gt=0)[:1])
    [one] = made
    for n in range(60):
        Candidate.objects.create(
            project=project, label=f"name{n:03}", rank=9_000 + n, letters=7, strength=1, scores={},
            recipes=[], parts=[], words=one.words if n < 40 else one.words + 1,
            grade=one.grade if n < 25 else 5.0 if one.grade > 40 else 95.0,
        )  # fmt: skip
    Lookup.objects.bulk_create(
        Lookup(
            project=project, label=f"name{n:03}", extension="com", open_since=BEGAN, asked_at=NOW,
            status="taken" if n < 20 else "open",
            open_until=BEGAN + timedelta(days=10) if n < 20 else None,
        )
        for n in range(60)
    )  # fmt: skip
    month = going_like(project, one.label, "com")[1]
    assert (month.names, month.words, month.share) == (25, one.words, pytest.approx(0.8))
    assert month.grade_from is not None
    assert month.grade_from <= one.grade
    # Of its grade too few, of as many words enough.
    project.candidates.filter(label__in=[f"name{n:03}" for n in range(15)]).update(grade=-1)
    month = going_like(project, one.label, "com")[1]
    assert (month.names, month.words, month.grade_from) == (40, one.words, None)
    # One that nobody made here is like all of its length.
    assert going_like(project, "qwvlork", "com")[1].names == 60


def test_zone_files_follow_names_nobody_asked_about_since(project: Project, tmp_path: Path) -> None:
    Lookup.objects.bulk_create(
        Lookup(
            project=project, label=f"name{n:03}", extension="com", open_since=BEGAN,
            asked_at=BEGAN + timedelta(days=1), status="open",
        )
        for n in range(40)
    )  # fmt: skip
    assert going_like(project, "inkpost", "com") == []  # a day says nothing of a week

    def zone(days: int, taken: int) -> None:
        file = tmp_path / f"{days}.zone"
        lines = [f"name{n:03}.com. 900 in ns ns1.x.net." for n in range(taken)]
        soa = "com. 900 in soa a.nic. b.nic. 1 2 3 4 5"
        file.write_text("\n".join([soa, "other.com. 900 in ns ns1.x.net.", *lines]) + "\n")
        bring_zone("com", (BEGAN + timedelta(days=days)).date(), file)

    zone(5, 4)
    zone(40, 10)
    week, month = going_like(project, "inkpost", "com")
    assert (week.share, month.share) == (pytest.approx(0.1), pytest.approx(0.1))
    assert week.names == 40
    zone(95, 10)
    quarter = going_like(project, "inkpost", "com")[-1]
    assert (quarter.days, quarter.share) == (90, pytest.approx(0.25))


def test_what_is_left_by_extension_and_day(api: APIClient) -> None:
    for week, taken in enumerate((20, 22, 24, 26)):
        SnapshotRow.objects.create(
            extension="press", day=date(2026, 11, 1) + timedelta(weeks=week), names=5_000,
            short={"CV": taken, "????": 1_000}, brought_at=NOW,
        )  # fmt: skip
    [press] = api.get("/api/scarcity?shape=CV").json()
    assert (press["whole"], press["free"]) == (105, [85, 83, 81, 79])
    # 26.5 more are to go, two a week.
    assert press["half_gone"] == str(date(2026, 11, 22) + timedelta(days=round(26.5 / 2 * 7)))
    [press] = api.get("/api/scarcity").json()
    assert (press["shape"], press["projected"], press["half_gone"]) == ("????", True, None)
    for wrong in ("CVCVCV", "", "x", "C%3F", "VVV"):
        assert api.get(f"/api/scarcity?shape={wrong}").json() == []
