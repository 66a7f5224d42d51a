// Package door says which facts the log takes. The log is for ever, so that what
// comes in must make sense: its form (package fact), the words it uses, what it
// refers to, and who may say it.
//
// What goes in is a delivery, and what is known of the things that it names; what
// comes out is the facts that are new, or why the first bad one cannot be kept.
// Either all of a delivery is taken or none.
package door

import (
	"bytes"
	"fmt"
	"slices"
	"strings"
	"time"

	"patientladder/core/activity"
	"patientladder/core/approach"
	"patientladder/core/card"
	"patientladder/core/exercise"
	"patientladder/core/fact"
	"patientladder/core/fault"
	"patientladder/core/shelf"
	"patientladder/core/skill"
)

// Known is what the studio knows of the things that a delivery names.
type Known struct {
	Now    time.Time            // by the studio's clock
	Stored map[string]fact.Fact // facts of the studio, by id: those that Named lists
	Items  map[string]shelf.Item
	Graph  skill.Graph
	Own    []activity.Activity // the studio's own games
	Lines  map[string][]string // of the documents that Documents lists, by id and student
}

// A Refusal is why a delivery is not taken.
type Refusal struct {
	At       int  // place of the first bad fact, from 1
	Of       int  // facts in the delivery
	Conflict bool // its id is there already, with other content
	Err      error
}

func (r *Refusal) Error() string {
	return fmt.Sprintf("mark %d of %d cannot be kept: %v", r.At, r.Of, r.Err)
}

func (r *Refusal) Unwrap() error { return r.Err }

// DocumentKey names a document of a student in Known.Lines.
func DocumentKey(student, document string) string { return student + " " + document }

// Named lists the ids of the facts that a delivery names: its own, and those that
// they refer to.
func Named(facts []fact.Fact) []string {
	var ids []string
	for _, f := range facts {
		ids = append(ids, f.ID)
	}
	for _, id := range Referred(facts) {
		if !slices.Contains(ids, id) {
			ids = append(ids, id)
		}
	}
	return ids
}

// Referred lists the ids of the facts that those of a delivery refer to.
func Referred(facts []fact.Fact) []string {
	var ids []string
	add := func(id string) {
		if id != "" && id != fact.Top && !slices.Contains(ids, id) {
			ids = append(ids, id)
		}
	}
	for _, f := range facts {
		if f.Body == nil {
			continue
		}
		for _, r := range fact.Refs(f.Body) {
			switch r.To {
			case "rung", "spot", "question", "fact":
				add(r.ID)
			case "point":
				if own, is := strings.CutPrefix(r.ID, "own-"); is {
					add(own)
				}
			}
		}
		add(above(f.Body))
	}
	return ids
}

// Documents lists the documents that a delivery names, by id.
func Documents(facts []fact.Fact) []string {
	var ids []string
	for _, f := range facts {
		if id, _, named := fact.SheetLine(f.Body); named && !slices.Contains(ids, id) {
			ids = append(ids, id)
		}
	}
	return ids
}

// above is the rung that a rung is placed above; empty for none.
func above(b fact.Body) string {
	switch b := b.(type) {
	case fact.RungAdded:
		return b.After
	case fact.RungMoved:
		return b.After
	}
	return ""
}

// fromHome are the kinds of facts that a family tells.
var fromHome = []fact.Kind{fact.Ticked{}.Kind(), fact.Practised{}.Kind(), fact.Tripped{}.Kind(), fact.QuestionAsked{}.Kind(), fact.DaysSet{}.Kind(), fact.Echoed{}.Kind(),
	fact.TreatSet{}.Kind(), fact.TreatDropped{}.Kind(), fact.Retracted{}.Kind()}

// FromStudent reports whether a student alone may tell a body: what was done, how it was
// and what is asked; the family's days and treats are the family's.
func FromStudent(b fact.Body) bool {
	switch b.(type) {
	case fact.DaysSet, fact.TreatSet, fact.TreatDropped:
		return false
	}
	return true
}

// Take checks a delivery and returns the facts in it that are new, each with its
// author, in order. A fact that is there already with the same content changes
// nothing. The error is a *Refusal.
func (k Known) Take(by fact.Author, facts []fact.Fact) ([]fact.Fact, error) {
	c := check{k, by, map[string]fact.Fact{}}
	for _, f := range facts {
		if _, twice := c.told[f.ID]; !twice {
			c.told[f.ID] = f
		}
	}
	var fresh []fact.Fact
	taken := map[string]bool{}
	for i, f := range facts {
		f.By = by
		again, err := c.again(f)
		if err == nil && !again {
			err = c.one(f)
		}
		if err != nil {
			_, conflict := err.(conflictError)
			return nil, &Refusal{i + 1, len(facts), conflict, err}
		}
		if !again && !taken[f.ID] {
			fresh, taken[f.ID] = append(fresh, f), true
		}
	}
	return fresh, nil
}

type check struct {
	Known
	by   fact.Author
	told map[string]fact.Fact // in this delivery, the first of each id
}

// A conflictError is an id that stands for something else.
type conflictError string

func (e conflictError) Error() string { return string(e) }

// again reports whether a fact is told already, and finds one that says something
// else under the same id.
func (c check) again(f fact.Fact) (bool, error) {
	if f.Body == nil {
		return false, nil // refused for its form
	}
	before, stored := c.Stored[f.ID]
	if !stored {
		if before = c.told[f.ID]; same(before, f) {
			return false, nil
		}
	}
	if !same(before, f) {
		return false, conflictError(fmt.Sprintf("the id %s is told already, with other content", f.ID))
	}
	return true, nil
}

func same(a, b fact.Fact) bool {
	one, err1 := fact.Encode(a.Body)
	two, err2 := fact.Encode(b.Body)
	return err1 == nil && err2 == nil && a.Student == b.Student && a.At.Equal(b.At) && bytes.Equal(one, two)
}

// one checks a fact that is new.
func (c check) one(f fact.Fact) error {
	if err := f.Check(c.Now); err != nil {
		return err
	}
	if c.by == fact.Family && !slices.Contains(fromHome, f.Kind()) {
		return fmt.Errorf("%s is not for the family's page to tell", f.Kind().Words())
	}
	if to := above(f.Body); to != "" && to != fact.Top {
		if err := c.refers(f, fact.Ref{To: "rung", ID: to}); err != nil {
			return err
		}
	}
	for _, r := range fact.Refs(f.Body) {
		if err := c.refers(f, r); err != nil {
			return fmt.Errorf("%s: %w", f.Kind().Words(), err)
		}
	}
	if t, is := f.Body.(fact.FootholdTried); is && t.Part != "" && !hasPart(c.item(f, t.Rung), t.Part) {
		return fmt.Errorf("%q is not a part of this piece", t.Part)
	}
	if l, is := f.Body.(fact.LineAdded); is && !l.Says() {
		return fmt.Errorf("the line that is added says nothing")
	}
	return nil
}

// find is a fact of the same student that is stored or told beside.
func (c check) find(f fact.Fact, id string) (fact.Fact, bool) {
	other, there := c.Stored[id]
	if !there {
		other, there = c.told[id]
		other.By = c.by
	}
	return other, there && other.Student == f.Student
}

// item is that of a rung.
func (c check) item(f fact.Fact, rung string) shelf.Item {
	other, _ := c.find(f, rung)
	added, _ := other.Body.(fact.RungAdded)
	return c.Items[added.Item]
}

// refers checks that what a fact refers to is there.
func (c check) refers(f fact.Fact, r fact.Ref) error {
	other, there := c.find(f, r.ID)
	ok := false
	switch r.To {
	case "rung":
		_, ok = other.Body.(fact.RungAdded)
	case "spot":
		switch other.Body.(type) {
		case fact.SpotNoted, fact.Tripped:
			ok = true
		}
	case "question":
		_, ok = other.Body.(fact.QuestionAsked)
	case "fact":
		if ok = there; ok && c.by == fact.Family && other.By != fact.Family {
			return fmt.Errorf("the family did not tell %s and cannot take it back", r.ID)
		}
		there = true // whatever it tells
	case "point":
		return c.point(f, r.ID)
	case "card":
		answer := f.Body.(fact.CardAnswered)
		kinds, err := card.Parse(c.item(f, answer.Rung).Cards)
		kind, _, _ := strings.Cut(answer.Card, " ")
		if err != nil || !slices.Contains(kinds, card.Kind(kind)) {
			return fmt.Errorf("%q is not a card of this item", answer.Card)
		}
		return nil
	case "document":
		_, line, _ := fact.SheetLine(f.Body)
		lines, known := c.Lines[DocumentKey(f.Student, r.ID)]
		if !known {
			return fmt.Errorf("%q is not a sheet of this student", r.ID)
		}
		if !slices.Contains(lines, line) {
			return fmt.Errorf("%q is not a line of that sheet", line)
		}
		return nil
	default:
		return c.word(f, r)
	}
	if !ok || !there {
		return fmt.Errorf("%q is not a %s of this student", r.ID, r.To)
	}
	return nil
}

// point checks that a focus point stands on its rung or is the student's own.
func (c check) point(f fact.Fact, key string) error {
	if own, is := strings.CutPrefix(key, "own-"); is {
		other, there := c.find(f, own)
		if _, ok := other.Body.(fact.OwnPoint); ok && there {
			return nil
		}
	}
	var rung string
	for _, r := range fact.Refs(f.Body) {
		if r.To == "rung" {
			rung = r.ID
		}
	}
	it := c.item(f, rung)
	if it.Points.Index(key) >= 0 || slices.ContainsFunc(it.Past, func(p shelf.Past) bool { return p.Points.Index(key) >= 0 }) {
		return nil
	}
	return fmt.Errorf("%q is not a point of this piece", key)
}

// hasPart reports whether an item has a part, or had it when a rung was placed.
func hasPart(it shelf.Item, id string) bool {
	return it.Parts.Index(id) >= 0 || slices.ContainsFunc(it.Past, func(p shelf.Past) bool { return p.Parts.Index(id) >= 0 })
}

// word checks a word of the vocabulary: of the shelf, the skills, the games and
// what else the program holds.
func (c check) word(f fact.Fact, r fact.Ref) error {
	ok := false
	switch r.To {
	case "item":
		_, ok = c.Items[r.ID]
	case "book":
		for _, it := range c.Items {
			ok = ok || it.Book == r.ID
		}
	case "exercise":
		_, err := exercise.Parse(r.ID)
		ok = err == nil
	case "skill":
		_, ok = c.Graph[r.ID]
	case "fault":
		_, ok = fault.Named(r.ID)
	case "probe":
		_, skilled := c.Graph[r.ID]
		ok = r.ID == fact.FirstBook || activity.IsProbe(r.ID) || skilled || slices.Contains(activity.Aims, r.ID)
	case "activity":
		is := func(a activity.Activity) bool { return a.ID == r.ID }
		ok = slices.ContainsFunc(activity.Bank(), is) || slices.ContainsFunc(c.Own, is)
	case "school":
		question := approach.Question(f.Body.(fact.ApproachSet).Question)
		row, asked := approach.Asked(question)
		if !asked {
			return fmt.Errorf("%q is not a question of the approach", question)
		}
		if _, ok = row.School(approach.School(r.ID)); !ok {
			return fmt.Errorf("%q is not a school of the question %s", r.ID, question)
		}
	}
	if !ok {
		return fmt.Errorf("there is no %s %q here", r.To, r.ID)
	}
	return nil
}
