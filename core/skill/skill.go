// Package skill holds the graph of atomic abilities.
//
// A skill rests on other skills; the graph has no cycles. Each skill has a
// weight, how heavy it is when it is new (1 is usual), and a preparation chain:
// one to five tasks of a few minutes that let it be met ahead of time, each
// lasting a number of weeks.
package skill

import (
	"cmp"
	"fmt"
	"maps"
	"slices"
	"sort"
	"strings"

	"patientladder/core/instrument"
)

// An Area is what a skill is about.
type Area string

// The areas.
const (
	Posture    Area = "posture"
	Hands      Area = "hands" // fingers, bow and touch
	Rhythm     Area = "rhythm"
	Reading    Area = "reading"
	Theory     Area = "theory"
	Ear        Area = "ear"
	Expression Area = "expression"
)

// A Link is one task of a preparation chain.
type Link struct {
	Do      string `json:"do" doc:"what is done, as the teacher says it"`
	Minutes int    `json:"minutes" doc:"a day"`
	Weeks   int    `json:"weeks" doc:"how many weeks it is kept up"`
	Old     Old    `json:"old,omitempty" enum:"same,minor" doc:"it is done on an old tune of the student, as it is or in its minor form"`
	Notes   string `json:"notes,omitempty" doc:"specification of the exercise that the task plays"`
}

// An Old says in what form an old tune serves a task.
type Old string

// The forms of old tunes.
const (
	OldSame  Old = "same"
	OldMinor Old = "minor"
)

// A Skill is one atomic ability.
type Skill struct {
	ID      string            `json:"id"`
	Name    string            `json:"name" doc:"as a teacher says it"`
	Family  instrument.Family `json:"family" enum:"shared,keyboard,bowed,plucked,other"`
	Area    Area              `json:"area" enum:"posture,hands,rhythm,reading,theory,ear,expression"`
	Weight  float64           `json:"weight" doc:"how heavy it is when new; 1 is usual"`
	RestsOn []string          `json:"restsOn"`
	Chain   []Link            `json:"chain"`
}

// Weeks returns how long the whole chain takes, one task after another.
func (s Skill) Weeks() int {
	n := 0
	for _, t := range s.Chain {
		n += t.Weeks
	}
	return n
}

// A Graph is a set of skills by id.
type Graph map[string]Skill

// New builds a graph. It fails, naming the skills, when an id stands twice,
// when a skill rests on one that is not there, when skills rest on each other
// in a circle, or when a skill has no weight or no chain.
func New(skills []Skill) (Graph, error) {
	g := Graph{}
	for _, s := range skills {
		if _, twice := g[s.ID]; twice {
			return nil, fmt.Errorf("the skill %q stands twice", s.ID)
		}
		if s.Weight <= 0 {
			return nil, fmt.Errorf("%q has no weight", s.ID)
		}
		if len(s.Chain) < 1 || len(s.Chain) > 5 {
			return nil, fmt.Errorf("%q has a chain of %d tasks, not one to five", s.ID, len(s.Chain))
		}
		for _, t := range s.Chain {
			if t.Minutes < 1 || t.Weeks < 1 {
				return nil, fmt.Errorf("a task in the chain of %q lacks its minutes or weeks", s.ID)
			}
		}
		if s.RestsOn == nil {
			s.RestsOn = []string{} // a list, also where it is written as JSON
		}
		g[s.ID] = s
	}
	for _, s := range skills {
		for _, below := range s.RestsOn {
			if _, ok := g[below]; !ok {
				return nil, fmt.Errorf("%q rests on %q, which is not in the graph", s.ID, below)
			}
		}
	}
	if circle := circle(g, skills); circle != nil {
		return nil, fmt.Errorf("skills rest on each other in a circle: %s", strings.Join(circle, " → "))
	}
	return g, nil
}

// With returns the graph with a studio's own skills, which Check has let in.
func (g Graph) With(own []Skill) Graph {
	if len(own) == 0 {
		return g
	}
	out := make(Graph, len(g)+len(own))
	maps.Copy(out, g)
	for _, s := range own {
		out[s.ID] = s
	}
	return out
}

// Resting returns the graph with skills that rest on more than they always do.
func (g Graph) Resting(more func(skill string) []string) Graph {
	var out Graph
	for id, s := range g {
		also := more(id)
		if len(also) == 0 {
			continue
		}
		if out == nil {
			out = maps.Clone(g)
		}
		s.RestsOn = append(slices.Clone(s.RestsOn), also...)
		out[id] = s
	}
	if out == nil {
		return g
	}
	return out
}

// Check says what is wrong with a skill that a teacher puts into the graph, or puts
// there anew: bounds, what it rests on, and circles.
func (g Graph) Check(s Skill) error {
	name := strings.TrimSpace(s.Name)
	switch {
	case name == "" || len(name) > 80:
		return fmt.Errorf("a skill needs a name of at most 80 letters")
	case !slices.Contains(families, s.Family):
		return fmt.Errorf("%q is not a family of instruments", s.Family)
	case !slices.Contains(areas, s.Area):
		return fmt.Errorf("%q is not an area: posture, hands, rhythm, reading, theory, ear or expression", s.Area)
	case s.Weight < LeastWeight || s.Weight > MostWeight:
		return fmt.Errorf("a weight lies between %g and %g, where 1 is usual", LeastWeight, MostWeight)
	case len(s.RestsOn) > 12:
		return fmt.Errorf("name at most twelve skills that it rests on")
	}
	for _, other := range g {
		if other.ID != s.ID && other.Family == s.Family && strings.EqualFold(other.Name, name) {
			return fmt.Errorf("%q is in the graph already", other.Name)
		}
	}
	for _, below := range s.RestsOn {
		if f := g[below].Family; f != "" && f != instrument.Shared && f != s.Family {
			return fmt.Errorf("%q belongs to other instruments, so nothing of these can rest on it", g.Name(below))
		}
	}
	for _, t := range s.Chain {
		if t.Do == "" {
			return fmt.Errorf("a task in the chain of %q lacks its words", s.ID)
		}
		if len(t.Do) > 200 || t.Minutes > 15 || t.Weeks > 20 {
			return fmt.Errorf("a task of a chain has at most 200 letters, 15 minutes a day and 20 weeks")
		}
	}
	all := make([]Skill, 0, len(g)+1)
	for _, other := range g.Sorted() {
		if other.ID != s.ID {
			all = append(all, other)
		}
	}
	_, err := New(append(all, s))
	return err
}

// The weights that a skill may have.
const (
	LeastWeight = 0.3
	MostWeight  = 3.0
)

// circle returns the ids of skills that rest on each other in turn, the first
// again at the end, or nil.
func circle(g Graph, skills []Skill) []string {
	left := map[string]bool{}
	var path []string
	var visit func(id string) []string
	visit = func(id string) []string {
		if left[id] {
			return nil
		}
		if i := slices.Index(path, id); i >= 0 {
			return append(slices.Clone(path[i:]), id)
		}
		path = append(path, id)
		for _, below := range g[id].RestsOn {
			if found := visit(below); found != nil {
				return found
			}
		}
		path = path[:len(path)-1]
		left[id] = true
		return nil
	}
	for _, s := range skills {
		if found := visit(s.ID); found != nil {
			return found
		}
	}
	return nil
}

// Name returns the skill's name, or its id when it has none here.
func (g Graph) Name(id string) string { return cmp.Or(g[id].Name, id) }

// Named returns the graph with the names and tasks that a language gives its skills.
func (g Graph) Named(name func(Skill) Skill) Graph {
	out := make(Graph, len(g))
	for id, s := range g {
		out[id] = name(s)
	}
	return out
}

// Names returns the names of skills in the order given.
func (g Graph) Names(ids []string) []string {
	names := make([]string, 0, len(ids))
	for _, id := range ids {
		names = append(names, g.Name(id))
	}
	return names
}

// Sorted lists the skills by family, area and name.
func (g Graph) Sorted() []Skill {
	list := make([]Skill, 0, len(g))
	for _, s := range g {
		list = append(list, s)
	}
	sort.Slice(list, func(i, j int) bool {
		a, b := list[i], list[j]
		if a.Family != b.Family {
			return slices.Index(families, a.Family) < slices.Index(families, b.Family)
		}
		if a.Area != b.Area {
			return slices.Index(areas, a.Area) < slices.Index(areas, b.Area)
		}
		return a.Name < b.Name
	})
	return list
}

var (
	families = append([]instrument.Family{instrument.Shared}, instrument.Families...)
	areas    = []Area{Posture, Hands, Rhythm, Reading, Theory, Ear, Expression}
)

// Under adds a skill and all that it rests on to a set.
func (g Graph) Under(id string, set map[string]bool) {
	if set[id] {
		return
	}
	set[id] = true
	for _, below := range g[id].RestsOn {
		g.Under(below, set)
	}
}
