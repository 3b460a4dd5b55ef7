"""The application's log: a JSON line for each event, with the request it belongs to.

What is written here are names of events, routes and kinds, counts and times: never a secret, and never what somebody
typed or is called.
"""

from __future__ import annotations

import logging
from collections.abc import Iterator, MutableMapping
from contextlib import contextmanager
from logging.handlers import RotatingFileHandler
from pathlib import Path
from typing import Any

import structlog

_LARGEST_FILE = 5_000_000
_FILES_KEPT = 5


def _without_values(_logger: Any, _method: str, event: MutableMapping[str, Any]) -> MutableMapping[str, Any]:
    """Of an exception where it happened, not its message: that may quote what was typed."""
    found = event.pop("exception", None)
    if isinstance(found, list) and found:
        frames = found[-1].get("frames", [])
        event["at"] = [f"{Path(frame['filename']).name}:{frame['lineno']} {frame['name']}" for frame in frames[-8:]]
    return event


def keep_log(file: Path | None) -> None:
    """Write the log to a file that is turned over before it grows large; None for nowhere."""
    handler: logging.Handler = logging.NullHandler()
    if file is not None:
        file.parent.mkdir(parents=True, exist_ok=True)
        handler = RotatingFileHandler(file, maxBytes=_LARGEST_FILE, backupCount=_FILES_KEPT, encoding="utf-8")
    logger = logging.getLogger("fidicula")
    for old in list(logger.handlers):
        logger.removeHandler(old)
        old.close()
    logger.addHandler(handler)
    logger.setLevel(logging.INFO)
    logger.propagate = False


structlog.configure(
    processors=[
        structlog.contextvars.merge_contextvars,
        structlog.stdlib.add_log_level,
        structlog.processors.TimeStamper(fmt="iso", utc=True),
        structlog.processors.ExceptionRenderer(structlog.tracebacks.ExceptionDictTransformer(show_locals=False)),
        _without_values,
        structlog.processors.JSONRenderer(),
    ],
    logger_factory=structlog.stdlib.LoggerFactory(),
    wrapper_class=structlog.stdlib.BoundLogger,
    cache_logger_on_first_use=True,
)


def journal() -> structlog.stdlib.BoundLogger:
    """The log to write to."""
    logger: structlog.stdlib.BoundLogger = structlog.get_logger("fidicula")
    return logger


@contextmanager
def about_request(request_id: str) -> Iterator[None]:
    """What is logged meanwhile belongs to this request."""
    with structlog.contextvars.bound_contextvars(request_id=request_id):
        yield


def request_id() -> str:
    """Of the request that is being answered, empty outside of one."""
    return str(structlog.contextvars.get_contextvars().get("request_id", ""))
