"""From a name to owning it, in the browser: contact, last look, payment, receipt, renewal."""

from playwright.sync_api import Page, expect

from tests.apps.bought import fresh
from tests.apps.conftest import BRIEF
from tests.conftest import Registry
from tests.e2e.conftest import send


def test_a_name_is_ordered_paid_registered_and_renewed(
    page: Page, person: str, registry: Registry
) -> None:
    [name] = fresh()
    made = send(page, "POST", "/api/projects", {"name": "Bought", "brief": BRIEF})
    project = made.json()["id"]
    assert send(page, "POST", f"/api/projects/{project}/basket", {"names": [name]}).ok

    page.goto("/contacts")
    page.get_by_role("button", name="Add somebody").click()
    for label, text in (
        ("Name", "Edda Birchwell"), ("Street and number", "4 Quay Lane"), ("Town", "Port Ferris"),
        ("Telephone", "087 123 4567"), ("E-mail", "edda@inkpost.example"),
    ):  # fmt: skip
        page.get_by_label(label, exact=True).fill(text)
    page.get_by_label("Country").fill("Irel")
    page.get_by_role("option", name="Ireland").click()
    page.get_by_role("button", name="Keep").click()
    expect(page.get_by_text("+353871234567")).to_be_visible()

    page.get_by_role("link", name="Basket", exact=True).first.click()
    order = page.get_by_role("button", name="Order here")
    # Sellers' lists come a little after the site is up, and each is asked about the very name.
    for _ in range(30):
        page.get_by_role("button", name="Look at all of it once more").click()
        page.wait_for_timeout(2_000)
        agree = page.get_by_role("button", name="Agree")
        if agree.count():
            agree.first.click()
            page.wait_for_timeout(500)
        if order.count():
            break
    order.click()
    expect(page.get_by_text("To be paid").first).to_be_visible()
    page.get_by_role("button", name="Pay €").or_(
        page.get_by_role("button", name="Pay ")
    ).first.click()
    expect(page.get_by_role("heading", name="Simulated payment")).to_be_visible()
    page.get_by_role("button", name="Pay", exact=True).click()
    expect(page.get_by_text("1 of 1 name done")).to_be_visible()
    assert [one["name"] for one in registry.books["held"]].count(name) == 1
    page.get_by_role("link", name="Receipt").click()
    expect(page.get_by_role("heading", name="Receipt R")).to_be_visible()
    expect(page.get_by_text("4 Quay Lane")).to_be_visible()

    page.goto("/owned")
    page.get_by_label(f"Choose {name}").check()
    page.get_by_role("button", name="Renew …").click()
    page.get_by_role("button", name="Order the renewal").click()
    expect(page.get_by_text("To be paid").first).to_be_visible()
    page.get_by_role("button", name="Call it off").click()
    expect(page.get_by_text("Called off", exact=True)).to_be_visible()

    # Connected: records put into force, the registry sends the world there, and the world sees it.
    page.goto(f"/owned?text={name}")
    page.get_by_role("button", name=name, exact=True).click()
    page.get_by_role("link", name="Records, and what the world sees").click()
    page.get_by_role("button", name="I want …").click()
    page.get_by_role("menuitem", name="A site at an address").click()
    page.get_by_label("Addresses of the server").fill("8.8.8.8")
    page.get_by_role("button", name="Put the records in").click()
    page.get_by_role("button", name="Put it into force").click()
    expect(page.get_by_text("In force since")).to_be_visible()
    page.get_by_role("button", name="Point it here").click()
    expect(page.get_by_text("sends the world to our name servers now")).to_be_visible()
    page.get_by_role("button", name="See what the world sees").click()
    expect(page.get_by_text("The world sees all 2 records as they are kept here.")).to_be_visible()
    # What is typed and not in force is still there after coming back.
    page.get_by_role("button", name="Add a record").click()
    page.get_by_label("What it says").last.fill("300.1.1.1")
    expect(page.get_by_text("“300.1.1.1” is no A record")).to_be_visible()
    page.reload()
    expect(page.get_by_label("What it says").last).to_have_value("300.1.1.1")

    # Moving is barred for sixty days, and says so before anything is ordered.
    page.get_by_role("link", name="My names").first.click()
    page.get_by_role("button", name=name, exact=True).click()
    page.get_by_role("button", name="Move it to another seller …").click()
    expect(page.get_by_text("less than 60 days ago").first).to_be_visible()
    expect(page.get_by_role("button", name="Order the move")).to_be_disabled()
