"""An app that is not there, for the test of how apps join in."""
