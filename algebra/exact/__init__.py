"""Exact values and solution sets. The only part of the core that touches FLINT."""
