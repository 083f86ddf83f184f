"""Bounds on what the core takes in: constants in one place, named in every refusal."""

MAX_LINE_CHARACTERS = 600
MAX_TOKENS = 400
MAX_DEPTH = 40
MAX_LINES = 200
MAX_LETTERS = 8
MAX_DIGITS = 60
MAX_EXPONENT = 100
"""Largest exponent that is written out for a letter or a bracket."""
MAX_POWER_BITS = 12_000
"""Largest size of an exact numeric power, in bits."""
MAX_FACTORED_BITS = 110
"""Largest whole number that is taken apart into primes."""
MAX_FACTORED_SIZE = 60_000
"""Largest degree times bits of a coefficient for which a polynomial in one letter is factored."""
MAX_FACTORED_DEGREE = 600
"""Largest degree of a polynomial in one letter that is factored, and of a power with a letter above."""
MAX_TERMS = 4_000
"""Largest number of terms a product may be expanded to."""
MAX_DEGREE = 200
MAX_SIGNS = 6
"""Most independent ± signs on one line."""
CHECK_WORK = 60_000
"""Most work on one link, in units of `exact.effort`."""
EXPLAIN_WORK = 6_000
"""Most work on the search for what explains a broken link."""
PREDICT_WORK = 30_000
"""Work after which the search for wrong answers ends once there are enough; it ends at four times as much in any
case."""
LIKE_WORK = 4_000
"""Most work on the look whether a problem with other numbers may be like one that stands."""
