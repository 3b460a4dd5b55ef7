"""Signing in, who is at the bench, and the people of the shop."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Request, Response
from pydantic import BaseModel, ConfigDict, Field

from fidicula.api.auth import BROWSER_COOKIE, COOKIE, Acting, Browser, Signed, may
from fidicula.api.errors import RESPONSES
from fidicula.api.services import AllServices
from fidicula.api.words import Label
from fidicula.services.people.browsers import BrowserView
from fidicula.services.people.people import Asking, LetIn, PersonView, SignedIn
from fidicula.services.people.persons import PersonTyped
from fidicula.services.people.roles import Role

open_router = APIRouter(prefix="/api/session", tags=["session"], responses=RESPONSES)
router = APIRouter(prefix="/api", tags=["people"], responses=RESPONSES)

Secret = Annotated[Label, Field(max_length=200)]


class Body(BaseModel):
    model_config = ConfigDict(extra="forbid")


class SignInBody(Body):
    name: Label
    password: Secret


class BeginBody(Body):
    """The first person, who owns the shop."""

    name: Label
    password: Secret
    pin: Annotated[Label, Field(max_length=8)] = ""


class BenchBody(Body):
    """pin : empty for someone who is known in this browser."""

    person: UUID
    pin: Annotated[Label, Field(max_length=200)] = ""


class ConfirmBody(Body):
    password: Secret


class PersonBody(Body):
    """password, pin : empty to leave them as they are."""

    name: Label
    role: Role
    active: bool = True
    password: Secret = ""
    pin: Annotated[Label, Field(max_length=8)] = ""

    def typed(self) -> PersonTyped:
        return PersonTyped(self.name, self.role, self.active, self.password, self.pin)


class Session(BaseModel):
    """first : nobody is known yet.  signed_in : None where nobody is signed in here."""

    first: bool
    signed_in: SignedIn | None


_A_YEAR_S = 365 * 86_400


def _asking(request: Request) -> Asking:
    return Asking(request.cookies.get(BROWSER_COOKIE, ""), request.headers.get("user-agent", "")[:300])


def _keep(request: Request, response: Response, let_in: LetIn) -> None:
    """Tokens in cookies that no script reads, that no other site sends, and that TLS keeps to itself."""
    over_tls = request.url.scheme == "https"
    response.set_cookie(COOKIE, let_in.token, httponly=True, samesite="strict", secure=over_tls, path="/api")
    response.set_cookie(
        BROWSER_COOKIE,
        let_in.browser_token,
        httponly=True,
        samesite="strict",
        secure=over_tls,
        path="/",
        max_age=_A_YEAR_S,
    )


@open_router.get("")
def session(services: AllServices, browser: Browser) -> Session:
    """Who is signed in here, if anybody."""
    if browser is not None:
        return Session(first=False, signed_in=services.people.signed_in(browser.sign_in))
    return Session(first=services.people.is_first(), signed_in=None)


@open_router.post("", status_code=204)
def sign_in(request: Request, response: Response, services: AllServices, body: SignInBody) -> None:
    """Sign in with name and password."""
    _keep(request, response, services.people.sign_in(body.name, body.password, _asking(request)))


@open_router.post("/first", status_code=204)
def begin(request: Request, response: Response, services: AllServices, body: BeginBody) -> None:
    """The first person of an empty shop becomes its owner."""
    typed = PersonTyped(body.name, "owner", True, body.password, body.pin)
    _keep(request, response, services.people.begin(typed, _asking(request)))


@router.post("/session/out", status_code=204)
def sign_out(response: Response, services: AllServices, signed: Signed) -> None:
    """Sign out of this browser."""
    services.people.sign_out(signed.token)
    response.delete_cookie(COOKIE, path="/api")


@router.post("/session/out-everywhere", status_code=204)
def sign_out_everywhere(response: Response, services: AllServices, signed: Signed, _person: Acting) -> None:
    """Sign out of every browser, whoever signed in here."""
    services.people.sign_out_everywhere(signed.sign_in)
    response.delete_cookie(COOKIE, path="/api")


@router.post("/session/confirm", status_code=204)
def confirm(services: AllServices, signed: Signed, body: ConfirmBody) -> None:
    """Give the password again, for what changes people or figures."""
    services.people.confirm(signed.token, signed.sign_in, body.password)


@router.post("/session/bench")
def to_the_bench(services: AllServices, signed: Signed, body: BenchBody) -> SignedIn:
    """Someone else takes the place at the bench."""
    services.people.to_the_bench(signed.token, signed.sign_in, body.person, body.pin)
    return services.people.signed_in(services.people.who(signed.token))


@router.post("/people", status_code=201, dependencies=[may("people")])
def add_person(services: AllServices, signed: Signed, body: PersonBody) -> list[PersonView]:
    """Someone new works here."""
    services.people.add(body.typed())
    return services.people.signed_in(signed.sign_in).people


@router.put("/people/{person_id}", dependencies=[may("people")])
def change_person(services: AllServices, signed: Signed, person_id: UUID, body: PersonBody) -> list[PersonView]:
    """Change someone's name, role, password or PIN, or let them go."""
    services.people.change(person_id, body.typed())
    return services.people.signed_in(signed.sign_in).people


@router.get("/browsers", dependencies=[may("look")])
def browsers(services: AllServices, signed: Signed) -> list[BrowserView]:
    """Browsers that somebody signed in with, and paired devices."""
    return services.browsers.all(signed.sign_in.browser_id)


@router.post("/browsers/{browser_id}/revoke", dependencies=[may("people")])
def revoke(services: AllServices, signed: Signed, person: Acting, browser_id: UUID) -> list[BrowserView]:
    """Sign a browser out, or send a paired device away."""
    services.browsers.revoke(browser_id, person.name)
    services.people.forget()
    return services.browsers.all(signed.sign_in.browser_id)
