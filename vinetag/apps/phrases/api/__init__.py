"""The API of phrases."""
