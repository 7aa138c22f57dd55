"""The whole route on an empty database, three times: by keyboard, by touch on a phone, by lamp."""

import json
import re
import urllib.request

import pytest
from playwright.sync_api import expect
from rest import at_rest

from lyrandis.core.route import ROUTES

TAKEDOWN, SHELF = ROUTES["takedown"].stops, ROUTES["shelf"].stops
# Where the focus is: its name, whether it can be seen, and whether something marks it.
FOCUS = """() => {
  const e = document.activeElement;
  const box = e.getBoundingClientRect();
  const style = getComputedStyle(e);
  const around = e.closest('label, .choice-item') ?? e;
  const marked = [e, around, around.parentElement].some((x) => {
    const s = getComputedStyle(x);
    return s.outlineStyle !== 'none' && parseFloat(s.outlineWidth) > 0;
  });
  return {
    tag: e.tagName,
    name: (e.getAttribute('aria-label') ?? e.labels?.[0]?.textContent ?? e.textContent ?? '').trim(),
    inside: box.bottom > 0 && box.top < innerHeight && box.right > 0 && box.left < innerWidth,
    marked,
  };
}"""


def get(address, path):
    with urllib.request.urlopen(f"{address}{path}") as answer:
        return json.load(answer)


class Keys:
    """A person without a mouse: the Tab key, and what is typed."""

    def __init__(self, page):
        self.page = page

    def to(self, name, tag=""):
        """Tab to what is called so; on the way the focus is always seen."""
        for _ in range(150):
            self.page.keyboard.press("Tab")
            at = self.page.evaluate(FOCUS)
            if at["tag"] == "BODY":
                continue
            assert at["inside"], at
            assert at["marked"], at
            if re.search(name, at["name"]) and tag in at["tag"]:
                return
        raise AssertionError(f"no Tab leads to {name}")

    def press(self, *keys):
        for key in keys:
            self.page.keyboard.press(key)

    def type(self, text):
        self.page.keyboard.press("Control+a")
        self.page.keyboard.type(text)


def kept(page):
    expect(page.get_by_role("button", name="Keep this")).to_be_hidden()


def heading(page, text):
    expect(page.get_by_role("heading", name=text, level=1)).to_be_visible()


def trials(page):
    return page.get_by_role("list", name="Trials").get_by_role("listitem")


def test_by_keyboard_alone(page, empty):
    """A whole takedown: from nothing to a crawl chart, no mouse, the focus never lost."""
    keys = Keys(page)
    page.goto(empty)
    heading(page, "Lyrandis")
    keys.to("^To the main part")
    keys.press("Enter")
    keys.press("?")
    expect(page.get_by_role("dialog", name="Keys")).to_be_visible()
    # It listens once it has taken the focus.
    expect(page.locator("[role=dialog]:focus, [role=dialog] :focus")).to_have_count(1)
    keys.press("Escape")
    expect(page.get_by_role("dialog")).to_be_hidden()
    keys.to("Set up the first rig")
    keys.press("Enter")
    heading(page, "What have you got?")
    keys.to("Bow length")
    keys.type("66")
    keys.to("Draw length")
    keys.press("?")
    expect(page.get_by_role("note", name="What it is: Draw length")).to_contain_text("groove")
    keys.press("Escape")
    expect(page.get_by_role("note")).to_be_hidden()
    keys.type("28 1/4")
    keys.press("Enter")  # the form is sent from the field

    heading(page, "How far do you draw?")
    keys.press("t")
    for reading in ("28 1/8", "28 1/4", "28 3/8", "28.25"):
        expect(page.get_by_label("A reading")).to_be_focused()
        keys.type(reading)
        keys.press("Enter")
        expect(page.get_by_label("A reading")).to_have_value("")
    keys.to("Take it")
    keys.press("Enter")
    keys.press("Control+Enter")
    kept(page)

    keys.press("]")
    heading(page, "How long a bow?")
    keys.to("^Bow length", "INPUT")
    keys.type("nonsense")
    expect(page.get_by_text("is not a measurement", exact=False)).to_be_visible()
    keys.press("Escape")  # what cannot be read goes, and nothing else
    expect(page.get_by_label("Bow length", exact=True)).to_have_value("66")
    keys.type("68")
    keys.press("Enter")  # and is kept
    expect(page.get_by_text("Kept one change", exact=False)).to_be_visible()
    kept(page)

    keys.press("Escape")
    page.evaluate("document.activeElement.blur()")
    keys.press("]")
    heading(page, "What does it pull at your draw?")
    keys.press("t")
    expect(page.get_by_label("Draw of the reading")).to_be_focused()
    keys.press("Tab")
    keys.type("35.5")
    keys.press("Enter")
    keys.press("Control+Enter")
    kept(page)
    expect(page.get_by_text("by the scale", exact=False).first).to_be_visible()

    page.evaluate("document.activeElement.blur()")
    keys.press("]")
    heading(page, "Is it put together right?")
    keys.to("All done")
    keys.press("Enter", "k")
    kept(page)
    keys.press("]")
    heading(page, "Which string?")
    keys.to("^String length", "INPUT")
    keys.type("64")
    expect(page.get_by_text("One change not kept.")).to_be_visible()
    keys.press("Control+Enter")
    kept(page)
    page.evaluate("document.activeElement.blur()")
    keys.press("]")
    heading(page, "Do the two limbs bend alike?")
    keys.press("t")
    expect(page.get_by_label("upper", exact=True)).to_be_focused()
    keys.type("196")
    keys.press("Tab")
    keys.type("188 mm")
    keys.press("Enter")
    expect(trials(page)).to_have_count(1)
    keys.to("^I turned them")
    keys.press("Enter")
    expect(page.get_by_text("2 changes not kept.")).to_be_visible()
    page.evaluate("document.activeElement.blur()")
    keys.press("t")
    keys.type("191")
    keys.press("Tab")
    keys.type("188.5")
    keys.press("Enter")  # the bolts as they stand now are kept with what was measured
    expect(trials(page)).to_have_count(2)
    kept(page)
    page.evaluate("document.activeElement.blur()")
    keys.press("]")
    heading(page, "Does the string run over the middle?")
    keys.press("t")
    keys.type("0.3")
    keys.press("Tab")
    keys.type("-0.4")
    keys.press("Enter")
    expect(page.get_by_role("complementary")).to_contain_text("leave the pockets alone")
    page.evaluate("document.activeElement.blur()")
    keys.press("]")
    heading(page, "Where does the point stand?")
    keys.to("^Cut past centre", "INPUT")
    keys.type("5")
    keys.to("^Plunger stands out", "INPUT")
    keys.type("8")
    expect(page.get_by_text("2 changes not kept.")).to_be_visible()
    keys.press("Enter")
    kept(page)
    keys.to("^Plunger .* mm in")
    keys.press("Enter")
    expect(page.get_by_text("One change not kept.")).to_be_visible()
    keys.press("Control+Enter")
    kept(page)
    page.evaluate("document.activeElement.blur()")
    keys.press("t")
    keys.type("2.5")
    keys.press("Enter")
    expect(trials(page)).to_have_count(1)
    expect(page.get_by_role("complementary")).to_contain_text("ordinary start")
    page.evaluate("document.activeElement.blur()")
    keys.press("]")
    heading(page, "What hangs on the riser, and where?")
    keys.to("^Lower pocket", "INPUT")
    keys.type("60")
    expect(page.get_by_text("One change not kept.")).to_be_visible()
    keys.press("Enter")
    kept(page)
    keys.to("Hang it by the grip")
    keys.press("Enter")
    expect(page.get_by_text("2 changes not kept.")).to_be_visible()
    keys.press("Control+Enter")
    kept(page)
    page.evaluate("document.activeElement.blur()")
    keys.press("]")
    heading(page, "Do the limbs still bend alike?")
    expect(page.get_by_role("complementary")).to_contain_text("measure both distances once more")
    keys.press("t")
    keys.type("189")
    keys.press("Tab")
    keys.type("188.5")
    keys.press("Enter")
    expect(page.get_by_role("complementary")).to_contain_text("leave it")
    page.evaluate("document.activeElement.blur()")
    keys.press("]")
    heading(page, "Where does the string sit?")
    keys.press("t")
    expect(page.get_by_label("Brace listened to")).to_be_focused()
    keys.type("8 1/4")
    keys.to("Levels of the shots")
    keys.type("61.5, 60.8 61,2")
    keys.press("Enter")
    expect(page.get_by_role("list", name="Trials").get_by_role("listitem")).to_have_count(1)
    page.evaluate("document.activeElement.blur()")
    keys.press("]")
    heading(page, "Where does the arrow sit on the string?")
    keys.to("^Nock point height")
    keys.press("ArrowUp", "Enter")
    kept(page)
    page.evaluate("document.activeElement.blur()")
    keys.press("t")
    expect(page.get_by_role("button", name="Level")).to_be_focused()
    keys.press("8")  # tails high
    expect(trials(page)).to_have_count(1)
    keys.to("^Try ")
    keys.press("Enter")
    expect(page.get_by_text("One change not kept.")).to_be_visible()
    page.evaluate("document.activeElement.blur()")
    keys.press("t")
    keys.press("2")  # tails low: kept with the height that was shot at
    expect(trials(page)).to_have_count(2)
    kept(page)
    page.evaluate("document.activeElement.blur()")
    keys.press("]")
    heading(page, "Which arrow?")
    keys.to("^Static spine")
    keys.type("45#")
    keys.press("Enter")
    kept(page)
    expect(page.get_by_label("Static spine", exact=True)).to_have_value("700")
    page.evaluate("document.activeElement.blur()")
    keys.press("]")
    heading(page, "Does the arrow leave straight?")
    keys.press("t")
    expect(page.get_by_label("Nock straight")).to_be_focused()
    keys.press("5", "5", "4", "Enter")
    expect(page.get_by_text("Nocks at seven paces: straight, straight, left.")).to_be_visible()
    kept(page)
    page.evaluate("document.activeElement.blur()")
    keys.press("]")
    heading(page, "What still makes noise?")
    keys.to("Settled as it is")
    keys.press("Enter")
    expect(page.get_by_role("button", name="Settled as it is")).to_be_hidden()
    keys.press("]")
    heading(page, "Where do you aim?")
    keys.to("^Distances")
    keys.type("10,20, 30 40")
    keys.press("Enter")
    crawls = page.get_by_role("navigation").get_by_role("link", name=re.compile("^Aim prov"))
    expect(crawls).to_be_visible()
    page.evaluate("document.activeElement.blur()")
    keys.press("g", "k")
    heading(page, "What changed, and why?")
    keys.press("g", "e")
    heading(page, "What is due when?")
    keys.press("g", "t")
    heading(page, "Terms")
    keys.to("Search the terms")
    keys.type("tiller")
    keys.to("^tiller")
    keys.press("Enter")
    expect(page.locator("article#tiller")).to_have_class(re.compile("lit"))
    rig = get(empty, "/api/rigs/1")["rig"]
    assert rig["weights"]["middle_g"] == 60
    assert rig["limbs"]["upper_turns"] < 0 < rig["limbs"]["lower_turns"]
    assert rig["bow"]["side_plate_mm"] < 8
    assert rig["archer"]["draw_length_in"] == pytest.approx(28.25, abs=0.01)
    assert rig["bow"]["length_in"] == 68
    assert rig["aim"]["distances_m"] == [10, 20, 30, 40]


@pytest.fixture
def phone(browser, empty):
    """A phone in a hand: 390 px, touch only."""
    context = browser.new_context(
        viewport={"width": 390, "height": 844}, has_touch=True, is_mobile=True,
        reduced_motion="reduce",
    )  # fmt: skip
    page = context.new_page()
    page.goto(empty)
    yield page
    context.close()


def tap(page, role, name, exact=False):
    page.get_by_role(role, name=name, exact=exact).first.tap()


def write(page, label, text):
    field = page.get_by_label(label, exact=True)
    field.tap()
    field.fill(text)


def test_by_touch_on_a_phone(phone, empty):
    """The same route with one thumb: the next stop is always one tap away."""
    page = phone
    tap(page, "link", "Set up the first rig")
    page.get_by_text("Reflex–deflex", exact=True).tap()
    write(page, "Draw length", "27 1/2")
    tap(page, "button", "Set it up")
    heading(page, "How far do you draw?")
    tap(page, "tab", "Measure it")
    for reading in ("27 3/8", "27 1/2", "27 5/8", "27 1/2"):
        write(page, "A reading", reading)
        tap(page, "button", "Add", exact=True)
        expect(page.get_by_label("A reading")).to_have_value("")
    tap(page, "button", "Take it")
    tap(page, "button", "Keep this")
    kept(page)
    for station in SHELF[1:]:
        strip = page.get_by_role("navigation").get_by_role("link", name=re.compile("next"))
        strip.tap()
        expect(page).to_have_url(re.compile(station))
        expect(page.locator("main h1")).to_be_visible()
        assert page.evaluate("document.documentElement.scrollWidth") <= 390
        if station == "assembly":
            tap(page, "button", "All done")
            tap(page, "button", "Keep this")
            kept(page)
        elif station == "brace":
            write(page, "Brace height", "7 1/4")
            tap(page, "button", "Keep this")
            kept(page)
        elif station == "nock-point":
            page.get_by_role("button", name="What is Nock point height?").tap()
            expect(page.get_by_role("note")).to_contain_text("bow square")
        else:
            tap(page, "button", "Settled as it is")
            expect(page.get_by_role("button", name="Settled as it is")).to_be_hidden()
    expect(page.get_by_role("row", name=re.compile("^20.0"))).to_be_visible()
    tap(page, "button", "Route")
    page.get_by_role("navigation").get_by_role("link", name="Terms").tap()
    heading(page, "Terms")
    page.locator("figure").first.get_by_role("button", name="limb tip").tap()
    expect(page.locator("figure").first.get_by_text("The end of a limb")).to_be_visible()
    states = {s["station"]: s["state"] for s in get(empty, "/api/rigs/1")["states"]}
    assert "open" not in {states[s] for s in SHELF if s != "nock-point"}


def test_by_lamp_on_a_tablet(page, empty):
    """At 820 px, in the dark theme, in metric: no word in inches where none was asked for."""
    page.set_viewport_size({"width": 820, "height": 1180})
    page.goto(empty)
    page.get_by_role("button", name="Units").click()
    page.get_by_label(re.compile("^Light")).last.select_option("dark")
    page.get_by_role("button", name="All metric").click()
    page.get_by_role("button", name="Close").click()
    expect(page.locator("html")).to_have_attribute("data-mode", "dark")
    page.get_by_role("link", name="Set up the first rig").click()
    page.get_by_label("Draw length", exact=True).fill("72 cm")
    page.get_by_role("button", name="Set it up").click()
    heading(page, "How far do you draw?")
    inches = re.compile(r"\d ?in\b")
    for station in TAKEDOWN:
        page.goto(f"{empty}/rig/1/{station}")
        expect(page.locator("main h1")).to_be_visible()
        at_rest(page)
        for leaf in range(max(page.get_by_role("tab").count(), 1)):
            if page.get_by_role("tab").count():
                page.get_by_role("tab").nth(leaf).click()
            expect(page.locator("[aria-busy=true]")).to_have_count(0)
            for why in page.locator("summary", has_text="Why").all():
                why.click()
            told = page.locator("body").inner_text()
            assert not inches.search(told), (station, leaf, inches.findall(told), told)
    page.goto(f"{empty}/rig/1/brace")
    brace = page.get_by_label("Brace height", exact=True)
    brace.fill("5 cm")
    expect(page.get_by_text("must be at least 76 mm; 50 mm was given", exact=False)).to_be_visible()
    brace.fill("")
    brace.press("Escape")
    page.goto(f"{empty}/rig/1/arrow")
    page.get_by_label("Shaft length", exact=True).fill("65 cm")
    expect(
        page.get_by_text("A shaft of 650 mm is shorter than the draw", exact=False).first
    ).to_be_visible()


def test_a_crawl_is_shot_and_the_chart_follows(page, demo):
    page.goto(f"{demo}/rig/1/crawls")
    expect(page.get_by_text("computed and not yet shot")).to_be_visible()
    page.keyboard.press("t")
    expect(page.get_by_label("Distance of this visit")).to_be_focused()
    page.keyboard.type("30")
    page.get_by_label("Crawl of this visit").fill("50")
    page.get_by_label("How far above the mark each arrow landed").fill("6 11 high")
    page.keyboard.press("Enter")
    expect(page.get_by_text("“high”", exact=False)).to_be_visible()
    page.get_by_label("How far above the mark each arrow landed").fill("6 11 8")
    page.keyboard.press("Enter")
    expect(page.get_by_text("3 arrows at 30.0 m with", exact=False)).to_be_visible()
    expect(page.get_by_text("Learnt from 3 arrows", exact=False)).to_be_visible()
    page.get_by_role("button", name="Strike out").first.click()
    expect(page.get_by_text("computed and not yet shot")).to_be_visible()
