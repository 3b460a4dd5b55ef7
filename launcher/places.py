"""Where things lie in this checkout. Everything that set-up makes can be deleted and is made again."""

from __future__ import annotations

from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
REQUIREMENTS = ROOT / "requirements"
BACKEND = ROOT / "backend"
FRONTEND = ROOT / "frontend"
SHAPES = BACKEND / "src" / "fidicula" / "tables" / "data" / "bridge_shapes.csv"
"""Drawn by the front end too."""

TOOLS = ROOT / ".tools"  # uv and Node.js
VENV = ROOT / ".venv"  # the application's Python packages
STATE = ROOT / ".state"  # logs, locks, stamps
SETUP_LOG = STATE / "setup.log"

VENV_PYTHON = VENV / "bin" / "python"
