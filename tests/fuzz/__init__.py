"""Hostile tries: random drawings, files and hands. ``./fuzz --minutes N`` runs them for long; a
short seeded run of each is in the tests beside this file."""
