"""In line on the real interface: looks logged by keyboard, what to turn, put right, one piece."""

from playwright.sync_api import expect


def test_two_looks_by_keyboard_and_what_to_turn_stands_ready(page, demo):
    page.goto(f"{demo}/rig/1/in-line")
    page.get_by_role("heading", name="Does the string run over the middle?").wait_for()
    page.keyboard.press("t")
    upper = page.get_by_label("upper", exact=True).first
    expect(upper).to_be_focused()
    upper.fill("askew")
    page.get_by_label("lower", exact=True).first.fill("0")
    page.keyboard.press("Enter")
    expect(page.get_by_text("askew", exact=False).first).to_be_visible()
    expect(upper).to_have_value("askew")
    findings = page.get_by_role("complementary", name="Findings")
    upper.fill("5")
    upper.press("Enter")
    expect(findings).to_contain_text("Look again before you turn anything")
    expect(page.get_by_role("button", name="as told")).to_have_count(0)
    upper.fill("5.2")
    page.get_by_label("lower", exact=True).first.fill("0")
    upper.press("Enter")  # it was no misread
    expect(findings).to_contain_text("Turn the upper pocket by")
    turned = page.get_by_label("upper", exact=True).nth(1)
    expect(turned).to_have_value("")  # what was suggested is not taken as turned
    page.get_by_role("button", name="as told").press("Enter")
    expect(turned).not_to_have_value("")
    upper.fill("0.5")
    page.get_by_label("lower", exact=True).first.fill("0")
    upper.press("Enter")
    expect(page.get_by_role("list", name="Trials").get_by_role("listitem")).to_have_count(6)
    page.get_by_role("heading", level=1).click()
    for _ in range(3):  # as fast as a hand can: one follows the other
        page.keyboard.press("Control+z")
    expect(page.get_by_role("list", name="Trials").get_by_role("listitem")).to_have_count(3)


def test_a_look_is_put_right(page, demo):
    page.goto(f"{demo}/rig/1/in-line")
    page.get_by_role("button", name="Put right").first.click()
    riser = page.get_by_label("riser", exact=True)
    expect(riser).to_have_value("0.0")
    riser.fill("0.4")
    page.get_by_role("button", name="Put it right").click()
    expect(page.get_by_role("list", name="Trials")).to_contain_text("0.4 mm right of the riser")
    page.get_by_role("heading", level=1).click()
    page.keyboard.press("Control+z")
    expect(page.get_by_role("list", name="Trials")).not_to_contain_text("0.4 mm right of the riser")


def test_a_bow_in_one_piece_asks_for_its_favoured_side_and_the_string_is_dragged(page, demo):
    page.goto(f"{demo}/rig/2/in-line")
    expect(page.get_by_label("upper", exact=True)).to_have_count(0)
    handle = page.get_by_role("figure").locator("circle").first
    box = handle.bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 27, y)
    page.mouse.up()
    riser = page.get_by_label("riser", exact=True)
    expect(riser).to_have_value("3.0")
    page.get_by_role("button", name="Log this look").click()
    findings = page.get_by_role("complementary", name="Findings")
    expect(findings).to_contain_text("the arrow goes right")
    page.get_by_role("heading", level=1).click()
    page.keyboard.press("Control+z")
    expect(findings).to_contain_text("log which side")
