"""Work off the window's thread."""
