"""The assembler: in what order cells are sewn to one another, whatever was drawn."""
