"""Figures of the running application, in the open format that monitors read."""

from __future__ import annotations

from prometheus_client import CollectorRegistry, Counter, Gauge, Histogram, generate_latest

_registry = CollectorRegistry()
_answers = Counter("fidicula_answers", "Answers given", ["method", "route", "status"], registry=_registry)
_seconds = Histogram(
    "fidicula_answer_seconds",
    "How long answers took",
    ["method", "route"],
    buckets=(0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10),
    registry=_registry,
)
_restarts = Counter("fidicula_database_restarts", "How often the database was started again", registry=_registry)
_listening = Gauge("fidicula_listening_pages", "Pages that listen for changes", registry=_registry)
_guesses = Counter("fidicula_wrong_guesses", "Wrong passwords, PINs and codes", ["what"], registry=_registry)

_METHODS = frozenset({"GET", "HEAD", "POST", "PUT", "PATCH", "DELETE", "OPTIONS"})
MEDIA_TYPE = "text/plain; version=0.0.4; charset=utf-8"


def note_answer(method: str, route: str, status: int, seconds: float) -> None:
    """One answer. route : its pattern, not the address.  seconds : from the request's head to the end of the answer."""
    method = method if method in _METHODS else "other"
    _answers.labels(method, route, str(status)).inc()
    _seconds.labels(method, route).observe(seconds)


def note_database_restart() -> None:
    _restarts.inc()


def note_wrong_guess(what: str) -> None:
    """what : password, pin or code."""
    _guesses.labels(what).inc()


def note_listening(change: int) -> None:
    """One page more, or one less."""
    _listening.inc(change)


def written() -> bytes:
    """Every figure as text."""
    return generate_latest(_registry)
