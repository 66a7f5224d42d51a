// Package skill holds the graph of atomic abilities. A skill rests on other
// skills; the graph has no cycles.
package skill

import "fmt"

// A Family says which instruments share a skill.
type Family string

// The families.
const (
	Shared   Family = "shared"
	Keyboard Family = "keyboard"
	Bowed    Family = "bowed"
	Plucked  Family = "plucked"
)

// A Skill is one atomic ability.
type Skill struct {
	ID      string   `json:"id"`
	Name    string   `json:"name" doc:"as a teacher says it"`
	Family  Family   `json:"family" enum:"shared,keyboard,bowed,plucked"`
	RestsOn []string `json:"restsOn" nullable:"false"`
}

// A Graph is a set of skills by id.
type Graph map[string]Skill

// New builds a graph. It fails, naming the skills, when an id stands twice,
// when a skill rests on one that is not there, or when skills rest on each
// other in a circle.
func New(skills []Skill) (Graph, error) {
	g := Graph{}
	for _, s := range skills {
		if _, twice := g[s.ID]; twice {
			return nil, fmt.Errorf("the skill %q stands twice", s.ID)
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
	const (
		entered = 1
		left    = 2
	)
	state := map[string]int{}
	var visit func(id string) error
	visit = func(id string) error {
		switch state[id] {
		case entered:
			return fmt.Errorf("%q rests on itself by way of others", id)
		case left:
			return nil
		}
		state[id] = entered
		for _, below := range g[id].RestsOn {
			if err := visit(below); err != nil {
				return err
			}
		}
		state[id] = left
		return nil
	}
	for _, s := range skills {
		if err := visit(s.ID); err != nil {
			return nil, err
		}
	}
	return g, nil
}

// Name returns the skill's name, or its id when it is not in the graph.
func (g Graph) Name(id string) string {
	if s, ok := g[id]; ok {
		return s.Name
	}
	return id
}
