"""Work off the window's thread: started, told of, stopped in one way."""

__all__ = ["background", "collector", "planner", "presser", "turns"]
