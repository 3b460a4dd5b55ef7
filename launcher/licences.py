"""`./fidicula licences`: under which licence each installed package is given, of the back end and of the front end."""

from __future__ import annotations

import json
from collections.abc import Iterator
from importlib.metadata import Distribution, distributions

from launcher.places import FRONTEND, REQUIREMENTS

UNSAID = "not said"
_OF_CLASSIFIERS = "License :: "


def main() -> None:
    """A line for each package: name, version, licence; those that the application itself runs with come first."""
    wanted = {line.split("==")[0].strip().lower() for line in (REQUIREMENTS / "app.lock").read_text().splitlines()}
    found = {one.name.lower(): one for one in distributions() if one.name.lower() != "fidicula"}
    for title, names in (
        ("to run", sorted(wanted & found.keys())),
        ("to test and check", sorted(found.keys() - wanted)),
    ):
        print(f"Python, {title}")
        for name in names:
            print(f"  {name} {found[name].version}: {licence_of(found[name])}")
    print("Front end")
    for name, version, licence in of_front_end():
        print(f"  {name} {version}: {licence}")


def licence_of(package: Distribution) -> str:
    """By its expression, else its classifiers, else the first line of its field."""
    said = package.metadata
    for expression in said.get_all("License-Expression", []):
        return str(expression)
    classed = [
        line.rsplit(" :: ", 1)[-1] for line in said.get_all("Classifier", []) if line.startswith(_OF_CLASSIFIERS)
    ]
    words = " ".join(said.get_all("License", [])).strip()
    return ", ".join(classed) or (words.splitlines() or [UNSAID])[0]


def of_front_end() -> Iterator[tuple[str, str, str]]:
    """Name, version and licence of each package in node_modules."""
    modules = FRONTEND / "node_modules"
    for file in sorted([*modules.glob("*/package.json"), *modules.glob("@*/*/package.json")]):
        said = json.loads(file.read_text(encoding="utf-8"))
        licence = said.get("license") or UNSAID
        yield (
            said["name"],
            said.get("version", ""),
            licence if isinstance(licence, str) else licence.get("type", UNSAID),
        )


if __name__ == "__main__":
    main()
