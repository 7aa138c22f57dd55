"""When a page is at rest: no question of it is open, and nothing is on its way to the screen."""

from contextlib import suppress
from time import monotonic

from playwright.sync_api import Error

# Before any script of the page's own.
COUNTS_QUESTIONS = """(() => {
  const ask = window.fetch;
  window.openQuestions = 0;
  window.fetch = (...asked) => {
    window.openQuestions += 1;
    return ask(...asked).finally(() => { window.openQuestions -= 1; });
  };
})();"""
_AT_REST = """async () => {
  const drawn = () => new Promise((done) => requestAnimationFrame(() => setTimeout(done)));
  await drawn();
  await drawn();
  return window.openQuestions === 0
    && document.readyState === 'complete'
    && document.querySelector('h1') !== null
    && document.querySelector('[aria-busy=true]') === null;
}"""


def at_rest(page, within_s=60):
    """Wait until the page is at rest."""
    end = monotonic() + within_s
    while monotonic() < end:
        with suppress(Error):  # the page went on to another while it was asked
            if page.evaluate(_AT_REST):
                return
    raise AssertionError(f"{page.url} does not come to rest within {within_s} s")
