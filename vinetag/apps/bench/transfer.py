"""A project as one open file, and back: nothing is locked in. docs/project.schema.json says what is
in it.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import msgspec
from django.utils import timezone

from vinetag.apps.accounts.errors import RefusedError
from vinetag.apps.accounts.joining import Bringing, joined
from vinetag.apps.accounts.models import User
from vinetag.apps.bench.document import FORMAT, VERSION, read_document
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import create_project, show_project

__all__ = ["FORMAT", "duplicate", "project_document", "read_project"]

OnProgress = Callable[[int], None]


def project_document(project: Project) -> dict[str, Any]:
    """Everything of the project but the made names, which the brief and the seed make again."""
    document: dict[str, Any] = {
        "format": FORMAT,
        "version": VERSION,
        "written_at": timezone.now().isoformat(),
        "name": project.name,
        "brief": project.brief,
        "seed": project.seed,
    }
    for one in joined():
        if one.filed:
            document |= one.filed.write(project)
    return document


def read_project(
    *, owner: User, content: bytes, on_progress: OnProgress = lambda _: None
) -> Project:
    """Make a project of a file; `on_progress` hears how far it is, in percent. What the file says
    of answers is marked as such. Raises RefusedError, each problem with its path in the file;
    nothing is made then.
    """
    document, problems = read_document(content)
    if document is None:
        raise RefusedError(problems)
    on_progress(20)
    return _make(owner, document, on_progress, imported=True)


def duplicate(
    *, owner: User, project: Project, on_progress: OnProgress = lambda _: None
) -> Project:
    """A second project like the first, with everything of it but the links."""
    whole = {**project_document(project), "name": f"{project.name[:73]} (copy)"}
    document, problems = read_document(msgspec.json.encode(whole))
    if document is None:
        raise RefusedError(problems)
    on_progress(20)
    return _make(owner, document, on_progress, imported=False)


def _make(owner: User, file: Any, on_progress: OnProgress, *, imported: bool) -> Project:
    """Make it out of sight, and show it once it is whole: it takes longer than a transaction
    should. What is left of one that was broken off is deleted with other removed projects.
    """
    project = create_project(
        owner=owner, name=file.name, brief=file.brief, seed=file.seed, hidden=True
    )
    on_progress(40)
    shares = [one.filed for one in joined() if one.filed]
    for i, filed in enumerate(shares):

        def far(share: float, done: int = i) -> None:
            on_progress(40 + int(55 * (done + share) / len(shares)))

        filed.bring(Bringing(project, file, imported, far))
        far(1.0)
    return show_project(project)
