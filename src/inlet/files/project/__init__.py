"""The project file: read, kept within its limits, safe from a crash."""
