"""Ordering: the basket, and the last look at all of it before it is paid for."""
