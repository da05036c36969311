"""Fabric laid out and cut, stroke by stroke; how far it is."""
