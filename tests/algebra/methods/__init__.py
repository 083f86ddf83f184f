"""Mirror of algebra/methods."""
