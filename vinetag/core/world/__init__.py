"""The client's world: fields of trades and subjects, and how near words are to a brief."""
