"""The quilt stage: the whole top, its rows, its edges."""

__all__ = ["stage", "ticket", "view"]
