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
	"patientladder/core/reason"
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
	Key  School       `json:"key"`
	Name reason.Label `json:"name"`
}

// A Row is one question.
type Row struct {
	Key     Question          `json:"key"`
	Asks    reason.Label      `json:"asks"`
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

// named gives questions and their schools the names of the catalogue.
func named(rows []Row) []Row {
	for i, r := range rows {
		rows[i].Asks = reason.Said("approach." + string(r.Key) + "-asks")
		for j, s := range r.Schools {
			r.Schools[j].Name = reason.Said(r.said(s.Key))
		}
	}
	return rows
}

// said is where the catalogue names a school of the question.
func (r Row) said(school School) string { return "approach." + string(r.Key) + "-" + string(school) }

func schools(keys ...School) []Option {
	var out []Option
	for _, k := range keys {
		out = append(out, Option{Key: k})
	}
	return out
}

// Rows are the questions, in the order they are shown.
var Rows = named([]Row{
	{Key: "movement", Block: "technique", Only: instrument.Keyboard, Schools: schools("fingers", "wrist", "arm"), usual: always("arm")},
	{Key: Reading, Block: "reading", Schools: schools("direction", "landmarks", "names", "ear", "tablature"), usual: under(8, "direction", "landmarks")},
	{Key: Start, Only: instrument.Keyboard, Schools: schools(Diagram, "page"), usual: under(7, Diagram, "page")},
	{Key: Labels, Only: instrument.Keyboard, Schools: schools(Labelled, "found"), usual: always("found")},
	{Key: Numbers, Schools: schools(DayOne, FromFour), usual: always(FromFour)},
	{Key: "hand-image", Block: "set-up", Schools: schools("round", "hanging"), usual: always("hanging")},
	{Key: Bench, Block: "set-up", Only: instrument.Keyboard, Schools: schools("level", "above", "below"), usual: always("level")},
	{Key: "bench-part", Block: "set-up", Schools: schools("half", "third"), usual: always("half")},
	{Key: LowSeat, Schools: schools("tiles", ThickBook), usual: always("tiles")},
	{Key: First, Schools: schools("ear", "rhythm", "left-right", "seat-hand", "numbers"),
		usual: func(age int) School {
			switch {
			case age < 5:
				return "left-right"
			case age < 8:
				return "ear"
			}
			return "seat-hand"
		}},
	{Key: ScaleKey, Only: instrument.Keyboard, Schools: schools("c", FiveBlacks, ByFifths, BySemitone), usual: always("c")},
	{Key: Scales, Schools: schools("first-months", AfterReading), usual: always("first-months")},
	{Key: ScaleHands, Only: instrument.Keyboard, Schools: schools("same-week", OneHandAWeek, ByMeeting), usual: under(9, OneHandAWeek, "same-week")},
	{Key: Counts, Schools: schools("by-age", "correct-only", "quality"), usual: always("by-age")},
	{Key: Hands, Only: instrument.Keyboard, Schools: schools("week-each", "together"), usual: always("week-each")},
	{Key: Patterns, Only: instrument.Keyboard, Schools: schools("parallel", MirroredFirst), usual: always("parallel")},
	{Key: Upkeep, Schools: schools("three-quarters", "half", "third"), usual: always("half")},
	{Key: NewSkills, Schools: schools("one", "two", "book"), usual: always("two")},
	{Key: Slope, Schools: schools("uneven", "graded"), usual: always("uneven")},
	{Key: "correcting", Block: "current", Schools: schools("each-time", "one-thing"), usual: always("one-thing")},
	{Key: Talks, Schools: schools("half-term", EachTerm, AsNeeded), usual: always("half-term")},
	{Key: Praise, Block: "close", Schools: schools(Generous, "specific"), usual: under(7, Generous, "specific")},
	{Key: Model, Block: "home", Schools: schools("alone-first", Along), usual: always("alone-first")},
	{Key: Transfers, Schools: schools("lower", SameLevel), usual: always("lower")},
	{Key: "anchor", Block: "technique", Only: instrument.Plucked, Schools: schools("one", "two", "whichever"), usual: always("whichever")},
	{Key: "plucked-time", Block: "technique", Only: instrument.Plucked, Schools: schools("even", "lilt"), usual: always("even")},
	{Key: Rewards, Schools: schools("asked", "counted", "music"), usual: always("asked")},
})

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
func (a Approach) Cues(block string, plays instrument.Profile) []reason.Label {
	cues := []reason.Label{}
	for _, r := range Rows {
		if school := a[r.Key]; r.Block == block && r.concerns(plays) {
			if _, of := r.School(school); of {
				cues = append(cues, reason.Said(r.said(school)+"-cue"))
			}
		}
	}
	return cues
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
