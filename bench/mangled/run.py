"""`./fidicula bench mangled`: 10,000 archives that fit the schema; each comes in, or is refused in a sentence.

Of whatever came in every answer is asked for, and the house's own pages beside it. `FIDICULA_ARCHIVES=500` for fewer.
Wanted: nothing that fails, neither as an archive comes in nor afterwards.
"""

from __future__ import annotations

import json
import os
import random
import tempfile
import zipfile
from collections import Counter
from io import BytesIO
from pathlib import Path
from typing import Any

import jsonschema_rs
from fastapi.testclient import TestClient
from fidicula.cli.demo import demo_sign_ins
from fidicula.cli.throwaway import filled, throwaway_cluster
from fidicula.db.unit_of_work import make_engine
from fidicula.documents.dossier.archive import INSTRUMENTS, MANIFEST, schema_text
from fidicula.documents.dossier.instrument import FORMAT, Dossier
from fidicula.domain.errors import RefusedError
from fidicula.hosting.server import RunningCluster
from fidicula.main import create_app
from fidicula.services.archives.exporting import export_house
from fidicula.services.archives.importing import look_at, take_in
from fidicula.settings import Settings
from sqlalchemy import Engine, text

from bench.mangled.values import Values, learnt, renewed

AT_A_HOUSE = 500
"""After so many archives the next ones go into another house."""
OF_THE_HOUSE = (
    *("/api/rail", "/api/screening", "/api/checks-due", "/api/known?words=a", "/api/log", "/api/audit"),
    *("/api/ask?words=violins", "/api/ask?words=cellos with projection under 78", "/api/ask?words=due this month"),
)
OF = "/api/instruments/{ticket}"
PAPERS = ("setup", "compared", "owner", "ticket", "label")
PARTS = ("board", "neck", "nut", "bridge", "bar", "tail", "load", "playing", "post", "strings", "place")
OUT_OF_NOTHING = 0.1
"""Of how many nothing but the schema is known; the others are dossiers of the demo with values changed."""


class Mangling:
    """A walk through archives by one seed."""

    def __init__(self, seed: int) -> None:
        self._chance = random.Random(seed)
        schema = json.loads(schema_text(Dossier))
        self._fits = jsonschema_rs.validator_for(schema, validate_formats=True)
        self._schema = schema
        self.counts: Counter[str] = Counter()
        self.refusals: Counter[str] = Counter()
        self.faults: list[str] = []

    def through(self, running: RunningCluster, name: str, archives: int) -> None:
        """So many archives, into a house of its own."""
        url = filled(running, name)
        os.environ["FIDICULA_DATABASE_URL"] = url
        engine = make_engine(url)
        app = create_app(Settings())
        dossiers = _dossiers(engine)
        values = Values(self._schema, self._chance, learnt(dossiers))
        reads = [
            path
            for path, methods in app.openapi()["paths"].items()
            if "get" in methods and "{ticket}" in path and path.count("{") == 1
        ]
        with TestClient(app, base_url="http://127.0.0.1", raise_server_exceptions=False) as client:
            person, _, password, _ = demo_sign_ins()[0]
            client.post("/api/session", data={"name": person, "password": password})
            for _ in range(archives):
                self._one(engine, client, values, dossiers, reads)
        engine.dispose()
        running.drop_database(name)

    def _one(self, engine: Engine, client: TestClient, values: Values, dossiers: list[Any], reads: list[str]) -> None:
        dossier = self._made(values, dossiers)
        self.counts["archives"] += 1
        with tempfile.NamedTemporaryFile(suffix=".zip") as file:
            file.write(_archive(dossier))
            file.flush()
            path = Path(file.name)
            before = _tickets(engine)
            try:
                if self._chance.random() < 0.1:
                    look_at(engine, path)
                take_in(engine, path, {"": self._chance.choice(("other", "same", "skip"))}, by="Ilse Varnholt")
            except RefusedError as error:
                self.counts["refused"] += 1
                self.refusals[_kind(error.sentence)] += 1
                return
            except Exception as error:  # noqa: BLE001 - whatever it is, it is what is looked for
                self._fault(f"taking in: {type(error).__name__}: {str(error)[:160]}", dossier)
                return
        self.counts["taken in"] += 1
        for ticket in sorted(_tickets(engine) - before) or [str(dossier["instrument"]["ticket"])]:
            for path_of in (*reads, *(f"{OF}/papers/{paper}" for paper in PAPERS), *self._rare()):
                self._ask(client, path_of.replace("{ticket}", ticket), path_of, dossier)
            for part in PARTS:
                self._ask(client, f"{OF}/pages/{part}".replace("{ticket}", ticket), part, dossier, posts=True)
        if self._chance.random() < 0.2:
            for path_of in OF_THE_HOUSE:
                self._ask(client, path_of, path_of, dossier)

    def _rare(self) -> list[str]:
        """One of what takes longer to make."""
        papers = [f"{OF}/papers/{paper}/pdf" for paper in PAPERS]
        templates = [f"{OF}/templates/{kind}/{form}" for kind in ("bridge", "nut") for form in ("pdf", "svg", "dxf")]
        return [self._chance.choice((*papers, *templates))]

    def _ask(self, client: TestClient, path: str, name: str, dossier: Any, *, posts: bool = False) -> None:
        self.counts["answers"] += 1
        answer = client.post(path, json={}) if posts else client.get(path)
        if answer.status_code >= 500:
            self._fault(f"{name}: {answer.status_code} {answer.text[:160]}", dossier)

    def _made(self, values: Values, dossiers: list[Any]) -> Any:
        """The next dossier that the schema allows."""
        while True:
            if self._chance.random() < OUT_OF_NOTHING:
                found = values.whole()
            else:
                base = renewed(self._chance.choice(dossiers), self._chance)
                base["instrument"]["ticket"] = f"MG-{self._chance.randrange(10**9)}"
                found = values.mangled(base, dossiers)
            try:
                if self._fits.is_valid(found):
                    return found
            except ValueError:
                # Half of a pair of characters, which the library does not read; the application says what it is.
                return found
            self.counts["did not fit"] += 1

    def _fault(self, said: str, dossier: Any) -> None:
        self.counts["faults"] += 1
        self.faults.append(said)
        folder = os.environ.get("FIDICULA_FAULTS")
        if folder:
            Path(folder, f"{len(self.faults):04d}.json").write_text(json.dumps({"says": said, "dossier": dossier}))


def run() -> None:
    archives, seed = int(os.environ.get("FIDICULA_ARCHIVES", "10000")), int(os.environ.get("FIDICULA_SEED", "1"))
    mangling = Mangling(seed)
    with throwaway_cluster() as running:
        for begun in range(0, archives, AT_A_HOUSE):
            mangling.through(running, f"mangled_{begun}", min(AT_A_HOUSE, archives - begun))
            print(f"    {dict(mangling.counts)}", flush=True)
    print(f"  mangled, seed {seed}: {dict(mangling.counts)} (wanted: no faults)")
    for said, count in mangling.refusals.most_common(12):
        print(f"      refused {count}: {said}")
    for said, count in Counter(mangling.faults).most_common(12):
        print(f"      FAULT {count}: {said}")


def _dossiers(engine: Engine) -> list[Any]:
    out = BytesIO()
    export_house(engine, out)
    with zipfile.ZipFile(out) as archive:
        return [json.loads(line) for line in archive.read(INSTRUMENTS).splitlines()]


def _archive(dossier: Any) -> bytes:
    out = BytesIO()
    with zipfile.ZipFile(out, "w") as archive:
        manifest = {"kind": "instrument", "version": FORMAT, "instruments": 1, "made_at": "2026-11-20T10:00:00Z"}
        archive.writestr(MANIFEST, json.dumps({"format": "fidicula", **manifest}))
        archive.writestr(INSTRUMENTS, json.dumps(dossier) + "\n")
    return out.getvalue()


def _tickets(engine: Engine) -> set[str]:
    with engine.connect() as connection:
        return set(connection.execute(text("SELECT ticket FROM instrument")).scalars())


def _kind(sentence: str) -> str:
    """A refusal without what it names."""
    return " ".join(word for word in sentence.split() if word.isalpha())[:90]


if __name__ == "__main__":
    run()
