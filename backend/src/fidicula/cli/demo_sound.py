"""A made-up recording for the demo: an open string's tone, brighter or darker; it is no instrument's."""

from __future__ import annotations

import io
import wave

import numpy as np

RATE = 16_000
"""Samples in a second."""
_SECONDS = 1.4
_PITCHES = (196.0, 293.66, 440.0, 659.26)


def simulated_recording(*, brightness: float) -> bytes:
    """The four open strings of a violin one after the other, as a WAV file. brightness : 0 to 1, how many overtones."""
    time = np.arange(int(RATE * _SECONDS)) / RATE
    swell = np.minimum(1.0, np.minimum(time / 0.08, (_SECONDS - time) / 0.25))
    tones = []
    for pitch in _PITCHES:
        overtones = np.arange(1, int(RATE / 2 / pitch))
        strengths = overtones ** -(2.2 - 1.4 * brightness)
        tone = (strengths[:, None] * np.sin(2 * np.pi * pitch * overtones[:, None] * time)).sum(axis=0)
        tones.append(swell * tone / np.abs(tone).max())
    samples = (np.concatenate(tones) * 0.6 * 32767).astype("<i2")
    file = io.BytesIO()
    with wave.open(file, "wb") as written:
        written.setnchannels(1)
        written.setsampwidth(2)
        written.setframerate(RATE)
        written.writeframes(samples.tobytes())
    return file.getvalue()
