"""Parts that a page keeps, and what is sent of them."""

from __future__ import annotations

import inspect
from unittest.mock import patch

from django.template import Context, Template, TemplateSyntaxError
from django.test import RequestFactory, SimpleTestCase
from django.utils import translation

from stator.ui.templatetags.parts import MOST_MADE, Part, part_of
from stator.ui.units import Units, reading_in

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


class MadeOfTheSame(SimpleTestCase):
    """A part that tells what it is made of: where the page holds one made of the same, its template is not even run."""

    def setUp(self):
        plain = inspect.unwrap(Part.render)  # all tests prove what is made of the same, by making it every time
        self.enterContext(patch.object(Part, "render", plain))
        self.template = Template('{% load parts %}{% part key %}<p id="a">{{ said }}</p>{% endpart %}')
        self.made = 0

    def said(self):
        self.made += 1
        return "Split"

    def rendered(self, key, held="", **more):
        request = RequestFactory().get("/", headers={"HX-Request": "true", "X-Partial": "1", "X-Parts": held})
        request.htmx = True
        return self.template.render(Context({"request": request, "key": key, "said": self.said, **more}))

    def test_it_is_left_where_it_stands_and_not_made_again(self):
        digest = parts(self.rendered(("run", 7)))
        self.assertEqual(self.rendered(("run", 7), f"a={digest}"), '<p id="a" hx-preserve="true"></p>')
        self.assertEqual(self.made, 1)

    def test_made_of_something_else_or_for_another_reader_it_is_sent(self):
        digest = parts(self.rendered(("run", 7)))
        self.assertIn("Split", self.rendered(("run", 8), f"a={digest}"))
        with reading_in(Units.INCH):
            self.assertIn("Split", self.rendered(("run", 7), f"a={digest}"))
        with translation.override("de"):
            self.assertIn("Split", self.rendered(("run", 7), f"a={digest}"))
        self.assertEqual(self.made, 4)

    def test_what_tells_nothing_of_itself_is_compared_by_what_it_says(self):
        digest = parts(self.rendered(None))
        self.assertIn("hx-preserve", self.rendered(False, f"a={digest}"))
        self.assertEqual(self.made, 2)

    def test_for_another_page_it_is_taken_as_it_was_made_with_keys_of_its_own(self):
        self.template = Template(
            '{% load parts stator_tags %}{% part key %}<form id="a">{% csrf_token %}{% act_key %}{{ said }}</form>{% endpart %}'
        )
        pages = [self.rendered(("run", 7), csrf_token=token) for token in ("hers", "his")]
        self.assertEqual(self.made, 1)
        for page, token in zip(pages, ("hers", "his"), strict=True):
            self.assertIn(f'name="csrfmiddlewaretoken" value="{token}"', page)
            self.assertIn("Split</form>", page)
        keys = {page.partition('name="client_key" value="')[2].partition('"')[0] for page in pages}
        self.assertEqual([len(key) for key in keys], [32, 32])

    def test_few_are_kept(self):
        for number in range(MOST_MADE + 2):
            self.rendered(("run", number))
        self.rendered(("run", MOST_MADE + 1))
        self.assertEqual(self.made, MOST_MADE + 2)
        self.rendered(("run", 0))
        self.assertEqual(self.made, MOST_MADE + 3)
