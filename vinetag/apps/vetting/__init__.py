"""Names looked at from outside: so far, what people type by mistake and who holds that."""
