package fact

import (
	"reflect"

	"github.com/goccy/go-json" // five times as fast: a student's facts are thousands of small bodies

	"patientladder/core/calendar"
)

// An entry is what the registry holds of a kind.
type entry struct {
	kind   Kind
	typ    reflect.Type
	fields []field
	decode func([]byte) (Body, error)
}

func of[B Body]() entry {
	var zero B
	typ := reflect.TypeFor[B]()
	return entry{zero.Kind(), typ, fieldsOf(typ), func(raw []byte) (Body, error) {
		var b B
		err := json.Unmarshal(raw, &b)
		return b, err
	}}
}

// kinds is the registry: each kind of fact once. A new kind is its type, with what
// Kind it is, and one line here.
var kinds = []entry{
	// the ladder
	of[RungAdded](), of[RungRevised](), of[RungMoved](), of[RungParked](), of[RungResumed](), of[Taught](), of[PointHeld](), of[PointMarked](), of[SelfJudged](),
	of[OwnPoint](), of[SpotNoted](), of[SpotDrilled](), of[CardAnswered](), of[FootholdTried](), of[Polished](), of[Heard](), of[OpenedWith](),
	of[TargetSet](), of[TargetDropped](), of[Prepared](), of[Overruled](),
	// the student
	of[BeforeBook](), of[BookChosen](), of[BookDropped](), of[TasteAsked](), of[ApproachSet](), of[Probed](), of[Seen](), of[SeatMeasured](),
	of[PlayedIn](), of[Echoed](), of[MoodSeen](), of[WentWell](), of[Talked](), of[Noted](), of[Pained](), of[PainCleared](),
	// the lesson
	of[LessonOpened](), of[LessonClosed](), of[LessonMissed](), of[LessonMoved](), of[LessonExtra](), of[LessonRemote](), of[LessonRated](),
	of[Paused](), of[Left](), of[Returned](),
	of[LessonLength](), of[BlockTimed](), of[BlockSwapped](), of[BlockMoved](), of[BlockDropped](), of[BlockAdded](), of[ActivityDone](), of[ActivityAsked](),
	// home
	of[Practised](), of[Played](), of[Ticked](), of[Tripped](), of[DaysSet](), of[QuestionAsked](), of[QuestionAnswered](), of[TreatSet](), of[TreatDropped](),

	// the teacher's word on a sheet
	of[LineStruck](), of[LineChanged](), of[LineAdded](), of[LineMoved](), of[LinePinned](), of[SheetNoted](), of[SortKept](), of[CountKept](),

	of[Retracted](),
}

var registry = func() map[Kind]entry {
	out := make(map[Kind]entry, len(kinds))
	for _, e := range kinds {
		out[e.kind] = e
	}
	return out
}()

// Top places a rung above all others of its lane.
const Top = "top"

// FirstBook is the probe that says whether book one can begin.
const FirstBook = "first-book"

// Answers of a probe or an exit test.
const (
	Pass   = "pass"
	Nearly = "nearly"
	NotYet = "not-yet"
)

// The ladder.

// RungAdded places an item on the ladder; the fact's id is the rung's.
type RungAdded struct {
	Item   string `json:"item" maxLength:"60" ref:"item"`
	Strand string `json:"strand" enum:"book,technique,reading,repertoire"`
	After  string `json:"after,omitempty" maxLength:"26" doc:"the rung it stands above; empty for the foot of the lane, 'top' for its top"`
	Parked bool   `json:"parked,omitempty" doc:"laid aside at once, so that it is not proposed again"`
	// which of the item's points and parts it is placed with
	Revision int `json:"revision,omitempty" minimum:"0" maximum:"10000" doc:"of the item; 0 for the first"`
}

// RungRevised takes over a newer revision of a rung's item.
type RungRevised struct {
	Rung     string `json:"rung" maxLength:"26" ref:"rung"`
	Revision int    `json:"revision" minimum:"0" maximum:"10000"`
}

// RungMoved gives a rung another place in its lane, or in another.
type RungMoved struct {
	Rung   string `json:"rung" maxLength:"26" ref:"rung"`
	After  string `json:"after,omitempty" maxLength:"26" doc:"as of a rung added"`
	Strand string `json:"strand,omitempty" enum:"book,technique,reading,repertoire" doc:"the lane it goes into; empty for its own"`
}

// RungParked lays a rung aside.
type RungParked struct {
	Rung string `json:"rung" maxLength:"26" ref:"rung"`
}

// RungResumed takes a rung up again.
type RungResumed struct {
	Rung string `json:"rung" maxLength:"26" ref:"rung"`
}

// Taught says that a rung had its lesson.
type Taught struct {
	Rung string `json:"rung" maxLength:"26" ref:"rung"`
}

// PointHeld is a focus point chosen to be held in mind.
type PointHeld struct {
	Rung  string `json:"rung" maxLength:"26" ref:"rung"`
	Point string `json:"point" maxLength:"100" ref:"point"`
}

// Marks of a focus point.
const (
	Met  = "met"
	Open = "open"
)

// PointMarked is a focus point met, or not yet.
type PointMarked struct {
	Rung  string `json:"rung" maxLength:"26" ref:"rung"`
	Point string `json:"point" maxLength:"100" ref:"point"`
	State string `json:"state" enum:"met,open"`
}

// SelfJudged is what the student said before the teacher did.
type SelfJudged struct {
	Rung  string `json:"rung" maxLength:"26" ref:"rung"`
	Point string `json:"point,omitempty" maxLength:"100" ref:"point" doc:"empty for the whole"`
	Says  string `json:"says" enum:"yes,nearly,no"`
}

// OwnPoint is a standing point of the student's; its key is "own-" and the fact's
// id.
type OwnPoint struct {
	Name string `json:"name" maxLength:"200"`
}

// SpotNoted is a short hard place; the fact's id is the spot's.
type SpotNoted struct {
	Rung  string `json:"rung" maxLength:"26" ref:"rung"`
	Where string `json:"where" maxLength:"200"`
	Goal  int    `json:"goal" minimum:"1" maximum:"100" doc:"times in a row wanted"`
}

// SpotDrilled is a run of a spot.
type SpotDrilled struct {
	Rung string `json:"rung" maxLength:"26" ref:"rung"`
	Spot string `json:"spot" maxLength:"26" ref:"spot"`
	Run  int    `json:"run" minimum:"1" maximum:"1000" doc:"times in a row reached"`
}

// CardAnswered is a card of an item's decks, asked and answered.
type CardAnswered struct {
	Rung    string `json:"rung" maxLength:"26" ref:"rung"`
	Card    string `json:"card" maxLength:"60" ref:"card" doc:"its id"`
	Outcome string `json:"outcome" enum:"pass,nearly,not-yet"`
}

// Granted is the outcome of a try that brought the foothold.
const Granted = "granted"

// FootholdTried is a try for a foothold.
type FootholdTried struct {
	Rung    string `json:"rung" maxLength:"26" ref:"rung"`
	Part    string `json:"part,omitempty" maxLength:"100" doc:"of an item in parts; empty for the whole"`
	Outcome string `json:"outcome" enum:"granted,not-yet"`
	Note    string `json:"note,omitempty" maxLength:"2000"`
}

// Polished is a secure piece that is ready to perform.
type Polished struct {
	Rung string `json:"rung" maxLength:"26" ref:"rung"`
}

// Heard is a secure piece heard again.
type Heard struct {
	Rung  string `json:"rung" maxLength:"26" ref:"rung"`
	Grade string `json:"grade" enum:"fell-apart,rough,fine,easily"`
}

// OpenedWith is a piece that the student chose to open the lesson with.
type OpenedWith struct {
	Rung string `json:"rung" maxLength:"26" ref:"rung"`
}

// TargetSet is a day by which a rung should be polished.
type TargetSet struct {
	Rung string        `json:"rung" maxLength:"26" ref:"rung"`
	Day  calendar.Date `json:"day" when:"ahead"`
}

// TargetDropped takes that day off.
type TargetDropped struct {
	Rung string `json:"rung" maxLength:"26" ref:"rung"`
}

// Prepared is a step of a head start that was done.
type Prepared struct {
	Skill string `json:"skill" maxLength:"60" ref:"skill" doc:"that the head start is for"`
	Step  int    `json:"step" minimum:"1" maximum:"100" doc:"which task of the chain"`
}

// Overruled is a suggestion turned down: for now, or for good.
type Overruled struct {
	Suggestion string `json:"suggestion" maxLength:"100" doc:"its key"`
	Until      string `json:"until" enum:"later,never"`
}

// The student.

// BeforeBook says that the student has not begun the first book.
type BeforeBook struct{}

// BookChosen adds a book or pool that the path draws on.
type BookChosen struct {
	Book string `json:"book" maxLength:"200" ref:"book"`
	From string `json:"from,omitempty" maxLength:"60" ref:"item" doc:"where the student begins; empty for the foot"`
}

// BookDropped takes a book away.
type BookDropped struct {
	Book string `json:"book" maxLength:"200"`
}

// TasteAsked is what the student likes to play, as asked.
type TasteAsked struct {
	Taste string `json:"taste" enum:"lively,lyrical,familiar"`
}

// ApproachSet answers a question where teachers disagree.
type ApproachSet struct {
	Question string `json:"question" maxLength:"40"`
	School   string `json:"school" maxLength:"40" ref:"school"`
}

// Probed is a probe of a first meeting, or the test for the first book.
type Probed struct {
	Probe   string `json:"probe" maxLength:"60" ref:"probe"`
	Outcome string `json:"outcome" enum:"pass,nearly,not-yet"`
}

// Seen is a fault of body or hand that was seen.
type Seen struct {
	Fault string `json:"fault" maxLength:"60" ref:"fault"`
}

// SeatMeasured is what was measured of a player, in cm; nought where it was not.
type SeatMeasured struct {
	Stature  float64 `json:"stature,omitempty" minimum:"0" maximum:"300"`
	Elbow    float64 `json:"elbow,omitempty" minimum:"0" maximum:"300" doc:"seated elbow height above the seat"`
	LowerLeg float64 `json:"lowerLeg,omitempty" minimum:"0" maximum:"300" doc:"popliteal height, shoes on"`
}

// PlayedIn is a take that was measured: what was asked, how it was played in, and its figures; the
// notes themselves are not kept.
type PlayedIn struct {
	Rung    string  `json:"rung,omitempty" maxLength:"26" ref:"rung"`
	Asked   string  `json:"asked" maxLength:"100" doc:"what was asked, by its specification or its title"`
	From    string  `json:"from" enum:"keys,taps,file,simulated"`
	Notes   int     `json:"notes" minimum:"1" maximum:"20000"`
	Slips   int     `json:"slips,omitempty" minimum:"0" maximum:"40000" doc:"notes wrong, missing or too many"`
	Beat    float64 `json:"beat" minimum:"0" maximum:"60000" doc:"milliseconds of a quarter note"`
	Spread  float64 `json:"spread" minimum:"0" maximum:"10" doc:"of the intervals, as a part of them"`
	Lope    float64 `json:"lope" minimum:"0" maximum:"100" doc:"how long the first of two is beside the second"`
	Drift   float64 `json:"drift" minimum:"-1" maximum:"100" doc:"how much longer the last interval is than the first, as a part of it"`
	Figure  string  `json:"figure" enum:"even,slips,stops,lope,drift,spread,late,early,strong,weak,apart,scatter" doc:"what was said first"`
	Hand    string  `json:"hand,omitempty" enum:"left,right"`
	Finger  string  `json:"finger,omitempty" maxLength:"4"`
	Size    float64 `json:"size" minimum:"0" maximum:"100000" doc:"as the figure has it"`
	Off     float64 `json:"off" minimum:"0" maximum:"60000" doc:"milliseconds off the steady line, of the hand that is further off"`
	Holds   bool    `json:"holds,omitempty" doc:"of a step that is tapped: it held"`
	Fingers []Touch `json:"fingers,omitempty" maxItems:"20"`
}

// Touch is what was measured of a finger in a take.
type Touch struct {
	Hand   string  `json:"hand,omitempty" enum:"left,right"`
	Finger string  `json:"finger" maxLength:"4"`
	Late   float64 `json:"late" doc:"milliseconds after the other fingers"`
	Heft   float64 `json:"heft" doc:"strength over theirs, of 127"`
}

// Echoed is a round of listening and answering.
type Echoed struct {
	Skill  string `json:"skill" maxLength:"60" ref:"skill"`
	Level  int    `json:"level" minimum:"1" maximum:"20" doc:"the highest that was reached"`
	Asked  int    `json:"asked" minimum:"1" maximum:"1000"`
	Right  int    `json:"right" minimum:"0" maximum:"1000"`
	Passed bool   `json:"passed,omitempty" doc:"its exit test: the last level, as often running as it takes"`
}

// MoodSeen is the mood of a student in a lesson.
type MoodSeen struct {
	Mood string `json:"mood" enum:"bright,calm,restless,tired,low"`
}

// WentWell is a thing that went well, named.
type WentWell struct {
	Rung string `json:"rung,omitempty" maxLength:"26" ref:"rung"`
	Text string `json:"text" maxLength:"2000"`
}

// Talked is a check-in with the family, with what was agreed.
type Talked struct {
	With   string `json:"with" enum:"family,student,both"`
	Agreed string `json:"agreed" maxLength:"2000"`
}

// Noted is a note of the teacher's.
type Noted struct {
	Rung string `json:"rung,omitempty" maxLength:"26" ref:"rung"`
	Text string `json:"text" maxLength:"2000"`
}

// Pained is a pain that was told.
type Pained struct {
	Side  string `json:"side" enum:"right,left,both"`
	Where string `json:"where,omitempty" maxLength:"200"`
}

// PainCleared ends a pain: a clinician has cleared it.
type PainCleared struct{}

// The lesson. Days of lessons lie within a year or so of when they are told.

// LessonOpened begins the lesson of a day.
type LessonOpened struct {
	Day calendar.Date `json:"day" when:"near"`
}

// LessonClosed ends it.
type LessonClosed struct {
	Day calendar.Date `json:"day" when:"near"`
}

// LessonMissed is a lesson that is not given.
type LessonMissed struct {
	Day calendar.Date `json:"day" when:"near"`
	By  string        `json:"by,omitempty" enum:"student,teacher,illness" doc:"who cancelled it, or what; empty where that is not told"`
	Why string        `json:"why,omitempty" maxLength:"200"`
}

// LessonMoved takes a lesson off its day and gives it another.
type LessonMoved struct {
	Day   calendar.Date `json:"day" when:"near"`
	To    calendar.Date `json:"to" when:"near"`
	Start string        `json:"start,omitempty" pattern:"^([01][0-9]|2[0-3]):[0-5][0-9]$" doc:"15:04; empty for the usual"`
}

// LessonExtra is a lesson outside the weekly slot.
type LessonExtra struct {
	Day   calendar.Date `json:"day" when:"near"`
	Start string        `json:"start,omitempty" pattern:"^([01][0-9]|2[0-3]):[0-5][0-9]$" doc:"15:04; empty for the usual"`
}

// LessonRemote says whether a lesson is given from afar.
type LessonRemote struct {
	Day    calendar.Date `json:"day" when:"near"`
	Remote bool          `json:"remote"`
}

// Paused says that a student takes no lessons for a time.
type Paused struct {
	From  calendar.Date `json:"from" when:"near"`
	Until calendar.Date `json:"until,omitempty" when:"near" doc:"the last day of it; empty where that is not known yet"`
}

// Left says that a student has left the studio.
type Left struct {
	Day calendar.Date `json:"day" when:"near" doc:"the first without lessons"`
}

// Returned says that a student who paused or left comes again.
type Returned struct {
	Day calendar.Date `json:"day" when:"near" doc:"the first with lessons"`
}

// LessonRated is how a lesson went for the teacher.
type LessonRated struct {
	Day    calendar.Date `json:"day" when:"near"`
	Rating string        `json:"rating" enum:"flowed,mixed,uphill"`
}

// LessonLength sets how long the lesson of a day is.
type LessonLength struct {
	Day     calendar.Date `json:"day" when:"near"`
	Minutes int           `json:"minutes" minimum:"1" maximum:"240"`
}

// BlockTimed sets the minutes of a block of a plan.
type BlockTimed struct {
	Day     calendar.Date `json:"day" when:"near"`
	Block   string        `json:"block" maxLength:"100" doc:"its key"`
	Minutes int           `json:"minutes" minimum:"1" maximum:"240"`
	Sort    string        `json:"sort,omitempty" maxLength:"20" doc:"what kind of block it is, so that what is set again and again is learnt"`
	Was     int           `json:"was,omitempty" minimum:"0" maximum:"240" doc:"minutes that it had"`
}

// BlockSwapped puts another thing into a block.
type BlockSwapped struct {
	Day   calendar.Date `json:"day" when:"near"`
	Block string        `json:"block" maxLength:"100"`
	Into  string        `json:"into" maxLength:"100"`
}

// BlockMoved puts a block after another.
type BlockMoved struct {
	Day   calendar.Date `json:"day" when:"near"`
	Block string        `json:"block" maxLength:"100"`
	After string        `json:"after,omitempty" maxLength:"100" doc:"key of the block it follows"`
}

// BlockDropped leaves a block out.
type BlockDropped struct {
	Day   calendar.Date `json:"day" when:"near"`
	Block string        `json:"block" maxLength:"100"`
	Sort  string        `json:"sort,omitempty" maxLength:"20" doc:"what kind of block it is, so that what is left out again and again is learnt"`
}

// BlockAdded puts an activity or a rung into a plan.
type BlockAdded struct {
	Day  calendar.Date `json:"day" when:"near"`
	Into string        `json:"into" maxLength:"100"`
}

// PlanDay returns the day of the lesson whose plan a body changes; false for what
// changes none.
func PlanDay(b Body) (calendar.Date, bool) {
	switch b := b.(type) {
	case LessonLength:
		return b.Day, true
	case BlockTimed:
		return b.Day, true
	case BlockSwapped:
		return b.Day, true
	case BlockMoved:
		return b.Day, true
	case BlockDropped:
		return b.Day, true
	case BlockAdded:
		return b.Day, true
	}
	return "", false
}

// ActivityDone is how an activity went.
type ActivityDone struct {
	Activity string `json:"activity" maxLength:"60" ref:"activity"`
	Outcome  string `json:"outcome" enum:"pass,nearly,not-yet"`
	Level    int    `json:"level,omitempty" minimum:"0" maximum:"20" doc:"from 1"`
	Aim      string `json:"aim,omitempty" maxLength:"60" ref:"probe" doc:"the probe that a pass of its exit test answers"`
}

// ActivityAsked is an activity that was asked for again.
type ActivityAsked struct {
	Activity string `json:"activity" maxLength:"60" ref:"activity"`
}

// Home.

// Practised is a day of practice as told.
type Practised struct {
	Day     calendar.Date `json:"day" when:"past"`
	Minutes int           `json:"minutes,omitempty" minimum:"0" maximum:"1440"`
	Felt    string        `json:"felt,omitempty" enum:"fun,easy,fine,hard,dull"`
}

// Played is a piece played at home, as told.
type Played struct {
	Rung    string        `json:"rung" maxLength:"26" ref:"rung"`
	Day     calendar.Date `json:"day" when:"past"`
	Minutes int           `json:"minutes,omitempty" minimum:"0" maximum:"1440"`
}

// Ticked is a line of a week sheet that was done on a day.
type Ticked struct {
	Day      calendar.Date `json:"day" when:"near" doc:"under which it stands"`
	Document string        `json:"document,omitempty" maxLength:"26" ref:"document" doc:"the sheet; empty of ticks from before sheets were kept"`
	Line     string        `json:"line" maxLength:"200" doc:"of that sheet"`
	Rung     string        `json:"rung,omitempty" maxLength:"26" ref:"rung" doc:"that the line is about"`
}

// Tripped is a place that went wrong at home.
type Tripped struct {
	Rung  string        `json:"rung,omitempty" maxLength:"26" ref:"rung"`
	Day   calendar.Date `json:"day,omitempty" when:"past"`
	Where string        `json:"where" maxLength:"500"`
}

// DaysSet is when a family practises.
type DaysSet struct {
	Weekdays []int `json:"weekdays" maxItems:"7" doc:"0 for Sunday to 6 for Saturday; empty for every day"`
	Minutes  int   `json:"minutes,omitempty" minimum:"0" maximum:"1440" doc:"a day; 0 for the usual of the age"`
}

// QuestionAsked is what a family asks the teacher; the fact's id is the question's.
type QuestionAsked struct {
	Text string `json:"text" maxLength:"2000"`
}

// QuestionAnswered says that it was answered.
type QuestionAnswered struct {
	Question string `json:"question" maxLength:"26" ref:"question"`
}

// What is counted towards a treat.
const (
	Footholds = "footholds"
	KeptDays  = "days"
)

// TreatSet is what a family counts towards, by its own choice.
type TreatSet struct {
	Name   string `json:"name" maxLength:"200"`
	Counts string `json:"counts" enum:"footholds,days"`
	Goal   int    `json:"goal" minimum:"1" maximum:"1000"`
}

// TreatDropped ends the counting.
type TreatDropped struct{}

// Retracted takes a fact back; taken back itself, the fact stands again.
type Retracted struct {
	Ref string `json:"ref" maxLength:"26" ref:"fact"`
}

func (RungAdded) Kind() Kind        { return "rung_added" }
func (RungRevised) Kind() Kind      { return "rung_revised" }
func (RungMoved) Kind() Kind        { return "rung_moved" }
func (RungParked) Kind() Kind       { return "rung_parked" }
func (RungResumed) Kind() Kind      { return "rung_resumed" }
func (Taught) Kind() Kind           { return "taught" }
func (PointHeld) Kind() Kind        { return "point_held" }
func (PointMarked) Kind() Kind      { return "point_marked" }
func (SelfJudged) Kind() Kind       { return "self_judged" }
func (OwnPoint) Kind() Kind         { return "own_point" }
func (SpotNoted) Kind() Kind        { return "spot_noted" }
func (SpotDrilled) Kind() Kind      { return "spot_drilled" }
func (CardAnswered) Kind() Kind     { return "card_answered" }
func (FootholdTried) Kind() Kind    { return "foothold_tried" }
func (Polished) Kind() Kind         { return "polished" }
func (Heard) Kind() Kind            { return "heard" }
func (OpenedWith) Kind() Kind       { return "opened_with" }
func (TargetSet) Kind() Kind        { return "target_set" }
func (TargetDropped) Kind() Kind    { return "target_dropped" }
func (Prepared) Kind() Kind         { return "prepared" }
func (Overruled) Kind() Kind        { return "overruled" }
func (BeforeBook) Kind() Kind       { return "before_book" }
func (BookChosen) Kind() Kind       { return "book_chosen" }
func (BookDropped) Kind() Kind      { return "book_dropped" }
func (TasteAsked) Kind() Kind       { return "taste_asked" }
func (ApproachSet) Kind() Kind      { return "approach_set" }
func (Probed) Kind() Kind           { return "probed" }
func (Seen) Kind() Kind             { return "seen" }
func (SeatMeasured) Kind() Kind     { return "seat_measured" }
func (PlayedIn) Kind() Kind         { return "played_in" }
func (Echoed) Kind() Kind           { return "echoed" }
func (MoodSeen) Kind() Kind         { return "mood_seen" }
func (WentWell) Kind() Kind         { return "went_well" }
func (Talked) Kind() Kind           { return "talked" }
func (Noted) Kind() Kind            { return "noted" }
func (Pained) Kind() Kind           { return "pained" }
func (PainCleared) Kind() Kind      { return "pain_cleared" }
func (LessonOpened) Kind() Kind     { return "lesson_opened" }
func (LessonClosed) Kind() Kind     { return "lesson_closed" }
func (LessonMissed) Kind() Kind     { return "lesson_missed" }
func (LessonMoved) Kind() Kind      { return "lesson_moved" }
func (LessonExtra) Kind() Kind      { return "lesson_extra" }
func (LessonRemote) Kind() Kind     { return "lesson_remote" }
func (LessonRated) Kind() Kind      { return "lesson_rated" }
func (Paused) Kind() Kind           { return "paused" }
func (Left) Kind() Kind             { return "left" }
func (Returned) Kind() Kind         { return "returned" }
func (LessonLength) Kind() Kind     { return "lesson_length" }
func (BlockTimed) Kind() Kind       { return "block_timed" }
func (BlockSwapped) Kind() Kind     { return "block_swapped" }
func (BlockMoved) Kind() Kind       { return "block_moved" }
func (BlockDropped) Kind() Kind     { return "block_dropped" }
func (BlockAdded) Kind() Kind       { return "block_added" }
func (ActivityDone) Kind() Kind     { return "activity_done" }
func (ActivityAsked) Kind() Kind    { return "activity_asked" }
func (Practised) Kind() Kind        { return "practised" }
func (Played) Kind() Kind           { return "played" }
func (Ticked) Kind() Kind           { return "ticked" }
func (Tripped) Kind() Kind          { return "tripped" }
func (DaysSet) Kind() Kind          { return "days_set" }
func (QuestionAsked) Kind() Kind    { return "question_asked" }
func (QuestionAnswered) Kind() Kind { return "question_answered" }
func (TreatSet) Kind() Kind         { return "treat_set" }
func (TreatDropped) Kind() Kind     { return "treat_dropped" }
func (Retracted) Kind() Kind        { return "retracted" }
