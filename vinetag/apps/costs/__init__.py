"""What names cost: sellers and their price lists, kept version by version."""
