"""./fidicula bench: run every benchmark and print its figures."""

from __future__ import annotations

from bench import bridge, first_load, house, measuring, pages, save, targets

if __name__ == "__main__":
    for benchmark in (bridge, targets, first_load, save, measuring, pages, house):
        benchmark.run()
