package advice

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"patientladder/core/calendar"
	"patientladder/core/climb"
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
	const lanes = " lane-technique lane-reading lane-repertoire"
	for _, c := range []struct {
		rung ladder.Rung
		want string
	}{
		{secure, "polish"}, {current, "up park" + lanes}, {ahead, "down up park" + lanes + " take-off"}, {next, "down up park" + lanes + " take-off"}, {parked, "down resume" + lanes + " take-off"},
		{other, "park lane-book lane-technique lane-repertoire take-off"},
	} {
		assert.Equal(t, c.want, codes(OnLadder(s)[c.rung.ID]), c.rung.ID)
	}
	assert.Equal(t, fact.RungMoved{Rung: "current", After: "ahead"}, tells(OnLadder(s)["current"], "up"))
	assert.Equal(t, fact.RungMoved{Rung: "next", After: "current"}, tells(OnLadder(s)["next"], "down"), "above the one that stands two below")
	assert.Equal(t, fact.RungMoved{Rung: "ahead", After: "secure"}, tells(OnLadder(s)["ahead"], "down"))
	assert.Equal(t, fact.RungMoved{Rung: "ahead", After: fact.Top, Strand: "repertoire"}, tells(OnLadder(s)["ahead"], "lane-repertoire"))
	assert.Equal(t, fact.Retracted{Ref: "ahead"}, tells(OnLadder(s)["ahead"], "take-off"))
	marked := ladder.Standing{Rungs: []ladder.Rung{{ID: "m", Strand: shelf.Book, Points: []ladder.Point{{Key: "tone", State: ladder.Met}}}}}
	assert.Nil(t, tells(OnLadder(marked)["m"], "take-off"), "what has marks is parked instead")
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

// What a teacher may do by a touch to each sort of line.
func TestWhatMayBeDoneToALine(t *testing.T) {
	const day = "2026-11-18"
	piece := week.Task{Key: "piece", Band: "now", Rung: "r", Count: 3}
	with := func(key string, change func(*week.Task)) week.Task {
		out := piece
		out.Key = key
		change(&out)
		return out
	}
	lines := []week.Task{piece,
		with("pinned", func(t *week.Task) {}),
		with("once", func(t *week.Task) { t.Count = 1 }),
		with("right", func(t *week.Task) { t.Hands = "right" }),
		with("scale", func(t *week.Task) { t.Plays = []week.Play{{}} }),
		with("spot", func(t *week.Task) { t.Spot, t.InRow = "bar 4", true }),
		with("cards", func(t *week.Task) { t.Cards = []week.CardLine{{}} }),
		with("game", func(t *week.Task) { t.Rung, t.Steps = "", []string{"x"} }),
		with("old", func(t *week.Task) { t.Band = "upkeep" }),
		with("later", func(t *week.Task) { t.Band, t.Rung = "ahead", "" }),
		with(week.OwnLine("f"), func(t *week.Task) {}),
		with("loose", func(t *week.Task) { t.Rung = "" }),
	}
	sheet := week.Sheet{From: day, Days: []week.Day{{Date: "2026-11-19", Tasks: lines}, {Date: "2026-11-20", Tasks: lines[:1]}}}
	got := map[string]SheetLine{}
	for _, l := range OnLines("doc", sheet, map[string]ladder.Pin{"pinned": {Fact: "p", Document: "doc"}}) {
		got[l.Key] = l
	}
	for key, want := range map[string]string{
		"piece":  "strike up down pin more fewer | 3 times, 2 days, bars may change",
		"pinned": "strike up down unpin more fewer | 3 times, 1 days, bars may change",
		"once":   "strike up down pin more | 1 times, 1 days, bars may change",
		"right":  "strike up down pin more fewer left together | 3 times, 1 days, bars may change",
		"scale":  "strike up down more fewer | 3 times, 1 days",
		"spot":   "strike up down more fewer | 3 times, 1 days",
		"loose":  "strike up down more fewer | 3 times, 1 days",
		"cards":  "strike up down | 0 times, 1 days", "game": "strike up down | 0 times, 1 days", "old": "strike up down | 0 times, 1 days", "later": "strike up down | 0 times, 1 days",
		week.OwnLine("f"): "strike up down | 0 times, 1 days",
	} {
		l := got[key]
		says := fmt.Sprintf("%s | %d times, %d days", codes(l.Acts), l.Count, l.Days)
		if len(l.Change) > 0 {
			says += ", bars may change"
		}
		assert.Equal(t, want, says, key)
		assert.Equal(t, key == "pinned", l.Pinned, key)
		assert.Equal(t, key == week.OwnLine("f"), l.Own, key)
	}
	assert.Equal(t, fact.LineChanged{Day: day, Document: "doc", Line: "piece", Count: 4, Sort: "piece"}, tells(got["piece"].Acts, "more"))
	assert.Equal(t, fact.LineChanged{Day: day, Document: "doc", Line: "piece", Count: 2, Sort: "piece"}, tells(got["piece"].Acts, "fewer"))
	assert.Equal(t, []int{4, 5}, got["piece"].Stands, "Thursday and Friday")
}

// The lesson whose plan a remedy goes into, and what a remedy does where none comes.
func TestRemediesWantALesson(t *testing.T) {
	r := rung("r", shelf.Book, "2026-09-01", "")
	for _, c := range []struct {
		name   string
		closed bool
		over   bool // the calendar has ended
		next   calendar.Date
	}{
		{"before today's lesson", false, false, "2026-11-18"},
		{"after it", true, false, "2026-11-25"},
		{"after the last", true, true, ""},
	} {
		w := plain(func(w *Way) {
			if c.closed {
				w.Standing.Closed = map[calendar.Date]time.Time{"2026-11-18": w.Now}
			}
			if c.over {
				w.Calendar.Terms = []calendar.Span{{From: "2026-09-07", To: "2026-11-20"}}
			}
		})
		assert.Equal(t, c.next, w.nextLesson(), c.name)
		for _, m := range []climb.Remedy{{Do: "seat-and-hand"}, {Do: "ask"}, {Do: "prerequisite", Rung: "other"}} {
			assert.Equal(t, c.next == "", len(w.remedy(r, m).Accept) == 0, "%s: %s", c.name, m.Do)
		}
	}
}
