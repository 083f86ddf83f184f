"""The one door by which lines are kept, wherever they stand."""
