// Package ladder turns facts into a standing.
//
// A fact is one recorded event, never changed; another fact may take it back.
// Fold reads a student's facts, in whatever order and however often they
// arrive, and gives the standing: the state of every rung, point, spot and
// secure piece. Same facts, same standing: there is no clock here.
package ladder

import (
	"fmt"
	"slices"
	"strings"
	"time"
	"unicode/utf8"

	"patientladder/core/calendar"
	"patientladder/core/shelf"
)

// A Kind says what a fact tells.
type Kind string

// The kinds of facts. What each needs and does stands in the table kinds.
const (
	RungAdded     Kind = "rung_added"
	RungMoved     Kind = "rung_moved"
	RungParked    Kind = "rung_parked"
	RungResumed   Kind = "rung_resumed"
	Taught        Kind = "taught"
	PointHeld     Kind = "point_held"
	PointMet      Kind = "point_met"
	PointOpen     Kind = "point_open"
	SelfJudged    Kind = "self_judged"
	OwnPoint      Kind = "own_point"
	SpotNoted     Kind = "spot_noted"
	SpotDrilled   Kind = "spot_drilled"
	FootholdTried Kind = "foothold_tried"
	Polished      Kind = "polished"
	Heard         Kind = "heard"
	OpenedWith    Kind = "opened_with"
	Practised     Kind = "practised"
	Prepared      Kind = "prepared"
	Probed        Kind = "probed"
	BeforeBook    Kind = "before_book"
	BookChosen    Kind = "book_chosen"
	BookDropped   Kind = "book_dropped"
	TargetSet     Kind = "target_set"
	TargetDropped Kind = "target_dropped"
	TasteAsked    Kind = "taste_asked"
	ApproachSet   Kind = "approach_set"
	Overruled     Kind = "overruled"
	Seen          Kind = "seen"
	Noted         Kind = "noted"
	LessonOpened  Kind = "lesson_opened"
	LessonClosed  Kind = "lesson_closed"
	LessonMissed  Kind = "lesson_missed"
	LessonMoved   Kind = "lesson_moved"
	LessonExtra   Kind = "lesson_extra"
	LessonRemote  Kind = "lesson_remote"
	PlanChanged   Kind = "plan_changed"
	ActivityDone  Kind = "activity_done"
	ActivityAsked Kind = "activity_asked"
	SeatMeasured  Kind = "seat_measured"
	MoodSeen      Kind = "mood_seen"
	WentWell      Kind = "went_well"
	Pained        Kind = "pained"
	PainCleared   Kind = "pain_cleared"
	DaysSet       Kind = "days_set"
	QuestionAsked Kind = "question_asked"
	QuestionDone  Kind = "question_done"
	Tripped       Kind = "tripped"
	Ticked        Kind = "ticked"
	TreatSet      Kind = "treat_set"
	TreatDropped  Kind = "treat_dropped"
	Retracted     Kind = "retracted"
)

// A Fact is one recorded event of one student. Which of the details it has
// depends on its kind.
type Fact struct {
	ID      string    `json:"id" doc:"made by the client: a ULID"`
	Student string    `json:"student"`
	At      time.Time `json:"at" doc:"when it happened, by the client's clock"`
	Kind    Kind      `json:"kind"`

	Rung    string        `json:"rung,omitempty" doc:"the id of the fact that added the rung"`
	Item    string        `json:"item,omitempty"`
	Strand  shelf.Strand  `json:"strand,omitempty"`
	After   string        `json:"after,omitempty" doc:"the rung it stands above; empty for the foot of the lane, 'top' for its top"`
	Part    string        `json:"part,omitempty"`
	Skill   string        `json:"skill,omitempty" doc:"that a head start is for"`
	Point   string        `json:"point,omitempty" doc:"key of a focus point"`
	Spot    string        `json:"spot,omitempty" doc:"the id of the fact that noted the spot"`
	Outcome string        `json:"outcome,omitempty" doc:"of a try: granted or not-yet; of a self-judgement: yes, nearly or no; of a hearing: fell-apart, rough, fine or easily; of a probe or an activity: pass, nearly or not-yet; of a pain: the side; of a mood; of a changed plan: what was done to the block; of a taste: lively, lyrical or familiar; of an approach: the school; of a suggestion overruled: later or never; of a treat: what is counted"`
	Count   int           `json:"count,omitempty" doc:"of a spot: times in a row, wanted or done; of a head start: which task of the chain, from 1; of a treat: how many bring it"`
	Minutes int           `json:"minutes,omitempty" doc:"of practice; of a block that the teacher set; of a lesson cut short"`
	Day     calendar.Date `json:"day,omitempty" doc:"of practice and of a lesson"`
	To      calendar.Date `json:"to,omitempty" doc:"the day that a lesson is moved to"`
	Into    string        `json:"into,omitempty" doc:"of a changed plan: what fills the block instead"`
	Text    string        `json:"text,omitempty"`
	Ref     string        `json:"ref,omitempty" doc:"the fact that is taken back"`

	Measures map[string]float64 `json:"measures,omitempty" doc:"cm, by what was measured"`
}

// Top places a rung above all others of its lane.
const Top = "top"

// FirstBook is the probe that says whether book one can begin.
const FirstBook = "first-book"

// Outcomes of a try for a foothold, a self-judgement, a hearing, a probe, a
// taste and an overrule.
var (
	tries    = []string{"granted", "not-yet"}
	judged   = []string{"yes", "nearly", "no"}
	hearings = []string{"fell-apart", "rough", "fine", "easily"}
	probes   = []string{"pass", "nearly", "not-yet"}
	tastes   = []string{"lively", "lyrical", "familiar"}
	overrule = []string{"later", "never"}
	sides    = []string{"right", "left", "both"}
	moods    = []string{"bright", "calm", "restless", "tired", "low"}
	treats   = []string{Footholds, KeptDays}
	changes  = []string{"minutes", "swap", "after", "drop", "add", "length"}
)

// What is counted towards a treat.
const (
	Footholds = "footholds"
	KeptDays  = "days"
)

// Measured are the names of what is measured of a player.
var Measured = []string{"stature", "elbow", "lowerLeg"}

// kinds holds, for each kind of fact, the details it needs and what it does to
// a standing. A new kind is one entry here.
var kinds = map[Kind]struct {
	needs []string
	apply func(*fold, Fact)
}{
	RungAdded:     {[]string{"item", "strand"}, (*fold).rungAdded},
	RungMoved:     {[]string{"rung"}, (*fold).rungMoved},
	RungParked:    {[]string{"rung"}, onRung(func(r *Rung, f Fact) { r.Parked = true })},
	RungResumed:   {[]string{"rung"}, onRung(func(r *Rung, f Fact) { r.Parked = false })},
	Taught:        {[]string{"rung"}, onRung((*Rung).taught)},
	PointHeld:     {[]string{"rung", "point"}, onRung(func(r *Rung, f Fact) { r.Held = f.Point })},
	PointMet:      {[]string{"rung", "point"}, (*fold).pointMarked},
	PointOpen:     {[]string{"rung", "point"}, (*fold).pointMarked},
	SelfJudged:    {[]string{"rung", "outcome"}, onRung(func(r *Rung, f Fact) { r.Judged = append(r.Judged, Judgement{f.Point, f.Outcome, f.At}) })},
	OwnPoint:      {[]string{"text"}, (*fold).ownPoint},
	SpotNoted:     {[]string{"rung", "text", "count"}, onRung(func(r *Rung, f Fact) { r.Spots = append(r.Spots, Spot{ID: f.ID, Where: f.Text, Goal: f.Count}) })},
	SpotDrilled:   {[]string{"rung", "spot", "count"}, onRung((*Rung).spotDrilled)},
	FootholdTried: {[]string{"rung", "outcome"}, (*fold).tried},
	Polished:      {[]string{"rung"}, onRung(func(r *Rung, f Fact) { r.Polished = r.Foothold != nil })},
	Heard:         {[]string{"rung", "outcome"}, onRung(func(r *Rung, f Fact) { r.Heard = append(r.Heard, Hearing{f.Outcome, f.At}) })},
	OpenedWith:    {[]string{"rung"}, onRung(func(r *Rung, f Fact) { r.Opened++ })},
	Practised:     {[]string{"day"}, (*fold).practised},
	Prepared:      {[]string{"skill", "count"}, (*fold).prepared},
	Probed:        {[]string{"text", "outcome"}, (*fold).probed},
	BeforeBook:    {nil, func(f *fold, _ Fact) { f.s.BeforeBook = true }},
	BookChosen:    {[]string{"text"}, (*fold).bookChosen},
	BookDropped:   {[]string{"text"}, (*fold).bookChosen},
	TargetSet:     {[]string{"rung", "day"}, onRung(func(r *Rung, f Fact) { r.Target = f.Day })},
	TargetDropped: {[]string{"rung"}, onRung(func(r *Rung, _ Fact) { r.Target = "" })},
	TasteAsked:    {[]string{"outcome"}, func(f *fold, fact Fact) { f.s.Taste = shelf.Taste(fact.Outcome) }},
	ApproachSet:   {[]string{"text", "outcome"}, func(f *fold, fact Fact) { f.s.Approach[fact.Text] = fact.Outcome }},
	Overruled:     {[]string{"text", "outcome"}, func(f *fold, fact Fact) { f.s.Overruled[fact.Text] = Overrule{fact.Outcome, fact.At} }},
	Seen:          {[]string{"text"}, func(f *fold, fact Fact) { f.s.Seen = append(f.s.Seen, Sight{fact.Text, fact.At}) }},
	Noted:         {[]string{"text"}, nothing},
	LessonOpened:  {[]string{"day"}, (*fold).lesson},
	LessonClosed:  {[]string{"day"}, (*fold).lesson},
	LessonMissed:  {[]string{"day"}, func(f *fold, fact Fact) { f.s.Missed[fact.Day] = fact.Text }},
	LessonMoved:   {[]string{"day", "to"}, (*fold).lessonMoved},
	LessonExtra:   {[]string{"day"}, func(f *fold, fact Fact) { f.s.Extra[fact.Day] = fact.Text }},
	LessonRemote:  {[]string{"day"}, func(f *fold, fact Fact) { f.s.Remote[fact.Day] = fact.Outcome != "no" }},
	PlanChanged:   {[]string{"day", "text", "outcome"}, func(f *fold, fact Fact) { f.s.Changes[fact.Day] = append(f.s.Changes[fact.Day], fact) }},
	ActivityDone:  {[]string{"text", "outcome"}, (*fold).activityDone},
	ActivityAsked: {[]string{"text"}, func(f *fold, fact Fact) { f.s.Asked[fact.Text] = fact.At }},
	SeatMeasured:  {[]string{"measures"}, func(f *fold, fact Fact) { f.s.Body = Body{fact.At, fact.Measures} }},
	MoodSeen:      {[]string{"outcome"}, func(f *fold, fact Fact) { f.s.Mood = fact.Outcome }},
	WentWell:      {[]string{"text"}, nothing},
	Pained:        {[]string{"outcome"}, func(f *fold, fact Fact) { f.s.Ache = &Ache{fact.Outcome, fact.Text, fact.At} }},
	PainCleared:   {nil, func(f *fold, _ Fact) { f.s.Ache = nil }},
	DaysSet:       {[]string{"text"}, func(f *fold, fact Fact) { f.s.HomeDays = HomeDays{weekdays(fact.Text), fact.Minutes} }},
	QuestionAsked: {[]string{"text"}, func(f *fold, fact Fact) { f.s.Questions = append(f.s.Questions, Question{fact.ID, fact.Text, fact.At}) }},
	QuestionDone:  {[]string{"into"}, (*fold).answered},
	Tripped:       {[]string{"text"}, (*fold).tripped},
	Ticked:        {[]string{"day", "text"}, (*fold).ticked},
	TreatSet:      {[]string{"text", "outcome", "count"}, func(f *fold, fact Fact) { f.s.Treat = &Treat{fact.Text, fact.Outcome, fact.Count, fact.At} }},
	TreatDropped:  {nil, func(f *fold, _ Fact) { f.s.Treat = nil }},
	Retracted:     {[]string{"ref"}, nothing},
}

// Check says what is wrong with the form of a fact; whether its rung exists is
// for Fold to see.
func (f Fact) Check() error {
	k, ok := kinds[f.Kind]
	if !ok {
		return fmt.Errorf("%q is not a kind of fact", f.Kind)
	}
	if len(f.ID) != 26 {
		return fmt.Errorf("the fact's id must be a ULID of 26 characters")
	}
	if f.At.IsZero() {
		return fmt.Errorf("the fact has no time")
	}
	if f.Kind == RungAdded && !f.Strand.Known() {
		return fmt.Errorf("%q is not a strand", f.Strand)
	}
	for _, day := range []calendar.Date{f.Day, f.To} {
		if day == "" {
			continue
		}
		if _, err := calendar.ParseDate(string(day)); err != nil {
			return err
		}
	}
	for name, cm := range f.Measures {
		if !slices.Contains(Measured, name) {
			return fmt.Errorf("%q is not measured; choose from %s", name, strings.Join(Measured, ", "))
		}
		if !(cm >= 0 && cm <= 300) {
			return fmt.Errorf("a %s of %v cm is out of range", name, cm)
		}
	}
	if (f.Kind == LessonMoved || f.Kind == LessonExtra) && f.Text != "" {
		if _, err := time.Parse("15:04", f.Text); err != nil {
			return fmt.Errorf("%q is not a time of day such as 16:00", f.Text)
		}
	}
	if f.Count < 0 || f.Count > 1000 || f.Minutes < 0 || f.Minutes > 24*60 {
		return fmt.Errorf("a count of %d or %d minutes is out of range", f.Count, f.Minutes)
	}
	for _, s := range []string{f.Rung, f.Item, f.After, f.Part, f.Point, f.Spot, f.Ref, f.Skill, f.Into} {
		if len(s) > 100 || !utf8.ValidString(s) {
			return fmt.Errorf("a name in the fact is longer than 100 characters")
		}
	}
	if len(f.Text) > 2000 || !utf8.ValidString(f.Text) {
		return fmt.Errorf("the text is longer than 2000 characters")
	}
	has := map[string]bool{
		"rung": f.Rung != "", "item": f.Item != "", "strand": f.Strand != "", "point": f.Point != "", "spot": f.Spot != "",
		"outcome": f.Outcome != "", "count": f.Count > 0, "day": f.Day != "", "text": strings.TrimSpace(f.Text) != "", "ref": f.Ref != "",
		"skill": f.Skill != "", "to": f.To != "", "measures": len(f.Measures) > 0, "into": f.Into != "",
	}
	for _, need := range k.needs {
		if !has[need] {
			return fmt.Errorf("a %s fact needs its %s", strings.ReplaceAll(string(f.Kind), "_", " "), need)
		}
	}
	allowed := map[Kind][]string{FootholdTried: tries, SelfJudged: judged, Heard: hearings,
		Probed: probes, TasteAsked: tastes, Overruled: overrule, ActivityDone: probes, MoodSeen: moods, Pained: sides, PlanChanged: changes, TreatSet: treats}[f.Kind]
	if allowed != nil && !slices.Contains(allowed, f.Outcome) {
		return fmt.Errorf("the outcome %q is not one of %s", f.Outcome, strings.Join(allowed, ", "))
	}
	return nil
}

// inOrder calls tell with the facts by time and then id, each once, without
// those taken back. A retraction itself cannot be taken back: say the thing
// again.
func inOrder(facts []Fact, tell func(*Fact)) {
	order := func(a, b Fact) int {
		if c := a.At.Compare(b.At); c != 0 {
			return c
		}
		return strings.Compare(a.ID, b.ID)
	}
	if !slices.IsSortedFunc(facts, order) { // as the store gives them, they are
		facts = slices.Clone(facts)
		slices.SortStableFunc(facts, order)
	}
	gone := map[string]bool{}
	for i := range facts {
		if facts[i].Kind == Retracted {
			gone[facts[i].Ref] = true
		}
	}
	for i := range facts {
		f := &facts[i]
		again := i > 0 && facts[i-1].ID == f.ID // the same fact has the same time
		if !again && (!gone[f.ID] || f.Kind == Retracted) {
			tell(f)
		}
	}
}
