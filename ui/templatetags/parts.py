"""Parts of a page that a page keeps: what a partial answer would only say again, it leaves out.

`{% part %}<nav id="run">…</nav>{% endpart %}` marks an element by a digest of what it says. A page that asks for an answer tells which
parts it has; one that would come out the same is left where it stands.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from hashlib import blake2b

from django import template
from django.http import HttpRequest
from django.template.base import Node, NodeList, Parser, Token
from django.template.context import Context
from django.utils.safestring import SafeString, mark_safe

from ui.partial import is_partial

register = template.Library()

HEADER = "X-Parts"  # of a request: `run=9f2c… picture=…`, each part by its id
MOST = 40  # parts read of a request
_OPENS = re.compile(r'\s*<(\w+)(?=[^>]*?\sid="([\w-]+)")')
_ONCE = re.compile(r'<input type="hidden" name="(?:csrfmiddlewaretoken|client_key)" value="[^"]*">')  # drawn anew for every page


def parts_held(request: HttpRequest) -> Mapping[str, str]:
    """The parts that a page has already, by their ids."""
    named = request.headers.get(HEADER, "").split()[:MOST] if is_partial(request) else ()
    return {name: digest for name, _, digest in (each.partition("=") for each in named)}


def part_of(html: str, held: Mapping[str, str]) -> str:
    """An element marked by its digest; where the page holds it already, no more than the place where it stays."""
    opens = _OPENS.match(html)
    if opens is None:
        raise template.TemplateSyntaxError("A part is one element with an id.")
    element, name = opens.groups()
    digest = blake2b(_ONCE.sub("", html).encode(), digest_size=6).hexdigest()
    if held.get(name) == digest:
        return f'<{element} id="{name}" hx-preserve="true"></{element}>'
    return f'{html[: opens.end(1)]} data-part="{digest}"{html[opens.end(1) :]}'


class _Part(Node):
    def __init__(self, inside: NodeList) -> None:
        self.nodelist = inside

    def render(self, context: Context) -> SafeString:
        return mark_safe(part_of(self.nodelist.render(context), parts_held(context["request"])))  # noqa: S308  # escaped as it was rendered


@register.tag
def part(parser: Parser, token: Token) -> _Part:
    """One element with an id, sent again when it says something else."""
    inside = parser.parse(("endpart",))
    parser.delete_first_token()
    return _Part(inside)
