"""What no ruler cuts square: cut lines, sheets to print, pieces at an angle, motifs."""
