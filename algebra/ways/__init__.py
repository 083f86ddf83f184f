"""Worked solutions: which method works a problem, and the solution that it gives."""
