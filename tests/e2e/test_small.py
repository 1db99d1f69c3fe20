"""Small and zoomed windows: one part of the bench at a time, nothing over anything else."""

import re

from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page, expect

from tests.e2e.conftest import open_project, send

# A telephone; 200 % of a usual window, lying and standing; 400 % (WCAG 1.4.10).
SIZES = [(390, 844), (640, 400), (640, 800), (320, 256)]
PARTS = ("Words", "Names", "Reasons")


def over(page: Page) -> list[str]:
    """Buttons and fields in view whose middle something else covers."""
    found: list[str] = page.evaluate(
        """() => [...document.querySelectorAll('main button, main input, header a')].filter(e => {
  const r = e.getBoundingClientRect();
  const x = r.x + r.width / 2, y = r.y + r.height / 2;
  if (!r.width || x < 0 || y < 0 || x > innerWidth || y > innerHeight) return false;
  const top = document.elementFromPoint(x, y);
  const scrolled = e.closest('[role=grid], aside');
  return top && !e.contains(top) && !top.contains(e) && !scrolled;
}).map(e => e.textContent || e.getAttribute('aria-label'))"""
    )
    return found


def test_the_bench_at_every_size(page: Page, person: str) -> None:
    open_project(page, "Small")
    assert page.title() == "Bench · Small · Vine Tag"
    for width in (1180, 1100, 1000):  # between a telephone and a desk
        page.set_viewport_size({"width": width, "height": 800})
        assert over(page) == [], width
    switch = page.get_by_role("group", name="Part of the bench")
    for width, height in SIZES:
        page.set_viewport_size({"width": width, "height": height})
        for part in PARTS:
            switch.get_by_role("button", name=part).click()
            assert page.evaluate("document.querySelector('#page').scrollWidth") <= width, part
            page.evaluate("document.querySelector('#page').scrollTo(0, 0)")
            assert over(page) == [], (width, height, part)
        switch.get_by_role("button", name="Names").click()
        assert page.get_by_role("grid", name="Names").bounding_box()["height"] > 100
        switch.get_by_role("button", name="Reasons").click()
        assert page.get_by_role("complementary", name="Reasons").bounding_box()["height"] > 180
    page.set_viewport_size({"width": 390, "height": 844})
    switch.get_by_role("button", name="Names").click()
    grid = page.get_by_role("grid", name="Names")
    second = grid.get_by_role("rowheader").nth(1)
    name = second.inner_text()
    second.click()
    page.get_by_role("button", name="Why", exact=True).first.click()
    expect(page.get_by_role("heading", level=2, name=name)).to_be_visible()
    switch.get_by_role("button", name="Names").click()
    page.get_by_role("button", name="More", exact=True).click()
    more = page.get_by_role("dialog", name="More of the sheet")
    more.get_by_role("button", name="Dots").click()
    page.keyboard.press("Escape")
    expect(page.get_by_label("Upwards")).to_be_visible()
    page.get_by_role("button", name="Filters").click()
    expect(page.get_by_role("complementary", name="Filters")).to_be_visible()
    page.get_by_role("button", name="See the names").click()
    for violation in Axe().run(page).response["violations"]:
        assert violation["impact"] not in ("serious", "critical"), violation["help"]


def test_one_finds_ones_place_again(page: Page, person: str) -> None:
    open_project(page, "Places")
    grid = page.get_by_role("grid", name="Names")
    grid.focus()
    for _ in range(3):
        page.keyboard.press("PageDown")
    reasons = page.get_by_role("complementary", name="Reasons").get_by_role("heading", level=2)
    chosen = grid.locator("[aria-selected=true] [role=rowheader]")
    first = grid.get_by_role("rowheader").first.inner_text()
    expect(chosen).not_to_have_text(first)
    name = chosen.inner_text()
    expect(reasons).to_contain_text(name)
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", level=1)).to_contain_text(name)
    assert page.title().startswith(f"{name} · Places")
    page.go_back()
    expect(page.get_by_role("rowheader", name=name, exact=True)).to_be_visible()
    expect(reasons).to_contain_text(name)
    page.get_by_role("link", name="Read one by one").click()
    expect(page.get_by_role("heading", level=1)).to_contain_text(name)
    page.go_back()
    # Sorting is a step: the way back takes it back, and no more.
    page.get_by_role("columnheader", name="Letters").get_by_role("button").click()
    expect(page).to_have_url(re.compile("sort=letters"))
    page.go_back()
    expect(page).not_to_have_url(re.compile("sort=letters"))
    expect(grid).to_be_visible()


def test_two_windows_on_one_brief(page: Page, person: str) -> None:
    open_project(page, "Twice", "ink")
    other = page.context.new_page()
    other.goto(page.url)
    expect(other.get_by_role("rowheader").first).to_be_visible()
    for window, word in ((page, "paper"), (other, "quill")):
        window.get_by_label("Add words").fill(word)
        window.get_by_label("Add words").press("Enter")
        if window is page:
            expect(page.get_by_text("Brief · saved")).to_be_visible()
    expect(other.get_by_text("changed in another window")).to_contain_text("paper")
    other.get_by_role("button", name="Take theirs").click()
    expect(other.get_by_role("list", name="Keywords")).to_contain_text("paper")
    expect(other.get_by_text("Brief · saved")).to_be_visible()
    other.close()


def test_a_session_that_ended_elsewhere_loses_nothing(page: Page, person: str) -> None:
    open_project(page, "Ended", "ink")
    send(page, "POST", "/api/session/sign-out", {})
    page.get_by_label("Add words").fill("paper")
    page.get_by_label("Add words").press("Enter")
    dialog = page.get_by_role("dialog", name="Your session has ended")
    dialog.get_by_label("Password").fill("quiet-ink-post")
    dialog.get_by_role("button", name="Go on").click()
    expect(page.get_by_text("Brief · saved")).to_be_visible()
    expect(page.get_by_role("list", name="Keywords")).to_contain_text("paper")
