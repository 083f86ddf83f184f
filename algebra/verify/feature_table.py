"""Statements about a rational function, each compared with its features; and what is still missing from the table."""

from __future__ import annotations

from dataclasses import dataclass, field
from fractions import Fraction as Q

from algebra.exact.algebraic_numbers import Number, rational
from algebra.exact.errors import ExactError, OutOfScope
from algebra.exact.evaluate.at_point import PointEvaluator
from algebra.exact.generators import Plan
from algebra.exact.plus_minus import variants
from algebra.exact.rational_functions import Ratio
from algebra.exact.real_sets import RealSet
from algebra.functions.features import Features, features_of, range_text, shifted_reciprocal
from algebra.functions.piecewise import features_of_pieces
from algebra.reports.report import Answer, PointEvidence
from algebra.reports.working import TaskError
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain
from algebra.tree.substitute import substituted
from algebra.verify.draft import LinkDraft
from algebra.verify.evaluated import EvaluatedExpression
from algebra.verify.evaluator import Evaluator
from algebra.verify.excluded_values import ExcludedValues


@dataclass(slots=True)
class FeatureTable:
    """The features of the given, and which of them have been stated."""

    evaluator: Evaluator
    features: Features
    stated: list[str] = field(default_factory=list)
    wrong: list[str] = field(default_factory=list)
    covered: set[str] = field(default_factory=set)

    @staticmethod
    def of(evaluator: Evaluator, given: EvaluatedExpression) -> FeatureTable:
        """Raises ExactError for what is no rational function of one letter."""
        return FeatureTable(evaluator, features_of(given.values[0], evaluator.context.unknown))

    @staticmethod
    def of_pieces(evaluator: Evaluator, excluded: ExcludedValues) -> FeatureTable:
        """The same for a function with bars. Raises ExactError for what is none of one letter, or has no value on an
        interval."""
        context = evaluator.context
        (tree,) = context.given_trees()
        domain = excluded.domain().as_real
        if context.plan is None or not domain.is_cofinite:
            raise OutOfScope("Only rational functions are analysed.", "√")
        zeros = [s.number for s in evaluator.solve(tree, n.Integer(0)).members if s.number is not None]
        return FeatureTable(evaluator, features_of_pieces(tree, context.unknown, context.plan, domain, sorted(zeros)))

    def judge(self, link: LinkDraft, feature: ln.Feature) -> None:
        """Fills in the link: a feature in the singular holds iff the function has it, in the plural iff it is all."""
        if feature.name == "moved point":
            self._judge_moved(link, feature)
            return
        items = tuple(one for item in feature.items for one in variants(item))
        if feature.name not in ("domain", "range") and len(items) > len(feature.items):
            feature = ln.Feature(feature.name, items, True, feature.label)
        holds = self._holds(feature)
        link.relation = "holds" if holds else "breaks"
        text = plain(feature)
        if not holds:
            self.wrong.append(text)
            link.evidence = PointEvidence(self._truth(feature.name))
            return
        self.stated.append(text)
        if feature.name not in ("domain", "range"):
            every = len(self._expected_places(feature.name))
            own = 0 if isinstance(feature.items[0], ln.Word) else len(feature.items)
            self.covered |= {f"{feature.name} {plain(item)}" for item in feature.items}
            if own >= every or feature.plural or self._count(feature.name) >= every:
                self.covered.add(feature.name)
        else:
            self.covered.add(feature.name)

    def _judge_moved(self, link: LinkDraft, feature: ln.Feature) -> None:
        """`(1, 1) → (3, 4)`: a point of 1/x, and where a/(x − h) + k has it. Raises TaskError where the function has
        not that form."""
        shape = self.features.shifted_reciprocal
        if shape is None:
            raise TaskError("This function is not a stretched and shifted 1/x.")
        places = [(point.across, point.up) for point in feature.items if isinstance(point, ln.Point)]
        (x, y), (across, up) = [tuple(self._number(tree) for tree in place) for place in places]
        a, h, k = shape
        start = (x.rational, y.rational) if x is not None and y is not None else (None, None)
        text = plain(feature)
        if start[0] is None or start[1] is None or start[0] * start[1] != 1:
            link.relation = "breaks"
            link.evidence = PointEvidence("The first point does not lie on 1/x.")
        else:
            goal = rational(start[0] + h), rational(a * start[1] + k)
            link.relation = "holds" if (across, up) == goal else "breaks"
            link.evidence = None if link.relation == "holds" else PointEvidence(f"It moves to ({goal[0]}, {goal[1]}).")
        (self.stated if link.relation == "holds" else self.wrong).append(text)

    def _count(self, name: str) -> int:
        return sum(item.startswith(f"{name} ") for item in self.covered)

    def states_parameter(self, body: n.Node | None) -> bool:
        """Whether a line is a = …, h = … or k = … of the form a/(x − h) + k."""
        return (
            isinstance(body, ln.Equation)
            and len(body.sides) == 2
            and isinstance(body.sides[0], n.Letter)
            and body.sides[0].name in ("a", "h", "k")
            and body.sides[0].name not in self.evaluator.context.letters
        )

    def judge_parameter(self, link: LinkDraft, body: ln.Equation) -> None:
        """One of the three numbers of a/(x − h) + k. Raises TaskError where the function has not that form."""
        shape = self.features.shifted_reciprocal
        if shape is None:
            raise TaskError("This function is not a stretched and shifted 1/x.")
        name = body.sides[0].name if isinstance(body.sides[0], n.Letter) else ""
        value = self._number(body.sides[1])
        true = dict(zip("ahk", shape, strict=True))[name]
        link.relation = "holds" if value == rational(true) else "breaks"
        if link.relation == "breaks":
            self.wrong.append(plain(body))
            text = plain(shifted_reciprocal(*shape, self.evaluator.context.unknown))
            link.evidence = PointEvidence(f"The function is {text}, so {name} = {true}.")
        else:
            self.stated.append(plain(body))

    def exclusion(self, holds: bool) -> None:
        """An exclusion line states the domain."""
        if holds:
            self.covered.add("domain")
            self.stated.append("domain")

    # -- what a statement says ----------------------------------------------------------------------------------

    def _holds(self, feature: ln.Feature) -> bool:
        f, name, items = self.features, feature.name, feature.items
        if isinstance(items[0], ln.Word):
            return not self._expected_places(name)
        if name == "domain":
            return self._set(items[0]) == RealSet.points(f.excluded, outside=True)
        if name == "range":
            if f.range is None:
                raise TaskError("The range of this function is not worked out here.")
            return self._set(items[0]) == f.range
        if name == "point":
            return all(isinstance(p, ln.Point) and self._on_graph(p) for p in items)
        if name == "end behaviour":
            return all(isinstance(e, ln.End) and self._end_holds(e) for e in items)
        expected = self._expected_places(name)
        stated = [self._place(name, item) for item in items]
        if any(place not in expected for place in stated):
            return False
        return not feature.plural or len(set(map(str, stated))) == len(expected)

    def _expected_places(self, name: str) -> list[object]:
        f = self.features
        match name:
            case "hole":
                return [(x, self._number(y)) for x, y in f.holes]
            case "vertical asymptote":
                return list(f.vertical)
            case "horizontal asymptote":
                return [rational(line) for line in f.horizontals]
            case "oblique asymptote":
                return [] if f.oblique is None else [self._line(f.oblique)]
            case "x-intercept":
                return list(f.x_intercepts)
            case "y-intercept":
                return [] if f.y_intercept is None else [rational(f.y_intercept)]
            case "end behaviour":
                return list(f.ends)
        return []

    def _place(self, name: str, item: n.Node) -> object:
        if isinstance(item, ln.Equation):
            letter, value = item.sides
            wanted = self.evaluator.context.unknown if name.startswith(("vertical", "x-")) else "y"
            if n.bare(letter) != n.Letter(wanted):
                return None
            item = value
        if isinstance(item, ln.Point):
            across, up = self._number(item.across), self._number(item.up)
            if name == "hole":
                return (across, up)
            zero = rational(0)
            if name == "x-intercept":
                return across if up == zero else None
            return up if across == zero else None
        if name == "oblique asymptote":
            return self._line(item)
        return self._number(item)

    def _line(self, tree: n.Node) -> str:
        value: Ratio = self.evaluator.value(tree).ratio
        return f"{value.numerator}/{value.denominator}"

    def _number(self, tree: n.Node) -> Number | None:
        try:
            found = self.evaluator.candidate(tree)
        except (ExactError, TaskError):
            return None
        return found.number if found is not None else None

    def _on_graph(self, point: ln.Point) -> bool:
        across, up = self._number(point.across), self._number(point.up)
        if across is None or up is None or across in self.features.excluded:
            return False
        exactly = PointEvaluator(
            self.evaluator.context.plan or Plan(index=12), {self.evaluator.context.unknown: across}
        )
        for tree in self.evaluator.context.given_trees():
            found = exactly.value(tree)
            goal = exactly.value(point.up)
            if found is not None and goal is not None:
                return bool(exactly.same(found, goal))
        return False

    def _end_holds(self, end: ln.End) -> bool:
        limit = self.features.ends[end.side]
        if end.value is None:
            return limit == ("-inf" if end.growth == "-" else "inf")
        number = self._number(end.value)
        return isinstance(limit, Q) and number == rational(limit)

    def _set(self, body: n.Node) -> RealSet | None:
        """The set of reals that a statement of the domain or range names; its letter may be y."""
        if isinstance(body, ln.ValueList | ln.Comparison) and body.operator == "≠":
            items = body.items if isinstance(body, ln.ValueList) else (body.right,)
            found = [self._number(item) for item in items]
            return None if None in found else RealSet.points([v for v in found if v is not None], outside=True)
        text_letter = {part.name for part in n.parts_of(body) if isinstance(part, n.Letter)}
        if text_letter == {"y"} and self.evaluator.context.unknown != "y":
            body = substituted(body, {n.Letter("y"): self.evaluator.context.unknown_letter})
        return self.evaluator.statement(body).solutions.as_real

    # -- the answer ---------------------------------------------------------------------------------------------

    def expected(self) -> list[str]:
        """Every feature that the function has, as one would state it."""
        f, x = self.features, self.evaluator.context.unknown
        domain = f"{x} ≠ {', '.join(map(str, f.excluded))}" if f.excluded else "all real numbers"
        found = [f"domain: {domain}"]
        found += [f"hole: ({a}, {plain(b, tight=True)})" for a, b in f.holes]
        found += [f"vertical asymptote: {x} = {v}" for v in f.vertical]
        found += [f"horizontal asymptote: y = {line}" for line in f.horizontals]
        if f.oblique is not None:
            found.append(f"oblique asymptote: y = {plain(f.oblique)}")
        found += [f"x-intercept: {v}" for v in f.x_intercepts]
        if f.y_intercept is not None:
            found.append(f"y-intercept: {f.y_intercept}")
        return found

    def missing(self) -> list[str]:
        """The features not stated yet. End behaviour and range are welcome but owed only where nothing else tells
        them."""
        open_names = []
        for text in self.expected():
            name = text.partition(":")[0]
            if name not in self.covered and not self._singly(text, name):
                open_names.append(text)
        return open_names

    def _singly(self, text: str, name: str) -> bool:
        goal = text.partition(": ")[2]
        return any(item.startswith(f"{name} ") and _same(item.removeprefix(f"{name} "), goal) for item in self.covered)

    def answer(self) -> Answer:
        """`correct` when every statement holds and all features were stated, `incomplete` when some are missing."""
        expected, missing = tuple(self.expected()), tuple(self.missing())
        if self.wrong:
            wrong = tuple(self.wrong)
            text = f"Wrong: {'; '.join(wrong)}."
            return Answer("wrong", expected, (*self.stated, *wrong), missing, wrong, text=text)
        if not self.stated:
            return Answer("none", expected, text="No feature is stated yet.")
        if missing:
            text = f"Still to be stated: {'; '.join(missing)}."
            return Answer("incomplete", expected, tuple(self.stated), missing, text=text)
        return Answer("correct", expected, tuple(self.stated), text="The table of features is complete and right.")

    def _truth(self, name: str) -> str:
        """What the function has in place of what was stated."""
        f = self.features
        if name == "range":
            return "" if f.range is None else f"The range is {range_text(f.range)}."
        if name == "end behaviour":
            ends = [f"x → {'' if s == '+' else '-'}∞, y → {str(v).replace('inf', '∞')}" for s, v in f.ends.items()]
            return f"It is {'; '.join(ends)}."
        if name == "point":
            return "The graph does not go through this point."
        own = [text.partition(": ")[2] for text in self.expected() if text.startswith(name)]
        return f"The {name} is {' and '.join(own)}." if own else f"There is no {name}."


def _same(left: str, right: str) -> bool:
    return left.replace(" ", "") == right.replace(" ", "")
