"""Work off the window's thread: started, told of, stopped in one way."""

__all__ = ["background", "planner", "presser", "turns"]
