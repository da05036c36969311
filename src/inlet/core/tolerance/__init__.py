"""What a hand does to a block or a quilt, worked out before it is sewn: points, crossings, sizes,
by many simulated sewings; what would help; and a simulated maker.

Promises: without errors a block comes out exactly as it is cut; the same seed gives the same
sewings on every machine; what is said to help was tried.
"""

from inlet.core.tolerance.advice import HelpAdvice, advised
from inlet.core.tolerance.faults import hand_fault
from inlet.core.tolerance.forecast import Forecast, Watched, forecast
from inlet.core.tolerance.outlook import (
    OWN,
    WHOSE,
    Outlook,
    look_ahead,
    outlook,
    ticket_line,
    whose_hand,
)
from inlet.core.tolerance.quilt_rows import QuiltForecast, quilt_forecast, seams_between_rows
from inlet.core.tolerance.seen import SewnLook, as_sewn
from inlet.core.tolerance.sewing_hand import (
    HANDS,
    THREAD,
    SewingHand,
    SlipRates,
)
from inlet.core.tolerance.shares import shares
from inlet.core.tolerance.simulated import Simulated, simulated
from inlet.core.tolerance.sources import block_model
from inlet.core.tolerance.words import (
    RiskLevel,
    advice_lines,
    forecast_lines,
    quilt_lines,
    risk_level,
    risk_line,
    size_at,
    slips_text,
    thread_text,
)

__all__ = [
    "HANDS",
    "OWN",
    "THREAD",
    "WHOSE",
    "Forecast",
    "HelpAdvice",
    "Outlook",
    "QuiltForecast",
    "RiskLevel",
    "SewingHand",
    "SewnLook",
    "Simulated",
    "SlipRates",
    "Watched",
    "advice_lines",
    "advised",
    "as_sewn",
    "block_model",
    "forecast",
    "forecast_lines",
    "hand_fault",
    "look_ahead",
    "outlook",
    "quilt_forecast",
    "quilt_lines",
    "risk_level",
    "risk_line",
    "seams_between_rows",
    "shares",
    "simulated",
    "size_at",
    "slips_text",
    "thread_text",
    "ticket_line",
    "whose_hand",
]
