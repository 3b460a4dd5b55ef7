"""Every word of the front end comes from its catalogue: what stands without a pseudo-language's brackets escaped it.

What the server says is its own phrasing: it is known by having come with an answer.
"""

from __future__ import annotations

import json
import re
from typing import Any

from playwright.sync_api import Page

from .hands import command, go
from .test_every_view import VIEWS

SEEN = """() => {
  const said = []
  const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    const within = node.parentElement.closest('script, style, kbd, textarea')
    if (!within) said.push(node.textContent)
  }
  for (const node of document.querySelectorAll('*'))
    for (const name of ['aria-label', 'title', 'placeholder', 'alt'])
      if (node.hasAttribute(name)) said.push(node.getAttribute(name))
  return said
}"""
"""Texts and names as they stand on the page, hidden ones too."""

ANSWERS = """window.answers = []
window.asked = 0
const bare = window.fetch
window.fetch = async (...asked) => {
  window.asked += 1
  try {
    const answer = await bare(...asked)
    if ((answer.headers.get('content-type') ?? '').includes('json')) window.answers.push(await answer.clone().text())
    return answer
  } finally {
    window.asked -= 1
  }
}"""
"""What the server answered is kept, and how many answers are awaited."""
ALL_ANSWERED = "() => new Promise(done => setTimeout(() => done(window.asked === 0), 60))"

IN_BRACKETS = re.compile(r"⟦[^⟦⟧]*⟧")
BREAKS = re.compile(r"[^A-Za-zÀ-ž'’ /-]+")
UNITS = {"mm", "Hz", "kHz", "cents", "Fidicula", "min", "GMT"}
DAYS = re.compile(
    r"\b(Mon|Tue|Wed|Thu|Fri|Sat|Sun|Jan|Feb|Mar|Apr|May|June?|July?|Aug|Sept?|Oct|Nov|Dec)\b|"
    r"\b(January|February|March|April|August|September|October|November|December)\b"
)


def strings_of(answer: Any) -> list[str]:
    match answer:
        case str():
            return [answer]
        case dict():
            return [*answer, *(said for value in answer.values() for said in strings_of(value))]
        case list():
            return [said for value in answer for said in strings_of(value)]
        case _:
            return []


def bare(text: str) -> list[str]:
    """What of a text stands outside of brackets, in pieces without digits and marks."""
    while IN_BRACKETS.search(text):
        text = IN_BRACKETS.sub(" 0 ", text)
    pieces = (piece.strip(" -/'’") for piece in BREAKS.split(DAYS.sub(" 0 ", text)))
    return [piece for piece in pieces if re.search("[A-Za-z]{2}", piece) and piece not in UNITS and not piece.isupper()]


def test_no_word_of_the_front_end_escapes_its_catalogue(page: Page, address: str) -> None:
    page.add_init_script(ANSWERS)
    page.evaluate("localStorage.setItem('fidicula.words', 'pseudo')")
    page.goto(address)
    escaped: dict[str, list[str]] = {}
    answered = ""

    def look(where: str) -> None:
        nonlocal answered
        page.wait_for_function(ALL_ANSWERED)
        said_here = page.evaluate(SEEN)
        answers = page.evaluate("() => window.answers.splice(0)")
        answered += "\n".join(said for answer in answers for said in strings_of(json.loads(answer))).lower() + "\n"
        left = {piece for text in said_here for piece in bare(text) if piece.lower() not in answered}
        if left:
            escaped[where] = sorted(left)

    for view in [*VIEWS, "/bench/RW-105/paper", "/bench/RW-105/working-sheet", "/bench/RW-105/blank"]:
        go(page, view)
        look(view)
    for where, letters in {"/": "nvb", "/bench/RW-105": "itkuwoj"}.items():
        for letter in letters:
            go(page, where)
            command(page, letter)
            look(f"{where}, {letter}")
            page.keyboard.press("Escape")
    told = "\n".join(f"{where}: {pieces}" for where, pieces in escaped.items())
    assert not escaped, told
