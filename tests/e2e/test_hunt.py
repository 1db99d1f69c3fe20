"""Names others hold or let go, in the browser: hunted, filtered, kept, looked at; short names."""

import re
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.e2e.conftest import DATABASE, administer, open_project

LIST = """name,kind,price,currency,used_for
vlorkpaper.com,fixed,900,EUR,gambling
vlorkink.com,fixed,call,EUR,
"""


def test_what_markets_tell_is_hunted_and_kept(page: Page, person: str) -> None:
    open_project(page, "Hunting", "paper, ink")
    page.get_by_role("link", name="Hunt", exact=True).click()
    grid = page.get_by_role("grid", name="Offers and drops")
    # The lists of the simulation are fetched when the schedule first comes by.
    page.wait_for_timeout(500)
    for _ in range(30):
        if grid.count():
            break
        page.wait_for_timeout(2_000)
        page.reload()
    expect(grid.get_by_role("row").nth(5)).to_be_visible()
    page.get_by_role("button", name=re.compile("^auction ")).click()
    expect(page.get_by_role("status").filter(has_text="leaves")).to_be_visible()
    expect(grid.get_by_role("row").nth(1)).to_contain_text("auction")
    assert "kinds=auction" in page.url
    grid.get_by_role("button", name="Ends, drops").click()
    expect(grid.get_by_role("row").nth(1)).to_contain_text(re.compile(r"in \d+ (min|hr|day)"))
    panel = page.get_by_role("complementary", name="The name")
    name = panel.get_by_role("heading").inner_text()
    panel.get_by_role("button", name="Keep").click()
    expect(panel.get_by_role("button", name="On the shortlist")).to_be_visible()
    # By the arrows to the next one, and back.
    grid.focus()
    page.keyboard.press("ArrowDown")
    expect(panel.get_by_role("heading")).not_to_have_text(name)
    page.keyboard.press("ArrowUp")
    expect(panel.get_by_role("heading")).to_have_text(name)
    panel.get_by_role("link", name="Everything about it").click()
    offered = page.get_by_role("region", name="Offered or let go")
    expect(offered).to_contain_text("auction at")
    page.get_by_role("link", name="Shortlist", exact=True).click()
    expect(page.get_by_role("main")).to_contain_text(name.split(".")[0])


def test_an_administrator_brings_a_list_and_is_told_what_was_wrong(
    page: Page, person: str, tmp_path: Path
) -> None:
    table = f"{DATABASE}.accounts_user"
    administer(f"UPDATE {table} SET is_staff = 1 WHERE username = '{person}'")  # noqa: S608 - ours
    open_project(page, "Fair", "paper, ink")
    page.get_by_role("link", name="Hunt", exact=True).click()
    page.get_by_text(re.compile("^From .* markets|^No market")).click()
    page.get_by_label("Short name of the market").fill("vlork")
    file = tmp_path / "list.csv"
    file.write_text(LIST, "utf-8")
    page.get_by_label(re.compile("^A list of offers or drops")).set_input_files(file)
    told = page.get_by_role("list", name="Lists that came")
    expect(told).to_contain_text("1 name: 1 new")
    told.get_by_text("What was wrong").first.click()
    expect(told).to_contain_text("line 3, price: “call” is no price")
    page.goto(re.sub(r"\?.*", "", page.url) + "?text=vlork")
    grid = page.get_by_role("grid", name="Offers and drops")
    expect(grid.get_by_role("row").nth(1)).to_contain_text("€900")
    expect(page.get_by_role("alert")).to_contain_text("gambling")


def test_short_names_are_gone_through_and_asked_about(page: Page, person: str) -> None:
    open_project(page, "Short", "paper, ink")
    page.goto(re.sub(r"\?.*", "", page.url) + "/short?shape=qCV&extensions=com,net")
    table = page.get_by_role("table", name="Short names")
    expect(table.get_by_role("row").nth(1)).to_contain_text("qba")
    expect(page.get_by_text("105 of 105 names")).to_be_visible()
    page.get_by_label("Has letters").fill("zu")
    expect(page.get_by_text("1 of 1 names")).to_be_visible()
    page.get_by_role("button", name="Ask about those in view").click()
    expect(table.get_by_role("row").nth(1)).to_contain_text("taken")
    page.get_by_label("C, V, ? or letters").fill("CVCVCV")
    expect(page.get_by_text("“CVCVCV” is none.")).to_be_visible()
