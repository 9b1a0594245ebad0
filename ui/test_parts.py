"""Parts that a page keeps, and what is sent of them."""

from __future__ import annotations

from django.template import TemplateSyntaxError
from django.test import SimpleTestCase

from ui.templatetags.parts import part_of

KEY = '<form><input type="hidden" name="client_key" value="{}"><button>Undo</button></form>'


def parts(html):
    """The digest that an element is marked by."""
    return html.partition('data-part="')[2].partition('"')[0]


class Parts(SimpleTestCase):
    def test_what_the_page_has_is_left_where_it_stands(self):
        sent = part_of('\n<nav class="run" id="run"><a href="/">Split</a></nav>', {})
        self.assertIn('<nav data-part="', sent)
        again = part_of('\n<nav class="run" id="run"><a href="/">Split</a></nav>', {"run": parts(sent)})
        self.assertEqual(again, '<nav id="run" hx-preserve="true"></nav>')
        other = part_of('\n<nav class="run" id="run"><a href="/">Close</a></nav>', {"run": parts(sent)})
        self.assertIn("Close", other)
        self.assertNotEqual(parts(other), parts(sent))

    def test_keys_of_forms_that_differ_each_time_make_no_difference(self):
        first = part_of(f'<div id="a">{KEY.format("one")}</div>', {})
        self.assertIn("hx-preserve", part_of(f'<div id="a">{KEY.format("two")}</div>', {"a": parts(first)}))

    def test_a_part_has_an_id(self):
        with self.assertRaises(TemplateSyntaxError):
            part_of('<p>Never <b id="inside">here</b></p>', {})
