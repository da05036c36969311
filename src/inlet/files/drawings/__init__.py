"""Drawings read and written.

Promise: drawings of other programs are read in a process of their own.
"""

__all__ = ["quilt_picture", "svg", "svg_import", "templates_drawing"]
