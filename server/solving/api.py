"""/api/problems/…/methods, next-step, analysis; /api/catalogue; /api/account/words."""

from __future__ import annotations

from typing import cast

from django.contrib.auth.models import User
from django.http import HttpRequest
from ninja import Router

from server.accounts.schemas import Detail
from server.checking.schemas import JsonObject
from server.solving import queries, services
from server.solving.schemas import (
    AnalysisOut,
    AnticipatedOut,
    CatalogueOut,
    GrainName,
    HintOut,
    MethodsOut,
    NextIn,
    OrderName,
    WordsIn,
    WordsOut,
)

router = Router()


def _teacher(request: HttpRequest) -> User:
    return cast(User, request.user)


@router.get("/problems/{int:problem_id}/methods", response={200: MethodsOut, 404: Detail})
def methods(request: HttpRequest, problem_id: int, grain: GrainName = "board") -> JsonObject:
    """The methods that lead to the answer, side by side, each worked out."""
    return queries.methods(_teacher(request), problem_id, grain)


@router.post("/problems/{int:problem_id}/next-step", response={200: HintOut, 400: Detail, 404: Detail})
def next_step(request: HttpRequest, problem_id: int, data: NextIn) -> JsonObject:
    """The next step after the lines so far."""
    return queries.next_of(_teacher(request), problem_id, data.lines)


@router.get("/problems/{int:problem_id}/anticipate", response={200: AnticipatedOut, 404: Detail})
def anticipate(request: HttpRequest, problem_id: int, order: OrderName = "shuffled", seed: int = 1) -> JsonObject:
    """The wrong answers to expect, each with its working and refutation, and options made from them."""
    return queries.anticipated(_teacher(request), problem_id, order, seed)


@router.get("/problems/{int:problem_id}/analysis", response={200: AnalysisOut, 404: Detail})
def analysis(request: HttpRequest, problem_id: int) -> JsonObject:
    """The features of a rational function and its graph."""
    return queries.analysis_of(_teacher(request), problem_id)


@router.get("/catalogue", response=CatalogueOut)
def catalogue(request: HttpRequest) -> CatalogueOut:
    """The rules, methods and kinds of number that a class may have been taught."""
    return CatalogueOut(entries=queries.catalogue())


@router.get("/account/words", response=WordsOut)
def read_words(request: HttpRequest) -> JsonObject:
    return {"words": queries.words_of(_teacher(request))}


@router.put("/account/words", response={200: WordsOut, 400: Detail})
def write_words(request: HttpRequest, data: WordsIn) -> JsonObject:
    """Replaces one's own words for rules and methods."""
    return {"words": services.set_words(_teacher(request), data.words).words}
