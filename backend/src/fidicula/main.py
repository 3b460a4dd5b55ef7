"""The application put together: settings, database, services, HTTP."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import Any

from fastapi import FastAPI

from fidicula.api.app import make_app
from fidicula.api.pairing import PairedOnly
from fidicula.api.response_middleware import Answers
from fidicula.api.services import Services
from fidicula.db.changes import Changes
from fidicula.db.unit_of_work import check_database, make_engine
from fidicula.devices.standins.caliper import FAULTS, StandInCaliper
from fidicula.devices.standins.camera import StandInCamera
from fidicula.devices.standins.hygrometer import HYGROMETER_FAULTS, StandInHygrometer
from fidicula.devices.standins.tuner import TUNER_FAULTS, StandInTuner
from fidicula.services.adjusting.recordings import Recordings
from fidicula.services.adjusting.sound import Sound
from fidicula.services.adjusting.strings import Strings
from fidicula.services.archives.exporting import export_instrument
from fidicula.services.archives.jobs import ArchiveJobs
from fidicula.services.archives.readings_in import ReadingsIn
from fidicula.services.asking.asking import Asking
from fidicula.services.bench.bench import Bench
from fidicula.services.bench.devices_at_bench import Devices, DevicesAtBench
from fidicula.services.bench.putting_right import Slips
from fidicula.services.bench.redoing import Redoing
from fidicula.services.people.audit import Audit
from fidicula.services.people.browsers import Browsers
from fidicula.services.people.people import People
from fidicula.services.shop.billing.bills import Bills
from fidicula.services.shop.figures import Figures
from fidicula.services.shop.following import Followings
from fidicula.services.shop.pricing.drawers import Drawers
from fidicula.services.shop.pricing.fleet import Fleets
from fidicula.services.shop.pricing.paper import EstimatePapers
from fidicula.services.shop.pricing.plan import Plans
from fidicula.services.shop.pricing.settings import Settings as ShopSettings
from fidicula.services.shop.recipes import Recipes
from fidicula.services.shop.shelf import Shelf
from fidicula.services.shop.tool_checks import ToolChecks
from fidicula.services.visits.batch import Batch
from fidicula.services.visits.belongings import Belongings
from fidicula.services.visits.damage import Damages
from fidicula.services.visits.handover.handing import HandingOver
from fidicula.services.visits.handover.shop_points import ClosingPoints
from fidicula.services.visits.histories import Histories
from fidicula.services.visits.house import House
from fidicula.services.visits.pages import PagesAtBench
from fidicula.services.visits.papers import Papers
from fidicula.services.visits.particulars import Particulars
from fidicula.services.visits.photos import Photos
from fidicula.services.visits.screening import Screening
from fidicula.services.visits.templates import Templates
from fidicula.services.visits.workflow import Workflow
from fidicula.settings import Settings

Application = Callable[..., Any]
"""What a web server serves."""


def for_paired_devices(app: FastAPI, code: str) -> Application:
    """The same application behind a door that opens by a code."""
    return Answers(PairedOnly(app, code=code, browsers=lambda: app.state.services.browsers))


def create_app(settings: Settings, *, database_says: Callable[[], str] = lambda: "") -> FastAPI:
    """The application on the database that the settings name. database_says : what it waits for, if for anything."""
    app = make_app(front_end=settings.front_end, lan_address=settings.lan_address)
    give_services(
        app,
        settings.database_url,
        database_says=database_says,
        stand_ins=settings.stand_ins,
        reached_at=settings.reached_at,
    )
    return app


def give_services(
    app: FastAPI,
    database_url: str,
    *,
    database_says: Callable[[], str] = lambda: "",
    stand_ins: bool = False,
    reached_at: str = "",
) -> None:
    """The services that an application's routes ask, on one database; those that it had before are let go.

    stand_ins : simulated devices are wired: in the demo, and for practice.
    reached_at : from other devices of the workshop.
    """
    engine = make_engine(database_url)
    app.state.engine = engine
    app.state.services = Services(
        check_database=partial(check_database, engine),
        export_instrument=partial(export_instrument, engine),
        database_says=database_says,
        reached_at=reached_at,
        people=People(engine),
        browsers=Browsers(engine),
        audit=Audit(engine),
        house=House(engine),
        leaving=HandingOver(engine),
        belongings=Belongings(engine),
        damages=Damages(engine),
        closing_points=ClosingPoints(engine),
        bench=Bench(engine),
        redoing=Redoing(engine),
        slips=Slips(engine),
        workflow=Workflow(engine),
        tool_checks=ToolChecks(engine),
        particulars=Particulars(engine),
        photos=Photos(engine, StandInCamera() if stand_ins else None),
        has_stand_ins=stand_ins,
        sound=Sound(engine),
        recordings=Recordings(engine),
        strings=Strings(engine),
        plans=Plans(engine),
        bills=Bills(engine),
        drawers=Drawers(engine),
        fleets=Fleets(engine),
        estimates=EstimatePapers(engine),
        asking=Asking(engine),
        archives=ArchiveJobs(database_url),
        readings_in=ReadingsIn(engine),
        histories=Histories(engine),
        papers=Papers(engine),
        shop_settings=ShopSettings(engine),
        figures=Figures(engine),
        recipes=Recipes(engine),
        followings=Followings(engine),
        pages=PagesAtBench(engine),
        shelf=Shelf(engine),
        templates=Templates(engine),
        screening=Screening(engine),
        batch=Batch(engine),
        changes=Changes(engine),
        devices=DevicesAtBench(engine, _stand_ins() if stand_ins else None),
    )


def _stand_ins() -> Devices:
    """Simulated devices, for the demo and for practice alone."""
    return Devices(
        caliper=lambda manner, length: StandInCaliper([one for one in FAULTS if one in manner], length=length),
        tuner=lambda manner, pitch: StandInTuner(manner, pitch=pitch),
        hygrometer=StandInHygrometer,
        manners=list(dict.fromkeys((*FAULTS, *TUNER_FAULTS, *HYGROMETER_FAULTS))),
    )
