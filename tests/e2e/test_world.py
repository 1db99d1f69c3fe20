"""From a sentence to the words of its world, in the browser."""

from playwright.sync_api import Page, expect

from tests.e2e.conftest import whole


def test_a_sentence_finds_its_world_and_answers_change_the_names(page: Page, person: str) -> None:
    page.get_by_role("button", name="New project").first.click()
    page.get_by_label("What is it, and for whom?").fill(
        "A pottery studio with open hours for beginners and hobby makers."
    )
    page.get_by_label("Working title").fill("Open wheel")
    page.get_by_role("button", name="Make names").click()
    expect(page.get_by_role("rowheader").first).to_be_visible()
    whole(page)

    fields = page.get_by_role("group", name="Fields of your world")
    expect(fields.get_by_role("button", name="pottery and ceramics", pressed=True)).to_be_visible()
    question = page.get_by_role("form", name="A small question")
    question.get_by_label("What is in your hands at work?").fill("loop tool, sgraffito needle")
    question.get_by_role("button", name="Put it in").click()
    expect(page.get_by_text("Brief · saved")).to_be_visible()
    expect(question.get_by_label("What is said when it is done?")).to_be_visible()
    question.get_by_label("What is said when it is done?").fill("bats off to you")
    question.get_by_role("textbox").press("Enter")
    expect(page.get_by_text("Brief · saved")).to_be_visible()
    whole(page)
    page.get_by_label("Try any name").fill("batsofftoyou")
    page.get_by_label("Try any name").press("Enter")
    reasons = page.get_by_role("complementary", name="Reasons")
    expect(reasons).to_contain_text("“bats off to you” is said in your own words.")

    page.get_by_role("button", name="The words of your world").click()
    dialog = page.get_by_role("dialog", name="The words of your world")
    tools = dialog.get_by_role("region", name="Tools")
    expect(tools.get_by_role("button", name="loop tool, weighs as usual")).to_be_visible()
    dialog.get_by_label("Keep your own words as").fill("My clay")
    dialog.get_by_role("button", name="Keep 3 words").click()
    expect(dialog.get_by_role("button", name="My clay")).to_be_visible()
    dialog.get_by_role("button", name="Done").click()

    fields.get_by_role("button", name="pottery and ceramics").click()
    expect(
        fields.get_by_role("button", name="pottery and ceramics", pressed=True)
    ).not_to_be_visible()
    page.get_by_label("Find another field").fill("chess")
    page.get_by_role("option", name="chess", exact=True).click()
    expect(fields.get_by_role("button", name="chess", pressed=True)).to_be_visible()
    expect(page.get_by_text("Brief · saved")).to_be_visible()
