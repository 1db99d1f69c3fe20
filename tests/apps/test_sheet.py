"""The sheet, the funnel and the reasons of one name."""

from datetime import datetime, timedelta
from typing import Any, cast

import pytest
from django.utils import timezone
from rest_framework.test import APIClient

from vinetag.apps.accounts.models import User
from vinetag.apps.availability.answer_store import save_answers
from vinetag.apps.availability.api.serializers import CellSerializer
from vinetag.apps.availability.models import Lookup
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import create_project
from vinetag.apps.shortlists.services import keep
from vinetag.core.brief import MEASURE_NAMES, RECIPE_NAMES
from vinetag.core.checking import Evidence, Status
from vinetag.core.names import FullName
from vinetag.lookup import Answer


def answered(project: Project, label: str, extension: str, status: str) -> Lookup:
    project.answers += 1
    project.save(update_fields=["answers"])
    return Lookup.objects.create(
        project=project,
        label=label,
        extension=extension,
        status=status,
        asked_at=timezone.now(),
        trouble="timeout" if status == "unsure" else "",
        number=project.answers,
    )


def ask(api: APIClient, project: Project, **question: Any) -> Any:
    return api.get(f"/api/projects/{project.pk}/names", question).json()


def labels(page: Any) -> list[str]:
    return [row["label"] for row in page["rows"]]


def test_pages_follow_one_another(api: APIClient, project: Project) -> None:
    everything = ask(api, project, limit=500)
    parts = [labels(ask(api, project, limit=100, offset=at)) for at in (0, 100, 200)]
    assert [label for part in parts for label in part] == labels(everything)[:300]
    assert everything["total"] == project.candidates.count()


@pytest.mark.parametrize("sort", ["best", "grade", "name", "letters"])
def test_every_order_can_be_turned(api: APIClient, project: Project, sort: str) -> None:
    forth = ask(api, project, sort=sort, limit=500)["rows"]
    back = ask(api, project, sort=sort, reverse=True, limit=500)["rows"]
    assert len(forth) == project.candidates.count()
    assert {row["label"] for row in forth} == {row["label"] for row in back}
    # Names that are alike in it keep their order, so what they are ordered by is turned.
    by = {"best": "label", "name": "label"}.get(sort, sort)
    assert [row[by] for row in forth] == [row[by] for row in back][::-1]


def test_filters_narrow_the_list(api: APIClient, project: Project) -> None:
    first, second, third = labels(ask(api, project))[:3]
    answered(project, first, "com", "open")
    answered(project, second, "net", "open")
    answered(project, third, "com", "taken")
    keep(project=project, labels=[third])
    assert labels(ask(api, project, open_in="com")) == [first]
    assert set(labels(ask(api, project, open_in="any"))) == {first, second}
    assert labels(ask(api, project, mark="kept")) == [third]
    assert all("well" in label for label in labels(ask(api, project, text="WELL")))
    assert ask(api, project, text="zzz")["total"] == 0
    assert ask(api, project, text="%")["total"] == 0
    good = ask(api, project, grade_min=80, limit=500)["rows"]
    assert all(row["grade"] >= 80 for row in good)


@pytest.mark.parametrize(
    ("question", "path"),
    [
        ({"open_in": "org"}, "open_in"),
        ({"sort": "luck"}, "sort"),
        ({"limit": 0}, "limit"),
        ({"offset": -1}, "offset"),
        ({"text": "x" * 64}, "text"),
    ],
)
def test_questions_that_make_no_sense(
    api: APIClient, project: Project, question: dict[str, Any], path: str
) -> None:
    told = ask(api, project, **question)
    assert [p["path"] for p in told["problems"]] == [path]


def test_filters_tell_how_many_they_would_leave(api: APIClient, project: Project) -> None:
    first, second, third = labels(ask(api, project))[:3]
    keep(project=project, labels=[first])
    address = f"/api/projects/{project.pk}"
    api.post(f"{address}/looks", {"labels": [first, second], "verdict": "seen"})
    api.post(f"{address}/looks", {"labels": [second], "verdict": "later"})
    answered(project, third, "net", "open")
    counts = api.get(f"{address}/names/counts", {"text": "post"}).json()
    assert counts["total"] == ask(api, project, text="post")["total"]
    everything = api.get(f"{address}/names/counts").json()["choices"]
    assert everything["mark"] == {
        "": project.candidates.count(), "kept": 1, "later": 1, "dismissed": 0,
        "fresh": project.candidates.count() - 2,
    }  # fmt: skip
    assert everything["open_in"] == {"any": 1, "all": 0, "com": 0, "net": 1}
    answered(project, third, "com", "open")  # what comes later is seen as well
    assert labels(ask(api, project, open_in="all")) == [third]
    assert labels(ask(api, project, mark="later")) == [second]
    assert ask(api, project, mark="later")["rows"][0]["verdict"] == "later"


def test_rows_carry_statuses_with_evidence(api: APIClient, project: Project) -> None:
    label = labels(ask(api, project))[0]
    answered(project, label, "com", "unsure")
    answered(project, label, "org", "open")  # no extension of the brief any more
    [cell] = ask(api, project)["rows"][0]["cells"]
    assert (cell["extension"], cell["status"]) == ("com", "unsure")
    assert "did not answer in time" in cell["reason"]
    assert cell["asked_at"].endswith("Z")
    assert set(cell) == set(CellSerializer().fields)


def test_a_word_across_the_dot_shows_where_it_falls(api: APIClient, person: User) -> None:
    others = [name for name in RECIPE_NAMES if name != "acrossdot"]
    brief = {"keywords": ["letterpress"], "making": {"off": others}}
    project = create_project(owner=person, name="Dots", brief=brief)
    [row] = [r for r in ask(api, project, text="letterpre")["rows"] if r["label"] == "letterpre"]
    assert row["dot"] == "ss"
    args = {"word": "letterpress", "extension": "ss", "before": "letterpre"}
    assert (row["change"]["code"], row["change"]["args"]) == ("across_dot", args)
    assert row["change"]["message"].startswith("letterpress, with the dot before ss")


def test_the_page_costs_a_fixed_number_of_queries(
    api: APIClient, project: Project, django_assert_num_queries: Any
) -> None:
    for row in labels(ask(api, project, limit=200)):
        answered(project, row, "com", "open")
    ask(api, project)
    with django_assert_num_queries(10):  # the list not in memory yet: it is counted
        ask(api, project, limit=10)
    api.get(f"/api/projects/{project.pk}/names/counts")
    for limit in (10, 200):
        with django_assert_num_queries(10):  # session, person, project, phrases twice, five more
            ask(api, project, limit=limit)


def test_the_funnel_narrows(api: APIClient, project: Project) -> None:
    label = labels(ask(api, project))[0]
    answered(project, label, "net", "open")
    keep(project=project, labels=[label])
    steps = api.get(f"/api/projects/{project.pk}/funnel").json()
    assert steps["made"] >= steps["within"] >= steps["listed"] >= steps["good"] > steps["open"]
    assert (steps["open"], steps["kept"]) == (1, 1)


def test_one_name_with_its_reasons(api: APIClient, project: Project) -> None:
    row = ask(api, project, text="inkpost")["rows"][0]
    name = api.get(f"/api/projects/{project.pk}/names/{row['label']}").json()
    assert name["grade"] == pytest.approx(row["grade"], abs=0.06)
    assert name["recipes"] == row["recipes"]
    assert sum(m["weight"] for m in name["measures"]) == pytest.approx(1)
    assert all(m["reasons"] for m in name["measures"])
    typed = api.get(f"/api/projects/{project.pk}/names/Bücher").json()
    assert (typed["label"], typed["shown"], typed["recipes"]) == ("xn--bcher-kva", "bücher", [])


def test_any_name_gets_warnings_and_likely_misspellings(api: APIClient, project: Project) -> None:
    judged = api.get(f"/api/projects/{project.pk}/names/knightpost").json()
    assert [w["code"] for w in judged["warnings"]] == ["homophone"]
    assert judged["misspellings"][0]["label"] == "nightpost"
    assert judged["misspellings"][0]["share"] > 0.5
    assert [m["name"] for m in judged["measures"]] == [
        "length", "spelling", "fit", "sense", "sound", "memory", "clarity",
    ]  # fmt: skip
    assert sum(m["weight"] for m in judged["measures"]) == pytest.approx(1)


def test_a_name_in_other_letters_has_no_grade(api: APIClient, project: Project) -> None:
    judged = api.get(f"/api/projects/{project.pk}/names/пример").json()
    assert judged["shown"] == "пример"
    assert judged["grade"] is None
    given = {m["name"]: m["score"] for m in judged["measures"] if m["score"] is not None}
    assert set(given) == {"length"}
    keep(project=project, labels=["xn--e1afmkfd"])
    [kept] = api.get(f"/api/projects/{project.pk}/shortlist").json()
    assert kept["grade"] is None
    assert b',6,"","not asked"' in api.get(f"/api/projects/{project.pk}/shortlist/file").content


def test_dots_are_the_rows_that_match(api: APIClient, project: Project) -> None:
    keep(project=project, labels=["inkpost"])
    question = {"text": "post", "sort": "memory"}
    dots = api.get(f"/api/projects/{project.pk}/dots", question).json()
    page = ask(api, project, **question, limit=500)
    assert dots["labels"][:500] == labels(page)
    memory = dots["scores"]["memory"]
    assert memory == sorted(memory, reverse=True)
    at = dots["labels"].index("inkpost")
    assert dots["kept"][at]
    assert sum(dots["kept"]) == 1
    for name, column in dots["scores"].items():
        assert column[at] == page["rows"][at]["scores"][name]
    assert api.get(f"/api/projects/{project.pk}/dots", {"open_in": "zip"}).status_code == 400


def test_how_the_grade_is_worked_out_with_examples(api: APIClient) -> None:
    told = api.get("/api/examples").json()
    assert list(told["examples"]) == list(MEASURE_NAMES)
    for examples in told["examples"].values():
        scores = [example["score"] for example in examples]
        assert scores == sorted(scores, reverse=True)
        assert scores[0] - scores[-1] > 15
        assert all(example["reasons"] for example in examples)


def test_what_is_no_name_is_told(api: APIClient, project: Project) -> None:
    response = api.get(f"/api/projects/{project.pk}/names/-ink")
    assert response.status_code == 400
    assert "hyphen" in response.json()["problems"][0]["message"]


def test_a_name_tells_what_was_so_before(api: APIClient, project: Project) -> None:
    def find(status: Status, at: datetime) -> None:
        said = Evidence("rdap", "registered" if status == "taken" else "unregistered", at)
        answer = Answer(FullName("inkpost", "com"), status, at, evidence=(said,))
        save_answers(project.pk, [answer])

    began = timezone.now().replace(microsecond=0)
    for day, status in enumerate(("open", "open", "taken")):
        find(cast(Status, status), began + timedelta(days=day))
    name = api.get(f"/api/projects/{project.pk}/names/inkpost").json()
    assert [c["status"] for c in name["cells"]] == ["taken"]
    assert [(h["status"], h["extension"]) for h in name["history"]] == [("open", "com")]
    assert datetime.fromisoformat(name["history"][0]["asked_at"]) == began + timedelta(days=1)
    assert (name["place"], name["note"], name["tags"]) == (None, "", [])
    keep(project=project, labels=["inkwell", "inkpost"])
    address = f"/api/projects/{project.pk}/shortlist/names/inkpost"
    assert api.patch(address, {"tags": ["Short", "short", "blue ink"]}).status_code == 200
    name = api.get(f"/api/projects/{project.pk}/names/inkpost").json()
    assert (name["place"], name["tags"]) == (2, ["short", "blue ink"])
    refused = api.patch(address, {"tags": ["x" * 31, ""]}).json()
    assert [p["path"] for p in refused["problems"]] == ["tags.0", "tags.1"]
