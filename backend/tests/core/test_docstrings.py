"""Public functions of the core say what each argument means."""

from __future__ import annotations

import importlib
import inspect
import pkgutil
import re
from collections.abc import Callable, Iterator

import fidicula.core
import pytest


def public_functions() -> Iterator[tuple[str, Callable[..., object]]]:
    for module_info in pkgutil.walk_packages(fidicula.core.__path__, "fidicula.core."):
        module = importlib.import_module(module_info.name)
        for name, function in inspect.getmembers(module, inspect.isfunction):
            if not name.startswith("_") and function.__module__ == module_info.name:
                yield f"{module_info.name}.{name}", function


@pytest.mark.parametrize(("name", "function"), list(public_functions()), ids=lambda v: v if isinstance(v, str) else "")
def test_docstring_names_every_argument(name: str, function: Callable[..., object]) -> None:
    """Each parameter stands in the docstring, and what stands there as `name :` is a parameter."""
    text = inspect.getdoc(function) or ""
    parameters = set(inspect.signature(function).parameters)
    assert text, f"{name} has no docstring"
    if len(parameters) > 1:
        unnamed = {p for p in parameters if not re.search(rf"\b{p}\b", text)}
        assert not unnamed, f"{name} does not say what {unnamed} mean"
    named = {w for line in re.findall(r"^\s*([\w, ]+) : ", text, re.MULTILINE) for w in line.split(", ")}
    assert named <= parameters, f"{name} speaks of {named - parameters}, which it does not take"
