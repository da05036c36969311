"""The fraction that all exact numbers are made of.

``quicktions`` is the standard library's ``Fraction`` in C, the same in all it does and four to ten
times as fast; most of a plan's time is spent in it. Where it cannot be had, that of the standard
library does. The two are never mixed, so everything takes ``Fraction`` from here.
"""

from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from fractions import Fraction
else:
    try:
        from quicktions import Fraction
    except ImportError:
        from fractions import Fraction

__all__ = ["Fraction"]
