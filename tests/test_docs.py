"""What the documents say is there."""

import re
from pathlib import Path

import pytest
from django.apps import apps

from scripts.build_schemas import schemas, written

ROOT = Path(__file__).parents[1]
PAGES = [ROOT / "README.md", *sorted((ROOT / "docs").glob("*.md"))]
LINK = re.compile(r"\]\((?!http|#)([^)#]+)")
CODE = re.compile(r"`((?:core|apps|lookup|config|standins|scripts|tests|web|ops|docs)/[\w./-]+)`")
# Where a path of the documents may begin.
BEFORE = ("", "vinetag", "web/src", "vinetag/core", "vinetag/apps")


@pytest.mark.parametrize("page", PAGES, ids=lambda page: page.name)
def test_what_a_page_points_to_exists(page: Path) -> None:
    text = page.read_text("utf-8")
    missing = [link for link in LINK.findall(text) if not (page.parent / link).exists()]
    for path in CODE.findall(text):
        if not any((ROOT / before / path).exists() for before in BEFORE):
            missing.append(path)
    assert not missing


def test_the_picture_of_the_data_shows_every_table() -> None:
    text = (ROOT / "docs/data.md").read_text("utf-8")
    ours = [m for m in apps.get_models() if m.__module__.startswith("vinetag.")]
    assert len(ours) >= 15
    assert [m.__name__ for m in ours if f"`{m.__name__}`" not in text] == []
    picture = text[text.index("erDiagram") : text.index("```", text.index("erDiagram"))]
    assert [m.__name__ for m in ours if m.__name__ not in picture] == []


def test_the_schemas_are_those_of_the_models() -> None:
    made = {name: written(schema) for name, schema in schemas().items()}
    docs = [p for p in (ROOT / "docs").glob("*.json") if p.name != "openapi.json"]
    assert made == {p.name: p.read_text("utf-8") for p in docs}


def test_every_setting_is_in_the_documents() -> None:
    pages = "".join(page.read_text("utf-8") for page in PAGES)
    listed = set(re.findall(r"VINETAG_[A-Z_]+", pages))
    read: set[str] = set()
    for name in ("config/settings/base.py", "lookup/settings.py"):
        read |= set(
            re.findall(r'"(VINETAG_[A-Z_]+)"', (ROOT / "vinetag" / name).read_text("utf-8"))
        )
    covered = {name for name in read if any(name.startswith(known) for known in listed)}
    assert read - covered - {"VINETAG_DB_NAME"} == set()
