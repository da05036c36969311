"""Inlet: drafts pieced quilt blocks and works out how to cut and sew them."""

__version__ = "0.2.0"
