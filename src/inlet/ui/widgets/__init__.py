"""Widgets that every stage is built from."""
