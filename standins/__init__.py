"""Simulated outside services. They speak open standards and share one seeded world."""
