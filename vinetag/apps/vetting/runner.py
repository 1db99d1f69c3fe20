"""Carrying out a vetting: step by step, each finding stored as it is made."""

from __future__ import annotations

import logging
import threading
import time
from functools import partial
from typing import Final, cast

from django.db import connection
from django.utils import timezone

from vinetag.apps.availability import leases
from vinetag.apps.vetting import vettings
from vinetag.apps.vetting.documents import finding_document, sign_of, weight_of
from vinetag.apps.vetting.models import FindingRow, Vetting
from vinetag.apps.vetting.steps import Desk, Found, find
from vinetag.core.concepts import WEIGHTS, FindingName
from vinetag.core.names import FullName

__all__ = ["run_slice"]

SLICE_SECONDS: Final = 30.0
BEAT_EVERY: Final = 2.0

log = logging.getLogger(__name__)


def run_slice(vetting_id: int, token: str) -> bool:
    """Do what is left of the vetting for up to SLICE_SECONDS, keeping the lease meanwhile; ends
    early when it was stopped: False then. What was found is stored.
    """
    vetting = Vetting.objects.select_related("project__owner").get(pk=vetting_id)
    desk = Desk(vetting.project)
    deadline = time.monotonic() + SLICE_SECONDS
    with _Beating(vetting_id, token) as beating:
        for kind, name in leases.patiently(lambda: vettings.steps_left(vetting)):
            if not beating.held:
                return False
            if time.monotonic() > deadline:
                break
            leases.patiently(partial(_step, vetting, desk, kind, name))
    return True


def _step(vetting: Vetting, desk: Desk, kind: str, name: FullName) -> None:
    """Find out, and keep what was found; done again it does no harm."""
    found = find(desk, name, cast(FindingName, kind))
    _keep(vetting, name, kind, found, desk.basis(kind))


def _keep(vetting: Vetting, name: FullName, kind: str, found: Found, basis: str) -> None:
    findings = sorted(found.findings, key=lambda one: WEIGHTS.index(one.weight))
    FindingRow.objects.update_or_create(
        project=vetting.project,
        label=name.label,
        kind=kind,
        defaults={
            "run": vetting,
            "extension": name.extension,
            "weight": weight_of(findings),
            "findings": [finding_document(one) for one in findings],
            "more": {**found.more, "basis": basis},
            "sign": sign_of(findings),
            "found_at": timezone.now(),
            "imported": False,
        },
    )


class _Beating:
    """Keeps the lease while a step takes long: reading a register into memory does."""

    def __init__(self, vetting_id: int, token: str) -> None:
        self._vetting_id, self._token = vetting_id, token
        self._over = threading.Event()
        self._thread = threading.Thread(target=self._run, name="beating", daemon=True)
        self._lost = False

    @property
    def held(self) -> bool:
        """Whether the vetting is still this worker's; asked anew each time."""
        self._beat()
        return not self._lost

    def _beat(self) -> None:
        """A lease that was lost once stays so: another worker may have it."""
        beat = partial(leases.beat, Vetting, self._vetting_id, self._token)
        if not self._lost and not leases.patiently(beat):
            self._lost = True

    def __enter__(self) -> _Beating:
        self._thread.start()
        return self

    def __exit__(self, *_error: object) -> None:
        self._over.set()
        self._thread.join()

    def _run(self) -> None:
        try:
            while not self._over.wait(BEAT_EVERY):
                self._beat()
        except Exception:
            log.exception("The lease of a vetting could not be kept.")
        finally:
            connection.close()
