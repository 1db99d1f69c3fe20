"""The ASGI application: the built interface's files, and Django for all else.

Django's views are synchronous, and each thread that runs them keeps a database connection. They run
in a fixed number of threads, by WSGI, so that a process has a known number of connections and uses
them again; under Django's own ASGI handler every request has a thread, and a connection, of its
own. Only streams, which wait most of the time, run in the event loop.
"""

import os
import re
from typing import Any, Final, cast

from a2wsgi import WSGIMiddleware
from django.conf import settings
from django.core.asgi import get_asgi_application
from django.core.wsgi import get_wsgi_application
from servestatic import ServeStaticASGI
from uvicorn.middleware.proxy_headers import ProxyHeadersMiddleware

from vinetag.config.front import BoundedBodies, Bounds, Lane, Lanes, SafeHeaders
from vinetag.config.front.messages import App
from vinetag.config.warm import warm_up

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "vinetag.config.settings.run")

# Names are made, plans worked out and files written one at a time in each process: more would only
# share its one interpreter, and pages would wait for all of them.
COSTLY: Final = re.compile(
    r"POST /api/projects(/\d+/(more|dismissed|names/check|costs(/file)?))?$"
    r"|(POST|DELETE) /api/projects/\d+/phrases/figures(/\d+)?$"
    r"|POST /api/projects/\d+/phrases/(typed|apart|aside|keywords|head)$"
    r"|GET /api/projects/\d+/phrases/(groups|names|file)$"
    r"|POST /api/owned(/table)?$"
    r"|PATCH /api/projects/\d+$"
    r"|PUT /api/(rates|sellers/[^/]+/(prices|coupons))$"
    r"|GET /api/owned/file$"
    r"|GET /api/projects/\d+/(file|export|shortlist/file|names/[^/]+/(near|fallback))$"
)
STREAM: Final = re.compile(r"/api/projects/\d+/checks/stream$")
LIST: Final = re.compile(r"/api/(rates|owned(/table)?|sellers/[^/]+/(prices|coupons))$")
FIGURES: Final = re.compile(r"/api/projects/\d+/phrases/figures$")
USUAL_BODY: Final = Bounds(settings.DATA_UPLOAD_MAX_MEMORY_SIZE, 30.0)
PROJECT_FILE: Final = Bounds(settings.MOST_FILE_BYTES, 180.0, at_once=2)
PRICE_LIST: Final = Bounds(settings.MOST_LIST_BYTES, 120.0, at_once=2)

streams = cast(App, get_asgi_application())


def in_threads(workers: int) -> App:
    """Django's views, so many at once."""
    django: Any = get_wsgi_application()
    return cast(App, WSGIMiddleware(django, workers=workers, send_queue_size=100))


usual = Lane(
    in_threads(settings.WEB_THREADS),
    at_once=settings.WEB_THREADS, most=400, of_one=40, patience=20.0,
)  # fmt: skip
costly = Lane(
    in_threads(1),
    at_once=1, most=100, of_one=4, patience=30.0,
)  # fmt: skip


def choose(method: str, path: str) -> App:
    """Where a request is worked on."""
    if STREAM.fullmatch(path):
        return streams
    return costly if COSTLY.fullmatch(f"{method} {path}") else usual


def bounds_of(path: str) -> Bounds:
    """How long a body may be."""
    if path in ("/api/projects/file", "/api/marks") or FIGURES.fullmatch(path):
        return PROJECT_FILE
    return PRICE_LIST if LIST.fullmatch(path) else USUAL_BODY


files = ServeStaticASGI(
    BoundedBodies(Lanes(choose), bounds_of),
    root=settings.WEB_DIST,
    # Vite puts a hash of the content into these names, so they never change.
    immutable_file_test=r"^/assets/.+-[A-Za-z0-9_-]{8}\.",
    allow_all_origins=False,
)
guarded: Any = SafeHeaders(files, settings.ALLOWED_HOSTS, settings.HSTS_SECONDS)
application = ProxyHeadersMiddleware(guarded, trusted_hosts=settings.PROXIES)
warm_up()
