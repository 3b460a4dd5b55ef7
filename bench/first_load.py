"""The rail's first load: script and style as they go over the wire. Wanted: under 250 kB compressed."""

from __future__ import annotations

import gzip
import re

from fidicula.settings import Settings


def run() -> None:
    dist = Settings().front_end
    page = (dist / "index.html").read_text()
    total = 0
    for name in re.findall(r'(?:src|href)="/(assets/[^"]+\.(?:js|css))"', page):
        size = len(gzip.compress((dist / name).read_bytes(), 6))
        total += size
        print(f"first load, {name}: {size / 1000:.1f} kB compressed")
    print(f"first load, script and style: {total / 1000:.1f} kB compressed (wanted: under 250)")
