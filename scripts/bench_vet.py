"""How fast names are vetted: marks found among a million, a register brought, a shortlist vetted.

    python -m scripts.bench_vet [--marks 1000000] [--names 20]

Starts a database, a queue and the simulated outside world of its own. Marks: one name on one core,
warm, against going through all of them by the same weighing without an index (on a thousandth part,
times a thousand). Import: marks a second from CSV into the database, the memory it took beside what
reading the words takes, and against the bare insertion of as many rows. Vetting: ten names of a
shortlist for all seven kinds against the stand-ins without limits, and when the first findings were
there.
"""

from __future__ import annotations

import argparse
import csv
import io
import json
import os
import random
import resource
import socket
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from ops.parts import free_port, wait_for
from ops.test import servers
from scripts.made_up_marks import made_up
from vinetag.core.brief import Brief, parse_brief
from vinetag.core.candidates import Candidate
from vinetag.core.grade import MEASURES, Grader
from vinetag.core.lexicon import load_lexicon
from vinetag.lookup.settings import simulated

SHORTLIST = (
    "inkpost", "paperpost", "totheletter", "fillthepen", "pressclub", "quietink", "papertrail",
    "sundaypress", "lettershed", "stampandseal",
)  # fmt: skip
ODD = (
    "zorvo", "quillandco", "brightlantern", "harrowmere", "inkery", "postwren", "foldline",
    "letterloft", "sealwax", "penumbra",
)  # fmt: skip
PART = 1_000


def memory_mb() -> float:
    """Of this process at its most."""
    return round(resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024, 1)


@contextmanager
def outside() -> Iterator[dict[str, str]]:
    """The simulated world on ports of its own."""
    ports = [free_port() for _ in range(3)]
    names = ("--port", "--dns-port", "--whois-port")
    command = [sys.executable, "-m", "standins.registry"]
    for name, port in zip(names, ports, strict=True):
        command += [name, str(port)]
    process = subprocess.Popen(command)
    try:

        def up() -> bool:
            with socket.socket() as s:
                return s.connect_ex(("127.0.0.1", ports[0])) == 0

        wait_for(up, 20, "the simulated world")
        yield simulated(*ports)
    finally:
        process.terminate()
        process.wait(10)


def marks_found(register: list[Any], names: list[str]) -> dict[str, Any]:
    """In memory, without a database."""
    from vinetag.core.vet.marks import FormMaker, Index, Indexed, query_of
    from vinetag.core.vet.marks.likeness import likenesses

    lexicon, rng = load_lexicon(), random.Random(7)
    forms, grader = FormMaker(lexicon), Grader(Brief(), lexicon, MEASURES)
    began = time.perf_counter()
    index = Index(
        Indexed(i, forms.of_words(words), (rng.randint(1, 45),), alive=True)
        for i, (_, words) in enumerate(register)
    )
    built = time.perf_counter() - began
    readings = [grader.read_any(Candidate(name, (), (), 0.0)) for name in names]
    queries = [query_of(reading, (16, 35), forms) for reading in readings]
    index.nearest(queries[0])
    seconds = []
    for query in queries:
        began = time.perf_counter()
        index.nearest(query)
        seconds.append(time.perf_counter() - began)
    some = [forms.of_words(words) for _, words in register[:: len(register) // PART or 1]]
    began = time.perf_counter()
    likenesses(queries[0].forms, some, queries[0].said, queries[0].meant, queries[0].beside)
    whole = (time.perf_counter() - began) * len(register) / len(some)
    return {
        "marks": len(register),
        "index_built_s": round(built, 1),
        "one_name_s": round(sorted(seconds)[len(seconds) // 2], 3),
        "worst_name_s": round(max(seconds), 3),
        f"{len(names)}_names_s": round(sum(seconds), 2),
        "without_an_index_s": round(whole, 1),
        "times_quicker": round(whole / (sum(seconds) / len(seconds))),
        "memory_mb": memory_mb(),
    }


def imported(path: Path, count: int) -> dict[str, Any]:
    """From a file into the database, in a process of its own, so that its memory is told alone."""
    code = (
        "import django, json, resource, sys, time; django.setup();"
        "from vinetag.apps.vetting.registers import bring_marks, form_maker;"
        "form_maker().of_text('Inkpost');"
        "peak = lambda: resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024;"
        "before = peak(); began = time.perf_counter(); seen = [];"
        "brought = bring_marks(open(sys.argv[1], 'rb'), 'Saltley',"
        " lambda n: seen.append((n, peak())));"
        "half = [m for n, m in seen if n <= len(seen) * 1000][-1];"
        "print(json.dumps({'taken': brought.taken, 'wrong': brought.wrong,"
        " 'seconds': time.perf_counter() - began, 'before': before, 'half': half, 'end': peak()}))"
    )
    told = json.loads(
        subprocess.run(
            [sys.executable, "-c", code, str(path)], check=True, capture_output=True, text=True
        ).stdout
    )
    bare = bare_rows(min(count, 50_000)) * count / min(count, 50_000)
    return {
        "marks": told["taken"],
        "seconds": round(told["seconds"], 1),
        "a_second": round(told["taken"] / told["seconds"]),
        "over_bare_rows": round(told["seconds"] / bare, 2),
        "memory_mb": {key: round(told[key]) for key in ("before", "half", "end")},
    }


def bare_rows(count: int) -> float:
    """Seconds to insert rows as wide, of which nothing is worked out."""
    from vinetag.apps.vetting.models import MarkRow

    began = time.perf_counter()
    for start in range(0, count, 2_000):
        MarkRow.objects.bulk_create(
            MarkRow(
                office="bare", number=str(i), word="inkpost paper", owner="Hexley Press",
                classes="16", status="registered", letters="inkpostpaper", part="inkpost",
                sounds="inKPOSTPYPR", part_sounds="inKPOST", words="ink paper post",
            )
            for i in range(start, min(count, start + 2_000))
        )  # fmt: skip
    seconds = time.perf_counter() - began
    MarkRow.objects.filter(office="bare").delete()
    return seconds


def vetted() -> dict[str, Any]:
    """A shortlist of ten names, from the press of the button, by a worker that has its data."""
    from vinetag.apps.accounts.models import User
    from vinetag.apps.naming.models import Project
    from vinetag.apps.shortlists.services import keep
    from vinetag.apps.vetting import runner, tasks
    from vinetag.apps.vetting.platforms import load_platforms
    from vinetag.apps.vetting.vettings import start_vetting
    from vinetag.core.brief import brief_document

    brief = parse_brief(
        {"about": "A monthly letterpress stationery club", "keywords": ["ink", "paper", "post"],
         "extensions": ["com", "ie"], "owner": {"country": "IE", "budget": 60}}
    )  # fmt: skip
    load_platforms()
    owner = User.objects.create_user("bench")
    project = Project.objects.create(owner=owner, name="Bench", brief=brief_document(brief))
    keep(project=project, labels=list(SHORTLIST))
    moments: list[float] = []
    keep_finding = runner._keep

    def noted(*args: Any) -> None:
        keep_finding(*args)
        moments.append(time.perf_counter())

    runner._keep = noted
    tasks.run_vetting.delay = tasks.run_vetting  # type: ignore[method-assign]
    warm = start_vetting(project=project, names=["warmingup"])
    began = time.perf_counter()
    tasks.run_vetting(warm.pk)
    first_of_all = time.perf_counter() - began
    moments.clear()
    began = time.perf_counter()
    vetting = start_vetting(project=project)
    tasks.run_vetting(vetting.pk)
    whole = time.perf_counter() - began
    kinds: dict[str, int] = {}
    for row in project.findings.exclude(label="warmingup"):
        kinds[row.weight] = kinds.get(row.weight, 0) + 1
    return {
        "names": len(SHORTLIST),
        "steps": vetting.total,
        "seconds": round(whole, 1),
        "first_finding_s": round(moments[0] - began, 2),
        "one_name_on_a_cold_worker_s": round(first_of_all, 1),
        "weights": kinds,
    }


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.split("\n")[0])
    parser.add_argument("--marks", type=int, default=1_000_000)
    parser.add_argument("--names", type=int, default=20)
    args = parser.parse_args()
    register = made_up(load_lexicon(), args.marks, 5)
    with tempfile.TemporaryDirectory() as folder, servers() as environment, outside() as world:
        path = Path(folder) / "marks.csv"
        path.write_text(_csv(register), "utf-8")
        os.environ.update(
            {**environment, **world, "DJANGO_SETTINGS_MODULE": "vinetag.config.settings.test"}
        )
        import django
        from django.core.management import call_command

        django.setup()
        call_command("migrate", verbosity=0)
        told = {"import": imported(path, args.marks), "vetting": vetted()}
    names = [*SHORTLIST, *ODD][: args.names]
    print(json.dumps({**told, "marks": marks_found(register, names)}))


def _csv(register: list[Any]) -> str:
    rng, out = random.Random(7), io.StringIO()
    writer = csv.writer(out)
    writer.writerow(("number", "word", "owner", "classes", "status", "filed"))
    for i, (text, _) in enumerate(register):
        writer.writerow((i, text, "Hexley Press", rng.randint(1, 45), "registered", "2019-05-01"))
    return out.getvalue()


if __name__ == "__main__":
    main()
