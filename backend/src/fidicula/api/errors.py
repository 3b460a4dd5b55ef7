"""Errors become answers here and nowhere else, all in FastAPI's `detail` list of loc and msg."""

from __future__ import annotations

from typing import Any, cast

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic_core import ErrorDetails
from starlette.exceptions import HTTPException as StarletteHTTPException

from fidicula.api.services import Services
from fidicula.contract.refusals import Refusal, RefusalItem, from_core, item_of
from fidicula.core.errors import CoreError
from fidicula.db.entries import TakenIdError
from fidicula.db.unit_of_work import (
    AtOnceError,
    DatabaseAwayError,
    DatabaseBusyError,
    DatabaseError,
    DiskFullError,
    DoesNotFitError,
)
from fidicula.domain.errors import (
    BusyError,
    ConflictError,
    ForbiddenError,
    MeanwhileError,
    NotFoundError,
    NotSignedInError,
    PasswordAgainError,
    ServiceError,
    TooManyGuessesError,
)
from fidicula.services.logging import journal


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
        kind = "password_again" if isinstance(error, PasswordAgainError) else "refused"
        item = RefusalItem(loc=["body", *_path(error.field)], msg=error.sentence, type=kind)
        answer = _answer(status, [item])
        if isinstance(error, TooManyGuessesError):
            answer.headers["retry-after"] = str(error.wait)
        return answer

    @app.exception_handler(TakenIdError)
    def _taken_id(_request: Request, error: TakenIdError) -> JSONResponse:
        where = f" for {error.ticket}" if error.ticket else ""
        return _one(409, f"this entry was already used{where}: nothing was written; enter it again", "body", "id")

    @app.exception_handler(DatabaseError)
    def _database(request: Request, error: DatabaseError) -> JSONResponse:
        status, sentence = next(said for kind, said in _OF_DATABASE.items() if isinstance(error, kind))
        services: Services = request.app.state.services
        waits_for = services.database_says() if isinstance(error, DatabaseAwayError) else ""
        if waits_for:
            sentence = f"{waits_for}; what you typed is kept here and sent again"
        journal().warning("database", kind=type(error).__name__, state=str(error))
        answer = _one(status, sentence)
        if status in (503, 507):
            answer.headers["retry-after"] = "2"
        return answer

    @app.exception_handler(StarletteHTTPException)
    def _http(request: Request, error: StarletteHTTPException) -> JSONResponse:
        said = {404: f"there is no {request.url.path}", 405: f"{request.url.path} does not take {request.method}"}
        answer = _one(error.status_code, said.get(error.status_code, str(error.detail)), "path")
        answer.headers.update(error.headers or {})
        return answer


_STATUS: dict[type[ServiceError], int] = {
    NotSignedInError: 401,
    ForbiddenError: 403,
    NotFoundError: 404,
    ConflictError: 409,
    TooManyGuessesError: 429,
    BusyError: 503,
}

_OF_DATABASE: dict[type[DatabaseError], tuple[int, str]] = {
    AtOnceError: (409, "somebody else wrote the same at the same moment: look again, then enter what is missing"),
    DoesNotFitError: (422, "part of this is longer or larger than the records take: shorten it"),
    DiskFullError: (507, "the disk of this shop's computer is full: make room; what you typed is kept and sent again"),
    DatabaseBusyError: (503, "the records are busy just now; what you typed is kept here and sent again"),
    DatabaseError: (503, "the records cannot be reached just now; what you typed is kept here and sent again"),
}

RESPONSES: dict[int | str, dict[str, Any]] = {
    401: {"description": "Nobody is signed in"},
    403: {"description": "Not for this role"},
    404: {"description": "Not in the house"},
    409: {"description": "Not as things stand"},
    405: {"description": "Not by this method"},
    408: {"description": "It took too long to arrive"},
    413: {"description": "Too large"},
    415: {"description": "Not JSON"},
    422: {"description": "Refused, with loc and msg for each field"},
    429: {"description": "Too many wrong guesses"},
    500: {"description": "Failed; the answer names the request for the application's log"},
    503: {"description": "The records cannot be reached, or are busy"},
    507: {"description": "The disk is full"},
}
