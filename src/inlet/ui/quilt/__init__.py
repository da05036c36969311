"""The quilt stage: the whole top, its rows, its edges."""

__all__ = ["rows_page", "scene", "stage", "ticket", "top_view", "view"]
