"""What is printed."""
