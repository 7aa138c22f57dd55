"""`make pictures`: one current picture of each main view, from the demo's data."""

from __future__ import annotations

import socket
import subprocess
import sys
import tempfile
import time
import urllib.request
from io import BytesIO
from pathlib import Path

from PIL import Image
from playwright.sync_api import Browser, Page, sync_playwright

HERE = Path(__file__).parent
sys.path.insert(0, str(HERE.parents[1] / "tests/browser"))
from rest import COUNTS_QUESTIONS, at_rest  # noqa: E402  (one definition of a page at rest)

GAP = 8  # px between pictures that stand side by side
VIEWS = {
    "rigs": "/",
    "rack": "/rack",
    "bow-length": "/rig/1/bow-length",
    "brace": "/rig/2/brace",
    "quiet": "/rig/2/quiet",
    "crawls": "/rig/1/crawls",
    "logbook": "/rig/1/keep",
    "side-by-side": "/rig/1/beside?seq=38",
}


# Pictures of four: each view by its path and the leaf of it that is open.
FOURS = {
    "set-up": (
        ("/rig/1/tiller", None), ("/rig/1/in-line", None), ("/rig/1/centre-shot", None),
        ("/rig/1/weights", None),
    ),
    "begin": (
        ("/rig/1/draw", None), ("/rig/1/weight", None), ("/rig/1/assembly", None),
        ("/rig/1/string", None),
    ),
    "flight": (
        ("/rig/1/flight", None), ("/rig/2/flight", "Reads"), ("/rig/1/flight", "Which spine"),
        ("/rig/2/flight", "What moves it"),
    ),
    "flight-more": (
        ("/rig/2/flight", "Length, point"), ("/rig/2/flight", "Groups"),
        ("/rig/2/flight", "Walk-back"), ("/rig/2/flight", "Passing"),
    ),
    "arrow": (
        ("/rig/1/arrow", None), ("/rig/2/arrow", "What if"), ("/rig/2/arrow", "Wood"),
        ("/rig/2/arrow", "Shaft by shaft"),
    ),
}  # fmt: skip


def opened(browser: Browser, width: int, height: int, colours: str = "light") -> Page:
    """A page of its own at a size."""
    page = browser.new_page(
        viewport={"width": width, "height": height}, reduced_motion="reduce", color_scheme=colours
    )
    page.add_init_script(COUNTS_QUESTIONS)
    return page


def taken(page: Page) -> bytes:
    """The page as it is once it is at rest and no long work goes on."""
    at_rest(page)
    page.locator("main progress").wait_for(state="detached")
    at_rest(page)
    return page.screenshot(animations="disabled")


def shoot(page: Page, address: str, name: str, path: str) -> None:
    """One picture of one view."""
    page.goto(address + path)
    keep(page, name)


def keep(page: Page, name: str) -> None:
    """A picture of the page as it is."""
    (HERE / f"{name}.png").write_bytes(taken(page))


def shoot_four(page: Page, address: str, name: str) -> None:
    """Four views in one picture, two by two."""
    shots = []
    for path, leaf in FOURS[name]:
        page.goto(address + path)
        if leaf:
            page.get_by_role("tab", name=leaf, exact=True).click()
        shots.append(Image.open(BytesIO(taken(page))).convert("RGB"))
    wide, high = shots[0].size
    whole = Image.new("RGB", (2 * wide, 2 * high))
    for i, shot in enumerate(shots):
        whole.paste(shot, (i % 2 * wide, i // 2 * high))
    few = whole.quantize(colors=128, dither=Image.Dither.NONE)  # a drawing has few colours
    few.save(HERE / f"{name}.png", optimize=True)


def shoot_range(page: Page, address: str) -> None:
    """The page for the range, leaf by leaf, side by side."""
    page.goto(f"{address}/rig/1/range")
    at_rest(page)
    shots = []
    for leaf in ("Card", "End", "Brace", "Read", "Log"):
        page.get_by_role("tab", name=leaf, exact=True).click()
        if leaf == "End":
            butt = page.locator("figure[aria-label^='This end'] rect").first.bounding_box()
            for x, y in ((0.45, 0.4), (0.55, 0.46), (0.5, 0.33)):
                page.mouse.click(butt["x"] + x * butt["width"], butt["y"] + y * butt["height"])
        if leaf == "Log":
            page.get_by_text("It opens here without the server").wait_for()
        shots.append(Image.open(BytesIO(taken(page))).convert("RGB"))
    wide, high = shots[0].size
    whole = Image.new("RGB", (len(shots) * (wide + GAP) - GAP, high), "#C9C3B3")
    for i, shot in enumerate(shots):
        whole.paste(shot, (i * (wide + GAP), 0))
    few = whole.quantize(colors=128, dither=Image.Dither.NONE)
    few.save(HERE / "range.png", optimize=True)


def main() -> None:
    """Start the demo on a fresh folder, take every picture, stop it."""
    with socket.socket() as s:
        s.bind(("127.0.0.1", 0))
        port = s.getsockname()[1]
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        run = subprocess.Popen(
            [sys.executable, "-m", "lyrandis.cli", "demo", "--port", str(port), "--data", folder]
        )
        address = f"http://127.0.0.1:{port}"
        try:
            for _ in range(400):
                try:
                    urllib.request.urlopen(f"{address}/api/health").close()
                    break
                except OSError:
                    time.sleep(0.1)
            browser = playwright.chromium.launch(
                executable_path="/usr/bin/chromium-headless-shell",
                args=["--no-sandbox", "--disable-gpu"],
            )
            page = opened(browser, 1280, 800)
            for name, path in VIEWS.items():
                shoot(page, address, name, path)
            for name in FOURS:
                shoot_four(page, address, name)
            page.goto(f"{address}/terms#limb-nock")
            at_rest(page)
            page.locator("section[aria-label='The bow']").evaluate("e => e.scrollIntoView()")
            keep(page, "terms")
            page.goto(f"{address}/rack/fit")
            page.get_by_label("For", exact=True).select_option(label="Ada Lindgren")
            page.get_by_text("could be Ada Lindgren's").wait_for()
            keep(page, "fit-from-rack")
            dark = opened(browser, 1280, 800, "dark")
            dark.goto(f"{address}/rig/2/nock-point")
            dark.get_by_role("tab", name="Reads").click()
            dark.get_by_role("button", name="Tail high").wait_for()
            keep(dark, "nock-point")
            narrow = opened(browser, 820, 1180)
            narrow.goto(f"{address}/rack")
            narrow.get_by_role("link", name="Spruce set").click()
            narrow.get_by_role("heading", name="Its story").wait_for()
            keep(narrow, "part")
            phone = opened(browser, 390, 844)
            shoot(phone, address, "schedule", "/rig/1/schedule")
            shoot_range(phone, address)
            browser.close()
        finally:
            run.terminate()
            run.wait(20)


if __name__ == "__main__":
    main()
