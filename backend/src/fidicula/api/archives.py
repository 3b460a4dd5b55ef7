"""Archives out and in, and readings from a table."""

from __future__ import annotations

from io import BytesIO
from typing import Annotated, Literal
from urllib.parse import quote
from uuid import UUID

from fastapi import APIRouter, Query, Request, Response
from fastapi.concurrency import run_in_threadpool
from fastapi.responses import FileResponse
from pydantic import Field

from fidicula.api.auth import Acting, may
from fidicula.api.bench import Body
from fidicula.api.errors import RESPONSES
from fidicula.api.services import AllServices
from fidicula.api.words import Label, Ticket
from fidicula.domain.errors import RefusedError
from fidicula.services.archives.jobs import JobView
from fidicula.services.archives.readings_in import TableView

router = APIRouter(prefix="/api", tags=["archives"], responses=RESPONSES)
OF_DOSSIER = ("setup", "condition", "compared", "owner")
"""Papers that go along."""
Encoding = Annotated[str, Query(max_length=20)]


class TakeInBody(Body):
    """choices : what each ticket that is taken here means; "" for all that have none."""

    choices: Annotated[dict[Label, Literal["same", "other", "skip"]], Field(max_length=20_000)]


@router.get("/instruments/{ticket}/dossier", response_class=Response)
def dossier(services: AllServices, ticket: Ticket) -> Response:
    """One instrument as an archive, with its papers."""
    printed = {kind: services.papers.pdf(ticket, kind) for kind in OF_DOSSIER}
    file = BytesIO()
    services.export_instrument(ticket, file, printed)
    headers = {"content-disposition": f"attachment; filename*=utf-8''{quote(f'{ticket}.zip')}"}
    return Response(file.getvalue(), media_type="application/zip", headers=headers)


@router.get("/archives")
def newest(services: AllServices) -> JobView | None:
    """What was begun last, so that a page that was loaded again goes on with it."""
    return services.archives.newest()


@router.post("/archives/export", status_code=202, dependencies=[may("figures")])
def export(services: AllServices) -> JobView:
    """Begin to write the whole house into an archive."""
    return services.archives.begin_export()


@router.post("/archives/upload", status_code=202, dependencies=[may("figures")])
async def upload(request: Request, services: AllServices) -> JobView:
    """Bring an archive: it is looked through before anything of it is taken in."""
    path = services.archives.upload()
    try:
        with path.open("wb") as file:
            async for chunk in request.stream():
                await run_in_threadpool(file.write, chunk)
    except OSError as error:
        path.unlink(missing_ok=True)
        raise RefusedError(f"the file could not be kept here: {error.strerror}", field="file") from error
    except BaseException:
        path.unlink(missing_ok=True)
        raise
    return services.archives.begin_look(path)


@router.get("/archives/{job_id}")
def job(services: AllServices, job_id: UUID) -> JobView:
    """How far it is."""
    return services.archives.view(job_id)


@router.get("/archives/{job_id}/file", response_class=FileResponse, dependencies=[may("figures")])
def file(services: AllServices, job_id: UUID) -> FileResponse:
    """The archive that was written."""
    path = services.archives.file(job_id)
    return FileResponse(path, media_type="application/zip", filename="house.zip")


@router.post("/archives/{job_id}/import", status_code=202, dependencies=[may("figures")])
def take_in(services: AllServices, job_id: UUID, body: TakeInBody, person: Acting) -> JobView:
    """Take in what was looked at, all of it or nothing."""
    return services.archives.begin_import(job_id, dict(body.choices), person.name)


@router.post("/archives/{job_id}/stop", dependencies=[may("figures")])
def stop(services: AllServices, job_id: UUID) -> JobView:
    """Stop it: nothing was taken in."""
    return services.archives.stop(job_id)


@router.delete("/archives/{job_id}", status_code=204, dependencies=[may("figures")])
def forget(services: AllServices, job_id: UUID) -> Response:
    """It was seen to."""
    services.archives.forget(job_id)
    return Response(status_code=204)


@router.post("/readings-table", dependencies=[may("measure")])
async def readings_table(
    request: Request,
    services: AllServices,
    person: Acting,
    ticket: Annotated[str, Query(max_length=20)] = "",
    encoding: Encoding = "",
    separator: Annotated[str, Query(max_length=1)] = "",
    take_in: bool = False,
    leave_out_bad: bool = False,
) -> TableView:
    """Look at a table of readings line by line, or take it in."""
    data = await request.body()
    if not take_in:
        return await run_in_threadpool(
            services.readings_in.look_at, data, ticket=ticket, encoding=encoding, separator=separator, by=person.name
        )
    return await run_in_threadpool(
        services.readings_in.take_in,
        data,
        ticket=ticket,
        encoding=encoding,
        separator=separator,
        by=person.name,
        leave_out_bad=leave_out_bad,
    )
