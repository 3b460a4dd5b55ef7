"""POST /api/compute/{kind}: stateless, the same answers and refusals as `./fidicula compute`."""

from __future__ import annotations

import json
from collections.abc import Awaitable, Callable
from typing import Any

from fastapi import APIRouter, Request, Response
from fastapi.concurrency import run_in_threadpool
from fastapi.responses import JSONResponse

from fidicula.api.errors import RESPONSES
from fidicula.contract.kinds import KINDS, Kind, answer_of
from fidicula.contract.refusals import Refusal, RefusalItem
from fidicula.domain.errors import BusyError
from fidicula.hosting.worker import Worker, WorkerBusyError, WorkerLimitError

router = APIRouter(prefix="/api/compute", tags=["compute"])

QUICK_BODY = 16_000
"""What is longer may take long too. [bytes]"""
_HEAVY = frozenset({"schedule"})
"""These may take long whatever their length."""

_worker = Worker(memory=900_000_000, seconds=8, waiting=16)

_TOO_LONG = "this takes too long, or too much memory, to be computed here: ask for less at once"

REFUSAL_SCHEMA: dict[str, Any] = {
    "description": "Refused, with loc and msg for each field",
    "content": {
        "application/json": {
            "schema": {
                "type": "object",
                "required": ["detail"],
                "properties": {
                    "detail": {
                        "type": "array",
                        "items": {
                            "type": "object",
                            "required": ["loc", "msg", "type"],
                            "properties": {
                                "loc": {
                                    "type": "array",
                                    "items": {"anyOf": [{"type": "string"}, {"type": "integer"}]},
                                },
                                "msg": {"type": "string"},
                                "type": {"type": "string"},
                            },
                        },
                    }
                },
            }
        }
    },
}


def _endpoint(kind: Kind[Any, Any]) -> Callable[[Request], Awaitable[Response]]:
    async def compute(request: Request) -> Response:
        # The body is read here and not by FastAPI, so that one parser serves HTTP and the command line.
        body = await request.body()
        if kind.name not in _HEAVY and len(body) <= QUICK_BODY:
            return JSONResponse(answer_of(body, kind.name))
        try:
            return JSONResponse(await run_in_threadpool(_worker.run, answer_of, body, kind.name))
        except WorkerBusyError as error:
            raise BusyError("other computations are running: ask again in a moment") from error
        except WorkerLimitError as error:
            raise Refusal([RefusalItem(loc=["body"], msg=_TOO_LONG, type="too_long")]) from error

    compute.__name__ = f"compute_{kind.name}"
    compute.__doc__ = kind.summary
    return compute


for _kind in KINDS.values():
    router.add_api_route(
        f"/{_kind.name}",
        _endpoint(_kind),
        methods=["POST"],
        response_model=_kind.answer,
        response_model_exclude_none=True,
        responses={**RESPONSES, 422: REFUSAL_SCHEMA},
        openapi_extra={
            "requestBody": {
                "required": True,
                "content": {"application/json": {"schema": {"$ref": f"#/components/schemas/{_kind.request.__name__}"}}},
            }
        },
    )


@router.post("/{kind}", include_in_schema=False)
def unknown_kind(kind: str) -> Response:
    """A kind that there is not."""
    known = ", ".join(KINDS)
    shown = json.dumps(kind[:40])
    return JSONResponse(
        {
            "detail": [
                {
                    "loc": ["path", "kind"],
                    "msg": f"there is no computation {shown}; there are {known}",
                    "type": "unknown_kind",
                }
            ]
        },
        404,
    )


def add_request_schemas(openapi: dict[str, Any]) -> None:
    """Put the request models, which the endpoints read by themselves, into an OpenAPI document."""
    schemas = openapi.setdefault("components", {}).setdefault("schemas", {})
    for kind in KINDS.values():
        schema = kind.request.model_json_schema(ref_template="#/components/schemas/{model}")
        schemas.update(schema.pop("$defs", {}))
        schemas[kind.request.__name__] = schema
