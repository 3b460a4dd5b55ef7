"""A house goes out as an archive and comes back equal; what is no such archive is refused with nothing taken in."""

from __future__ import annotations

import io
import json
import zipfile
from collections.abc import Callable
from pathlib import Path
from typing import Any
from uuid import UUID, uuid4

import pytest
from fidicula.db.unit_of_work import UnitOfWork
from fidicula.documents.dossier.archive import INSTRUMENTS, MANIFEST, SCHEMAS, SHOP, schema_text
from fidicula.documents.dossier.instrument import FORMAT
from fidicula.documents.pictures import kept_picture
from fidicula.domain.errors import RefusedError
from fidicula.services.archives.exporting import export_house, export_instrument
from fidicula.services.archives.importing import look_at, take_in
from fidicula.services.shop.billing.bills import Bills, Paying
from fidicula.services.shop.pricing.approving import Approving
from fidicula.services.shop.pricing.plan import Plans
from fidicula.services.visits.handover.handing import HandingOver
from fidicula.services.visits.photos import Photos
from PIL import Image
from sqlalchemy import Engine, text

from ...scenes import moment_of_words

TICKET = "RW-102"


def parts(data: bytes) -> dict[str, bytes]:
    with zipfile.ZipFile(io.BytesIO(data)) as archive:
        return {name: archive.read(name) for name in archive.namelist()}


def house(engine: Engine) -> bytes:
    to = io.BytesIO()
    steps: list[tuple[int, int]] = []
    count = export_house(engine, to, lambda *step: steps.append(step))
    assert steps[-1] == (count, count)
    return to.getvalue()


def one(engine: Engine, ticket: str = TICKET) -> bytes:
    to = io.BytesIO()
    export_instrument(engine, ticket, to, {"set-up sheet": b"%PDF"})
    return to.getvalue()


def photographed(engine: Engine) -> None:
    picture = io.BytesIO()
    Image.new("RGB", (640, 480), "#776655").save(picture, "JPEG")
    kept = kept_picture(picture.getvalue())
    assert kept.width == 640
    data = picture.getvalue()
    Photos(engine, None).add(TICKET, data=data, photo_id=uuid4(), item="bridge", words="before", by="Ilse")


def billed(engine: Engine) -> None:
    """RW-110's new nut is done and billed, taken back, billed again and partly paid; the next number is the third."""
    plans, bills = Plans(engine), Bills(engine)
    ticket, by = "RW-110", "Ilse"
    total = plans.view(ticket).total
    plans.approve(ticket, Approving("Wren", "phone", total), approval_id=uuid4(), by=by)
    for line in plans.view(ticket).lines:
        plans.finish(ticket, UUID(line.id), minutes="90", work_id=uuid4(), by=by)
    for _ in range(2):
        first = bills.issue(ticket, "invoice", total=bills.view(ticket).total, document_id=uuid4(), by=by).documents[0]
        if _ == 0:
            bills.cancel(ticket, UUID(first.id), reason="a slip", document_id=uuid4(), by=by)
    bills.pay(ticket, Paying("5", "cash", "2026-11-23"), payment_id=uuid4(), by=by)


@pytest.fixture
def file(tmp_path: Path) -> Callable[[bytes], Path]:
    def write(data: bytes) -> Path:
        path = tmp_path / f"{uuid4()}.zip"
        path.write_bytes(data)
        return path

    return write


@pytest.fixture
def another(fresh: Callable[[str], Engine]) -> Engine:
    return fresh("template_empty")


def test_a_whole_house_comes_back_equal(demo: Engine, another: Engine, file: Callable[[bytes], Path]) -> None:
    """Every line of every instrument, the shop's own figures and recipes, photographs and recordings; seals hold."""
    photographed(demo)
    billed(demo)
    before = house(demo)
    view = look_at(another, file(before))
    assert (view.instruments, view.takes_shop, view.clashes) == (16, True, [])
    steps: list[tuple[int, int]] = []
    found = take_in(another, file(before), {}, by="Ilse", progress=lambda *step: steps.append(step))
    assert (found.instruments, found.readings, steps[-1]) == (16, view.readings, (16, 16))
    went, came = parts(before), parts(house(another))
    assert went.keys() == came.keys()
    audit = {"audit"}
    for line, other in zip(went[INSTRUMENTS].splitlines(), came[INSTRUMENTS].splitlines(), strict=True):
        there, here = json.loads(line), json.loads(other)
        assert {k: v for k, v in there.items() if k not in audit} == {k: v for k, v in here.items() if k not in audit}
        assert there["audit"] == here["audit"][: len(there["audit"])]
    assert went[SHOP] == came[SHOP]
    assert all(went[name] == came[name] for name in went if name.startswith(("photographs/", "recordings/")))
    verdicts = {seal.verdict for seal in HandingOver(another).seals("RW-087")}
    assert verdicts == {"intact"}
    bills = Bills(another)
    invoice = bills.view("RW-110").documents[0]
    assert bills.pdf("RW-110", UUID(invoice.id)) == Bills(demo).pdf("RW-110", UUID(invoice.id))
    bills.cancel("RW-110", UUID(invoice.id), reason="a slip", document_id=uuid4(), by="Ilse")
    again = bills.issue("RW-110", "invoice", total=bills.view("RW-110").total, document_id=uuid4(), by="Ilse")
    year = again.today.year
    assert [one.code for one in again.documents[:2]] == [f"I-{year}-0003", f"C-{year}-0002"]


def test_the_sheet_says_the_same_after_the_way(demo: Engine, another: Engine, file: Callable[[bytes], Path]) -> None:
    take_in(another, file(house(demo)), {}, by="Ilse")
    for ticket in (TICKET, "RW-106", "RW-108"):
        assert moment_of_words(another, ticket) == moment_of_words(demo, ticket)


def test_one_instrument_goes_with_its_readings_papers_and_schemas(demo: Engine) -> None:
    found = parts(one(demo))
    rows = found["readings.csv"].decode().splitlines()
    assert rows[0].startswith("ticket,visit,measure,position,typed,value,tool")
    assert any(row.startswith("RW-102,") and ",end_height,0," in row for row in rows)
    assert found["papers/set-up sheet.pdf"] == b"%PDF"
    dossier = json.loads(found[INSTRUMENTS])
    assert dossier["instrument"]["ticket"] == TICKET
    assert json.loads(found["dossier.schema.json"])["title"] == "Dossier"


def test_the_published_schemas_are_those_of_the_program(root: Path) -> None:
    """docs/formats holds them; a line of an archive is valid by them."""
    for name, model in SCHEMAS.items():
        assert (root / "docs" / "formats" / name).read_text(encoding="utf-8") == schema_text(model), name


def changed(data: bytes, **changes: Any) -> bytes:
    """The archive with parts changed: bytes in the place of a part, or what is done to it."""
    there = parts(data)
    to = io.BytesIO()
    with zipfile.ZipFile(to, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, content in there.items():
            change = changes.pop(name, content)
            archive.writestr(name, change(content) if callable(change) else change)
        for name, content in changes.items():
            archive.writestr(name, content)
    return to.getvalue()


def line_with(**changes: Any) -> Callable[[bytes], bytes]:
    def change(content: bytes) -> bytes:
        dossier = json.loads(content)
        dossier["instrument"].update(changes)
        return json.dumps(dossier).encode() + b"\n"

    return change


def reading_with(**changes: Any) -> Callable[[bytes], bytes]:
    def change(content: bytes) -> bytes:
        dossier = json.loads(content)
        next(v for v in dossier["visits"] if v["record"]["readings"])["record"]["readings"][0].update(changes)
        return json.dumps(dossier).encode() + b"\n"

    return change


SOME_ID, AT = "3f1d5b9e-0c11-4c7b-9a51-0d5b3c2a1f00", "2026-11-20T10:00:00Z"
TIME = {"id": SOME_ID, "line_id": SOME_ID, "begun_by": "Ilse", "begun_at": AT, "ended_at": None}
BLIND = {
    "id": SOME_ID, "player": "Pia", "first_id": SOME_ID, "second_id": SOME_ID, "chosen": None, "led_by": "Ilse",
    "begun_at": AT, "chosen_at": None,
}  # fmt: skip
HAND = {"person": "Ilse", "tool": "caliper", "squares": 0.1, "free": 3}


def with_lines(name: str, *lines: dict[str, Any]) -> Callable[[bytes], bytes]:
    """Lines are added to a list of the first visit, or of its record."""

    def change(content: bytes) -> bytes:
        dossier = json.loads(content)
        visit = dossier["visits"][0]
        (visit["record"] if name in visit["record"] else visit)[name].extend(lines)
        return json.dumps(dossier).encode() + b"\n"

    return change


def newer(content: bytes) -> bytes:
    return json.dumps({**json.loads(content), "version": FORMAT + 1}).encode()


def linked(data: bytes) -> bytes:
    to = io.BytesIO(data)
    with zipfile.ZipFile(to, "a") as archive:
        link = zipfile.ZipInfo("photographs/link.jpg")
        link.external_attr = 0o120777 << 16
        archive.writestr(link, "/etc/passwd")
    return to.getvalue()


BAD: list[tuple[str, Callable[[bytes], bytes], str]] = [
    ("half a file", lambda data: data[: len(data) // 2], "no whole archive"),
    ("not an archive", lambda _: b"ticket,measure\r\n", "no whole archive"),
    ("nothing", lambda _: b"", "no whole archive"),
    ("a foreign archive", lambda _: changed(one_part()), "archive of something else"),
    ("a newer version", lambda data: changed(data, **{MANIFEST: newer}), "update it first"),
    ("a path that climbs out", lambda data: changed(data, **{"../../evil.txt": b"x"}), "leads out of the archive"),
    ("an absolute path", lambda data: changed(data, **{"/etc/evil": b"x"}), "leads out of the archive"),
    ("a link", linked, "no plain file"),
    ("a bomb", lambda data: changed(data, **{"photographs/x.jpg": b"\0" * 30_000_000}), "far more than it seems"),
    (
        "a value that is none",
        lambda data: changed(data, **{INSTRUMENTS: reading_with(value="five")}),
        "readings.0.value",
    ),
    ("a field that is unknown", lambda data: changed(data, **{INSTRUMENTS: line_with(colour="red")}), "colour"),
    ("a ticket that is none", lambda data: changed(data, **{INSTRUMENTS: line_with(ticket="a b/c")}), "ticket"),
    ("an unknown measure", lambda data: changed(data, **{INSTRUMENTS: reading_with(measure="weight")}), "weight"),
    ("fewer than it says", lambda data: changed(data, **{INSTRUMENTS: b""}), "may be cut short"),
    ("the same twice", lambda data: changed(data, **{INSTRUMENTS: lambda c: c + c}), "twice"),
    (
        "a part of no planned work",
        lambda data: changed(data, **{INSTRUMENTS: with_lines("plan_times", TIME)}),
        "line_id",
    ),
    (
        "a comparison of nothing",
        lambda data: changed(data, **{INSTRUMENTS: with_lines("blind_comparisons", BLIND)}),
        "first",
    ),
    (
        "a hand twice",
        lambda data: changed(data, **{INSTRUMENTS: with_lines("hands", HAND, HAND)}),
        "one line for each tool",
    ),
    ("no readable line", lambda data: changed(data, **{INSTRUMENTS: b"{\n"}), "line 1"),
]


def one_part() -> bytes:
    to = io.BytesIO()
    with zipfile.ZipFile(to, "w") as archive:
        archive.writestr("letter.txt", "dear all")
    return to.getvalue()


@pytest.mark.parametrize(("what", "spoil", "says"), BAD, ids=[what for what, _, _ in BAD])
def test_what_is_no_sound_archive_is_refused_with_its_place(
    demo: Engine, another: Engine, file: Callable[[bytes], Path], what: str, spoil: Callable[[bytes], bytes], says: str
) -> None:
    path = file(spoil(one(demo)))
    with pytest.raises(RefusedError, match=says) as refused:
        look_at(another, path)
    assert refused.value.field == "file", what


def test_a_line_that_is_here_already_takes_nothing_in(
    demo: Engine, another: Engine, file: Callable[[bytes], Path]
) -> None:
    """Another instrument by its id and ticket, with the readings of one that is here."""
    data = one(demo)
    take_in(another, file(data), {}, by="Ilse")
    stranger = changed(data, **{INSTRUMENTS: line_with(ticket="X-1", id=SOME_ID)})
    with pytest.raises(RefusedError, match=r"line 1: the records do not take it: .*is here already") as refused:
        take_in(another, file(stranger), {}, by="Ilse")
    assert refused.value.field == "file"
    with another.connect() as connection:
        assert connection.execute(text("SELECT count(*) FROM instrument")).scalar() == 1


def test_a_photograph_that_is_not_what_the_record_says_takes_nothing_in(
    demo: Engine, another: Engine, file: Callable[[bytes], Path]
) -> None:
    photographed(demo)
    data = one(demo)
    name = next(name for name in parts(data) if name.startswith("photographs/"))
    other = io.BytesIO()
    Image.new("RGB", (64, 48), "#112233").save(other, "JPEG")
    with pytest.raises(RefusedError, match="not what the record says"):
        take_in(another, file(changed(data, **{name: other.getvalue()})), {}, by="Ilse")
    with another.connect() as connection:
        assert connection.execute(text("SELECT count(*) FROM instrument")).scalar() == 0
        assert connection.execute(text("SELECT count(*) FROM reading")).scalar() == 0


def test_a_ticket_that_is_taken_is_asked_about(demo: Engine, file: Callable[[bytes], Path]) -> None:
    """Same: its missing visits come; other: it gets a ticket of its own; skip: it stays out."""
    path = file(one(demo, "RW-087"))
    (clash,) = look_at(demo, path).clashes
    assert (clash.ticket, clash.is_same, clash.adds) == ("RW-087", True, 0)
    with pytest.raises(RefusedError, match="RW-087 is taken here"):
        take_in(demo, path, {}, by="Ilse")
    with pytest.raises(RefusedError, match="this very instrument"):
        take_in(demo, path, {"RW-087": "other"}, by="Ilse")
    assert take_in(demo, path, {"RW-087": "skip"}, by="Ilse").skipped == 1
    assert take_in(demo, path, {"RW-087": "same"}, by="Ilse").visits == 0
    with UnitOfWork(demo) as uow:
        found = uow.instruments.by_ticket("RW-087")
        assert found is not None
        earliest = uow.visits.of(found[0].id)[-1]
    other_house = changed(one(demo, "RW-087"), **{INSTRUMENTS: line_with(id=str(uuid4()))})
    fresh_ids = json.loads(parts(other_house)[INSTRUMENTS])
    assert fresh_ids["visits"][0]["record"]["visit"]["id"] == str(earliest.id)


def test_an_other_instrument_of_the_same_ticket_gets_its_own(
    demo: Engine, another: Engine, file: Callable[[bytes], Path]
) -> None:
    """Its seals hold under the new ticket; where both are called the same, its visits join what is there."""
    path = file(one(demo, "RW-087"))
    with another.begin() as connection:
        connection.execute(
            text(
                "INSERT INTO instrument (id, ticket, family, size, string_names) "
                "VALUES (gen_random_uuid(), 'RW-087', 'cello', '4/4', '{C,G,D,A}')"
            )
        )
        connection.execute(
            text(
                "INSERT INTO visit (id, instrument_id, kind, closed_at) "
                "SELECT gen_random_uuid(), id, 'recheck', now() FROM instrument"
            )
        )
    found = take_in(another, path, {"": "other"}, by="Ilse")
    (new,) = found.renamed.values()
    assert new != "RW-087"
    assert {seal.verdict for seal in HandingOver(another).seals(new)} == {"intact"}


def test_visits_join_an_instrument_of_the_same_ticket(
    demo: Engine, another: Engine, file: Callable[[bytes], Path]
) -> None:
    path = file(one(demo, "RW-087"))
    with another.begin() as connection:
        for statement in (
            "INSERT INTO instrument (id, ticket, family, size, string_names) "
            "VALUES (gen_random_uuid(), 'RW-087', 'cello', '4/4', '{C,G,D,A}')",
            "INSERT INTO visit (id, instrument_id, kind, closed_at, opened_at) "
            "SELECT gen_random_uuid(), id, 'recheck', now(), now() - interval '9 years' FROM instrument",
        ):
            connection.execute(text(statement))
    found = take_in(another, path, {"": "same"}, by="Ilse")
    assert (found.instruments, found.visits, found.renamed) == (1, 5, {})
    with UnitOfWork(another) as uow:
        there = uow.instruments.by_ticket("RW-087")
        assert there is not None
        assert len(uow.visits.of(there[0].id)) == 6
