"""Questions that join the other rooms: the next step, a key proof-read, a function’s features, words over a problem."""
