"""Exact numbers: fractions with √2, ruler marks, and how numbers are read and shown."""
