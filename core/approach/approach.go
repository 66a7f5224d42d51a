// Package approach holds a student's settings where teachers disagree.
//
// Rows is the table: each row is a question, the schools that answer it and
// the usual answer for an age. All answers are common practice, no source. A
// new question or school is one entry there.
package approach

import (
	"fmt"
	"slices"
	"strings"

	"patientladder/core/instrument"
	"patientladder/core/judgement"
)

// An Approach is one student's settings: the school chosen for each question.
type Approach map[Question]School

// A Question names a row of the table, and a School one of its answers. What acts on
// them names them by the constants below, so that neither can be misspelt.
type (
	Question string
	School   string
)

// The questions that rules ask for by name.
const (
	Reading    Question = "reading"
	Bench      Question = "bench"
	First      Question = "first"
	Transfers  Question = "transfers"
	Start      Question = "start"
	Labels     Question = "labels"
	LowSeat    Question = "low-seat"
	Model      Question = "model"
	Numbers    Question = "numbers"
	ScaleKey   Question = "scale-key"
	Scales     Question = "scales"
	ScaleHands Question = "scale-hands"
	Patterns   Question = "patterns"
	Counts     Question = "counts"
	Hands      Question = "hands"
	Upkeep     Question = "upkeep"
	NewSkills  Question = "new-skills"
	Slope      Question = "slope"
	Rewards    Question = "rewards"
	Praise     Question = "praise"
	Talks      Question = "talks"
)

// The schools that rules ask for by name.
const (
	ByDirection   School = "direction" // of reading
	ByEar         School = "ear"
	ByNames       School = "names"
	ByTablature   School = "tablature"
	Above         School = "above" // of the bench
	Below         School = "below"
	Together      School = "together"       // of hands
	ThreeQuarters School = "three-quarters" // of upkeep
	Third         School = "third"
	OneSkill      School = "one" // of new skills
	AsBook        School = "book"
	Graded        School = "graded"  // of the slope
	DayOne        School = "day-one" // of finger numbers
	FromFour      School = "from-four"
	FiveBlacks    School = "black" // of the first scale
	ByFifths      School = "fifths"
	BySemitone    School = "semitone"
	AfterReading  School = "after-reading" // of scales
	OneHandAWeek  School = "week-each"     // of a scale's hands
	ByMeeting     School = "meeting"
	MirroredFirst School = "mirrored" // of patterns
	MusicOnly     School = "music"    // of rewards
	AskFamily     School = "asked"
	Along         School = "along"    // of playing with the model
	Diagram       School = "diagram"  // of a hand's start
	Labelled      School = "labelled" // of keys
	ThickBook     School = "book"     // of what raises a low seat
	Generous      School = "generous" // of praise
	SameLevel     School = "same"     // of transfers
	EachTerm      School = "term"     // of talks
	AsNeeded      School = "as-needed"
)

// seated are the questions about what one sits on; who stands is not asked.
var seated = []Question{"bench-part", LowSeat}

// An Option is one answer to a question, as it is shown.
type Option struct {
	Key  School `json:"key"`
	Name string `json:"name"`
	Cue  string `json:"cue" doc:"what it puts into the lesson; empty when it only moves plans"`
}

// A Row is one question.
type Row struct {
	Key     Question          `json:"key"`
	Asks    string            `json:"asks"`
	Block   string            `json:"block" doc:"kind of the lesson's block in which the school's cue stands; empty when there is none"`
	Only    instrument.Family `json:"only" enum:",keyboard,bowed,plucked,other" doc:"the one family of instruments it is asked for; empty for all"`
	Schools []Option          `json:"schools"`
	usual   func(age int) School
}

func always(school School) func(int) School { return func(int) School { return school } }

// under gives young for ages below n and older from then on.
func under(n int, young, older School) func(int) School {
	return func(age int) School {
		if age < n {
			return young
		}
		return older
	}
}

// Rows are the questions, in the order they are shown.
var Rows = []Row{
	{"movement", "Where does movement start?", "technique", instrument.Keyboard, []Option{
		{"fingers", "fingers, hand still", "Fingers move from their base; the hand stays still."},
		{"wrist", "wrist or elbow", "Lead from the wrist and elbow."},
		{"arm", "whole arm", "The whole arm moves; fingers land ready."}}, always("arm")},
	{Reading, "How are notes read at first?", "reading", "", []Option{
		{"direction", "direction", "Say up, down or same for each note, then play."},
		{"landmarks", "landmarks and intervals", "Find the nearest landmark, then the distance."},
		{"names", "note names", "Name each note, then play."},
		{"ear", "ear first", "Sing it, find it, then look at the page."},
		{"tablature", "tablature", "String and fret first, then the rhythm under them."}}, under(8, "direction", "landmarks")},
	{Start, "How does the hand find its start?", "", instrument.Keyboard, []Option{
		{Diagram, "from a drawn position", ""}, {"page", "read from the page", ""}}, under(7, Diagram, "page")},
	{Labels, "Are keys labelled?", "", instrument.Keyboard, []Option{
		{Labelled, "labelled at first", ""}, {"found", "found from the key groups", ""}}, always("found")},
	{Numbers, "When do finger numbers begin?", "", "", []Option{
		{DayOne, "from day one", ""}, {FromFour, "not before four", ""}}, always(FromFour)},
	{"hand-image", "Which image for the hand?", "set-up", "", []Option{
		{"round", "a round object", "Hands as if around a soft ball."},
		{"hanging", "a hanging hand", "Let the arm hang, then bring the hand up unchanged."}}, always("hanging")},
	{Bench, "How high is the seat?", "set-up", instrument.Keyboard, []Option{
		{"level", "forearm level", "Forearms level."}, {"above", "slightly above", "Elbows a touch above the keys."}, {"below", "slightly below", "Elbows a touch below the keys."}}, always("level")},
	{"bench-part", "Which part of the seat?", "set-up", "", []Option{
		{"half", "front half", "Front half of the seat."}, {"third", "front third", "Front third of the seat."}}, always("half")},
	{LowSeat, "What raises a low seat?", "", "", []Option{
		{"tiles", "firm tiles only", ""}, {ThickBook, "also a thick book", ""}}, always("tiles")},
	{First, "What comes first?", "", "", []Option{
		{"ear", "ear", ""}, {"rhythm", "rhythm", ""}, {"left-right", "left and right, beat", ""}, {"seat-hand", "seat and hand", ""}, {"numbers", "finger numbers", ""}},
		func(age int) School {
			switch {
			case age < 5:
				return "left-right"
			case age < 8:
				return "ear"
			}
			return "seat-hand"
		}},
	{ScaleKey, "Which scale is first?", "", instrument.Keyboard, []Option{
		{"c", "C", ""}, {FiveBlacks, "the five-black-key scale", ""}, {ByFifths, "by fifths, sharps and flats in turn", ""}, {BySemitone, "by semitone", ""}}, always("c")},
	{Scales, "When do scales begin?", "", "", []Option{
		{"first-months", "in the first months", ""}, {AfterReading, "after fluent reading", ""}}, always("first-months")},
	{ScaleHands, "How do the hands share a scale?", "", instrument.Keyboard, []Option{
		{"same-week", "each hand, same week", ""}, {OneHandAWeek, "one hand a week", ""}, {ByMeeting, "together by meeting points", ""}}, under(9, OneHandAWeek, "same-week")},
	{Counts, "How are repetitions asked for?", "", "", []Option{
		{"by-age", "by material and age", ""}, {"correct-only", "correct ones only", ""}, {"quality", "a quality rule", ""}}, always("by-age")},
	{Hands, "How does a two-hand piece begin?", "", instrument.Keyboard, []Option{
		{"week-each", "a week each, then together", ""}, {"together", "together from the start", ""}}, always("week-each")},
	{Patterns, "Patterns together: which first?", "", instrument.Keyboard, []Option{
		{"parallel", "parallel", ""}, {MirroredFirst, "mirrored", ""}}, always("parallel")},
	{Upkeep, "How much of practice is review?", "", "", []Option{
		{"three-quarters", "three quarters or more", ""}, {"half", "half", ""}, {"third", "a third", ""}}, always("half")},
	{NewSkills, "How many new skills a piece?", "", "", []Option{
		{"one", "one", ""}, {"two", "two", ""}, {"book", "as the book gives", ""}}, always("two")},
	{Slope, "In what order do materials come?", "", "", []Option{
		{"uneven", "easy and challenging in turn", ""}, {"graded", "graded by difficulty", ""}}, always("uneven")},
	{"correcting", "How is a fault corrected?", "current", "", []Option{
		{"each-time", "each time from the first", "Stop at each slip from the first playing on."},
		{"one-thing", "gradually, one thing", "One thing at a time; let the rest pass."}}, always("one-thing")},
	{Talks, "How often is home talked with?", "", "", []Option{
		{"half-term", "each half term", ""}, {EachTerm, "each term", ""}, {AsNeeded, "when there is need", ""}}, always("half-term")},
	{Praise, "When is praise given?", "close", "", []Option{
		{Generous, "generously, for every section", "Praise every section that went well, and name it."},
		{"specific", "for a named thing only", "Name one thing that went well, and the student names two."}}, under(7, Generous, "specific")},
	{Model, "How is the model used at home?", "home", "", []Option{
		{"alone-first", "alone first, then along", "Play alone the set number of times, then along with the model."},
		{Along, "step by step with it", "Play step by step with the model."}}, always("alone-first")},
	{Transfers, "Where does a transfer begin?", "", "", []Option{
		{"lower", "a little lower", ""}, {SameLevel, "same level, all keys", ""}}, always("lower")},
	{"anchor", "Does the plucking hand rest?", "technique", instrument.Plucked, []Option{
		{"one", "on one finger", "One finger rests on the top."}, {"two", "on two", "Two fingers rest on the top."}, {"whichever", "on whichever is idle", "Whichever finger is idle rests."}}, always("whichever")},
	{"plucked-time", "Must plucking be even first?", "technique", instrument.Plucked, []Option{
		{"even", "even first", "Even in time first, then in strength."}, {"lilt", "a lilt is allowed", "A lilt is welcome if it is meant."}}, always("even")},
	{Rewards, "Are small things counted?", "", "", []Option{
		{"asked", "ask the family", ""}, {"counted", "counted, with family treats", ""}, {"music", "the music only", ""}}, always("asked")},
}

// For returns the questions that are asked of a player of an instrument: those that
// concern it and that move something.
func For(plays instrument.Profile) []Row {
	rows := []Row{}
	for _, r := range Rows {
		if r.concerns(plays) {
			rows = append(rows, r)
		}
	}
	return rows
}

func (r Row) concerns(plays instrument.Profile) bool {
	return (r.Only == "" || r.Only == plays.Family) && !(plays.Seat == instrument.Standing && slices.Contains(seated, r.Key))
}

// Default returns the usual approach for an age in years.
func Default(age int) Approach {
	a := Approach{}
	for _, r := range Rows {
		a[r.Key] = r.usual(age)
	}
	return a
}

// EarFirst returns the default of an ear-led start: three quarters upkeep.
func EarFirst(age int) Approach {
	return Default(age).With(Approach{Reading: ByEar, Upkeep: ThreeQuarters})
}

// With returns the approach with some questions answered otherwise.
func (a Approach) With(b Approach) Approach {
	out := Approach{}
	for k, v := range a {
		out[k] = v
	}
	for k, v := range b {
		out[k] = v
	}
	return out
}

// UpkeepShare returns the share of practice minutes for secure pieces.
func (a Approach) UpkeepShare() float64 {
	switch a[Upkeep] {
	case ThreeQuarters:
		return 0.75
	case Third:
		return 1.0 / 3
	}
	return 0.5
}

// NewSkills returns how many new skills a rung should bring at most; as many
// as it likes (99) when the book decides.
func (a Approach) NewSkills() int {
	switch a[NewSkills] {
	case OneSkill:
		return 1
	case AsBook:
		return 99
	}
	return 2
}

// HeadStarts returns how many skills are prepared at once.
func (a Approach) HeadStarts() int { return min(a.NewSkills(), 2) }

// TalkWeeks is how many weeks lie between two check-ins; 0 where none is planned.
func (a Approach) TalkWeeks() int {
	switch a[Talks] {
	case EachTerm:
		return int(judgement.WholeTerm)
	case AsNeeded:
		return 0
	}
	return int(judgement.HalfTerm)
}

// Doubt is the chance of having come so far that a student from elsewhere needs to begin there.
func (a Approach) Doubt() float64 {
	if a[Transfers] == SameLevel {
		return judgement.PlacementEven
	}
	return judgement.PlacementDoubt
}

// Fingered reports whether a student of an age is shown finger numbers.
func (a Approach) Fingered(age int) bool { return a[Numbers] != FromFour || age >= 4 }

// RestsOn returns what a skill rests on beside what it always does, by the schools
// chosen: scales after fluent reading, and one way of moving both hands before the other.
func (a Approach) RestsOn(skill string) []string {
	switch skill {
	case "scale-halves", "scale-white":
		if a[Scales] == AfterReading {
			return []string{"sight-four-bars", "two-staves"}
		}
	case "scale-bowed", "scale-plucked":
		if a[Scales] == AfterReading {
			return []string{"sight-four-bars"}
		}
	case "parallel-hands":
		if a[Patterns] == MirroredFirst {
			return []string{"mirrored-hands"}
		}
	}
	return nil
}

// Cues returns what the schools chosen put into a kind of block, on an instrument.
func (a Approach) Cues(block string, plays instrument.Profile) string {
	var cues []string
	for _, r := range Rows {
		if r.Block != block || !r.concerns(plays) {
			continue
		}
		if s, ok := r.School(a[r.Key]); ok && s.Cue != "" {
			cues = append(cues, s.Cue)
		}
	}
	return strings.Join(cues, " ")
}

// School finds a school of the row by key.
func (r Row) School(key School) (Option, bool) {
	i := slices.IndexFunc(r.Schools, func(s Option) bool { return s.Key == key })
	if i < 0 {
		return Option{}, false
	}
	return r.Schools[i], true
}

// Asked finds a row by key.
func Asked(key Question) (Row, bool) {
	i := slices.IndexFunc(Rows, func(r Row) bool { return r.Key == key })
	if i < 0 {
		return Row{}, false
	}
	return Rows[i], true
}

// Check refuses a question that is not in the table and a setting that names
// no school of it.
func (a Approach) Check() error {
	for key, school := range a {
		row, ok := Asked(key)
		if !ok {
			return fmt.Errorf("%q is not a question of the approach", key)
		}
		if _, ok := row.School(school); !ok {
			var names []string
			for _, s := range row.Schools {
				names = append(names, string(s.Key))
			}
			return fmt.Errorf("%q is not a choice for %s; choose one of %s", school, key, strings.Join(names, ", "))
		}
	}
	return nil
}

// Settled returns what holds for a student of an age: the usual answer where nobody has
// said, what first meetings have seen over it, what was chosen when the student came over
// that, and what was set since over all. What was only the usual answer when the student
// came gives way to what was seen since.
func Settled(age int, probes map[string]string, came, since Approach) Approach {
	usual := Default(age)
	chosen := Approach{}
	for question, school := range came {
		if usual[question] != school {
			chosen[question] = school
		}
	}
	return usual.With(FromProbes(probes)).With(chosen).With(since)
}

// heads are the aims of first meetings that a school of First moves to the head.
var heads = map[School][]string{
	"ear": {"sing-back", "find-by-ear"}, "rhythm": {"steady-beat", "echo-rhythm"}, "left-right": {"left-right", "steady-beat"},
	"seat-hand": {"seat", "hand-shape", "bow-hold", "resting-hand"}, "numbers": {"finger-numbers"},
}

// Heads returns the aims of first meetings that come before all others; none where the answer
// is the usual one of the age, whose order has them there.
func (a Approach) Heads(age int) []string {
	if a[First] == Default(age)[First] {
		return nil
	}
	return heads[a[First]]
}

// FromProbes returns what first meetings change in the usual answers: what comes
// first is what was not there yet, and finger numbers wait for a finger that lands
// by itself. Probes are by key, answered pass, nearly or not-yet. Common practice,
// no source.
func FromProbes(probes map[string]string) Approach {
	a := Approach{}
	open := func(key string) bool { return probes[key] == "nearly" || probes[key] == "not-yet" }
	switch {
	case open("left-right"):
		a[First] = "left-right"
	case open("steady-beat"):
		a[First] = "rhythm"
	case open("sing-back"), open("find-by-ear"):
		a[First] = "ear"
	case open("seat"):
		a[First] = "seat-hand"
	}
	if open("one-finger") {
		a[Numbers] = FromFour
	}
	return a
}
