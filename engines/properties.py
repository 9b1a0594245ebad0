"""What can be known of an engine. Every reading, decision and limit names one of these; a new one is one more line in each table."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

INF = float("inf")
WORDS, COUNT = "words", "count"


class Property(StrEnum):
    """One thing that can be known of a part. The value is what a file and an address carry: it never changes."""

    # the joint and its fasteners
    GAP = "gap"
    BOLT_LENGTH = "bolt-length"
    BOLT_OUT = "bolt-out"
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
    # between the halves
    GASKET_THICKNESS = "gasket-thickness"
    CASE_TEMPERATURE = "case-temperature"
    FACE_TO_BEARING = "face-to-bearing"
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
    # limits a card may give
    END_FLOAT = "end-float"
    BIG_END_SIDE_PLAY = "big-end-side-play"
    BIG_END_RADIAL_PLAY = "big-end-radial-play"
    SMALL_END_PLAY = "small-end-play"
    SMALL_END_BORE = "small-end-bore"
    WIDTH_OVER_WEBS = "width-over-webs"
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


@dataclass(frozen=True)
class About:
    """What kind of quantity a property is, and what can be believed, in the kind's own unit (mm, N·m, °C, °, N, kg)."""

    kind: str = "length"
    low: float = -INF
    high: float = INF
    unit: str = ""  # of a count, where it counts something in particular
    shared: bool = True  # whether a station may use what another has recorded


ABOUT: dict[Property, About] = {
    Property.GAP: About(low=-0.5, high=120),
    Property.BOLT_LENGTH: About(low=3, high=500),
    Property.BOLT_OUT: About(WORDS),
    Property.FASTENERS_EXPECTED: About(COUNT),
    Property.FASTENERS_COUNTED: About(COUNT),
    Property.LIFTING_HALF: About(WORDS),
    Property.SPLITTER_SCREW_DIAMETER: About(low=3, high=30),
    Property.SPLITTER_SCREW_PITCH: About("thread_pitch", 0.4, 4),
    Property.SPLITTER_SCREW_TURNS: About("angle", 0, 60 * 360),
    Property.LOOSE_PART: About(WORDS),
    Property.LOOSE_FROM: About(WORDS),
    Property.LOOSE_HALF: About(WORDS),
    Property.HALVES_APART: About(WORDS),
    Property.PULLER_DIAMETER: About(low=8, high=80),
    Property.PULLER_PITCH: About("thread_pitch", 0.3, 6),
    Property.PULLER_HAND: About(WORDS),
    Property.BOSS_DIAMETER: About(low=6, high=80),
    Property.BOSS_PITCH: About("thread_pitch", 0.3, 6),
    Property.BOSS_HAND: About(WORDS),
    Property.BOSS_DEPTH: About(low=1, high=60),
    Property.PULLER_TURNS: About("angle", 0, 40 * 360),
    Property.CENTRE_SCREW_DIAMETER: About(low=5, high=40),
    Property.CENTRE_SCREW_PITCH: About("thread_pitch", 0.5, 4),
    Property.NUT_THREAD: About(low=4, high=60),
    Property.NUT_TORQUE_WANTED: About("torque", 1, 1000),
    Property.PULLING_TORQUE: About("torque", 0, 1000),
    Property.MOVED: About(WORDS),
    Property.TAPER_CONDITION: About(WORDS),
    Property.KEY_CONDITION: About(WORDS),
    Property.KEY_STEP: About(low=-5, high=5),
    Property.MAGNETS: About(WORDS),
    Property.COILS: About(WORDS),
    Property.FLYWHEEL_OFF: About(WORDS),
    Property.CONTACT_SHARE: About(COUNT, 0, 100, unit="%"),
    Property.CONTACT_AT_LARGE_END: About(WORDS),
    Property.CONE_DIAMETER: About(low=5, high=120),
    Property.TORQUE_TO_CARRY: About("torque", 0.1, 2000),
    Property.NUT_TORQUE: About("torque", 1, 600),
    Property.SHOOK: About(WORDS),
    Property.WHEEL_SOUND: About(WORDS),
    Property.WHEEL_MASS: About("mass", 0.05, 200),
    Property.WHEEL_SPEED: About("speed", 100, 30000),
    Property.RIM_DIAMETER: About(low=30, high=1000),
    Property.STOP_ANGLE: About("angle", -360, 720, shared=False),
    Property.TRIAL_RADIUS: About(low=5, high=500),
    Property.TRIAL_STAYS: About("mass", 0, 5),
    Property.TRIAL_TURNS: About("mass", 0, 5),
    Property.DRILL_RADIUS: About(low=5, high=500),
    Property.FINISH_RADIUS: About(low=5, high=500),
    Property.RIM_DEPTH: About(low=2, high=200),
    Property.KEEP_OUT: About(WORDS),
    Property.DRILLS: About(WORDS),
    Property.HOLE_DEPTH: About(low=0, high=200, shared=False),
    Property.UNBALANCE: About("unbalance", 0),
    Property.SEAL_LIP: About(WORDS),
    Property.SEAL_DEPTH: About(low=-10, high=120),
    Property.SEAL_OUT: About(WORDS),
    Property.SEAL_SHAFT: About(low=3, high=200),
    Property.SEAL_BORE: About(low=5, high=250),
    Property.SEAL_KEEPS: About(WORDS),
    Property.BEARING_FACE_DEPTH: About(low=-10, high=120),
    Property.RETAINED_BY: About(WORDS),
    Property.REACH: About(WORDS),
    Property.SHIELDS: About(WORDS),
    Property.WAY_ROUND: About(WORDS),
    Property.BEARING_DECISION: About(WORDS),
    Property.CAME_OUT: About(WORDS),
    Property.HIT_THROUGH_BALLS: About(WORDS),
    Property.SEAT_CONDITION: About(WORDS),
    Property.BEARING_MARKING: About(WORDS),
    Property.SEAT_TEMPERATURE: About("temperature", -40, 250),
    Property.SEAT_DIAMETER: About(low=3, high=400),
    Property.VEE_RUNOUT: About(low=0, high=2),
    Property.RING_DIAMETER: About(low=3, high=400),
    Property.WALL_THICKNESS: About(low=0, high=100),
    Property.SEAT_SIZE: About(low=3, high=400),
    Property.SEAT_VERDICT: About(WORDS),
    Property.SEAT_MEND: About(WORDS),
    Property.BEARING_HISTORY: About(WORDS),
    Property.BEARING_FEEL: About(WORDS),
    Property.RACES: About(WORDS),
    Property.SLOW_AND_HIDDEN: About(WORDS),
    Property.DAMAGE: About(WORDS),
    Property.DAMAGE_WHERE: About(WORDS),
    Property.MASSES: About(WORDS),
    Property.HUNG_MASS: About("mass", 0.001, 20),
    Property.SMALL_END_MASS: About("mass", 0.001, 20),
    Property.RECIPROCATING_MASS: About("mass", 0.001, 20),
    Property.RECIPROCATING_MASS_BEFORE: About("mass", 0.001, 20),
    Property.GASKET_THICKNESS: About(low=0, high=5),
    Property.CASE_TEMPERATURE: About("temperature", -40, 250),
    Property.FACE_TO_BEARING: About(low=0.5, high=300),
    Property.GASKET_CRUSHED: About(low=0, high=5),
    Property.CRANK_SHOULDERS: About(low=5, high=500),
    Property.SHIMS_FITTED: About(low=0, high=10),
    Property.SHIM_THICKNESS: About(low=0.005, high=10),
    Property.SHIM_SIDE: About(WORDS),
    Property.TABLE_DISTANCE: About(low=0, high=500),
    Property.TABLE: About(WORDS, shared=False),
    Property.TABLE_ROW: About(WORDS, shared=False),
    Property.END_FLOAT_LEAST: About(low=0, high=5),
    Property.END_FLOAT_MOST: About(low=0, high=5),
    Property.END_FLOAT_PREDICTED: About(low=-5, high=10),
    Property.PIN_SHOWN: About(low=6, high=90),
    Property.PIN_DIAMETER: About(low=6, high=90),
    Property.PIN_HOLE: About(low=6, high=90),
    Property.PIN_LENGTH: About(low=4, high=120),
    Property.PIN_BORE: About(low=0, high=60),
    Property.WEB_WALL: About(low=2, high=80),
    Property.WEB_WIDTH: About(low=12, high=300),
    Property.PIN_TAPER: About(COUNT, 4, 40),
    Property.WEB_TEMPERATURE: About("temperature", -60, 500, shared=False),
    Property.PIN_TEMPERATURE: About("temperature", -60, 500, shared=False),
    Property.PRESS_PEAK: About("force", 0, 2_000_000, shared=False),
    Property.THROW_ANGLE: About("angle", -720, 720),
    Property.PARTS_ORDER: About(WORDS),
    Property.SCORED: About(WORDS),
    Property.WIDTH_AS_IT_GOES: About(low=5, high=400, shared=False),
    Property.SUPPORT_PLACE: About(low=15, high=600),
    Property.GAUGE_PLACE: About(low=5, high=600),
    Property.STROKE: About(low=10, high=250),
    Property.RIM_RADIUS: About(low=15, high=300),
    Property.SHAFT_READING: About(low=-5, high=5, shared=False),
    Property.SHAFT_TIR: About(low=0, high=5, shared=False),
    Property.HIGH_SPOT: About("angle", -360, 720, shared=False),
    Property.JOINT_LOCK: About(WORDS),
    Property.END_THREAD_DIAMETER: About(low=4, high=60),
    Property.END_THREAD_PITCH: About("thread_pitch", 0.35, 4),
    Property.ADAPTER_TURNS: About(COUNT, 0, 60),
    Property.TRAVEL: About(low=1, high=200),
    Property.SCREW_TURNS_DONE: About(COUNT, 0, 200),
    Property.SCREW_TORQUE: About("torque", 0, 400),
    Property.HOME_GAP: About(low=0, high=10),
    Property.CRANK_HOME: About(WORDS),
    Property.GEARS: About(WORDS),
    Property.GEAR_FAULT: About(WORDS),
    Property.BOLT_TORQUE_WANTED: About("torque", 0.5, 400),
    Property.BOLT_TORQUE_INSTEAD: About("torque", 0.5, 400),
    Property.BOLT_TORQUE: About("torque", 0, 400),
    Property.CASE_CLOSED: About(WORDS),
    Property.SIDE_GAP: About(low=0, high=5),
    Property.SPIN: About(WORDS),
    Property.DRAG: About(WORDS),
    Property.TEST_TIME: About("time", 20, 3600),
    Property.TEST_PRESSURE: About("pressure", -60, 60),
    Property.CRANK_OUT: About(WORDS),
    Property.CAME_EVENLY: About(WORDS),
    Property.TRAY_PART: About(WORDS),
    Property.PART_FROM: About(WORDS),
    Property.PART_WAY: About(WORDS),
    Property.PART_WEAR: About(WORDS),
    Property.END_FLOAT: About(low=0, high=5),
    Property.BIG_END_SIDE_PLAY: About(low=0, high=5),
    Property.BIG_END_RADIAL_PLAY: About(low=0, high=3),
    Property.SMALL_END_PLAY: About(low=0, high=3),
    Property.SMALL_END_BORE: About(low=3, high=80),
    Property.WIDTH_OVER_WEBS: About(low=5, high=400),
    Property.PIN_INTERFERENCE: About(low=-0.2, high=0.5),
    Property.CRANK_RUNOUT: About(low=0, high=5),
    Property.CENTRING: About(low=0, high=5),
    Property.LEAK: About("pressure", 0, 400),
    Property.RIM_RUNOUT: About(low=0, high=10),
    Property.AIR_GAP: About(low=0, high=10),
    Property.REPLACED: About(WORDS),
    Property.PARTS_USED: About(WORDS, shared=False),
    Property.AGAINST_ADVICE: About(WORDS, shared=False),
    Property.STAYS_UNKNOWN: About(WORDS, shared=False),
    Property.REASON: About(WORDS, shared=False),
    Property.PAGE: About(WORDS, shared=False),
    Property.NOTE: About(WORDS, shared=False),
}

LIMITS: dict[Property, str] = {  # what a figure of the card may limit, in the trade's words
    Property.END_FLOAT: "end float of the crank",
    Property.BIG_END_SIDE_PLAY: "big-end side play",
    Property.BIG_END_RADIAL_PLAY: "big-end radial play",
    Property.SMALL_END_PLAY: "play of the small end",
    Property.SMALL_END_BORE: "small-end bore",
    Property.WIDTH_OVER_WEBS: "width over the webs",
    Property.PIN_INTERFERENCE: "interference of the crankpin",
    Property.CRANK_RUNOUT: "runout of the crank",
    Property.CENTRING: "crank off centre between the halves",
    Property.LEAK: "leak of the closed case, a minute",
    Property.RIM_RUNOUT: "runout of the flywheel's rim",
    Property.AIR_GAP: "air gap of the ignition",
}
