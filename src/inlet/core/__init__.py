"""Inlet without a window: the craft as plain functions on exact numbers. No Qt below here."""
