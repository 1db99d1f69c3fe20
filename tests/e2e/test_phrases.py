"""What people look for, in a browser: a table is brought, put right, chosen from, and checked."""

from __future__ import annotations

import re
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.e2e.conftest import open_project

TABLE = (
    "Report of phrases\n"
    "Keyword\tAvg. monthly searches\tCompetition\tOwn column\n"
    "piano tuning\t1K – 10K\t0,45\ta\n"
    "tuning piano\t1K – 10K\t0,45\tb\n"
    "piano tuning qwzxvk\t90\t0,20\tc\n"
    "piano lessons\t5.400\t0,80\td\n"
    "grand piano\tmany\t\te\n"
    "Total\t15.000\t\t\n"
)


def test_phrases_are_brought_grouped_chosen_and_checked(
    page: Page, person: str, tmp_path: Path
) -> None:
    open_project(page, "Tuner", "piano")
    page.get_by_role("link", name="Phrases", exact=True).click()
    expect(page.get_by_text("No phrase is here yet")).to_be_visible()
    page.get_by_role("button", name="Bring phrases").click()
    dialog = page.get_by_role("dialog")
    table = tmp_path / "export.csv"
    table.write_bytes(TABLE.encode("utf-16"))
    dialog.get_by_label("A table of phrases").set_input_files(table)
    expect(dialog.get_by_text("UTF-16, the heading in line 2.")).to_be_visible()
    dialog.get_by_label("Country", exact=True).fill("IE")
    dialog.get_by_role("button", name="Bring the figures").click()

    phrases = page.get_by_role("table", name="Phrases")
    expect(phrases).to_contain_text("piano lessons")
    row = phrases.get_by_role("row").filter(has_text="+1 gathered")
    expect(row).to_contain_text("1,000 – 10,000")
    page.get_by_text("One file of figures").click()
    page.get_by_text("What was remarked").click()
    expect(page.get_by_text("line 7: “many” is no number of searches")).to_be_visible()
    expect(page.get_by_text("line 8: “total” sums the others up")).to_be_visible()

    page.get_by_label("Find in phrases").fill("tuning")
    expect(phrases.get_by_role("row")).to_have_count(3)
    for name in ("piano tuning", "piano tuning qwzxvk"):
        box = page.get_by_role("checkbox", name=f"Choose {name}", exact=True)
        box.click()
        expect(box).to_be_checked()
    page.get_by_role("button", name="Chosen ones of this page as keywords").click()
    expect(page.get_by_text(re.compile("2 keywords in the brief"))).to_be_visible()
    page.get_by_role("button", name="Undo").click()

    page.get_by_role("tab", name="Groups").click()
    head = page.get_by_role("region", name="The phrase that covers the rest")
    expect(head).to_contain_text("piano lessons")
    groups = page.get_by_role("list", name="Groups")
    groups.get_by_role("button", name="piano tuning", exact=True).click()
    expect(groups.get_by_role("table")).to_contain_text("piano tuning qwzxvk")
    page.get_by_role("button", name="Make “piano tuning” the head phrase").click()
    expect(page.get_by_text(re.compile("is the head phrase"))).to_be_visible()

    page.get_by_role("tab", name="As names (2)").click()
    names = page.get_by_role("table", name="Phrases as names")
    expect(names).to_contain_text("not asked")
    page.get_by_role("button", name="Check the forms").click()
    expect(names.get_by_role("link", name=re.compile(r"^pianotuningqwzxvk\."))).to_be_visible()

    # The bench knows them, too.
    page.get_by_role("link", name="Bench", exact=True).click()
    keywords = page.get_by_role("list", name="Keywords")
    expect(keywords.get_by_role("listitem").first).to_contain_text("piano tuning")
    expect(keywords).not_to_contain_text("qwzxvk")
    expect(page.get_by_role("button", name="Descriptive")).to_have_attribute("aria-pressed", "true")
