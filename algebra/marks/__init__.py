"""Schemes, and the marks that are proposed by them."""
