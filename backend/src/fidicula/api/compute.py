"""POST /api/compute/{kind}: stateless, the same answers and refusals as `./fidicula compute`."""

from __future__ import annotations

import json
from collections.abc import Awaitable, Callable
from typing import Any

from fastapi import APIRouter, Request, Response
from fastapi.responses import JSONResponse

from fidicula.contract.kinds import KINDS, Kind, parse
from fidicula.contract.refusals import malformed

router = APIRouter(prefix="/api/compute", tags=["compute"])

LARGEST_BODY = 1_000_000

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
        body = bytearray()
        async for chunk in request.stream():
            body += chunk
            if len(body) > LARGEST_BODY:
                raise malformed(f"the input is over {LARGEST_BODY:,} bytes")
        return JSONResponse(kind.answer_to(parse(bytes(body))))

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
        responses={422: REFUSAL_SCHEMA},
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
