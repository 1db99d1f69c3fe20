"""A shortlist looked at from outside, in the browser: begun, stopped, read, accepted, held, taken
along; registers brought by an administrator.
"""

import csv
import re
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.e2e.conftest import DATABASE, Site, administer, open_project, send

LIST = "extension,action,price\ncom,register,9\ncom,renew,11\n"
REGISTER = """number,word,owner,classes,status
X1,Vlorkinkwelt,Kestleby Works,16,registered
X2,Broken Line,Kestleby Works,99,registered
"""


def shortlisted(page: Page, *names: str) -> str:
    """A project with these on its shortlist; the address of its vetting."""
    open_project(page, "Vetting", "paper, ink")
    project = re.sub(r"\?.*", "", page.url)
    number = project.rsplit("/", 1)[1]
    kept = send(page, "POST", f"/api/projects/{number}/shortlist", {"labels": list(names)})
    assert kept.ok, kept.text()
    return f"{project}/vetting"


def test_a_shortlist_is_vetted_read_accepted_and_held(
    page: Page, person: str, tmp_path: Path
) -> None:
    where = shortlisted(page, "inkpost.com", "vlorkinquelt.ie")
    seller = {"name": "Quayside", "country": "IE", "currency": "EUR"}
    made = send(page, "POST", "/api/sellers", {"terms": seller, "everybody": False}).json()
    [mine] = [one["code"] for one in made["sellers"] if one["name"] == "Quayside"]
    assert send(page, "PUT", f"/api/sellers/{mine}/prices", {"text": LIST, "take": "whole"}).ok
    page.goto(where)
    expect(page.get_by_text(re.compile(r"6,000 marks, 24 platforms and a search"))).to_be_visible()
    page.get_by_role("button", name="Vet 2 names").click()
    table = page.get_by_role("table", name="Findings")
    # Of the demo's register: it sounds the same.
    stop = table.get_by_role("button", name="Marks of inkpost.com: Stop")
    expect(stop).to_be_visible(timeout=30_000)
    expect(page.get_by_role("button", name="Vet 2 names")).to_be_visible(timeout=40_000)
    expect(table.get_by_text("not vetted")).to_have_count(0)
    stop.click()
    marks = page.get_by_role("region", name="Marks")
    expect(marks).to_contain_text("“Inkpoast”")
    expect(marks.get_by_role("table")).to_contain_text("Saltley Register of Marks")
    marks.get_by_role("button", name=re.compile("^Accept")).click()
    page.get_by_label("Why it is accepted").fill("They sell jam.")
    page.keyboard.press("Enter")
    expect(marks).to_contain_text("Seen and accepted: They sell jam.")
    # The name's page and the shortlist know of it.
    page.get_by_role("link", name="Everything about it").click()
    vetting = page.get_by_role("region", name="Vetting")
    expect(vetting).to_contain_text("Marks, accepted")
    page.go_back()
    expect(page.get_by_role("table", name="Handles on platforms")).to_contain_text("Larkwire")
    # What is worth holding goes into the plan beside the shortlist.
    page.get_by_role("link", name=re.compile("^Into the plan with")).click()
    costs = page.get_by_role("table", name="Costs")
    expect(costs.get_by_role("row").filter(has_text="incpost.com")).to_be_visible()
    page.goto(where)
    with page.expect_download() as taken:
        page.get_by_role("button", name="Export").click()
        page.get_by_role("menuitem", name=re.compile("^CSV")).click()
    taken.value.save_as(tmp_path / "vetting.csv")
    rows = list(csv.DictReader((tmp_path / "vetting.csv").read_text("utf-8-sig").splitlines()))
    accepted = [row for row in rows if row["accepted"] == "yes"]
    assert {(row["full name"], row["kind"], row["note"]) for row in accepted} == {
        ("inkpost.com", "Marks", "They sell jam.")
    }
    page.get_by_role("link", name="On paper").click()
    expect(page.get_by_role("heading", name="inkpost.com")).to_be_visible()


def test_it_goes_on_where_a_worker_died(page: Page, person: str, site: Site) -> None:
    where = shortlisted(page, *(f"vlorkin{end}" for end in ("dal", "mor", "tesk", "wick")))
    page.goto(where)
    site.kill_worker()
    page.get_by_role("button", name="Vet 4 names").click()
    expect(page.get_by_text(re.compile("no worker has taken it up"))).to_be_visible(timeout=15_000)
    site.start_worker()
    expect(page.get_by_role("button", name="Vet 4 names")).to_be_visible(timeout=60_000)
    expect(page.get_by_role("table", name="Findings").get_by_text("not vetted")).to_have_count(0)


def test_any_name_is_vetted_and_an_odd_one_told_of(page: Page, person: str) -> None:
    page.goto(shortlisted(page))
    expect(page.get_by_text("Nothing to vet yet")).to_be_visible()
    field = page.get_by_label("Another name")
    field.fill("ink post!")
    page.keyboard.press("Enter")
    expect(page.get_by_text(re.compile("cannot contain “ ”"))).to_be_visible()
    expect(field).to_have_value("ink post!")
    field.fill("gift.com")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="gift.com")).to_be_visible()
    abroad = page.get_by_role("region", name="Elsewhere in the world")
    expect(abroad).to_contain_text("means “poison” in German", timeout=30_000)


def test_an_administrator_brings_a_register(page: Page, person: str, tmp_path: Path) -> None:
    administer_staff(person)
    page.goto(shortlisted(page, "vlorkinquelt.com"))
    page.get_by_text("Registers and platforms everybody’s names are vetted by").click()
    (tmp_path / "marks.csv").write_text(REGISTER)
    page.get_by_label("A register of marks: CSV, or XML after WIPO ST.96").set_input_files(
        tmp_path / "marks.csv"
    )
    brought = page.get_by_role("list", name="Registers brought").get_by_role("listitem").first
    expect(brought).to_contain_text("1 mark taken, 1 place left out", timeout=30_000)
    brought.get_by_text("What was wrong").click()
    expect(brought).to_contain_text("line 3, classes")
    page.get_by_role("button", name="Vet the name").click()
    found = page.get_by_role("button", name=re.compile("^Marks of vlorkinquelt.com: (Stop|Think)"))
    expect(found).to_be_visible(timeout=40_000)


def administer_staff(person: str) -> None:
    """Make somebody an administrator."""
    table = f"{DATABASE}.accounts_user"
    administer(f"UPDATE {table} SET is_staff = 1 WHERE username = '{person}'")  # noqa: S608 - ours
