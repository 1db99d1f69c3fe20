"""How soon the sheet follows a change of the brief, in the browser.

    python scripts/bench_follow.py [--rounds 7]

Starts a database, a queue and the web server, makes a project of three keywords, and drives
headless Chromium: from Enter on a fourth word (each time another one) to the frame in which a name
with it stands in the sheet, and to the whole list. The baseline, in the same run, is making and
storing the whole list at once, without a browser.
"""

from __future__ import annotations

import argparse
import json
import statistics
import time
from typing import Any

from scripts.bench_web import CHROMIUM, FLAGS, own_servers, owner, sign_in, web_server

KEYWORDS = ["letterpress", "paper", "stars"]
WORDS = "saddle thimble cottage feather walnut spindle bottle harbour ladder barrel copper".split()
# Waits for a name with the word among the rows, then for a list longer than its first names.
FOLLOW = """
async word => {
  const rows = () => Number(document.querySelector('[role=grid]').getAttribute('aria-rowcount'));
  const names = () => [...document.querySelectorAll('[role=rowheader]')].map(r => r.innerText);
  const found = {};
  const began = await new Promise(r =>
    addEventListener('keydown', () => r(performance.now()), {once: true, capture: true}));
  while (performance.now() - began < 15000) {
    await new Promise(r => setTimeout(r, 4));
    if (!found.first && rows() < 1000 && names().some(n => n.replace(/\\s/g, '').includes(word))) {
      await new Promise(r => requestAnimationFrame(r));
      found.first = (performance.now() - began) / 1000;
    }
    if (found.first && rows() > 1000) {
      found.whole = (performance.now() - began) / 1000;
      return found;
    }
  }
  return {first: 15, whole: 15};
}
"""


def follow(address: str, project: Any, rounds: int) -> tuple[list[float], list[float]]:
    from playwright.sync_api import sync_playwright

    first, whole = [], []
    with sync_playwright() as tool:
        browser = tool.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.set_default_timeout(20_000)
        sign_in(page, address)
        page.goto(f"{address}/projects/{project.pk}")
        page.get_by_role("rowheader").first.wait_for()
        page.wait_for_timeout(5_000)
        for word in WORDS[:rounds]:
            field = page.get_by_label("Add words")
            field.fill(word)
            page.evaluate(f"word => {{ window.followed = ({FOLLOW})(word); }}", word)
            field.press("Enter")
            found = page.evaluate("() => window.followed")
            first.append(found["first"])
            whole.append(found["whole"])
            page.wait_for_timeout(500)
            page.get_by_role("button", name=f"Remove {word}").click()
            page.wait_for_timeout(4_000)
        browser.close()
    return first, whole


def at_once(project: Any, rounds: int) -> list[float]:
    """Seconds of making and storing the whole list in one go."""
    from django.conf import settings

    from vinetag.apps.naming import services

    services.FIRST = settings.NAMES_A_STEP
    seconds = []
    for word in ("warm", *WORDS[:rounds]):
        brief = {**project.brief, "keywords": [*KEYWORDS, word]}
        began = time.perf_counter()
        services.change_project(project=project, name=None, brief=brief)
        seconds.append(time.perf_counter() - began)
    return seconds[1:]


def run(rounds: int) -> dict[str, Any]:
    from vinetag.apps.naming.services import create_project

    project = create_project(owner=owner(), name="Followed", brief={"keywords": KEYWORDS})
    with web_server() as address:
        first, whole = follow(address, project, rounds)
    project.refresh_from_db()
    base = statistics.median(at_once(project, rounds))
    return {
        "rounds": rounds,
        "first_seconds": round(statistics.median(first), 2),
        "first_seconds_most": round(max(first), 2),
        "whole_seconds": round(statistics.median(whole), 2),
        "at_once_seconds": round(base, 2),
        "first_over_at_once": round(statistics.median(first) / base, 2),
    }


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.splitlines()[0])
    parser.add_argument("--rounds", type=int, default=7)
    args = parser.parse_args()
    with own_servers():
        print(json.dumps(run(args.rounds)))


if __name__ == "__main__":
    main()
