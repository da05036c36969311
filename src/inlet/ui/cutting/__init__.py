"""The cutting stage: fabric on the mat, what to buy, what there is."""

__all__ = ["mat", "stage", "ticket"]
