"""Commands of the station page.

Each view handles one idempotent request in one transaction.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace
from functools import wraps
from typing import Any

from django.http import HttpRequest, HttpResponse
from django.urls import reverse
from django.utils.translation import gettext as _
from django.utils.translation import gettext_lazy
from django.views.decorators.http import require_POST

from shopmath.validation import BadInput
from stator.jobs import log
from stator.jobs.idempotency import IdempotentRequest, sent
from stator.jobs.models import Act, Reading
from stator.jobs.permissions import JobClosed
from stator.stations.framework import COMMANDS, WORD, BoundStation, PageOutdated, Question, plausibility
from stator.stations.framework.page_state import same_attempt
from stator.stations.framework.reading_notes import SENT_LATER
from stator.ui.url_values import row_number
from stator.workbench.bulk_answers import (
    SKIP_ALL,
    as_before,
    as_thread,
    places_left,
    save_whole_round,
    saved_together,
    skip_optional_questions,
    take_as_before,
    take_thread,
    without_all,
)
from stator.workbench.offline import typed_at
from stator.workbench.reading_commands import accept_offered_fact, again, opened, save_reading, take_second, with_reading
from stator.workbench.station_page import Answer, find_work, next_seat, not_a_word, place_called

BROUGHT_OVER = gettext_lazy("Everything that was read is here again, with who read it and when. Change what was wrong, then sign.")
MOVED_ON = gettext_lazy(
    "This was signed meanwhile, perhaps on another device. What you typed is still here; replace the entry to change it."
)
CORRECTED = gettext_lazy("{old} had been kept here before; {new} stands in its place.")
ANOTHER_LAST = gettext_lazy("Meanwhile {by} kept {typed}. Undo once more to withdraw that.")
View = Callable[..., Any]


def station_command(view: View) -> View:
    """Run a view with its station inside the transaction of its request, and turn refusals into messages.

    The view returns an `Answer`, which is rendered after the transaction, or a response of its own; one with status 200 means that nothing
    was saved.
    """

    def answers(request: HttpRequest, tag: str, key: str, seat: int | None = None, **more: Any) -> Answer | HttpResponse:
        typed = request.POST.get("text", "")
        with sent(request) as doing:
            request.act = doing  # type: ignore[attr-defined]
            work = find_work(request, tag, key, seat)
            doing.job = work.job
            try:
                answer = _known(work, doing.repeats) if doing.repeats else _allowed(view, request, work, **more)
            except log.Signed:
                answer = Answer(work, error=BadInput("signed", str(MOVED_ON)), typed=typed)
            except PageOutdated as error:
                answer = Answer(work, error=BadInput("sign", _what_changed(work, error)), typed=typed)
            except BadInput as error:
                answer = Answer(work, request.POST.get("ask"), error, typed)
            if isinstance(answer, HttpResponse):
                doing.refused = answer.status_code == 200
                doing.outcome["goes"] = answer.headers.get("Location", "")
            else:
                doing.refused = answer.error is not None
                reading = answer.reading.pk if answer.reading else None
                doing.outcome.update(ask=answer.ask, goes=answer.goes, note=str(answer.note), reading=reading)
        if isinstance(answer, HttpResponse) or not answer.error:
            return answer
        return Answer(find_work(request, tag, key, seat), answer.ask, answer.error, answer.typed)  # what it had opened was taken back

    @wraps(view)
    def wrapped(request: HttpRequest, *args: Any, **kwargs: Any) -> HttpResponse:
        answer = answers(request, *args, **kwargs)
        return answer if isinstance(answer, HttpResponse) else answer.render(request)

    wrapped.answers = answers  # type: ignore[attr-defined]  # what an act led to, before a page is made of it
    return wrapped


def _allowed(view: View, request: HttpRequest, work: BoundStation, **more: Any) -> Answer | HttpResponse:
    if work.job.is_closed and not (work.station.open_when_closed and view.__name__ == "supersede"):
        raise JobClosed
    return view(request, work, **more)  # type: ignore[no-any-return]


def _known(work: BoundStation, act: Act) -> Answer:
    """The answer to something that has been done already."""
    return Answer(work, act.outcome.get("ask"), note=str(act.outcome.get("note", "")), goes=str(act.outcome.get("goes") or ""))


def _what_changed(work: BoundStation, moved: PageOutdated) -> str:
    """Return why a verdict is not signed: who did what since the page was shown, and the present verdict."""
    since = Act.objects.filter(job=work.job, revision__gt=moved.revision).select_related("person").order_by("-pk")[:4]
    done = [f"{act.person.called}: {act.outcome['did']}" for act in reversed(since) if act.outcome.get("did")]
    what = _("Since this page was shown something changed ({done}).").format(done="; ".join(done)) if done else moved.message
    return _("Not signed. {what} The call now: {words}. Look at it, then sign.").format(what=what, words=work.current_verdict.headline)


def _did(request: HttpRequest, words: str) -> None:
    """Record what a request did, for messages to others."""
    _doing(request).outcome["did"] = words[:120]


def _doing(request: HttpRequest) -> IdempotentRequest:
    return request.act  # type: ignore[attr-defined,no-any-return]


@require_POST
@station_command
def save_answer(request: HttpRequest, work: BoundStation) -> Answer:
    """Save a line of the reading bar: a reading, or a command."""
    text, ask_key = request.POST.get("text", ""), request.POST.get("ask", "")
    question = next((each for each in work.current_questions if each.key == ask_key), None)
    command = text.strip().lower()
    if command and request.POST.get("word"):
        return _command(request, work, question or Question(WORD, "", kind="words"), command)
    if question is None and ask_key == WORD and (waiting := work.question_for(None)) and waiting.key == WORD:
        return _command(request, work, waiting, command)
    thread = as_thread(question, text) if question else None
    if question and thread:
        same_attempt(row_number(request.POST.get("attempt", "")), work.answers.attempt, question.key)
        if _came_second(work, question, row_number(request.POST.get("saw", ""))):
            return Answer(work)  # answered meanwhile, on another device: the first stands
        reading = take_thread(opened(work), question, text, thread, _doing(request).key)
        _did(request, f"{question.text}, {text.strip()}")
        return _settled(work, reading=reading)
    question = question.asked_in(request.POST.get("unit", "")) if question else None
    if question is None:
        raise BadInput(ask_key, _("The page has moved on to another reading. What you typed is kept; see what is asked now."))
    if command and _is_command(work, question, command):
        return _command(request, work, question, command)
    same_attempt(row_number(request.POST.get("attempt", "")), work.answers.attempt, question.key)
    if request.POST.get("as_before"):
        return _as_before(request, opened(work), question)
    if not command and question.offer:
        return _use_offered(request, opened(work), question)
    if not command:
        return _skip(request, work, question)
    return _keep_reading(request, opened(work), question, text)


def _use_offered(request: HttpRequest, work: BoundStation, ask: Question) -> Answer:
    """Enter alone at a question whose answer another entry knows: it is used, as it was measured there."""
    if _came_second(work, ask, row_number(request.POST.get("saw", ""))):
        return Answer(work)
    reading = accept_offered_fact(work, ask, _doing(request).key)
    _did(request, f"{ask.text}, {reading.text}")
    return _settled(work, reading=reading)


def _keep_reading(request: HttpRequest, work: BoundStation, ask: Question, text: str) -> Answer:
    doing = _doing(request)
    more: dict[str, Any] = {"data": request.POST.dict(), "extra": {"heard": True} if request.POST.get("heard") else {}}
    corrected = _corrected(work, ask, doing)
    if corrected is None and _came_second(work, ask, row_number(request.POST.get("saw", ""))):
        reading = take_second(work, ask, text, doing.key, **more)
        _did(request, _("typed {text} ({words}) after another answer").format(text=reading.text, words=ask.text))
        return _settled(work, reading=reading)
    at = typed_at(request.POST.get("at", ""), work.now)
    if at:
        more |= {"at": at, "extra": {**more["extra"], SENT_LATER: work.now.isoformat()}}
    of_all = without_all(text)
    places = places_left(work, ask) if of_all else []
    text = of_all if of_all and len(places) == 1 else text  # the last place of a round is all that is left of it
    if of_all and len(places) > 1:
        reading = save_whole_round(work, places, of_all, doing.key, more)
        _did(request, _("{words} and the other places: {text}").format(words=ask.text, text=reading.text))
        return _settled(work, reading=reading)
    unlikely = None if request.POST.get("heard") else _unlikely(work, ask, text)
    if unlikely and request.POST.get("suspect", "").strip() != text.strip():
        return Answer(work, ask.key, BadInput(ask.key, unlikely, plausibility.TYPO), text)
    if unlikely:
        more["extra"][plausibility.CONFIRMED] = True
    reading = save_reading(work, ask, text, doing.key, **more)
    note = ""
    if corrected and corrected.text != reading.text:
        note = CORRECTED.format(old=corrected.text, new=reading.text)
    if corrected and Reading.objects.filter(pk=corrected.pk, withdrawn_at=None).exists():
        log.withdraw(corrected, work.person)
    _did(request, f"{ask.text}, {reading.text}")
    return _settled(work, note=note, reading=reading, only_here=not work.has_follow_up)


def _as_before(request: HttpRequest, work: BoundStation, ask: Question) -> Answer:
    """The answers that are often the same at the next seat, as at the one before."""
    before = as_before(work, ask)
    if before is None:
        return Answer(work, ask.key)
    take_as_before(work, before, _doing(request).key)
    _did(request, _("as at {part}: {answers}").format(part=before.name, answers=before.words))
    return _settled(work)


def _unlikely(work: BoundStation, ask: Question, text: str) -> str:
    """Return why what was typed looks mistyped, as a sentence; empty where it does not."""
    quantity = work.parse_answer(ask, text)
    found = plausibility.why_unlikely(work, ask, quantity)
    return plausibility.said(found, ask, quantity) if found else ""


def _corrected(work: BoundStation, ask: Question, doing: IdempotentRequest) -> Reading | None:
    """Return the reading that this page sent before with the same key, because its response was lost or the page was restored."""
    act = doing.corrects
    if act is None or act.person_id != work.person.pk:
        return None
    return next((each for each in work.answers.live(ask.key) if each.pk == act.outcome.get("reading")), None)


def _came_second(work: BoundStation, ask: Question, saw: int | None) -> bool:
    """Return True if the question was answered since its page was shown, and needs no repeat."""
    standing = len(work.answers.live(ask.key))
    return saw is not None and standing > saw and standing >= ask.times and not ask.repeats


def _is_command(work: BoundStation, ask: Question, typed: str) -> bool:
    """A word where a number is asked; where words are asked only a whole command alone."""
    if not ask.is_words:
        return typed[0].isalpha() or typed[0] == "?"
    return not ask.options and (typed in {*COMMANDS, SKIP_ALL} or typed in {action.word for action in work.actions()})


def _settled(
    work: BoundStation, ask: str | None = None, event: str = "", note: str = "", reading: Reading | None = None, *, only_here: bool = False
) -> Answer:
    """Return the response after a write, with the station in its new state."""
    fresh = with_reading(work, reading) if reading and only_here else again(work, only_here=only_here)
    fresh.update_work_plan()
    return Answer(fresh, ask, event=event, note=note, reading=reading)


def _skip(request: HttpRequest, work: BoundStation, ask: Question, together: Sequence[str] = ()) -> Answer:
    """Leave a question out; `together` with those right behind it."""
    if ask.repeats and not ask.optional:
        return Answer(work)
    if not ask.optional:
        return Answer(work, ask.key, BadInput(ask.key, _("{words}: this one is needed.").format(words=ask.text)))
    if _came_second(work, ask, row_number(request.POST.get("saw", ""))):
        return Answer(work)  # answered meanwhile: there is nothing left to leave out
    work = opened(work)
    if work.entry:
        log.set_method(
            work.entry, skipped=list(dict.fromkeys([*(key for key in work.answers.skipped if key != ask.key), ask.key, *together]))
        )
    _did(request, _("skipped {words}").format(words=ask.text))
    return _settled(work, only_here=True)


def _command(request: HttpRequest, work: BoundStation, ask: Question, command: str) -> Answer:
    """Run a command of the reading bar; its first letters suffice."""
    if not command:
        return Answer(work)
    action = next((each for each in work.actions() if each.word.startswith(command)), None)
    word = next((each for each in COMMANDS if each.startswith(command)), None)
    if action:
        return _act(request, work, action.key)
    if command == SKIP_ALL and ask.key != WORD:
        return _skip(request, work, ask, [each.key for each in skip_optional_questions(work, ask)])
    if word == "skip" and ask.key != WORD:
        return _skip(request, work, ask)
    if word == "back":
        before = work.previous_question(ask)
        return Answer(work, before.key) if before else Answer(work, ask.key, BadInput("back", _("This is the first reading here.")))
    if word == "undo":
        return _undo(request, work)
    if word == "log" and work.job.practice:
        return Answer(work, ask.key, BadInput("log", _("Practice keeps no log: what was done stands in its debrief.")))
    if word == "log":
        return Answer(work, goes=reverse("job-log", args=[work.job.tag]))
    if word in ("sheet", "timer", "?"):
        return Answer(work, ask.key, event={"?": "keys"}.get(word, word))
    place = place_called(work, command)
    if place:
        return Answer(work, goes=place)
    return Answer(work, ask.key, BadInput("command", not_a_word(work, ask, command)), command)


def _act(request: HttpRequest, work: BoundStation, key: str) -> Answer:
    work = opened(work)
    words = next((action.words for action in work.actions() if action.key == key), key)
    work.act(key)
    _did(request, words)
    done = _settled(work)
    if key == "sign" and (there := next_seat(done.work)):
        signed = _("{part} is signed: {call}.").format(part=work.seat.name if work.seat else "", call=done.work.current_verdict.headline)
        return replace(done, goes=there, note=signed)
    return done


def _undo(request: HttpRequest, work: BoundStation) -> Answer:
    """Withdraw the last reading: the one the page shows as the last."""
    standing = [reading for reading in work.readings if not reading.withdrawn_at]
    if not standing:
        return Answer(work, error=BadInput("undo", _("There is no reading to withdraw.")))
    last, shown = standing[-1], row_number(request.POST.get("latest", ""))
    if shown is not None and shown != last.pk:
        raise BadInput("undo", ANOTHER_LAST.format(by=last.by.called, typed=last.text))
    return _withdrawn(request, work, *saved_together(last, standing))


def _withdrawn(request: HttpRequest, work: BoundStation, *readings: Reading) -> Answer:
    for each in readings:
        log.withdraw(each, work.person)
    _did(request, _("withdrew {text}").format(text=readings[0].text))
    return _settled(work, readings[0].ask)


@require_POST
@station_command
def act(request: HttpRequest, work: BoundStation) -> Answer:
    return _act(request, work, request.POST.get("action", ""))


@require_POST
@station_command
def undo(request: HttpRequest, work: BoundStation) -> Answer:
    """Withdraw one reading by its number, or the last."""
    number = request.POST.get("reading", "")
    if not number:
        return _undo(request, work)
    chosen = next((reading for reading in work.readings if str(reading.pk) == number), None)
    if chosen is None:
        raise BadInput("undo", _("That reading is not in this entry."))
    return Answer(work, chosen.ask) if chosen.withdrawn_at else _withdrawn(request, work, chosen)


@require_POST
@station_command
def choose(request: HttpRequest, work: BoundStation) -> Answer:
    """One method, one option."""
    chosen, said = {}, []
    tabs = work.tabs()
    for method in (*work.methods(), *([tabs] if tabs else [])):
        value = request.POST.get(method.key)
        if value is not None:
            option = next((option for option in method.options if option.key == value), None)
            if option is None:
                raise BadInput(method.key, _("{words}: that is not on the shelf any more.").format(words=method.words))
            chosen[method.key] = value
            said.append(f"{method.words}: {option.words}")
    work = opened(work)
    if work.entry and chosen:
        log.set_method(work.entry, **chosen)
    _did(request, ", ".join(said))
    return _settled(work, only_here=True)


@require_POST
@station_command
def tick(request: HttpRequest, work: BoundStation) -> Answer:
    key = request.POST.get("key", "")
    check = next((warning for warning in work.checks() if warning.key == key), None)
    work = opened(work)
    if work.entry and check:
        log.tick_check(work.entry, work.person, key, request.POST.get("on") == "1")
        _did(request, f"{'ticked' if request.POST.get('on') == '1' else 'took back the tick at'}: {check.words}")
    return _settled(work, only_here=True)


@require_POST
@station_command
def continue_against_advice(request: HttpRequest, work: BoundStation) -> Answer:
    """Continue without a prerequisite, with the reason: a decision against advice."""
    code, reason = request.POST.get("need", ""), " ".join(request.POST.get("reason", "").split())[:200]
    said = dict(work.unmet_prerequisites).get(code)
    if said is None:
        return Answer(work)
    if not reason:
        raise BadInput("need", _("Give the reason in a few words; the job sheet carries it."))
    work = opened(work)
    if work.entry:
        log.set_method(work.entry, against={**work.answers.choices.get("against", {}), code: reason})
    _did(request, _("goes on: {reason}").format(reason=reason))
    return _settled(work)


@require_POST
@station_command
def supersede(request: HttpRequest, work: BoundStation) -> Answer:
    """A new entry in place of a signed one, with the reason."""
    reason = " ".join(request.POST.get("reason", "").split())[:200]
    if not work.entry or not work.entry.is_signed:
        return Answer(work)
    if not reason:
        raise BadInput("reason", _("Say in a few words why the signed entry is no longer right."))
    work.replace(reason)
    _did(request, _("replaced the entry: {reason}").format(reason=reason))
    return _settled(work, note=str(BROUGHT_OVER))
