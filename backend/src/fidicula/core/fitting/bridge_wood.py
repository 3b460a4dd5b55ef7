"""The bridge's thickness on its way up, what to plane where, and marks that a pencil drew."""

from __future__ import annotations

from fidicula.core.errors import DoesNotFitError


def thickness_at(*, foot: float, crown: float, share: float) -> float:
    """What a bridge is to be front to back on its way up: straight from feet to crown. [mm]

    foot, crown : wanted at the feet and at the crown, above 0. [mm]  share : of the way up, 0 to 1.
    Raises DoesNotFitError naming `share`. Source: the tailpiece face stays flat, the front tapers straight.
    """
    if not 0 <= share <= 1:
        raise DoesNotFitError("share", sentence=f"the way up goes from 0 to 1; it was {share:g}", value=share)
    return foot + (crown - foot) * share


def to_plane(*, read: float, foot: float, crown: float, share: float) -> float:
    """What comes off the front there; below zero the wood is missing. [mm]

    read : its thickness there. [mm]  foot, crown, share : as for `thickness_at`. Raises DoesNotFitError.
    """
    return read - thickness_at(foot=foot, crown=crown, share=share)


def over_pencil(*, over_line: float, pencil: float) -> float:
    """A height over the board's line as it is set off from a mark that a pencil drew, laid on the board. [mm]

    over_line : wanted over the board's own line. [mm]  pencil : its thickness; its point draws half of it higher. [mm]
    Source: the point lies in the pencil's middle.
    """
    return over_line - pencil / 2
