"""Printing: the pages of a PDF seen before they are printed, and printed at true size."""

__all__ = ["preview"]
