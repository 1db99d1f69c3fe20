"""Phrases as keywords and names, asked of a service, carried by names, and taken away."""

from __future__ import annotations

import csv
import io
import json
from dataclasses import replace
from typing import Any

import pytest
from django.utils import timezone
from rest_framework.test import APIClient

from tests.apps.demand_tables import FILE, at, bring, lines_of
from tests.conftest import Registry
from vinetag.apps.availability.models import Lookup
from vinetag.apps.naming.models import Project
from vinetag.apps.phrases import choosing, shelf, tasks
from vinetag.apps.phrases.models import PhraseFile


@pytest.fixture(autouse=True)
def _read_here(monkeypatch: pytest.MonkeyPatch) -> None:
    """The queue is this thread; nothing of another test is in memory."""
    monkeypatch.setattr(tasks.read_figures, "delay", tasks.read_figures)
    shelf._shelves.clear()


def test_phrases_become_keywords_weighed_by_demand(api: APIClient, project: Project) -> None:
    bring(api, project, FILE + "über piano,40,,,\n")
    phrases = ["piano lessons", "piano repair", "piano stool", "über piano"]
    told = api.post(at(project, "keywords"), {"phrases": phrases}, format="json").json()
    # Without accents it is a word like others.
    assert told["taken"] == phrases
    project.refresh_from_db()
    weights = {k["text"]: k["weight"] for k in project.brief["keywords"]}
    assert (weights["ink"], weights["piano lessons"], weights["uber piano"]) == (5, 5, 1)
    assert 1 < weights["piano repair"] < 5
    assert weights["piano stool"] == 3
    bring(api, project, "phrase,searches\n24 hour piano,7\n", "Ledger")
    refused = api.post(at(project, "keywords"), {"phrases": ["24 hour piano"]}, format="json")
    assert refused.status_code == 400
    assert "letters a to z" in refused.json()["problems"][0]["message"]
    foreign = api.post(at(project, "keywords"), {"phrases": ["not here"]}, format="json")
    assert foreign.status_code == 404


def test_the_head_phrase_is_the_exact_phrase_of_a_descriptive_brief(
    api: APIClient, project: Project
) -> None:
    bring(api, project)
    told = api.post(at(project, "head"), {"phrase": "piano tuning"}, format="json")
    assert told.status_code == 200
    project.refresh_from_db()
    assert project.brief["purpose"] == "descriptive"
    assert project.brief["keywords"][0]["text"] == "piano tuning"
    assert project.brief["limits"]["letters_max"] == len("pianotuning")
    rows = api.get(f"/api/projects/{project.pk}/names").json()["rows"]
    (exact,) = [row for row in rows if row["label"] == "pianotuning"]
    assert exact["recipes"] == ["exact"]


def test_chosen_phrases_are_shown_as_names_with_the_first_open_form(
    api: APIClient, project: Project
) -> None:
    bring(api, project, FILE + "zoë piano,5,,,\n" + "x" * 70 + ",3,,,\n")
    chosen = ["piano tuning", "piano repair", "piano stool", "x" * 70]
    told = api.post(at(project, "chosen"), {"phrases": chosen}, format="json")
    assert told.json() == {"chosen": 4}
    assert next(iter(lines_of(api, project, mark="chosen"))) == "piano tuning"
    for label, extension, status in (
        ("pianotuning", "com", "taken"), ("pianotuning", "net", "open"),
        ("pianorepair", "com", "open"),
    ):  # fmt: skip
        Lookup.objects.create(
            project=project, label=label, extension=extension, status=status,
            asked_at=timezone.now(), number=1,
        )  # fmt: skip
    told = api.get(at(project, "names")).json()
    lines = {line["phrase"]: line for line in told["lines"]}
    assert [line["phrase"] for line in told["lines"]][:2] == ["piano tuning", "piano repair"]
    assert lines["piano tuning"]["best"]["extension"] == "net"
    assert lines["piano tuning"]["best"]["rung"] == "exact_next"
    assert lines["piano repair"]["best"]["rung"] == "exact_first"
    assert lines["piano stool"]["best"] is None
    assert lines["piano stool"]["grade"] is not None
    assert lines["x" * 70]["problem"] == "long"
    assert told["asked"] == 3
    # Nothing below an open form is asked.
    from vinetag.apps.phrases.ladders import names_to_check

    names = [str(name) for name in names_to_check(project)]
    assert names[:3] == ["pianotuning.com", "pianorepair.com", "pianostool.com"]
    assert "piano-tuning.com" not in names
    assert "piano-stool.com" in names
    assert "pianorepair.net" not in names


def test_chosen_phrases_are_this_projects_and_not_too_many(
    api: APIClient, project: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    bring(api, project)
    refused = api.post(at(project, "chosen"), {"phrases": ["not here"]}, format="json")
    assert "not here" in refused.json()["problems"][0]["message"]
    monkeypatch.setattr("vinetag.apps.phrases.choosing.MOST_CHOSEN", 2)
    many = {"phrases": ["piano tuning", "piano repair", "piano stool"]}
    assert api.post(at(project, "chosen"), many, format="json").status_code == 400
    assert api.post(at(project, "chosen"), {"phrases": ["piano tuning"]}, format="json").json() == {
        "chosen": 1
    }
    off = {"phrases": ["piano tuning"], "chosen": False}
    assert api.post(at(project, "chosen"), off, format="json").json() == {"chosen": 0}


def test_a_service_is_asked_for_figures_and_companions(
    api: APIClient, project: Project, simulated_world: Registry
) -> None:
    api.post(at(project, "typed"), {"text": "piano tuning\nqwzxvk plonk"}, format="json")
    body = {"phrases": ["piano tuning", "qwzxvk plonk"], "country": "IE", "language": "en"}
    told = api.post(at(project, "asked"), body, format="json").json()
    assert (told["taken"], told["unknown"], told["why"]) == (2, 1, "")
    line = lines_of(api, project)["piano tuning"]
    assert line["demand"] > 0
    assert len(line["figure"]["months"]) == 12
    assert line["figure"]["dated"] == timezone.now().date().isoformat()
    more = api.post(at(project, "asked"), {**body, "companions": True}, format="json").json()
    assert more["taken"] > 10
    # Asked again on the same day they stay one set of figures.
    assert PhraseFile.objects.filter(kind="service").count() == 1
    simulated_world.faults(kind="nonsense", service="demand")
    broken = api.post(at(project, "asked"), body, format="json").json()
    assert (broken["taken"], broken["why"]) == (0, "its answer is no JSON")
    assert lines_of(api, project)["piano tuning"]["demand"] == line["demand"]


def test_names_carry_phrases(api: APIClient, project: Project) -> None:
    bring(api, project, "phrase,searches\nink post,700\ninkpost,40\nbest ink post,90\npost,9000\n")
    told = api.get(f"/api/projects/{project.pk}/names/inkpost").json()["looked_for"]
    assert told[0]["phrase"] == "ink post"
    assert "best ink post" in [one["phrase"] for one in told]
    # The one it carries stands first, whatever else is looked for with its words.
    bring(api, project, "phrase,searches\nink post near me,9000\n", dated="2026-11-02")
    again = api.get(f"/api/projects/{project.pk}/names/inkpost").json()["looked_for"]
    assert [one["phrase"] for one in again][:2] == ["ink post", "ink post near me"]
    nothing = api.get(f"/api/projects/{project.pk}/names/qwzxvk").json()["looked_for"]
    assert nothing == []


@pytest.mark.parametrize("what", ["phrases", "groups", "names"])
def test_phrases_are_taken_away(api: APIClient, project: Project, what: str) -> None:
    bring(api, project, FILE + '"=cmd()",5,,,\n')
    api.post(at(project, "chosen"), {"phrases": ["piano tuning"]}, format="json")
    table = api.get(at(project, "file"), {"what": what, "form": "csv"})
    rows = list(csv.DictReader(io.StringIO(table.content.decode("utf-8-sig"))))
    assert "piano tuning" in {row["phrase"] for row in rows}
    assert not any(value.startswith("=") for row in rows for value in row.values())
    document = json.loads(api.get(at(project, "file"), {"what": what, "form": "json"}).content)
    assert len(document) == len(rows)
    book = api.get(at(project, "file"), {"what": what, "form": "xlsx"})
    assert book.content[:2] == b"PK"


def test_a_projects_file_has_its_phrases(api: APIClient, project: Project) -> None:
    bring(api, project, country="IE", dated="2026-11-01")
    ranged = "phrase,searches,2026-09,2026-10\npiano polish,10 - 100,1,\npiano key,100+,,3\n"
    bring(api, project, ranged, "Ledger")
    api.post(at(project, "chosen"), {"phrases": ["piano tuning"]}, format="json")
    api.post(at(project, "apart"), {"phrases": ["tuning piano"]}, format="json")
    before = api.get(at(project)).json()
    api.post(f"/api/projects/{project.pk}/duplicate")
    other = Project.objects.exclude(pk=project.pk).latest("id")
    after = api.get(at(other)).json()
    assert after == before
    view = {"view": "Ledger||", "text": "piano key"}
    figure = api.get(at(other), view).json()["lines"][0]["figure"]
    assert (figure["low"], figure["high"]) == (100, None)


def test_the_sheet_knows_how_much_names_are_looked_for(api: APIClient, project: Project) -> None:
    names = f"/api/projects/{project.pk}/names"
    labels = [row["label"] for row in api.get(names).json()["rows"]]
    with_ink = [label for label in labels if label.startswith("ink")]
    first, second = with_ink[:2]
    assert api.get(names).json()["rows"][0]["carried"] is None
    bring(api, project, f"phrase,searches\n{first},900\n{second},20\nqwzxvk,5000\n")
    told = api.get(names, {"sort": "demand"}).json()["rows"]
    assert [row["label"] for row in told[:2]] == [first, second]
    assert told[0]["carried"] == {"phrase": first, "demand": 900}
    assert api.get(names, {"demand_min": 100}).json()["total"] == 1
    counts = api.get(f"{names}/counts").json()["demand"]
    assert (counts["10"], counts["100"], counts["1000"]) == (2, 1, 0)
    # What is taken away is not known any more.
    (file,) = api.get(at(project, "figures")).json()["files"]
    api.delete(at(project, "figures", str(file["id"])))
    assert api.get(names, {"demand_min": 0}).json()["total"] == 0


def test_what_a_name_begins_or_ends_with_is_carried_where_the_rest_is_a_word(
    api: APIClient, project: Project
) -> None:
    from vinetag.apps.phrases.carried import carried_by

    bring(api, project, "phrase,searches\npiano tuning,90\npost,7\nstar,5\nletterpress,40\n")
    found = carried_by(
        project, ["pianotuning", "pianotuningcork", "thepost", "starzk", "letterpressed", "post-qz"]
    )
    assert {label: one.phrase for label, one in found.items()} == {
        "pianotuning": "piano tuning", "pianotuningcork": "piano tuning", "thepost": "post",
        "letterpressed": "letterpress", "post-qz": "post",
    }  # fmt: skip


def test_a_brief_changed_elsewhere_meanwhile_is_never_written_over(
    api: APIClient, project: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    bring(api, project)
    real, times = choosing.brief_of, 1

    def meanwhile(of: Project) -> Any:
        nonlocal times
        if times:
            times -= 1
            brief = {**Project.objects.get(pk=of.pk).brief, "avoid": ["harp"]}
            Project.objects.filter(pk=of.pk).update(version=of.version + 1, brief=brief)
        return real(of)

    monkeypatch.setattr(choosing, "brief_of", meanwhile)
    told = api.post(at(project, "keywords"), {"phrases": ["piano tuning"]}, format="json")
    assert told.json()["taken"] == ["piano tuning"]
    project.refresh_from_db()
    # Both are there.
    assert project.brief["avoid"] == ["harp"]
    assert "piano tuning" in [k["text"] for k in project.brief["keywords"]]
    # Somebody who is always quicker has the last word.
    times = 9
    refused = api.post(at(project, "head"), {"phrase": "piano repair"}, format="json")
    assert (refused.status_code, refused.json()["code"]) == (409, "changed_elsewhere")
    project.refresh_from_db()
    assert project.brief["purpose"] == "mix"


def test_no_more_keywords_than_a_brief_has_room_for(api: APIClient, project: Project) -> None:
    words = [f"{a}{b}piano" for a in "bcdfg" for b in "klmnprst"]
    bring(api, project, "phrase,searches\n" + "".join(f"{w},{n}\n" for n, w in enumerate(words)))
    told = api.post(
        at(project, "keywords"), {"phrases": words, "weigh": False}, format="json"
    ).json()
    assert len(told["taken"]) == 38
    assert "at most 40 keywords" in told["problems"][0]["message"]
    project.refresh_from_db()
    assert {k["weight"] for k in project.brief["keywords"][2:]} == {3}


def test_a_head_phrase_that_is_long_widens_the_limits_and_a_foreign_one_is_refused(
    api: APIClient, project: Project
) -> None:
    bring(api, project, "phrase,searches\nhow often should a piano be tuned,70\n24 hours,9\n")
    refused = api.post(at(project, "head"), {"phrase": "24 hours"}, format="json")
    assert "letters a to z" in refused.json()["problems"][0]["message"]
    long = "how often should a piano be tuned"
    refused = api.post(at(project, "head"), {"phrase": long}, format="json")
    assert "one to 5 words" in refused.json()["problems"][0]["message"]
    fits = {"phrase": "should a piano be tuned"}
    assert api.post(at(project, "head"), fits, format="json").status_code == 200
    project.refresh_from_db()
    limits = project.brief["limits"]
    assert (limits["letters_max"], limits["words"]) == (len("shouldapianobetuned"), 5)


def test_a_service_that_is_away_costs_nothing(
    api: APIClient, project: Project, simulated_world: Registry, settings: Any
) -> None:
    body = {"phrases": ["piano tuning"], "country": "IE", "language": "en"}
    for field, value in (("country", "XX"), ("language", "§§")):
        refused = api.post(at(project, "asked"), {**body, field: value}, format="json")
        assert refused.json()["problems"][0]["path"] == field
    for fault, why in (("500", "it failed"), ("hangup", "it could not be reached")):
        simulated_world.faults(kind=fault, service="demand")
        told = api.post(at(project, "asked"), body, format="json").json()
        assert (told["taken"], told["why"]) == (0, why)
    assert not PhraseFile.objects.exists()
    settings.LOOKUP = replace(settings.LOOKUP, phrases="")
    told = api.post(at(project, "asked"), {**body, "companions": True}, format="json").json()
    assert told["why"] == "no service of demand is set up"
    assert api.get(at(project, "figures")).json()["service"] is False


def test_a_chosen_phrase_whose_figures_are_gone_can_be_taken_off(
    api: APIClient, project: Project
) -> None:
    (file,) = bring(api, project).json()["files"]
    api.post(at(project, "chosen"), {"phrases": ["piano tuning"]}, format="json")
    api.delete(at(project, "figures", str(file["id"])))
    (line,) = api.get(at(project, "names")).json()["lines"]
    assert (line["demand"], line["figure"]["low"], line["problem"]) == (None, None, "")
    off = {"phrases": ["piano tuning"], "chosen": False}
    assert api.post(at(project, "chosen"), off, format="json").json() == {"chosen": 0}


def test_forms_are_checked_rung_by_rung(
    api: APIClient, project: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    bring(api, project)
    api.post(at(project, "chosen"), {"phrases": ["piano tuning", "piano repair"]}, format="json")
    begun = api.post(at(project, "names", "check"), {}, format="json")
    assert begun.status_code == 201
    plan = project.checks.get().plan
    assert plan[:4] == ["pianotuning.com", "pianorepair.com", "pianotuning.net", "pianorepair.net"]
    assert "piano-tuning.com" in plan
    assert api.post(at(project, "names", "check"), {}, format="json").status_code == 409


def test_added_words_are_the_places_and_the_heads_of_the_trade(
    api: APIClient, project: Project
) -> None:
    brief = {**project.brief, "places": ["port ferris"], "about": "a piano tuner in a valley"}
    api.patch(f"/api/projects/{project.pk}", {"brief": brief}, format="json")
    bring(api, project)
    api.post(at(project, "chosen"), {"phrases": ["piano repair"]}, format="json")
    (line,) = api.get(at(project, "names")).json()["lines"]
    added = next(r["forms"] for r in line["rungs"] if r["rung"] == "added_first")
    labels = [form["label"] for form in added]
    assert labels[:2] == ["pianorepairportferris", "thepianorepair"]
    assert len(labels) == 4
    assert all(label.count("repair") == 1 for label in labels)
