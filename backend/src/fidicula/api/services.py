"""The use cases that a route asks, each by its type."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Annotated, BinaryIO

from fastapi import Depends, Request

from fidicula.db.changes import Changes
from fidicula.services.adjusting.recordings import Recordings
from fidicula.services.adjusting.sound import Sound
from fidicula.services.adjusting.strings import Strings
from fidicula.services.archives.jobs import ArchiveJobs
from fidicula.services.archives.readings_in import ReadingsIn
from fidicula.services.asking.asking import Asking
from fidicula.services.bench.bench import Bench
from fidicula.services.bench.devices_at_bench import DevicesAtBench
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


@dataclass(frozen=True)
class Services:
    """What the routes of one application ask, on one database.

    check_database : raises DatabaseError where the database does not answer.
    database_says : what the database waits for, if for anything.  has_stand_ins : simulated devices are wired.
    reached_at : from other devices of the workshop; empty where it is not.
    """

    check_database: Callable[[], None]
    export_instrument: Callable[[str, BinaryIO, Mapping[str, bytes]], None]
    database_says: Callable[[], str]
    reached_at: str
    people: People
    browsers: Browsers
    audit: Audit
    house: House
    leaving: HandingOver
    belongings: Belongings
    damages: Damages
    closing_points: ClosingPoints
    bench: Bench
    redoing: Redoing
    slips: Slips
    workflow: Workflow
    tool_checks: ToolChecks
    particulars: Particulars
    photos: Photos
    has_stand_ins: bool
    sound: Sound
    recordings: Recordings
    strings: Strings
    plans: Plans
    bills: Bills
    drawers: Drawers
    fleets: Fleets
    estimates: EstimatePapers
    asking: Asking
    archives: ArchiveJobs
    readings_in: ReadingsIn
    histories: Histories
    papers: Papers
    shop_settings: ShopSettings
    figures: Figures
    recipes: Recipes
    followings: Followings
    pages: PagesAtBench
    shelf: Shelf
    templates: Templates
    screening: Screening
    batch: Batch
    changes: Changes
    devices: DevicesAtBench


async def services_of(request: Request) -> Services:
    services: Services = request.app.state.services
    return services


AllServices = Annotated[Services, Depends(services_of)]
