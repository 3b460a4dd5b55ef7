"""Templates at true size, read back from each kind of file; what is mirrored, and what nothing is cut by."""

from __future__ import annotations

import io
import tempfile
from pathlib import Path
from typing import Any, cast
from uuid import uuid4
from xml.etree import ElementTree

import pytest
from ezdxf.entities.lwpolyline import LWPolyline
from ezdxf.filemanagement import readfile
from fastapi.testclient import TestClient
from pdfminer.high_level import extract_pages, extract_text
from pdfminer.layout import LTLine

from .test_bench import Bench

MM_PER_POINT = 25.4 / 72
SVG = "{http://www.w3.org/2000/svg}"


def file(client: TestClient, ticket: str, kind: str, form: str, status: int = 200) -> bytes:
    answer = client.get(f"/api/instruments/{ticket}/templates/{kind}/{form}")
    assert answer.status_code == status, answer.text
    return bytes(answer.content)


def measured(client: TestClient, **more: str) -> Bench:
    bench = Bench(client)
    bench.name_strings()
    bench.take_all()
    bench.take("bridge_spread", None, more.get("bridge_spread", "33.5"))
    return bench


def points_of(line: ElementTree.Element) -> list[tuple[float, float]]:
    pairs = (pair.split(",") for pair in line.attrib["points"].split())
    return [(float(x), float(y)) for x, y in pairs]


def upright_lines(form: str, content: bytes) -> list[tuple[float, float]]:
    """Place across and length of each upright line, from the left. [mm]"""
    found: list[tuple[float, float]] = []
    if form == "pdf":
        shapes = next(iter(extract_pages(io.BytesIO(content))))
        upright = [s for s in shapes if isinstance(s, LTLine) and abs(s.x0 - s.x1) < 1e-3]
        found += [(s.x0 * MM_PER_POINT, abs(s.y1 - s.y0) * MM_PER_POINT) for s in upright]
    elif form == "svg":
        for line in ElementTree.fromstring(content).iter(f"{SVG}polyline"):
            points = points_of(line)
            if len(points) == 2 and points[0][0] == points[1][0]:
                found.append((points[0][0], abs(points[0][1] - points[1][1])))
    else:
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "template.dxf"
            path.write_bytes(content)
            for drawn in readfile(path).modelspace().query("LWPOLYLINE"):
                points = [(x, y) for x, y, *_ in cast(LWPolyline, drawn).get_points()]
                if len(points) == 2 and points[0][0] == points[1][0]:
                    found.append((points[0][0], abs(points[0][1] - points[1][1])))
    return sorted(found)


@pytest.mark.parametrize("form", ["pdf", "svg", "dxf"])
def test_a_spread_of_thirty_three_and_a_half_is_that_in_every_file(client: TestClient, form: str) -> None:
    measured(client)
    lines = upright_lines(form, file(client, "RW-101", "bridge_strip", form))
    marks = [x for x, long in lines if long == pytest.approx(6, abs=0.001)]
    assert len(marks) == 4
    assert marks[-1] - marks[0] == pytest.approx(33.5, abs=0.005)


def test_the_crown_lies_on_its_circle_and_the_old_one_over_it(client: TestClient) -> None:
    bench = measured(client)
    root = ElementTree.fromstring(file(client, "RW-101", "crown", "svg"))
    drawn = [(line.attrib["class"], points_of(line)) for line in root.iter(f"{SVG}polyline")]
    crown, old = (next(points for kind, points in drawn if kind == wanted) for wanted in ("cut", "old"))
    (y, z), radius = bench.sheet["drawing"]["crown_centre"], bench.sheet["drawing"]["crown_radius"]
    for x, up in crown:
        assert ((x - y) ** 2 + (-up - z) ** 2) ** 0.5 == pytest.approx(radius, abs=1e-3)
    highs = [-up for _, up in old]
    assert highs == pytest.approx([string["crown_now"] for string in bench.sheet["drawing"]["strings"]], abs=1e-3)
    said = extract_text(io.BytesIO(file(client, "RW-101", "crown", "pdf")))
    assert "RW-101" in said
    assert "This line is 100 mm long" in said


def test_the_check_line_of_a_printed_sheet_is_a_hundred_millimetres(client: TestClient) -> None:
    measured(client)
    page = next(iter(extract_pages(io.BytesIO(file(client, "RW-101", "crown", "pdf")))))
    level = [s for s in page if isinstance(s, LTLine) and abs(s.y0 - s.y1) < 1e-3]
    assert any(abs(s.x1 - s.x0) * MM_PER_POINT == pytest.approx(100, abs=0.005) for s in level)


def test_a_left_handed_violin_has_its_bass_side_to_the_right(client: TestClient) -> None:
    def bass_at(ticket: str) -> float:
        root = ElementTree.fromstring(file(client, ticket, "crown", "svg"))
        return next(float(text.attrib["x"]) for text in root.iter(f"{SVG}text") if text.text == "bass")

    measured(client)
    assert bass_at("RW-101") < 0 < bass_at("RW-102")


@pytest.mark.parametrize("kind", ["crown", "bridge_strip", "nut_strip", "nut_front", "wedge_gauge", "card_gauge"])
@pytest.mark.parametrize("ticket", ["RW-105", "RW-106", "RW-108"])
def test_every_template_goes_on_its_paper_for_every_family(client: TestClient, ticket: str, kind: str) -> None:
    for form in ("pdf", "svg", "dxf"):
        assert len(file(client, ticket, kind, form)) > 500


def test_nothing_is_cut_by_readings_that_do_not_hold(client: TestClient) -> None:
    bench = measured(client)
    bench.post("works", id=str(uuid4()), work="nut_filed")
    told: dict[str, Any] = client.get("/api/instruments/RW-101/templates/crown/pdf").json()
    assert "measure again" in told["detail"][0]["msg"]
    file(client, "RW-101", "crown", "pdf", status=409)
    file(client, "RW-101", "polish", "pdf", status=404)
    file(client, "RW-101", "crown", "doc", status=404)
    file(client, "RW-115", "crown", "pdf", status=409)
