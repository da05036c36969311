"""What is printed.

Promise: readable without colour; templates at true size.
"""

__all__ = [
    "cutting_pdf",
    "diary_pdf",
    "guide_pdf",
    "labels_pdf",
    "pages",
    "quilt_pdf",
    "templates_pdf",
    "test_square_pdf",
]
