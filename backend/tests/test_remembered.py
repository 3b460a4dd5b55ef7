"""What is remembered for a moment: as long as it says, and never past a change."""

from __future__ import annotations

from fidicula.services.loading.remembered import Remembered


def test_it_is_read_once_for_as_long_as_it_lasts_and_anew_after_a_change() -> None:
    now = [100.0]
    asked: list[int] = []
    kept: Remembered[str, int] = Remembered(seconds=2, clock=lambda: now[0])

    def read() -> int:
        asked.append(len(asked) + 1)
        return asked[-1]

    assert [kept.read("a", read), kept.read("a", read), kept.read("b", read)] == [1, 1, 2]
    now[0] += 1.9
    assert kept.get("a") == 1
    now[0] += 0.2
    assert kept.get("a") is None
    assert kept.read("a", read) == 3
    kept.forget()
    assert kept.read("a", read) == 4


def test_what_was_read_before_a_change_is_not_remembered_after_it() -> None:
    kept: Remembered[str, str] = Remembered(seconds=60)

    def read_while_it_changes() -> str:
        kept.forget()
        return "before"

    assert kept.read("a", read_while_it_changes) == "before"
    assert kept.get("a") is None


def test_it_does_not_grow_without_end() -> None:
    kept: Remembered[int, int] = Remembered(seconds=60, most=10)
    for i in range(25):
        kept.read(i, lambda i=i: i)  # type: ignore[misc]
    assert sum(kept.get(i) is not None for i in range(25)) <= 10
