"""The API of ordering."""
