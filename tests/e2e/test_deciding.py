"""Reading, comparing, duels, sharing with a second browser, and a session that ends."""

import re
from pathlib import Path

from playwright.sync_api import Browser, Page, expect

from tests.e2e.conftest import PASSWORD, new_project, open_project


def keep_first(page: Page, count: int) -> list[str]:
    """Keep the first names of the sheet by keyboard; which."""
    grid = page.get_by_role("grid", name="Names")
    names = grid.get_by_role("rowheader").all_inner_texts()[:count]
    grid.focus()
    page.keyboard.press("Home")
    for _ in range(count - 1):
        page.keyboard.press("Shift+ArrowDown")
    expect(page.get_by_text(f"{count} marked")).to_be_visible()
    page.keyboard.press("t")
    expect(page.get_by_role("button", name=re.compile(f"^{count} ?shortlisted"))).to_be_visible()
    return names


def test_deciding_by_keyboard_in_the_dark(page: Page, person: str) -> None:
    page.emulate_media(color_scheme="dark")
    new_project(page, "Dusk", "night, sky, garden")
    grid = page.get_by_role("grid", name="Names")
    names = grid.get_by_role("rowheader").all_inner_texts()
    grid.focus()
    page.keyboard.press("r")
    heading = page.get_by_role("heading", level=1)
    for key, name in (("x", names[0]), ("l", names[1]), ("t", names[2])):
        expect(heading).to_have_text(f"{name}.com")
        page.keyboard.press(key)
    expect(heading).to_have_text(f"{names[3]}.com")
    page.keyboard.press("u")
    expect(heading).to_have_text(f"{names[2]}.com")
    page.keyboard.press("Escape")
    expect(grid).to_be_visible()
    expect(grid.get_by_role("rowheader").first).to_have_text(names[1])
    page.keyboard.press("u")  # back through what was done while reading
    page.keyboard.press("u")
    expect(grid.get_by_role("rowheader").first).to_have_text(names[0])
    kept = keep_first(page, 3)
    assert kept == names[:3]
    page.keyboard.press("g")
    expect(page.get_by_role("heading", name="Side by side")).to_be_visible()
    expect(page.get_by_role("columnheader")).to_have_count(3)
    page.go_back()
    grid.focus()
    page.keyboard.press("Home")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", level=1)).to_contain_text(names[0])
    # The third was kept first, while reading, and has come back to its place.
    expect(page.get_by_text("Number 2 on the")).to_be_visible()
    page.get_by_role("link", name="Shortlist", exact=True).press("Enter")
    page.get_by_role("link", name="Duels").press("Enter")
    expect(page.get_by_role("group", name="Which is better?")).to_be_visible()
    told = page.get_by_role("status").filter(has_text="answers so far")
    for count in range(1, 5):
        page.keyboard.press("ArrowRight" if count % 2 else "ArrowLeft")
        expect(page.get_by_text(f"{count} answer")).to_be_visible()
    page.keyboard.press("u")
    expect(told).to_contain_text("3 answers")
    first = page.get_by_role("list", name="Ranking").get_by_role("listitem").first
    best = first.locator(".serif").inner_text()
    page.get_by_role("button", name="Put the shortlist in this order").press("Enter")
    page.get_by_role("link", name="Shortlist", exact=True).press("Enter")
    order = page.get_by_role("list", name="Shortlist").get_by_role("heading")
    expect(order.first).to_have_text(best)


def test_a_view_is_kept_and_a_link_shows_the_same(page: Page, person: str) -> None:
    open_project(page, "Views")
    page.get_by_role("button", name="Filters").click()
    page.get_by_role("button", name=re.compile("^pair ")).click()
    page.get_by_role("button", name="View", exact=True).click()
    page.get_by_role("checkbox", name="Syllables").click()
    page.get_by_role("checkbox", name="Keep Syllables in sight").click()
    page.get_by_role("button", name="dense").click()
    expect(page).to_have_url(
        re.compile("recipes=pair.*cols=.*syllables.*pin=syllables.*rows=dense")
    )
    page.get_by_label("Keep this view as").fill("pairs")
    page.get_by_label("Keep this view as").press("Enter")
    expect(page.get_by_role("list", name="Views kept")).to_contain_text("pairs")
    page.keyboard.press("Escape")
    grid = page.get_by_role("grid", name="Names")
    expect(grid.get_by_role("columnheader").nth(2)).to_contain_text("Syllables")
    expect(grid).to_have_attribute("aria-busy", "false")
    names = grid.get_by_role("rowheader").all_inner_texts()[:10]
    address = page.url
    page.get_by_role("list", name="Filters that are on").get_by_role("button").first.click()
    expect(page).not_to_have_url(address)
    page.goto(address)
    expect(grid.get_by_role("columnheader").nth(2)).to_contain_text("Syllables")
    expect(grid.get_by_role("rowheader").nth(9)).to_have_text(names[9])
    assert grid.get_by_role("rowheader").all_inner_texts()[:10] == names
    page.get_by_role("button", name="Figures").click()
    expect(page).to_have_url(re.compile("clarity"))
    page.get_by_role("link", name="Vine Tag").click()
    page.get_by_role("link", name="Views").click()
    expect(page).to_have_url(re.compile("recipes=pair.*clarity"))


def test_a_link_is_used_by_a_second_browser(page: Page, person: str, browser: Browser) -> None:
    open_project(page, "Shared")
    names = keep_first(page, 4)
    page.get_by_role("link", name="Shortlist", exact=True).click()
    page.get_by_role("link", name="Share and ask others").click()
    page.get_by_role("checkbox", name=names[3], exact=True).uncheck()
    page.get_by_role("button", name="Make the link").click()
    link = page.get_by_label("Link of Names for Shared").input_value()

    other = browser.new_context(viewport={"width": 390, "height": 780})
    guest = other.new_page()
    guest.goto(link)
    guest.get_by_label("Your first name, if you like").fill("Ana")
    guest.get_by_role("button", name="Begin").click()
    guest.get_by_role("button", name="See and remember").click()
    guest.get_by_role("button", name="Show them").click()
    guest.get_by_role("button", name="I have counted them").click()
    guest.get_by_label("The names you remember").fill(f"{names[0]}, something else")
    guest.get_by_role("button", name="That is all").click()
    expect(guest.get_by_text("You remembered 1 of 3")).to_be_visible()
    guest.get_by_role("button", name="Go on").click()
    guest.get_by_role("button", name="To the names").click()
    shown = guest.get_by_role("list", name="Names")
    expect(shown.get_by_role("heading")).to_have_text([f"{n}.com" for n in names[:3]])
    votes = shown.get_by_role("group", name=f"Vote on {names[1]}")
    votes.get_by_role("button", name="For").click()
    guest.get_by_role("button", name=f"Comment on {names[1]}").click()
    guest.get_by_label(f"What you think of {names[1]}").fill("The best <b>by far</b>")
    guest.get_by_role("button", name="Say it").click()
    expect(guest.get_by_text("The best <b>by far</b>")).to_be_visible()

    page.get_by_role("button", name="See the answers").click()
    table = page.get_by_role("table", name="Answers to Names for Shared")
    liked = table.get_by_role("row").nth(1)
    expect(liked).to_contain_text(names[1])
    expect(liked).to_contain_text("The best <b>by far</b>")
    expect(page.get_by_text("1 person opened the link.")).to_be_visible()
    recalled = table.get_by_role("row").filter(has_text=names[0])
    expect(recalled.get_by_role("cell").last).to_have_text("100 % of 1")
    page.get_by_role("button", name="Close the link").click()
    expect(page.get_by_role("button", name="Open it again")).to_be_visible()
    guest.reload()
    expect(guest.get_by_text("This link is closed")).to_be_visible()
    other.close()


def test_a_session_that_ends_loses_nothing(page: Page, person: str) -> None:
    open_project(page, "Ends", "ink")
    name = page.get_by_role("rowheader").first.inner_text()
    page.get_by_role("grid", name="Names").focus()
    page.keyboard.press("t")
    expect(page.get_by_role("button", name=re.compile("^1 ?shortlisted"))).to_be_visible()
    page.get_by_role("link", name="Shortlist", exact=True).click()
    note = page.get_by_label(f"Note on {name}")
    expect(note).to_be_visible()
    # Whatever asks first after that finds out; by then the words are in the field, unsaved.
    note.fill("written while signed out")
    page.context.clear_cookies(name="sessionid")
    dialog = page.get_by_role("dialog", name="Your session has ended")
    expect(dialog).to_be_visible()
    dialog.get_by_label("Password").fill(PASSWORD)
    dialog.get_by_role("button", name="Go on").click()
    expect(dialog).to_have_count(0)
    expect(note).to_have_value("written while signed out")
    expect(page.get_by_text("saved", exact=True)).to_be_visible()
    page.reload()
    expect(note).to_have_value("written while signed out")


def test_a_project_goes_into_a_file_and_comes_back(page: Page, person: str, tmp_path: Path) -> None:
    open_project(page, "Carried")
    page.get_by_role("grid", name="Names").focus()
    page.keyboard.press("t")
    page.get_by_role("link", name="Vine Tag").click()
    page.get_by_role("button", name="What to do with Carried").click()
    with page.expect_download() as download:
        page.get_by_role("menuitem", name="Take away as a file").click()
    path = tmp_path / "carried.json"
    download.value.save_as(path)
    page.keyboard.press("Escape")
    page.get_by_label("File of a project").set_input_files(path)
    expect(page.get_by_role("rowheader").first).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("^1 ?shortlisted"))).to_be_visible()
    bad = tmp_path / "bad.json"
    bad.write_text(path.read_text("utf-8").replace('"version": 1', '"version": 7'), "utf-8")
    page.get_by_role("link", name="Vine Tag").click()
    page.get_by_label("File of a project").set_input_files(bad)
    expect(page.get_by_text("The file is of version 7; only 1 is known.")).to_be_visible()


def test_a_wordmark_is_taken_away(page: Page, person: str, tmp_path: Path) -> None:
    open_project(page, "Mark")
    page.goto(f"{page.url.split('?')[0]}/wordmark?name=inkpost")
    page.get_by_role("radio", name=re.compile("slab serif")).click()
    page.get_by_role("button", name="on dark").click()
    expect(page.get_by_text("can hardly be read on this ground")).to_be_visible()
    for button, beginning in (("SVG, outlines", b"<svg"), ("PNG", b"\x89PNG")):
        role = "link" if beginning == b"<svg" else "button"
        with page.expect_download() as download:
            page.get_by_role(role, name=button).click()
        assert Path(download.value.path()).read_bytes().startswith(beginning)
