"""The tables. What people write down is a log: lines are added and taken back, never overwritten."""

from __future__ import annotations

from sqlalchemy import (
    ARRAY,
    BigInteger,
    Boolean,
    CheckConstraint,
    Column,
    Computed,
    Date,
    DateTime,
    Double,
    ForeignKey,
    Identity,
    Index,
    LargeBinary,
    MetaData,
    Sequence,
    SmallInteger,
    Table,
    Text,
    UniqueConstraint,
    Uuid,
    func,
    text,
)
from sqlalchemy.dialects import postgresql
from sqlalchemy.dialects.postgresql import JSONB

metadata = MetaData(
    naming_convention={
        "ix": "ix_%(table_name)s_%(column_0_N_name)s",
        "uq": "uq_%(table_name)s_%(column_0_N_name)s",
        "ck": "ck_%(table_name)s_%(constraint_name)s",
        "fk": "fk_%(table_name)s_%(column_0_N_name)s_%(referred_table_name)s",
        "pk": "pk_%(table_name)s",
    }
)

NATURAL = "natural_order"
"""A collation that sorts RW-9 before RW-10."""


def _now(name: str) -> Column[object]:
    return Column(name, DateTime(timezone=True), nullable=False, server_default=func.now())


string_set = Table(
    "string_set",
    metadata,
    Column("id", Uuid, primary_key=True),
    Column("name", Text, nullable=False),
    Column("family", Text, nullable=False),
    Column("material", Text, nullable=False),
    # Put together on an instrument, string by string; not on the shelf.
    Column("is_mixed", Boolean, nullable=False, server_default="false"),
    _now("created_at"),
    UniqueConstraint("name", "family"),
)

string_of_set = Table(
    "string_of_set",
    metadata,
    Column("string_set_id", Uuid, ForeignKey("string_set.id", ondelete="CASCADE"), primary_key=True),
    Column("position", SmallInteger, primary_key=True),
    Column("name", Text, nullable=False),
    Column("diameter", Double, nullable=False),
    Column("tension", Double),
    Column("linear_density", Double),
    CheckConstraint("diameter > 0", name="diameter_above_0"),
)

instrument = Table(
    "instrument",
    metadata,
    Column("id", Uuid, primary_key=True),
    Column("ticket", Text(collation=NATURAL), nullable=False, unique=True),
    Column("family", Text, nullable=False),
    Column("size", Text, nullable=False),
    Column("string_names", ARRAY(Text), nullable=False),
    Column("left_handed", Boolean, nullable=False, server_default="false"),
    Column("opposite_build", Boolean, nullable=False, server_default="false"),
    Column("is_new", Boolean, nullable=False, server_default="false"),
    Column("is_fleet", Boolean, nullable=False, server_default="false"),
    Column("owner", Text, nullable=False, server_default=""),
    Column("description", Text, nullable=False, server_default=""),
    Column("contact", Text, nullable=False, server_default=""),
    Column("plays", Text, nullable=False, server_default=""),
    Column("label_read", Text, nullable=False, server_default=""),
    Column("believed", Text, nullable=False, server_default=""),
    Column("worth", Text, nullable=False, server_default=""),
    Column("left_as_found", Text, nullable=False, server_default=""),
    # What it is found by while typing, in small letters: telling capitals apart takes longer than looking.
    Column(
        "known_by",
        Text,
        Computed("lower(ticket COLLATE \"default\" || ' ' || owner || ' ' || description)", persisted=True),
    ),
    _now("created_at"),
    # Of its newest visit; a trigger of the database keeps it.
    Column("last_opened_at", DateTime(timezone=True)),
    Index("ix_instrument_last_opened_at", text("last_opened_at DESC"), "ticket"),
    Index("ix_instrument_known_by", "known_by", postgresql_using="gin", postgresql_ops={"known_by": "gin_trgm_ops"}),
    CheckConstraint("cardinality(string_names) BETWEEN 3 AND 6", name="three_to_six_strings"),
)

_RAIL_STAMP = Sequence("rail_stamp", metadata=metadata)

visit = Table(
    "visit",
    metadata,
    Column("id", Uuid, primary_key=True),
    Column("instrument_id", Uuid, ForeignKey("instrument.id"), nullable=False, index=True),
    Column("kind", Text, nullable=False),
    Column("complaint", Text, nullable=False, server_default=""),
    _now("opened_at"),
    Column("closed_at", DateTime(timezone=True)),
    Column("closed_by", Text),
    Column("climate", Text, nullable=False, server_default=""),
    Column("deadline", Date),
    Column("freeze_days", SmallInteger, nullable=False, server_default="3"),
    Column("promised", Date),
    Column("instruction", Text, nullable=False, server_default=""),
    Column("subject", Text, nullable=False, server_default=""),
    Column("waits_for", Text, nullable=False, server_default=""),
    Column("waits_until", DateTime(timezone=True)),
    # Changes with everything that stands on the tag: triggers of the database keep it.
    Column("stamp", BigInteger, _RAIL_STAMP, nullable=False, server_default=_RAIL_STAMP.next_value()),
    Index("ix_visit_stamp", "stamp", postgresql_where=text("closed_at IS NULL")),
    # An instrument is in the house once.
    Index("uq_visit_open", "instrument_id", unique=True, postgresql_where=text("closed_at IS NULL")),
    CheckConstraint("climate IN ('', 'damp', 'dry')", name="climate_known"),
    CheckConstraint("freeze_days BETWEEN 0 AND 60", name="freeze_days_0_to_60"),
)

work_done = Table(
    "work_done",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False, index=True),
    Column("work", Text, nullable=False),
    Column("done_by", Text, nullable=False),
    _now("done_at"),
    Column("detail", JSONB, nullable=False, server_default="{}"),
    Column("string_set_id", Uuid, ForeignKey("string_set.id")),
    Column("taken_back_at", DateTime(timezone=True)),
    Column("taken_back_by", Text),
)

reading = Table(
    "reading",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False),
    Column("measure", Text, nullable=False),
    Column("position", SmallInteger),
    Column("typed", Text, nullable=False),
    Column("value", Double, nullable=False),
    Column("tool", Text, nullable=False),
    Column("direction", Text),
    Column("taken_by", Text, nullable=False),
    Column("taken_at", DateTime(timezone=True), nullable=False),
    _now("recorded_at"),
    Column("after_work", BigInteger, ForeignKey("work_done.number")),
    Column("corrected_by", BigInteger, ForeignKey("reading.number"), index=True),
    Column("repeats", Boolean, nullable=False, server_default="false"),
    Column("doubt", Text),
    Column("doubt_about", Double),
    Column("suggested", Double),
    Column("simulated", Boolean, nullable=False, server_default="false"),
    Column("confirmed_at", DateTime(timezone=True)),
    Column("confirmed_by", Text),
    Column("taken_back_at", DateTime(timezone=True)),
    Column("taken_back_by", Text),
    Index("ix_reading_visit_id_number", "visit_id", "number"),
    CheckConstraint("doubt IN ('small', 'large', 'impossible', 'changed', 'leap')", name="doubt_known"),
)

figure_entry = Table(
    "figure_entry",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("family", Text, nullable=False),
    Column("size", Text, nullable=False),
    Column("measure", Text, nullable=False),
    Column("question", Text, nullable=False),
    Column("school", Text, nullable=False),
    Column("low", Double),
    Column("aim", Double),
    Column("high", Double),
    Column("source", Text, nullable=False),
    Column("confirmed_by", Text),
    Column("withdrawn", Boolean, nullable=False, server_default="false"),
    Column("entered_by", Text, nullable=False),
    _now("entered_at"),
    Index("ix_figure_entry_key", "family", "size", "measure", "question", "school", "number"),
)

recipe_entry = Table(
    "recipe_entry",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("family", Text, nullable=False),
    Column("name", Text, nullable=False),
    Column("schools", JSONB, nullable=False),
    Column("retired", Boolean, nullable=False, server_default="false"),
    Column("entered_by", Text, nullable=False),
    _now("entered_at"),
    Index("ix_recipe_entry_family_name_number", "family", "name", "number"),
)

shop_recipe = Table(
    "shop_recipe",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("family", Text, nullable=False, index=True),
    Column("recipe", Text, nullable=False),
    Column("entered_by", Text, nullable=False),
    _now("entered_at"),
)

target_choice = Table(
    "target_choice",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("instrument_id", Uuid, ForeignKey("instrument.id"), nullable=False),
    Column("recipe", Text),
    Column("schools", JSONB, nullable=False, server_default="{}"),
    Column("sources", JSONB, nullable=False, server_default="{}"),
    Column("reason", Text, nullable=False, server_default=""),
    Column("chosen_by", Text, nullable=False),
    _now("chosen_at"),
    Column("taken_back_at", DateTime(timezone=True)),
    Column("taken_back_by", Text),
    Index("ix_target_choice_instrument_id_number", "instrument_id", "number"),
)

rules_stamp = Table(
    "rules_stamp",
    metadata,
    # One row. Triggers change it with whatever the shop goes by: its lock lets one such commit follow the other, and
    # what was rolled back is never given out again.
    Column("is_it", Boolean, primary_key=True, server_default="true"),
    Column("stamp", BigInteger, nullable=False, server_default="0"),
    CheckConstraint("is_it", name="one_row"),
)

person = Table(
    "person",
    metadata,
    Column("id", Uuid, primary_key=True),
    Column("name", Text, nullable=False),
    Column("role", Text, nullable=False),
    Column("password_hash", Text),
    Column("pin_hash", Text),
    Column("active", Boolean, nullable=False, server_default="true"),
    _now("created_at"),
    CheckConstraint("role IN ('owner', 'luthier', 'apprentice', 'desk')", name="role_known"),
)
Index("uq_person_lower_name", func.lower(person.c.name), unique=True)

browser = Table(
    "browser",
    metadata,
    Column("id", Uuid, primary_key=True),
    Column("token_hash", LargeBinary, nullable=False, unique=True),
    Column("name", Text, nullable=False),
    # Over the workshop's network, by the code; else on this computer itself.
    Column("is_paired", Boolean, nullable=False, server_default="false"),
    # Who signed in here with a password before.
    Column("known_people", postgresql.ARRAY(Uuid), nullable=False, server_default="{}"),
    _now("created_at"),
    _now("last_seen_at"),
    Column("revoked_at", DateTime(timezone=True)),
    Column("revoked_by", Text),
)

sign_in = Table(
    "sign_in",
    metadata,
    Column("token_hash", LargeBinary, primary_key=True),
    Column("form_token", Text, nullable=False),
    Column("person_id", Uuid, ForeignKey("person.id"), nullable=False),
    Column("at_bench_id", Uuid, ForeignKey("person.id"), nullable=False),
    Column("others_in", postgresql.ARRAY(Uuid), nullable=False, server_default="{}"),
    Column("browser_id", Uuid, ForeignKey("browser.id"), nullable=False, index=True),
    # Who gave the password again, and when.
    Column("confirmed_by", Uuid),
    Column("confirmed_at", DateTime(timezone=True)),
    Column("last_seen_at", DateTime(timezone=True), nullable=False, server_default=func.now()),
    _now("created_at"),
)

guess = Table(
    "guess",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("at_what", Text, nullable=False),
    Column("from_where", Text, nullable=False),
    _now("guessed_at"),
    Index("ix_guess_from_where_guessed_at", "from_where", "guessed_at"),
    Index("ix_guess_guessed_at", "guessed_at"),
)

audit_entry = Table(
    "audit_entry",
    metadata,
    # Triggers keep every line as it was written.
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    _now("at"),
    Column("act", Text, nullable=False),
    Column("subject", Text, nullable=False, server_default=""),
    Column("instrument_id", Uuid, ForeignKey("instrument.id")),
    Column("detail", JSONB, nullable=False, server_default="{}"),
    Column("by", Text, nullable=False),
    Column("browser", Text, nullable=False, server_default=""),
    Column("request_id", Text, nullable=False, server_default=""),
    Index("ix_audit_entry_instrument_id_number", "instrument_id", "number"),
)

decision = Table(
    "decision",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False),
    Column("question", Text, nullable=False),
    Column("outcome", Text, nullable=False),
    Column("reason", Text, nullable=False, server_default=""),
    Column("at_value", Double),
    Column("after_work", BigInteger, nullable=False, server_default="0"),
    Column("decided_by", Text, nullable=False),
    _now("decided_at"),
    Column("taken_back_at", DateTime(timezone=True)),
    Column("taken_back_by", Text),
    Index("ix_decision_visit_id_number", "visit_id", "number"),
)

seen = Table(
    "seen",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False),
    Column("item", Text, nullable=False),
    Column("verdict", Text, nullable=False),
    Column("findings", postgresql.ARRAY(Text), nullable=False, server_default="{}"),
    Column("words", Text, nullable=False, server_default=""),
    Column("seen_by", Text, nullable=False),
    _now("seen_at"),
    Column("after_work", BigInteger, nullable=False, server_default="0"),
    Column("taken_back_at", DateTime(timezone=True)),
    Column("taken_back_by", Text),
    CheckConstraint("verdict IN ('fine', 'watch', 'work', 'not_looked_at')", name="verdict_known"),
    Index("ix_seen_visit_id_number", "visit_id", "number"),
)

course_mark = Table(
    "course_mark",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False),
    Column("step", Text, nullable=False),
    Column("mark", Text, nullable=False),
    Column("reason", Text, nullable=False, server_default=""),
    Column("until", DateTime(timezone=True)),
    Column("made_by", Text, nullable=False),
    _now("made_at"),
    Column("after_work", BigInteger, nullable=False, server_default="0"),
    Column("taken_back_at", DateTime(timezone=True)),
    Column("taken_back_by", Text),
    CheckConstraint("mark IN ('done', 'passed', 'wait', 'go_on')", name="mark_known"),
    Index("ix_course_mark_visit_id_number", "visit_id", "number"),
)

particular = Table(
    "particular",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("instrument_id", Uuid, ForeignKey("instrument.id"), nullable=False),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False),
    Column("field", Text, nullable=False),
    Column("was", Text, nullable=False),
    Column("now", Text, nullable=False),
    Column("written_by", Text, nullable=False),
    _now("written_at"),
    Index("ix_particular_instrument_id_number", "instrument_id", "number"),
)

tool_check = Table(
    "tool_check",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("tool", Text, nullable=False),
    Column("checked_by", Text, nullable=False),
    _now("checked_at"),
)

shelf_entry = Table(
    "shelf_entry",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("list", Text, nullable=False),
    Column("family", Text, nullable=False),
    Column("values", ARRAY(Double), nullable=False),
    Column("entered_by", Text, nullable=False),
    _now("entered_at"),
    Index("ix_shelf_entry_family_list_number", "family", "list", "number"),
)

own_size = Table(
    "own_size",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("family", Text, nullable=False),
    Column("size", Text, nullable=False),
    Column("entered_by", Text, nullable=False),
    _now("entered_at"),
    UniqueConstraint("family", "size"),
)

photo = Table(
    "photo",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False),
    Column("item", Text, nullable=False),
    Column("words", Text, nullable=False, server_default=""),
    Column("shot", Text, nullable=False, server_default=""),
    Column("camera", Text, nullable=False, server_default=""),
    Column("width", SmallInteger, nullable=False),
    Column("height", SmallInteger, nullable=False),
    Column("jpeg", LargeBinary, nullable=False),
    Column("small", LargeBinary, nullable=False),
    Column("taken_by", Text, nullable=False),
    _now("taken_at"),
    Column("taken_back_at", DateTime(timezone=True)),
    Column("taken_back_by", Text),
    Index("ix_photo_visit_id_number", "visit_id", "number"),
)

post_entry = Table(
    "post_entry",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False, index=True),
    Column("after_work", BigInteger, nullable=False, server_default="0"),
    Column("length", Double),
    Column("diameter", Double),
    Column("wood", Text, nullable=False, server_default=""),
    Column("grain_mark", Text, nullable=False, server_default=""),
    Column("end_down", Text, nullable=False, server_default=""),
    Column("fitted_on", Date),
    Column("marks_inside", Text, nullable=False, server_default=""),
    Column("entered_by", Text, nullable=False),
    _now("entered_at"),
    Column("taken_back_at", DateTime(timezone=True)),
    Column("taken_back_by", Text),
    CheckConstraint("length > 0 AND diameter > 0", name="sizes_above_0"),
)

player_session = Table(
    "player_session",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False, index=True),
    Column("player", Text, nullable=False),
    Column("begun_by", Text, nullable=False),
    _now("begun_at"),
)

heard = Table(
    "heard",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False, index=True),
    Column("after_work", BigInteger, nullable=False, server_default="0"),
    Column("player", Text, nullable=False),
    Column("rated", JSONB, nullable=False, server_default="{}"),
    Column("player_words", postgresql.ARRAY(Text), nullable=False, server_default="{}"),
    Column("remark", Text, nullable=False, server_default=""),
    Column("written_by", Text, nullable=False),
    _now("heard_at"),
    Column("taken_back_at", DateTime(timezone=True)),
    Column("taken_back_by", Text),
    Index("ix_heard_player", "player"),
)

recording = Table(
    "recording",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False, index=True),
    Column("after_work", BigInteger, nullable=False, server_default="0"),
    Column("media_type", Text, nullable=False),
    Column("sound", LargeBinary, nullable=False),
    Column("words", Text, nullable=False, server_default=""),
    Column("recorded_by", Text, nullable=False),
    _now("recorded_at"),
    Column("taken_back_at", DateTime(timezone=True)),
    Column("taken_back_by", Text),
)

blind_trial = Table(
    "blind_trial",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False, index=True),
    Column("player", Text, nullable=False),
    Column("first_id", Uuid, ForeignKey("recording.id"), nullable=False),
    Column("second_id", Uuid, ForeignKey("recording.id"), nullable=False),
    Column("chosen", Text),
    Column("led_by", Text, nullable=False),
    _now("begun_at"),
    Column("chosen_at", DateTime(timezone=True)),
    CheckConstraint("chosen IN ('first', 'second', 'neither')", name="chosen_known"),
)

retuning = Table(
    "retuning",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False, index=True),
    Column("after_work", BigInteger, nullable=False, server_default="0"),
    Column("cents", ARRAY(Double), nullable=False),
    Column("remark", Text, nullable=False, server_default=""),
    Column("tuned_by", Text, nullable=False),
    _now("tuned_at"),
    Column("taken_back_at", DateTime(timezone=True)),
    Column("taken_back_by", Text),
)
