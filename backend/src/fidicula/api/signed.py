"""Who asks: the browser's session, the form token that a change brings along, and what a role may do."""

from __future__ import annotations

import hmac
from dataclasses import dataclass
from typing import Annotated
from uuid import UUID

from fastapi import Cookie, Depends, Header, Request
from fastapi.params import Depends as DependsMarker

from fidicula.db.records import Person, SignIn
from fidicula.services.errors import NotSignedInError, NotYoursError
from fidicula.services.people import MAY, Act, People

COOKIE = "fidicula"
_READS = frozenset({"GET", "HEAD", "OPTIONS"})


@dataclass(frozen=True)
class SignedBrowser:
    """token : of the cookie.  sign_in : what it stands for."""

    token: str
    sign_in: SignIn


def people_of(request: Request) -> People:
    people: People = request.app.state.people
    return people


def _browser(
    people: Annotated[People, Depends(people_of)],
    token: Annotated[str, Cookie(alias=COOKIE, include_in_schema=False)] = "",
) -> SignedBrowser | None:
    try:
        return SignedBrowser(token, people.who(token))
    except NotSignedInError:
        return None


Browser = Annotated[SignedBrowser | None, Depends(_browser)]


def signed(
    request: Request,
    browser: Browser,
    form_token: Annotated[str, Header(alias="X-Fidicula-Form", include_in_schema=False)] = "",
) -> SignedBrowser:
    """Raises NotSignedInError without a session, and NotYoursError for a change that another site may have sent."""
    if browser is None:
        raise NotSignedInError("sign in first")
    if request.method not in _READS and not hmac.compare_digest(
        form_token.encode(), browser.sign_in.form_token.encode()
    ):
        raise NotYoursError("this change did not come from the page that is open here: load the page again")
    return browser


Signed = Annotated[SignedBrowser, Depends(signed)]


def acting(
    people: Annotated[People, Depends(people_of)],
    signed: Signed,
    person: Annotated[UUID | None, Header(alias="X-Fidicula-Person", include_in_schema=False)] = None,
) -> Person:
    """Who does it: whoever is at the bench, or whom a waiting reading was taken by."""
    return people.acting(signed.sign_in, person)


Acting = Annotated[Person, Depends(acting)]


def may(act: Act) -> DependsMarker:
    """Only a role that may do this goes on."""

    def check(person: Acting) -> None:
        if act not in MAY[person.role]:
            raise NotYoursError(_REFUSALS[act].format(name=person.name, role=person.role))

    marker: DependsMarker = Depends(check)
    return marker


_REFUSALS: dict[Act, str] = {
    "look": "{name} may not look at this",
    "arrive": "{name} may not take instruments in",
    "measure": "the {role} does not measure or cut: a luthier or apprentice gives a PIN first",
    "sign_off": "an {role} does not sign off: a luthier gives a PIN first",
    "recipes": "recipes are a luthier's to change",
    "figures": "only the owner changes the shop's figures",
    "people": "only the owner changes people",
}
