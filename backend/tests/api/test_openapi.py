"""The OpenAPI file and the client generated from it are those of this code."""

from __future__ import annotations

import json
import shutil
import subprocess
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


def test_generated_client_is_up_to_date(root: Path, tmp_path: Path) -> None:
    """Generating from the kept file gives the kept client, byte for byte."""
    frontend = root / "frontend"
    generator = frontend / "node_modules" / ".bin" / "openapi-typescript"
    assert shutil.which("node"), "Node.js is not on the path: run the suite with ./fidicula test"
    fresh = tmp_path / "schema.d.ts"
    subprocess.run(
        [generator, "src/api/openapi.json", "--output", fresh], cwd=frontend, check=True, capture_output=True
    )
    assert fresh.read_text() == (frontend / "src" / "api" / "schema.d.ts").read_text(), AGAIN
