"""What stands before Django in a web process: hosts and headers, bounded bodies, and turns."""

from vinetag.config.front.bodies import BoundedBodies, Bounds
from vinetag.config.front.headers import SafeHeaders
from vinetag.config.front.lanes import Lane, Lanes

__all__ = ["BoundedBodies", "Bounds", "Lane", "Lanes", "SafeHeaders"]
