"""What there is of each kind of thing is served whole, and is what the front end's tests go by.

To write their files anew: DJANGO_SETTINGS_MODULE=vinetag.config.settings.test VINETAG_SECRET_KEY=x
python -m tests.apps.test_concepts
"""

import json
from pathlib import Path
from typing import Any, get_args

import pytest
from rest_framework.test import APIClient

from vinetag.core.checking import SOURCES, STATUS_KINDS, STATUSES, buyable
from vinetag.core.checking.statuses import Mark
from vinetag.core.concepts import (
    MEASURE_KINDS,
    PART_KINDS,
    PURPOSES,
    RECIPE_KINDS,
    PartName,
)
from vinetag.core.grade import MEASURES, PRESETS, weigh
from vinetag.core.make import RECIPES
from vinetag.core.make.variety import IN_ORDER, PLACES

TESTING = Path(__file__).parents[2] / "web/src/shared/testing"
SCORES: tuple[dict[str, float], ...] = (
    {
        "length": 90, "spelling": 15, "fit": 60, "sense": 30, "sound": 94, "memory": 40,
        "clarity": 100,
    },
    {"length": 55.5, "fit": 0, "sense": 88, "memory": 12.25},
    {"sense": 100},
    dict.fromkeys(PRESETS["mix"], 0.0),
)  # fmt: skip


def graded() -> list[dict[str, Any]]:
    """Scores and weights with the grade the server works out; measures without a score are null."""
    cases = []
    for scores in SCORES:
        for weights in (*PRESETS.values(), dict.fromkeys(PRESETS["mix"], 0)):
            document = {name: scores.get(name) for name in weights}
            cases.append({"scores": document, "weights": weights, "grade": weigh(scores, weights)})
    return cases


@pytest.mark.django_db
def test_the_front_end_is_tested_with_what_the_server_says() -> None:
    served = APIClient().get("/api/concepts").json()
    assert json.loads((TESTING / "concepts.json").read_text("utf-8")) == served
    kept = json.loads((TESTING / "graded.json").read_text("utf-8"))
    assert kept == json.loads(json.dumps(graded()))


def test_every_record_has_the_code_that_does_its_work() -> None:
    assert [m.name for m in MEASURES] == [k.name for k in MEASURE_KINDS]
    assert [r.name for r in RECIPES] == [k.name for k in RECIPE_KINDS]
    for kind in MEASURE_KINDS:
        assert set(kind.weights) == set(PURPOSES)
        assert kind.asks.endswith("?")
        assert all(text.endswith((".", "?")) for text in kind.how)
    groups = {kind.group for kind in RECIPE_KINDS}
    assert groups == set(IN_ORDER)
    assert all(set(places) == groups for places in PLACES.values())


def test_every_status_and_every_kind_of_part_is_complete() -> None:
    assert set(STATUS_KINDS) - {"waiting", "unasked"} == set(STATUSES)
    assert {kind.mark for kind in STATUS_KINDS.values()} <= set(get_args(Mark))
    assert buyable() == ("open", "premium")
    assert all(STATUS_KINDS[s].lifetime is not None for s in STATUSES)
    assert set(PART_KINDS) == set(get_args(PartName))
    css = (TESTING.parent / "ui/marks.css").read_text("utf-8")
    for mark in get_args(Mark):
        assert f".mark-{mark}::before" in css
        assert f"[data-mode='dark'] .mark-{mark}::before" in css


NAMES = {
    "statuses": set(STATUSES), "measures": {k.name for k in MEASURE_KINDS},
    "recipes": {k.name for k in RECIPE_KINDS}, "sources": set(SOURCES),
}  # fmt: skip


@pytest.mark.parametrize("kind", NAMES)
def test_the_front_end_repeats_no_list(kind: str) -> None:
    names = NAMES[kind]
    for path in TESTING.parents[1].rglob("*.ts*"):
        if "testing" in path.parts or path.name == "schema.d.ts" or ".spec." in path.name:
            continue
        found = {name for name in names if f"'{name}'" in path.read_text("utf-8")}
        assert len(found) < 0.7 * len(names), path


if __name__ == "__main__":
    from vinetag.apps.naming.api.concepts import document as served

    for name, document in (("concepts", served()), ("graded", graded())):
        text = json.dumps(document, indent=1, ensure_ascii=False) + "\n"
        (TESTING / f"{name}.json").write_text(text, "utf-8")
