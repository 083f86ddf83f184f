"""Trees to values: for all values of their letters, as intervals, at one point."""
