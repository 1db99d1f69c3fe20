"""./test: every check, against a database and a queue of its own on free loopback ports."""

from __future__ import annotations

import argparse
import contextlib
import os
import shutil
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator, Sequence
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from ops.parts import ROOT, MariaDb, PartError, Redis, free_port, wait_for

PYTHON = [sys.executable, "-W", "ignore::DeprecationWarning"]
WEB = ROOT / "web"
API_FILES = (ROOT / "docs/openapi.json", WEB / "src/shared/api/schema.d.ts")

SIDE_BY_SIDE = ["-n", "2", "--dist", "loadgroup"]

# Files told of by name, those the tests run through least.
LEAST_COVERED = 25

# Tests need no durability, and a slow disk would make them slow.
HASTY = ["--innodb-flush-log-at-trx-commit=0", "--skip-innodb-doublewrite"]


def arguments() -> argparse.Namespace:
    parser = argparse.ArgumentParser(prog="./test", description="Runs every check.")
    parser.add_argument("--no-lint", action="store_true", help="leave out linters and front end")
    parser.add_argument(
        "--quick", action="store_true", help="linters, types, the core's and the front end's tests"
    )
    parser.add_argument(
        "--coverage",
        action="store_true",
        help="what the tests run through, in all and where least; without the browser's tests",
    )
    parser.add_argument("pytest", nargs="*", help="what to pass to pytest, after --")
    return parser.parse_args()


@contextlib.contextmanager
def servers() -> Iterator[dict[str, str]]:
    """A database and a queue in a folder of their own; what the tests need to find them."""
    var = Path(tempfile.mkdtemp(prefix="vinetag-test-"))
    database, queue = MariaDb(var, free_port()), Redis(var, free_port(), "only-for-tests")
    database.prepare()
    log = (var / "servers.log").open("w")
    running = [
        subprocess.Popen([*command, *extra], stdout=log, stderr=log)
        for command, extra in (
            (database.command(), HASTY),
            (queue.command(), []),
        )
    ]
    try:
        wait_for(database.is_up, 40, "The test database")
        wait_for(queue.is_up, 20, "The test queue")
        database.grant("only-for-tests")
        yield {
            "VINETAG_DB_PORT": str(database.port),
            "VINETAG_DB_PASSWORD": "only-for-tests",
            "VINETAG_REDIS_URL": queue.url,
        }
    finally:
        for process in running:
            process.terminate()
        for process in running:
            process.wait(30)
        log.close()
        shutil.rmtree(var, ignore_errors=True)


def step(name: str, command: Sequence[str], env: dict[str, str], folder: Path = ROOT) -> bool:
    """Run one check; its output is shown when it fails."""
    began = time.monotonic()
    done = subprocess.run(command, env=env, cwd=folder, capture_output=True, text=True, check=False)
    seconds = f"{time.monotonic() - began:5.1f} s"
    print(f"  {'ok    ' if done.returncode == 0 else 'FAILED'}  {seconds}  {name}", flush=True)
    if done.returncode:
        print(done.stdout + done.stderr, flush=True)
    return done.returncode == 0


def api_is_current(env: dict[str, str]) -> bool:
    """Whether the API's document and types are what the code generates now."""
    before = [path.read_bytes() if path.exists() else b"" for path in API_FILES]
    document = str(API_FILES[0])
    options = ["--file", document, "--format", "openapi-json", "--validate", "--fail-on-warn"]
    made = step("OpenAPI document", [*PYTHON, "manage.py", "spectacular", *options], env)
    made = made and step("API types", ["npm", "run", "-s", "api"], env, WEB)
    same = before == [path.read_bytes() for path in API_FILES]
    if made and not same:
        print("  FAILED  the API files were out of date; they were made anew. Commit them.")
    return made and same


def lint(env: dict[str, str]) -> bool:
    """The Python linters; all of them run, whatever fails."""

    def tool(name: str) -> str:
        return str(Path(sys.executable).parent / name)

    results = [
        step("ruff", [tool("ruff"), "check", "."], env),
        step("ruff format", [tool("ruff"), "format", "--check", "."], env),
        step("mypy", [tool("mypy")], env),
        step("import directions", [tool("lint-imports")], env),
        step("migrations", [*PYTHON, "manage.py", "makemigrations", "--check", "--dry-run"], env),
    ]
    return all(results)


def front_end(env: dict[str, str]) -> bool:
    """The front end's linters and tests."""
    results = [
        step("prettier", ["npm", "run", "-s", "format"], env, WEB),
        step("messages", ["npm", "run", "-s", "texts", "--", "--check"], env, WEB),
        step("eslint", ["npm", "run", "-s", "lint"], env, WEB),
        step("tsc", ["npm", "run", "-s", "types"], env, WEB),
        step("front-end tests", ["npm", "run", "-s", "test"], env, WEB),
    ]
    return all(results)


def python(env: dict[str, str], options: Sequence[str]) -> bool:
    """Python's tests, as they go."""
    return subprocess.run([*PYTHON, "-m", "pytest", *options], env=env, check=False).returncode == 0


def everything(env: dict[str, str], *, linters: bool) -> bool:
    """All checks on two cores: what is of the browser beside what is of Python."""
    browser = [*PYTHON, "-m", "pytest", "-m", "e2e", "--durations=5"]
    # The API's files are made anew before anything reads them.
    passed = not linters or api_is_current(env)
    with ThreadPoolExecutor(1) as beside:
        shown = [beside.submit(step, "browser tests", browser, env)]
        if linters:
            shown.append(beside.submit(front_end, env))
        passed = (not linters or lint(env)) and passed
        passed = python(env, ["-m", "not e2e", "--durations=15"]) and passed
        results = [one.result() for one in shown]
        return all(results) and passed


def quick(env: dict[str, str]) -> bool:
    """What tells most in the shortest time: neither the API's documents nor anything with servers
    or a browser.
    """
    with ThreadPoolExecutor(1) as beside:
        shown = beside.submit(front_end, env)
        passed = lint(env)
        passed = python(env, ["tests/core", *SIDE_BY_SIDE]) and passed
        return shown.result() and passed


def measured(env: dict[str, str]) -> bool:
    """How much of the lines and branches the tests run through, of Python and of the front end."""
    kept = {**env, "COVERAGE_FILE": str(ROOT / "var/coverage")}
    cover = [*PYTHON, "-m", "coverage"]
    report = [*cover, "report", "--skip-covered", "--sort=cover"]
    command = [*cover, "run", "-m", "pytest", "-m", "not e2e"]
    passed = subprocess.run(command, env=kept, check=False).returncode == 0
    table = subprocess.run(report, env=kept, check=False, capture_output=True, text=True).stdout
    rows = table.splitlines()
    whole = [row for row in rows if row.startswith("TOTAL")]
    print("\n".join([*rows[: LEAST_COVERED + 2], *whole]), flush=True)
    web = ["npm", "run", "-s", "test", "--", "--coverage"]
    return subprocess.run(web, env=env, cwd=WEB, check=False).returncode == 0 and passed


def main() -> int:
    args = arguments()
    base = {
        **os.environ,
        "DJANGO_SETTINGS_MODULE": "vinetag.config.settings.test",
        "DJANGO_ALLOW_ASYNC_UNSAFE": "true",  # Playwright runs a loop beside the tests' own queries
    }
    try:
        with servers() as places:
            env = {**base, **places}
            if args.quick:
                passed = quick(env)
            elif args.coverage:
                passed = measured(env)
            elif args.pytest:
                linted = args.no_lint or (api_is_current(env) and lint(env) and front_end(env))
                passed = python(env, args.pytest) and linted
            else:
                passed = everything(env, linters=not args.no_lint)
    except PartError as error:
        print(f"The tests could not run: {error}", file=sys.stderr)
        return 1
    if not passed:
        print("A check failed; see above.", file=sys.stderr)
    return 0 if passed else 1


if __name__ == "__main__":
    sys.exit(main())
