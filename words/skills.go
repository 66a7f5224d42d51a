package words

import (
	"fmt"
	"slices"
	"strings"

	"patientladder/core/instrument"
	"patientladder/core/skill"
)

// Skills is the program's catalogue with the names and tasks of the language, as they are called on one
// instrument; "" is for none.
func (w *Words) Skills(plays string) skill.Graph { return w.named(plays) }

// SkillsAtHome is the same for who may not know the words of the field.
func (w *Words) SkillsAtHome(plays string) skill.Graph { return w.named("home", plays) }

// named gives the catalogue the names that are said in some place, the first place first.
func (w *Words) named(places ...string) skill.Graph {
	w.naming.Lock()
	defer w.naming.Unlock()
	where := strings.Join(places, " ")
	if g := w.skills[where]; g != nil {
		return g
	}
	g := catalogueOfSkills.Named(func(s skill.Skill) skill.Skill {
		s.Name = w.skillName(s.ID, places)
		chain := make([]skill.Link, len(s.Chain))
		for i, task := range s.Chain {
			task.Do = w.Text(fmt.Sprintf("task.%s-%d", s.ID, i+1), nil)
			chain[i] = task
		}
		s.Chain = chain
		return s
	})
	if w.skills == nil {
		w.skills = map[string]skill.Graph{}
	}
	w.skills[where] = g
	return g
}

// Instruments are those that come with the program, by their names in the language.
func (w *Words) Instruments() instrument.Set {
	w.naming.Lock()
	defer w.naming.Unlock()
	if w.instruments == nil {
		w.instruments = slices.Clone(instrument.Shipped)
		for i, p := range w.instruments {
			w.instruments[i].Name = w.Text("instrument."+string(p.ID), nil)
		}
	}
	return w.instruments
}

var catalogueOfSkills = skill.Catalogue()

func (w *Words) skillName(id string, places []string) string {
	key := "skill." + id
	for _, place := range places {
		if own := key + "@" + place; w.keys[own] {
			return w.Text(own, nil)
		}
	}
	return w.Text(key, nil)
}

// Can says what somebody can do who has a skill, as it goes on after "can now". A skill of a teacher's own
// has no such words, and is told by its name.
func (w *Words) Can(s skill.Skill) string {
	if key := "can." + s.ID; w.keys[key] {
		return w.Text(key, nil)
	}
	return s.Name
}
