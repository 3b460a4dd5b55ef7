"""Whatever is sent to any route of the OpenAPI file: an answer or a refusal in our form, never a failure."""

from __future__ import annotations

from typing import Any

import schemathesis
from fidicula.hosting.serving import serving
from hypothesis import HealthCheck, Phase, given, settings
from schemathesis.core.result import Ok

from ..conftest import signed_in

PATIENCE_S = 60
EXAMPLES_A_ROUTE = 5
"""`./fidicula bench hostile` sends many more."""


def test_no_input_makes_the_server_fail(app: Any) -> None:
    """Generated paths and bodies, valid and not, sent over HTTP to every route by someone who may do all."""
    tried = set()
    with serving(app) as address:
        schema = schemathesis.openapi.from_url(f"{address}/api/openapi.json", timeout=PATIENCE_S)
        for found in schema.get_all_operations():
            assert isinstance(found, Ok)
            operation = found.ok()
            tried.add(operation.path)
            send_anything(operation, signed_in(app, "Ilse Varnholt"))
    assert "/api/instruments/{ticket}/readings" in tried
    assert "/api/compute/bridge" in tried


def send_anything(operation: Any, headers: dict[str, str]) -> None:
    documented = {str(status) for status in operation.definition.raw["responses"]}

    @settings(
        max_examples=EXAMPLES_A_ROUTE,
        deadline=None,
        phases=[Phase.generate],
        database=None,
        suppress_health_check=list(HealthCheck),
    )
    @given(case=operation.as_strategy())
    def send(case: schemathesis.Case[Any]) -> None:
        answer = case.call(headers=headers, timeout=PATIENCE_S)
        assert str(answer.status_code) in documented, f"{case.method} {case.path}: {answer.status_code} {answer.text}"
        assert answer.status_code < 500, f"{case.method} {case.path}: {answer.status_code} {answer.text}"
        if answer.status_code == 422:
            for item in answer.json()["detail"]:
                assert {"loc", "msg"} <= item.keys()

    send()
