"""The stage Bench: today's list, made sizes, the maker's hand and what it will do, exercises, the
diary; and the line on a block's ticket."""

__all__ = ["risk_line", "stage", "ticket"]
