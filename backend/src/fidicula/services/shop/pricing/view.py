"""The plan as it is shown: every line with its steps, time, parts and price, and what all of it comes to."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from fidicula.codes import WorkCode
from fidicula.tables.pricing import Grade


@dataclass(frozen=True)
class StepLine:
    """One step of a work. minutes : in words.  left_out : on this instrument."""

    label: str
    minutes: str
    why: str
    left_out: bool


@dataclass(frozen=True)
class PartLine:
    """What goes into a line. here : how many lie in the drawers, in words."""

    id: str
    item: str
    says: str
    here: str


@dataclass(frozen=True)
class PartWanted:
    """A kind of stock that a line has nothing chosen of yet."""

    kind: str
    label: str


@dataclass(frozen=True)
class PlannedWork:
    """One planned work. state : planned, running, paused, done, refused.

    stopped : why it may not be begun, empty where it may.
    amount : in words.  usual : as a plain number.  minutes_so_far : that it ran, to be put right when it is done.
    """

    id: str
    work: WorkCode
    label: str
    part: str
    grade: Grade
    because: str
    state: str
    stopped: str
    approved: bool
    amount: str
    usual: str
    minutes: str
    own_minutes: str
    rate: str
    steps: list[StepLine]
    parts: list[PartLine]
    wants: list[PartWanted]
    risk: str
    caution: str
    grows: str
    why: str
    stale: str
    notes: list[str]
    by: str
    since: datetime | None
    minutes_so_far: str
    took: str


@dataclass(frozen=True)
class ProposalView:
    """A work that something speaks for and that is not planned."""

    work: WorkCode
    label: str
    because: str
    grade: Grade
    origin: str
    because_of: str


@dataclass(frozen=True)
class SumView:
    """What lines come to, in words. Each amount adds up with the others as it is printed."""

    net: str
    discount: str
    tax: str
    total: str


@dataclass(frozen=True)
class VariantView:
    """One variant. against : how it stands beside the instrument's value.  total : the usual one, as a plain number."""

    grade: Grade
    label: str
    works: list[str]
    low: SumView
    usual: SumView
    high: SumView
    deposit: str
    against: str
    weight: str
    total: str


@dataclass(frozen=True)
class ApprovalView:
    id: str
    says: str
    words: str
    when: datetime | None
    signature: str


@dataclass(frozen=True)
class BundleView:
    bundle: str
    label: str
    works: list[str]


@dataclass(frozen=True)
class JobChoice:
    work: WorkCode
    label: str


@dataclass(frozen=True)
class SumOfLines:
    """total : as a plain number.  says : in words."""

    total: str
    says: str


@dataclass(frozen=True)
class VisitPlan:
    """The plan of a visit. total : of all its lines, usual, as a plain number: what an approval is given to.

    discount : in words, empty for none.
    unapproved : works that were added since.  spent, agreed : in words, empty before an approval.
    """

    ticket: str
    currency: str
    tax: str
    lines: list[PlannedWork]
    proposals: list[ProposalView]
    bundles: list[BundleView]
    jobs: list[JobChoice]
    variants: list[VariantView]
    approvals: list[ApprovalView]
    unapproved: str
    spent: str
    agreed: str
    value: str
    total: str
    total_says: str
    how: dict[str, str]
    is_open: bool
    discount: str
    discount_percent: str


@dataclass(frozen=True)
class FleetLine:
    ticket: str
    works: list[str]
    total: str


@dataclass(frozen=True)
class FleetEstimate:
    """The plans of a fleet's instruments together. sums : of all lines; each instrument is rounded by itself."""

    owner: str
    lines: list[FleetLine]
    low: str
    usual: str
    high: str
