"""Errors become answers here and nowhere else, all in FastAPI's `detail` list of loc and msg."""

from __future__ import annotations

from typing import Any, cast

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic_core import ErrorDetails

from fidicula.contract.refusals import Refusal, RefusalItem, from_core, item_of
from fidicula.core.errors import CoreError
from fidicula.db.once import TakenIdError
from fidicula.db.unit_of_work import DatabaseAwayError
from fidicula.services.errors import (
    ConflictError,
    ForbiddenError,
    MeanwhileError,
    NotFoundError,
    NotSignedInError,
    ServiceError,
    TooManyGuessesError,
)


def _answer(status: int, items: list[RefusalItem]) -> JSONResponse:
    return JSONResponse({"detail": [item.model_dump() for item in items]}, status)


def _path(field: str) -> list[str | int]:
    """`instruments.3.size` as names and indices."""
    return [int(part) if part.isdecimal() else part for part in field.split(".") if part]


def _one(status: int, sentence: str, *loc: str | int) -> JSONResponse:
    return _answer(status, [RefusalItem(loc=list(loc) or ["body"], msg=sentence, type="refused")])


def install(app: FastAPI) -> None:
    """Register a handler for every kind of error that the layers below raise."""

    @app.exception_handler(RequestValidationError)
    def _validation(_request: Request, error: RequestValidationError) -> JSONResponse:
        items = []
        for details in error.errors():
            where, *rest = details["loc"]
            if details["type"] == "json_invalid":
                items.append(RefusalItem(loc=["body"], msg="this is not JSON", type="malformed"))
                continue
            items.append(item_of(cast(ErrorDetails, {**details, "loc": tuple(rest)}), root=str(where)))
        return _answer(422, items)

    @app.exception_handler(Refusal)
    def _refusal(_request: Request, refusal: Refusal) -> JSONResponse:
        return _answer(422, refusal.items)

    @app.exception_handler(CoreError)
    def _core(_request: Request, error: CoreError) -> JSONResponse:
        return _answer(422, from_core(error).items)

    @app.exception_handler(MeanwhileError)
    def _meanwhile(_request: Request, error: MeanwhileError) -> JSONResponse:
        items = [RefusalItem(loc=["body", name], msg=msg, type="meanwhile") for name, msg in error.fields.items()]
        return _answer(409, items)

    @app.exception_handler(ServiceError)
    def _service(_request: Request, error: ServiceError) -> JSONResponse:
        status = next((code for kind, code in _STATUS.items() if isinstance(error, kind)), 422)
        answer = _one(status, error.sentence, "body", *_path(error.field))
        if isinstance(error, TooManyGuessesError):
            answer.headers["retry-after"] = str(error.wait)
        return answer

    @app.exception_handler(TakenIdError)
    def _taken_id(_request: Request, _error: TakenIdError) -> JSONResponse:
        return _one(409, "this id belongs to another entry: nothing was written; enter it again", "body", "id")

    @app.exception_handler(DatabaseAwayError)
    def _away(_request: Request, _error: DatabaseAwayError) -> JSONResponse:
        return _one(503, "the records cannot be reached just now; what you typed is kept here and sent again")


_STATUS: dict[type[ServiceError], int] = {
    NotSignedInError: 401,
    ForbiddenError: 403,
    NotFoundError: 404,
    ConflictError: 409,
    TooManyGuessesError: 429,
}

RESPONSES: dict[int | str, dict[str, Any]] = {
    401: {"description": "Nobody is signed in"},
    403: {"description": "Not for this role"},
    404: {"description": "Not in the house"},
    409: {"description": "Not as things stand"},
    422: {"description": "Refused, with loc and msg for each field"},
    503: {"description": "The records cannot be reached"},
}
