"""Codes are types: a misspelt one is refused by the type checker, and raises where it runs all the same.

Each line of `MISSPELT` says that mypy refuses it. Where mypy let it pass, it would call the comment unused.
"""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

import pytest
from fidicula.cli.codes import as_python, as_typescript
from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.assessment.held import single_known_to
from fidicula.judgement.assessment.workflow import rest_at, resting
from fidicula.judgement.instruction.amounts import told
from fidicula.judgement.measures import said_of_all
from fidicula.tables.figures import figure_measures
from fidicula.tables.measures import measures
from fidicula.tables.parts import parts
from fidicula.tables.pricing import jobs, work_steps
from fidicula.tables.schools import questions as target_questions
from fidicula.tables.signs import computed_signs, findings, items, sign_code
from fidicula.tables.work import tools, works
from fidicula.tables.workflow import instructions, questions, steps, steps_for, visit_kinds
from fidicula.words.instructions import record_label

from .scenario import measured

MISSPELT: list[Callable[[Assessment], object]] = [
    lambda a: a.state.held("nut_hieght", 0),  # type: ignore[arg-type]
    lambda a: a.state.held("end_heigth", 0),  # type: ignore[arg-type]
    lambda a: a.state.held("projektion"),  # type: ignore[arg-type]
    lambda a: a.state.known("string_lenght"),  # type: ignore[arg-type]
    lambda a: a.state.known("bar_inest"),  # type: ignore[arg-type]
    lambda a: a.state.read_or_figure("bridge_waste"),  # type: ignore[arg-type]
    lambda a: a.state.read_or_figure("fingerboard_width", 1, figure="fingerboard_widht_end"),  # type: ignore[arg-type]
    lambda a: a.state.usual(("slot_detph", 1)),  # type: ignore[arg-type]
    lambda a: a.state.wanted(("nut_spraed", None)),  # type: ignore[arg-type]
    lambda a: a.state.wanted_upright(("stop_lenght", 0)),  # type: ignore[arg-type]
    lambda a: a.state.name(("projecton", None)),  # type: ignore[arg-type]
    lambda a: a.state.targets.figure("relief_bas"),  # type: ignore[arg-type]
    lambda a: a.state.targets.figure("post_diametre"),  # type: ignore[arg-type]
    lambda _: said_of_all("humiditty"),  # type: ignore[arg-type]
    lambda _: measures()["afterlenght"],  # type: ignore[index]
    lambda _: figure_measures()["break_angel"],  # type: ignore[index]
    lambda _: single_known_to("nut_height", "calliper"),  # type: ignore[arg-type]
    lambda _: tools()["wegde"],  # type: ignore[index]
    lambda a: a.question("post_falen"),  # type: ignore[arg-type]
    lambda a: a.question("projeciton"),  # type: ignore[arg-type]
    lambda _: questions()["crak"],  # type: ignore[index]
    lambda _: target_questions()["nut_hieght"],  # type: ignore[index]
    lambda a: a.state.targets.schools["bridge_palce"],  # type: ignore[index]
    lambda a: a.barring("crown_ct"),  # type: ignore[arg-type]
    lambda a: resting(a.state, "slot_filled_", a.now),  # type: ignore[arg-type]
    lambda _: works()["nut_fild"],  # type: ignore[index]
    lambda _: jobs()["neck_rest"],  # type: ignore[index]
    lambda _: work_steps()["seam_glud"],  # type: ignore[index]
    lambda _: record_label("brigde_moved"),  # type: ignore[arg-type]
    lambda a: told(a, "cut_crwn"),  # type: ignore[arg-type]
    lambda a: told(a, "file_solts"),  # type: ignore[arg-type]
    lambda _: instructions()["turn_weels"],  # type: ignore[index]
    lambda a: rest_at(a.state, "mesure", a.now),  # type: ignore[arg-type]
    lambda _: steps()["setled"],  # type: ignore[index]
    lambda _: visit_kinds()["full_setup"],  # type: ignore[index]
    lambda _: findings()["seam_opne"],  # type: ignore[index]
    lambda _: items()["f_hole"],  # type: ignore[index]
    lambda _: computed_signs()["cam_damp"],  # type: ignore[index]
    lambda _: parts()["brigde"],  # type: ignore[index]
    lambda _: steps_for("crown_kut"),  # type: ignore[arg-type]
    lambda _: sign_code("ends_hihg"),
]
"""The last one takes any text: it is where a text becomes a code."""


@pytest.mark.parametrize("misspelt", MISSPELT, ids=map(str, range(len(MISSPELT))))
def test_a_misspelt_code_raises(misspelt: Callable[[Assessment], object]) -> None:
    with pytest.raises(KeyError):
        misspelt(measured(over=1.0).assess())


def test_the_types_are_those_of_the_tables(root: Path) -> None:
    """After a new row: ./fidicula codes."""
    assert (root / "backend" / "src" / "fidicula" / "codes.py").read_text(encoding="utf-8") == as_python()
    assert (root / "frontend" / "src" / "api" / "codes.ts").read_text(encoding="utf-8") == as_typescript()
