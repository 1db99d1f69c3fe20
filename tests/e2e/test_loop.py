"""The whole loop in a real browser: words in, names made, checked, kept, exported."""

import csv
import re
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.conftest import Registry
from tests.e2e.conftest import PASSWORD, Site, new_project, open_project, whole


def row(page: Page, label: str):
    return page.get_by_role("row").filter(has=page.get_by_role("rowheader", name=label, exact=True))


def test_the_loop_by_mouse(page: Page, registry: Registry, tmp_path: Path) -> None:
    page.goto("/")
    page.get_by_role("button", name="Make an account").first.click()
    page.get_by_label("Name", exact=True).fill("tessa")
    page.get_by_label("Password").fill(PASSWORD)
    page.get_by_role("button", name="Make the account").click()
    expect(page.get_by_text("Nothing is being named yet")).to_be_visible()
    new_project(page, "Pressroom", "ink, post, paper")
    page.get_by_role("button", name="Put it away").click()
    page.get_by_label("Has letters").fill("inkpost")
    expect(row(page, "inkpost")).to_be_visible()
    page.get_by_label("Has letters").fill("")
    page.get_by_role("button", name="Check the best 200").click()
    expect(page.get_by_text("600 answers")).to_be_visible(timeout=60_000)
    grid = page.get_by_role("grid", name="Names")
    expect(grid.get_by_text("open", exact=True).nth(6)).to_be_visible()
    assert grid.get_by_text("taken", exact=True).count() > 5
    page.get_by_role("button", name="Filters").click()
    filters = page.get_by_role("complementary", name="Filters")
    choice = filters.get_by_role("group", name="Open in").get_by_role("button", name=".com")
    expect(choice).to_have_text(re.compile(r"\.com \d"))
    left = int(choice.inner_text().split(" ")[1].replace(",", ""))
    with page.expect_response(re.compile("open_in=com")):
        choice.click()
    expect(filters.get_by_role("status")).to_have_text(f"leaves {left} names")
    expect(grid).to_have_attribute("aria-rowcount", str(left + 1))
    filters.get_by_role("button", name="Back to the words").click()
    expect(grid).to_have_attribute("aria-busy", "false")
    first = grid.get_by_role("rowheader").first.inner_text()
    grid.get_by_role("rowheader").first.click()
    reasons = page.get_by_role("complementary", name="Reasons")
    expect(reasons.get_by_role("heading", name=f"{first}.com")).to_be_visible()
    reasons.get_by_role("button", name="Who says so").first.click()
    expect(reasons.get_by_text("Registry (RDAP) has no such registration.")).to_be_visible()
    reasons.get_by_role("button", name="Keep").click()
    expect(reasons.get_by_role("button", name="On the shortlist")).to_be_visible()
    page.get_by_role("button", name=re.compile("shortlisted")).click()
    expect(page.get_by_role("rowheader")).to_have_count(1)
    page.get_by_role("link", name="Shortlist").click()
    note = page.get_by_label(f"Note on {first}")
    note.fill("=1+1 is no reason")
    expect(page.get_by_text("saved", exact=True)).to_be_visible()
    with page.expect_download() as download:
        page.get_by_role("button", name="Export").click()
        page.get_by_role("menuitem", name="CSV").click()
    path = tmp_path / "shortlist.csv"
    download.value.save_as(path)
    with path.open(encoding="utf-8-sig", newline="") as opened:
        [exported] = csv.DictReader(opened)
    assert (exported["name"], exported[".com"]) == (first, "open")
    assert exported["note"] == "'=1+1 is no reason"
    page.reload()
    expect(note).to_have_value("=1+1 is no reason")


def test_the_bench_by_keyboard(page: Page, person: str) -> None:
    new_project(page, "Night", "night, sky")
    grid = page.get_by_role("grid", name="Names")
    grid.focus()
    names = grid.get_by_role("rowheader").all_inner_texts()
    chosen = grid.locator("[aria-selected=true]")
    expect(chosen).to_contain_text(names[0])
    page.keyboard.press("ArrowDown")
    page.keyboard.press("ArrowDown")
    expect(chosen).to_contain_text(names[2])
    page.keyboard.press("t")
    expect(chosen.get_by_role("button", name=f"Take {names[2]} off the shortlist")).to_be_attached()
    page.keyboard.press("ArrowUp")
    page.keyboard.press(" ")
    page.keyboard.press("c")
    expect(page.get_by_text("3 answers")).to_be_visible(timeout=60_000)
    expect(chosen.get_by_text(re.compile("^(open|taken)$")).first).to_be_visible()
    page.keyboard.press("End")
    expect(chosen).to_have_count(1)
    expect(chosen).not_to_contain_text(names[1])
    page.keyboard.press("Home")
    expect(chosen).to_contain_text(names[0])
    for key in ("o", "ArrowRight", "ArrowRight", "Enter"):
        page.keyboard.press(key)
    expect(page).to_have_url(re.compile("sort=letters"))
    expect(grid.get_by_role("columnheader", name="Letters")).to_have_attribute(
        "aria-sort", "ascending"
    )
    page.keyboard.press("Shift+ArrowRight")
    expect(page).to_have_url(re.compile("widths=letters"))
    page.keyboard.press("Enter")
    page.keyboard.press("Enter")
    expect(page).not_to_have_url(re.compile("sort=letters"))
    page.keyboard.press("ArrowDown")
    expect(grid).to_be_focused()
    expect(grid.get_by_role("rowheader").first).to_have_text(names[0])
    page.keyboard.press("Home")
    expect(chosen).to_contain_text(names[0])
    page.keyboard.press("?")
    expect(page.get_by_role("dialog", name="Keys of the bench")).to_be_visible()
    page.keyboard.press("Escape")
    page.keyboard.press("/")
    page.keyboard.type("quiet")
    expect(grid.get_by_role("rowheader").first).to_contain_text("quiet")
    for header in grid.get_by_role("rowheader").all_inner_texts():
        assert "quiet" in header
    page.keyboard.press("Escape")
    expect(page).not_to_have_url(re.compile("text="))
    page.get_by_role("link", name="Shortlist").press("Enter")
    kept = page.get_by_role("list", name="Shortlist").get_by_role("heading")
    expect(kept).to_have_text([names[2], names[1]])
    page.get_by_label(f"Note on {names[1]}").press("Alt+ArrowUp")
    expect(kept).to_have_text([names[1], names[2]])
    page.reload()
    expect(kept).to_have_text([names[1], names[2]])
    page.get_by_role("button", name=f"Take {names[1]} off the shortlist").press("Enter")
    expect(kept).to_have_text([names[2]])
    page.get_by_role("button", name="Undo").press("Enter")
    expect(kept).to_have_text([names[1], names[2]])


def test_words_recipes_and_near_names(page: Page, person: str) -> None:
    new_project(page, "Words", "tune, bycicle")
    expect(page.get_by_text("Did you mean")).to_be_visible()
    page.get_by_role("button", name="bicycle", exact=True).click()
    expect(page.get_by_text("Did you mean")).to_have_count(0)
    expect(page.get_by_text("Brief · saved")).to_be_visible()
    page.get_by_role("button", name="tune", exact=True).click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_role("button", name="melody", exact=True).click()
    dialog.get_by_role("button", name="Done").click()
    keywords = page.get_by_role("list", name="Keywords")
    expect(keywords).to_contain_text("melody")
    expect(page.get_by_text("Brief · saved")).to_be_visible()
    page.get_by_role("switch", name="pair").click()
    expect(page.get_by_text("Brief · saved")).to_be_visible()
    grid = page.get_by_role("grid", name="Names")
    whole(page)
    names = grid.get_by_role("rowheader").all_inner_texts()
    grid.focus()
    page.keyboard.press("Home")
    page.keyboard.press("x")
    expect(page.get_by_role("rowheader", name=names[0], exact=True)).to_have_count(0)
    expect(page.get_by_role("region", name="Dismissed")).to_contain_text(names[0])
    page.get_by_role("button", name="Undo", exact=True).click()
    expect(page.get_by_role("rowheader", name=names[0], exact=True)).to_be_visible()
    page.get_by_label("Try any name").fill("inkpost")
    page.get_by_label("Try any name").press("Enter")
    reasons = page.get_by_role("complementary", name="Reasons")
    expect(reasons.get_by_role("heading", name="inkpost.com")).to_be_visible()
    reasons.get_by_role("button", name="Vary").click()
    near = reasons.get_by_role("list", name="Near names")
    expect(near.get_by_role("listitem").first).to_be_visible()
    assert near.get_by_role("listitem").count() >= 60
    reasons.get_by_role("button", name="Check them").click()
    expect(near.get_by_text(re.compile("^(open|taken)$")).first).to_be_visible(timeout=60_000)


def test_grades_figures_weights_and_dots(page: Page, person: str) -> None:
    new_project(page, "Grades", "ink, post, paper")
    field = page.get_by_label("Try any name")
    field.fill("knightsky4u")
    expect(page.get_by_text("Enter shows why.")).to_be_visible()
    field.press("Enter")
    reasons = page.get_by_role("complementary", name="Reasons")
    warned = reasons.get_by_role("list", name="Warnings")
    expect(warned).to_contain_text("“knight” sounds like “night”")
    expect(warned).to_contain_text("“4” is a digit or a word")
    wrong = reasons.get_by_role("list", name="Likely misspellings")
    expect(wrong.get_by_role("listitem").first).to_contain_text("nightsky4u")
    field.fill("ink post")
    expect(field).to_have_attribute("aria-invalid", "true")
    expect(field).to_have_value("ink post")
    field.press("Escape")

    page.get_by_role("button", name="Figures").click()
    grid = page.get_by_role("grid", name="Names")
    with page.expect_response(re.compile("sort=memory")):
        grid.get_by_role("button", name="Memory").click()
    expect(grid).to_have_attribute("aria-busy", "false")
    best = grid.get_by_role("rowheader").first.inner_text()
    page.reload()
    expect(grid.get_by_role("rowheader").first).to_have_text(best)
    top = grid.get_by_role("rowheader").first
    for address in ("reverse=1", r"projects/\d+\?cols="):  # turned, then the best first again
        grid.get_by_role("button", name="Memory").click()
        expect(page).to_have_url(re.compile(address))
        expect(top).not_to_have_text(best)
        expect(grid).to_have_attribute("aria-busy", "false")
        best = top.inner_text()

    grades = grid.get_by_role("row").nth(1).get_by_role("gridcell").nth(1)
    names, grade = grid.get_by_role("rowheader").all_inner_texts(), grades.inner_text()
    for measure in ("fit", "sense", "length", "clarity", "sound", "spelling"):
        slider = page.get_by_role("slider", name=re.compile(f"Weight of .*{measure}"))
        slider.focus()
        slider.press("Home")
    expect(page.get_by_text("Brief · saved")).to_be_visible()
    expect(grid).to_have_attribute("aria-busy", "false")
    row = grid.get_by_role("row").nth(1).get_by_role("gridcell")
    expect(row.nth(1)).to_have_text(row.nth(8).inner_text())  # memory alone counts
    assert grid.get_by_role("rowheader").all_inner_texts() != names
    page.get_by_role("button", name="Usual weights").click()
    expect(grid.get_by_role("rowheader").first).to_have_text(names[0])
    expect(grades).to_have_text(grade)
    expect(page.get_by_text("Brief · saved")).to_be_visible()

    page.get_by_role("button", name="Dots").click()
    plot = page.get_by_role("application", name=re.compile("Grade against Letters"))
    plot.focus()
    told = page.locator("#dot-told")
    page.keyboard.press("ArrowRight")
    expect(told).to_have_text(re.compile(r"^[\w-]+: letters \d+, grade \d+$"))
    name = told.inner_text().split(":")[0]
    page.keyboard.press("ArrowLeft")
    expect(told).not_to_contain_text(f"{name}:")
    name = told.inner_text().split(":")[0]
    expect(reasons.get_by_role("heading", name=f"{name}.com")).to_be_visible()

    dots = plot.locator("circle")
    for box in [dots.nth(i).bounding_box() for i in (0, 40, 200)]:
        assert box is not None
        # Away first: what is pointed at is told when the pointer moves.
        page.mouse.move(box["x"] + 60, box["y"] + 60)
        page.mouse.click(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
        # What is told of the dot pointed at and what was chosen come to be the same name.
        for _ in range(100):
            name = told.inner_text().split(":")[0]
            if reasons.get_by_role("heading", name=f"{name}.com").count():
                break
            page.wait_for_timeout(50)
        expect(reasons.get_by_role("heading", name=f"{name}.com")).to_be_visible()
        ring = dots.last.bounding_box()
        assert ring is not None
        for side, extent in (("x", "width"), ("y", "height")):
            assert abs(ring[side] + ring[extent] / 2 - box[side] - box[extent] / 2) < 15

    reasons.get_by_role("link", name="Spelling").click()
    expect(page.get_by_role("heading", name="How grades are worked out")).to_be_visible()
    expect(page.get_by_role("list", name="Examples of spelling")).to_contain_text("klaypress")


def test_a_killed_worker_loses_nothing(
    page: Page, person: str, registry: Registry, site: Site
) -> None:
    open_project(page, "Slow", "garden, bread, river")
    registry.faults(kind="slow", seconds=0.8)
    page.get_by_role("button", name="Check the best 200").click()
    progress = page.get_by_role("progressbar", name="Names checked")
    expect(progress).not_to_have_attribute("aria-valuenow", "0", timeout=60_000)
    site.kill_worker()
    page.wait_for_timeout(1_000)
    before = int(
        page.get_by_text(re.compile("answered")).inner_text().split(" ")[0].replace(",", "")
    )
    assert 0 < before < 600
    registry.faults()
    served = registry.served
    site.start_worker()
    expect(page.get_by_text("600 answers")).to_be_visible(timeout=60_000)
    assert registry.served - served <= 600 - before


def test_a_check_can_be_stopped_and_failures_are_told(
    page: Page, person: str, registry: Registry
) -> None:
    open_project(page, "Stop", "copper, linen")
    registry.faults(kind="slow", seconds=0.8)
    page.get_by_role("button", name="Check the best 200").click()
    progress = page.get_by_role("progressbar", name="Names checked")
    expect(progress).not_to_have_attribute("aria-valuenow", "0", timeout=60_000)
    page.get_by_role("button", name="Stop", exact=True).click()
    expect(page.get_by_text("Stopped after")).to_be_visible()
    expect(page.get_by_role("grid").get_by_text("waiting")).to_have_count(0)
    # What was under way comes in first: a host that fails so often is waited for, for minutes.
    registry.faults()
    page.wait_for_timeout(2_000)
    registry.stop()
    try:
        reasons = page.get_by_role("complementary", name="Reasons")
        # The last name: the check may have come to any of the first before it was stopped.
        first = page.get_by_role("row", selected=True).inner_text()
        page.get_by_role("grid").focus()
        page.keyboard.press("End")
        # Keys do nothing for a row that has not come yet.
        expect(page.get_by_role("row", selected=True)).not_to_have_text(first)
        expect(page.get_by_role("row", selected=True)).to_contain_text("not asked")
        expect(reasons.get_by_role("list", name="Statuses")).to_contain_text("not asked")
        page.keyboard.press("c")
        why = "could not be re|(did|has) not answer|no usable answer"
        told = reasons.get_by_text(re.compile(why))
        expect(told.first).to_be_visible(timeout=60_000)
        assert reasons.get_by_text("open", exact=True).count() == 0
    finally:
        registry.start()
    # They are let alone for a while; asked again after that, they answer.
    settled = reasons.get_by_role("list", name="Statuses").get_by_text(re.compile("^(open|taken)$"))
    for _ in range(30):
        page.get_by_role("grid").focus()
        page.keyboard.press("c")
        page.wait_for_timeout(2_000)
        if settled.count() == 3:
            return
    raise AssertionError("the registries were back, and nobody asked them")


def test_a_list_is_pasted_checked_and_taken_away(
    page: Page, person: str, registry: Registry, tmp_path: Path
) -> None:
    open_project(page, "Pasted")
    page.get_by_role("link", name="Check a list").click()
    field = page.get_by_role("textbox", name="Names or full names")
    names = tmp_path / "names.csv"
    names.write_text("name,note\nqwzxvkjhqp,mine\nhttps://www.letter.com/x,theirs\n-x,bad\n")
    page.get_by_label("File of names").set_input_files(names)
    expect(field).to_have_value(re.compile("letter.com"))
    page.get_by_role("button", name="Take and check").click()
    expect(page.get_by_role("list", name="Passed over")).to_contain_text("Line 4, “-x”")
    table = page.get_by_role("grid", name="Pasted names")
    expect(table.get_by_text("open", exact=True)).to_have_count(3)
    expect(table.get_by_text("taken", exact=True)).to_have_count(1)
    page.get_by_role("button", name="taken 1").click()
    expect(table.get_by_role("rowheader")).to_have_text(["letter"])
    page.get_by_role("button", name="Export").click()
    with page.expect_download() as download:
        page.get_by_role("menuitem", name="JSON").click()
    assert '"status": "taken"' in Path(download.value.path()).read_text("utf-8")
    page.get_by_role("button", name="Empty").click()
    expect(page.get_by_text("No names pasted yet")).to_be_visible()


def test_a_typed_name_a_cell_and_the_ladder(page: Page, person: str, registry: Registry) -> None:
    open_project(page, "Typed")
    typed = page.get_by_label("Try any name")
    typed.fill("lette")
    typed.fill("letter")
    told = page.get_by_role("status", name="Statuses of letter", exact=True)
    expect(told.get_by_text("taken").first).to_be_visible()
    typed.press("Escape")
    grid = page.get_by_role("grid", name="Names")
    grid.get_by_title(re.compile(r"\.net: never asked")).first.click()
    expect(grid.get_by_text(re.compile("^(open|taken)$")).first).to_be_visible()
    expect(page.get_by_text("1 answer, just now.")).to_be_visible()
    page.get_by_role("button", name="If taken").click()
    page.get_by_role("button", name="Check them").click()
    ladder = page.get_by_role("list", name="Fallback order")
    expect(page.get_by_text(re.compile("^First open|^None of these"))).to_be_visible()
    expect(ladder.get_by_text("not asked")).to_have_count(0)
    grid.focus()
    page.keyboard.press("Shift+ArrowDown")
    page.keyboard.press("Shift+ArrowDown")
    expect(page.get_by_text("3 marked")).to_be_visible()
    page.get_by_role("button", name="What else to check").click()
    page.get_by_role("menuitem", name="the 3 names marked").click()
    expect(page.get_by_text(re.compile("answered|answers, just now"))).to_be_visible()
