"""What the bench costs in the browser, with a list of 50,000 names under 25 columns.

    python scripts/bench_web.py [--names 50000] [--rounds 15]

Starts a database, a queue and the web server, makes its own data, and drives headless Chromium. The
baseline of scrolling, in the same run and browser, is a bare virtual list: absolutely placed plain
elements with text, as many rows and columns, drawn anew as one scrolls. Script weight is what the
server sends, compressed, until the bench can be used.
"""

from __future__ import annotations

import argparse
import json
import os
import statistics
import subprocess
import sys
import time
import urllib.request
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from typing import Any

from ops.test import free_port, servers

CHROMIUM = "/usr/bin/chromium-headless-shell"
FLAGS = (
    "--no-sandbox --disable-gpu --disable-quic --no-first-run --disable-background-networking "
    "--disable-component-update --disable-sync"
).split()
COLUMNS = (
    "grade,letters,syllables,words,length,spelling,fit,sound,memory,clarity,recipes,added,price,"
    "looked,.com,.net,.org,.ie,.eu,.club,.shop,.press,.studio"
)  # with the tag and the name: 25
EXTENSIONS = ["com", "net", "org", "ie", "eu", "club", "shop", "press", "studio"]
BARE = """
<!doctype html><style>
#s{height:560px;width:700px;overflow:auto;contain:strict}#b{position:relative;height:%dpx}
.r{position:absolute;height:33px;left:0;display:grid;grid-template-columns:repeat(25,66px);
white-space:nowrap;border-bottom:1px solid #ccc;align-items:center}.r>div{overflow:hidden}
</style><div id=s><div id=b></div></div><script>
const s=document.getElementById('s'),b=document.getElementById('b'),live=new Map();
function draw(){const from=Math.max(0,Math.floor(s.scrollTop/33)-8),to=Math.min(%d,from+34);
for(const [i,e] of live)if(i<from||i>=to){e.remove();live.delete(i)}
for(let i=from;i<to;i++)if(!live.has(i)){const e=document.createElement('div');e.className='r';
e.style.transform='translateY('+33*i+'px)';
for(let c=0;c<25;c++){const d=document.createElement('div');
d.textContent='name '+i+' '+c;e.append(d)}
b.append(e);live.set(i,e)}}
s.addEventListener('scroll',draw);draw();</script>
"""
# Scrolls three rows a frame for so many frames.
SCROLL = """
async ([selector, frames]) => {
  const at = document.querySelector(selector);
  at.scrollTop = 3300;
  await new Promise(r => setTimeout(r, 600));
  for (let i = 0; i < frames; i++) {
    await new Promise(r => requestAnimationFrame(r));
    at.scrollTop += 99;
  }
  await new Promise(r => setTimeout(r, 300));
}
"""


# From an act to the frame in which what it leads to is shown.
UNTIL = """
async word => {
  const grid = () => document.querySelector('[role=grid]');
  const count = grid().getAttribute('aria-rowcount');
  const first = document.querySelector('[role=rowheader]').innerText;
  const began = performance.now();
  %(act)s
  for (;;) {
    await new Promise(r => setTimeout(r, 0));
    if (grid() && grid().getAttribute('aria-busy') === 'false' && %(shown)s) break;
    if (performance.now() - began > 9000) return 9;
  }
  await new Promise(r => requestAnimationFrame(r));
  return (performance.now() - began) / 1000;
}
"""


def fill(project: Any, count: int) -> None:
    from scripts.bench_api import fill as fill_names
    from vinetag.apps.availability.models import Lookup
    from vinetag.apps.naming.models import Project

    fill_names(project, count)
    labels = project.candidates.order_by("rank").values_list("label", flat=True)[:5_000]
    Lookup.objects.bulk_create(
        (
            Lookup(
                project=project, label=a, extension=e, number=1, currency="EUR", first_year=12.0,
                status="open" if len(a) % 2 else "taken",
            )
            for a in labels
            for e in EXTENSIONS
        ),
        batch_size=2_000,
    )  # fmt: skip
    Project.objects.filter(pk=project.pk).update(answers=1)


def main_thread_ms(page: Any, cdp: Any, selector: str, frames: int) -> float:
    """Main-thread time a frame while scrolling, in milliseconds."""

    def busy() -> float:
        metrics = {m["name"]: m["value"] for m in cdp.send("Performance.getMetrics")["metrics"]}
        return float(metrics["TaskDuration"])

    before = busy()
    page.evaluate(SCROLL, [selector, frames])
    return 1000 * (busy() - before) / frames


def median_ms(work: Callable[[], float], rounds: int) -> float:
    return round(1000 * statistics.median(work() for _ in range(rounds)), 1)


def sign_in(page: Any, address: str) -> None:
    page.goto(address)
    page.get_by_label("Name", exact=True).fill("bench")
    page.get_by_label("Password").fill("quiet-ink-post")
    page.get_by_role("button", name="Sign in", exact=True).click()
    page.get_by_role("heading", name="Projects").wait_for()


def owner() -> Any:
    """The person who signs in, who has seen the tour."""
    from vinetag.apps.accounts.models import User

    person = User.objects.create_user("bench", password="quiet-ink-post")  # noqa: S106 - own data
    person.preferences = {"toured": True}
    person.save()
    return person


def measure(address: str, project: Any, rounds: int, count: int) -> dict[str, Any]:
    from django.conf import settings
    from playwright.sync_api import sync_playwright

    with sync_playwright() as tool:
        browser = tool.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        context = browser.new_context(viewport={"width": 1280, "height": 800})
        context.set_default_timeout(20_000)
        page = context.new_page()
        sign_in(page, address)
        cookies = context.cookies()
        context.close()
        # A first visit, with nothing cached.
        context = browser.new_context(viewport={"width": 1280, "height": 800})
        context.add_cookies(cookies)
        context.set_default_timeout(20_000)
        page = context.new_page()
        cdp = context.new_cdp_session(page)
        cdp.send("Network.enable")
        kinds: dict[str, str] = {}
        weight = {"Script": 0.0}
        cdp.on("Network.responseReceived", lambda e: kinds.update({e["requestId"]: e["type"]}))

        def ended(event: dict[str, Any]) -> None:
            if kinds.get(event["requestId"]) == "Script":
                weight["Script"] += event["encodedDataLength"]

        cdp.on("Network.loadingFinished", ended)
        bench = f"{address}/projects/{project.pk}"
        began = time.perf_counter()
        page.goto(f"{bench}?cols={COLUMNS}", wait_until="commit")
        page.get_by_role("rowheader").first.wait_for()
        opened = time.perf_counter() - began
        page.wait_for_load_state("networkidle")
        script = weight["Script"]
        grid = page.get_by_role("grid", name="Names")
        page.get_by_role("button", name="Filters").wait_for()

        cdp.send("Performance.enable")
        frames = 120
        ours, bare = [], []
        other = context.new_page()
        other.set_content(BARE % (33 * count, count))
        other_cdp = context.new_cdp_session(other)
        other_cdp.send("Performance.enable")
        for _ in range(5):
            page.bring_to_front()
            ours.append(main_thread_ms(page, cdp, "[role=grid]", frames))
            other.bring_to_front()
            bare.append(main_thread_ms(other, other_cdp, "#s", frames))
        page.bring_to_front()

        field = page.get_by_label("Has letters")
        words = iter(f"{a}{b}" for a in "aeioust" for b in "nrltsmp")

        def in_page(act: str, shown: str, argument: str = "") -> float:
            """Seconds from an act to the frame in which its outcome is shown, inside the page."""
            return float(page.evaluate(UNTIL % {"act": act, "shown": shown}, argument))

        filtered = median_ms(
            lambda: in_page(
                "const f = document.querySelector('input'); f.focus(); "
                "Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set"
                ".call([...document.querySelectorAll('input')].find(i => "
                "i.labels && i.labels[0] && "
                "i.labels[0].innerText.startsWith('Has letters')), word);"
                "[...document.querySelectorAll('input')].find(i => i.labels && i.labels[0] && "
                "i.labels[0].innerText.startsWith('Has letters'))"
                ".dispatchEvent(new Event('input', {bubbles: true}));",
                "grid().getAttribute('aria-rowcount') !== count",
                next(words),
            ),
            rounds,
        )
        field.fill("")
        page.wait_for_timeout(800)
        sorted_ms = median_ms(
            lambda: in_page(
                "[...document.querySelectorAll('[role=columnheader] button')]"
                ".find(b => b.innerText.startsWith('Name')).click();",
                "document.querySelector('[role=rowheader]').innerText !== first",
            ),
            9,
        )
        grid.focus()
        page.keyboard.press("Home")

        def key() -> float:
            # From the key to the frame in which the row is chosen, inside the page.
            return float(
                page.evaluate(
                    """async () => {
  const grid = document.querySelector('[role=grid]');
  const before = grid.getAttribute('aria-activedescendant');
  const began = performance.now();
  grid.dispatchEvent(new KeyboardEvent('keydown', {key: 'ArrowDown', bubbles: true}));
  while (grid.getAttribute('aria-activedescendant') === before) {
    if (performance.now() - began > 5000) return 5;
    await new Promise(r => setTimeout(r, 0));
  }
  await new Promise(r => requestAnimationFrame(r));
  return (performance.now() - began) / 1000 }"""
                )
            )

        keyed = median_ms(key, rounds)
        began = time.perf_counter()
        page.goto(f"{bench}?cols={COLUMNS}&sort=name", wait_until="commit")
        page.get_by_role("rowheader").first.wait_for()
        again = time.perf_counter() - began

        def from_list() -> float:
            """Seconds from pressing a project in the list, once pointed at, to its first names."""
            page.goto(address)
            link = page.get_by_role("link", name="Bench", exact=True)
            link.wait_for()
            link.hover()
            page.wait_for_timeout(200)
            began = time.perf_counter()
            link.click()
            page.get_by_role("rowheader").first.wait_for()
            return time.perf_counter() - began

        listed = median_ms(from_list, 5)
        browser.close()
    return {
        "names": count,
        "columns": 25,
        "debug": settings.DEBUG,
        "script_kB": round(script / 1000, 1),
        "opened_first_ms": round(1000 * opened),
        "opened_again_ms": round(1000 * again),
        "opened_from_the_list_ms": listed,
        "scroll_ms_a_frame": round(statistics.median(ours), 2),
        "bare_ms_a_frame": round(statistics.median(bare), 2),
        "scroll_over_bare": round(statistics.median(ours) / statistics.median(bare), 2),
        "filter_shown_ms": filtered,
        "sort_shown_ms": sorted_ms,
        "key_to_frame_ms": keyed,
    }


def run(rounds: int, count: int) -> dict[str, Any]:
    from vinetag.apps.naming.models import Project
    from vinetag.core.brief import brief_document, parse_brief

    brief = brief_document(parse_brief({"keywords": ["ink"], "extensions": EXTENSIONS}))
    project = Project.objects.create(owner=owner(), name="Bench", brief=brief)
    fill(project, count)
    with web_server() as address:
        return measure(address, project, rounds, count)


@contextmanager
def own_servers() -> Iterator[None]:
    """A database and a queue of the benchmark's own, and an empty application on them."""
    import django
    from django.core.management import call_command

    with servers() as places:
        os.environ.update(
            places,
            DJANGO_SETTINGS_MODULE="vinetag.config.settings.run",
            VINETAG_SECRET_KEY="only-for-a-benchmark",  # noqa: S106 - own data
            DJANGO_ALLOW_ASYNC_UNSAFE="1",
        )
        django.setup()
        call_command("prepare")
        yield


@contextmanager
def web_server() -> Iterator[str]:
    """The application's address, once its word data is loaded."""
    port = free_port()
    address = f"http://127.0.0.1:{port}"
    command = "-m vinetag.config.serve --port"
    server = subprocess.Popen([sys.executable, *command.split(), str(port)])
    try:
        for _ in range(200):
            try:
                urllib.request.urlopen(f"{address}/api/session").close()  # noqa: S310
                break
            except OSError:
                time.sleep(0.2)
        time.sleep(12)  # the word data loads beside the first requests
        yield address
    finally:
        server.terminate()
        server.wait()


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.splitlines()[0])
    parser.add_argument("--rounds", type=int, default=15)
    parser.add_argument("--names", type=int, default=50_000)
    args = parser.parse_args()
    with own_servers():
        print(json.dumps(run(args.rounds, args.names)))


if __name__ == "__main__":
    main()
