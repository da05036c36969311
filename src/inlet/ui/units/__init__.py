"""The units stage: the block pulled apart, methods compared."""

__all__ = ["stage", "ticket"]
