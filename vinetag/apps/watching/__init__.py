"""Watching: names, searches and prices looked at again, and what changed of them told once."""
