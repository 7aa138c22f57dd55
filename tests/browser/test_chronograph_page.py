"""The chronograph on the real interface: two weights by keyboard, put right, nonsense."""

from playwright.sync_api import expect


def trials(page):
    return page.get_by_role("list", name="Trials").get_by_role("listitem")


def test_two_weights_by_keyboard_narrow_the_speed_and_nonsense_is_said(page, demo):
    page.goto(f"{demo}/rig/2/arrow")
    page.get_by_role("heading", name="Which arrow?").wait_for()
    page.keyboard.press("t")
    mass = page.get_by_label("Weight of the arrows shot")
    expect(mass).to_be_focused()
    page.keyboard.type("458")
    page.keyboard.press("Tab")
    page.keyboard.type("fast")
    page.keyboard.press("Enter")
    expect(page.get_by_text("fast", exact=False).first).to_be_visible()
    expect(mass).to_have_value("458")  # what was typed stays
    speeds = page.get_by_label("Speeds of the shots")
    speeds.fill("158, 159 157.5")
    speeds.press("Enter")
    expect(trials(page)).to_have_count(1)
    findings = page.get_by_role("complementary", name="Findings")
    expect(findings).to_contain_text("a quarter heavier or lighter")
    mass.fill("600")
    speeds.fill("160 161 159")
    speeds.press("Enter")
    expect(findings).to_contain_text("heavier arrows came out faster")
    page.get_by_role("button", name="Put right").first.press("Enter")
    expect(mass).to_have_value("600")
    speeds.fill("141 142 140.5")
    speeds.press("Enter")
    expect(findings).to_contain_text("By the chronograph the arrow shares")
    expect(findings).not_to_contain_text("came out faster")
    page.get_by_text("As a table").click()
    expect(page.get_by_role("cell", name="600 gr")).to_be_visible()
