"""The API of owning."""
