"""What names cost, in the browser: own sellers, coupons, a budget, files and the sheet."""

import csv
import re
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.e2e.conftest import open_project, send

LIST = "extension,action,price\ncom,register,1.50\ncom,renew,2\nnosuch,renew,9\n"


def keep(page: Page, *names: str) -> str:
    """A project with these on its shortlist; its address."""
    open_project(page, "Costs")
    project = re.sub(r"\?.*", "", page.url)
    number = project.rsplit("/", 1)[1]
    kept = send(page, "POST", f"/api/projects/{number}/shortlist", {"labels": list(names)})
    assert kept.ok, kept.text()
    return project


def test_a_seller_of_ones_own_is_cheapest_and_a_plan_is_taken_along(
    page: Page, person: str, tmp_path: Path
) -> None:
    project = keep(page, "vlorkinquelt.com", "quelnorvik.com")
    page.goto("/sellers")
    page.get_by_role("button", name="A seller of my own").click()
    page.get_by_label("Name", exact=True).fill("Quayside")
    page.get_by_role("combobox", name="Home country").click()
    page.get_by_role("option", name="Ireland").click()
    page.get_by_role("button", name="Keep it").click()
    mine = page.get_by_role("region", name="Quayside")
    mine.get_by_role("button", name="Bring a price list").click()
    page.get_by_role("textbox", name="The list").fill(LIST)
    page.get_by_role("button", name="Take it", exact=True).click()
    expect(page.get_by_text("line 4, extension")).to_be_visible()
    page.get_by_role("button", name="Take what is good").click()
    expect(page.get_by_text("2 lines were taken.")).to_be_visible()
    page.get_by_role("button", name="Done").click()
    page.goto(f"{project}/plan?country=IE&years=3")
    table = page.get_by_role("table", name="Costs")
    row = table.get_by_role("row").filter(has_text="vlorkinquelt.com")
    # Three years at once for €1.50 each, and 23 % tax.
    expect(row).to_contain_text("€5.54")
    expect(page.get_by_text("Sellers were asked for the prices")).to_be_visible()
    expect(page.get_by_role("list", name="The cheapest way")).to_contain_text("Quayside")
    expect(page.get_by_text("All 2 names over 3 years: €11.07.")).to_be_visible()
    # One more than is meant to be spent is held for protection, and is left out.
    page.get_by_label("Budget in all").fill("8")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Leave them out").click()
    expect(page.get_by_text("This name over 3 years: €5.54.")).to_be_visible()
    with page.expect_download() as taken:
        page.get_by_role("button", name="Export").click()
        page.get_by_role("menuitem", name=re.compile("^CSV")).click()
    taken.value.save_as(tmp_path / "plan.csv")
    rows = list(csv.DictReader((tmp_path / "plan.csv").read_text("utf-8-sig").splitlines()))
    assert {r["seller"] for r in rows} == {"Quayside"}
    assert {r["full name"] for r in rows} == {"vlorkinquelt.com", "all of the order"}
    page.get_by_role("link", name="On paper").click()
    expect(page.get_by_role("heading", name="To order today")).to_be_visible()
    # The sheet goes by it, too.
    page.goto(f"{project}?cols=grade,price,whole&sort=whole")
    expect(page.get_by_role("row").nth(1)).to_contain_text("€7.50")
    page.get_by_role("button", name="Filters").click()
    page.get_by_role("button", name="5 years").click()
    page.get_by_role("group", name="5 years at most").get_by_role("button").first.click()
    expect(page).to_have_url(re.compile("whole_max=10"))
    expect(page.get_by_role("row").nth(1)).to_contain_text("€7.50")


def test_a_coupon_that_did_not_work_leaves_the_plan(page: Page, person: str) -> None:
    project = keep(page, "vlorkinquelt.com")
    others = "lantern,quillgate,longacre,ninefold,hazel"
    page.goto(f"{project}/plan?country=IE&less={others}")
    coupons = page.get_by_role("list", name="Coupons").get_by_role("listitem")
    ten = coupons.filter(has_text="WEIR10")
    expect(ten).to_contain_text("in this plan")
    expect(ten).to_contain_text("6 reports")
    whole = page.get_by_role("status").filter(has_text="over 5 years")
    before = whole.inner_text()
    ten.get_by_role("button", name="WEIR10 did not work").click()
    expect(ten).to_contain_text("7 reports")
    expect(ten).not_to_contain_text("in this plan")
    expect(whole).not_to_have_text(before)
    page.get_by_role("button", name="Add one").click()
    page.get_by_label("Code").fill("HALF")
    page.get_by_label("%", exact=True).fill("50")
    page.get_by_role("button", name="Add it").click()
    expect(coupons.filter(has_text="HALF")).to_contain_text("in this plan")
    page.get_by_role("button", name="Take HALF away").click()
    expect(coupons.filter(has_text="HALF")).to_have_count(0)
    ten.get_by_role("button", name="WEIR10 did not work").click()
    expect(whole).to_have_text(before)


def test_a_likely_mistype_is_held_in_the_plan(page: Page, person: str) -> None:
    project = keep(page, "vlorkinquelt.com")
    page.goto(f"{project}/names/vlorkinquelt")
    typed = page.get_by_role("list", name="Typed by mistake")
    expect(typed).to_contain_text("not asked")
    expect(page.get_by_text("With whom they land is not known yet.")).to_be_visible()
    page.get_by_role("button", name="See who holds them").click()
    hold = typed.get_by_role("button", name=re.compile("^Hold ")).first
    name = (hold.get_attribute("aria-label") or "").removeprefix("Hold ")
    expect(page.get_by_text(re.compile("land with somebody"))).to_be_visible()
    hold.click()
    expect(typed).to_contain_text("held")
    page.get_by_role("link", name="Plan", exact=True).click()
    row = page.get_by_role("table", name="Costs").get_by_role("row").filter(has_text=name)
    expect(row).to_contain_text("held")
