"""Names one owns: when each has to be renewed, what is told before, and tables of them."""

from vinetag.core.owning.files import COLUMNS, ReadNames, read_names, schema_of_names
from vinetag.core.owning.moves import Trap, traps_of
from vinetag.core.owning.phases import Phase, Phases, phase_of, phases_of
from vinetag.core.owning.reminders import BEFORE, Due, due_reminder

__all__ = [
    "BEFORE", "COLUMNS", "Due", "Phase", "Phases", "ReadNames", "Trap", "due_reminder",
    "phase_of", "phases_of", "read_names", "schema_of_names", "traps_of",
]  # fmt: skip
