"""Its addresses."""
