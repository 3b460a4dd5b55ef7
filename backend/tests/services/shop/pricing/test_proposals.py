"""What findings, decisions and readings propose, and what they do not."""

from __future__ import annotations

from fidicula.codes import MeasureCode
from fidicula.services.shop.pricing.proposals import Proposal, proposals

from ....scenario import Bench, measured


def proposed(bench: Bench) -> dict[str, tuple[str, str]]:
    return {one.work: (one.origin, one.because) for one in proposals(bench.assess())}


def test_a_finding_that_asks_for_work_proposes_the_usual_one_and_a_thing_to_watch_none() -> None:
    bench = Bench().found("seams", "seam_open").found("tailpiece", "tailgut_long")
    assert proposed(bench) == {"seam_glued": ("finding", "seam_open")}


def test_a_neck_that_points_aside_is_mended_by_a_reset() -> None:
    assert proposed(Bench().found("neck", "neck_to_treble")) == {"neck_reset": ("finding", "neck_to_treble")}


def test_heights_over_their_band_propose_the_crown_and_heights_in_it_nothing() -> None:
    heights = Bench().aims("end_height")
    card: dict[MeasureCode, tuple[float, ...]] = {
        "slot_depth": (0.3, 0.3, 0.25, 0.2),
        "projection": (27.0,),
        "string_length": (328.0,),
    }
    for over, works in ((0.0, set()), (1.5, {"crown_cut"})):
        bench = Bench().read("end_height", *(aim + over for aim in heights)).read("nut_height", 0.5, 0.45, 0.4, 0.35)
        for measure, values in card.items():
            bench.read(measure, *values)
        found = proposed(bench)
        assert set(found) == works
        assert all(origin in ("reading", "decision") for origin, _ in found.values())


def test_each_work_is_proposed_once_by_the_first_that_speaks_for_it() -> None:
    bench = Bench().found("pegs", "peg_slips", "peg_in_wrong_hole").found("seams", "seam_open")
    found = proposals(bench.assess())
    assert len({one.work for one in found}) == len(found)
    assert Proposal("seam_glued", "finding", "seam_open") in found


def test_a_reading_proposes_what_mends_it_on_the_side_that_it_is_off_to() -> None:
    """Nut slots over their band are filed; under it nothing is filed, and in it nothing is proposed."""
    for over, works in ((0.0, set()), (0.3, {"nut_filed"}), (-0.1, set())):
        found = {work for work, (origin, _) in proposed(measured(nut_over=over)).items() if origin == "reading"}
        assert found == works, over
