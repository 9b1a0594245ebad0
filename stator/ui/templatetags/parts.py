"""Parts of a page that a page keeps: what a partial answer would only say again, it leaves out.

`{% part %}<nav id="run">…</nav>{% endpart %}` marks an element by a digest of what it says. A page that asks for an answer tells which
parts it has; one that would come out the same is left where it stands.

`{% part made.run %}` tells what the part is made of: where the page holds one made of the same, it is not even made again; for any other
page it is taken as it was made last, with keys of its own.
"""

from __future__ import annotations

import re
from collections.abc import Hashable, Mapping
from hashlib import blake2b
from weakref import WeakSet

from django import template
from django.http import HttpRequest
from django.template.base import FilterExpression, Node, NodeList, Parser, Token
from django.template.context import Context
from django.template.defaulttags import CsrfTokenNode
from django.utils.safestring import SafeString, mark_safe

from stator.ui.partial_request import is_partial
from stator.ui.templatetags.stator_tags import act_key
from stator.ui.units import current_reader

register = template.Library()

HEADER = "X-Parts"  # of a request: `run=9f2c… picture=…`, each part by its id
_BITS = 2**64 - 1
MOST = 40  # parts read of a request
_OPENS = re.compile(r'\s*<(\w+)(?=[^>]*?\sid="([\w-]+)")')
_ONCE = re.compile(r'<input type="hidden" name="(csrfmiddlewaretoken|client_key)" value="[^"]*">')  # drawn anew for every page
MOST_MADE = 64  # of one part, kept as they were made


def once_left_out(html: str) -> str:
    """A part without what is drawn anew for every page."""
    return _ONCE.sub("", html)


def parts_held(request: HttpRequest) -> Mapping[str, str]:
    """The parts that a page has already, by their ids."""
    named = request.headers.get(HEADER, "").split()[:MOST] if is_partial(request) else ()
    return {name: digest for name, _, digest in (each.partition("=") for each in named)}


def _opens(html: str) -> re.Match[str]:
    """The element that a part is, and its id."""
    opens = _OPENS.match(html)
    if opens is None:
        raise template.TemplateSyntaxError("A part is one element with an id.")
    return opens


def _stays(element: str, name: str) -> str:
    return f'<{element} id="{name}" hx-preserve="true"></{element}>'


def part_of(html: str, held: Mapping[str, str], digest: str = "") -> str:
    """An element marked by its digest, or by that of what it is made of; where the page holds it, no more than the place where it stays."""
    opens = _opens(html)
    element, name = opens.groups()
    digest = digest or blake2b(once_left_out(html).encode(), digest_size=6).hexdigest()
    if held.get(name) == digest:
        return _stays(element, name)
    return f'{html[: opens.end(1)]} data-part="{digest}"{html[opens.end(1) :]}'


def made_of(key: Hashable) -> str:
    """A digest of what a part is made of, and for whom; of this process alone, so that none outlives the template that made it."""
    return _digest((key, current_reader()))


def _digest(made: Hashable) -> str:
    return f"{hash(made) & _BITS:016x}"


_parts: WeakSet[Part] = WeakSet()


def forget() -> None:
    """As after a start: no part was made yet."""
    for each in _parts:
        each.made.clear()


class Part(Node):
    """The element between the tags."""

    def __init__(self, inside: NodeList, key: FilterExpression | None) -> None:
        self.nodelist, self.key = inside, key
        self.opens: tuple[str, str] | None = None  # the element and its id, once it has been made
        self.made: dict[Hashable, list[str]] = {}  # by what they are made of, cut where something is drawn anew; the latest last
        _parts.add(self)

    def render(self, context: Context) -> SafeString:
        held, key = parts_held(context["request"]), self.key.resolve(context) if self.key else None
        made = (key, current_reader()) if key else None
        digest = _digest(made) if made else ""
        if self.opens and digest and held.get(self.opens[1]) == digest:
            return mark_safe(_stays(*self.opens))  # noqa: S308  # an element and an id out of the template
        html = self._as_made(context, made) if made else self.nodelist.render(context)
        self.opens = _opens(html).groups()  # type: ignore[assignment]  # both are there
        return mark_safe(part_of(html, held, digest))  # noqa: S308  # escaped as it was rendered

    def _as_made(self, context: Context, made: Hashable) -> str:
        whole = made, bool(context.get("partial"))
        pieces = self.made.pop(whole, None)
        if pieces is None:
            html = self.nodelist.render(context)
            self.made[whole] = _ONCE.split(html)
            for oldest in list(self.made)[:-MOST_MADE]:
                self.made.pop(oldest, None)
            return html
        self.made[whole] = pieces
        return "".join(piece if not at % 2 else _drawn(piece, context) for at, piece in enumerate(pieces))


def _drawn(name: str, context: Context) -> str:
    """The input of a form that no two pages have in common."""
    return act_key() if name == "client_key" else CsrfTokenNode().render(context)


@register.tag
def part(parser: Parser, token: Token) -> Part:
    """One element with an id, sent again when it says something else."""
    _, *key = token.split_contents()
    inside = parser.parse(("endpart",))
    parser.delete_first_token()
    return Part(inside, parser.compile_filter(key[0]) if key else None)
