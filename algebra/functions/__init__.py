"""Rational functions: their features, points that fit the grid, and their graphs."""
