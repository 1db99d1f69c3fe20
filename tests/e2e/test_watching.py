"""Watching, in the browser: begun, told by the bell and by letter, read elsewhere, ended."""

import re
import urllib.request

from playwright.sync_api import Page, expect

from tests.conftest import Registry
from tests.e2e.conftest import DATABASE, administer, open_project


def test_a_name_is_watched_and_what_becomes_of_it_is_told_everywhere(
    page: Page, person: str, registry: Registry
) -> None:
    open_project(page, "Watched", "paper, ink")
    page.goto(re.sub(r"\?.*", "", page.url) + "/names/qwvlorkink.com")
    page.get_by_role("button", name="Watch", exact=True).click()
    page.get_by_role("textbox", name="Why").fill("ours one day")
    page.get_by_role("button", name="Watch it").click()
    expect(page.get_by_text("“qwvlorkink.com” is watched.")).to_be_visible()
    expect(page.get_by_role("button", name="Watched", exact=True)).to_be_visible()

    # By letter, once the address is confirmed.
    page.goto("/watching")
    address = f"{person}@quietpress.example"
    page.get_by_label("Mail address").fill(address)
    page.get_by_role("button", name="Use it").click()
    expect(page.get_by_text("A letter is on its way")).to_be_visible()

    def letters() -> list[str]:
        return [one["text"] for one in registry.mail if one["to"] == address]

    def wait_for_letters(count: int) -> None:
        for _ in range(60):
            if len(letters()) >= count:
                return
            page.wait_for_timeout(1_000)
        raise AssertionError(letters())

    wait_for_letters(1)
    [link] = re.findall(r"http\S+confirm=\S+", letters()[0])
    page.goto(link)
    page.get_by_role("button", name=f"Yes, write to {address}").click()
    expect(page.get_by_text(f"Letters come to {address} from now on.")).to_be_visible()
    page.get_by_role("button", name="New feed").click()
    feed = page.get_by_label("Feed of what happened").input_value()

    # It was asked about; then somebody takes it.
    page.get_by_role("button", name="1 full name").click()
    table = page.get_by_role("table", name="Names of qwvlorkink.com")
    for _ in range(30):
        if "open" in table.inner_text():
            break
        page.wait_for_timeout(1_000)
        page.reload()
        page.get_by_role("button", name="1 full name").click()
        expect(table).to_be_visible()
    expect(table).to_contain_text("open")
    administer(
        f"UPDATE {DATABASE}.watching_watched SET known = JSON_SET(known, '$.status', 'taken'), "  # noqa: S608 - ours
        "number = 0, next_at = UTC_TIMESTAMP() WHERE label = 'qwvlorkink'"
    )
    administer(f"UPDATE {DATABASE}.watching_watch SET answers = 0")  # noqa: S608 - ours
    bell = page.get_by_role("button", name="1 new thing happened to what you watch")
    told = "qwvlorkink.com is open: it can be registered. It was taken."
    page.goto("/")
    expect(bell).to_be_visible(timeout=60_000)
    bell.click()
    expect(page.get_by_role("list", name="What happened")).to_contain_text(told)
    wait_for_letters(2)
    assert told in letters()[1]
    assert "You watch it because: ours one day" in letters()[1]
    page.wait_for_timeout(6_000)
    assert len(letters()) == 2
    with urllib.request.urlopen(feed, timeout=10) as reply:  # noqa: S310 - loopback
        assert told in reply.read().decode()

    # Ended, with a way back.
    page.get_by_role("link", name="All you watch").click()
    page.get_by_role("button", name="End it").click()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("list", name="What you watch")).to_contain_text("ours one day")
