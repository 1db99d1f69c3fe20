"""Bad input, someone else's things, and a server that is gone: said plainly, nothing lost."""

import re

from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Browser, Page, expect

from tests.e2e.conftest import PASSWORD, new_project, open_project, send

# What is in order need not be told of, and styles are read already.
BRIEFLY = {"resultTypes": ["violations"], "preload": False}
COLOURS = ["color-contrast", "link-in-text-block"]


def add_words(page: Page, words: str) -> None:
    page.get_by_label("Add words").fill(words)
    page.get_by_label("Add words").press("Enter")


def test_bad_words_and_limits_are_told_at_their_field(page: Page, person: str) -> None:
    new_project(page, "Odd", "ink")
    listed = page.get_by_role("grid").get_by_role("rowheader").first.inner_text()
    add_words(page, "чернила, ink 🖋, <script>alert(1)</script>, " + "x" * 300)
    words = page.get_by_role("list", name="Keywords")
    for said in ("Cyrillic letters", "the character 🖋", "the character <", "At most 40 characters"):
        expect(words.get_by_text(said)).to_be_visible()
    expect(page.get_by_text("Brief · saved in part")).to_be_visible()
    expect(words.get_by_role("listitem")).to_have_count(5)
    assert page.get_by_role("grid").get_by_role("rowheader").first.inner_text() == listed
    for _ in range(4):
        words.get_by_role("button").last.click()
    expect(page.get_by_text("Brief · saved")).to_be_visible()
    page.get_by_label("Add words").fill("   ")
    expect(page.get_by_text("spaces alone are none")).to_be_visible()
    page.get_by_label("to", exact=True).fill("0")
    expect(page.get_by_text("from 1 to 63; 0 is outside")).to_be_visible()
    page.get_by_role("button", name="Undo the last change of the brief").click()
    expect(page.get_by_text("Brief · saved")).to_be_visible()
    extensions = page.get_by_label("In your order")
    extensions.fill("nosuch")
    extensions.press("Enter")
    expect(page.get_by_text("There is no extension “.nosuch”.")).to_be_visible()
    add_words(page, ",".join(f"word{i}" for i in range(500)))
    expect(page.get_by_text("At most 40 here: there are 501.")).to_be_visible()


def test_a_name_that_is_none_is_told_and_stays_typed(page: Page, person: str) -> None:
    open_project(page, "Own", "ink")
    page.get_by_role("link", name="Shortlist").click()
    expect(page.get_by_text("Nothing is kept yet")).to_be_visible()
    field = page.get_by_label("A name or full name of your own")
    field.fill("-ink post")
    field.press("Enter")
    expect(page.get_by_text("A name cannot contain “ ”")).to_be_visible()
    expect(field).to_have_value("-ink post")
    field.fill("Bücher")
    field.press("Enter")
    expect(page.get_by_role("heading", name="bücher")).to_be_visible()


def test_the_server_gone_keeps_what_was_typed(page: Page, person: str) -> None:
    open_project(page, "Gone", "ink")
    page.context.set_offline(True)
    add_words(page, "paper")
    expect(page.get_by_text("The server cannot be reached.").first).to_be_visible()
    expect(page.get_by_role("list", name="Keywords")).to_contain_text("paper")
    # Others say so, too: it is the brief that has to have tried, and failed.
    retry = page.get_by_role("button", name="Retry")
    expect(retry).to_be_visible()
    page.context.set_offline(False)
    retry.click()
    expect(page.get_by_text("Brief · saved")).to_be_visible()
    expect(page.get_by_role("rowheader", name=re.compile("paper")).first).to_be_visible()


def test_what_is_someone_elses_is_not_there(page: Page, person: str, browser: Browser) -> None:
    open_project(page, "Mine", "ink")
    address = page.url
    page.get_by_role("button", name="Sign out").click()
    page.get_by_role("button", name="Enter the demo workspace").click()
    expect(page.get_by_role("link", name="Pressroom")).to_be_visible()
    page.goto(address)
    expect(page.get_by_text("There is nothing at this address")).to_be_visible()
    page.goto("/no/such/page")
    expect(page.get_by_text("There is nothing at this address")).to_be_visible()


def test_signing_in_again_and_a_removed_project_brought_back(page: Page, person: str) -> None:
    open_project(page, "Kept", "ink")
    page.get_by_role("button", name="Sign out").click()
    expect(page.get_by_role("heading", name="Sign in")).to_be_visible()
    page.get_by_label("Name", exact=True).fill(person)
    page.get_by_label("Password").fill("wrong")
    page.get_by_role("button", name="Sign in").first.click()
    expect(page.get_by_text("do not belong together")).to_be_visible()
    page.get_by_label("Password").fill(PASSWORD)
    page.get_by_role("button", name="Sign in").first.click()
    page.get_by_role("link", name="Vine Tag").click()
    page.get_by_role("button", name="What to do with Kept").click()
    page.get_by_role("menuitem", name="Remove").click()
    expect(page.get_by_text("Nothing is being named yet")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("link", name="Kept")).to_be_visible()


def test_every_view_passes_the_accessibility_rules(browser: Browser, base_url: str) -> None:
    context = browser.new_context(
        base_url=base_url,
        viewport={"width": 1280, "height": 800},
        # A button half way to its colour is no fault of the colours.
        reduced_motion="reduce",
    )
    page = context.new_page()
    # As long as what is expected is waited for elsewhere: everything else runs beside.
    page.set_default_timeout(60_000)

    def violations() -> list[str]:
        told = []
        # What only the colours can spoil is looked at once more in the dark.
        for scheme, rules in (("light", {}), ("dark", {"runOnly": COLOURS})):
            page.emulate_media(color_scheme=scheme)
            page.wait_for_timeout(200)
            found = Axe().run(page, options={**rules, **BRIEFLY}).response["violations"]
            told += [f"{scheme}, {v['id']}: {v['nodes'][0]['html'][:160]}" for v in found]
        page.emulate_media(color_scheme="light")
        return told

    found: dict[str, list[str]] = {}
    page.goto("/")
    page.get_by_role("button", name="Enter the demo workspace").wait_for()
    found["sign in"] = violations()
    page.get_by_role("button", name="Enter the demo workspace").click()
    page.get_by_role("link", name="Pressroom").wait_for()
    found["projects"] = violations()
    page.get_by_role("link", name="Pressroom").click()
    page.get_by_role("rowheader").first.wait_for()
    page.get_by_role("region", name="A short tour").wait_for()
    found["bench"] = violations()
    page.get_by_role("button", name="Put it away").click()
    page.get_by_role("button", name="Filters").click()
    page.get_by_role("group", name="Looked at").wait_for()
    page.get_by_role("button", name="View", exact=True).click()
    page.get_by_role("list", name="Columns").wait_for()
    found["filters and view"] = violations()
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Back to the words").click()
    assert page.evaluate("document.documentElement.scrollWidth") <= 1280
    page.get_by_role("button", name="paper", exact=True).first.click()
    page.get_by_role("dialog").get_by_role("button").first.wait_for()
    found["words"] = violations()
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Vary").click()
    page.get_by_role("list", name="Near names").wait_for()
    found["near names"] = violations()
    page.get_by_role("button", name="Figures").click()
    page.get_by_role("columnheader", name="Memory").wait_for()
    found["figures"] = violations()
    assert page.evaluate("document.documentElement.scrollWidth") <= 1280
    page.get_by_role("button", name="Dots").click()
    page.get_by_role("application").wait_for()
    found["dots"] = violations()
    page.get_by_role("button", name="Open?").click()
    page.get_by_role("button", name="If taken").click()
    page.get_by_role("list", name="Fallback order").wait_for()
    page.get_by_role("button", name="What else to check").click()
    page.get_by_role("menuitem", name="everything").wait_for()
    found["ladder and menu"] = violations()
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Owner, budget, and which suit").click()
    page.get_by_role("list", name="Proposed extensions").get_by_role("listitem").first.wait_for()
    found["proposal"] = violations()
    page.keyboard.press("Escape")
    page.get_by_role("link", name="Check a list").click()
    page.get_by_role("textbox", name="Names or full names").fill("inkpost\n-x\nletter.com")
    page.get_by_role("button", name="Take and check").click()
    page.get_by_role("list", name="Passed over").wait_for()
    page.get_by_role("grid", name="Pasted names").get_by_text("taken").first.wait_for()
    found["list"] = violations()
    page.get_by_role("link", name="Extensions").click()
    page.get_by_role("heading", name="Extensions").wait_for()
    page.get_by_role("cell", name=".com", exact=True).wait_for()
    found["extensions"] = violations()
    page.go_back()
    page.get_by_role("link", name="Grades").click()
    page.get_by_text("klaypress").first.wait_for()
    found["measures"] = violations()
    page.go_back()
    page.get_by_role("link", name="About").click()
    page.get_by_text("WordNet").first.wait_for()
    found["about"] = violations()
    page.go_back()
    page.get_by_role("link", name="Shortlist").click()
    page.get_by_role("heading", name="inkpost").wait_for()
    found["shortlist"] = violations()
    shortlist = page.url
    number = shortlist.split("/projects/")[1].split("/")[0]
    send(page, "POST", f"/api/projects/{number}/vetting", {"names": ["inkpost"]})
    for view, address, there in (
        ("name", "names/inkpost", page.get_by_role("region", name="What was found out when")),
        ("reading", "read", page.get_by_role("button", name="Keep t")),
        ("compare", "compare?names=inkpost,paperpost", page.get_by_role("table")),
        ("vetting", "vetting?name=inkpost", page.get_by_role("region", name="What to hold")),
        ("vetting on paper", "vetting/print", page.get_by_role("button", name="Print")),
        ("plan", "plan?country=IE", page.get_by_role("list", name="The cheapest way")),
        ("plan on paper", "plan/print?country=IE", page.get_by_role("button", name="Print")),
        ("duels", "duels", page.get_by_role("list", name="Ranking")),
        ("wordmark", "wordmark?name=inkpost", page.get_by_role("radio").first),
        ("print", "print", page.get_by_role("button", name="Print")),
        ("share", "share", page.get_by_role("button", name="Make the link")),
    ):
        page.goto(shortlist.replace("shortlist", address))
        there.wait_for()
        found[view] = violations()
    there.click()
    page.get_by_role("button", name="See the answers").first.click()
    page.get_by_role("table").wait_for()
    found["answers"] = violations()
    link = page.get_by_label(re.compile("^Link of")).first.input_value()
    page.goto("/settings")
    page.get_by_role("region", name="Looks").wait_for()
    found["settings"] = violations()
    page.goto("/sellers")
    page.get_by_role("region", name="Weir & Daughter").wait_for()
    found["sellers"] = violations()
    put = send(page, "POST", f"/api/projects/{number}/basket", {"names": ["inkpost.com"]})
    assert put.ok, put.text()
    page.goto("/watching")
    page.get_by_role("button", name=re.compile("full names?$")).first.click()
    page.get_by_role("table").wait_for()
    page.get_by_role("button", name="Watch something").click()
    found["watching"] = violations()
    page.goto("/basket")
    page.get_by_role("button", name="Look at all of it once more").click()
    page.get_by_role("img", name="inkpost.com, spelled").wait_for()
    found["basket"] = violations()
    # A telephone: reading, the shortlist and voting.
    page.goto("/owned")
    page.get_by_role("button", name="Add names").click()
    page.get_by_label("Full names, one a line").fill("inkpost.com")
    page.get_by_role("button", name="Put on the list").click()
    page.get_by_text("One name is new on the list").wait_for()
    page.get_by_role("button", name="Done").click()
    page.get_by_role("button", name="inkpost.com").click()
    page.get_by_label("Choose inkpost.com").check()
    found["owned"] = violations()
    page.goto("/contacts")
    page.get_by_role("button", name="Add somebody").click()
    page.get_by_role("button", name="Keep").click()
    page.get_by_text("must be mended first").wait_for()
    found["contact"] = violations()
    page.goto("/")
    page.get_by_role("link", name="Harrowmere piano").click()
    page.get_by_role("link", name="Phrases", exact=True).click()
    page.get_by_role("button", name="piano tuning", exact=True).click()
    page.get_by_role("list", name="Companions").wait_for()
    found["phrases"] = violations()
    phrases = page.url
    page.get_by_role("tab", name="Groups").click()
    page.get_by_role("list", name="Groups").get_by_role("button").nth(1).click()
    found["groups"] = violations()
    page.get_by_role("tab", name="As names").click()
    page.get_by_role("table", name="Phrases as names").wait_for()
    found["phrases as names"] = violations()
    page.get_by_role("button", name="Bring phrases").click()
    page.get_by_role("dialog").get_by_label("or paste it here").fill("phrase,searches\na tune,7\n")
    page.get_by_role("button", name="Look at it").click()
    page.get_by_role("table", name="The first lines").wait_for()
    found["bringing phrases"] = violations()
    page.set_viewport_size({"width": 390, "height": 780})
    for view, address, there in (
        ("owned, small", "/owned", "My"),
        ("orders, small", "/orders", "Orders"),
        ("contacts, small", "/contacts", "Contacts"),
        ("reading, small", shortlist.replace("shortlist", "read"), "Keep t"),
        ("shortlist, small", shortlist, "Duels"),
        ("watching, small", "/watching", "What you watch"),
        ("basket, small", "/basket", "Basket"),
        ("phrases, small", phrases, "What"),
        ("groups, small", f"{phrases}?part=groups", "What"),
        ("vote, small", link, "Begin"),
    ):
        page.goto(address)
        page.get_by_text(there.split(" ")[0], exact=False).first.wait_for()
        found[view] = violations()
        assert page.evaluate("document.documentElement.scrollWidth") <= 390, view
    page.get_by_role("button", name="Begin").click()
    page.get_by_role("button", name="To the names").click()
    page.get_by_role("list", name="Names").wait_for()
    found["voting, small"] = violations()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    context.close()
    assert {view: what for view, what in found.items() if what} == {}
