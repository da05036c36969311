"""Widgets that every stage is built from; they know the craft's words, no stage."""

__all__ = [
    "answers",
    "choices",
    "drawing",
    "flow",
    "inputs",
    "painting",
    "parts",
    "pictures",
    "reading_order",
    "sections",
    "table",
    "tabs",
    "thumbnails",
]
