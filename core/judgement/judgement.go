// Package judgement holds the numbers that are ours and not published: each
// with its name, what it is, and what moves if it changes. The app shows them
// to the teacher. Weights of single skills stand with the skills.
package judgement

// A Number is one of them.
type Number struct {
	About string  `json:"about" doc:"which rule it belongs to"`
	Name  string  `json:"name"`
	Value float64 `json:"value"`
	Moves string  `json:"moves" doc:"what moves if it changes"`
}

var all []Number

func ours(about, name string, value float64, moves string) float64 {
	all = append(all, Number{about, name, value, moves})
	return value
}

// All lists the numbers by rule.
func All() []Number { return all }

// The load of an item for a student: a sum; about 3 is usual.
var (
	LoadPrepared  = ours("load", "part of a new skill's weight that full preparation takes off", 0.6, "higher: head starts make a piece lighter")
	LoadLearning  = ours("load", "part of its weight that a needed skill still being learnt adds", 0.35, "higher: pieces built on unsettled skills count as climbs")
	LoadRusty     = ours("load", "part of its weight that a needed rusty skill adds", 0.5, "higher: a break makes the next pieces heavier")
	LoadUnknown   = ours("load", "part of its weight that a needed unknown skill adds", 1.15, "higher: gaps weigh more than new skills")
	LoadMaterial  = ours("load", "for each doubling of different bars over the student's recent pieces", 0.8, "higher: long pieces count as climbs")
	LoadHands     = ours("load", "first pieces for both hands", 0.8, "higher: hands together weigh more")
	LoadTempo     = ours("load", "for each 20 % faster than the fastest secure piece", 0.5, "higher: fast pieces count as climbs")
	Climb         = ours("load", "load over the student's usual that makes a climb", 1.0, "lower: more pieces are called climbs and want a landing after")
	Landing       = ours("load", "load under the student's usual that makes a landing", 0.6, "lower: more pieces serve as landings")
	TooSteep      = ours("load", "load over the usual at which a bridge is looked for", 2.0, "lower: bridges are proposed more often")
	UsualLoad     = ours("load", "usual load before the student has finished rungs", 2.2, "higher: fewer first pieces count as climbs")
	UsualLoadHeld = ours("load", "finished rungs that the usual load above counts for", 4, "higher: the student's own rungs move it more slowly")
)

// The pace: weeks from first taught to foothold.
var (
	PaceHeld   = ours("pace", "finished rungs that the common range of 1 to 10 weeks counts for", 0.5, "higher: a student's own rungs count for less")
	PaceShape  = ours("pace", "shape of what is expected of the spread of weeks before rungs were finished (alpha)", 3, "higher: a student who is uneven is believed later")
	PaceScale  = ours("pace", "scale of the same (beta)", 0.64, "higher: ranges start wider")
	StudioHeld = ours("pace", "students that the common range of 1 to 10 weeks counts for beside the studio's own", 4, "lower: the studio's own students decide sooner what is usual")
	PaceEffort = ours("pace", "power by which load stretches the weeks", 0.6, "higher: climbs look taller and landings closer")
)

// The order of rungs: one cost, the least wins.
var (
	OrderExtraSkill = ours("order", "each new skill over the number wished for in one rung", 3, "higher: crowded pieces come later")
	OrderGap        = ours("order", "each needed skill that nothing has brought", 4, "higher: pieces with gaps come later")
	OrderSteep      = ours("order", "each unit of load over the steep mark", 1.5, "higher: jumps are put off")
	OrderTwoClimbs  = ours("order", "a climb right after a climb, in an uneven approach", 2, "higher: landings are put between climbs")
	OrderSwap       = ours("order", "each earlier piece of the same book that is passed over", 1.2, "higher: the book's order is kept more strictly")
	OrderLane       = ours("order", "each rung by which a lane runs ahead of its share", 0.5, "higher: the four lanes advance more evenly")
	OrderLate       = ours("order", "each rung by which a piece with a date comes too late", 2.5, "higher: concert pieces come sooner")
	OrderTaste      = ours("order", "repertoire that is not to the student's taste", 0.8, "higher: taste decides more")
	OrderWorth      = ours("order", "gain at which a move on the ladder is suggested", 1.5, "higher: fewer suggestions to move a rung")
	PolishWeeks     = ours("order", "weeks from a foothold to a performance", 4, "higher: concert pieces must begin sooner")
	PolishLast      = ours("order", "last weeks before a day in which a secure piece is asked for polished", 3, "higher: performance pieces stand on the sheet for longer")
	WentAsked       = ours("order", "days after a day in which is asked how it went", 14, "lower: the question goes away sooner")
	BridgeEases     = ours("order", "load that a bridge must take off a jump to be offered", 0.5, "lower: more bridges, each of less use")
	OrderBook       = ours("order", "of twelve rungs, those of the book lane", 5, "higher: more pieces of the book beside each other lane")
	OrderTechnique  = ours("order", "of twelve rungs, those of technique", 3, "higher: more technique")
	OrderReading    = ours("order", "of twelve rungs, those of reading and theory", 2, "higher: more reading")
	OrderRepertoire = ours("order", "of twelve rungs, those of repertoire", 2, "higher: more repertoire")
	OrderDownhill   = ours("order", "each unit of load that falls, in an approach graded by difficulty", 0.6, "higher: the slope is kept more strictly")
)

// Upkeep: which secure pieces are played.
var (
	UpkeepFaded    = ours("upkeep", "recall under which a piece is fading", 0.85, "higher: pieces are called back sooner")
	UpkeepCarries  = ours("upkeep", "worth of a piece that carries a skill being learnt", 0.35, "higher: old pieces that carry the new skill come more often")
	UpkeepPolished = ours("upkeep", "worth of a polished piece over another", 1.2, "higher: performance pieces come more often")
	UpkeepTick     = ours("upkeep", "of what a hearing in the lesson adds to a piece's memory, the part that a playing at home adds", 0.5, "higher: ticks keep pieces away from the lesson for longer")
	UpkeepLongest  = ours("upkeep", "days after which the best kept piece is played well nine times in ten", 90, "higher: pieces of long ago are believed in for longer")
	UpkeepSilence  = ours("upkeep", "weeks that no secure piece is silent longer than, when the minutes allow", 5, "lower: all pieces come round sooner, the newest less often")
)

// When the path sticks, and after a break. Remedies are ranked by a worth each.
var (
	RemedyNeeded    = ours("stuck", "worth of going back to a needed skill that is not in order, for each unit of its weight", 4, "lower: other remedies come before gaps")
	RemedyLearning  = ours("stuck", "part of it while that skill is being learnt already", 0.5, "higher: skills in hand are gone back to sooner")
	RemedySplit     = ours("stuck", "worth of splitting a piece of more than four bars", 1.5, "higher: pieces are split before all else but gaps")
	RemedySplitBars = ours("stuck", "and for each bar more", 1.0/16, "higher: long pieces are split sooner")
	RemedyHand      = ours("stuck", "worth of looking at seat and hand", 1, "higher: the body is looked at sooner")
	RemedyHandPoint = ours("stuck", "the same where a point of tone or hand stands open", 2.2, "higher: open points of the hand count for more")
	RemedyEasier    = ours("stuck", "worth of an easier piece first", 1.2, "higher: an easier piece is offered sooner")
	RemedyHeavy     = ours("stuck", "the same where the piece is heavier than the student's usual", 2, "higher: climbs are left for later sooner")
	RemedyFewer     = ours("stuck", "worth of holding fewer points, from three open ones on", 0.8, "higher: points are put aside sooner")
	RemedyFewerEach = ours("stuck", "and for each open point", 0.3, "higher: many open points weigh more")
	RemedyAsk       = ours("stuck", "worth of asking the student", 0.9, "higher: the talk comes before other remedies")
	RemedyAskDull   = ours("stuck", "the same where practice was called dull", 3.5, "higher: the talk comes first of all")

	StuckTries    = ours("stuck", "tries that failed in a row", 3, "lower: remedies are shown sooner")
	StuckPatience = ours("stuck", "lesson weeks after the range in which nine in ten are done", 1, "lower: remedies are shown sooner, also for pieces that only take their time")
	StuckFalling  = ours("stuck", "met points that opened again since the best lesson", 2, "lower: a bad day counts as falling back")
	BreakDays     = ours("break", "days without lesson or practice that make a break", 14, "higher: only long breaks bring lighter plans")
	BreakLessons  = ours("break", "lighter lessons after a break", 2, "higher: the way back is slower")
)

// The seat: what stature alone does not tell.
var (
	SeatSpread      = ours("seat", "spread of a length reckoned from stature, as part of stature", 0.02, "higher: the app is less sure without a tape measure")
	SeatSpreadChild = ours("seat", "centimetres more of spread for a child", 1, "higher: children are measured rather than reckoned")
	SeatHollow      = ours("seat", "from the knee's top to its hollow, as part of stature", 0.025, "higher: seats for strings come lower, platforms higher")
	SeatShoes       = ours("seat", "centimetres of a shoe's sole", 2, "higher: platforms come lower")
	SeatCello       = ours("seat", "centimetres that a cellist's hips sit above the knees", 2, "higher: chairs for the cello come higher")
	SeatFootstool   = ours("seat", "height of a guitar's footstool as part of stature", 0.09, "higher: the neck points higher")
	SeatPreference  = ours("seat", "centimetres over or under the keys in the schools that want so", 1.5, "higher: the schools differ more; 3 cm either way is the range")
)

// The lesson: how its minutes are shared out.
var (
	LessonUpkeep    = ours("lesson", "part of the approach's share of upkeep that a lesson keeps; the week at home keeps all of it", 0.4, "higher: more old pieces are heard in the lesson")
	LessonStretch   = ours("lesson", "worth of a minute past a block's best, of one before it", 0.25, "higher: long blocks rather than one more block")
	LessonFit       = ours("lesson", "worth of a block that fits in at all, in minutes of its own", 0.6, "higher: more and shorter blocks")
	LessonOldPieces = ours("lesson", "minutes of lesson for each old piece heard", 44, "lower: more old pieces in a lesson")
	GameTried       = ours("lesson", "worth of a game whose probe was tried and not passed", 2, "higher: what is nearly there comes back sooner")
	GameSecure      = ours("lesson", "taken off a game whose skill is secure", 3, "lower: games go on after their skill is there")
	GameAgain       = ours("lesson", "taken off a game that was done in the lesson before", 1.5, "lower: games come twice running")
	GameAsked       = ours("lesson", "worth of a game that was asked for", 1, "higher: the student's wish decides more")
	LessonFirstGame = ours("lesson", "minutes of a first round in a first meeting with a child under five", 1, "higher: fewer aims, longer games")
)

// The calendar.
var (
	LongDay = ours("calendar", "minutes of lessons on one day from which it is called long", 360, "lower: more days are warned of")
	LongRun = ours("calendar", "minutes of lessons without a pause of ten from which that is said", 180, "lower: pauses are asked for sooner")
)

// The week at home.
var (
	WeekLight  = ours("week", "part of the minutes after a break, or after a week of which under half was practised", 0.75, "higher: light weeks are less light")
	BackFirst  = ours("week", "part of the minutes before a pain that is practised in the first week after playing was cleared", 0.5, "higher: practice comes back sooner; never above a half without a clinician's word")
	BackGrowth = ours("week", "by how much those minutes grow each week after", 4.0/3, "higher: practice comes back faster; jumps are when injuries return")
	WeekGrowth = ours("week", "most minutes a day over those practised lately", 1.2, "higher: totals rise faster; jumps are when injuries come")

	PracticeMuch = ours("week", "part of the asked days from which a family practises much", 0.6, "higher: more families are advised on habit")
	DullWords    = ours("week", "times in four weeks that dull is said before it counts", 3, "lower: a single bad day brings a talk")
)

// Places that trip.
var (
	SpotGoal = ours("spots", "times in a row that a hard place is wanted", 5, "higher: spots stand longer")
)

// The teacher's word on sheets.
var (
	StruckOften = ours("sheets", "sheets from which a sort of line is struck until it is no longer drafted, and on which it is changed in one way until keeping it so is offered", 3, "higher: sheets learn more slowly")
)

// Cards of reading and theory.
var (
	CardLasts  = ours("cards", "days for which a card must last to be known", 5, "higher: decks grow more slowly")
	CardRecall = ours("cards", "how likely a known card must still be", 0.9, "higher: known cards come back sooner")
	CardsOpen  = ours("cards", "cards that may be open at once", 3, "higher: more new ones in a lesson")
)

// The chunks of a score: how strongly a line may be cut before a note.
var (
	CutPhrase   = ours("chunks", "where a phrase ends", 4, "higher: phrases are kept whole")
	CutStrain   = ours("chunks", "where a strain ends: a repeat, a double bar line, another key", 8, "higher: strains are kept whole")
	CutFour     = ours("chunks", "after whole fours of bars", 3, "higher: fours are kept together")
	CutFigure   = ours("chunks", "where a figure ends", 1, "higher: figures are kept whole")
	CutPosition = ours("chunks", "where the hand moves", 1.5, "higher: a chunk keeps one position")
	CutBar      = ours("chunks", "at a bar line", 2, "higher: chunks are whole bars")
	CutBeat     = ours("chunks", "on a beat", 0.5, "higher: chunks begin on beats")
	CutMiddle   = ours("chunks", "cost of a cut away from the middle, for the whole half", 6, "higher: chunks are of like length")
)

// The phrases of a tune: how well one may begin with a note, and what it costs by its length.
var (
	HandOpens    = ours("fingers", "years of age from which a hand opens by a key", 7, "lower: small hands reach six keys")
	PhraseBase   = ours("phrases", "what must speak for a border at all", 2, "lower: more and shorter phrases")
	PhraseRest   = ours("phrases", "after a rest", 2, "higher: every rest parts")
	PhraseLong   = ours("phrases", "after a note twice as long as most", 2, "higher: long notes part")
	PhraseBreath = ours("phrases", "after a slur, a breath or a fermata", 3, "higher: they part whatever the bars")
	PhraseAgain  = ours("phrases", "where two bars come back", 2, "higher: what comes back is a phrase of its own")
	PhraseBar    = ours("phrases", "at a bar line", 1, "higher: phrases begin with bars")
	PhraseUpbeat = ours("phrases", "an upbeat as long as the first", 2.5, "higher: phrases begin as the piece does")
	PhraseTwo    = ours("phrases", "cost of a phrase of two bars", 1, "lower: more phrases of two")
	PhraseOdd    = ours("phrases", "cost of a phrase of three bars or five", 2, "lower: the habit of four bars holds less")
)

// Where a student from elsewhere stands: how far answers are trusted.
var (
	ProbeCareless  = ours("placement", "chance that somebody who can do it does not", 0.07, "higher: one failure counts for less")
	ProbeLucky     = ours("placement", "chance that somebody who cannot does it by luck", 0.05, "higher: one pass counts for less")
	ProbeNearly    = ours("placement", "chance of nearly doing it, whether one can or not", 0.15, "higher: fewer answers are plain")
	PlacementGap   = ours("placement", "chance of a gap below the level, and of a skill above it", 0.04, "higher: more is asked below the level")
	PlacementEdge  = ours("placement", "share of the way over which the level is blurred", 0.02, "higher: skills around the level come in any order")
	PlacementOnce  = ours("placement", "how many times likelier all that was once secure is still known than nothing of it", 4, "higher: who comes back is asked less")
	PlacementSure  = ours("placement", "chance from which a skill counts as known or missing", 0.15, "higher: fewer questions, more doubt")
	PlacementTells = ours("placement", "how much a question must be expected to tell to be asked, in nats", 0.02, "higher: fewer questions")
	PlacementNear  = ours("placement", "pieces between which a place to begin is known well enough: a unit", 6, "higher: a place is named sooner")
	TickOff        = ours("placement", "first lessons in which what is taken for granted is ticked off", 3, "higher: it is asked for longer")
	PlacementEven  = ours("placement", "the same, where a transfer keeps the level", 0.5, "higher: a student begins lower")
	PlacementDoubt = ours("placement", "chance of having come so far, to begin there", 0.75, "higher: a student begins lower")
)

// The order of a programme, and how long it lasts.
var (
	ProgrammeMove = ours("programme", "cost of moving instruments between two players", 3, "higher: an instrument is moved less often")
	ProgrammeSame = ours("programme", "cost of one key, or one mood, twice running, and of a calm end", 1, "higher: keys and moods change more often")
	ProgrammeWait = ours("programme", "cost a year by which somebody younger comes later", 0.2, "higher: the young play first")
	PieceSeconds  = ours("programme", "seconds of a piece whose bars are not known", 120, "higher: programmes are reckoned longer")
	BowSeconds    = ours("programme", "seconds between two players", 30, "higher: programmes are reckoned longer")
	MoveSeconds   = ours("programme", "seconds between two players where instruments are moved", 60, "higher: programmes are reckoned longer")
)

// Check-ins with families.
var (
	HalfTerm   = ours("check-ins", "weeks from one check-in to the next, each half term", 6, "higher: talked less often")
	WholeTerm  = ours("check-ins", "weeks from one to the next, each term", 13, "higher: talked less often")
	HeartFalls = ours("check-ins", "share of the days at home before, under which they fall", 0.6, "higher: worried sooner")
)

// What is said, and when.
var (
	ForecastShift = ours("advice", "weeks by which a forecast must move to be told", 1.5, "lower: every small shift is news")
	ShareShift    = ours("advice", "share of the practice that must move for an effect to be told", 0.03, "lower: differences that nobody feels are told")
	CarryRecall   = ours("advice", "recall under which an old piece that carries a skill being learnt is suggested", 0.93, "higher: such pieces are suggested sooner after they were heard")
	FaultWeeks    = ours("advice", "weeks for which a fault that was seen stands among the first", 8, "lower: faults are forgotten sooner")
	HugePiece     = ours("family", "bars for which a piece counts once towards a treat; one of twice as many counts twice, of three times as many three times", 32, "lower: long pieces count for more")
	OwnLinkFrom   = ours("family", "age from which a student may have a link to the week beside the family's", 12, "lower: younger ones hold their own page")
	TreatsTo      = ours("advice", "age up to which counting towards a treat is offered unasked", 12, "higher: older students see it")
)

// What is played in.
var (
	TouchStrength = ours("touch", "strength by which a finger stands out, of the 127 of a keyboard", 8, "higher: a thumb may be louder before it is named")
	TakeFresh     = ours("touch", "days for which a sheet thinks of what a take said", 21, "lower: an old take is forgotten sooner")
	TakesEven     = ours("touch", "even takes running, on different days, from which a point of evenness may be met", 2, "higher: evenness is believed later")
	TapOff        = ours("touch", "distance from the steady line, as a part of a hand's own interval, up to which a tapped step holds", 0.12, "higher: steps hold sooner")
	EchoOff       = ours("echo", "distance from the steady line, as a part of the shortest interval, up to which an answer is in time", 0.2, "higher: echoes are right sooner")
	EchoRun       = ours("echo", "answers right running from which the next level comes, and after the last the exit test is passed", 3, "higher: levels last longer")
	TouchSlips    = ours("touch", "part of the notes that slip from which the notes come before their evenness", 0.05, "higher: evenness is spoken of with more wrong notes")
)

// A shared hour.
var (
	GatherFresh = ours("gather", "recall from which a secure piece counts as one that can be played with others", 0.8, "higher: fewer pieces are common, and they are surer")
)
