"""./fidicula bench: run every benchmark and print its figures."""

from __future__ import annotations

from bench import bridge, first_load, save

if __name__ == "__main__":
    for benchmark in (bridge, first_load, save):
        benchmark.run()
