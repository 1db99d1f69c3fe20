"""What people at work at the same time wait for, and how many database connections that takes.

    python scripts/bench_load.py [--people 50 200] [--seconds 30]

Starts a database with the limit of connections ./start gives it, a queue and two web processes on
one socket, and signs in as many people, each with a project of their own. A person opens the sheet,
filters it, keeps a name and takes it off again, with a second between two acts; a twentieth of them
change the brief, too, so that names are made anew. The baseline is one person alone, in the same
run. Only loopback is asked, for a bounded time.
"""

from __future__ import annotations

import argparse
import asyncio
import contextlib
import json
import os
import random
import socket
import statistics
import subprocess
import sys
import time
from collections import Counter
from collections.abc import Iterator
from typing import Any

import aiohttp

from ops.test import servers

BRIEF = {
    "keywords": [{"text": "ink", "weight": 5}, {"text": "post", "weight": 3}],
    "extensions": ["com", "net", "ie"],
}
THINK = 1.0
PROCESSES = 2


@contextlib.contextmanager
def site(env: dict[str, str]) -> Iterator[str]:
    """Web processes as ./start runs them: each takes its connections from one socket."""
    held = socket.create_server(("127.0.0.1", 0), backlog=512)
    command = [sys.executable, "-m", "vinetag.config.serve"]
    running = [subprocess.Popen(command, env=env, stdin=held) for _ in range(PROCESSES)]
    try:
        yield f"http://127.0.0.1:{held.getsockname()[1]}"
    finally:
        for process in running:
            process.terminate()
        for process in running:
            process.wait(15)
        held.close()


def people_with_projects(count: int) -> list[tuple[str, int]]:
    """Sessions of people, each with a project: stored at once, for making is measured elsewhere."""
    import django

    django.setup()
    from django.conf import settings
    from django.contrib.auth import BACKEND_SESSION_KEY, HASH_SESSION_KEY, SESSION_KEY
    from django.contrib.sessions.backends.db import SessionStore

    from vinetag.apps.accounts.models import User
    from vinetag.apps.naming.models import Candidate, Project
    from vinetag.apps.naming.services import create_project, list_more

    first = User.objects.create(username="p0")
    model = list_more(create_project(owner=first, name="Load", brief=BRIEF))
    rows = list(model.candidates.all())
    found = []
    for n in range(count):
        user = first if n == 0 else User.objects.create(username=f"p{n}")
        project = model
        if n:
            project = Project.objects.get(pk=model.pk)
            project.pk, project.owner = None, user
            project.save()
            for row in rows:
                row.pk, row.project_id = None, project.pk
            Candidate.objects.bulk_create(rows, batch_size=500)
        session = SessionStore()
        session[SESSION_KEY] = str(user.pk)
        session[BACKEND_SESSION_KEY] = settings.AUTHENTICATION_BACKENDS[0]
        session[HASH_SESSION_KEY] = user.get_session_auth_hash()
        session.create()
        found.append((str(session.session_key), project.pk))
    return found


class Tally:
    """What was asked and how long it took, in seconds."""

    def __init__(self) -> None:
        self.took: list[float] = []
        self.asked_to_wait = 0
        self.errors: Counter[str] = Counter()

    def document(self, people: int, seconds: float, connections: int) -> dict[str, Any]:
        cuts = statistics.quantiles(self.took, n=100) if len(self.took) > 1 else [0.0] * 99
        return {
            "people": people,
            "requests": len(self.took),
            "requests_a_second": round(len(self.took) / seconds, 1),
            "p50_seconds": round(cuts[49], 3),
            "p95_seconds": round(cuts[94], 3),
            "p99_seconds": round(cuts[98], 3),
            "asked_to_come_back": self.asked_to_wait,
            "errors": dict(self.errors),
            "open_connections": connections,
        }


async def person(
    session: aiohttp.ClientSession, key: str, project: int, until: float, tally: Tally, maker: bool
) -> None:
    rng = random.Random(project)
    token = "x" * 32
    headers = {"Cookie": f"sessionid={key}; csrftoken={token}", "X-CSRFToken": token}
    kept: list[str] = []

    async def ask(method: str, path: str, **more: Any) -> Any:
        """As the browser does: who is asked to come back does, and that counts as waiting."""
        began = time.monotonic()
        for _ in range(6):
            try:
                async with session.request(
                    method, f"/api/projects/{project}{path}", headers=headers, **more
                ) as reply:
                    wait = float(reply.headers.get("Retry-After", 0))
                    if reply.status == 503 and wait:
                        tally.asked_to_wait += 1
                        await asyncio.sleep(wait)
                        continue
                    body = await reply.read()
                    if reply.status >= 400:
                        tally.errors[str(reply.status)] += 1
                    tally.took.append(time.monotonic() - began)
                    return json.loads(body) if body and reply.status < 400 else None
            except (aiohttp.ClientError, TimeoutError, OSError) as error:
                tally.errors[type(error).__name__] += 1
                return None
        tally.errors["gave up"] += 1
        return None

    await asyncio.sleep(rng.random() * THINK)
    while time.monotonic() < until:
        page = await ask("GET", "/names?limit=60")
        await asyncio.sleep(THINK)
        await ask("GET", f"/names?limit=60&letters_max={rng.randint(6, 12)}&sort=letters")
        await asyncio.sleep(THINK)
        labels = [row["label"] for row in (page or {}).get("rows", [])]
        if kept:
            await ask("POST", "/shortlist/off", json={"labels": kept})
            kept = []
        elif labels:
            kept = [rng.choice(labels)]
            await ask("POST", "/shortlist", json={"labels": kept})
        await asyncio.sleep(THINK)
        if maker:
            words = [{"text": w} for w in rng.sample(["ink", "post", "paper", "club", "quill"], 3)]
            await ask("PATCH", "", json={"brief": {**BRIEF, "keywords": words}})
            await asyncio.sleep(THINK)


async def crowd(address: str, people: list[tuple[str, int]], seconds: float) -> dict[str, Any]:
    tally = Tally()
    most = 0
    connector = aiohttp.TCPConnector(limit=0)
    timeout = aiohttp.ClientTimeout(total=60)
    jar = aiohttp.DummyCookieJar()
    async with aiohttp.ClientSession(
        address, connector=connector, timeout=timeout, cookie_jar=jar
    ) as session:
        began = time.monotonic()
        tasks = [
            asyncio.create_task(
                person(session, key, project, began + seconds, tally, maker=n % 20 == 19)
            )
            for n, (key, project) in enumerate(people)
        ]
        while not all(t.done() for t in tasks) and time.monotonic() < began + seconds + 90:
            most = max(most, await asyncio.to_thread(open_connections))
            await asyncio.sleep(1)
        for task in tasks:
            task.cancel()
        await asyncio.gather(*tasks, return_exceptions=True)
        return tally.document(len(people), time.monotonic() - began, most)


async def beside(address: str, people: list[tuple[str, int]], seconds: float) -> dict[str, Any]:
    """What one who only reads waits for while four others make names without a pause."""
    tally = Tally()
    jar = aiohttp.DummyCookieJar()
    timeout = aiohttp.ClientTimeout(total=60)
    made = 0
    async with aiohttp.ClientSession(address, timeout=timeout, cookie_jar=jar) as session:
        until = time.monotonic() + seconds

        async def make(key: str, project: int) -> None:
            nonlocal made
            rng = random.Random(project)
            head = {"Cookie": f"sessionid={key}; csrftoken={'x' * 32}", "X-CSRFToken": "x" * 32}
            while time.monotonic() < until:
                words = [{"text": w} for w in rng.sample(["ink", "post", "paper", "quill"], 3)]
                body = {"brief": {**BRIEF, "keywords": words}}
                path = f"/api/projects/{project}"
                async with session.patch(path, json=body, headers=head) as reply:
                    made += reply.status == 200

        tasks = [asyncio.create_task(make(*one)) for one in people[1:5]]
        (key, project), pause = people[0], 0.2
        while time.monotonic() < until:
            began = time.monotonic()
            path = f"/api/projects/{project}/names?limit=60"
            async with session.get(path, headers={"Cookie": f"sessionid={key}"}) as reply:
                await reply.read()
                if reply.status >= 400:
                    tally.errors[str(reply.status)] += 1
            tally.took.append(time.monotonic() - began)
            await asyncio.sleep(pause)
        await asyncio.gather(*tasks, return_exceptions=True)
    return {**tally.document(1, seconds, 0), "lists_made_meanwhile": made}


def open_connections() -> int:
    from django.db import connection

    with connection.cursor() as cursor:
        cursor.execute("SHOW STATUS LIKE 'Threads_connected'")
        return int(cursor.fetchone()[1]) - 1  # without this one


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--people", type=int, nargs="*", default=[50, 200])
    parser.add_argument("--seconds", type=float, default=30.0)
    args = parser.parse_args()
    with servers() as places:
        settings = {"DJANGO_SETTINGS_MODULE": "vinetag.config.settings.run", **places}
        settings |= {"VINETAG_SECRET_KEY": "only-for-measuring"}
        os.environ.update(settings, DJANGO_ALLOW_ASYNC_UNSAFE="true")
        env = {**os.environ}
        subprocess.run([sys.executable, "manage.py", "migrate", "-v", "0"], check=True, env=env)
        people = people_with_projects(max(args.people))
        with site(env) as address:
            time.sleep(6)  # word data is loaded beside the first requests
            runs = {"alone": asyncio.run(crowd(address, people[:1], 8.0))}
            runs["beside_makers"] = asyncio.run(beside(address, people, 20.0))
            for count in args.people:
                runs[str(count)] = asyncio.run(crowd(address, people[:count], args.seconds))
    alone = runs["alone"]["p50_seconds"] or 0.001
    print(
        json.dumps(
            {
                "runs": runs,
                "p50_against_one_person": {
                    name: round(run["p50_seconds"] / alone, 1) for name, run in runs.items()
                },
            }
        )
    )


if __name__ == "__main__":
    main()
