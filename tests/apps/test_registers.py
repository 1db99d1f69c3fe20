"""Registers of marks and the catalogue of platforms: brought by administrators, read by workers."""

from __future__ import annotations

import io
import zlib
from datetime import timedelta
from pathlib import Path
from typing import Any

import pytest
from django.core.management import CommandError, call_command
from django.utils import timezone
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from rest_framework.test import APIClient

from vinetag.apps.accounts.models import User
from vinetag.apps.vetting import registers, tasks
from vinetag.apps.vetting.demo import BESIDE, load_marks
from vinetag.apps.vetting.models import HandleRow, MarkFile, MarkRow, PlatformRow
from vinetag.apps.vetting.platforms import keep_platforms, load_platforms, platforms
from vinetag.core.errors import CatalogueError
from vinetag.core.vet import shipped_platforms, write_platforms

MARKS = b"""number,word,owner,classes,status
1,Inkpost,Hexley,16,registered
2,Reed,,20,registered
3,Quill,,99,registered
"""


@pytest.fixture
def read_at_once(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(tasks.read_register, "delay", tasks.read_register)


def bring(api: APIClient, content: bytes, query: str = "?name=m.csv&office=Saltley") -> Any:
    return api.post(f"/api/marks{query}", content, content_type="application/octet-stream")


def taken(content: bytes = MARKS) -> MarkFile:
    return registers.take_register(name="m.csv", office="", stream=io.BytesIO(content))


@pytest.mark.usefixtures("administrator", "read_at_once")
def test_a_register_is_read_and_what_is_wrong_in_it_is_told(api: APIClient) -> None:
    answer = bring(api, MARKS)
    assert answer.status_code == 202, answer.json()
    told = api.get("/api/marks").json()
    [file] = told["files"]
    assert (file["state"], file["done"], file["wrong"], file["office"]) == (
        "done", 2, 1, "Saltley",
    )  # fmt: skip
    assert file["problems"][0]["path"] == "line 4, classes"
    assert told["marks"] == 2
    assert MarkRow.objects.get(number="1").office == "Saltley"
    # Brought again, a number is replaced and none is there twice; what was counted is another.
    bring(api, MARKS.replace(b"Reed", b"Rush") + b"4,Oak,,16,pending\n")
    assert api.get("/api/marks").json()["marks"] == 3
    assert MarkRow.objects.get(number="2").word == "Rush"
    assert not MarkFile.objects.exclude(content=None).exists()


def test_registers_and_platforms_are_an_administrators_to_bring(api: APIClient) -> None:
    assert bring(api, MARKS).status_code == 404
    assert api.put("/api/platforms", {"text": "code,name,address"}).status_code == 404
    told = api.get("/api/marks").json()
    assert (told["may_edit"], told["files"]) == (False, [])


@pytest.mark.usefixtures("administrator", "read_at_once")
@pytest.mark.parametrize(
    ("content", "code"),
    [(b"", "register_empty"), (b" \n ", "register_empty"), (b"x" * 2_001, "file_large")],
)
def test_a_file_nobody_could_read_is_refused(
    api: APIClient, settings: Any, content: bytes, code: str
) -> None:
    settings.MOST_FILE_BYTES = 2_000
    answer = bring(api, content)
    assert (answer.status_code, answer.json()["problems"][0]["code"]) == (400, code)
    assert not MarkFile.objects.exists()


@pytest.mark.usefixtures("administrator", "read_at_once")
@pytest.mark.parametrize(
    "content", [b"\x00\xff\xfe", b"<a><b></a>", b"one,two\n1,2", b"PK\x03\x04"]
)
def test_what_is_no_register_fails_and_says_why(api: APIClient, content: bytes) -> None:
    assert bring(api, content).status_code == 202
    [file] = api.get("/api/marks").json()["files"]
    assert file["state"] == "failed"
    assert file["problems"][0]["message"].endswith(".")


def test_one_file_is_read_at_a_time_by_one_worker() -> None:
    first = taken()
    with pytest.raises(registers.ConflictError):
        taken()
    MarkFile.objects.update(state="reading", heartbeat_at=timezone.now())
    registers.read_waiting(first.pk)
    assert MarkRow.objects.count() == 0  # another worker is at it
    assert registers.stale_files() == []


def test_a_file_whose_worker_died_is_read_by_another_and_nothing_is_there_twice(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    file = taken()
    with monkeypatch.context() as patched:
        patched.setattr(registers, "BATCH", 1)
        patched.setattr(MarkFile.objects, "filter", dying(MarkFile.objects.filter, at=2))
        with pytest.raises(RuntimeError, match="killed"):
            registers.read_waiting(file.pk)
    assert MarkRow.objects.count() == 1
    MarkFile.objects.update(heartbeat_at=timezone.now() - timedelta(minutes=3))
    woken: list[int] = []
    monkeypatch.setattr(tasks.read_register, "delay", woken.append)
    tasks.resume_vettings()
    assert woken == registers.stale_files() == [file.pk]
    tasks.read_register(file.pk)
    file.refresh_from_db()
    assert (file.state, file.tries, MarkRow.objects.count()) == ("done", 2, 2)


def dying(real: Any, at: int) -> Any:
    """The call that dies at the so manieth time."""
    calls = []

    def call(*args: Any, **more: Any) -> Any:
        calls.append(1)
        if len(calls) == at:
            raise RuntimeError("killed")
        return real(*args, **more)

    return call


def test_a_file_that_kills_every_worker_is_given_up() -> None:
    file = taken()
    MarkFile.objects.update(content=b"no zlib")
    for _ in range(registers.MOST_TRIES):
        with pytest.raises(zlib.error):
            registers.read_waiting(file.pk)
        MarkFile.objects.update(heartbeat_at=timezone.now() - timedelta(minutes=3))
    registers.read_waiting(file.pk)
    file.refresh_from_db()
    assert (file.state, file.content) == ("failed", None)


def test_a_register_is_brought_on_the_command_line(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    path = tmp_path / "marks.csv"
    path.write_bytes(MARKS)
    call_command("bring_marks", str(path))
    out, err = capsys.readouterr()
    assert out.startswith("2 marks taken")
    assert "line 4, classes" in err
    path.write_bytes(b"word\n")
    with pytest.raises(CommandError, match="no mark"):
        call_command("bring_marks", str(path))
    with pytest.raises(CommandError, match="nowhere"):
        call_command("bring_marks", str(tmp_path / "nowhere.csv"))


@settings(
    max_examples=60, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture]
)
@given(
    st.binary(max_size=300)
    | st.builds(lambda rows: MARKS + "\n".join(rows).encode(), st.lists(st.text(max_size=60)))
)
def test_whatever_a_file_has_it_is_read_to_its_end(content: bytes) -> None:
    brought = registers.bring_marks(io.BytesIO(content))
    assert 0 <= brought.taken <= content.count(b"\n") + content.count(b"\r") + 60
    assert all(problem.text() for problem in brought.problems)


def test_the_demo_brings_its_register_once(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("vinetag.apps.vetting.demo.COUNT", 40)
    assert load_marks()
    assert not load_marks()
    assert MarkRow.objects.count() == 40
    assert {word for word, _, _ in BESIDE} <= set(MarkRow.objects.values_list("word", flat=True))


# Platforms

OWN = "code,name,address,letters_min,letters_max\nplume,Plume,https://plume.example.org/@{handle},3,20\n"


def test_a_catalogue_is_exported_changed_and_brought_back(
    api: APIClient, administrator: User
) -> None:
    load_platforms()
    load_platforms()
    assert platforms() == list(shipped_platforms())
    HandleRow.objects.create(
        platform=PlatformRow.objects.get(code="larkwire"), handle="inkpost", says="free",
        asked_at=timezone.now(),
    )  # fmt: skip
    text = api.get("/api/platforms").content.decode("utf-8-sig")
    head, first, *rest = text.splitlines()
    # The first away, the others turned round, one of their own at the end.
    changed = [*rest[::-1], "plume,Plume,https://plume.example.org/@{handle}"]
    columns = head.count(",") + 1
    changed[-1] += "," * (columns - 3)
    told = api.put("/api/platforms", {"text": "\n".join([head, *changed])})
    assert told.status_code == 204, told.content
    found = platforms()
    assert [one.code for one in found][-2:] == [rest[0].split(",")[0], "plume"]
    assert first.split(",")[0] not in {one.code for one in found}
    assert (PlatformRow.objects.get(code="plume").shipped, len(found)) == (False, 24)
    # What a platform that stayed has said is still known.
    assert HandleRow.objects.count() == (1 if first.split(",")[0] != "larkwire" else 0)


def test_a_path_is_for_platforms_that_ship_alone(api: APIClient, administrator: User) -> None:
    load_platforms()
    shipped = write_platforms(shipped_platforms())
    moved = shipped.replace("/platforms/larkwire/", "/platforms/murmur/", 1)
    assert moved != shipped
    answer = api.put("/api/platforms", {"text": moved})
    assert answer.status_code == 400
    assert answer.json()["problems"][0]["path"].startswith("line")
    assert platforms() == list(shipped_platforms())
    with pytest.raises(CatalogueError):
        keep_platforms("code,name,address\nx,X,/elsewhere/{handle}\n")
    assert [one.code for one in keep_platforms(OWN)] == ["plume"]
    assert [one.code for one in platforms()] == ["plume"]
