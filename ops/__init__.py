"""Running the parts: set-up, ./start and ./test."""
