"""Reading and writing: one module a format. Knows the core, never the window."""
