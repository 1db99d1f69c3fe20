"""The rules and the computation: pure, and without any interface code."""
