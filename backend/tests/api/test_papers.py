"""Papers, read back by another library: their words, their figures, their typeface, their pages; over HTTP."""

from __future__ import annotations

import io
import re
from collections.abc import Iterable, Iterator
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient
from fidicula.documents.paper.code import QUIET_ZONE, qr_strokes
from fidicula.words.numbers import day_and_year
from pdfminer.high_level import extract_pages, extract_text
from pdfminer.layout import LTChar
from pdfminer.pdfdocument import PDFDocument
from pdfminer.pdfparser import PDFParser

from ..looked_over import check, lines, undated
from .people import signed
from .test_bench import Bench
from .test_house import arrival

HERE = Path(__file__).parent / "looked_over"
KEPT = ("setup", "compared", "owner")
"""Kept line by line with their sketches; the others hold an address and its code."""
KINDS = ("setup", "compared", "owner", "ticket", "label")


def paper(client: TestClient, ticket: str, kind: str) -> dict[str, Any]:
    answer = client.get(f"/api/instruments/{ticket}/papers/{kind}")
    assert answer.status_code == 200, answer.text
    return dict(answer.json())


def pdf(client: TestClient, ticket: str, kind: str, **headers: str) -> bytes:
    answer = client.get(f"/api/instruments/{ticket}/papers/{kind}/pdf", headers=headers)
    assert answer.status_code == 200, answer.text
    assert answer.headers["content-type"] == "application/pdf"
    return answer.content


def text_of(data: bytes) -> str:
    return re.sub(r"\s+", " ", extract_text(io.BytesIO(data)))


def _letters(item: Any) -> Iterator[LTChar]:
    if isinstance(item, LTChar):
        yield item
    elif isinstance(item, Iterable):
        for one in item:
            yield from _letters(one)


def words_of(told: dict[str, Any]) -> list[str]:
    """Every word that the screen shows of a paper."""
    found = [told["title"], *told["subject"]]
    for block in told["blocks"]:
        match block["kind"]:
            case "heading" | "text":
                found.append(block["words"])
            case "points":
                found += block["lines"]
            case "grid":
                found += [*block["head"], *(cell for row in block["rows"] for cell in row)]
            case "sketch":
                found += [block["caption"], *(mark["words"] for mark in block["marks"])]
            case "sign":
                found.append(block["label"])
    return [one for one in found if one]


IN_WORDS = ("RW-087", "RW-110")
"""A signed cello and a plan: their papers are kept in words."""


def in_short(told: dict[str, Any]) -> Iterator[str]:
    """A paper's lines, as they are read."""
    yield told["title"]
    for block in told["blocks"]:
        match block["kind"]:
            case "heading":
                yield f"# {block['words']}"
            case "text":
                yield block["words"]
            case "points":
                yield from block["lines"]
            case "grid":
                yield from (" | ".join(row) for row in (block["head"], *block["rows"]))
            case "sketch":
                yield block["caption"]


@pytest.mark.parametrize("kind", KINDS)
@pytest.mark.parametrize("ticket", ["RW-101", "RW-102", "RW-087", "RW-105", "RW-108", "RW-110"])
def test_what_the_screen_shows_is_what_is_printed(client: TestClient, ticket: str, kind: str) -> None:
    """Word for word: nothing read, a left-handed violin, a signed cello, five strings, a bass, a plan."""
    told, data = paper(client, ticket, kind), pdf(client, ticket, kind)
    if kind in KEPT:
        kept = [undated(line) for line in lines(told, "PAPER", now=datetime.now(UTC))]
        shown = (undated(line) for line in in_short(told)) if ticket in IN_WORDS else ()
        check(HERE / f"{ticket}_{kind}.txt", "\n".join(kept) + "\n", shown=shown)
    printed = text_of(data).replace(" ", "")
    missing = [words for words in words_of(told) if re.sub(r"\s+", "", words) not in printed]
    assert not missing
    document = PDFDocument(PDFParser(io.BytesIO(data)))
    assert document.catalog["Lang"] == b"en-GB"
    assert document.info[0]["Title"].decode("latin-1").strip("\ufeff")


def test_the_typeface_is_in_the_file_and_the_page_has_its_size(client: TestClient) -> None:
    data = pdf(client, "RW-102", "setup")
    assert b"/FontFile2" in data
    letters = {one.fontname for page in extract_pages(io.BytesIO(data)) for one in _letters(page)}
    assert letters
    assert all("PublicSans" in name for name in letters), letters


@pytest.mark.parametrize(("kind", "size"), [("ticket", [90, 60]), ("label", [90, 36])])
def test_what_is_stuck_on_is_one_piece(client: TestClient, kind: str, size: list[int]) -> None:
    """A violin that is measured through, and one whose set has as long a name as there may be."""
    own = {"name": "Harbour " * 10, "material": "gut", "diameters": ["0.9", "0.8", "0.7", "0.3"]}
    client.post("/api/instruments/RW-101/strings", json={"id": str(uuid4()), "own": own})
    for ticket in ("RW-102", "RW-105", "RW-101"):
        (piece,) = list(extract_pages(io.BytesIO(pdf(client, ticket, kind))))
        assert [round(edge / 72 * 25.4) for edge in piece.bbox[2:]] == size


def test_a_label_says_the_day_of_what_was_done_and_not_that_of_its_printing(client: TestClient) -> None:
    """Of an instrument that was only read it says so; of one that nobody touched it says no day."""
    client.post("/api/instruments", json=arrival(ticket="RW-301"))
    assert not re.search("set up|measured", text_of(pdf(client, "RW-301", "label")))
    Bench(client, "RW-301").take("projection", None, "27")
    assert "measured 23 November 2026" in text_of(pdf(client, "RW-301", "label"))
    done_on = datetime.now(UTC) - timedelta(days=3)
    work = {"id": str(uuid4()), "work": "pegs_fitted"}
    client.post("/api/instruments/RW-301/works", json=work, headers={"X-Fidicula-At": done_on.isoformat()})
    assert f"set up {day_and_year(done_on.astimezone().date())}" in text_of(pdf(client, "RW-301", "label"))


def test_figures_follow_the_format_of_the_reader(client: TestClient) -> None:
    """Words stay; a German reader's decimals have a comma; one whose language is unknown has a point."""
    assert "27,2 mm" in text_of(pdf(client, "RW-102", "setup", **{"accept-language": "de-DE,de;q=0.9,en;q=0.5"}))
    assert "27.2 mm" in text_of(pdf(client, "RW-102", "setup", **{"accept-language": "xx-not-a-language"}))
    assert "27.2 mm" in text_of(pdf(client, "RW-102", "setup"))


def test_a_set_up_sheet_says_what_was_read_wanted_done_checked_and_by_whom(client: TestClient) -> None:
    bench = Bench(client, "RW-102")
    bench.take("end_height", 0, "5.9")
    client.post("/api/instruments/RW-102/works", json={"id": str(uuid4()), "work": "pegs_fitted"})
    checks = {"id": str(uuid4()), "points": ["cracks"], "verdict": "right"}
    client.post("/api/instruments/RW-102/checks", json=checks)
    assert "not signed yet" in text_of(pdf(client, "RW-102", "setup"))
    seal = client.post("/api/instruments/RW-102/hand-over", json=signed(received_by="Pia")).json()["seal"]
    told = text_of(pdf(client, "RW-102", "setup"))
    for part in ("5.90", "4.5–5.5", "the pegs were fitted", "Ilse Varnholt", seal["short"], "Taken by Pia"):
        assert part in told, part
    blocks = paper(client, "RW-102", "setup")["blocks"]
    ticked = next(block for block in blocks if block["kind"] == "points" and block["ticked"])
    assert sum(ticked["ticked"]) == 1


def test_before_and_after_has_what_was_read_twice(client: TestClient) -> None:
    """The projection of now beside that of the last visit, with the way between; a cut beside what it came with."""
    told = text_of(pdf(client, "RW-087", "compared"))
    assert "Projection 79.6 mm 80.0 mm +0.4" in told or all(one in told for one in ("79.6 mm", "80.0 mm", "+0.4"))
    assert "Nothing that was read has changed" in text_of(pdf(client, "RW-101", "compared"))


def test_the_owners_page_is_in_plain_words(client: TestClient) -> None:
    told = text_of(pdf(client, "RW-087", "owner"))
    for part in (
        "What we did",
        "stands 7.4 mm over the board",
        "Left as it was",
        "wants it so.",
        "Next check",
        "half a year after",
    ):
        assert part in told, part
    assert ".." not in told
    assert "a note in the box" in told
    assert "Turn both wheels" not in told


def test_a_paper_that_there_is_not_is_refused(client: TestClient) -> None:
    assert client.get("/api/instruments/RW-102/papers/poem").status_code == 422
    assert client.get("/api/instruments/RW-999/papers/setup").status_code == 404


@pytest.mark.parametrize(
    ("reached_at", "led_to"),
    [("", "RW-102"), ("https://bench.lan:8556", "https://bench.lan:8556/bench/RW-102")],
)
def test_the_code_on_a_ticket_never_leads_to_the_telephone_itself(
    app: Any, client: TestClient, reached_at: str, led_to: str
) -> None:
    """Asked for at this machine's own name: the code holds the workshop's address, or the ticket alone."""
    app.state.services = replace(app.state.services, reached_at=reached_at)
    code = next(block for block in paper(client, "RW-102", "ticket")["blocks"] if block["kind"] == "sketch")
    assert code["width"] == qr_strokes(led_to)[0]
    assert len(code["strokes"]) == len(qr_strokes(led_to)[1])


def test_a_code_holds_its_address_field_by_field() -> None:
    """The three corners that a telephone looks for stand where they belong, in a quiet zone."""
    count, strokes = qr_strokes("http://127.0.0.1:8477/bench/RW-102")
    dark = {
        (x, int(stroke.points[0][1]))
        for stroke in strokes
        for x in range(int(stroke.points[0][0]), int(stroke.points[1][0]))
    }
    last = count - 1
    assert all((x, y) not in dark for x in range(count) for y in (*range(QUIET_ZONE), *range(last - 3, last + 1)))
    for left, low in (
        (QUIET_ZONE, QUIET_ZONE),
        (QUIET_ZONE, count - QUIET_ZONE - 7),
        (count - QUIET_ZONE - 7, count - QUIET_ZONE - 7),
    ):
        ring = {(left + i, low + j) for i in range(7) for j in range(7) if i in (0, 6) or j in (0, 6)}
        assert ring <= dark
        assert {(left + i, low + j) for i in (2, 3, 4) for j in (2, 3, 4)} <= dark
    assert not {(count - QUIET_ZONE - 7 + i, QUIET_ZONE + 3) for i in range(7)} <= dark
