package upkeep

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
	"patientladder/core/skill"
	"patientladder/words"
)

var english = words.In(words.Reader{Language: words.Base})

func TestHowSkillsStand(t *testing.T) {
	now := time.Date(2026, 11, 18, 16, 0, 0, 0, time.UTC)
	ago := func(days int) *time.Time { d := now.AddDate(0, 0, -days); return &d }
	rung := func(title string, taught, foothold *time.Time, brings, needs []string) ladder.Rung {
		return ladder.Rung{ID: title, Item: shelf.Item{Title: title, Brings: brings, Needs: needs}, Taught: taught, Foothold: foothold}
	}
	s := ladder.Standing{Prepared: map[string]ladder.HeadStart{"reach-back": {Done: 2, Last: *ago(3)}, "halves": {Done: 1, Last: *ago(30)}},
		Rungs: []ladder.Rung{
			rung("Old", ago(200), ago(190), []string{"long-bows", "bow-hold"}, nil),
			rung("Fresh", ago(20), ago(2), []string{"halves"}, []string{"bow-hold"}),
			rung("In hand", ago(7), nil, []string{"slur-three"}, []string{"halves", "halves"}),
			rung("Ahead", nil, nil, []string{"reach-back"}, nil),
		}}
	got := Skills(s, english.Skills(""), []string{"steady-beat"}, now)
	var states []string
	for _, m := range got {
		states = append(states, m.Name+": "+string(m.State))
	}
	assert.Equal(t, []string{"Three notes in a bow: learning", "Backward extension: tasted", "Straight whole bows: rusty",
		"Bow hold: secure", "Quavers: secure", "Steady beat: secure"}, states,
		"a skill that a fresh piece carries is not rusty; what lies ahead is not listed unless it was tasted")
	assert.Equal(t, []Evidence{{"Tap it in time on one string, without the bow", "head-start", *ago(3)}}, got[1].Evidence)
	assert.Equal(t, "presumed", got[5].Evidence[0].Kind)
	var kinds []string
	for _, e := range got[4].Evidence {
		kinds = append(kinds, e.Title+" "+e.Kind)
	}
	assert.Equal(t, []string{"Fresh foothold", "In hand taught", "Walk the beat and say a two-syllable word on each step head-start"}, kinds, "newest first, each rung once")
	assert.Empty(t, Skills(ladder.Standing{}, english.Skills(""), nil, now))
}

func TestWhatIsNewInAPiece(t *testing.T) {
	for state, unmet := range map[SkillState]bool{"": true, Unknown: true, Tasted: true, Missing: true, Learning: false, Secure: false, Rusty: false} {
		assert.Equal(t, unmet, state.Unmet(), state)
	}
}

// Which word of several holds for a skill, and in which order skills are listed.
func TestTheBestWordHolds(t *testing.T) {
	now := time.Date(2026, 11, 18, 16, 0, 0, 0, time.UTC)
	ago := func(days int) *time.Time { d := now.AddDate(0, 0, -days); return &d }
	carry := func(id string, taught, foothold *time.Time) ladder.Rung {
		return ladder.Rung{ID: id, Item: shelf.Item{Title: id, Brings: []string{"halves"}}, Taught: taught, Foothold: foothold}
	}
	state := func(rungs ...ladder.Rung) SkillState {
		return Know(ladder.Standing{Prepared: map[string]ladder.HeadStart{"halves": {Done: 1}}, Rungs: rungs}, nil, now).State["halves"]
	}
	faded, fresh, hand, ahead := carry("faded", ago(300), ago(290)), carry("fresh", ago(9), ago(1)), carry("hand", ago(3), nil), carry("ahead", nil, nil)
	for _, c := range []struct {
		rungs []ladder.Rung
		want  SkillState
	}{
		{nil, Tasted}, {[]ladder.Rung{ahead}, Tasted}, {[]ladder.Rung{hand}, Learning}, {[]ladder.Rung{faded}, Rusty}, {[]ladder.Rung{fresh}, Secure},
		{[]ladder.Rung{faded, fresh}, Secure}, {[]ladder.Rung{fresh, faded}, Secure}, {[]ladder.Rung{fresh, hand}, Secure}, {[]ladder.Rung{hand, fresh}, Secure},
	} {
		assert.Equal(t, c.want, state(c.rungs...))
	}
	g := skill.Graph{"b": {ID: "b", Name: "B"}, "a": {ID: "a", Name: "A"}, "t": {ID: "t", Name: "Tasted", Chain: []skill.Link{{Do: "one"}, {Do: "two"}}}}
	for done, want := range map[int]string{0: "", 1: "one", 2: "two", 3: ""} {
		list := Skills(ladder.Standing{Prepared: map[string]ladder.HeadStart{"t": {Done: done}}}, g, []string{"b", "a"}, now)
		names, did := []string{}, ""
		for _, m := range list {
			names = append(names, m.Name)
			for _, e := range m.Evidence {
				if e.Kind == "head-start" {
					did = e.Title
				}
			}
		}
		assert.Equal(t, []string{"Tasted", "A", "B"}, names, "by state, then by name")
		assert.Equal(t, want, did, "%d steps", done)
	}
}

// What the teacher says of a skill outweighs where the student began, and what was played before;
// what is played well after it outweighs that.
func TestWhatWasAskedAfter(t *testing.T) {
	now := time.Date(2026, 11, 18, 16, 0, 0, 0, time.UTC)
	ago := func(days int) *time.Time { d := now.AddDate(0, 0, -days); return &d }
	piece := func(taught, foothold *time.Time) []ladder.Rung {
		return []ladder.Rung{{ID: "piece", Item: shelf.Item{Title: "Piece", Needs: []string{"halves"}}, Taught: taught, Foothold: foothold}}
	}
	bringing := func(taught *time.Time) []ladder.Rung {
		return []ladder.Rung{{ID: "piece", Item: shelf.Item{Title: "Piece", Brings: []string{"halves"}}, Taught: taught}}
	}
	for _, c := range []struct {
		name     string
		outcome  string
		rungs    []ladder.Rung
		presumed []string
		want     SkillState
	}{
		{"taken for granted", "", nil, []string{"halves"}, Secure},
		{"taken for granted, and it is missing", "not-yet", nil, []string{"halves"}, Missing},
		{"nearly", "nearly", nil, []string{"halves"}, Learning},
		{"passed, though nothing carries it", "pass", nil, nil, Secure},
		{"played well before it was asked after", "not-yet", piece(ago(30), ago(8)), nil, Missing},
		{"played well since", "not-yet", piece(ago(30), ago(1)), nil, Secure},
		{"a piece that asks for it is begun", "not-yet", piece(ago(6), nil), nil, Missing},
		{"a piece that brings it is begun", "not-yet", bringing(ago(6)), nil, Learning},
		{"taught before", "not-yet", piece(ago(8), nil), nil, Missing},
	} {
		s := ladder.Standing{Rungs: c.rungs, Probes: map[string]ladder.Probe{}}
		if c.outcome != "" {
			s.Probes["halves"] = ladder.Probe{Outcome: c.outcome, At: *ago(7)}
		}
		assert.Equal(t, c.want, Know(s, c.presumed, now).State["halves"], c.name)
	}
	marks := Skills(ladder.Standing{Probes: map[string]ladder.Probe{"halves": {Outcome: "not-yet", At: *ago(7)}, fact.FirstBook: {Outcome: "pass", At: *ago(7)}}}, english.Skills(""), nil, now)
	assert.Equal(t, []SkillMark{{"halves", "Quavers", Missing, []Evidence{{"not-yet", "probe", *ago(7)}}}}, marks, "the test for the first book is no skill")
}

// What is taken for granted is ticked off in the first three lessons, until it was heard.
func TestWhatIsTickedOff(t *testing.T) {
	now := time.Now()
	presumed := []string{"halves", "ties", "dotted", "steps"}
	lessons := func(n int) ladder.Standing {
		s := ladder.Standing{Lessons: ladder.Lessons{Opened: map[calendar.Date]time.Time{}}, Probes: map[string]ladder.Probe{"dotted": {Outcome: "not-yet", At: now}},
			Rungs: []ladder.Rung{{Item: shelf.Item{Needs: []string{"ties"}}, Taught: &now}, {Item: shelf.Item{Needs: []string{"steps", "skips"}}, Taught: &now, Foothold: &now}}}
		for i := range n {
			s.Opened[calendar.Date("2026-09-01").Add(7*i)] = now
		}
		return s
	}
	assert.Equal(t, []string{"halves", "ties"}, ToTick(lessons(0), presumed), "a piece that is being learnt proves nothing of what it needs")
	assert.Equal(t, []string{"halves", "ties"}, ToTick(lessons(3), presumed), "in the third")
	assert.Empty(t, ToTick(lessons(4), presumed))
	assert.Equal(t, []string{"halves", "ties"}, Granted(lessons(4), presumed), "on the ladder it stays")
}
