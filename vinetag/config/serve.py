"""One web process, on a socket somebody else holds (standard input, as FastCGI has it) or on
`--port` of loopback.
"""

from __future__ import annotations

import argparse
import os
import socket

import uvicorn

__all__ = ["main"]

# Seconds open streams are given when the process is told to stop.
GRACE = 3
BACKLOG = 512


def main() -> None:
    """Serve until told to stop."""
    parser = argparse.ArgumentParser(prog="python -m vinetag.config.serve", description=__doc__)
    parser.add_argument("--port", type=int, help="listen there instead")
    port = parser.parse_args().port
    if port is None:
        held = socket.socket(fileno=os.dup(0))
    else:
        held = socket.create_server(("127.0.0.1", port), backlog=BACKLOG)
    config = uvicorn.Config(
        "vinetag.config.asgi:application",
        lifespan="off",
        log_level="warning",
        access_log=False,
        # Which proxies are believed is a setting; the application looks at it itself.
        proxy_headers=False,
        server_header=False,
        timeout_graceful_shutdown=GRACE,
        # Longer than people rest between two acts: a connection closed just as it is used is lost.
        timeout_keep_alive=75,
        backlog=BACKLOG,
    )
    uvicorn.Server(config).run(sockets=[held])


if __name__ == "__main__":
    main()
