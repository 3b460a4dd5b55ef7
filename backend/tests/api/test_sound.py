"""Adjusting by ear, over the API."""
from __future__ import annotations
from fastapi.testclient import TestClient
import json
from pathlib import Path
from .test_pages import page

def test_look(client: TestClient) -> None:
    a = client.get("/api/instruments/RW-102/sound?complaint=closed")
    assert a.status_code == 200, a.text
    Path('/tmp/sound.json').write_text(json.dumps(a.json(),indent=1))
    for n in ("post","strings"):
        v = page(client,"RW-102",n)
        print(n, json.dumps({k:v[k] for k in ("finding","retake","assumed","tables")},indent=0, ensure_ascii=False))
        for h in v["handles"]: print(h["name"],h["at"],h["chosen"])
        for h in v["consequences"]: print(h["label"],h["now"],h["then"],h["why"])
    s=client.get("/api/instruments/RW-102/strings").json(); print(json.dumps(s,indent=0))
    sets=client.get("/api/instruments/RW-102/string-sets").json()
    v = page(client,"RW-102","strings",set=sets[-1]["id"]); print(v["finding"]); 
    for h in v["consequences"]: print(h["label"],h["now"],h["then"],h["why"])
    print(v["tables"])

