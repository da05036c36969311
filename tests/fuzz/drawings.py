"""Random SVG drawings, most of them damaged or outsized: each is read, or refused in a sentence."""

from __future__ import annotations

import random
import time

from inlet.core.draft.patches import draft
from inlet.core.project.block import new_block
from inlet.files.drawings.svg_import import read_svg
from inlet.files.problem import FileProblem
from tests.fuzz.drafts import tiling_fault
from tests.fuzz.files import JARGON, LONGEST

SLOW = 10.0
"""Seconds that reading any drawing may take."""


def _number(chance: random.Random) -> str:
    return chance.choice(
        (
            lambda: str(chance.randint(-20, 300)),
            lambda: f"{chance.uniform(-5, 300):.{chance.randint(0, 6)}f}",
            lambda: chance.choice(["0", "1e308", "-1e308", "1e-300", "NaN", "inf", "", "x", "50%"]),
        )
    )()


def _shape(chance: random.Random) -> str:
    def n() -> str:
        return _number(chance) if chance.random() < 0.15 else str(chance.randint(0, 90))

    def path() -> str:
        parts = [f"M {n()} {n()}"]
        for _ in range(chance.randint(1, 6)):
            parts.append(
                chance.choice(
                    (
                        lambda: f"L {n()} {n()}",
                        lambda: f"A {n()} {n()} 0 {chance.randint(0, 1)} 1 {n()} {n()}",
                        lambda: f"C {n()} {n()} {n()} {n()} {n()} {n()}",
                        lambda: f"h {n()} v {n()}",
                        lambda: chance.choice("ZzQTS"),
                    )
                )()
            )
        return " ".join(parts)

    return chance.choice(
        (
            lambda: f'<line x1="{n()}" y1="{n()}" x2="{n()}" y2="{n()}"/>',
            lambda: f'<rect x="{n()}" y="{n()}" width="{n()}" height="{n()}"/>',
            lambda: f'<circle cx="{n()}" cy="{n()}" r="{n()}"/>',
            lambda: f'<ellipse cx="{n()}" cy="{n()}" rx="{n()}" ry="{n()}"/>',
            lambda: f'<polygon points="{n()},{n()} {n()},{n()} {n()} {n()}"/>',
            lambda: f'<path d="{path()}"/>',
            lambda: f'<use href="#{chance.choice("abc")}" x="{n()}"/>',
            lambda: f'<path class="seam" data-seam="{n()} {n()} {n()} {n()}" d="{path()}"/>',
            lambda: "<text>words</text>",
        )
    )()


def drawing(seed: int) -> str:
    """The text of a random drawing, always the same for a seed."""
    chance = random.Random(f"drawing {seed}")
    body = [_shape(chance) for _ in range(chance.choice((1, 4, 12, 40)))]
    moves = ["", "rotate(45)", "scale(0)"]
    body = [
        f'<g id="{chance.choice("abc")}" transform="{chance.choice(moves)}">{shape}</g>'
        if chance.random() < 0.2
        else shape
        for shape in body
    ]
    text = f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 90 90">{"".join(body)}</svg>'
    if chance.random() < 0.1:
        at = chance.randrange(len(text))
        text = text[:at] + chance.choice(["<", "&", '"', ""]) + text[at + 1 :]
    return text


def complaint(text: str) -> str | None:
    """What is wrong with how a drawing is read, in words; None where nothing is."""
    began = time.monotonic()
    try:
        made = read_svg(text, "x.svg", block=new_block(set(), "X"), apart=False)
    except FileProblem as problem:
        said = str(problem)
        return f"said: {said!r}" if len(said) > LONGEST or JARGON.search(said) else None
    except Exception as error:
        return f"reading: {type(error).__name__}: {error}"[:300]
    try:
        fault = tiling_fault(draft(made.block))
    except Exception as error:
        return f"drawing: {type(error).__name__}: {error}"[:300]
    took = time.monotonic() - began
    return fault or (f"{took:.1f} s" if took > SLOW else None)
