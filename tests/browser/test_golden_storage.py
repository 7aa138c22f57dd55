"""What an earlier version left in a browser is taken up: acts that wait, what was typed, the kept page.

`GOLDEN_STORAGE=0009 pytest tests/browser/test_golden_storage.py -k made` makes the next one, beside
the golden folder on which it was left.
"""

import gzip
import json
import os
import re
from pathlib import Path

import pytest
from playwright.sync_api import expect
from test_range_page import PHONE, RANGE, log_an_end, rig, since

GOLDEN = Path(__file__).parents[1] / "golden"
LEFT = sorted(GOLDEN.glob("*/browser.json.gz"))
AT = "http://golden"  # in the file, for the address that it was left at
KEPT_PAGE = """async () => {
  const cache = await caches.open('told');
  const answers = [];
  for (const request of await cache.keys()) {
    const answer = await cache.match(request);
    const bytes = new Uint8Array(await answer.arrayBuffer());
    const path = new URL(request.url).pathname + new URL(request.url).search;
    answers.push([path, [...answer.headers], btoa(String.fromCharCode(...bytes))]);
  }
  return answers;
}"""
# The browser had the range page's worker; a storage state does not carry it.
WORKER_STANDS = """async () => {
  await navigator.serviceWorker.register('/service-worker.js');
  await navigator.serviceWorker.ready;
}"""
POUR_IN = """async (answers) => {
  const cache = await caches.open('told');
  for (const [path, headers, body] of answers) {
    const bytes = Uint8Array.from(atob(body), (c) => c.charCodeAt(0));
    await cache.put(path, new Response(bytes, { headers }));
  }
}"""


@pytest.fixture
def served(serve, tmp_path):
    """The application on a golden folder's data."""

    def on(golden):
        folder = tmp_path / "data"
        folder.mkdir()
        data = gzip.decompress((golden / "lyrandis.db.gz").read_bytes())
        (folder / "lyrandis.db").write_bytes(data)
        return serve(folder, "serve")

    return on


@pytest.fixture
def new_phone(browser):
    made = []

    def phone(**more):
        made.append(browser.new_context(viewport=PHONE, has_touch=True, is_mobile=True,
                                        reduced_motion="reduce", **more))  # fmt: skip
        return made[-1]

    yield phone
    for context in made:
        context.close()


@pytest.mark.skipif("GOLDEN_STORAGE" not in os.environ, reason="made once, for each revision")
def test_it_is_made(new_phone, served):
    golden = GOLDEN / os.environ["GOLDEN_STORAGE"]
    server, phone = served(golden), new_phone()
    page = phone.new_page()
    page.goto(f"{server.at}/rig/1/weight")
    page.get_by_role("tab", name="What you can hold", exact=True).tap()
    page.get_by_label("Seconds held").fill("17")
    page.get_by_label("Seconds held").press("Tab")
    page.goto(f"{server.at}{RANGE}")
    page.get_by_role("button", name=re.compile("^25 ")).tap()
    page.get_by_role("tab", name="Log", exact=True).tap()
    expect(page.get_by_text("It opens here without the server", exact=False)).to_be_visible()
    server.stop()
    log_an_end(page, (0.5, 0.75), (0.5, 0.7), (0.5, 0.8))
    expect(page.get_by_text("1 waiting")).to_be_visible()
    page.get_by_role("tab", name="Read", exact=True).tap()
    page.get_by_role("button", name=re.compile("^Tail low")).tap()
    expect(page.get_by_text("2 waiting")).to_be_visible()
    left = {"state": phone.storage_state(indexed_db=True), "told": page.evaluate(KEPT_PAGE)}
    text = json.dumps(left, indent=1).replace(server.at, AT)
    (golden / "browser.json.gz").write_bytes(gzip.compress(text.encode(), mtime=0))


@pytest.mark.parametrize("file", LEFT, ids=lambda file: file.parent.name)
def test_it_is_taken_up(file, new_phone, served):
    server = served(file.parent)
    left = json.loads(gzip.decompress(file.read_bytes()).decode().replace(AT, server.at))
    phone = new_phone(storage_state=left["state"])
    # Without the server the kept page opens with what waits on it.
    page = phone.new_page()
    page.goto(f"{server.at}/terms")
    page.evaluate(WORKER_STANDS)
    page.evaluate(POUR_IN, left["told"])
    server.stop()
    page.goto(f"{server.at}/range")
    expect(page.get_by_text("2 waiting to be handed over")).to_be_visible()
    page.get_by_role("link", name="Field recurve").tap()
    expect(page.get_by_text("2 waiting")).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("^25 "))).to_be_visible()
    # With it they are handed over, each once and in order.
    server.start()
    page.get_by_role("tab", name=re.compile("^Log")).tap()
    page.get_by_role("button", name="Hand over now").tap()
    expect(page.get_by_text("Nothing waits", exact=False)).to_be_visible()
    kept = rig(page, server.at)
    assert kept["seq"] == then_seq(file) + 2
    logged = since(kept, then_seq(file))
    assert logged["crawl_visit"]["heights_cm"] == pytest.approx([-30, -24, -36], abs=2)
    assert logged["nock_read"]["tail"] == "low"
    # What was typed into a form stands in it.
    page.goto(f"{server.at}/rig/1/weight")
    page.get_by_role("tab", name="What you can hold", exact=True).tap()
    expect(page.get_by_label("Seconds held")).to_have_value("17")


def then_seq(file):
    told = gzip.decompress((file.parent / "expected.json.gz").read_bytes())
    return json.loads(told)["a_rigs"]["1"]["seq"]
