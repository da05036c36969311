"""A plan as JSON, as text and as tables."""
