"""Names somebody owns: found, renewed, told of before they run out, let go."""
