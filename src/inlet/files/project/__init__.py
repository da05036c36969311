"""The project file: read, kept within its limits, safe from a crash.

Promise: a file saved and read is equal; what cannot be read is said in one sentence.
"""

__all__ = ["project_json", "recovery"]
