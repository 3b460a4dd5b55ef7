"""Acts at one instrument: its card and pages, its look, plan and hand-over."""

from __future__ import annotations

from playwright.sync_api import Locator

from bench.day.hands import STRING_LENGTHS, Act, Day, in_form


def read(day: Day) -> None:
    """Several readings on the card or page by page, as fast as a caliper sends them; some of them repeats.

    The last of them perhaps undone, and perhaps that undone again.
    """
    ticket = day.ticket()
    day.go(f"/bench/{ticket}{day.chance.choice(('', '/measure'))}")
    cell = day.page.locator("[aria-label^='string length:']").first
    cell.wait_for()
    repeats = False
    for _ in range(day.chance.randint(1, 4)):
        if not repeats:
            cell.click()
        day.page.locator("input[data-reading][aria-label^='string length:']").wait_for()
        typed = f"{STRING_LENGTHS[ticket] + len(day.ledger.entries) / 10_000:.4f}"
        entry = day.ledger.enter("reading", typed, ticket, measure="string_length", undone=False, repeats=repeats)
        day.page.keyboard.type(typed)
        repeats = day.chance.random() < 0.2
        day.page.keyboard.press("Shift+Enter" if repeats else "Enter")
        if day.page.get_by_role("alert").filter(has_text="keep").count():
            day.page.keyboard.press("k")
    if day.chance.random() < 0.25:
        day.page.wait_for_timeout(700)
        day.page.keyboard.press("Space")
        day.page.keyboard.press("u")
        entry.fields["undone"] = True
        day.page.wait_for_timeout(500)
        if day.chance.random() < 0.5:
            day.page.keyboard.press("Space")
            day.page.keyboard.press("/")
            entry.fields["undone"] = False
            day.page.wait_for_timeout(500)


def rate(day: Day) -> None:
    ticket = day.ticket()
    day.go(f"/bench/{ticket}/sound")
    day.page.get_by_role("button", name="Rate the sound").first.click()
    form = in_form(day, "Rate the sound")
    form.wait_for()
    if day.chance.random() < 0.2:
        form.get_by_role("button", name="Cancel").click()
        return
    remark, word = day.mark("heard"), day.chance.choice(("open", "closed", "bright", ""))
    if word and form.get_by_role("button", name=word, exact=True).count():
        form.get_by_role("button", name=word, exact=True).click()
    else:
        word = ""
    form.locator("textarea").fill(remark)
    day.ledger.enter("rating", remark, ticket, words=[word] if word else [], rated={})
    day.press(form.get_by_role("button", name="Save rating"))


def belong(day: Day) -> None:
    ticket, which = day.ticket(), day.mark("thing")
    day.go(f"/bench/{ticket}/belongings")
    form = in_form(day, "A thing")
    form.wait_for()
    form.locator("select[name=kind]").select_option("tailpiece")
    material = day.mark("wood") if day.chance.random() < 0.4 else ""
    form.locator("input[name=which]").fill(which)
    if material:
        form.locator("input[name=material]").fill(material)
    day.ledger.enter("belonging", which, ticket, kind="tailpiece", lies="", material=material)
    day.press(day.page.get_by_role("button", name="Write it down"))


def mark_damage(day: Day) -> None:
    """What moves nothing and bars nothing; a mark that is there already is perhaps looked at again."""
    ticket, words = day.ticket(), day.mark("dented")
    day.go(f"/bench/{ticket}/damage")
    form = in_form(day, "Mark damage")
    form.wait_for()
    again = day.page.get_by_role("button", name="Look again at ").filter(visible=True)
    is_again = again.count() > 0 and day.chance.random() < 0.4
    if is_again:
        again.first.click()
        face, along = form.locator("select[name=face]").input_value(), form.locator("input[name=along]").input_value()
    else:
        face, along = day.chance.choice(("front", "back")), str(day.chance.randint(20, 200))
        form.locator("select[name=kind]").select_option("dent")
        form.locator("select[name=face]").select_option(face)
        form.locator("input[name=along]").fill(along)
        form.get_by_role("radio", name="does not move").check()
    is_tight = day.chance.random() < 0.3
    if is_tight:
        form.get_by_role("checkbox", name="seen under tension").check()
    form.locator("input[name=words]").fill(words)
    day.ledger.enter(
        "damage", words, ticket, kind="dent", face=face, state="stable", along=float(along), under_tension=is_tight
    )
    day.press(day.page.locator("button.main-act"))


def approve(day: Day) -> None:
    words = day.mark("agreed")
    day.go("/bench/RW-110/plan")
    day.page.get_by_role("main").first.wait_for()
    day.page.wait_for_timeout(300)
    day.page.keyboard.press("Space")
    day.page.keyboard.press("Space")
    day.page.keyboard.press("a")
    dialog = day.page.get_by_role("dialog")
    field = dialog.get_by_label("In their words")
    field.wait_for(timeout=3000)
    if day.chance.random() < 0.3:
        day.page.keyboard.press("Escape")
        dialog.wait_for(state="hidden")
        return
    field.fill(words)
    day.ledger.enter("approval", words, "RW-110", how="in_person", signed=False)
    day.press(dialog.get_by_role("button", name="Record approval"), waits=False)
    dialog.wait_for(state="hidden")


def plan(day: Day) -> None:
    ticket, because = day.ticket(), day.mark("found")
    day.go(f"/bench/{ticket}/plan")
    form = day.page.locator("form.other")
    form.wait_for()
    works = [one.get_attribute("value") or "" for one in form.locator("select option").all()]
    work = day.chance.choice([one for one in works if one])
    form.locator("select").select_option(work)
    form.get_by_label("found underway").fill(because)
    day.ledger.enter("plan_line", because, ticket, work=work)
    day.press(form.get_by_role("button", name="Add to the plan"), waits=False)


def move(day: Day) -> None:
    ticket, words, taps = "RW-102", day.mark("tapped"), day.chance.choice((1, 2, 3))
    day.go(f"/bench/{ticket}/sound")
    day.page.get_by_role("button", name="Move the post").first.click()
    form = in_form(day, "Move the post")
    form.wait_for()
    form.get_by_label("top", exact=True).check()
    form.get_by_label("toward the bridge").check()
    form.get_by_label("taps").fill(str(taps))
    form.get_by_label("To remember").fill(words)
    day.ledger.enter("move", words, ticket, taps=str(float(taps)), end="top")
    if day.chance.random() < 0.3:
        form.get_by_label("taps").press("Enter")
        form.get_by_label("taps").press("Enter")
    else:
        day.press(form.get_by_role("button", name="Record post move"))


def tune(day: Day) -> None:
    """One string is left blank."""
    ticket, remark = "RW-105", day.mark("tuned")
    day.go(f"/bench/{ticket}/page/strings")
    button = day.page.get_by_role("button", name="Tuned again")
    button.wait_for()
    if not in_form(day, "Tuned again").count():
        button.click()
    form = in_form(day, "Tuned again")
    form.wait_for()
    form.get_by_label("E", exact=True).fill("-8")
    form.get_by_label("To remember").fill(remark)
    day.ledger.enter("retuning", remark, ticket)
    day.press(form.get_by_role("button", name="Save tuning"))


def follow(day: Day) -> None:
    ticket, reason = day.ticket(), day.mark("wanted")
    day.go(f"/bench/{ticket}/recipe")
    radios = day.page.get_by_role("main").get_by_role("radio")
    radios.first.wait_for()
    other = [one for one in radios.all()[:4] if not one.is_checked()]
    day.chance.choice(other).check()
    apply = day.page.get_by_role("button", name="Apply")
    apply.wait_for(timeout=3000)
    day.page.get_by_label("reason").fill(reason)
    day.ledger.enter("recipe", reason, ticket)
    day.press(apply)
    day.page.wait_for_timeout(300)


def look_over(day: Day) -> None:
    ticket, words = day.ticket(), day.mark("seen")
    day.go(f"/bench/{ticket}/look?item=pegs")
    day.page.locator("[data-item=pegs][aria-current]").wait_for()
    form = day.page.locator("section.hand form")
    form.locator("input[value=watch]").check()
    form.locator("textarea").first.fill(words)
    day.ledger.enter("inspection", words, ticket, verdict="watch", item="pegs")
    day.press(form.get_by_role("button", name="Save and next item"))


def string_up(day: Day) -> None:
    """Strings of a set that the shelf does not have: on it already, or put on just now."""
    ticket, name = day.chance.choice(("RW-104", "RW-106", "RW-108")), day.mark("set")
    day.go(f"/bench/{ticket}/page/strings")
    day.page.get_by_role("button", name="Change strings").or_(
        day.page.get_by_role("button", name="Name strings")
    ).click()
    dialog = day.page.get_by_role("dialog")
    own = dialog.get_by_label("another set: type its diameters")
    own.wait_for()
    if day.chance.random() < 0.3:
        dialog.get_by_role("button", name="Cancel").click()
        dialog.wait_for(state="hidden")
        return
    own.check()
    dialog.get_by_label("Name of the set").fill(name)
    fields = dialog.get_by_role("textbox", name="diameter in mm")
    fields.first.wait_for()
    for i in range(fields.count()):
        fields.nth(i).fill(f"{0.9 - i * 0.1:.2f}")
    now = day.chance.random() < 0.5
    dialog.get_by_label("they were put on just now").set_checked(now)
    day.ledger.enter("stringing", name, ticket, put_on_now=now, material="synthetic", since=None)
    day.press(dialog.get_by_role("button", name="These strings"))
    dialog.wait_for(state="hidden")


def find(day: Day) -> None:
    """A finding beside its words, and nothing of what was found at the last instrument."""
    ticket, words, item = day.ticket(), day.mark("crack"), day.chance.choice(("seams", "board", "nut"))
    day.go(f"/bench/{ticket}/look?item={item}")
    day.page.locator(f"[data-item={item}][aria-current]").wait_for()
    form = day.page.locator("section.hand form")
    boxes = form.locator("fieldset.findings input")
    for i in range(boxes.count()):
        boxes.nth(i).set_checked(i == 0)
    form.locator("input[value=work]").check()
    form.locator("textarea").first.fill(words)
    day.ledger.enter("inspection", words, ticket, verdict="work", item=item, found=1)
    day.press(form.get_by_role("button", name="Save and next item"))


def check_off(day: Day) -> None:
    """A point of the checklist is not right; before, perhaps words were typed at another instrument and left."""
    ticket, words, point = day.ticket(), day.mark("rattles"), day.chance.choice(("pitch:cracks", "pitch:at_pitch"))
    if day.chance.random() < 0.3:
        field = _not_right(day, day.ticket(), point)
        field.fill(day.mark("left unsaid"))
    field = _not_right(day, ticket, point)
    field.fill(words)
    day.ledger.enter("check", words, ticket, point=point.removeprefix("pitch:"), verdict="not_right")
    day.press(day.page.locator(f"[data-point='{point}'] form button[type=submit]"), waits=False)


def work(day: Day) -> None:
    """Other work in somebody's own words; the form is perhaps shut and opened again in between."""
    ticket, words = day.ticket(), day.mark("planed")
    day.go(f"/bench/{ticket}")
    day.page.get_by_role("group", name="Bench card").wait_for()
    dialog = day.page.get_by_role("dialog")
    for _ in range(day.chance.choice((1, 1, 2))):
        if dialog.count():
            day.page.keyboard.press("Escape")
            dialog.wait_for(state="hidden")
        day.page.keyboard.press("Space")
        day.page.keyboard.press("k")
        dialog.get_by_role("radio", name="Other work").check()
        dialog.get_by_label("What was done").fill(words)
    day.ledger.enter("other_work", words, ticket)
    day.press(dialog.get_by_role("button", name="Save"))


def _not_right(day: Day, ticket: str, point: str) -> Locator:
    day.go(f"/bench/{ticket}/leave")
    row = day.page.locator(f"[data-point='{point}']")
    row.wait_for()
    row.get_by_role("button", name="Not right").click()
    return row.get_by_role("textbox")


def decide(day: Day) -> None:
    """A question at the bench is answered with its reason, if one stands open."""
    ticket, reason = day.ticket(), day.mark("because")
    day.go(f"/bench/{ticket}")
    day.page.get_by_role("group", name="Bench card").wait_for()
    forms = day.page.locator("#questions form.question")
    if not forms.count():
        return
    form = forms.nth(day.chance.randrange(forms.count()))
    if form.locator(".head").get_attribute("aria-expanded") != "true":
        form.locator(".head").click()
    answers = form.get_by_role("radio")
    answers.first.wait_for()
    answer = answers.nth(day.chance.randrange(answers.count()))
    answer.check()
    outcome = answer.get_attribute("value") or ""
    form.locator(".reason input").fill(reason)
    day.ledger.enter("decision", reason, ticket, outcome=outcome)
    day.press(form.locator("button[type=submit]"))
    day.page.wait_for_timeout(300)


ACTS: dict[str, Act] = {
    act.__name__: act
    for act in (
        read,
        rate,
        belong,
        mark_damage,
        approve,
        plan,
        move,
        tune,
        follow,
        look_over,
        string_up,
        find,
        check_off,
        work,
        decide,
    )
}
