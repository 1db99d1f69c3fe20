"""The API of watching."""
