"""What lies on the table: pieces, sheets of cloth with their allowances, moves, and drawn seams."""
