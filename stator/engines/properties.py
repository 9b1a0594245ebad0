"""Properties that can be measured, decided or limited. Their details are in `property_specs.py`."""

from __future__ import annotations

from enum import StrEnum
from typing import Any

from django.utils.translation import gettext_lazy as _


class Property(StrEnum):
    """A property of a part. Its value is used in files and addresses and never changes."""

    # the joint and its fasteners
    GAP = "gap"
    BOLT_LENGTH = "bolt-length"
    FASTENER_FAULT = "fastener-fault"
    FASTENERS_EXPECTED = "expected"
    FASTENERS_COUNTED = "counted"
    LIFTING_HALF = "lifting-half"
    SPLITTER_SCREW_DIAMETER = "screw-diameter"
    SPLITTER_SCREW_PITCH = "screw-pitch"
    SPLITTER_SCREW_TURNS = "screw-turns"
    LOOSE_PART = "loose-part"
    LOOSE_FROM = "loose-from"
    LOOSE_HALF = "loose-half"
    HALVES_APART = "halves-apart"
    # what comes out of a half
    CRANK_OUT = "crank-out"
    CAME_EVENLY = "came-evenly"
    TRAY_PART = "part"
    PART_FROM = "part-from"
    PART_WAY = "part-way"
    PART_WEAR = "part-wear"
    # the flywheel and its puller
    PULLER_DIAMETER = "puller-diameter"
    PULLER_PITCH = "puller-pitch"
    PULLER_HAND = "puller-hand"
    BOSS_DIAMETER = "boss-diameter"
    BOSS_PITCH = "boss-pitch"
    BOSS_HAND = "boss-hand"
    BOSS_DEPTH = "boss-depth"
    PULLER_TURNS = "puller-turns"
    CENTRE_SCREW_DIAMETER = "centre-screw-diameter"
    CENTRE_SCREW_PITCH = "centre-screw-pitch"
    NUT_THREAD = "nut-thread"
    NUT_TORQUE_WANTED = "nut-torque-wanted"
    PULLING_TORQUE = "pulling-torque"
    MOVED = "moved"
    TAPER_CONDITION = "taper-condition"
    KEY_CONDITION = "key-condition"
    KEY_STEP = "key-step"
    MAGNETS = "magnets"
    COILS = "coils"
    FLYWHEEL_OFF = "flywheel-off"
    CONTACT_SHARE = "contact-share"
    CONTACT_AT_LARGE_END = "contact-at-large-end"
    CONE_DIAMETER = "cone-diameter"
    TORQUE_TO_CARRY = "torque-to-carry"
    NUT_TORQUE = "nut-torque"
    # balancing the flywheel
    SHOOK = "shook"
    WHEEL_SOUND = "wheel-sound"
    WHEEL_MASS = "wheel-mass"
    WHEEL_SPEED = "wheel-speed"
    RIM_DIAMETER = "rim-diameter"
    STOP_ANGLE = "stop-angle"
    TRIAL_RADIUS = "trial-radius"
    TRIAL_STAYS = "trial-stays"
    TRIAL_TURNS = "trial-turns"
    TURNING_MASS = "turning-mass"  # the least that turns the wheel, with the mark at its angle level
    MASS_STEP = "mass-step"
    ADDED_RADIUS = "added-radius"
    ADDED_MASS = "added-mass"
    DRILL_RADIUS = "drill-radius"
    FINISH_RADIUS = "finish-radius"
    RIM_DEPTH = "rim-depth"
    KEEP_OUT = "keep-out"
    DRILLS = "drills"
    HOLE_DEPTH = "hole-depth"
    UNBALANCE = "unbalance"
    # bearings and seals coming out
    SEAL_LIP = "seal-lip"
    SEAL_DEPTH = "seal-depth"
    SEAL_OUT = "seal-out"
    SEAL_SHAFT = "seal-shaft"
    SEAL_BORE = "seal-bore"
    SEAL_KEEPS = "seal-keeps"
    BEARING_FACE_DEPTH = "bearing-face-depth"
    RETAINED_BY = "retained-by"
    REACH = "reach"
    SHIELDS = "shields"
    WAY_ROUND = "way-round"
    BEARING_DECISION = "bearing-decision"
    CAME_OUT = "came-out"
    HIT_THROUGH_BALLS = "hit-through-balls"
    SEAT_CONDITION = "seat-condition"
    BEARING_MARKING = "bearing-marking"
    SEAT_TEMPERATURE = "seat-temperature"
    SEAT_DIAMETER = "seat-diameter"
    VEE_RUNOUT = "vee-runout"
    RING_DIAMETER = "ring-diameter"
    WALL_THICKNESS = "wall-thickness"
    SEAT_SIZE = "seat-size"
    SEAT_VERDICT = "seat-verdict"
    SEAT_MEND = "seat-mend"
    # a bearing in the hand
    BEARING_HISTORY = "bearing-history"
    BEARING_FEEL = "bearing-feel"
    RACES = "races"
    SLOW_AND_HIDDEN = "slow-and-hidden"
    # the crank on the bench
    DAMAGE = "damage"
    DAMAGE_WHERE = "damage-where"
    MASSES = "masses"
    HUNG_MASS = "hung-mass"
    SMALL_END_MASS = "small-end-mass"
    RECIPROCATING_MASS = "reciprocating-mass"
    RECIPROCATING_MASS_BEFORE = "reciprocating-mass-before"
    # a bearing going in, hot and cold
    AIR_TEMPERATURE = "air-temperature"
    HEATER_SETTING = "heater-setting"
    HEAT_TARGET = "heat-target"
    CHILL_STAY = "chill-stay"
    HOT_TEMPERATURE = "hot-temperature"
    WATER_DROP = "water-drop"
    COLD_TEMPERATURE = "cold-temperature"
    RING_SIZE = "ring-size"
    FIT_OUTCOME = "fit-outcome"
    SEATING_GAP = "seating-gap"
    SEATING_GAP_COLD = "seating-gap-cold"
    SEATING_DEPTH = "seating-depth"
    CIRCLIP = "circlip"
    BEARING_HOME = "bearing-home"
    WAY_SETTLED = "way-settled"
    # a spindle or a bush going in
    BUSH_LUBRICANT = "bush-lubricant"
    STANDS_OUT = "stands-out"
    PIECES_ORDER = "pieces-order"
    DIRECTION = "direction"
    END_DEPTH = "end-depth"
    SPINDLE_PLAY = "spindle-play"
    # between the halves
    GASKET_THICKNESS = "gasket-thickness"
    SQUEEZED_OUT = "squeezed-out"
    CASE_TEMPERATURE = "case-temperature"
    FACE_TO_BEARING = "face-to-bearing"
    SECTION_WIDTH = "section-width"
    GASKET_CRUSHED = "gasket-crushed"
    CRANK_SHOULDERS = "crank-shoulders"
    SHIMS_FITTED = "shims-fitted"
    SHIM_THICKNESS = "shim-thickness"
    SHIM_SIDE = "shim-side"
    TABLE_DISTANCE = "table-distance"
    TABLE = "table"
    TABLE_ROW = "table-row"
    END_FLOAT_LEAST = "end-float-least"
    END_FLOAT_MOST = "end-float-most"
    END_FLOAT_PREDICTED = "end-float-predicted"
    # the press joint of a crank
    PIN_SHOWN = "pin-shown"
    PIN_DIAMETER = "pin-diameter"
    PIN_HOLE = "pin-hole"
    PIN_LENGTH = "pin-length"
    PIN_BORE = "pin-bore"
    WEB_WALL = "web-wall"
    WEB_WIDTH = "web-width"
    PIN_TAPER = "pin-taper"
    WEB_TEMPERATURE = "web-temperature"
    PIN_TEMPERATURE = "pin-temperature"
    PRESS_PEAK = "press-peak"
    THROW_ANGLE = "throw-angle"
    PARTS_ORDER = "parts-order"
    SCORED = "scored"
    WIDTH_AS_IT_GOES = "width-as-it-goes"
    # truing
    SUPPORT_PLACE = "support-place"
    GAUGE_PLACE = "gauge-place"
    LIMIT_SUPPORT_PLACE = "limit-support-place"  # where the manual's limit holds the crank, from the middle of the pin
    LIMIT_GAUGE_PLACE = "limit-gauge-place"
    STROKE = "stroke"
    RIM_RADIUS = "rim-radius"
    SHAFT_READING = "shaft-reading"
    SHAFT_TIR = "shaft-tir"
    HIGH_SPOT = "high-spot"
    JOINT_LOCK = "joint-lock"
    # the crank going in
    END_THREAD_DIAMETER = "end-thread-diameter"
    END_THREAD_PITCH = "end-thread-pitch"
    ADAPTER_TURNS = "adapter-turns"
    TRAVEL = "travel"
    SCREW_TURNS_DONE = "screw-turns-done"
    SCREW_TORQUE = "screw-torque"
    HOME_GAP = "home-gap"
    CRANK_HOME = "crank-home"
    # closing
    GEARS = "gears"
    GEAR_FAULT = "gear-fault"
    BOLT_TORQUE_WANTED = "bolt-torque-wanted"
    BOLT_TORQUE_INSTEAD = "bolt-torque-instead"
    BOLT_TORQUE = "bolt-torque"
    CASE_CLOSED = "case-closed"
    # the crank in the closed case
    SIDE_GAP = "side-gap"
    SPIN = "spin"
    DRAG = "drag"
    TEST_TIME = "test-time"
    TEST_PRESSURE = "test-pressure"
    TEST_TEMPERATURE = "test-temperature"  # of the air in the case, at the start and the end of a test
    # limits a card may give
    END_FLOAT = "end-float"
    BIG_END_SIDE_PLAY = "big-end-side-play"
    BIG_END_RADIAL_PLAY = "big-end-radial-play"
    SMALL_END_PLAY = "small-end-play"
    SMALL_END_TILT = "small-end-tilt"
    OIL_SLOT = "oil-slot"
    BIG_END_WIDTH = "big-end-width"
    ROD_LENGTH = "rod-length"
    SMALL_END_BORE = "small-end-bore"
    WIDTH_OVER_WEBS = "width-over-webs"
    BAR_SPAN = "bar-span"
    BAR_LEAN = "bar-lean"  # how much higher a bar through an end of the rod stands at one side; upright or flat
    ROD_BEND = "rod-bend"  # over 100 mm
    ROD_TWIST = "rod-twist"
    PIN_INTERFERENCE = "pin-interference"
    CRANK_RUNOUT = "crank-runout"
    CENTRING = "centring"
    LEAK = "leak"
    RIM_RUNOUT = "rim-runout"
    AIR_GAP = "air-gap"
    # decisions
    REPLACED = "replaced"
    # the engine going back
    PARTS_USED = "parts-used"
    AGAINST_ADVICE = "against-advice"
    STAYS_UNKNOWN = "stays-unknown"
    # words
    REASON = "reason"
    PAGE = "page"
    NOTE = "note"


LIMITS: dict[Property, Any] = {  # what a figure of the card may limit, in the trade's words
    Property.END_FLOAT: _("end float of the crank"),
    Property.BIG_END_SIDE_PLAY: _("big-end side play"),
    Property.BIG_END_RADIAL_PLAY: _("big-end radial play"),
    Property.SMALL_END_PLAY: _("play of the small end"),
    Property.SMALL_END_TILT: _("tilt of the rod at its small end"),
    Property.SMALL_END_BORE: _("small-end bore"),
    Property.WIDTH_OVER_WEBS: _("width over the webs"),
    Property.ROD_BEND: _("bend of the rod, over 100 mm"),
    Property.ROD_TWIST: _("twist of the rod, over 100 mm"),
    Property.PIN_INTERFERENCE: _("interference of the crankpin"),
    Property.CRANK_RUNOUT: _("runout of the crank"),
    Property.CENTRING: _("crank off centre between the halves"),
    Property.LEAK: _("leak of the closed case, a minute"),
    Property.RIM_RUNOUT: _("runout of the flywheel's rim"),
    Property.AIR_GAP: _("air gap of the ignition"),
}
