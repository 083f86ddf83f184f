"""/api/problems/…/methods, next-step, anticipate, analysis; /api/catalogue; /api/account/words."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router

from algebra import FeaturesReport, Grain, OptionOrder
from server.accounts.allowance import spend
from server.accounts.words import words_of
from server.common.schemas import Detail
from server.common.who import person_of
from server.solving import queries, services
from server.solving.schemas import AnticipatedOut, CatalogueOut, HintOut, MethodsOut, NextIn, WordsIn, WordsOut

router = Router()


@router.get("/problems/{int:problem_id}/methods", response={200: MethodsOut, 404: Detail, 429: Detail})
def methods(request: HttpRequest, problem_id: int, grain: Grain = "board") -> MethodsOut:
    """The methods that lead to the answer, side by side, each worked out."""
    spend(person_of(request))
    return queries.methods(person_of(request), problem_id, grain)


@router.post("/problems/{int:problem_id}/next-step", response={200: HintOut, 400: Detail, 404: Detail, 429: Detail})
def next_step(request: HttpRequest, problem_id: int, data: NextIn) -> HintOut:
    """The next step after the lines so far."""
    spend(person_of(request))
    return queries.next_of(person_of(request), problem_id, data.lines)


@router.get("/problems/{int:problem_id}/anticipate", response={200: AnticipatedOut, 404: Detail, 429: Detail})
def anticipate(request: HttpRequest, problem_id: int, order: OptionOrder = "shuffled", seed: int = 1) -> AnticipatedOut:
    """The wrong answers to expect, each with its working and refutation, and options made from them."""
    spend(person_of(request))
    return queries.anticipated(person_of(request), problem_id, order, seed)


@router.get("/problems/{int:problem_id}/analysis", response={200: FeaturesReport, 404: Detail, 429: Detail})
def analysis(request: HttpRequest, problem_id: int) -> FeaturesReport:
    """The features of a rational function and its graph."""
    spend(person_of(request))
    return queries.analysis_of(person_of(request), problem_id)


@router.get("/catalogue", response=CatalogueOut)
def catalogue(request: HttpRequest) -> CatalogueOut:
    """The rules, methods and kinds of number that a class may have been taught."""
    return CatalogueOut(entries=queries.catalogue())


@router.get("/account/words", response=WordsOut)
def read_words(request: HttpRequest) -> WordsOut:
    """One's own words for rules, methods and slips."""
    return WordsOut.model_validate({"words": words_of(person_of(request).pk).stored})


@router.put("/account/words", response={200: WordsOut, 400: Detail})
def write_words(request: HttpRequest, data: WordsIn) -> WordsOut:
    """Replaces one's own words for rules, methods and slips."""
    services.set_words(person_of(request), data.words)
    return WordsOut.model_validate({"words": words_of(person_of(request).pk).stored})
