"""Finding problems of a teacher again."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping

from django.contrib.auth.models import User
from django.db.models import Count, F, Q, QuerySet

from algebra import FAMILIES, METHODS, SLIPS, understood
from server.bank.schemas import BankOut, BankRow, KindOut, KindsOut, Wanted
from server.sheets.models import Problem
from server.sheets.queries import decimal_of
from server.sheets.reports import STAMP

PAGE = 30
_FAMILIES = {family.id: family.name for family in FAMILIES}
_METHODS = {method.id: method.name for method in METHODS}
_SLIPS = {slip.id: slip.name for slip in SLIPS}
_ORDERS = {
    "recent": ("-sheet__changed", "-sheet_id", "position"),
    "easiest": (F("rating").asc(nulls_last=True), "pk"),
    "hardest": (F("rating").desc(nulls_last=True), "pk"),
    "unused": (F("sheet__printed").asc(nulls_first=True), "pk"),
}


def bank_of(teacher: User) -> QuerySet[Problem]:
    """All problems of a teacher."""
    return Problem.objects.filter(sheet__owner=teacher)


def waiting_in(teacher: User) -> QuerySet[Problem]:
    """Those that have not been looked through as they are now, by this version of the core."""
    return bank_of(teacher).exclude(indexed=STAMP)


def found(teacher: User, wanted: Wanted) -> BankOut:
    """A page of the problems that are wanted."""
    rows = _wanted(bank_of(teacher), wanted).select_related("sheet").defer("difficulty")
    start = (wanted.page - 1) * PAGE
    page = list(rows.order_by(*_ORDERS[wanted.order])[start : start + PAGE + 1])
    same = _same(teacher, {problem.likeness for problem in page if problem.likeness})
    return BankOut(
        rows=[_row(problem, same) for problem in page[:PAGE]],
        found=rows.count(),
        more=len(page) > PAGE,
        waiting=waiting_in(teacher).count(),
    )


def _wanted(rows: QuerySet[Problem], wanted: Wanted) -> QuerySet[Problem]:
    if words := wanted.text.strip():
        rows = rows.filter(Q(given__icontains=words) | Q(sheet__title__icontains=words))
    if wanted.family:
        rows = rows.filter(family=wanted.family)
    if wanted.method:
        rows = rows.filter(methods__contains=[wanted.method])
    if wanted.slip:
        rows = rows.filter(slips__contains=[wanted.slip])
    if wanted.low > 1:
        rows = rows.filter(rating__gte=wanted.low)
    if wanted.high < 10:
        rows = rows.filter(rating__lte=wanted.high)
    if wanted.unused is not None:
        rows = rows.filter(Q(sheet__printed=None) | Q(sheet__printed__date__lt=wanted.unused))
    if wanted.repeated:
        twice = rows.exclude(likeness="").order_by().values("likeness").annotate(n=Count("pk")).filter(n__gt=1)
        # the forms are fetched: asked for inside the query, they were told anew for the count and for the page
        rows = rows.filter(likeness__in=list(twice.values_list("likeness", flat=True)))
    return rows


def _same(teacher: User, forms: set[str]) -> Mapping[str, int]:
    rows = bank_of(teacher).filter(likeness__in=forms).order_by().values_list("likeness").annotate(n=Count("pk"))
    return dict(rows)


def _row(problem: Problem, same: Mapping[str, int]) -> BankRow:
    given = understood(problem.given, decimal=decimal_of(problem.sheet))
    return BankRow(
        id=problem.pk,
        sheet=problem.sheet_id,
        place=problem.position + 1,
        title=problem.sheet.title,
        task=problem.task_name,
        given=problem.given,
        given_latex=given.latex,
        variable=problem.variable,
        numbers=problem.number_system,
        method=problem.method,
        family=_FAMILIES.get(problem.family, ""),
        difficulty=problem.rating,
        slips=[_SLIPS[key] for key in problem.slips if key in _SLIPS][:3],
        printed=problem.sheet.printed,
        same=max(0, same.get(problem.likeness, 1) - 1),
    )


def kinds_in(teacher: User) -> KindsOut:
    """What can be asked for in this bank."""
    families: Counter[str] = Counter()
    methods: Counter[str] = Counter()
    slips: Counter[str] = Counter()
    for family, ways, errors in bank_of(teacher).values_list("family", "methods", "slips").iterator():
        families[family] += 1
        methods.update(ways)
        slips.update(errors)
    return KindsOut(
        families=_kinds(families, _FAMILIES), methods=_kinds(methods, _METHODS), slips=_kinds(slips, _SLIPS)
    )


def _kinds(counts: Mapping[str, int], names: Mapping[str, str]) -> list[KindOut]:
    told: Iterable[tuple[str, int]] = sorted(counts.items(), key=lambda pair: (-pair[1], pair[0]))
    return [KindOut(id=key, name=names[key], count=count) for key, count in told if key in names]
