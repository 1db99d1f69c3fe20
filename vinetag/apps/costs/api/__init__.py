"""The API of what names cost."""
