"""What is often said at the bench, put beside this instrument's own numbers, kindly and in one sentence."""

from __future__ import annotations

from fidicula.numerals import number, short


def longer(*, string_length: float, by: float, growth: float) -> str:
    """A few millimetres of string are told as nothing."""
    return (
        f"“{short(by)} mm more does not matter”: from {short(string_length)} mm the octave moves by "
        f"{short(by / 2)} mm, and the pull at pitch grows by {number(growth * 100)} %."
    )


def sharp(*, cents: float, growth: float) -> str:
    """What sounds better tuned sharp is told to want heavier strings."""
    return f"“Better when tuned sharp”: {short(cents)} cents are {number(growth * 100)} % of pull; try it again, blind."


def turned(*, by: float, cents: float) -> str:
    """A turned bridge makes fifths false: how much."""
    return (
        f"“A turned bridge makes fifths false”: true and small; {short(by)} mm over the spread is "
        f"{number(cents)} cents between the outer strings."
    )


def tenth(*, shift: float, gape: float, diameter: float) -> str:
    """A tenth is told to change everything."""
    return (
        f"“A tenth changes everything”: a card gauge is good to 0.3 mm, and {short(shift)} mm at one end also opens "
        f"{number(gape, 2)} across a {short(diameter)} mm end: the ear may be judging fit, not place."
    )


def least_wood(*, waist: float) -> str:
    """The least wood is told to carry best, and wood that is left to carry more."""
    return (
        f"“The least wood carries sound best”: a waist under its {short(waist)} mm lowers the bridge's rocking "
        "frequency, less wood above it raises it; a wedge stiffens, a weight loads."
    )


def seasoned(*, mass: float) -> str:
    """A ringing blank is told to be seasoned for decades."""
    return (
        f"“Seasoned for decades, rings clearly”: ring shows damping and stiffness, not age. This one weighs "
        f"{short(mass)} g: weigh it, tap it, compare it blind with another."
    )


def top_string(*, name: str, most: float, low: tuple[str, float]) -> str:
    """The top string is told to lie lowest because it presses most."""
    return (
        f"“The top string presses most, so it lies lowest”: the {name} does press most here, {number(most, 0)} N "
        f"against {number(low[1], 0)} of the {low[0]}; it may lie lower because it swings less."
    )


def leaning(*, degrees: float, shift: float, length: float, gape: float) -> str:
    """A post that leans with its bridge is told to carry more."""
    return (
        f"“A post that leans with the bridge carries more”: {short(degrees)}° is {number(shift, 1)} mm over "
        f"{short(length)}; a square end then gapes by {number(gape, 2)}. Fit it to the lean."
    )


def amplifies(*, pull: float, down: float) -> str:
    """A bridge, or its pressure, is told to amplify."""
    return (
        f"“Pressure amplifies”: of {number(pull, 0)} N of pull {number(down, 0)} N press on the top, and nothing is "
        "amplified: bridge and body match the string to the air."
    )
