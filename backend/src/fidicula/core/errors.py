"""What the core refuses, and why.

Every error carries the path of the input at fault, the value that it had and a sentence that a luthier
understands. Other layers turn these into their own forms; nothing here knows how.
"""

from __future__ import annotations

Path = tuple[str | int, ...]

TOLERANCE = 1e-9
"""Comparisons with a limit count the limit in, within this much."""


class CoreError(Exception):
    """An input that cannot be computed with.

    path : names and indices from the input's root to the field at fault, e.g. ("strings", 3, "height").
    value : what the field held, where there was one.
    """

    def __init__(self, *path: str | int, sentence: str, value: object = None) -> None:
        super().__init__(sentence)
        self.path: Path = path
        self.sentence = sentence
        self.value = value

    def under(self, *prefix: str | int) -> CoreError:
        """The same refusal for an input that stands further down, e.g. in a list."""
        return type(self)(*prefix, *self.path, sentence=self.sentence, value=self.value)


class DoesNotFitError(CoreError):
    """The inputs contradict each other in space: the shape cannot be."""


class MissingInputError(CoreError):
    """A field is needed because of another field's choice."""


class MismatchError(CoreError):
    """Lists that belong together differ in length."""


class UnreadableError(CoreError):
    """Something typed that is not a measurement."""
