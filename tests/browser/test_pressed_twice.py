"""A second press in the same tick makes no second thing."""

from playwright.sync_api import expect
from rest import at_rest


def count(page, demo, path):
    return len(page.request.get(f"{demo}{path}").json())


def twice(locator):
    """Two presses before the browser does anything else."""
    locator.evaluate("(button) => (button.click(), button.click())")


def test_of_a_new_rig(page, demo):
    before = count(page, demo, "/api/rigs")
    page.goto(f"{demo}/new")
    twice(page.get_by_role("button", name="Set it up"))
    expect(page.get_by_role("heading", level=1)).to_have_text("How far do you draw?")
    at_rest(page)
    assert count(page, demo, "/api/rigs") == before + 1


def test_of_a_new_archer_on_the_rack(page, demo):
    before = count(page, demo, "/api/parts")
    page.goto(f"{demo}/rack/fit")
    page.get_by_role("button", name="Somebody new").click()
    form = page.get_by_role("form", name="Somebody new")
    form.get_by_label("Name").fill("Runa Holt")
    draw = form.get_by_label("Draw length", exact=True)
    draw.fill("26 3/4")
    draw.press("Tab")
    put = form.get_by_role("button", name="Put on the rack")
    expect(put).to_be_enabled()
    twice(put)
    expect(page.locator("p.draws")).to_contain_text("Runa Holt")
    at_rest(page)
    assert count(page, demo, "/api/parts") == before + 1


def test_of_a_hold_and_of_a_word_that_a_station_holds(page, demo):
    page.goto(f"{demo}/rig/1/weight")
    before = page.request.get(f"{demo}/api/rigs/1").json()["seq"]
    page.get_by_role("tab", name="What you can hold", exact=True).click()
    page.get_by_label("Seconds held").fill("12")
    log = page.get_by_role("button", name="Log this hold")
    expect(log).to_be_enabled()
    twice(log)
    expect(page.get_by_label("Seconds held")).to_have_value("")
    at_rest(page)
    assert page.request.get(f"{demo}/api/rigs/1").json()["seq"] == before + 1
    page.get_by_role("link", name="Brace", exact=False).first.click()
    holds = page.get_by_role("button", name="Settled as it is")
    expect(holds).to_be_enabled()
    twice(holds)
    expect(holds).to_have_count(0)
    at_rest(page)
    assert page.request.get(f"{demo}/api/rigs/1").json()["seq"] == before + 2
