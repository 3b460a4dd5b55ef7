"""What a use case refuses. The API turns these into answers in one place."""

from __future__ import annotations


class ServiceError(Exception):
    """field : of the request that is at fault, or empty.  The message is a sentence for the user."""

    def __init__(self, sentence: str, *, field: str = "") -> None:
        super().__init__(sentence)
        self.sentence = sentence
        self.field = field


class NotHereError(ServiceError):
    """What was asked for is not in the house."""


class RefusedError(ServiceError):
    """The request itself cannot be: a field is wrong."""


class NotNowError(ServiceError):
    """The request is sound, but not as things stand."""
