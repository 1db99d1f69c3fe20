"""The API of connecting."""
