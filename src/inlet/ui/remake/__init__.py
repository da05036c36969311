"""The remake stage: blocks cut apart and set again, seen before they are chosen."""

__all__ = ["slicing", "stage", "ticket"]
