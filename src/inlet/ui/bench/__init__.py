"""The stage Bench: today's list, made sizes, the diary."""

__all__ = ["stage", "ticket"]
