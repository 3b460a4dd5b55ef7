"""The OpenAPI file, from which the front end's client is made, is that of this code."""

from __future__ import annotations

import json
from pathlib import Path

from fidicula.api.app import client_openapi, make_app
from fidicula.contract.kinds import KINDS

AGAIN = "it is out of date: run ./fidicula client"


def test_openapi_file_is_up_to_date(root: Path) -> None:
    kept = json.loads((root / "frontend" / "src" / "api" / "openapi.json").read_text())
    assert kept == json.loads(json.dumps(client_openapi())), AGAIN


def test_the_whole_document_describes_every_computation() -> None:
    """Each kind's route has the schema of its input and its answer, and every reference leads somewhere."""
    document = make_app().openapi()
    schemas = document["components"]["schemas"]
    for kind in KINDS.values():
        route = document["paths"][f"/api/compute/{kind.name}"]["post"]
        body = route["requestBody"]["content"]["application/json"]["schema"]["$ref"]
        assert body.rsplit("/", 1)[1] in schemas
        assert "200" in route["responses"]
    text = json.dumps(document)
    references = {part.split('"')[0] for part in text.split("#/components/schemas/")[1:]}
    assert references <= set(schemas)
