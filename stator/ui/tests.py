from __future__ import annotations

import math
from datetime import UTC, datetime, timedelta
from pathlib import Path
from types import SimpleNamespace
from xml.etree import ElementTree

from django.template import Context, Template
from django.test import SimpleTestCase

from stator.ui.glossary import GLOSSARY
from stator.ui.graph import Axes, Rule, step_for
from stator.ui.svg import Sheet, papers
from stator.ui.templatetags.stator_tags import ago, clock, get, margin_scale, mark

NOW = datetime(2026, 5, 4, 9, tzinfo=UTC)


class Drafting(SimpleTestCase):
    def sheet(self):
        return Sheet(200, 100, "A seat", "6204 in its case", "wide")

    def test_a_drawing_has_a_title_and_words_for_those_who_do_not_see_it(self):
        drawn = ElementTree.fromstring(self.sheet().render())
        self.assertEqual([(each.tag, each.text) for each in drawn][:2], [("title", "A seat"), ("desc", "6204 in its case")])
        self.assertEqual(drawn.get("aria-labelledby"), "wide-t wide-d")

    def test_words_from_a_card_cannot_break_out_of_the_drawing(self):
        sheet = Sheet(200, 100, "<script>", '"><b>', "wide")
        sheet.text((5, 5), "</text><script>alert(1)</script>")
        with sheet.link('/jobs/"x', "<i>"):
            sheet.line((0, 0), (1, 1), 'thin" onload="x')
        text = sheet.render()
        self.assertNotIn("<script>", text)
        self.assertNotIn('onload="', text)
        ElementTree.fromstring(text)

    def test_no_look_is_set_by_a_style_attribute(self):
        sheet = self.sheet()
        sheet.hatched([(0, 0), (9, 0), (9, 9)], "hot")
        sheet.arrow((0, 0), (9, 9), "ink")
        sheet.dimension((0, 50), (200, 50), "47")
        self.assertNotIn("style=", sheet.render())

    def test_one_kind_of_hatching_is_defined_once_and_named_after_its_sheet(self):
        sheet = self.sheet()
        for _ in range(3):
            sheet.hatched([(0, 0), (9, 0), (9, 9)], "cold")
        self.assertEqual(sheet.render().count("<pattern"), 1)
        self.assertIn('id="wide-cold-9-up"', sheet.render())

    def test_what_can_be_tapped_is_no_image(self):
        sheet = self.sheet()
        self.assertIn('role="img"', sheet.render())
        with sheet.link("/x", "Reading"):
            sheet.text((5, 5), "here")
        self.assertIn('role="group"', sheet.render())

    def test_a_dimension_too_narrow_for_its_words_wears_them_outside(self):
        wide, narrow = self.sheet(), self.sheet()
        wide.dimension((0, 50), (200, 50), "47")
        narrow.dimension((90, 50), (110, 50), "47 N7")
        self.assertIn('x="100.0"', wide.render())
        self.assertIn('x="146.0"', narrow.render())

    def test_a_minus_sign_is_a_minus_sign(self):
        sheet = self.sheet()
        sheet.text((5, 5), "-0.012")
        self.assertIn("−0.012", sheet.render())

    def test_papers_keep_their_names(self):
        self.assertEqual(papers({"wide": self.sheet().render()}).count('<div class="wide">'), 1)


class Graphs(SimpleTestCase):
    def test_ticks_fall_on_numbers_a_person_would_choose(self):
        for span, highest, needed in [(0.1, 5, 0.02), (14, 8, 2), (3600, 8, 500), (1, 4, 0.25), (0.07, 5, 0.02)]:
            self.assertAlmostEqual(step_for(span, highest), needed)

    def test_numbers_land_where_they_belong(self):
        axes = Axes(10, 20, 100, 50, x_max=10, y_min=-1, y_max=1)
        self.assertEqual(axes.at(0, 1), (10, 20))
        self.assertEqual(axes.at(10, -1), (110, 70))

    def test_a_value_on_a_rule_is_written_no_finer_than_it_is_known(self):
        for uncertainty, written in ((0.066, "0.16"), (0.008, "0.161"), (0.0, "0.161")):
            sheet = Sheet(200, 100, "", "")
            Rule(50.0, 10.0, 190.0, 0.0, 0.3).draw(sheet, (0.1, 0.2), 0.1612, uncertainty, ("0.10", "0.20"))
            self.assertIn(f">{written}<", sheet.render())

    def test_zero_is_written_without_a_sign(self):
        sheet = Sheet(200, 100, "", "")
        Axes(10, 20, 100, 50, 10, -0.02, 0.08).draw(sheet, 1, "min")
        self.assertIn(">0.00<", sheet.render())
        self.assertNotIn(">−0.00<", sheet.render())

    def test_ticks_are_written_with_all_their_digits_in_the_unit_of_the_axis(self):
        metric, inch = Sheet(200, 100, "", ""), Sheet(200, 100, "", "")
        Axes(10, 20, 100, 50, 10, 0.0, 0.11).draw(metric, 1, "min")
        self.assertIn(">0.025<", metric.render())
        Axes(10, 20, 100, 50, 10, 0.0, 0.11).draw(inch, 1, "min", 0.0254)
        self.assertIn(">4<", inch.render())


class SmallWords(SimpleTestCase):
    def test_clocks(self):
        cases = {412: "6:52", 3850: "1:04:10", 5: "0:05", -75: "−1:15", math.inf: "no end", None: "unknown", math.nan: "unknown"}
        for seconds, words in cases.items():
            self.assertEqual(clock(seconds), words)

    def test_how_long_ago(self):
        for back, words in [(10, "just now"), (130, "2 min ago"), (7300, "2 h ago"), (400000, "5 days ago")]:
            self.assertEqual(ago(NOW - timedelta(seconds=back), NOW), words)

    def test_every_state_has_its_own_shape(self):
        shapes = [mark(state) for state in ("ahead", "now", "done", "waits", "too_close", "out", "stop")]
        self.assertEqual(len(set(shapes)), len(shapes))
        self.assertEqual(mark("no such state"), mark("ahead"))

    def test_a_key_of_nothing_is_nothing(self):
        self.assertEqual((get({"a": 1}, "a"), get({}, "a"), get("", "a")), (1, "", ""))

    def test_a_scale_shows_no_digits_that_the_uncertainty_does_not_allow(self):
        force = margin_scale(SimpleNamespace(value=22.31, uncertainty=22.9, low=None, high=100.0, unit="kN", digits=1))
        self.assertIn("22 ± 23 kN; limit 100", force)
        self.assertIn(">22</text>", force)
        self.assertIn(">100 at most</text>", force)
        press = margin_scale(SimpleNamespace(value=2.27, uncertainty=2.3, low=None, high=12.0, unit="t", digits=1))
        self.assertIn(">2.2</text>", press)
        runout = margin_scale(SimpleNamespace(value=0.039, uncertainty=0.003, low=None, high=0.03, unit="mm", digits=3))
        self.assertIn(">0.030 at most</text>", runout)

    def test_the_margin_is_said_as_well_as_drawn(self):
        drawn = margin_scale(SimpleNamespace(value=0.048, uncertainty=0.012, low=0.024, high=None, unit="mm", digits=3))
        self.assertIn("0.048 ± 0.012 mm; limit 0.024", drawn)
        ElementTree.fromstring(drawn)

    def test_templates_know_these_words(self):
        self.assertEqual(Template("{{ s|clock }}").render(Context({"s": 412})), "6:52")


class Glossary(SimpleTestCase):
    def test_every_term_that_a_page_explains_stands_in_the_docs_with_the_same_meaning(self):
        written = (Path(__file__).parent.parent.parent / "docs" / "glossary.md").read_text()
        for term in GLOSSARY:
            self.assertIn(f"| {term.word} | {term.meaning} |", written)
