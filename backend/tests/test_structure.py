"""The tree: a folder without __init__.py is invisible to the import checker."""

from __future__ import annotations

import ast
import re
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


WORDS_OF_THEIR_OWN = frozenset({"judgement/targets", "services/metrics.py"})
"""A target carries its source as the tables have it; figures about the server are told to nobody at the bench."""
SENTENCE = 4
"""So many words make a sentence."""


def test_sentences_stand_in_words_alone(root: Path) -> None:
    """What an error says may stand where it is raised; a docstring is no sentence of the program."""
    source = root / "backend" / "src" / "fidicula"
    found = []
    for room in ("judgement", "views", "services"):
        for path in sorted((source / room).rglob("*.py")):
            name = path.relative_to(source).as_posix()
            if not any(name.startswith(own) for own in WORDS_OF_THEIR_OWN):
                found += [f"{name}: {said}" for said in sentences(ast.parse(path.read_text()))]
    assert found == []


def sentences(tree: ast.Module) -> list[str]:
    """The literals of four words and more, with a hole for each value that is put in; those of errors left out.

    A constant that only functions which raise read is an error's.
    """
    errors = {
        id(node)
        for function in ast.walk(tree)
        if isinstance(function, ast.FunctionDef) and any(isinstance(n, ast.Raise) for n in ast.walk(function))
        for node in ast.walk(function)
    }
    used = {n.id: list[bool]() for n in ast.walk(tree) if isinstance(n, ast.Name)}
    for node in ast.walk(tree):
        if isinstance(node, ast.Name) and isinstance(node.ctx, ast.Load):
            used[node.id].append(id(node) in errors)
    for node in tree.body:
        name = node.targets[0] if isinstance(node, ast.Assign) else None
        if isinstance(node, ast.Assign) and isinstance(name, ast.Name) and used[name.id] and all(used[name.id]):
            errors.add(id(node.value))
    prose = {id(node.value) for node in ast.walk(tree) if isinstance(node, ast.Expr)}
    parts = {id(value) for node in ast.walk(tree) if isinstance(node, ast.JoinedStr) for value in node.values}
    said = []
    for node in ast.walk(tree):
        if id(node) in errors | prose | parts:
            continue
        if isinstance(node, ast.Constant) and isinstance(node.value, str):
            said.append(node.value)
        elif isinstance(node, ast.JoinedStr):
            said.append("".join(str(v.value) if isinstance(v, ast.Constant) else "_" for v in node.values))
    return [words for words in said if len(words.split()) >= SENTENCE]


NOT_IN_THE_TREE = {"/api/openapi.json", "fidicula.json", "shop.json", "readings.csv"}
"""Files inside an archive, and what the application answers with: they stand nowhere in the tree."""


def test_files_that_documents_name_are_there(root: Path) -> None:
    files = {
        path.relative_to(root).as_posix()
        for place in ("backend/src", "backend/tests", "bench", "docs", "frontend/src", "frontend/tests", "launcher")
        for path in (root / place).rglob("*.*")
    }
    gone = [
        f"{document.name}: {name}"
        for document in (*(root / "docs").rglob("*.md"), root / "README.md")
        for name in re.findall(r"`([\w./-]+\.(?:py|ts|vue|csv|md|json))`", document.read_text(encoding="utf-8"))
        if name not in NOT_IN_THE_TREE and not any(file == name or file.endswith(f"/{name}") for file in files)
    ]
    assert gone == []
