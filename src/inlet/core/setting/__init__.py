"""Blocks set together: straight or on point, borders, colourways, the top."""
