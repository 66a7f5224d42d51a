package year

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"patientladder/core/calendar"
	"patientladder/core/ladder"
	"patientladder/core/reason"
	"patientladder/studio/places"
)

// What a view says wrongly is noticed: each planted claim is false beside its rung, and true of the
// rung that it should have been said of.
func TestWrongViewsAreNoticed(t *testing.T) {
	const today = calendar.Date("2027-01-20")
	taught := today.Add(-10).Time()
	kept := func(daysAgo int) places.RungView {
		at := today.Add(-daysAgo).Time().Add(16 * time.Hour)
		return places.RungView{Title: "Slipway Song", State: ladder.Secure, Taught: &taught, Foothold: &at}
	}
	hand := func(points ...places.PointView) places.RungView {
		v := places.RungView{Title: "Rope Walk", State: ladder.Current, Taught: &taught, Points: points}
		for _, p := range points {
			if p.State != ladder.Met {
				v.Missing = append(v.Missing, p.Name)
			}
		}
		return v
	}
	open, met := places.PointView{Name: "Tone"}, places.PointView{Name: "Tone", State: ladder.Met}
	untaught := hand(open)
	untaught.Taught = nil
	for _, c := range []struct {
		says         string
		claim        reason.Reason
		wrong, right places.RungView
	}{
		{"newly secure after six weeks", reason.Of("newest-kept"), kept(43), kept(42)},
		{"all points met where one is open", reason.Of("ready-to-try"), hand(open), hand(met)},
		{"all points met where there are none", reason.Of("ready-to-try"), hand(), hand(met)},
		{"points left where there are none", reason.Of("still-open", "count", "1", "first", "Tone"), hand(), hand(open)},
		{"working for nothing", reason.Of("in-hand", "points", "Tone"), hand(), hand(open)},
		{"no points where there is one", reason.Of("no-goals"), hand(open), hand()},
		{"a first lesson of what was taught", reason.Of("first-lesson"), hand(open), untaught},
		{"kept alive before it is secure", reason.Of("keep-alive"), hand(open), kept(1)},
	} {
		is := func(v places.RungView) string {
			return claim{Reason: c.claim, day: today, rung: &v, rungs: []places.RungView{v}, run: &run{}}.false()
		}
		assert.NotEmpty(t, is(c.wrong), c.says)
		assert.Empty(t, is(c.right), c.says)
	}
	says := func(r *run, why reason.Reason) string { return claim{Reason: why, day: today, run: r}.false() }
	pain := &run{seen: seen{ache: true}}
	for _, why := range []reason.Reason{reason.Of("thin-week", "days", "1", "of", "6"), reason.Of("home-habit"), reason.Of("close-made-up")} {
		assert.NotEmpty(t, says(pain, why), "%s while it hurts", why.Code)
	}
	assert.NotEmpty(t, says(&run{}, reason.Of("in-hand", "points", "")), "a name that is empty")
	assert.NotEmpty(t, says(&run{}, reason.Of("a-new-reason")), "a reason that nobody has held against the facts")

	// and the ledger counts it
	r := &run{ledger: &Ledger{}}
	r.truths("plan", []reason.Reason{reason.Of("newest-kept")}, []places.RungView{kept(43)}, today)
	r.truths("plan", []reason.Reason{reason.Of("newest-kept")}, []places.RungView{kept(42)}, today)
	assert.Equal(t, []int{2, 1}, []int{r.ledger.Rules[0].Checked, r.ledger.Rules[0].Broken})
}
