"""Names one owns, connected: zones of one's own, and whether the world sees them."""
