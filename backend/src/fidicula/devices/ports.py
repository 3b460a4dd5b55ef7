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
    """A caliper whose key sends what it shows, as a keyboard would type it."""

    @property
    def label(self) -> str:
        """What it is called; a stand-in says that it is one."""
        ...

    def send(self, length: float) -> str:
        """What it types for a length between its jaws. [mm] Raises DeviceError."""
        ...


class Tuner(Protocol):
    """A tuner that hears a string and says its pitch."""

    @property
    def label(self) -> str:
        """What it is called; a stand-in says that it is one."""
        ...

    def hear(self, pitch: float) -> str:
        """What it shows for a string that sounds at a pitch. [Hz] Raises DeviceError."""
        ...


class Hygrometer(Protocol):
    """What hangs beside the bench and knows the air."""

    @property
    def label(self) -> str:
        """What it is called; a stand-in says that it is one."""
        ...

    def humidity(self) -> str:
        """What it shows of the air's humidity. [%] Raises DeviceError."""
        ...

    def temperature(self) -> str:
        """What it shows of the air's warmth. [°C] Raises DeviceError."""
        ...
