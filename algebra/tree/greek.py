"""The Greek letters by their names in LaTeX; omicron is missing there because it is an o."""

_NAMES = (
    "alpha beta gamma delta epsilon zeta eta theta iota kappa "
    "lambda mu nu xi pi rho sigma tau upsilon phi chi psi omega"
)
LETTERS = dict(zip(_NAMES.split(), "αβγδεζηθικλμνξπρστυφχψω", strict=True))
