"""The quilt stage: the whole top, its rows, its edges."""

__all__ = ["scene", "stage", "ticket", "top_view", "view"]
