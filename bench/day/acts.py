"""What hands do in a day, by the keys and clicks of the real interface. An act says what it means to the ledger."""

from __future__ import annotations

import random
from collections.abc import Callable

from playwright.sync_api import Locator, Page

from bench.day.ledger import Ledger

Act = Callable[["Day"], None]
ROUTER = "document.querySelector('#app').__vue_app__.config.globalProperties.$router"
STRING_LENGTHS = {"RW-102": 328, "RW-104": 371, "RW-105": 348, "RW-106": 690, "RW-108": 1052, "RW-110": 328}
"""Of instruments in the house, with strings: a left-handed violin, violas, a cello, a bass."""
TICKETS = tuple(STRING_LENGTHS)
KINDS = ("strings", "sound", "bridge", "buzz", "recheck")


class Day:
    """One walk: its page, its chance, its ledger."""

    def __init__(self, pages: list[Page], chance: random.Random, ledger: Ledger, *, goes_away: float) -> None:
        """goes_away : how likely the server is away as something is pressed that waits for it."""
        self.pages, self.chance, self.ledger = pages, chance, ledger
        self.page = pages[0]
        self._count = 0
        self._goes_away = goes_away
        self.is_away = False

    def mark(self, what: str) -> str:
        """A text that stands in no other entry."""
        self._count += 1
        return f"{what} {self._count:05d}"

    def ticket(self) -> str:
        return self.chance.choice(TICKETS)

    def go(self, path: str) -> None:
        """As a link does: the application is not loaded again."""
        self.page.evaluate(f"path => {ROUTER}.push(path).then(() => null, () => null)", path)

    def press(self, button: Locator, *, waits: bool = True) -> None:
        """Once, or as a hand does that is not sure: twice; now and then while the server says nothing.

        waits : what is pressed waits in the browser until the server is there again.
        """
        self.is_away = waits and self.chance.random() < self._goes_away
        if self.chance.random() < 0.3:
            button.dblclick(timeout=4000)
        else:
            button.click(timeout=4000)
        if self.is_away:
            self.page.wait_for_timeout(self.chance.uniform(200, 1500))
            self.is_away = False

    def settle(self) -> None:
        """Go on at once, or wait a while, or leave the page as soon as it was pressed."""
        how = self.chance.random()
        if how < 0.35:
            self.page.wait_for_timeout(self.chance.uniform(50, 600))
        elif how < 0.6:
            self.go(f"/bench/{self.ticket()}{self.chance.choice(('', '/history', '/sound', '/belongings', '/plan'))}")


def in_form(day: Day, name: str) -> Locator:
    return day.page.get_by_role("form", name=name)


def arrive(day: Day) -> None:
    owner, kind = day.mark("Owner"), day.chance.choice(KINDS)
    day.page.get_by_role("button", name="New arrival").click()
    dialog = day.page.get_by_role("dialog")
    field = dialog.get_by_label("Owner or fleet")
    field.wait_for()
    if day.chance.random() < 0.3:
        # Looked at, and shut again.
        day.page.keyboard.press("Escape")
        dialog.wait_for(state="hidden")
        return
    dialog.get_by_role("combobox", name="What for").focus()
    day.page.keyboard.press("Enter")
    day.page.get_by_role("option", name=kind, exact=True).last.click()
    field.fill(owner)
    day.ledger.enter("arrival", owner, "", kind=kind, description="")
    day.press(dialog.get_by_role("button", name="Add instrument"))
    dialog.wait_for(state="hidden")


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


def put_in(day: Day) -> None:
    label, place = day.mark("blank"), day.chance.choice(("", "drawer 7"))
    day.go("/drawers")
    day.page.get_by_role("button", name="Put something in").click()
    dialog = day.page.get_by_role("dialog")
    dialog.get_by_label("Name").fill(label)
    dialog.get_by_label("width over the feet").fill("41")
    if place:
        dialog.get_by_label("Where it lies").fill(place)
    day.ledger.enter("item", label, "", kind="bridge_blank", place=place, supplier="")
    day.press(dialog.locator("button[type=submit]"), waits=False)
    dialog.wait_for(state="hidden")


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


def ask_for(day: Day) -> None:
    """The shop's checklist gets another point."""
    label, how = day.mark("look at"), day.chance.choice(("", "by lamp"))
    day.go("/closing-points")
    day.page.get_by_role("button", name="Add a point").click()
    form = day.page.locator("form.form")
    form.get_by_label("what is looked at").fill(label)
    if how:
        form.get_by_label("how", exact=True).fill(how)
    day.ledger.enter("point", label, "", look=how, means="")
    day.press(form.get_by_role("button", name="Save point"), waits=False)


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


def ask(day: Day) -> None:
    """A question about the house is kept under a name."""
    name, words = day.mark("asked"), day.chance.choice(("cellos", "violins", "violas"))
    day.go("/ask")
    day.page.get_by_role("combobox", name="Question about the house").fill(words)
    day.page.keyboard.press("Enter")
    field = day.page.get_by_label("Name to keep this question")
    field.fill(name)
    day.ledger.enter("question", name, "", words=words)
    day.press(day.page.get_by_role("button", name="Keep question"), waits=False)


ACTS: dict[str, Act] = {
    "arrive": arrive, "read": read, "rate": rate, "belong": belong, "approve": approve, "plan": plan, "move": move,
    "tune": tune, "follow": follow, "look_over": look_over, "put_in": put_in, "string_up": string_up, "find": find,
    "check_off": check_off, "decide": decide, "ask": ask, "work": work, "ask_for": ask_for,
}  # fmt: skip
WEIGHTS = {"read": 4, "rate": 3, "belong": 3, "arrive": 2}
"""How often each comes; once where it is not said."""
