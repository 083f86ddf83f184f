"""The ways to solve an equation, from the quick to the general."""
