"""What people look for: phrases with their demand, gathered, grouped, and as names."""
