"""What a use case refuses. The API turns these into answers in one place."""

from __future__ import annotations

from collections.abc import Mapping


class ServiceError(Exception):
    """field : of the request that is at fault, or empty.  The message is a sentence for the user."""

    def __init__(self, sentence: str, *, field: str = "") -> None:
        super().__init__(sentence)
        self.sentence = sentence
        self.field = field


class NotFoundError(ServiceError):
    """What was asked for is not in the house."""


class RefusedError(ServiceError):
    """The request itself cannot be: a field is wrong."""


class ConflictError(ServiceError):
    """The request is sound, but not as things stand."""


class MeanwhileError(ConflictError):
    """Somebody else wrote at the same places since they were opened. fields : a sentence for each."""

    def __init__(self, fields: Mapping[str, str]) -> None:
        super().__init__("somebody else wrote here meanwhile")
        self.fields = fields


class BusyError(ServiceError):
    """Too much is asked for at once; the same again in a moment may do."""


class NotSignedInError(ServiceError):
    """Nobody is signed in here, or not any more."""


class ForbiddenError(ServiceError):
    """Whoever asks may not do this."""


class PasswordAgainError(ForbiddenError):
    """Whoever asks may do this once the password was given again."""


class TooManyGuessesError(ServiceError):
    """Guessing is slowed down. wait : until the next try. [s]"""

    def __init__(self, sentence: str, *, wait: int, field: str = "") -> None:
        super().__init__(sentence, field=field)
        self.wait = wait
