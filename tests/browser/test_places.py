"""A page begins at its top with its question; going back leads to where one was; answers stay with
their question."""

import json

from playwright.sync_api import expect
from rest import at_rest


def top_of(page):
    return page.evaluate("document.querySelector('main').scrollTop")


def comes_to(page, top):
    """The column comes to a place, as soon as it is long enough."""
    column = page.locator("main")
    column.evaluate(
        """(main, top) => new Promise((done, fail) => {
            const began = performance.now();
            const look = () => {
                if (Math.abs(main.scrollTop - top) < 2) done();
                else if (performance.now() - began > 15000) fail(`at ${main.scrollTop}`);
                else requestAnimationFrame(look);
            };
            look();
        })""",
        top,
    )


def test_a_new_page_begins_at_its_top_and_back_returns_to_the_place(page, demo):
    page.set_viewport_size({"width": 1280, "height": 460})
    page.goto(f"{demo}/rig/1/weight")
    page.get_by_role("tab", name="What you can hold", exact=True).click()
    expect(page.get_by_role("button", name="Log this hold")).to_be_visible()
    page.evaluate("document.querySelector('main').scrollTop = 140")
    assert top_of(page) == 140
    page.get_by_role("link", name="Brace", exact=False).first.click()
    question = page.get_by_role("heading", level=1)
    expect(question).to_have_text("Where does the string sit?")
    expect(question).to_be_focused()
    assert top_of(page) == 0
    page.go_back()
    expect(question).to_have_text("What does it pull at your draw?")
    expect(page.get_by_role("button", name="Log this hold")).to_be_visible()
    comes_to(page, 140)
    page.go_forward()
    expect(question).to_have_text("Where does the string sit?")
    comes_to(page, 0)


def test_a_fit_is_never_shown_under_another_name(page, demo):
    """The first archer's search ends only after the second was asked for."""
    held = []

    def late(route):
        if not held:
            held.append(route)  # the first one's, let go further down
        else:
            route.continue_()

    page.route("**/api/jobs/fit", late)
    page.goto(f"{demo}/rack/fit")
    whose = page.get_by_label("For", exact=True)
    expect(whose).to_be_visible()
    names = whose.locator("option").all_inner_texts()
    whose.select_option(label=names[1])
    answer = page.locator("p.answer")
    expect(answer).to_contain_text(names[1])
    shown = answer.inner_text()
    body = json.loads(held[0].request.post_data)
    marks = {line["name"]: line["mark"] for line in page.request.get(f"{demo}/api/parts").json()}
    assert body["archer"] == marks[names[0]]
    held[0].continue_()
    at_rest(page)
    expect(answer).to_have_text(shown)
    expect(page.locator("p.draws")).to_contain_text(names[1])


def test_pages_of_an_earlier_version_ask_to_be_loaded_anew(page, demo):
    page.goto(f"{demo}/rig/1/brace")
    page.get_by_label("Brace height", exact=True).fill("8")
    page.get_by_label("Brace height", exact=True).press("Tab")
    expect(page.get_by_text("One change not kept.")).to_be_visible()

    def newer(route):
        answer = route.fetch()
        route.fulfill(response=answer, headers={**answer.headers, "x-lyrandis-shape": "999"})

    page.route("**/api/rigs/1/keep", newer)
    page.get_by_role("button", name="Keep this").click()
    told = page.get_by_role("alert").filter(has_text="Lyrandis was updated. What")
    expect(told).to_be_visible()
    expect(page.get_by_text("One change not kept.")).to_be_visible()
    page.unroute("**/api/rigs/1/keep")
    told.get_by_role("button", name="Load this page anew").click()
    expect(told).to_have_count(0)
    expect(page.get_by_role("heading", level=1)).to_have_text("Where does the string sit?")
