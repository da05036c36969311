"""The units stage: what a block breaks into, and the ways to make each unit."""
