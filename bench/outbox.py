"""What waits in the browser: Enter with 500 entries waiting, and how fast 1,000 are sent, each once and in its order.

Wanted: Enter to the next field within 50 ms (p95) beside a bare page of the same browser; 1,000 sent in under 20 s. The
first is told with a server that says nothing, the second beside as many bare requests, one after the other.
"""

from __future__ import annotations

import time

from playwright.sync_api import Page, Route

from bench.browser import page_of
from bench.measuring import TICKET, p95, took_in
from bench.served import served

WAITING, SENT = 500, 1000
_FILL = """async ({ count, ticket }) => {
  const { signed_in } = await (await fetch('/api/session')).json()
  const { instrument, last_work } = await (await fetch(`/api/instruments/${ticket}/sheet`)).json()
  const asked = indexedDB.open('fidicula')
  const db = await new Promise((resolve) => { asked.onsuccess = () => resolve(asked.result) })
  const change = db.transaction('rows', 'readwrite')
  for (let i = 0; i < count; i += 1) {
    const id = crypto.randomUUID()
    const at = new Date().toISOString()
    change.objectStore('rows').put({
      order: Date.now() * 1000 - 1e9 + i, id, ticket, at, person: signed_in.at_bench.id, by: '', visit: '',
      method: 'POST', path: '/api/instruments/{ticket}/readings', params: { path: { ticket } },
      words: `${i}`, work: '', media: '', size: 0, state: 'waiting', says: '', fields: {}, failed: 0, again: 0,
      body: { id, visit: instrument.visit_id, measure: 'neck_length', position: null, tool: 'caliper',
        typed: (130 + i / 10000).toFixed(4), taken_at: at, after_work: last_work, shown: null, repeats: false },
    })
  }
  await new Promise((resolve) => { change.oncomplete = resolve })
  db.close()
}"""
_LEFT = """() => new Promise((resolve) => {
  const asked = indexedDB.open('fidicula')
  asked.onsuccess = () => {
    const count = asked.result.transaction('rows').objectStore('rows').count()
    count.onsuccess = () => { asked.result.close(); resolve(count.result) }
  }
})"""
_BARE = """async (count) => {
  const began = performance.now()
  for (let i = 0; i < count; i += 1) await (await fetch('/api/health')).text()
  return performance.now() - began
}"""


def run() -> None:
    with served("bench.browser", lambda _: None, durable=True) as port, page_of(port) as page:
        address = f"http://127.0.0.1:{port}/bench/{TICKET}/measure"
        page.goto(address)
        page.locator("input[data-reading]").wait_for()
        held: list[Route] = []
        page.route("**/readings", lambda route: held.append(route))
        _fill(page, WAITING, "RW-114")
        page.goto(address)
        page.locator("input[data-reading]").wait_for()
        page.wait_for_timeout(500)
        took = took_in(page, lambda: page.locator("input[data-reading]").focus())
        print(f"Enter to the next field with {WAITING} entries waiting: p95 {p95(took):.1f} ms (wanted: 50)")
        page.unroute("**/readings")
    with served("bench.browser", lambda _: None, durable=True) as port, page_of(port) as page:
        page.goto(f"http://127.0.0.1:{port}/bench/{TICKET}")
        page.locator("input[data-reading]").wait_for()
        bare = page.evaluate(_BARE, SENT) / 1000
        _fill(page, SENT, "RW-114")
        page.reload()
        while page.evaluate(_LEFT) == SENT:
            time.sleep(0.02)
        began = time.monotonic()
        while page.evaluate(_LEFT):
            time.sleep(0.1)
        spent = time.monotonic() - began
        print(f"{SENT} readings that waited: sent in {spent:.1f} s (wanted: 20); as many bare requests: {bare:.1f} s")
        typed = page.evaluate(
            "async () => (await (await fetch('/api/instruments/RW-114/log')).json()).filter((line) => "
            "line.value.startsWith('130.')).map((line) => line.value).reverse()"
        )
        wanted = [f"{130 + i / 10000:.4f}" for i in range(SENT)]
        print(f"each once and in its order: {'yes' if typed == wanted else f'no: {len(typed)} of {SENT}'}")


def _fill(page: Page, count: int, ticket: str) -> None:
    page.evaluate(_FILL, {"count": count, "ticket": ticket})
