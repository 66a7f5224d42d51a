package climb

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/calendar"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
	"patientladder/core/skill"
)

func titles(p Path) (ids []string) {
	for _, q := range p.Proposals {
		ids = append(ids, q.Item.ID)
	}
	return
}

var shore = []shelf.Item{
	{ID: "walk", Title: "Rope Walk", Instrument: "piano", Strand: shelf.Book, Book: "Shore", Unit: "1", Brings: []string{"five-fingers", "steps"}, Different: 4},
	{ID: "gulls", Title: "Gulls", Instrument: "piano", Strand: shelf.Book, Book: "Shore", Unit: "1", Brings: []string{"long-notes"}, Needs: []string{"five-fingers"}, Different: 6},
	{ID: "march", Title: "Five fingers marching", Instrument: "piano", Strand: shelf.Technique, Book: "Shore", Unit: "1", Brings: []string{"hand-shape"}},
	{ID: "turns", Title: "Taking turns", Instrument: "piano", Strand: shelf.Book, Book: "Shore", Unit: "2", Brings: []string{"hands-in-turn"}, Needs: []string{"five-fingers"}, Different: 6},
	{ID: "far", Title: "Near and Far", Instrument: "piano", Strand: shelf.Book, Book: "Shore", Unit: "2", Brings: []string{"loud-soft"}, Needs: []string{"five-fingers"}, Different: 6},
	{ID: "both", Title: "Both at Once", Instrument: "piano", Strand: shelf.Book, Book: "Shore", Unit: "3", Brings: []string{"held-left-hand", "hands-together", "dotted", "accidentals"}, Needs: []string{"hands-in-turn"}, Different: 8, Staves: 2},
	{ID: "held", Title: "One Long Note", Instrument: "piano", Strand: shelf.Repertoire, Book: "Pool", Brings: []string{"held-left-hand"}, Needs: []string{"five-fingers"}, Different: 4, Staves: 2},
	{ID: "cello", Title: "For another", Instrument: "cello", Strand: shelf.Book, Book: "Shore"},
}

// What takes three unknown things for granted is not proposed; with two it is.
func TestTooManyUnknown(t *testing.T) {
	for n, want := range map[int]bool{1: true, 2: true, 3: false} {
		piece := shelf.Item{ID: "far", Title: "Far Out", Instrument: "piano", Strand: shelf.Book, Book: "Shore", Needs: []string{"slur-two", "key-signature", "two-touches"}[:n], Different: 6}
		got := titles(Reckon(someone("2026-11-18", ladder.Standing{Books: []string{"Shore"}}, piece)))
		assert.Equal(t, want, len(got) == 1, "%d unknown", n)
	}
}

// Repertoire far below the student is not proposed: nothing new in it, and much less of it
// than of the latest five pieces.
func TestFarBelow(t *testing.T) {
	tune := shelf.Item{Strand: shelf.Repertoire, Different: 4, Needs: []string{"five-fingers"}}
	k := Begin(skill.Catalogue(), []string{"five-fingers"})
	for range 4 {
		k.Learn(shelf.Item{Strand: shelf.Book, Different: 11})
	}
	assert.False(t, k.below(tune), "four pieces say too little")
	k.Learn(shelf.Item{Strand: shelf.Book, Different: 10})
	assert.True(t, k.below(tune))
	for _, c := range []struct {
		name string
		item shelf.Item
	}{
		{"long enough", shelf.Item{Strand: shelf.Repertoire, Different: 5, Needs: []string{"five-fingers"}}},
		{"something new", shelf.Item{Strand: shelf.Repertoire, Different: 4, Needs: []string{"five-fingers", "dotted"}}},
		{"of the book", shelf.Item{Strand: shelf.Book, Different: 4}},
		{"nobody knows how long", shelf.Item{Strand: shelf.Repertoire}},
	} {
		assert.False(t, k.below(c.item), c.name)
	}
}

// A piece is said to stick a lesson after nine in ten would be done, not in the week itself.
func TestPatienceBeforeItSticks(t *testing.T) {
	past := func(weeks int) (bool, float64) {
		taught := calendar.Date("2026-11-18").Add(-7 * weeks).Time()
		st := someone("2026-11-18", ladder.Standing{Rungs: []ladder.Rung{{ID: "hand", Strand: shelf.Book, Taught: &taught}}})
		st.Calendar = calendar.Calendar{Terms: []calendar.Span{{Name: "all", From: "2026-01-05", To: "2026-12-18"}}}
		e := Reckon(st).Expected[0]
		return e.Past, e.Usual.High
	}
	_, high := past(1)
	last := int(high) // whole weeks in the range
	for weeks, want := range map[int]bool{last: false, last + 1: false, last + 2: true} {
		got, _ := past(weeks)
		assert.Equal(t, want, got, "%d weeks of usually %.1f", weeks, high)
	}
}

// Weeks are lessons that were given: not those that nobody told anything of, once lessons
// are being closed, and not those in which playing was forbidden.
func TestWeeksThatCount(t *testing.T) {
	weeks := func(s ladder.Standing) float64 {
		s.Rungs = []ladder.Rung{{ID: "hand", Strand: shelf.Book, Taught: day("2026-09-09"), Worked: []calendar.Date{"2026-09-30"}}}
		return Reckon(someone("2026-10-14", s)).Lessons.Weeks("2026-09-09", "2026-10-14")
	}
	assert.Equal(t, 5.0, weeks(ladder.Standing{}), "no lesson was ever closed: the calendar is believed")
	s := ladder.Standing{Lessons: ladder.Lessons{Closed: map[calendar.Date]time.Time{"2026-09-16": *day("2026-09-16")}}}
	assert.Equal(t, 3.0, weeks(s), "closed, worked on, and today")
	s.Rests = []calendar.Span{{From: "2026-09-16", To: "2026-09-30"}}
	assert.Equal(t, 2.0, weeks(s), "the lesson in which it was told counts, those after it do not")
	s.Rests = []calendar.Span{{From: "2026-09-15"}}
	assert.Equal(t, 0.5, weeks(s), "it lasts")
}

// A lane with nothing to come says why.
func TestALaneThatRanDry(t *testing.T) {
	dry := func(s ladder.Standing, items ...shelf.Item) map[shelf.Strand]string {
		out := map[shelf.Strand]string{}
		for _, d := range Reckon(someone("2026-11-18", s, items...)).Dry {
			out[d.Strand] = d.Why.Code
		}
		return out
	}
	assert.Empty(t, dry(ladder.Standing{}, shore...), "no book chosen")
	assert.Empty(t, dry(ladder.Standing{Books: []string{"Pool 2"}}, shore...), "nothing is on the ladder at all")
	s := ladder.Standing{Books: []string{"Shore"}}
	assert.Equal(t, map[shelf.Strand]string{shelf.Reading: "lane-none", shelf.Repertoire: "lane-none"}, dry(s, shore...))
	s.Rungs = []ladder.Rung{{ID: "m", Item: shore[2], Strand: shelf.Technique, Taught: day("2026-10-07"), Foothold: day("2026-10-14")}}
	assert.Equal(t, "lane-done", dry(s, shore...)[shelf.Technique])
	s.Books = []string{"Shore", "Pool"}
	far := shore[6]
	far.Needs = []string{"five-fingers", "slur-two", "key-signature", "two-touches"}
	assert.Equal(t, "lane-waits", dry(s, append([]shelf.Item{far}, shore[:6]...)...)[shelf.Repertoire])
	assert.NotContains(t, dry(s, shore...), shelf.Repertoire)
}

func TestTheLadderIsFilledFromTheBooksChosen(t *testing.T) {
	st := someone("2026-11-18", ladder.Standing{}, shore...)
	assert.Empty(t, Reckon(st).Proposals, "no book chosen")
	st.Standing.Books = []string{"Shore"}
	got := titles(Reckon(st))
	assert.ElementsMatch(t, []string{"walk", "gulls", "march", "turns", "far", "both"}, got)
	assert.Less(t, indexOf(got, "walk"), indexOf(got, "turns"))
	st.Home = shelf.Home{NoTouch: true}
	assert.NotContains(t, titles(Reckon(st)), "far", "no soft and loud on keys that cannot do it")
	st.Standing.BeforeBook = true
	assert.Empty(t, Reckon(st).Proposals, "before the first book there is no order")
	st.Standing.BeforeBook = false
	st.Standing.Overruled = map[string]ladder.Overrule{FillKey: {Outcome: "later", At: st.Now.AddDate(0, 0, -3)}}
	assert.Empty(t, Reckon(st).Proposals, "put off")
	st.Now = st.Now.AddDate(0, 0, 21)
	assert.NotEmpty(t, Reckon(st).Proposals, "three weeks later they are back")

	st = someone("2026-11-18", ladder.Standing{Books: []string{"Shore"}, Began: "far"}, shore...)
	got = titles(Reckon(st))
	assert.Equal(t, []string{"turns", "far", "both"}, got, "from the unit at which a newcomer begins")

	st = someone("2026-11-18", ladder.Standing{Books: []string{"Shore"}, Rungs: []ladder.Rung{{ID: "r", Item: shore[3], Strand: shelf.Book}}}, shore...)
	got = titles(Reckon(st))
	assert.NotContains(t, got, "walk", "nothing below where the student stands")
	assert.Contains(t, got, "both")
	assert.Equal(t, []string{"five-fingers", "hand-shape", "steps", "direction", "long-notes", "steady-beat"}, Presumed(graph, shore, "turns"), "what the first unit brings is taken for granted")
	other := append([]shelf.Item{{ID: "own", Instrument: "piano", Strand: shelf.Book, Book: "Own", Brings: []string{"dotted"}, Needs: []string{"halves"}}, {ID: "own2", Instrument: "piano", Strand: shelf.Book, Book: "Own", Needs: []string{"dotted", "skips"}}}, shore...)
	assert.Equal(t, []string{"halves", "steady-beat", "skips", "steps", "direction"}, Presumed(graph, other, "own"), "at the foot of a book, what it needs and does not bring")
	assert.Equal(t, []string{"five-fingers", "hand-shape", "steps", "direction", "long-notes", "steady-beat"}, Presumed(graph, other, "turns"), "other books do not count")
	assert.Empty(t, Presumed(graph, shore, "nowhere"))
	stack := skill.Graph{"a": {ID: "a"}, "b": {ID: "b", RestsOn: []string{"a"}}, "c": {ID: "c", RestsOn: []string{"b", "d"}}, "d": {ID: "d"}}
	assert.Equal(t, []string{"c", "b", "a"}, Presumed(stack, []shelf.Item{{ID: "x", Needs: []string{"c"}, Brings: []string{"d"}}}, "x"), "and what it rests on, but for what the book brings")
}

func indexOf(list []string, s string) int {
	for i, x := range list {
		if x == s {
			return i
		}
	}
	return -1
}

func TestAJumpIsNamedAndBridged(t *testing.T) {
	st := someone("2026-11-18", ladder.Standing{Rungs: []ladder.Rung{{ID: "r", Item: shore[5], Strand: shelf.Book}}}, shore...)
	st.Presumed = []string{"five-fingers", "hands-in-turn", "long-notes"}
	p := Reckon(st)
	require.Len(t, p.Jumps, 1)
	j := p.Jumps[0]
	require.NotNil(t, j.Bridge)
	assert.Equal(t, "held", j.Bridge.ID)
	why := j.Why(graph)
	assert.Equal(t, "jump-bridge", why.Code)
	assert.Equal(t, "held-left-hand", why.Args["meets"])
	assert.Equal(t, "4", why.Args["count"])
	st.Shelf = shore[5:6]
	assert.Equal(t, "jump-no-bridge", Reckon(st).Jumps[0].Why(graph).Code)
}

func TestAMoveIsSuggestedForADate(t *testing.T) {
	rung := func(id, target string) ladder.Rung {
		return ladder.Rung{ID: id, Item: piece(id, nil, nil), Strand: shelf.Book, Target: calendar.Date(target)}
	}
	s := ladder.Standing{Rungs: []ladder.Rung{rung("a", ""), rung("b", ""), rung("c", ""), rung("d", ""), rung("wedding", "2027-01-13")}}
	p := Reckon(someone("2026-11-18", s))
	require.NotEmpty(t, p.Moves)
	assert.Equal(t, "wedding", p.Moves[0].Rung.ID)
	assert.Equal(t, "move-for-date", p.Moves[0].Why.Code)
	s.Rungs[4].Target = ""
	assert.Empty(t, Reckon(someone("2026-11-18", s)).Moves)
}

func TestTasteAsAskedAndAsSeen(t *testing.T) {
	assert.Empty(t, TasteOf(ladder.Standing{}))
	s := ladder.Standing{Taste: shelf.Lively, Rungs: []ladder.Rung{{Item: shelf.Item{Taste: shelf.Lyrical}, Opened: 12}, {Item: shelf.Item{Taste: shelf.Lively}, Opened: 1}}}
	taste := TasteOf(s)
	assert.InDelta(t, 0.5, taste[shelf.Lively], 1e-9)
	assert.InDelta(t, 0.5, taste[shelf.Lyrical], 1e-9, "what is played again and again counts like what was said")
}

// Rust after two weeks or more, two lighter lessons: common practice, no source.
func TestAfterABreak(t *testing.T) {
	closed := func(days ...calendar.Date) ladder.Standing {
		s := ladder.Standing{Lessons: ladder.Lessons{Closed: map[calendar.Date]time.Time{}}}
		for _, d := range days {
			s.Closed[d] = d.Time()
		}
		return s
	}
	for _, c := range []struct {
		name  string
		s     ladder.Standing
		today calendar.Date
		light bool
	}{
		{"never began", ladder.Standing{}, "2026-11-18", false},
		{"week after week", closed("2026-11-04", "2026-11-11"), "2026-11-18", false},
		{"one week without", closed("2026-10-21"), "2026-11-04", false},
		{"back after the summer", closed("2026-07-08"), "2026-09-09", true},
		{"back after half a year", closed("2026-03-18"), "2026-09-09", true},
		{"the second lesson after half a year", closed("2026-03-18", "2026-09-09"), "2026-09-16", true},
		{"the second lesson back", closed("2026-07-08", "2026-09-09"), "2026-09-16", true},
		{"the third", closed("2026-07-08", "2026-09-09", "2026-09-16"), "2026-09-23", false},
	} {
		assert.Equal(t, c.light, Reckon(someone(string(c.today), c.s)).Break.Light(), c.name)
	}
	practised := closed("2026-07-08")
	for d := calendar.Date("2026-07-09"); d < "2026-09-09"; d = d.Add(5) {
		practised.Practice = append(practised.Practice, ladder.Practice{Day: d})
	}
	assert.False(t, Reckon(someone("2026-09-09", practised)).Break.Light(), "practised all summer")
}

func TestWhenThePathSticks(t *testing.T) {
	heavy := shelf.Item{ID: "heavy", Title: "Heavy Swell", Instrument: "piano", Strand: shelf.Book, Brings: []string{"two-touches"}, Needs: []string{"touch-joined"}, Different: 24}
	light := shelf.Item{ID: "light", Title: "Light Air", Instrument: "piano", Strand: shelf.Book, Book: "Shore", Needs: []string{"touch-joined"}, Different: 6}
	old := ladder.Rung{ID: "old", Item: shelf.Item{Title: "Old Rope", Revisits: []string{"touch-joined"}}, Strand: shelf.Repertoire, Taught: day("2025-09-10"), Foothold: day("2025-10-01")}
	r := ladder.Rung{ID: "r", Item: heavy, Strand: shelf.Book, Taught: day("2026-09-09"), Best: 3,
		Points: []ladder.Point{{Key: "tone", Name: "Tone", State: ladder.Open}, {Key: "rhythm", Name: "Rhythm", State: ladder.Met}, {Key: "fingering", Name: "Fingering", State: ladder.Open}, {Key: "loud", Name: "Loud and soft", State: ladder.Unmarked}},
		Tries:  []ladder.Try{{Outcome: "not-yet"}, {Outcome: "refused"}, {Outcome: "not-yet"}}}
	s := ladder.Standing{Rungs: []ladder.Rung{r, old}}
	for range 8 {
		s.Practice = append(s.Practice, ladder.Practice{Day: "2027-01-28", Minutes: 30, Feel: "dull"})
	}
	st := someone("2027-02-03", s, heavy, light)
	p := Reckon(st)
	stuck := p.StuckRungs(st)
	require.Len(t, stuck, 1)
	var signs, dos []string
	for _, w := range stuck[0].Signs {
		signs = append(signs, w.Code)
	}
	for _, m := range stuck[0].Remedies {
		dos = append(dos, m.Do)
	}
	assert.Equal(t, []string{"past-its-range", "tries-failed", "points-lost"}, signs)
	assert.Equal(t, []string{"ask", "prerequisite", "split", "seat-and-hand", "fewer-points", "easier"}, dos)
	assert.Equal(t, "Old Rope", stuck[0].Remedies[1].Why.Args["piece"])
	assert.Equal(t, "Light Air", stuck[0].Remedies[5].Why.Args["piece"])

	moving := r
	moving.Taught, moving.Best, moving.Tries = day("2026-11-11"), 1, nil
	st = someone("2026-11-18", ladder.Standing{Rungs: []ladder.Rung{moving}}, heavy)
	p = Reckon(st)
	assert.Empty(t, p.StuckRungs(st))
}
