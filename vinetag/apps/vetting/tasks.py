"""Background tasks of vetting. Each is safe to run twice, or to be killed at any line."""

from __future__ import annotations

from vinetag.apps.availability import leases
from vinetag.apps.vetting import vettings
from vinetag.apps.vetting.models import Vetting
from vinetag.apps.vetting.registers import read_waiting, stale_files
from vinetag.apps.vetting.runner import run_slice
from vinetag.jobs.celery import app

__all__ = ["read_register", "resume_vettings", "run_vetting"]


@app.task(name="vetting.run_vetting")
def run_vetting(vetting_id: int) -> None:
    """Carry a vetting on by one slice, then pass it on until it is done."""
    carried = leases.carry(
        Vetting,
        vetting_id,
        lambda token: run_slice(vetting_id, token),
        lambda: vettings.finish_if_done(vetting_id),
    )
    if carried == (True, False):
        run_vetting.delay(vetting_id)


@app.task(name="vetting.resume_vettings", expires=10)
def resume_vettings() -> None:
    """Wake vettings and registers whose worker is gone, or whose message was lost."""
    for vetting_id in leases.stale(Vetting):
        run_vetting.delay(vetting_id)
    for file_id in stale_files():
        read_register.delay(file_id)


@app.task(name="vetting_files.read_register")
def read_register(file_id: int) -> None:
    """Read a register that was brought."""
    read_waiting(file_id)
