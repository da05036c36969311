"""Drawings read and written."""
