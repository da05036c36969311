"""A new block out of a sewn one: sliced, and set again.

Promise: what is shown is what comes of it, each new seam taking its two allowances.
"""
