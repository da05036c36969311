"""The fraction that all exact numbers are made of.

``quicktions`` is the standard library's ``Fraction`` in C, the same in all it does and four to ten
times as fast; most of a plan's time is spent in it. The two are never mixed, so everything takes
``Fraction`` from here.
"""

from typing import TYPE_CHECKING

if TYPE_CHECKING:  # it has no types of its own
    from fractions import Fraction
else:
    from quicktions import Fraction

__all__ = ["Fraction"]
