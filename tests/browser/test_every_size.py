"""Every page at every size, by day and by lamp: nothing that keeps a person out."""

import json
from pathlib import Path

import numpy as np
import pytest
from rest import at_rest

from claims import ALL
from lyrandis.core.route import ROUTES
from lyrandis.demo.scenario import SEED

AXE = Path(__file__).parents[2] / "web/node_modules/axe-core/axe.min.js"
SIZES = {
    name: {"width": width, "height": height}
    for name, width, height in (("phone", 390, 844), ("tablet", 820, 1180), ("wide", 1280, 800))
}
LEAST = {"wide": 24, "tablet": 44, "phone": 44}  # px, of what is pressed
# The final tiller is the rough one's page once more.
STATIONS = tuple(s for s in ROUTES["takedown"].stops if s != "final-tiller")
RNG = np.random.default_rng(SEED + 1)  # as the demo gives its parts their marks
ARCHER, RISER = (RNG.bytes(16).hex() for _ in range(2))
PAGES = (
    "/",
    "/new",
    "/terms",
    "/rack",
    "/rack/fit",
    f"/rack/beside?mine={RISER}",
    f"/rack/{RISER}",
    "/range",
    *(f"/rig/1/{s}" for s in (*STATIONS, "keep", "schedule", "beside", "range")),
)
_SETS = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"]
EVERY_RULE = {"runOnly": _SETS}
STRUCTURE = {"runOnly": _SETS, "rules": {"color-contrast": {"enabled": False}}}
COLOURS = {"runOnly": ["color-contrast"]}  # all that the lamp changes
RUN = """async (asked) => {
  const told = await axe.run(document, { ...asked, resultTypes: ['violations'] });
  return told.violations.map((v) => `${v.id}: ${v.nodes.slice(0, 4).map((n) => `${n.target} (${n.any[0]?.message ?? ''})`).join(' ; ')}`);
}"""
# A thumb's target: everything to press or to type in, but for links within a line of text.
SMALL = """(least) => [...document.querySelectorAll('button, a, input, select, summary, [role=tab]')]
  .filter((e) => e.checkVisibility({ checkVisibilityCSS: true, checkOpacity: true }))
  .filter((e) => !e.closest('.sr-only, .skip, p, figcaption, td span') || e.matches('.act'))
  .map((e) => (e.matches('input[type=checkbox], input[type=radio]') && e.closest('label')) || e)
  .map((e) => [e, e.getBoundingClientRect()])
  .filter(([, b]) => b.width > 1 && b.height + 0.5 < least)
  .map(([e, b]) => `${e.tagName} ${e.className} “${e.textContent.trim().slice(0, 30)}” ${b.height}`)
"""


SHARES = 4


@pytest.fixture
def every(page, demo):
    """Pages with each of their leaves turned to, at each size: a page is loaded as a phone does."""
    source = AXE.read_text()

    def walk(paths):
        for path in paths:
            page.set_viewport_size(SIZES["phone"])
            page.goto(f"{demo}{path}")
            at_rest(page)
            page.evaluate(source)
            for size, frame in SIZES.items():
                page.set_viewport_size(frame)
                at_rest(page)  # a page has other leaves where it is wide
                tabs = page.get_by_role("tab")
                for leaf in range(max(tabs.count(), 1)):
                    if tabs.count():
                        tabs.nth(leaf).click()
                    at_rest(page)
                    yield f"{path} {leaf} {size}", size

    return walk


def none_of(faults):
    assert not faults, json.dumps(faults, indent=1, ensure_ascii=False)


@pytest.mark.parametrize("part", range(SHARES))
def test_no_page_keeps_a_person_out(page, every, part):
    """Nothing that a reader of screens stumbles over, all in its frame, what is pressed large enough.

    A tablet's page is built as a phone's. Colours are held by their tokens; `make soundness` looks
    at them on every page, by day and by lamp.
    """
    faults = {}
    for place, size in every(PAGES[part::SHARES]):
        looked = () if size == "tablet" else (("light", STRUCTURE),)
        for mode, asked in looked if not ALL else (("light", EVERY_RULE), ("dark", COLOURS)):
            page.evaluate("(mode) => (document.documentElement.dataset.mode = mode)", mode)
            if told := page.evaluate(RUN, asked):
                faults[f"{place} {mode}"] = told
        wide, high = page.evaluate(
            "[[document.documentElement.scrollWidth, innerWidth],"
            " [document.documentElement.scrollHeight, innerHeight]]"
        )
        if wide[0] > wide[1]:
            faults[f"{place} wide"] = [f"{wide[0]} px wide on {wide[1]}"]
        if place.startswith("/rig") and high[0] > high[1]:
            faults[f"{place} high"] = [f"{high[0]} px high on {high[1]}"]
        if "NaN" in page.content():
            faults[f"{place} NaN"] = ["a number that is none"]
        if small := page.evaluate(SMALL, LEAST[size]):
            faults[f"{place} small"] = small
    none_of(faults)
