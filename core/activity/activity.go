// Package activity holds small games and studies that are no pieces: what a
// lesson does away from the page, each in up to three levels with an exit test.
//
// The bank is ours, in bank.txt beside this file, one activity a line; its words are a language's. A teacher
// adds others. Minutes are whole, ages in years. A passed exit test retires all
// activities of the same aim.
package activity

import (
	_ "embed"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"sync"

	"patientladder/core/instrument"
	"patientladder/core/skill"
)

// An Activity is one of them.
type Activity struct {
	ID       string            `json:"id" maxLength:"40"`
	Title    string            `json:"title" maxLength:"80"`
	Aim      string            `json:"aim" maxLength:"40" doc:"id of a skill, or one of the other aims"`
	From     int               `json:"from" minimum:"2" maximum:"99" doc:"youngest age"`
	To       int               `json:"to" minimum:"0" maximum:"99" doc:"oldest; 0 for any"`
	Least    int               `json:"least" minimum:"1" maximum:"15" doc:"minutes of a first round"`
	Most     int               `json:"most" minimum:"1" maximum:"20" doc:"minutes when it goes well"`
	Family   instrument.Family `json:"family" enum:"shared,keyboard,bowed,plucked"`
	Moving   bool              `json:"moving" doc:"away from the seat"`
	Things   string            `json:"things" maxLength:"200" doc:"what must be at hand; empty for nothing"`
	Cautions []string          `json:"cautions" enum:"small-parts,touch,falls,loud,together"`
	Levels   []string          `json:"levels" minItems:"1" maxItems:"3" doc:"what to do, easiest first"`
	Exit     string            `json:"exit" maxLength:"200" doc:"the test that retires its aim"`
	Easier   string            `json:"easier" maxLength:"200"`
	Harder   string            `json:"harder" maxLength:"200"`
	Look     string            `json:"look" maxLength:"200" doc:"what to look for"`
	Own      bool              `json:"own" doc:"the studio's own"`
	Grown    []string          `json:"-"` // the levels as they are told of who is no child; empty where they are the same
}

// Aims are those that are no skills of the graph.
var Aims = []string{"leading-hand", "improvise", "listen", RoteTune}

// Fits reports whether an activity suits an age on a family of instruments.
func (a Activity) Fits(age int, f instrument.Family) bool {
	return age >= a.From && (a.To == 0 || age <= a.To) && (a.Family == instrument.Shared || a.Family == f)
}

// InRoom reports whether an activity needs both in one room: an adult's hand that
// touches the student's, which is asked for first, or playing together.
func (a Activity) InRoom() bool {
	return slices.Contains(a.Cautions, "touch") || slices.Contains(a.Cautions, "together")
}

// cautions are the words that an activity's cautions take.
var cautions = []string{"small-parts", "touch", "falls", "loud", "together"}

// Check says what is wrong with an activity.
func (a Activity) Check(g skill.Graph) error {
	_, known := g[a.Aim]
	switch {
	case strings.TrimSpace(a.ID) == "" || strings.TrimSpace(a.Title) == "":
		return fmt.Errorf("an activity needs a title")
	case !known && !slices.Contains(Aims, a.Aim):
		return fmt.Errorf("%q is no aim: choose a skill, or one of leading-hand, rote-tune, improvise, listen", a.Aim)
	case a.From < 2 || a.To != 0 && a.To < a.From:
		return fmt.Errorf("ages %d to %d do not make a range", a.From, a.To)
	case a.Least < 1 || a.Most < a.Least || a.Most > 20:
		return fmt.Errorf("%d to %d minutes do not make a range of 1 to 20", a.Least, a.Most)
	case len(a.Levels) == 0 || len(a.Levels) > 3 || slices.Contains(a.Levels, ""):
		return fmt.Errorf("an activity has one to three levels, each saying what to do")
	case !slices.Contains([]instrument.Family{instrument.Shared, instrument.Keyboard, instrument.Bowed, instrument.Plucked}, a.Family):
		return fmt.Errorf("%q is not a family of instruments", a.Family)
	}
	for _, c := range a.Cautions {
		if !slices.Contains(cautions, c) {
			return fmt.Errorf("%q is not a caution: choose from %s", c, strings.Join(cautions, ", "))
		}
	}
	return nil
}

//go:embed bank.txt
var bank string

// Bank returns the activities that come with the program, in the order of the file, without words: those
// are a language's.
var Bank = sync.OnceValue(func() []Activity {
	var out []Activity
	for i, line := range strings.Split(strings.TrimSpace(bank), "\n") {
		if i == 0 {
			continue
		}
		a, err := parse(line)
		if err != nil {
			panic(fmt.Sprintf("bank.txt line %d: %v", i+1, err)) // the file is part of the program
		}
		out = append(out, a)
	}
	return out
})

func parse(line string) (Activity, error) {
	f := strings.Split(line, "|")
	if len(f) != 10 {
		return Activity{}, fmt.Errorf("%d columns", len(f))
	}
	a := Activity{ID: f[0], Aim: f[1], Family: instrument.Family(f[6]), Moving: f[7] == "move", Cautions: append([]string{}, strings.Fields(f[8])...)}
	levels := 0
	for i, into := range []*int{&a.From, &a.To, &a.Least, &a.Most, nil, nil, nil, &levels} {
		if into == nil {
			continue
		}
		n, err := strconv.Atoi(f[2+i])
		if err != nil {
			return a, err
		}
		*into = n
	}
	a.Levels = make([]string, levels)
	return a, nil
}

// grownUp is from what age on nobody is called a child.
const grownUp = 10

// Says is what to do at a level, counted from 1, in words for an age.
func (a Activity) Says(level, age int) string {
	if age >= grownUp && len(a.Grown) >= level && a.Grown[level-1] != "" {
		return a.Grown[level-1]
	}
	return a.Levels[level-1]
}
