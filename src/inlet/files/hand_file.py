"""A file that describes a hand, for the simulated maker: JSON, see docs/hand-format.md."""

from __future__ import annotations

import json
import os
from pathlib import Path

from inlet.core.hand import SeamType
from inlet.core.numbers import SYSTEMS, Exact, Fraction, NumberError, parse_exact
from inlet.core.project import Measure
from inlet.core.tolerance import SewingHand, SlipRates
from inlet.files.problem import FileProblem, file_name, reason, shown

MOST_BYTES = 10_000
LENGTHS = ("seam", "long_seam", "bias_seam", "curve_seam", "spread", "cut_larger", "cut_spread")
SHARES = ("half_marks_missed", "folded_under", "turned")
FACTORS = ("pace",)
KEYS = ("system", *LENGTHS, *SHARES, *FACTORS)
LARGEST_SEAM = 2
"""Inches."""
LARGEST_SPREAD = 1
MOST_PACE = 20


def load_hand(path: str | os.PathLike[str], measure: Measure) -> SewingHand:
    """The hand in a file, for a project of this measure; in the file's own system. Raises
    ``FileProblem``."""
    name = file_name(path)
    try:
        data = Path(path).read_bytes()
    except (OSError, ValueError) as error:
        raise FileProblem(f"{name}: cannot be read ({reason(error)})") from None
    if len(data) > MOST_BYTES:
        raise FileProblem(f"{name}: too large for a description of a hand")
    try:
        raw = json.loads(data.decode("utf-8-sig"), parse_float=str, parse_int=str)
    except (ValueError, RecursionError):
        raise FileProblem(f"{name}: this is not JSON") from None
    if not isinstance(raw, dict):
        raise FileProblem(f"{name}: expected a group {{…}}, found {shown(raw)}")
    unknown = next((key for key in raw if key not in KEYS), None)
    if unknown is not None:
        raise FileProblem(f"{name}: {shown(unknown)} is no part of a hand: {', '.join(KEYS)}")
    return _hand(raw, measure, name)


def _hand(raw: dict[str, object], measure: Measure, name: str) -> SewingHand:
    system = raw.get("system", measure.system.name)
    if not isinstance(system, str) or system not in SYSTEMS:
        raise FileProblem(f"{name}: system: expected inch or cm, found {shown(system)}")
    per_inch = SYSTEMS[system].per_inch
    values = {key: _number(value, f"{name}: {key}") for key, value in raw.items()
              if key != "system"}  # fmt: skip
    for key in LENGTHS[:4]:
        if key in values and not 0 < values[key] / per_inch <= LARGEST_SEAM:
            raise FileProblem(f"{name}: {key}: a seam is above 0 and at most {LARGEST_SEAM} in")
    for key in ("spread", "cut_spread"):
        if values.get(key, 0) < 0:
            raise FileProblem(f"{name}: {key}: a spread is not below 0")
    for key in LENGTHS[4:]:
        if abs(values.get(key, 0) / per_inch) > LARGEST_SPREAD:
            raise FileProblem(
                f"{name}: {key}: more than {LARGEST_SPREAD} in is no spread of a hand"
            )
    for key in SHARES:
        if not 0 <= values.get(key, 0) <= 1:
            raise FileProblem(f"{name}: {key}: a share is from 0 to 1, as 0.05 for 1 in 20")
    if not 0 < values.get("pace", Fraction(1)) <= MOST_PACE:
        raise FileProblem(f"{name}: pace: a pace is above 0 and at most {MOST_PACE}")

    def inches(key: str, usual: float = 0.0) -> float:
        return float(values[key] / per_inch) if key in values else usual

    planned = float(measure.seam / measure.system.per_inch)
    seam = inches("seam", planned)
    more: dict[SeamType, float] = {
        "straight": seam - planned,
        "long": inches("long_seam", seam) - planned,
        "bias": inches("bias_seam", seam) - planned,
        "curve": inches("curve_seam", seam) - planned,
    }
    slips = SlipRates(*(float(values.get(key, 0)) for key in SHARES))
    pace = float(values.get("pace", 1))
    return SewingHand(
        more, inches("spread"), inches("cut_larger"), inches("cut_spread"), slips=slips, pace=pace
    )


def _number(value: object, place: str) -> Exact:
    if not isinstance(value, str):
        raise FileProblem(f"{place}: expected a number, found {shown(value)}")
    try:
        return parse_exact(value)
    except NumberError as why:
        raise FileProblem(f"{place}: {why}") from None
