"""Photographs over HTTP: turned, sized, without the camera's own words; and files that are none."""

from __future__ import annotations

from dataclasses import replace
from io import BytesIO
from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient
from fidicula.devices.standins.camera import StandInCamera
from fidicula.services.visits.photos import MOST_BYTES, Photos
from PIL import Image, ImageCms

AT = "/api/instruments/RW-109/photos"
ORIENTATION, GPS = 0x0112, 0x8825


def photograph(width: int = 900, height: int = 600, *, form: str = "JPEG", **tags: Any) -> bytes:
    """A camera's file: held on its side, and with the place where it was taken."""
    image = Image.new("RGB", (width, height), "peru")
    out = BytesIO()
    exif = Image.Exif()
    exif[ORIENTATION] = 6
    exif.get_ifd(GPS)[1] = "N"
    exif[0x010E] = "taken at the boathouse"
    image.save(out, form, exif=exif, **tags)
    return out.getvalue()


def add(client: TestClient, data: bytes, status: int = 200, item: str = "seams", **query: str) -> dict[str, Any]:
    answer = client.post(AT, content=data, params={"id": str(uuid4()), "item": item, **query})
    assert answer.status_code == status, answer.text
    return dict(answer.json())


def fetched(client: TestClient, photo: dict[str, Any], size: str) -> Image.Image:
    answer = client.get(f"/api/photos/{photo['id']}/{size}")
    assert answer.headers["content-type"] == "image/jpeg"
    return Image.open(BytesIO(answer.content))


def test_a_photograph_is_turned_sized_and_tells_no_place(client: TestClient) -> None:
    """4000 by 3000 held on its side is kept upright, 1800 by 2400, with nothing of what the camera wrote."""
    [photo] = add(client, photograph(4000, 3000), words="the lower rib")["photos"]
    assert (photo["width"], photo["height"], photo["words"], photo["by"]) == (
        1800,
        2400,
        "the lower rib",
        "Ilse Varnholt",
    )
    large, small = fetched(client, photo, "large"), fetched(client, photo, "small")
    assert large.size == (1800, 2400)
    assert max(small.size) == 320
    assert not large.getexif()
    assert b"boathouse" not in client.get(f"/api/photos/{photo['id']}/large").content


@pytest.mark.parametrize("form", ["PNG", "WEBP", "JPEG"])
def test_what_cameras_and_screens_write_is_taken(client: TestClient, form: str) -> None:
    [photo] = add(client, photograph(form=form))["photos"]
    assert fetched(client, photo, "large").format == "JPEG"


def test_the_same_photograph_twice_is_kept_once(client: TestClient) -> None:
    same = str(uuid4())
    add(client, photograph(), id=same)
    assert len(add(client, photograph(), id=same)["photos"]) == 1


def test_forty_megabytes_are_taken(client: TestClient) -> None:
    """A camera may write what it likes behind the picture."""
    assert len(add(client, photograph() + b"\0" * (40 * 1024 * 1024))["photos"]) == 1


@pytest.mark.parametrize(
    "data",
    [
        b"",
        b"the seam at the lower rib",
        b"\xff\xd8\xff\xe0 cut off",
        photograph()[:400],
        b"GIF89a",
        b"<svg xmlns='x'/>",
    ],
)
def test_what_is_no_picture_is_refused_kindly(client: TestClient, data: bytes) -> None:
    [item] = add(client, data, 422)["detail"]
    assert item["loc"] == ["body", "picture"]
    assert "no picture that can be read" in item["msg"]
    assert client.get(AT).json()["photos"] == []


def test_a_picture_that_would_fill_the_machine_is_refused(client: TestClient) -> None:
    """150 million points in 18 kB are told apart from their head alone; forty million are opened."""
    out = BytesIO()
    Image.new("1", (15_000, 10_000)).save(out, "PNG")
    assert "over 40 million points" in add(client, out.getvalue(), 422)["detail"][0]["msg"]
    out = BytesIO()
    Image.new("RGB", (8_000, 5_000), "peru").save(out, "PNG")
    assert len(add(client, out.getvalue())["photos"]) == 1


def test_a_phones_own_form_is_refused_with_what_would_do(client: TestClient) -> None:
    heic = b"\0\0\0\x18ftypheic\0\0\0\0mif1heic" + b"\0" * 200
    assert "set the camera to JPEG" in add(client, heic, 422)["detail"][0]["msg"]


def test_only_the_picture_is_kept(client: TestClient) -> None:
    """No comment, no XMP, no profile of a camera's own."""
    profile = ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB")).tobytes()
    data = photograph(comment=b"by the weir", xmp=b"<x:xmpmeta>Wren</x:xmpmeta>", icc_profile=profile)
    [photo] = add(client, data)["photos"]
    kept = client.get(f"/api/photos/{photo['id']}/large").content
    assert not any(words in kept for words in (b"weir", b"Wren", b"ICC_PROFILE", b"Exif"))


def test_a_file_that_is_too_large_says_how_large_one_may_be(client: TestClient) -> None:
    refused = add(client, photograph() + b"\0" * MOST_BYTES, 413)
    assert "over 50 MB" in refused["detail"][0]["msg"]


def test_a_photograph_belongs_to_an_item_and_is_taken_back(client: TestClient) -> None:
    assert add(client, photograph(), 422, item="scroll")["detail"][0]["loc"] == ["body", "item"]
    [photo] = add(client, photograph())["photos"]
    assert client.post(f"/api/instruments/RW-110/photos/{photo['id']}/take-back").status_code == 404
    at = f"/api/photos/{photo['id']}/small"
    has_it = {"if-none-match": client.get(at).headers["etag"]}
    assert client.get(at, headers=has_it).status_code == 304
    assert client.post(f"{AT}/{photo['id']}/take-back").json()["photos"] == []
    assert client.get(at, headers=has_it).status_code == 404
    assert client.get(f"/api/photos/{uuid4()}/small").status_code == 404


def test_the_inspection_camera_says_that_it_is_simulated(client: TestClient) -> None:
    """The shots worth taking are listed; one that was taken is marked."""
    before = client.get(AT).json()
    assert "simulated" in before["camera"]
    assert [shot["shot"] for shot in before["shots"]][:2] == ["post_top", "post_bottom"]
    after = client.post(f"{AT}/inspect", json={"id": str(uuid4()), "shot": "post_top"}).json()
    assert [shot["shot"] for shot in after["shots"] if shot["is_taken"]] == ["post_top"]
    assert fetched(client, after["photos"][0], "large").size == (960, 720)
    assert client.post(f"{AT}/inspect", json={"id": str(uuid4()), "shot": "scroll"}).status_code == 422


def test_a_broken_camera_says_so_and_nothing_is_kept(app: Any, client: TestClient) -> None:
    app.state.services = replace(app.state.services, photos=Photos(app.state.engine, StandInCamera(fails=True)))
    answer = client.post(f"{AT}/inspect", json={"id": str(uuid4()), "shot": "post_top"})
    assert answer.status_code == 409
    assert "does not answer" in answer.json()["detail"][0]["msg"]
    assert client.get(AT).json()["photos"] == []
