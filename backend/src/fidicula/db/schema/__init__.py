"""The tables. What people write down is a log: lines are added and taken back, never overwritten."""

from __future__ import annotations

from fidicula.db.schema.asking import last_read, question_entry
from fidicula.db.schema.base import NATURAL, metadata
from fidicula.db.schema.belongings import belonging
from fidicula.db.schema.bench import (
    course_mark,
    decision,
    hand_repeats,
    particular,
    photo,
    reading,
    retuning,
    seen,
    tool_check,
    work_done,
)
from fidicula.db.schema.damage import damage, damage_signed
from fidicula.db.schema.house import entry, instrument, instrument_change, string_of_set, string_set, visit
from fidicula.db.schema.leaving import addition, point_check, point_entry, seal
from fidicula.db.schema.people import audit_entry, browser, guess, person, sign_in
from fidicula.db.schema.plan import (
    approval,
    document,
    document_series,
    payment,
    plan_discount,
    plan_line,
    plan_part,
    plan_time,
    shop_entry,
    stock_entry,
    stock_item,
)
from fidicula.db.schema.shop import (
    figure_entry,
    own_size,
    recipe_entry,
    rules_stamp,
    shelf_entry,
    shop_recipe,
    target_choice,
)
from fidicula.db.schema.sound import blind_trial, heard, player_session, post_entry, recording

__all__ = [
    "NATURAL",
    "addition",
    "approval",
    "audit_entry",
    "belonging",
    "blind_trial",
    "browser",
    "course_mark",
    "damage",
    "damage_signed",
    "decision",
    "document",
    "document_series",
    "entry",
    "figure_entry",
    "guess",
    "hand_repeats",
    "heard",
    "instrument",
    "instrument_change",
    "last_read",
    "metadata",
    "own_size",
    "particular",
    "payment",
    "person",
    "photo",
    "plan_discount",
    "plan_line",
    "plan_part",
    "plan_time",
    "player_session",
    "point_check",
    "point_entry",
    "post_entry",
    "question_entry",
    "reading",
    "recipe_entry",
    "recording",
    "retuning",
    "rules_stamp",
    "seal",
    "seen",
    "shelf_entry",
    "shop_entry",
    "shop_recipe",
    "sign_in",
    "stock_entry",
    "stock_item",
    "string_of_set",
    "string_set",
    "target_choice",
    "tool_check",
    "visit",
    "work_done",
]
