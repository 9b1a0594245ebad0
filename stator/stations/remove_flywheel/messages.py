"""Messages of Remove flywheel by code."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

from shopmath.amounts import newton_metres
from stator.engines.properties import Property
from stator.stations.framework.messages import Methods, Options, fixed, plural
from stator.stations.remove_flywheel.analysis import LOADED, Code

NAME = _("Flywheel off")
DRAWING = _("Puller in the boss of the flywheel")
EXAMPLE = fixed(
    _("Thread matches and holds. Stop at {torque} on the centre screw; the taper should release before."),
    torque=newton_metres(48),
)
DONE = _("flywheel taken off")

HEADLINE = {
    Code.WHICH_THREAD: _("Measure the threads"),
    Code.WRONG_THREAD: _("Thread does not match"),
    Code.WRONG_SIZE: _("Thread does not match"),
    Code.CLEAN_FIRST: _("Clean the thread first"),
    Code.MORE_THREAD: _("Needs more thread"),
    Code.UNSURE: _("Too close to call"),
    Code.THREAD_HOLDS: _("The thread is strong enough"),
    Code.PULLING: _("Pulling within limits"),
    Code.HOLDS_HARD: _("Taper is holding more than expected"),
    Code.STOP: _("Stop pulling"),
    Code.LOOK_AT_IT: _("The flywheel is off"),
    Code.OFF: _("Flywheel off, sound"),
    Code.OFF_STEPPED: _("Flywheel is off; key is offset or part-sheared"),
    Code.OFF_DAMAGED: _("Off, with damage"),
}
REASON = {
    "puller_is": _("Puller: {thread}."),
    "nothing_measured": _("Puller and boss are not measured yet."),
    "other_hand": _("One thread is right-hand, the other left-hand: puller {puller_hand}, boss {boss_hand}.{bound}"),
    "other_pitch": plural(
        "A pitch of {puller} in a boss of {boss} is another thread. It jams after about {jams} turn.{bound}",
        "A pitch of {puller} in a boss of {boss} is another thread. It jams after about {jams} turns.{bound}",
        "jams",
    ),
    "other_pitch_at_once": _("A pitch of {puller} in a boss of {boss} is another thread. It jams at once.{bound}"),
    "too_small": _("{puller} in a boss for {wanted} is {off} too small: little more than the crests hold.{bound}"),
    "too_large": _("{puller} in a boss for {wanted} is {off} too large: it cannot go in.{bound}"),
    "bound_early": _("Same pitch, same hand, but it bound at {turns} of {depth} turns: coating or damage, not a wrong thread."),
    "wanted_unknown": _("{turns} whole turns stand {stands}. What the taper needs is unknown without nut torque and taper."),
    "thread_holds": _("{turns} whole turns stand {stands}; the taper needs {low} to {high}."),
    "thread_may_hold": _("{turns} whole turns stand {stands}; the taper needs {low} to {high}. Either may give first."),
    "thread_goes_first": _("{turns} whole turns stand {stands}; the taper needs {low} to {high}: the thread goes before the taper does."),
    "screw_may_give": _(
        "{turns} whole turns stand {stands}; the taper needs {low} to {high}. The centre screw itself stands {screw}; up to {needed} may "
        "be needed."
    ),
    "past_screw": _("{torque} is past the {stop} at which the centre screw may give."),
    "past_stop": _("{torque} is past the {stop} at which the thread may strip."),
    "harder_than_expected": _("{torque} is more than this taper should need."),
    "under_stop": _("{torque} now, {left} below the limit."),
    "look_first": _("Look at it before it is wiped clean."),
    "all_looked_at": _("Taper, key, magnets and coils have been looked at."),
    "stepped": _("The offset or part-sheared key shifts the ignition timing by {shift}."),
    "stepped_unknown": _("The key is stepped by {step}; without the shaft diameter the shift of the timing is unknown."),
    "taper_picked_up": _("The taper has picked up metal: blue it and lap it before it goes back."),
    "key_sheared": _("The key is sheared: find out why before a new one goes in."),
    "coils_rubbed": _("The coils are rubbed: check the rim's runout and the main bearing."),
    "magnet_cracked": _("A cracked magnet ends the life of the flywheel."),
}
BOUND = _(" It bound after {turns} turns.")
NEXT = {
    "ask": _("{question}"),
    "measure": _("Measure puller and boss."),
    "other_puller": _("Do not turn it further. Find the puller with this thread; clean the boss with a thread file, take off no metal."),
    "other_size": _("Find the puller of this size. A thread held by its crests strips at a fraction of the pull."),
    "clean": _("Take it out again. Clean the boss with a thread file, take off no metal; then count the turns again."),
    "unload": _("Take the load off. Get more turns in, or use another puller."),
    "warm": _("Leave it loaded, warm the boss by hand heat, try again. No blows."),
    "quarter_turn": _("Leave it loaded, stand clear, then turn a quarter turn more."),
    "more_turns": plural(
        "Get {more} more turn in, {needed} whole ones; each whole turn adds {per_turn}.",
        "Get {more} more turns in, {needed} whole ones; each whole turn adds {per_turn}.",
        "more",
    ),
    "further_in": _("Get it further in: each whole turn adds {per_turn}."),
    "go_slowly": _("Go up slowly and stop at {stop}."),
    "load_in_steps": _("Load it in steps. It should release by {frees}; stop at {stop}."),
    "raise_it": _("Record it and tell the owner."),
    "keep_key": _("Keep that key with this engine; note which way it stood."),
    "sign": _("Nut and washer into the tray. Sign this entry."),
}
DETAIL = {
    "released_hard": _("It released at {torque}; {expected} at most was expected. Look for fretting, rust or compound on the taper."),
    "more_turns": NEXT["more_turns"],
    "further_in": NEXT["further_in"],
    "releases": _("It may release from {from_nm}, likely at {likely_nm}; stop at {stop}."),
    "stop_at": _("Stop at {stop} on the centre screw."),
    "faults": _("{others}"),
}
ASSUMED = {"hand": _("right-hand thread in the boss")}

QUESTION = {
    Property.PULLER_DIAMETER: _("Puller thread, over the crests"),
    Property.PULLER_PITCH: _("Pitch of the puller thread"),
    Property.PULLER_HAND: _("Puller thread is"),
    Property.BOSS_DIAMETER: _("Boss thread, across its crests"),
    Property.BOSS_PITCH: _("Pitch of the boss thread"),
    Property.BOSS_HAND: _("Boss thread is"),
    Property.BOSS_DEPTH: _("Depth of the boss thread"),
    Property.PULLER_TURNS: _("Turns the puller goes in by hand"),
    Property.CENTRE_SCREW_DIAMETER: _("Centre screw, over the crests"),
    Property.CENTRE_SCREW_PITCH: _("Pitch of the centre screw"),
    Property.NUT_TORQUE_WANTED: _("Torque of the flywheel nut"),
    Property.NUT_THREAD: _("Thread of the flywheel nut"),
    Property.PULLING_TORQUE: _("Torque on the centre screw"),
    Property.MOVED: _("Did anything move?"),
    Property.TAPER_CONDITION: _("The taper looks"),
    Property.KEY_CONDITION: _("The key and its keyway are"),
    Property.KEY_STEP: _("Step of the key"),
    Property.MAGNETS: _("The magnets are"),
    Property.COILS: _("The coils and their wires are"),
    Property.NOTE: _("Anything to note?"),
}
WHERE = {
    Property.PULLER_DIAMETER: _("calliper"),
    Property.PULLER_PITCH: _("thread gauge; mm or tpi"),
    Property.BOSS_DIAMETER: _("calliper jaws inside"),
    Property.BOSS_PITCH: _("thread gauge; mm or tpi"),
    Property.BOSS_DEPTH: _("from its mouth; tells coating from a wrong thread"),
    Property.PULLER_TURNS: _("count them; stop where it binds"),
    Property.CENTRE_SCREW_PITCH: _("thread gauge"),
    Property.NUT_TORQUE_WANTED: _("manual page"),
    Property.NUT_THREAD: _("over the crests"),
    Property.PULLING_TORQUE: _("as it is now"),
    Property.MOVED: _("after the wait, by eye and by ear"),
    Property.TAPER_CONDITION: _("both cones, wiped"),
    Property.KEY_STEP: _("across its two halves"),
    Property.MAGNETS: _("look, tap, pull"),
    Property.COILS: _("rubbed by the rim, burnt, oiled"),
    Property.NOTE: _("for the next time this engine comes in"),
}
SKIP = {
    Property.BOSS_DEPTH: _("unknown"),
    Property.NUT_TORQUE_WANTED: _("unknown"),
    Property.NUT_THREAD: _("unknown"),
    Property.NOTE: _("nothing to note"),
}
_HANDS = (("right", _("right-hand"), _("turns in clockwise")), ("left", _("left-hand"), _("turns in anticlockwise")))
OPTIONS: Options = {
    Property.PULLER_HAND: _HANDS,
    Property.BOSS_HAND: _HANDS,
    Property.MOVED: (
        ("nothing", _("nothing")),
        ("creaked", _("it creaked, or crept")),
        ("warmed", _("nothing; boss warmed"), _("by hand heat, under its limit")),
    ),
    Property.TAPER_CONDITION: (
        ("grey", _("even grey"), _("good contact")),
        ("rust", _("rusty"), _("clean, look again")),
        ("red", _("red dust, picked up"), _("fretted: lap or replace")),
    ),
    Property.KEY_CONDITION: (("sound", _("sound")), ("sheared", _("sheared or bent")), ("stepped", _("stepped"))),
    Property.MAGNETS: (("sound", _("sound")), ("cracked", _("cracked or loose"))),
    Property.COILS: (("sound", _("sound")), ("rubbed", _("rubbed or burnt"))),
}
LABEL = {
    Property.PULLER_DIAMETER: _("puller thread, diameter"),
    Property.PULLER_PITCH: _("puller thread, pitch"),
    Property.PULLER_HAND: _("puller thread, hand"),
    Property.BOSS_DIAMETER: _("boss thread, diameter"),
    Property.BOSS_PITCH: _("boss thread, pitch"),
    Property.BOSS_HAND: _("boss thread, hand"),
    Property.BOSS_DEPTH: _("boss thread, depth"),
    Property.PULLER_TURNS: _("turns of the puller in the boss"),
    Property.CENTRE_SCREW_DIAMETER: _("centre screw, diameter"),
    Property.CENTRE_SCREW_PITCH: _("centre screw, pitch"),
    Property.NUT_TORQUE_WANTED: _("torque of the flywheel nut"),
    Property.NUT_THREAD: _("thread of the flywheel nut"),
    Property.PULLING_TORQUE: _("torque on the centre screw"),
    Property.MOVED: _("what moved"),
    Property.TAPER_CONDITION: _("taper"),
    Property.KEY_CONDITION: _("key"),
    Property.KEY_STEP: _("step of the key"),
    Property.MAGNETS: _("magnets"),
    Property.COILS: _("coils"),
    Property.NOTE: _("note"),
}
HAND_NAME = {"right": _("right-hand"), "left": _("left-hand")}

WAYS = {
    "further_in": _("It goes in further: enter the turns"),
    "cleaned": _("Threads are clean: enter the turns again"),
}
METHOD: Methods = {
    "puller": (_("Puller"), (("", _("the one in hand, measured")),)),
    "condition": (
        _("The taper was"),
        (("clean", _("clean and dry")), ("oiled", _("oiled")), ("fretted", _("long-standing or fretted"))),
    ),
    "holding": (
        _("Hold"),
        (("flywheel", _("the flywheel"), _("usual")), ("crank", _("the crank"), _("loads rod and case"))),
    ),
}
CHECKS = {
    "catcher": (_("Nut back on by a few threads as a catcher: a taper can release unattended and throw the wheel."), True),
    "hold": (_("The flywheel is held, not the crank. Nobody stands in line with it."), True),
    "hand": (_("Puller turned in by hand to the last turn; no spanner on its thread."), False),
}
WARNINGS = {
    "blows": _("No blows, neither on the rim nor on the screw: magnets crack and lose strength, main bearings dent."),
    "warm": _("Warm the boss only, below {warm}: magnets and their glue stand no more."),
    "manual": _("The engine's manual and its maker's puller come first."),
    "magnets": _("Magnets pull tools and pinch fingers; keep watches and swarf away."),
}
ACTION = {
    "free": _("The taper has released"),
    "wait": _("Leave it loaded: start ten minutes"),
    "moved": _("Record whether it moved"),
}
TIMER = {LOADED: _("turn the puller again")}
SOURCE = {
    "puller": (_("Puller thread"), _("{system}; {diameter} on size, {pitch} on pitch")),
    "boss": (_("Boss thread"), _("{system}; {diameter} on size, {pitch} on pitch")),
    "play": (_("Play in the thread"), _("on diameter, medium fit")),
    "strength": (_("Thread stands"), _("{turns} whole turns; {basis}")),
    "wanted": (_("Taper needs"), _("{basis}; {source}")),
    "stop_screw": (_("Stop torque"), _("0.9 of what the centre screw stands, property class 8.8")),
    "stop": (_("Stop torque"), _("0.8 of the least strength, least friction")),
}
CARD = _("card")
ON_DRAWING = {
    "turns": _("{turns} turns in"),
    "not_counted": _("not counted"),
    "whole": _("{turns} whole turns count"),
    "only_whole": _("only whole turns count"),
    "puller": _("puller {thread}"),
    "boss": _("boss {thread}"),
    "puller_unknown": _("puller not measured"),
    "boss_unknown": _("boss not measured"),
    "left": _("{thread}, left-hand"),
    "torque": _("Torque on the centre screw, {unit}"),
    "later": _("after puller, boss, turns and screw are measured"),
    "releases": _("releases"),
    "stop": _("stop {torque}"),
    "now": _("{torque} now"),
}
NEAREST = _("nearest: {thread}")
SHIFTS = _("shifts the timing by {shift}")
