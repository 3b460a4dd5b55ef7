"""Who asks: the browser's session, the form token that a change brings along, and what a role may do."""

from __future__ import annotations

import hmac
from contextlib import suppress
from dataclasses import dataclass
from datetime import datetime
from typing import Annotated
from uuid import UUID

from fastapi import Depends, Request
from fastapi.concurrency import run_in_threadpool
from fastapi.params import Depends as DependsMarker

from fidicula import limits
from fidicula.api.body_limits import BODY, Body
from fidicula.api.services import AllServices
from fidicula.db.entered import Entered, Entry, was_entered
from fidicula.domain.errors import ForbiddenError, NotSignedInError, PasswordAgainError
from fidicula.domain.people import Person, SignIn
from fidicula.services.people.audit import Actor, acts_now
from fidicula.services.people.people import is_confirmed
from fidicula.services.people.roles import MAY, NAMED_BY_OTHERS, PASSWORD_AGAIN, Act

COOKIE = "fidicula"
BROWSER_COOKIE = "fidicula_browser"
FORM_HEADER = "X-Fidicula-Form"
PERSON_HEADER = "X-Fidicula-Person"
VISIT_HEADER, AT_HEADER = "X-Fidicula-Visit", "X-Fidicula-At"
_READS = frozenset({"GET", "HEAD", "OPTIONS"})


@dataclass(frozen=True)
class SignedBrowser:
    """token : of the cookie.  sign_in : what it stands for."""

    token: str
    sign_in: SignIn


# These read cookie and headers themselves and wait for each other only where they must: they run with every request.


async def _browser(request: Request, services: AllServices) -> SignedBrowser | None:
    token = request.cookies.get(COOKIE, "")
    if not token:
        return None
    remembered = services.people.remembered(token)
    if remembered is not None:
        return SignedBrowser(token, remembered)
    try:
        return SignedBrowser(token, await run_in_threadpool(services.people.who, token))
    except NotSignedInError:
        return None


Browser = Annotated[SignedBrowser | None, Depends(_browser)]


async def signed(request: Request, browser: Browser) -> SignedBrowser:
    """Raises NotSignedInError without a session, and ForbiddenError for a change that another site may have sent."""
    if browser is None:
        raise NotSignedInError("sign in first")
    brought = request.headers.get(FORM_HEADER, "")
    if request.method not in _READS and not hmac.compare_digest(brought.encode(), browser.sign_in.form_token.encode()):
        raise ForbiddenError("this change did not come from the page that is open here: load the page again")
    return browser


Signed = Annotated[SignedBrowser, Depends(signed)]


async def acting(request: Request, services: AllServices, signed: Signed) -> Person:
    """Who does it: whoever is at the bench, or whom a waiting reading was taken by."""
    asked = request.headers.get(PERSON_HEADER)
    person = signed.sign_in.at_bench
    if asked and asked != str(person.id):
        try:
            person_id = UUID(asked)
        except ValueError as error:
            raise ForbiddenError("whoever took this is not known here", field="person") from error
        person = await run_in_threadpool(services.people.acting, signed.sign_in, person_id)
    acts_now(Actor(person.name, signed.sign_in.browser_name, person.role))
    was_entered(_entered(request))
    return person


def _entered(request: Request) -> Entered:
    """When and at which visit, as the page knew it; what cannot be read is as good as not said."""
    at = visit = None
    with suppress(ValueError):
        at = datetime.fromisoformat(request.headers.get(AT_HEADER, ""))
    with suppress(ValueError):
        visit = UUID(request.headers.get(VISIT_HEADER, ""))
    known_at = None if at is None or at.tzinfo is None or not limits.EARLIEST <= at < limits.LATEST else at
    return Entered(known_at, visit, _entry(request))


def _entry(request: Request) -> Entry | None:
    """What is entered by this request, where it says an id: in its body, or in the address of a file."""
    body: Body | None = request.scope.get(BODY)
    if body is None:
        return None
    said = body.json.get("id") if isinstance(body.json, dict) else request.query_params.get("id")
    try:
        id = UUID(str(said))
    except ValueError:
        return None
    about = f"{request.method} {request.url.path} {request.query_params}"
    return Entry(id, str(request.path_params.get("ticket", "")), lambda: body.digest(about))


Acting = Annotated[Person, Depends(acting)]


def may(act: Act) -> DependsMarker:
    """Only a role that may do this goes on; for what changes people or figures, with the password given again."""

    async def check(person: Acting, signed: Signed) -> None:
        if act not in MAY[person.role]:
            raise ForbiddenError(_REFUSALS[act].format(name=person.name, role=person.role))
        if act not in NAMED_BY_OTHERS and person.id != signed.sign_in.at_bench.id:
            raise ForbiddenError(f"{person.name} does this at the bench: the PIN first", field="person")
        if act in PASSWORD_AGAIN and not is_confirmed(signed.sign_in, person):
            raise PasswordAgainError(f"{person.name}'s password again: this changes the shop")

    marker: DependsMarker = Depends(check)
    return marker


_REFUSALS: dict[Act, str] = {
    "look": "{name} may not look at this",
    "arrive": "{name} may not take instruments in",
    "measure": "the {role} does not measure or cut: a luthier or apprentice gives a PIN first",
    "sign_off": "the {role} does not decide or sign off: a luthier gives a PIN first",
    "recipes": "recipes are a luthier's to change",
    "bill": "the {role} does not bill or take payments: the desk or a luthier gives a PIN first",
    "figures": "only the owner changes the shop's figures",
    "people": "only the owner changes people",
}
