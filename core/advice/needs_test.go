package advice

import (
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"patientladder/core/activity"
	"patientladder/core/calendar"
	"patientladder/core/climb"
	"patientladder/core/fact"
	"patientladder/core/home"
	"patientladder/core/ladder"
	"patientladder/core/lesson"
	"patientladder/core/reason"
	"patientladder/core/shelf"
)

// What is to be seen to, one thing at a time, on 18 November; both sides of each bound.
func TestWhatAStudentNeeds(t *testing.T) {
	closed := func(days ...calendar.Date) ladder.Lessons {
		l := ladder.Lessons{Closed: map[calendar.Date]time.Time{}}
		for _, d := range days {
			l.Closed[d] = d.Time()
		}
		return l
	}
	lately := []ladder.Practice{{Day: "2026-11-17", Minutes: 10}}
	dated := func(on calendar.Date) ladder.Standing {
		r := rung("jig", shelf.Book, "2026-11-11", "")
		r.Points, r.Target = []ladder.Point{{Key: "tone", State: fact.Open}}, on
		return ladder.Standing{Rungs: []ladder.Rung{r}, Practice: lately}
	}
	ready := dated("")
	ready.Rungs[0].Points[0].State = fact.Met
	fine := Given{Day: "2026-11-11", Contact: true, Sent: true, Opened: true}
	for _, c := range []struct {
		name  string
		s     ladder.Standing
		at    home.Answer
		seat  *reason.Reason
		given Given
		want  []string // sort and code
	}{
		{"nothing", ladder.Standing{Practice: lately}, home.Answer{}, nil, fine, nil},
		{"a pain", ladder.Standing{Practice: lately, Ache: &ladder.Ache{Side: "left"}}, home.Answer{}, nil, fine, []string{"pain pain-stop"}},
		{"a piece that is ready", ready, home.Answer{}, nil, fine, []string{"try ready-to-try"}},
		{"a date in six weeks", dated("2026-12-30"), home.Answer{}, nil, fine, []string{"date date-at-risk"}},
		{"a date in a day more", dated("2027-06-30"), home.Answer{}, nil, fine, nil},
		{"a question", ladder.Standing{Practice: lately, Questions: []ladder.Question{{Text: "Which hand?"}}}, home.Answer{}, nil, fine, []string{"question question-waits"}},
		{"practised little", ladder.Standing{Practice: lately}, home.Answer{Practice: home.Little, Days: 3, Asked: 20}, nil, fine, []string{"practice practises-little"}},
		{"silent", ladder.Standing{Lessons: closed("2026-11-11")}, home.Answer{}, nil, fine, []string{"practice home-silent"}},
		{"silent before the first lesson", ladder.Standing{}, home.Answer{}, nil, Given{}, nil},
		{"a sheet that was not sent", ladder.Standing{Practice: lately}, home.Answer{}, nil, Given{Day: "2026-11-17", Contact: true}, []string{"sheet sheet-not-sent"}},
		{"and there is nowhere to send it", ladder.Standing{Practice: lately}, home.Answer{}, nil, Given{Day: "2026-11-17"}, nil},
		{"one of four weeks ago", ladder.Standing{Practice: lately}, home.Answer{}, nil, Given{Day: "2026-10-21", Contact: true}, []string{"sheet sheet-not-sent"}},
		{"one of a day before", ladder.Standing{Practice: lately}, home.Answer{}, nil, Given{Day: "2026-10-20", Contact: true}, nil},
		{"sent yesterday and not opened", ladder.Standing{Practice: lately}, home.Answer{}, nil, Given{Day: "2026-11-17", Contact: true, Sent: true}, nil},
		{"sent the day before", ladder.Standing{Practice: lately}, home.Answer{}, nil, Given{Day: "2026-11-16", Contact: true, Sent: true}, []string{"sheet sheet-not-opened"}},
		{"to be measured", ladder.Standing{Practice: lately}, home.Answer{}, &reason.Reason{Code: "measure-first"}, fine, []string{"seat measure-first"}},
	} {
		var got []string
		for _, n := range someone(c.s).Needs(c.at, c.seat, c.given) {
			got = append(got, n.Sort+" "+n.Why.Code)
		}
		assert.Equal(t, c.want, got, c.name)
	}
}

func TestADateIsToldSixWeeksBefore(t *testing.T) {
	done := rung("jig", shelf.Book, "2026-09-09", "2026-10-14")
	done.Polished = true
	for day, told := range map[calendar.Date]bool{"2026-11-17": false, "2026-12-30": true, "2026-12-31": false} {
		done.Target = day
		needs := someone(ladder.Standing{Rungs: []ladder.Rung{done}, Practice: []ladder.Practice{{Day: "2026-11-17"}}}).Needs(home.Answer{}, nil, Given{})
		comes := false
		for _, n := range needs {
			comes = comes || n.Why.Code == "date-comes"
		}
		assert.Equal(t, told, comes, day)
	}
}

func TestALandingIsDueAfterTwoClimbs(t *testing.T) {
	w := someone(ladder.Standing{Rungs: []ladder.Rung{rung("a", shelf.Book, "2026-11-04", ""), rung("b", shelf.Repertoire, "2026-11-04", ""), rung("c", shelf.Technique, "2026-11-04", "")}})
	for _, c := range []struct {
		slopes []climb.Slope
		want   int
	}{
		{[]climb.Slope{climb.Climb, climb.Step, climb.Step}, 1},
		{[]climb.Slope{climb.Climb, climb.Climb, climb.Step}, 2},
		{[]climb.Slope{climb.Climb, climb.Climb, climb.Landing}, 0},
	} {
		w.Loads = map[string]climb.Load{}
		for i, id := range []string{"a", "b", "c"} {
			w.Loads[id] = climb.Load{Slope: c.slopes[i]}
		}
		assert.Equal(t, c.want, w.climbing(), "%v", c.slopes)
		told := slices.ContainsFunc(w.Needs(home.Answer{}, nil, Given{}), func(n Need) bool { return n.Why.Code == "landing-due" })
		assert.Equal(t, c.want == 2, told, "%v", c.slopes)
	}
}

func TestWhatMustBeAtHand(t *testing.T) {
	noted := func(id, taught string, change func(*ladder.Rung)) ladder.Rung {
		r := rung(id, shelf.Book, taught, "")
		r.Item.Book, r.Points = "Harbour", []ladder.Point{{Key: "tone", State: fact.Open}}
		change(&r)
		return r
	}
	plain := func(*ladder.Rung) {}
	ready := func(r *ladder.Rung) { r.Points[0].State = fact.Met }
	printed := func(r *ladder.Rung) { r.Item.HasScore = true }
	plan := lesson.Plan{Blocks: []lesson.Block{{Rung: "jig"}, {Rung: "air"}, {Activity: &activity.Activity{Things: "a scarf"}}, {Activity: &activity.Activity{}}, {Rung: "air"}}}
	for _, c := range []struct {
		name  string
		rungs []ladder.Rung
		seat  *reason.Reason
		want  []Bring
	}{
		{"what is known needs nothing new", []ladder.Rung{noted("jig", "2026-11-11", plain), noted("air", "2026-11-11", plain)}, nil, []Bring{{Sort: "things", Says: "a scarf"}}},
		{"what begins, once", []ladder.Rung{noted("jig", "2026-11-11", plain), noted("air", "", plain)}, nil, []Bring{{Sort: "book", Says: "The air", Book: "Harbour"}, {Sort: "things", Says: "a scarf"}}},
		{"its notes can be printed", []ladder.Rung{noted("air", "", printed)}, nil, []Bring{{Sort: "notes", Says: "The air", Book: "Harbour", Item: "item-air"}, {Sort: "things", Says: "a scarf"}}},
		{"what follows on one that is ready", []ladder.Rung{noted("jig", "2026-11-11", ready), noted("reel", "", plain)}, nil, []Bring{{Sort: "book", Says: "The reel", Book: "Harbour", After: "The jig"}, {Sort: "things", Says: "a scarf"}}},
		{"not one that was put aside", []ladder.Rung{noted("jig", "2026-11-11", ready), noted("reel", "", func(r *ladder.Rung) { r.Parked = true })}, nil, []Bring{{Sort: "things", Says: "a scarf"}}},
		{"cards are told by the program", []ladder.Rung{noted("air", "", func(r *ladder.Rung) { r.Item.Cards = "landmarks" })}, nil, []Bring{{Sort: "things", Says: "a scarf"}}},
		{"a tape", nil, &reason.Reason{Code: "measure-first"}, []Bring{{Sort: "things", Says: "a scarf"}, {Sort: "tape"}}},
	} {
		assert.Equal(t, c.want, someone(ladder.Standing{Rungs: c.rungs}).Brings(plan, c.seat), c.name)
	}
}

func TestWhoPressesMost(t *testing.T) {
	needs := func(sorts ...string) (out []Need) {
		for _, s := range sorts {
			out = append(out, Need{Sort: s})
		}
		return out
	}
	order := [][]Need{needs("practice", "pain"), needs("stuck", "practice"), needs("stuck"), needs("date"), needs("practice", "landing", "question"), needs("practice"), needs("seat"), nil}
	for i := 1; i < len(order); i++ {
		assert.Less(t, Presses(order[i-1]), Presses(order[i]), "%v before %v", order[i-1], order[i])
	}
}
