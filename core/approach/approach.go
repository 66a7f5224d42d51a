// Package approach holds a student's settings where teachers disagree.
//
// Rows is the table: each row is a question, the schools that answer it and
// the usual answer for an age. All answers are common practice, no source. A
// new question or school is one entry there.
package approach

import (
	"fmt"
	"patientladder/core/instrument"
	"slices"
	"strings"
)

// An Approach is one student's settings: the school chosen for each question,
// both by key.
type Approach map[string]string

// A School is one answer to a question.
type School struct {
	Key  string `json:"key"`
	Name string `json:"name"`
	Cue  string `json:"cue" doc:"what it puts into the lesson; empty when it only moves plans"`
}

// A Row is one question.
type Row struct {
	Key     string            `json:"key"`
	Asks    string            `json:"asks"`
	Block   string            `json:"block" doc:"kind of the lesson's block in which the school's cue stands; empty when there is none"`
	Only    instrument.Family `json:"only" enum:",keyboard,bowed,plucked,other" doc:"the one family of instruments it is asked for; empty for all"`
	Schools []School          `json:"schools" nullable:"false"`
	usual   func(age int) string
}

func always(school string) func(int) string { return func(int) string { return school } }

// under gives young for ages below n and older from then on.
func under(n int, young, older string) func(int) string {
	return func(age int) string {
		if age < n {
			return young
		}
		return older
	}
}

// Rows are the questions, in the order they are shown.
var Rows = []Row{
	{"movement", "Where does movement start?", "technique", "", []School{
		{"fingers", "fingers, hand still", "Fingers move from their base; the hand stays still."},
		{"wrist", "wrist or elbow", "Lead from the wrist and elbow."},
		{"arm", "whole arm", "The whole arm moves; fingers land ready."}}, always("arm")},
	{"reading", "How are notes read at first?", "reading", "", []School{
		{"direction", "direction", "Say up, down or same for each note, then play."},
		{"landmarks", "landmarks and intervals", "Find the nearest landmark, then the distance."},
		{"names", "note names", "Name each note, then play."},
		{"ear", "ear first", "Sing it, find it, then look at the page."},
		{"tablature", "tablature", "String and fret first, then the rhythm under them."}}, under(8, "direction", "landmarks")},
	{"start", "How does the hand find its start?", "", "", []School{
		{"diagram", "from a drawn position", ""}, {"page", "read from the page", ""}}, under(7, "diagram", "page")},
	{"labels", "Are keys labelled?", "", instrument.Keyboard, []School{
		{"labelled", "labelled at first", ""}, {"found", "found from the key groups", ""}}, always("found")},
	{"numbers", "When do finger numbers begin?", "", "", []School{
		{"day-one", "from day one", ""}, {"from-four", "not before four", ""}}, always("from-four")},
	{"hand-image", "Which image for the hand?", "set-up", "", []School{
		{"round", "a round object", "Hands as if around a soft ball."},
		{"hanging", "a hanging hand", "Let the arm hang, then bring the hand up unchanged."}}, always("hanging")},
	{"bench", "How high is the seat?", "set-up", instrument.Keyboard, []School{
		{"level", "forearm level", "Forearms level."}, {"above", "slightly above", "Elbows a touch above the keys."}, {"below", "slightly below", "Elbows a touch below the keys."}}, always("level")},
	{"bench-part", "Which part of the seat?", "set-up", "", []School{
		{"half", "front half", "Front half of the seat."}, {"third", "front third", "Front third of the seat."}}, always("half")},
	{"low-seat", "What raises a low seat?", "", "", []School{
		{"tiles", "firm tiles only", ""}, {"book", "also a thick book", ""}}, always("tiles")},
	{"first", "What comes first?", "", "", []School{
		{"ear", "ear", ""}, {"rhythm", "rhythm", ""}, {"left-right", "left and right, beat", ""}, {"seat-hand", "seat and hand", ""}, {"numbers", "finger numbers", ""}},
		func(age int) string {
			switch {
			case age < 5:
				return "left-right"
			case age < 8:
				return "ear"
			}
			return "seat-hand"
		}},
	{"scale-key", "Which scale is first?", "", instrument.Keyboard, []School{
		{"c", "C", ""}, {"black", "the five-black-key scale", ""}, {"fifths", "by fifths", ""}, {"semitone", "by semitone", ""}}, always("c")},
	{"scales", "When do scales begin?", "", "", []School{
		{"first-months", "in the first months", ""}, {"after-reading", "after fluent reading", ""}}, always("first-months")},
	{"scale-hands", "How do the hands share a scale?", "", instrument.Keyboard, []School{
		{"same-week", "each hand, same week", ""}, {"week-each", "one hand a week", ""}, {"meeting", "together by meeting points", ""}}, under(9, "week-each", "same-week")},
	{"counts", "How are repetitions asked for?", "", "", []School{
		{"by-age", "by material and age", ""}, {"correct-only", "correct ones only", ""}, {"quality", "a quality rule", ""}}, always("by-age")},
	{"hands", "How does a two-hand piece begin?", "", instrument.Keyboard, []School{
		{"week-each", "a week each, then together", ""}, {"together", "together from the start", ""}}, always("week-each")},
	{"patterns", "Patterns together: which first?", "", instrument.Keyboard, []School{
		{"parallel", "parallel", ""}, {"mirrored", "mirrored", ""}}, always("parallel")},
	{"upkeep", "How much of the practice is upkeep?", "", "", []School{
		{"three-quarters", "three quarters or more", ""}, {"half", "half", ""}, {"third", "a third", ""}}, always("half")},
	{"new-skills", "How many new skills a piece?", "", "", []School{
		{"one", "one", ""}, {"two", "two", ""}, {"book", "as the book gives", ""}}, always("two")},
	{"slope", "In what order do materials come?", "", "", []School{
		{"uneven", "uneven, climbs and landings", ""}, {"graded", "graded by difficulty", ""}}, always("uneven")},
	{"correcting", "How is a fault corrected?", "current", "", []School{
		{"each-time", "each time from the first", "Stop at each slip from the first playing on."},
		{"one-thing", "gradually, one thing", "One thing at a time; let the rest pass."}}, always("one-thing")},
	{"praise", "When is praise given?", "close", "", []School{
		{"generous", "generously, at every chunk", "Praise every chunk that went, and name it."},
		{"specific", "for a named thing only", "Name one thing that went well, and the student names two."}}, under(7, "generous", "specific")},
	{"model", "How is the model used at home?", "home", "", []School{
		{"alone-first", "alone first, then along", "Play alone the set number of times, then along with the model."},
		{"along", "step by step with it", "Play step by step with the model."}}, always("alone-first")},
	{"transfers", "Where does a transfer begin?", "", "", []School{
		{"lower", "a little lower", ""}, {"same", "same level, all keys", ""}}, always("lower")},
	{"anchor", "Does the plucking hand rest?", "technique", instrument.Plucked, []School{
		{"one", "on one finger", "One finger rests on the top."}, {"two", "on two", "Two fingers rest on the top."}, {"whichever", "on whichever is idle", "Whichever finger is idle rests."}}, always("whichever")},
	{"plucked-time", "Must plucking be even first?", "technique", instrument.Plucked, []School{
		{"even", "even first", "Even in time first, then in strength."}, {"lilt", "a lilt is allowed", "A lilt is welcome if it is meant."}}, always("even")},
	{"rewards", "Are small things counted?", "", "", []School{
		{"asked", "ask the family", ""}, {"counted", "counted, with family treats", ""}, {"music", "the music only", ""}}, always("asked")},
}

// For returns the questions that are asked for a family of instruments.
func For(plays instrument.Family) []Row {
	rows := []Row{}
	for _, r := range Rows {
		if r.Only == "" || r.Only == plays {
			rows = append(rows, r)
		}
	}
	return rows
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
	return Default(age).With(Approach{"reading": "ear", "upkeep": "three-quarters"})
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
	switch a["upkeep"] {
	case "three-quarters":
		return 0.75
	case "third":
		return 1.0 / 3
	}
	return 0.5
}

// NewSkills returns how many new skills a rung should bring at most; as many
// as it likes (99) when the book decides.
func (a Approach) NewSkills() int {
	switch a["new-skills"] {
	case "one":
		return 1
	case "book":
		return 99
	}
	return 2
}

// HeadStarts returns how many skills are prepared at once.
func (a Approach) HeadStarts() int { return min(a.NewSkills(), 2) }

// Cues returns what the schools chosen put into a kind of block, on a family of
// instruments.
func (a Approach) Cues(block string, plays instrument.Family) string {
	var cues []string
	for _, r := range Rows {
		if r.Block != block || r.Only != "" && r.Only != plays {
			continue
		}
		if s, ok := r.School(a[r.Key]); ok && s.Cue != "" {
			cues = append(cues, s.Cue)
		}
	}
	return strings.Join(cues, " ")
}

// School finds a school of the row by key.
func (r Row) School(key string) (School, bool) {
	i := slices.IndexFunc(r.Schools, func(s School) bool { return s.Key == key })
	if i < 0 {
		return School{}, false
	}
	return r.Schools[i], true
}

// Asked finds a row by key.
func Asked(key string) (Row, bool) {
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
				names = append(names, s.Key)
			}
			return fmt.Errorf("%q is not a choice for %s; choose one of %s", school, key, strings.Join(names, ", "))
		}
	}
	return nil
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
		a["first"] = "left-right"
	case open("steady-beat"):
		a["first"] = "rhythm"
	case open("sing-back"), open("find-by-ear"):
		a["first"] = "ear"
	case open("seat"):
		a["first"] = "seat-hand"
	}
	if open("one-finger") {
		a["numbers"] = "from-four"
	}
	return a
}
