"""The shelf: blocks kept across projects, seen small, searched and taken."""

__all__ = ["shelf_dialog"]
