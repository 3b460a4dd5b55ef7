"""Archives and tables of readings over HTTP: begun, followed, fetched, brought, chosen, refused."""

from __future__ import annotations

import io
import time
import zipfile
from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient
from fidicula.cli.demo import demo_sign_ins
from sqlalchemy import Engine, text

from .people import ILSE
from .test_bench import Bench

PASSWORD = {name: password for name, _, password, _ in demo_sign_ins()}[ILSE]


def confirmed(client: TestClient) -> TestClient:
    assert client.post("/api/session/confirm", json={"password": PASSWORD}).status_code < 300
    return client


def followed(client: TestClient, job: dict[str, Any]) -> dict[str, Any]:
    for _ in range(200):
        job = client.get(f"/api/archives/{job['id']}").json()
        if job["state"] != "running":
            return job
        time.sleep(0.1)
    raise AssertionError(job)


def began(client: TestClient, path: str, **more: Any) -> dict[str, Any]:
    answer = client.post(f"/api/archives/{path}", **more)
    assert answer.status_code == 202, answer.text
    return followed(client, answer.json())


def test_the_house_goes_out_and_is_asked_about_when_it_comes_back(client: TestClient, demo: Engine) -> None:
    client = confirmed(client)
    out = began(client, "export")
    assert (out["state"], out["done"], out["of"]) == ("done", 16, 16)
    assert client.get("/api/archives").json()["id"] == out["id"]
    file = client.get(f"/api/archives/{out['id']}/file")
    assert zipfile.ZipFile(io.BytesIO(file.content)).testzip() is None
    looked = began(client, "upload", content=file.content, headers={"content-type": "application/zip"})
    assert looked["found"]["instruments"] == 16
    assert len(looked["found"]["clashes"]) == 16
    refused = began(client, f"{looked['id']}/import", json={"choices": {}})
    assert refused["state"] == "failed"
    assert "is taken here" in refused["sentence"]
    looked = began(client, "upload", content=file.content, headers={"content-type": "application/zip"})
    told = began(client, f"{looked['id']}/import", json={"choices": {"": "skip"}})
    assert (told["state"], told["found"]["skipped"]) == ("done", 16)
    with demo.connect() as connection:
        assert connection.execute(text("SELECT count(*) FROM instrument")).scalar() == 16
    assert client.delete(f"/api/archives/{out['id']}").status_code == 204
    assert client.get(f"/api/archives/{out['id']}/file").status_code == 404


def test_a_foreign_file_says_what_it_should_be(client: TestClient) -> None:
    told = began(confirmed(client), "upload", content=b"dear all", headers={"content-type": "application/zip"})
    assert (told["state"], told["field"]) == ("failed", "file")
    assert "no whole archive" in told["sentence"]
    assert client.post(f"/api/archives/{told['id']}/import", json={"choices": {}}).status_code == 404


def test_a_dossier_is_a_whole_archive_with_its_papers(client: TestClient) -> None:
    answer = client.get("/api/instruments/RW-087/dossier")
    names = zipfile.ZipFile(io.BytesIO(answer.content)).namelist()
    assert {"papers/setup.pdf", "papers/owner.pdf", "readings.csv", "fidicula.json"} <= set(names)
    assert client.get("/api/instruments/RW-999/dossier").status_code == 404


def table(client: TestClient, text: str | bytes, status: int = 200, **asked: Any) -> dict[str, Any]:
    data = text.encode() if isinstance(text, str) else text
    answer = client.post("/api/readings-table", params=asked, content=data, headers={"content-type": "text/csv"})
    assert answer.status_code == status, answer.text
    return dict(answer.json())


HEAD = "ticket,measure,string,value,tool\n"


@pytest.mark.parametrize(
    "data",
    [
        b"ticket,measure,string,value\nRW-101,end_height,G,5.9\n",
        b"ticket;measure;string;value\r\nRW-101;end_height;0;5,9\r\n",
        "ticket\tmeasure\tstring\tvalue\nRW-101\tat the board's end\tG\t5,9\n".encode("utf-16"),
        b"\xef\xbb\xbfTicket,Measure,String,Value,Colour\nRW-101,end_height,g,5.9 mm,red\n",
        "ticket;measure;string;value;by\nRW-101;end_height;G;5.9;J\xfcrg\n".encode("windows-1252"),
    ],
    ids=["plain", "semicolon and comma", "utf-16 with tabs", "utf-8 with a mark", "windows-1252"],
)
def test_a_table_is_read_however_a_spreadsheet_wrote_it(client: TestClient, data: bytes) -> None:
    """Looked at first, which keeps nothing; then taken in, once."""
    told = table(client, data)
    (line,) = told["lines"]
    assert (line["what"], line["value"], line["problem"]) == ("G at the board's end", "5.9 mm", "")
    bench = Bench(client, "RW-101")
    assert bench.cell("end_height", 0)["value"] is None
    assert table(client, data, take_in=True)["taken_in"]
    assert Bench(client, "RW-101").cell("end_height", 0)["value"] == 5.9
    assert table(client, data)["lines"][0]["is_here"]
    table(client, data, take_in=True)
    assert len([one for one in bench.log() if one["what"] == "G at the board's end"]) == 1


def test_each_line_says_what_is_wrong_with_it_and_one_holds_up_all(client: TestClient) -> None:
    lines = HEAD + "\n".join(
        [
            "RW-101,end_height,G,5.9,caliper",
            "RW-999,end_height,G,5.9,",
            "RW-101,weight,G,5.9,",
            "RW-101,end_height,C,5.9,",
            "RW-101,end_height,D,five,",
            "RW-101,end_height,D,5.7,card gauge",
            "RW-087,projection,,80.1,",
            "RW-101,end_height,E,41,",
        ]
    )
    told = table(client, lines)
    problems = [line["problem"] for line in told["lines"]]
    assert problems[0] == ""
    assert [
        part in problem
        for part, problem in zip(
            ("not in the house", "no measure", "is read at G, D, A, E", "five", "is read with", "not in the house"),
            problems[1:7],
            strict=True,
        )
    ] == [True] * 6
    assert "4.1" in told["lines"][7]["doubt"]
    assert told["good"] == 2
    refused = table(client, lines, 422, take_in=True)
    assert refused["detail"][0]["loc"][-1] == "file"
    assert "line 3" in refused["detail"][0]["msg"]
    assert Bench(client, "RW-101").cell("end_height", 0)["value"] is None
    assert table(client, lines, take_in=True, leave_out_bad=True)["good"] == 2
    assert Bench(client, "RW-101").cell("end_height", 0)["value"] == 5.9


@pytest.mark.parametrize(
    ("data", "asked", "field"),
    [
        (b"", {}, "file"),
        (b"a,b\n1,2\n", {}, "separator"),
        (b"\x89PNG\0\0\0", {}, "file"),
        (HEAD.encode(), {"encoding": "klingon"}, "encoding"),
        ("measure,value\nprojection,2\xfc\n".encode("latin-1"), {"encoding": "utf-8"}, "encoding"),
        (HEAD.encode(), {"separator": "!"}, "separator"),
    ],
)
def test_what_is_no_table_names_its_field(client: TestClient, data: bytes, asked: dict[str, str], field: str) -> None:
    assert table(client, data, 422, **asked)["detail"][0]["loc"][-1] == field


def test_a_dated_line_stands_before_the_work_that_came_after_it(client: TestClient) -> None:
    client.post("/api/instruments/RW-102/works", json={"id": str(uuid4()), "work": "bridge_straightened"})
    with_day = "measure,string,value,date\nend_height,G,5.6,2026-01-05\n"
    assert table(client, with_day, ticket="RW-102", take_in=True)["good"] == 1
    assert Bench(client, "RW-102").cell("end_height", 0)["state"] == "stale"
    tomorrow = "measure,string,value,date\nend_height,G,5.6,2199-01-05\n"
    assert "still to come" in table(client, tomorrow, ticket="RW-102")["lines"][0]["problem"]


def test_a_line_without_a_tool_was_read_with_the_places_usual_one(client: TestClient) -> None:
    """Named by its words or its key, in any case; none is the first that the place may be read with."""
    lines = HEAD + "RW-101,end_height,G,5.9,\nRW-101,end_height,D,5.7,Wedge\nRW-101,projection,,27.1,\n"
    assert table(client, lines, take_in=True)["good"] == 3
    read = {one["what"]: one["tool"] for one in Bench(client, "RW-101").log()}
    assert read["G at the board's end"] == "caliper"
    assert read["D at the board's end"] == "wedge or card"
    assert read["projection"] == "upright rule"


def test_a_line_of_a_table_knows_the_lines_before_it(client: TestClient) -> None:
    """RW-101, of which nothing is read: each line of one place corrects the one before it."""
    lines = "measure,position,value\nend_height,0,5.4\nend_height,0,5.3\nend_height,0,5.2\n"
    told = table(client, lines, ticket="RW-101", take_in=True)
    assert told["good"] == 3
    log = [line for line in client.get("/api/instruments/RW-101/log").json() if line["what"].startswith("G at")]
    assert [(line["value"], line["state"]) for line in log] == [
        *(("5.2", "current"), ("5.3", "corrected"), ("5.4", "corrected"))
    ]
