"""Slips in the table of features of a rational function."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from fractions import Fraction as Q

from algebra.exact.algebraic_numbers import Number
from algebra.exact.errors import ExactError
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.rational_functions import field_of, integer_coefficients
from algebra.functions.features import Features, divided, features_of
from algebra.slips.parts import equals
from algebra.slips.slip import Ending, Sight, Slip, Wrong
from algebra.slips.words import Words, said
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.substitute import substituted


def _features(task: str, given: n.Node) -> Features | None:
    if task != "analyze" or isinstance(given, ln.STATEMENTS) or len(n.letters(given)) != 1:
        return None
    letter = min(n.letters(given))
    try:
        return features_of(value_of(given, field_of((letter,))), letter)
    except ExactError:
        return None


def _feature(sight: Sight, *names: str) -> tuple[Features, ln.Feature] | None:
    """The features of the given and the one that was stated, if it is one of these."""
    body = sight.line.body
    if not isinstance(body, ln.Feature) or body.name not in names:
        return None
    features = _features(sight.task, sight.given)
    return None if features is None else (features, body)


def _value(item: n.Node) -> Q | None:
    """The rational number that an item states, alone or behind x = or y =."""
    if isinstance(item, ln.Equation):
        item = item.sides[-1]
    if isinstance(item, ln.STATEMENTS) or n.letters(item):
        return None
    try:
        return value_of(item, field_of(())).ratio.constant
    except ExactError:
        return None


def _is(number: Number, value: Q | None) -> bool:
    return value is not None and number.rational == value


def _hole_stated_as(name: str) -> Callable[[Sight], Iterator[Words]]:
    """What finds a hole that is stated as another feature, a vertical asymptote or an intercept."""

    def seen(sight: Sight) -> Iterator[Words]:
        found = _feature(sight, name)
        if found is None:
            return
        features, stated = found
        for x, height in features.holes:
            if any(_is(x, _value(item)) for item in stated.items):
                yield _hole_words(features.letter, x, height)
                return

    return seen


def _hole_foreseen(end: Ending) -> Iterator[Wrong]:
    features = _features(end.task, end.given)
    for x, height in features.holes if features else ():
        stated = _feature_stated("vertical asymptote", equals(n.Letter(end.unknown), _tree(x)))
        yield stated, _hole_words(end.unknown, x, height)


def _hole_intercept_foreseen(end: Ending) -> Iterator[Wrong]:
    features = _features(end.task, end.given)
    if features is None or isinstance(end.given, ln.STATEMENTS):
        return
    for x, height in features.holes:
        if _is_zero_above(end.given, features.letter, x):
            yield _feature_stated("x-intercept", _tree(x)), _hole_words(end.unknown, x, height)


def _is_zero_above(given: n.Node, letter: str, place: Number) -> bool:
    """Whether the numerator as it is written is 0 at a rational place; False where the given is no fraction."""
    bare, zero = n.bare(given), place.rational
    if not isinstance(bare, n.Fraction) or zero is None:
        return False
    put_in = substituted(bare.numerator, {n.Letter(letter): n.Group(build.number(zero))})
    try:
        return value_of(put_in, field_of(())).ratio.is_zero
    except ExactError:
        return False


def _swapped(sight: Sight) -> Iterator[Words]:
    """A zero of the numerator as a vertical asymptote, or a pole as an intercept."""
    found = _feature(sight, "vertical asymptote", "x-intercept")
    if found is None:
        return
    features, stated = found
    others = features.x_intercepts if stated.name == "vertical asymptote" else features.vertical
    for place in others:
        if any(_is(place, _value(item)) for item in stated.items):
            yield _swapped_words(features.letter, place, stated.name)
            return


def _swapped_words(x: str, place: Number, name: str) -> Words:
    part = "numerator" if name == "vertical asymptote" else "denominator"
    return said("the " + part + " is 0 at {x} = {place}", x=x, place=str(place))


def _swapped_foreseen(end: Ending) -> Iterator[Wrong]:
    features = _features(end.task, end.given)
    if features is None or not features.has_poles:
        return
    for place in features.x_intercepts[:1]:
        stated = _feature_stated("vertical asymptote", equals(n.Letter(end.unknown), _tree(place)))
        yield stated, _swapped_words(end.unknown, place, "vertical asymptote")
    for place in features.vertical[:1]:
        yield _feature_stated("x-intercept", _tree(place)), _swapped_words(end.unknown, place, "x-intercept")


def _first_terms(features: Features) -> n.Node | None:
    """The quotient of the first terms, where an oblique asymptote has a constant as well; else None."""
    if features.oblique is None:
        return None
    quotient, _ = divided(features.value, features.letter)
    return build.monomial(quotient[1], [(features.letter, 1)]) if len(quotient) == 2 and quotient[0] else None


def _oblique(sight: Sight) -> Iterator[Words]:
    found = _feature(sight, "oblique asymptote")
    if found is None:
        return
    features, stated = found
    short = _first_terms(features)
    item = stated.items[0]
    line = item.sides[-1] if isinstance(item, ln.Equation) else item
    if short is None or isinstance(line, ln.STATEMENTS):
        return
    try:
        over = field_of((features.letter,))
        if value_of(line, over).ratio == value_of(short, over).ratio:
            yield _oblique_words(features, short)
    except ExactError:
        return


def _oblique_words(features: Features, short: n.Node) -> Words:
    assert features.oblique is not None
    return said("{short} is the first step of the division, which gives {line}", short=short, line=features.oblique)


def _oblique_foreseen(end: Ending) -> Iterator[Wrong]:
    features = _features(end.task, end.given)
    short = _first_terms(features) if features else None
    if features is not None and short is not None:
        yield _feature_stated("oblique asymptote", equals(n.Letter("y"), short)), _oblique_words(features, short)


def _hole_height(sight: Sight) -> Iterator[Words]:
    """A hole at the right place with the height 0, or with the place given as the height."""
    found = _feature(sight, "hole")
    if found is None:
        return
    features, stated = found
    for item in stated.items:
        for x, height in features.holes:
            if (
                isinstance(item, ln.Point)
                and _is(x, _value(item.across))
                and _value(item.up) == 0
                and height != build.ZERO
            ):
                yield _height_words(features.letter, x, height)
                return


def _height_foreseen(end: Ending) -> Iterator[Wrong]:
    features = _features(end.task, end.given)
    for x, height in features.holes if features else ():
        if height != build.ZERO:
            stated = _feature_stated("hole", ln.Point(_tree(x), n.Integer(0)))
            yield stated, _height_words(end.unknown, x, height)


def _ratios(features: Features) -> dict[Q, Words]:
    """Wrong horizontal asymptotes, each with the rule that gives it."""
    up, low = (
        integer_coefficients(part, features.letter) for part in (features.value.numerator, features.value.denominator)
    )
    over, under = len(up) - 1, len(low) - 1

    def degrees(rest: str) -> Words:
        lead = "in lowest terms the degree above is" if features.holes else "above the degree is"
        return said(lead + " {over}, below it is {under}" + rest, over=over, under=under)

    found: dict[Q, Words] = {
        Q(0): degrees(", so y = 0 does not belong to it"),
        Q(up[-1], low[-1]): degrees(", so the first coefficients do not give it"),
    }
    if over == under:
        found[Q(0)] = degrees(": y = 0 belongs to a higher degree below")
        if low[0]:
            last = said("{a} and {b} are the last coefficients, not the first", a=up[0], b=low[0])
            found.setdefault(Q(up[0], low[0]), last)
        if up[-1]:
            found.setdefault(Q(low[-1], up[-1]), said("{a} over {b} is the wrong way round", a=low[-1], b=up[-1]))
    return found


def _horizontal(sight: Sight) -> Iterator[Words]:
    found = _feature(sight, "horizontal asymptote")
    if found is None:
        return
    features, stated = found
    if isinstance(stated.items[0], ln.Word):
        if features.horizontal is not None:
            yield said("the degree above is not higher than the degree below, so y = {y}", y=features.horizontal)
        return
    value = _value(stated.items[0])
    reason = _ratios(features).get(value) if value is not None else None
    if reason and value != features.horizontal:
        yield reason


def _horizontal_foreseen(end: Ending) -> Iterator[Wrong]:
    features = _features(end.task, end.given)
    if features is not None:
        for value, reason in _ratios(features).items():
            if value != features.horizontal:
                yield _feature_stated("horizontal asymptote", equals(n.Letter("y"), build.number(value))), reason
        if features.horizontal is not None:
            none = _feature_stated("horizontal asymptote", ln.Word("none"))
            yield none, said("the degree above is not higher than the degree below, so y = {y}", y=features.horizontal)


def _end_sign(sight: Sight) -> Iterator[Words]:
    """The limit with its sign turned over."""
    found = _feature(sight, "end behaviour")
    if found is None:
        return
    features, stated = found
    for item in stated.items:
        if not isinstance(item, ln.End):
            continue
        limit = features.ends[item.side]
        side = "∞" if item.side == "+" else "-∞"
        if isinstance(limit, str):
            turned = item.value is None and (limit == "inf") == (item.growth == "-")
            shown = limit.replace("inf", "∞")
        else:
            turned = limit != 0 and item.value is not None and _value(item.value) == -limit
            shown = str(limit)
        if turned:
            yield said("for {x} → {side}, y goes to {limit}", x=features.letter, side=side, limit=shown)
            return


def _end_foreseen(end: Ending) -> Iterator[Wrong]:
    features = _features(end.task, end.given)
    if features is None:
        return
    limit = features.ends["-"]
    if limit != 0:
        if isinstance(limit, Q):
            stated = ln.End("-", build.number(-limit))
        else:
            stated = ln.End("-", None, "-" if limit == "inf" else "+")
        shown = str(limit).replace("inf", "∞")
        words = said("for {x} → -∞, y goes to {limit}", x=end.unknown, limit=shown)
        yield _feature_stated("end behaviour", stated), words


def _shift(sight: Sight) -> Iterator[Words]:
    """h, or the vertical asymptote, with the sign that stands in the bracket."""
    features = _features(sight.task, sight.given)
    body = sight.line.body
    if features is None:
        return
    x = features.letter
    if isinstance(body, ln.Equation) and len(body.sides) == 2 and n.bare(body.sides[0]) == n.Letter("h"):
        shape = features.shifted_reciprocal
        if shape is not None and shape[1] and _value(body.sides[1]) == -shape[1]:
            yield _zero_words(x, shape[1])
    elif isinstance(body, ln.Feature) and body.name in ("vertical asymptote", "x-intercept", "hole"):
        values = [_value(item.across if isinstance(item, ln.Point) else item) for item in body.items]
        places = {
            "vertical asymptote": features.vertical,
            "x-intercept": features.x_intercepts,
            "hole": [place for place, _ in features.holes],
        }[body.name]
        for place in places:
            number = place.rational
            if number and -number in values and not any(_is(other, -number) for other in places):
                yield _zero_words(x, number)
                return


def _zero_words(x: str, zero: Q) -> Words:
    """`x - 2 is 0 at x = 2`."""
    letter = n.Letter(x)
    return said(
        "{bracket} is 0 at {x} = {zero}", bracket=build.sum_of([letter, build.number(-zero)]), x=letter, zero=zero
    )


def _hole_words(x: str, place: Number, height: n.Node) -> Words:
    where = ln.Point(_tree(place), height)
    return said("the factor of {x} = {place} cancels: there is a hole at {where}", x=x, place=str(place), where=where)


def _height_words(x: str, place: Number, height: n.Node) -> Words:
    words = "the given is 0/0 at {x} = {place}, but the reduced form is {height} there"
    return said(words, x=x, place=str(place), height=height)


def _feature_stated(name: str, item: n.Node) -> n.Node:
    return ln.Feature(name, (item,), plural=False, label=name)


def _tree(number: Number) -> n.Node:
    """The number as it is written; one without a form of its own by its letter."""
    return number.tree or n.Letter(str(number))


def _shift_foreseen(end: Ending) -> Iterator[Wrong]:
    features = _features(end.task, end.given)
    places = features.vertical if features else []
    for place in places:
        number = place.rational
        if number and not any(_is(other, -number) for other in places):
            wrong = equals(n.Letter(end.unknown), build.number(-number))
            yield _feature_stated("vertical asymptote", wrong), _zero_words(end.unknown, number)
    for place in features.x_intercepts if features else []:
        number = place.rational
        if (
            features
            and number
            and not any(_is(other, -number) for other in (*features.x_intercepts, *features.vertical))
        ):
            yield _feature_stated("x-intercept", build.number(-number)), _zero_words(end.unknown, number)


SLIPS = (
    Slip(
        id="hole-as-asymptote",
        name="Took a hole for an asymptote",
        kind="concept",
        topic="rational functions",
        done="{what}.",
        scope="seen",
        seen=_hole_stated_as("vertical asymptote"),
        foreseen=_hole_foreseen,
        why="Near a cancelled zero the graph stays low; only one point is left out.",
        cue="Reduce first: which zero of the bottom is still there?",
        example_task="analyze",
        examples=(("(x^2-x)/(x^2-1)", "vertical asymptote: x = 1"),),
        innocent=(("(x^2-x)/(x^2-1)", "vertical asymptote: x = -1"),),
        lurks_in=("find-holes", "vertical-asymptotes"),
        likely=3.6,
    ),
    Slip(
        id="hole-as-intercept",
        name="Took a hole for an intercept",
        kind="concept",
        topic="rational functions",
        done="{what}.",
        scope="seen",
        seen=_hole_stated_as("x-intercept"),
        foreseen=_hole_intercept_foreseen,
        why="Where the function has no value, its graph does not meet the axis.",
        cue="Is the place in the domain?",
        example_task="analyze",
        examples=(("(x^2-x)/(x^2-1)", "x-intercepts: 0, 1"),),
        innocent=(("(x^2-x)/(x^2-1)", "x-intercept: 0"),),
        lurks_in=("find-holes", "intercepts"),
        likely=3.0,
    ),
    Slip(
        id="top-and-bottom-swapped",
        name="Swapped the zeros of top and bottom",
        kind="concept",
        topic="rational functions",
        done="{what}.",
        scope="seen",
        seen=_swapped,
        foreseen=_swapped_foreseen,
        why="0/5 is 0, an intercept; 5/0 is no number, an asymptote.",
        cue="Top 0: on the axis. Bottom 0: off the graph.",
        example_task="analyze",
        examples=(("(2x+1)/(x-3)", "vertical asymptote: x = -1/2"), ("(2x+1)/(x-3)", "x-intercept: 3")),
        innocent=(("(2x+1)/(x-3)", "vertical asymptote: x = 3"), ("(2x+1)/(x-3)", "x-intercept: -1/2")),
        lurks_in=("vertical-asymptotes", "intercepts"),
        likely=2.6,
    ),
    Slip(
        id="oblique-without-constant",
        name="Oblique asymptote from the first terms only",
        kind="procedure",
        topic="rational functions",
        done="{what}.",
        scope="seen",
        seen=_oblique,
        foreseen=_oblique_foreseen,
        why="The next term of the quotient is a constant, and it shifts the line.",
        cue="Divide on until the rest is of lower degree.",
        example_task="analyze",
        examples=(("(x^2+1)/(x-2)", "oblique asymptote: y = x"),),
        innocent=(("(x^2+1)/(x-2)", "oblique asymptote: y = x + 2"), ("(x^2+1)/x", "oblique asymptote: y = x")),
        lurks_in=("oblique-asymptote",),
        likely=2.6,
    ),
    Slip(
        id="hole-height-from-original",
        name="Height of the hole from the given",
        kind="procedure",
        topic="rational functions",
        done="{what}.",
        scope="seen",
        seen=_hole_height,
        foreseen=_height_foreseen,
        why="0/0 is not 0; the height is what the reduced form gives.",
        cue="Put the place into the reduced form.",
        example_task="analyze",
        examples=(("(x^2-x)/(x^2-1)", "hole: (1, 0)"),),
        innocent=(("(x^2-x)/(x^2-1)", "hole: (1, 1/2)"), ("(x^2-x)/x", "hole: (0, -1)")),
        lurks_in=("find-holes",),
    ),
    Slip(
        id="horizontal-asymptote-rule",
        name="Wrong rule for the horizontal asymptote",
        kind="concept",
        topic="rational functions",
        done="{what}.",
        scope="seen",
        seen=_horizontal,
        foreseen=_horizontal_foreseen,
        why="Far out only the highest powers count.",
        cue="Compare the degrees, then the first coefficients.",
        example_task="analyze",
        examples=(
            ("(2x+5)/(3x-1)", "horizontal asymptote: y = 0"),
            ("(2x+5)/(3x-1)", "horizontal asymptote: y = -5"),
            ("x/(x^2-4)", "horizontal asymptote: y = 1"),
        ),
        innocent=(("(2x+5)/(3x-1)", "horizontal asymptote: y = 2/3"), ("x/(x^2-4)", "horizontal asymptote: y = 0")),
        lurks_in=("end-behaviour", "oblique-asymptote"),
    ),
    Slip(
        id="end-behaviour-sign",
        name="Carried the sign of x over",
        kind="concept",
        topic="rational functions",
        done="{what}.",
        scope="seen",
        seen=_end_sign,
        foreseen=_end_foreseen,
        why="The sign far left follows from the leading powers, not from x alone.",
        cue="Put −1000 in.",
        example_task="analyze",
        examples=(("(2x+5)/(3x-1)", "end behaviour: x → -∞, y → -2/3"), ("(x^3+1)/x", "end behaviour: x → -∞, y → -∞")),
        innocent=(("(2x+5)/(3x-1)", "end behaviour: x → -∞, y → 2/3"),),
        lurks_in=("end-behaviour",),
    ),
    Slip(
        id="shift-sign",
        name="Shift with the sign as written",
        kind="concept",
        topic="rational functions",
        done="{what}.",
        scope="seen",
        seen=_shift,
        foreseen=_shift_foreseen,
        why="x − 2 is 0 at 2, so the graph moves to the right.",
        cue="Where is the bracket 0?",
        example_task="analyze",
        examples=(("3/(x-2) + 1", "h = -2"), ("1/(x+4)", "vertical asymptote: x = 4")),
        innocent=(("3/(x-2) + 1", "h = 2"), ("1/(x+4)", "vertical asymptote: x = -4")),
        lurks_in=("transform-parent",),
    ),
)
