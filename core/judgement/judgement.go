// Package judgement holds the numbers that are ours and not published: each
// with its name, what it is, and what moves if it changes. The app shows them
// to the teacher. Weights of single skills stand with the skills.
package judgement

import "patientladder/core/reason"

// A Number is one of them.
type Number struct {
	About reason.Label `json:"about" doc:"which rule it belongs to"`
	Name  reason.Label `json:"name"`
	Value float64      `json:"value"`
	Moves reason.Label `json:"moves" doc:"what moves if it changes"`
}

var all []Number

func ours(about, name string, value float64) float64 {
	all = append(all, Number{reason.Said("number-about." + about), reason.Said("number." + name), value, reason.Said("number-moves." + name)})
	return value
}

// All lists the numbers by rule.
func All() []Number { return all }

// The load of an item for a student: a sum; about 3 is usual.
var (
	LoadPrepared  = ours("load", "load-prepared", 0.6)
	LoadLearning  = ours("load", "load-learning", 0.35)
	LoadRusty     = ours("load", "load-rusty", 0.5)
	LoadUnknown   = ours("load", "load-unknown", 1.15)
	LoadMaterial  = ours("load", "load-material", 0.8)
	LoadHands     = ours("load", "load-hands", 0.8)
	LoadTempo     = ours("load", "load-tempo", 0.5)
	Climb         = ours("load", "climb", 1.0)
	Landing       = ours("load", "landing", 0.6)
	TooSteep      = ours("load", "too-steep", 2.0)
	UsualLoad     = ours("load", "usual-load", 2.2)
	UsualLoadHeld = ours("load", "usual-load-held", 4)
)

// The pace: weeks from first taught to foothold.
var (
	PaceHeld   = ours("pace", "pace-held", 0.5)
	PaceShape  = ours("pace", "pace-shape", 3)
	PaceScale  = ours("pace", "pace-scale", 0.64)
	StudioHeld = ours("pace", "studio-held", 4)
	PaceEffort = ours("pace", "pace-effort", 0.6)
)

// The order of rungs: one cost, the least wins.
var (
	OrderExtraSkill = ours("order", "order-extra-skill", 3)
	OrderGap        = ours("order", "order-gap", 4)
	OrderSteep      = ours("order", "order-steep", 1.5)
	OrderTwoClimbs  = ours("order", "order-two-climbs", 2)
	OrderSwap       = ours("order", "order-swap", 1.2)
	OrderLane       = ours("order", "order-lane", 0.5)
	OrderLate       = ours("order", "order-late", 2.5)
	OrderTaste      = ours("order", "order-taste", 0.8)
	OrderWorth      = ours("order", "order-worth", 1.5)
	PolishWeeks     = ours("order", "polish-weeks", 4)
	PolishLast      = ours("order", "polish-last", 3)
	WentAsked       = ours("order", "went-asked", 14)
	BridgeEases     = ours("order", "bridge-eases", 0.5)
	OrderBook       = ours("order", "order-book", 5)
	OrderTechnique  = ours("order", "order-technique", 3)
	OrderReading    = ours("order", "order-reading", 2)
	OrderRepertoire = ours("order", "order-repertoire", 2)
	OrderDownhill   = ours("order", "order-downhill", 0.6)
)

// Upkeep: which secure pieces are played.
var (
	UpkeepFaded    = ours("upkeep", "upkeep-faded", 0.85)
	UpkeepCarries  = ours("upkeep", "upkeep-carries", 0.35)
	UpkeepPolished = ours("upkeep", "upkeep-polished", 1.2)
	UpkeepTick     = ours("upkeep", "upkeep-tick", 0.5)
	UpkeepLongest  = ours("upkeep", "upkeep-longest", 90)
	UpkeepSilence  = ours("upkeep", "upkeep-silence", 5)
)

// When the path sticks, and after a break. Remedies are ranked by a worth each.
var (
	RemedyNeeded    = ours("stuck", "remedy-needed", 4)
	RemedyLearning  = ours("stuck", "remedy-learning", 0.5)
	RemedySplit     = ours("stuck", "remedy-split", 1.5)
	RemedySplitBars = ours("stuck", "remedy-split-bars", 1.0/16)
	RemedyHand      = ours("stuck", "remedy-hand", 1)
	RemedyHandPoint = ours("stuck", "remedy-hand-point", 2.2)
	RemedyEasier    = ours("stuck", "remedy-easier", 1.2)
	RemedyHeavy     = ours("stuck", "remedy-heavy", 2)
	RemedyFewer     = ours("stuck", "remedy-fewer", 0.8)
	RemedyFewerEach = ours("stuck", "remedy-fewer-each", 0.3)
	RemedyAsk       = ours("stuck", "remedy-ask", 0.9)
	RemedyAskDull   = ours("stuck", "remedy-ask-dull", 3.5)

	StuckTries    = ours("stuck", "stuck-tries", 3)
	StuckPatience = ours("stuck", "stuck-patience", 1)
	StuckFalling  = ours("stuck", "stuck-falling", 2)
	BreakDays     = ours("break", "break-days", 14)
	BreakLessons  = ours("break", "break-lessons", 2)
)

// The seat: what stature alone does not tell.
var (
	SeatSpread      = ours("seat", "seat-spread", 0.02)
	SeatSpreadChild = ours("seat", "seat-spread-child", 1)
	SeatHollow      = ours("seat", "seat-hollow", 0.025)
	SeatShoes       = ours("seat", "seat-shoes", 2)
	SeatCello       = ours("seat", "seat-cello", 2)
	SeatFootstool   = ours("seat", "seat-footstool", 0.09)
	SeatPreference  = ours("seat", "seat-preference", 1.5)
)

// The lesson: how its minutes are shared out.
var (
	LessonUpkeep    = ours("lesson", "lesson-upkeep", 0.4)
	LessonStretch   = ours("lesson", "lesson-stretch", 0.25)
	LessonFit       = ours("lesson", "lesson-fit", 0.6)
	LessonOldPieces = ours("lesson", "lesson-old-pieces", 44)
	GameTried       = ours("lesson", "game-tried", 2)
	GameSecure      = ours("lesson", "game-secure", 3)
	GameAgain       = ours("lesson", "game-again", 1.5)
	GameAsked       = ours("lesson", "game-asked", 1)
	LessonFirstGame = ours("lesson", "lesson-first-game", 1)
)

// The calendar.
var (
	LongDay = ours("calendar", "long-day", 360)
	LongRun = ours("calendar", "long-run", 180)
)

// The week at home.
var (
	WeekLight  = ours("week", "week-light", 0.75)
	BackFirst  = ours("week", "back-first", 0.5)
	BackGrowth = ours("week", "back-growth", 4.0/3)
	WeekGrowth = ours("week", "week-growth", 1.2)

	PracticeMuch = ours("week", "practice-much", 0.6)
	DullWords    = ours("week", "dull-words", 3)
)

// Places that trip.
var (
	SpotGoal = ours("spots", "spot-goal", 5)
)

// The teacher's word on sheets.
var (
	StruckOften = ours("sheets", "struck-often", 3)
)

// Cards of reading and theory.
var (
	CardLasts  = ours("cards", "card-lasts", 5)
	CardRecall = ours("cards", "card-recall", 0.9)
	CardsOpen  = ours("cards", "cards-open", 3)
)

// The chunks of a score: how strongly a line may be cut before a note.
var (
	CutPhrase   = ours("chunks", "cut-phrase", 4)
	CutStrain   = ours("chunks", "cut-strain", 8)
	CutFour     = ours("chunks", "cut-four", 3)
	CutFigure   = ours("chunks", "cut-figure", 1)
	CutPosition = ours("chunks", "cut-position", 1.5)
	CutBar      = ours("chunks", "cut-bar", 2)
	CutBeat     = ours("chunks", "cut-beat", 0.5)
	CutMiddle   = ours("chunks", "cut-middle", 6)
)

// The phrases of a tune: how well one may begin with a note, and what it costs by its length.
var (
	HandOpens    = ours("fingers", "hand-opens", 7)
	PhraseBase   = ours("phrases", "phrase-base", 2)
	PhraseRest   = ours("phrases", "phrase-rest", 2)
	PhraseLong   = ours("phrases", "phrase-long", 2)
	PhraseBreath = ours("phrases", "phrase-breath", 3)
	PhraseAgain  = ours("phrases", "phrase-again", 2)
	PhraseBar    = ours("phrases", "phrase-bar", 1)
	PhraseUpbeat = ours("phrases", "phrase-upbeat", 2.5)
	PhraseTwo    = ours("phrases", "phrase-two", 1)
	PhraseOdd    = ours("phrases", "phrase-odd", 2)
)

// Where a student from elsewhere stands: how far answers are trusted.
var (
	ProbeCareless  = ours("placement", "probe-careless", 0.07)
	ProbeLucky     = ours("placement", "probe-lucky", 0.05)
	ProbeNearly    = ours("placement", "probe-nearly", 0.15)
	PlacementGap   = ours("placement", "placement-gap", 0.04)
	PlacementEdge  = ours("placement", "placement-edge", 0.02)
	PlacementOnce  = ours("placement", "placement-once", 4)
	PlacementSure  = ours("placement", "placement-sure", 0.15)
	PlacementTells = ours("placement", "placement-tells", 0.02)
	PlacementNear  = ours("placement", "placement-near", 6)
	TickOff        = ours("placement", "tick-off", 3)
	PlacementEven  = ours("placement", "placement-even", 0.5)
	PlacementDoubt = ours("placement", "placement-doubt", 0.75)
)

// The order of a programme, and how long it lasts.
var (
	ProgrammeMove = ours("programme", "programme-move", 3)
	ProgrammeSame = ours("programme", "programme-same", 1)
	ProgrammeWait = ours("programme", "programme-wait", 0.2)
	PieceSeconds  = ours("programme", "piece-seconds", 120)
	BowSeconds    = ours("programme", "bow-seconds", 30)
	MoveSeconds   = ours("programme", "move-seconds", 60)
)

// Check-ins with families.
var (
	HalfTerm   = ours("check-ins", "half-term", 6)
	WholeTerm  = ours("check-ins", "whole-term", 13)
	HeartFalls = ours("check-ins", "heart-falls", 0.6)
)

// What is said, and when.
var (
	ForecastShift = ours("advice", "forecast-shift", 1.5)
	ShareShift    = ours("advice", "share-shift", 0.03)
	CarryRecall   = ours("advice", "carry-recall", 0.93)
	FaultWeeks    = ours("advice", "fault-weeks", 8)
	HugePiece     = ours("family", "huge-piece", 32)
	OwnLinkFrom   = ours("family", "own-link-from", 12)
	TreatsTo      = ours("advice", "treats-to", 12)
)

// What is played in.
var (
	TouchStrength = ours("touch", "touch-strength", 8)
	TakeFresh     = ours("touch", "take-fresh", 21)
	TakesEven     = ours("touch", "takes-even", 2)
	TapOff        = ours("touch", "tap-off", 0.12)
	EchoOff       = ours("echo", "echo-off", 0.2)
	EchoRun       = ours("echo", "echo-run", 3)
	TouchSlips    = ours("touch", "touch-slips", 0.05)
)

// A shared hour.
var (
	GatherFresh = ours("gather", "gather-fresh", 0.8)
)
