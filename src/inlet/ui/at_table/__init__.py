"""The table view: one step, large enough to read from where the work lies; for every stage."""

__all__ = ["sources", "view"]
