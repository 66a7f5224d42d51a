package advice

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"patientladder/core/fact"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
	"patientladder/core/week"
)

func codes(acts []fact.Act) string {
	var out []string
	for _, a := range acts {
		out = append(out, a.Do)
	}
	return strings.Join(out, " ")
}

func tells(acts []fact.Act, code string) fact.Body {
	for _, a := range acts {
		if a.Do == code {
			return a.Tell[0]
		}
	}
	return nil
}

// A lane of a secure piece, one in hand, two ahead and one parked at the top; another
// lane beside it.
func TestWhatMayBeDoneToARung(t *testing.T) {
	at := time.Now()
	book := func(id string) ladder.Rung { return ladder.Rung{ID: id, Strand: shelf.Book} }
	secure, current, ahead, next, parked := book("secure"), book("current"), book("ahead"), book("next"), book("parked")
	secure.Taught, secure.Foothold, current.Taught, parked.Parked = &at, &at, &at, true
	other := ladder.Rung{ID: "other", Strand: shelf.Reading}
	s := ladder.Standing{Rungs: []ladder.Rung{secure, current, ahead, next, parked, other}}
	for _, c := range []struct {
		rung ladder.Rung
		want string
	}{
		{secure, "polish"}, {current, "up park"}, {ahead, "down up park"}, {next, "down up park"}, {parked, "down resume"}, {other, "park"},
	} {
		assert.Equal(t, c.want, codes(OnLadder(s)[c.rung.ID]), c.rung.ID)
	}
	assert.Equal(t, fact.RungMoved{Rung: "current", After: "ahead"}, tells(OnLadder(s)["current"], "up"))
	assert.Equal(t, fact.RungMoved{Rung: "next", After: "current"}, tells(OnLadder(s)["next"], "down"), "above the one that stands two below")
	assert.Equal(t, fact.RungMoved{Rung: "ahead", After: "secure"}, tells(OnLadder(s)["ahead"], "down"))
	s.Rungs[0].Polished = true
	assert.Empty(t, OnLadder(s)["secure"], "polished is polished")
	first := ladder.Standing{Rungs: []ladder.Rung{current, ahead}}
	assert.Equal(t, fact.RungMoved{Rung: "ahead", After: ""}, tells(OnLadder(first)["ahead"], "down"), "to the foot of the lane")

	proposed := Proposed(&ladder.Rung{Item: shelf.Item{ID: "jig"}, Strand: shelf.Book})
	assert.Equal(t, fact.RungAdded{Item: "jig", Strand: "book", After: fact.Top}, tells(proposed, "place"))
	assert.Equal(t, fact.RungAdded{Item: "jig", Strand: "book", After: fact.Top, Parked: true}, tells(proposed, "leave-out"))
}

func TestWhatAFamilyMayTellOfItsSheet(t *testing.T) {
	sheet := week.Sheet{Days: []week.Day{{Date: "2026-11-19", Tasks: []week.Task{{Key: "now r"}, {Key: "upkeep s", Rung: "s"}}}, {Date: "2026-11-20", Tasks: []week.Task{{Key: "now r"}}}}}
	acts := OnSheet("d", sheet)
	assert.Len(t, acts, 3, "each line of each day")
	assert.Equal(t, LineAct{"2026-11-19", "upkeep s", fact.Bodies{fact.Ticked{Day: "2026-11-19", Document: "d", Line: "upkeep s", Rung: "s"}}}, acts[1])
	assert.NotNil(t, OnSheet("d", week.Sheet{}))
}

func TestWhatMayBeDoneToAPieceInItsLesson(t *testing.T) {
	at := time.Now()
	r := ladder.Rung{ID: "r"}
	assert.Equal(t, "taught grant not-yet not-yet:unaided not-yet:notes not-yet:rhythm not-yet:fingering not-yet:tone", codes(OnPiece(&r, nil)))
	r.Taught = &at
	assert.NotContains(t, codes(OnPiece(&r, nil)), "taught", "taught once")
	r.Parts = []ladder.Part{{ID: "one", Foothold: &at}, {ID: "two"}}
	assert.Equal(t, fact.FootholdTried{Rung: "r", Part: "two", Outcome: "granted"}, tells(OnPiece(&r, nil), "grant"), "the part that is due")
	assert.Equal(t, fact.FootholdTried{Rung: "r", Part: "two", Outcome: "not-yet", Note: "tone"}, tells(OnPiece(&r, nil), "not-yet:tone"))
	r.Foothold = &at
	assert.Empty(t, OnPiece(&r, nil))
}
