"""A page with squares to measure: does a printer print at true size?"""

from __future__ import annotations

from io import BytesIO

from reportlab.lib.units import cm, inch

from inlet.files.pdf.pages import INK, MARGIN, MEDIUM, PAPERS, REGULAR, PageCanvas, load_fonts

SQUARES = ((inch, "1 in"), (5 * cm, "5 cm"))
CROSS = 5 * inch
"""A long line tells more than a square: a difference of 1 in 100 is 1/20 in on it."""


def test_square_pdf(paper: str) -> bytes:
    """The page, on “letter” or “a4”."""
    load_fonts()
    pages = BytesIO()
    wide, high = PAPERS[paper]
    canvas = PageCanvas(pages, pagesize=(wide, high))
    canvas.setTitle("Test square")
    canvas.setFont(MEDIUM, 16)
    canvas.drawString(MARGIN, high - MARGIN - 16, "Is this printer true?")
    canvas.setFont(REGULAR, 11)
    words = (
        "Measure the squares, across and down. Where the first is not 1 in, type what it measured",
        "at “Calibrate the printer” in Inlet: all templates are corrected by it from then on.",
    )
    for i, line in enumerate(words):
        canvas.drawString(MARGIN, high - MARGIN - 44 - 15 * i, line)
    canvas.setStrokeColor(INK)
    canvas.setLineWidth(0.8)
    x, y = MARGIN, high - MARGIN - 90
    for side, name in SQUARES:
        canvas.rect(x, y - side, side, side)
        canvas.drawString(x, y - side - 15, name)
        x += side + 40
    canvas.line(MARGIN, y - 190, MARGIN + CROSS, y - 190)
    for end in (MARGIN, MARGIN + CROSS):
        canvas.line(end, y - 184, end, y - 196)
    canvas.drawString(MARGIN, y - 212, "5 in")
    canvas.showPage()
    canvas.save()
    return pages.getvalue()
