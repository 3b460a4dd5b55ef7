"""What a device is to the rest of the program, whatever is behind it."""

from __future__ import annotations

from typing import Protocol


class DeviceError(Exception):
    """A device does not do what was asked. The message is a sentence for the user."""


class InspectionCamera(Protocol):
    """A camera on a thin stalk that looks through the endpin's hole or an f-hole."""

    @property
    def label(self) -> str:
        """What it is called; a stand-in says that it is one."""
        ...

    def take(self, shot: str) -> bytes:
        """A picture as a file. shot : which of the shots worth taking. Raises DeviceError."""
        ...


class Caliper(Protocol):
    """A caliper whose key sends what it shows, as a keyboard would type it.

    A real one knows no more than its own display: not where it is held, nor what lies between its jaws.
    """

    @property
    def label(self) -> str:
        """What it is called; a stand-in says that it is one."""
        ...

    @property
    def is_simulated(self) -> bool:
        """Whether it is a stand-in: its readings are marked, and count in no firm cut."""
        ...

    def send(self) -> str:
        """What it shows now, as typed. Raises DeviceError."""
        ...


class Tuner(Protocol):
    """A tuner that hears a string and shows its pitch."""

    @property
    def label(self) -> str:
        """What it is called; a stand-in says that it is one."""
        ...

    @property
    def is_simulated(self) -> bool:
        """As of a caliper."""
        ...

    def hear(self) -> str:
        """What it shows of the string that sounds now. [Hz] Raises DeviceError."""
        ...


class Hygrometer(Protocol):
    """What hangs beside the bench and measures the air."""

    @property
    def label(self) -> str:
        """What it is called; a stand-in says that it is one."""
        ...

    @property
    def is_simulated(self) -> bool:
        """As of a caliper."""
        ...

    def humidity(self) -> str:
        """What it shows of the air's humidity. [%] Raises DeviceError."""
        ...

    def temperature(self) -> str:
        """What it shows of the air's temperature. [°C] Raises DeviceError."""
        ...
