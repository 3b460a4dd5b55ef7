"""The tree: a folder without __init__.py is invisible to the import checker."""

from __future__ import annotations

from pathlib import Path


def test_every_folder_with_code_is_a_package(root: Path) -> None:
    source = root / "backend" / "src" / "fidicula"
    folders = {path.parent for path in source.rglob("*.py")}
    assert [str(f) for f in folders if not (f / "__init__.py").is_file()] == []


def test_tests_mirror_the_source(root: Path) -> None:
    """Every folder of tests has its folder of source; browser tests drive the whole, the launcher stands beside it."""
    tests = root / "backend" / "tests"
    source = root / "backend" / "src" / "fidicula"
    folders = {path.parent.relative_to(tests) for path in tests.rglob("test_*.py")}
    outside = {Path("browser"), Path("launcher")}
    assert [str(f) for f in folders - outside if not (source / f).is_dir()] == []
