"""Archives that take a while: each in a process of its own, so that the bench is not kept waiting, with its progress.

One at a time. What it says comes line by line as JSON; files lie in a folder of their own and go after an hour.
"""

from __future__ import annotations

import atexit
import json
import os
import subprocess
import sys
from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta
from pathlib import Path
from shutil import rmtree
from tempfile import mkdtemp
from threading import Lock, Thread
from typing import IO, Any, Literal
from uuid import UUID, uuid4

from fidicula.domain.errors import ConflictError, NotFoundError
from fidicula.words.archives import ENDED_EARLY

MOST_BYTES = 50_000_000_000
"""Of an archive that comes in."""
KEPT = timedelta(hours=1)
JobState = Literal["running", "done", "failed", "stopped"]


@dataclass
class Job:
    """One archive being written, looked at or taken in. done, of : instruments.  found : what came of it."""

    id: UUID
    what: Literal["export", "look", "import"]
    path: Path
    state: JobState = "running"
    done: int = 0
    of: int = 0
    sentence: str = ""
    at_field: str = ""
    found: dict[str, Any] = field(default_factory=dict)
    begun_at: datetime = field(default_factory=lambda: datetime.now(UTC))
    process: subprocess.Popen[str] | None = None


@dataclass(frozen=True)
class JobView:
    """As the screen shows it. share : from 0 to 1, None where nothing says how much there is."""

    id: str
    what: str
    state: JobState
    done: int
    of: int
    sentence: str
    field: str
    found: dict[str, Any]


class ArchiveJobs:
    """database_url : what its processes connect to."""

    def __init__(self, database_url: str) -> None:
        self._url = database_url
        self._jobs: dict[UUID, Job] = {}
        self._lock = Lock()
        self._folder: Path | None = None
        atexit.register(self.close)

    def begin_export(self) -> JobView:
        """Write the whole house into a file."""
        path = self._new_file(".zip")
        return self._begin("export", path, ["export", str(path)])

    def upload(self) -> Path:
        """Where a file that comes in is put, before it is looked at."""
        self._check_free()
        return self._new_file(".upload")

    def begin_look(self, path: Path) -> JobView:
        """Look a file through that was put there."""
        return self._begin("look", path, ["look", str(path)])

    def begin_import(self, job_id: UUID, choices: dict[str, str], by: str) -> JobView:
        """Take in what was looked at. Raises NotFoundError where it is not there any more."""
        looked = self._found(job_id)
        if looked.what != "look" or looked.state != "done" or not looked.path.exists():
            raise NotFoundError("this file was not looked at, or is not here any more: choose it again", field="file")
        told = looked.path.with_suffix(".choices")
        told.write_text(json.dumps({"choices": choices, "by": by}), encoding="utf-8")
        return self._begin("import", looked.path, ["import", str(looked.path), str(told)])

    def view(self, job_id: UUID) -> JobView:
        return _view(self._found(job_id))

    def newest(self) -> JobView | None:
        """What was begun last and is not forgotten: a page that was loaded again goes on with it."""
        with self._lock:
            jobs = sorted(self._jobs.values(), key=lambda job: job.begun_at)
        return _view(jobs[-1]) if jobs else None

    def file(self, job_id: UUID) -> Path:
        """A finished export. Raises NotFoundError."""
        job = self._found(job_id)
        if job.what != "export" or job.state != "done" or not job.path.exists():
            raise NotFoundError("this archive is not here any more: export it once more")
        return job.path

    def stop(self, job_id: UUID) -> JobView:
        """End it: nothing was taken in, and a file that is not whole goes."""
        job = self._found(job_id)
        if job.state == "running" and job.process is not None:
            job.state = "stopped"
            job.process.terminate()
        return _view(job)

    def forget(self, job_id: UUID) -> None:
        """It was seen to; its file goes."""
        self.stop(job_id)
        with self._lock:
            job = self._jobs.pop(job_id, None)
        if job is not None:
            job.path.unlink(missing_ok=True)

    def close(self) -> None:
        """Nothing goes on without the application."""
        for job in list(self._jobs.values()):
            if job.process is not None and job.process.poll() is None:
                job.state = "stopped"
                job.process.terminate()
                job.process.wait()

    def _begin(self, what: Literal["export", "look", "import"], path: Path, arguments: Sequence[str]) -> JobView:
        with self._lock:
            self._tidy()
            if any(job.state == "running" for job in self._jobs.values()):
                raise ConflictError("an archive is being worked on already: wait for it, or stop it")
            process = subprocess.Popen(  # our own program, its arguments made here
                [sys.executable, "-m", "fidicula.cli.archives", *arguments],
                stdout=subprocess.PIPE,
                stderr=subprocess.PIPE,
                text=True,
                env={**os.environ, "FIDICULA_DATABASE_URL": self._url},
            )
            job = Job(uuid4(), what, path, process=process)
            self._jobs[job.id] = job
        Thread(target=_follow, args=(job,), daemon=True).start()
        return _view(job)

    def _check_free(self) -> None:
        with self._lock:
            if any(job.state == "running" for job in self._jobs.values()):
                raise ConflictError("an archive is being worked on already: wait for it, or stop it")

    def _found(self, job_id: UUID) -> Job:
        job = self._jobs.get(job_id)
        if job is None:
            raise NotFoundError("this is not here any more: begin again")
        return job

    def _new_file(self, ending: str) -> Path:
        with self._lock:
            if self._folder is None:
                self._folder = Path(mkdtemp(prefix="fidicula-archives-"))
                atexit.register(rmtree, self._folder, ignore_errors=True)
            return self._folder / f"{uuid4()}{ending}"

    def _tidy(self) -> None:
        """What nobody fetched goes after an hour; a look goes once it was taken in."""
        old = datetime.now(UTC) - KEPT
        for job in [one for one in self._jobs.values() if one.state != "running" and one.begun_at < old]:
            job.path.unlink(missing_ok=True)
            del self._jobs[job.id]


def _follow(job: Job) -> None:
    """Read what the process says until it ends."""
    process = job.process
    assert process is not None
    assert process.stdout is not None
    with process:
        for line in process.stdout:
            _heard(job, line)
        errors = _rest(process.stderr)
    if job.state == "running":
        job.state = "failed"
        job.sentence = job.sentence or ENDED_EARLY
        if errors:
            print(errors, file=sys.stderr)
    if job.what == "import" or (job.what == "export" and job.state != "done"):
        job.path.unlink(missing_ok=True)


def _rest(stream: IO[str] | None) -> str:
    return "" if stream is None else stream.read()


def _heard(job: Job, line: str) -> None:
    try:
        told = json.loads(line)
    except ValueError:
        return
    match told:
        case {"done": int(done), "of": int(of)}:
            job.done, job.of = done, of
        case {"found": dict(found)}:
            job.found = found
            if job.state == "running":
                job.state = "done"
        case {"refused": str(sentence), "field": str(name)}:
            job.sentence, job.at_field = sentence, name
            job.state = "failed"


def _view(job: Job) -> JobView:
    return JobView(str(job.id), job.what, job.state, job.done, job.of, job.sentence, job.at_field, job.found)
