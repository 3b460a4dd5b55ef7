"""Acts that belong to the shop: who arrives, its drawers, its points and questions."""

from __future__ import annotations

from bench.day.hands import Act, Day

KINDS = ("strings", "sound", "bridge", "buzz", "recheck")


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


ACTS: dict[str, Act] = {act.__name__: act for act in (arrive, put_in, ask_for, ask)}
