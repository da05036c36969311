"""Exact points, lines and polygons, and the arrangement that turns seams into patches."""
