package ladder

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"

	"patientladder/core/fact"
	"patientladder/core/shelf"
)

func TestMarksOfTheWrongStudent(t *testing.T) {
	piece := func(id, item string, parked bool) Rung {
		return Rung{ID: id, Item: shelf.Item{ID: item}, Parked: parked, Points: []Point{{Key: "tone"}, {Key: "own-1", Own: true}}}
	}
	here := piece("w1", "lamp", false)
	here.Spots = []Spot{{ID: "s1", Where: "bar 7"}}
	from := Standing{Rungs: []Rung{here, piece("w2", "jig", false)}}
	there := piece("r2", "lamp", false)
	there.Spots = []Spot{{ID: "t1", Where: "bar 7"}}
	to := Standing{Rungs: []Rung{piece("r1", "lamp", true), there}}
	told := func(id string, b fact.Body) fact.Fact { return fact.Fact{ID: id, Student: "wrong", Body: b} }
	marks := []fact.Fact{
		told("a", fact.LessonOpened{Day: "2026-11-18"}),
		told("b", fact.Taught{Rung: "w1"}),
		told("c", fact.PointMarked{Rung: "w1", Point: "tone", State: fact.Met}),
		told("d", fact.PointMarked{Rung: "w1", Point: "own-1", State: fact.Met}),
		told("e", fact.Taught{Rung: "w2"}),
		told("f", fact.SpotNoted{Rung: "w1", Where: "bar 9", Goal: 5}),
		told("g", fact.SpotDrilled{Rung: "w1", Spot: "f", Run: 3}),
		told("h", fact.SpotDrilled{Rung: "w1", Spot: "s1", Run: 2}),
		told("i", fact.Seen{Fault: "claw"}),
		told("j", fact.QuestionAnswered{Question: "q"}),
		told("k", fact.Noted{Text: "liked it"}),
	}
	n := 0
	tell, left := Rehome(marks, from, to, "right", func(fact.Fact) string { n++; return fmt.Sprint("new", n) })
	var moved []fact.Body
	for i := 0; i < len(tell); i += 2 {
		assert.Equal(t, "right", tell[i].Student)
		assert.Equal(t, "wrong", tell[i+1].Student)
		assert.IsType(t, fact.Retracted{}, tell[i+1].Body)
		moved = append(moved, tell[i].Body)
	}
	assert.Equal(t, []fact.Body{
		fact.LessonOpened{Day: "2026-11-18"},
		fact.Taught{Rung: "r2"}, // the one that is not put aside
		fact.PointMarked{Rung: "r2", Point: "tone", State: fact.Met},
		fact.SpotNoted{Rung: "r2", Where: "bar 9", Goal: 5},
		fact.SpotDrilled{Rung: "r2", Spot: tell[6].ID, Run: 3},
		fact.SpotDrilled{Rung: "r2", Spot: "t1", Run: 2},
		fact.Seen{Fault: "claw"},
		fact.Noted{Text: "liked it"},
	}, moved)
	var stay []string
	for _, f := range left {
		stay = append(stay, f.ID)
	}
	assert.Equal(t, []string{"d", "e", "j"}, stay, "a point of one's own, a piece that is not there, a question")
}
