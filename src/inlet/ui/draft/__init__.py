"""The draft stage: the block drawn."""

__all__ = ["stage", "ticket"]
