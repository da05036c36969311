"""What no ruler cuts square: cut lines, sheets to print, pieces at an angle, motifs.

Promise: a template is the piece at true size, its cut line an allowance outside the sewing line.
"""

from inlet.core.templates.angles import Angled, angled, angled_lines, stack_shape
from inlet.core.templates.cut_line import Place, Side
from inlet.core.templates.laid_outlines import in_box, laid_outlines
from inlet.core.templates.sheets import (
    MOST_SPARES,
    Correction,
    Sheet,
    SheetLine,
    correction,
    sheets,
)
from inlet.core.templates.template import Template, bounds_of, templates

__all__ = [
    "MOST_SPARES",
    "Angled",
    "Correction",
    "Place",
    "Sheet",
    "SheetLine",
    "Side",
    "Template",
    "angled",
    "angled_lines",
    "bounds_of",
    "correction",
    "in_box",
    "laid_outlines",
    "sheets",
    "stack_shape",
    "templates",
]
