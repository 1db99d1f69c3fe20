"""Frames over TLS (RFC 5734), each bounded in size and in time."""

from __future__ import annotations

import socket
import ssl
import struct
import time
from typing import Final

from epptools import ConnectionException
from epptools.transport import Transport

from vinetag.lookup.epp.settings import GatewaySettings

__all__ = ["LARGEST_FRAME", "CertificateProblemError", "TlsTransport", "UnreachableError"]

LARGEST_FRAME: Final = 256 * 1024
HEAD: Final = 4


class CertificateProblemError(ConnectionException):
    """The other end cannot show who it is."""


class UnreachableError(ConnectionException):
    """There was no connection, so that nothing was sent."""


class TlsTransport(Transport):
    """One connection. After anything went wrong it is of no more use: where the next frame begins
    is not known.
    """

    def __init__(self, settings: GatewaySettings) -> None:
        self._settings = settings
        self._socket: ssl.SSLSocket | None = None

    def open(self) -> None:
        """Raises CertificateProblemError and UnreachableError."""
        where = self._settings
        context = ssl.SSLContext(ssl.PROTOCOL_TLS_CLIENT)
        context.minimum_version = ssl.TLSVersion.TLSv1_2
        try:
            if where.authority:
                context.load_verify_locations(where.authority)
            else:
                context.load_default_certs(ssl.Purpose.SERVER_AUTH)
            plain = socket.create_connection((where.host, where.port), timeout=where.connecting)
        except OSError as error:
            raise UnreachableError(str(error)) from error
        try:
            self._socket = context.wrap_socket(plain, server_hostname=where.host)
        except ssl.SSLCertVerificationError as error:
            plain.close()
            raise CertificateProblemError(str(error.verify_message)) from error
        except OSError as error:
            plain.close()
            raise UnreachableError(str(error)) from error
        self._socket.setsockopt(socket.IPPROTO_TCP, socket.TCP_NODELAY, 1)

    def is_open(self) -> bool:
        """Whether it can be used."""
        return self._socket is not None

    def write_frame(self, xml: str) -> None:
        """Raises ConnectionException."""
        body = xml.encode()
        try:
            used = self._used()
            used.settimeout(self._settings.answering)
            used.sendall(struct.pack("!I", len(body) + HEAD) + body)
        except OSError as error:
            raise self._broken(str(error)) from error

    def read_frame(self) -> str:
        """The next one, whole within the time for an answer. Raises ConnectionException."""
        deadline = time.monotonic() + self._settings.answering
        (length,) = struct.unpack("!I", self._read(HEAD, deadline))
        if not HEAD < length <= LARGEST_FRAME:
            raise self._broken(f"a frame of {length} bytes")
        try:
            return self._read(length - HEAD, deadline).decode()
        except UnicodeDecodeError as error:
            raise self._broken("a frame that is no UTF-8") from error

    def close(self) -> None:
        """Hang up."""
        if self._socket is not None:
            try:
                self._socket.close()
            finally:
                self._socket = None

    def _used(self) -> ssl.SSLSocket:
        if self._socket is None:
            raise ConnectionException("there is no connection")
        return self._socket

    def _read(self, count: int, deadline: float) -> bytes:
        found = bytearray()
        while len(found) < count:
            left = deadline - time.monotonic()
            if left <= 0:
                raise self._broken("timed out")
            try:
                used = self._used()
                used.settimeout(left)
                part = used.recv(min(count - len(found), 65_536))
            except TimeoutError as error:
                raise self._broken("timed out") from error
            except OSError as error:
                raise self._broken(str(error)) from error
            if not part:
                raise self._broken("the connection was closed")
            found += part
        return bytes(found)

    def _broken(self, why: str) -> ConnectionException:
        self.close()
        return ConnectionException(why)
