"""The API of vetting."""
