package advice

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/ahead"
	"patientladder/core/approach"
	"patientladder/core/climb"
	"patientladder/core/fact"
	"patientladder/core/ladder"
	"patientladder/core/lesson"
	"patientladder/core/shelf"
	"patientladder/core/skill"
	"patientladder/core/upkeep"
	"patientladder/core/week"
)

// plain is a way with nothing on it but what a case puts there.
func plain(change func(*Way)) Way {
	w := Way{Age: 9, Student: climb.Student{Graph: skill.Catalogue(), Approach: approach.Default(9), Plays: piano, Calendar: terms, Slot: slot, Now: day("2026-11-18").Add(15 * 3600 * 1e9)}}
	change(&w)
	return w
}

// Jumps, moves and head starts each with what accepts them.
func TestWhatAcceptsASuggestion(t *testing.T) {
	lane := []ladder.Rung{rung("low", shelf.Book, "2026-09-01", "2026-10-01"), rung("now", shelf.Book, "2026-11-11", ""), rung("next", shelf.Book, "", ""), rung("steep", shelf.Book, "", ""), rung("other", shelf.Reading, "", "")}
	bridge := shelf.Item{ID: "bridge", Title: "Bridge", Revision: 2}
	w := plain(func(w *Way) {
		w.Standing.Rungs = lane
		w.Jumps = []climb.Jump{{Rung: lane[3], Bridge: &bridge}}
		w.Moves = []climb.Move{{Rung: lane[2], After: "steep"}, {Rung: lane[3]}}
		w.Ahead = []ahead.HeadStart{
			{Skill: "dotted", Name: "Dotted", Rung: "next", State: ahead.Running, Tasks: []skill.Link{{Do: "a"}, {Do: "b"}}, Done: 1},
			{Skill: "accents", Name: "Accents", Rung: "proposed", State: ahead.Late, Start: 2, Tasks: []skill.Link{{Do: "a"}}, Fixes: []ahead.Fix{{Do: "delay"}}},
			{Skill: "swell", State: ahead.Waiting}, {Skill: "voicing", State: ahead.Ready},
		}
	})
	var accepts []fact.Body
	keys := map[string]Suggestion{}
	for _, s := range w.Suggestions() {
		keys[s.Key] = s
		accepts = append(accepts, s.Accept...)
	}
	assert.Contains(t, accepts, fact.RungAdded{Item: "bridge", Strand: "book", After: "next", Revision: 2}, "the bridge comes under the jump")
	assert.Contains(t, accepts, fact.RungMoved{Rung: "next", After: "steep"})
	assert.Contains(t, accepts, fact.RungMoved{Rung: "steep", After: "now"}, "without a place it goes to the foot of what is ahead")
	assert.Contains(t, accepts, fact.Prepared{Skill: "dotted", Step: 2})
	assert.Equal(t, "next", keys[ahead.Key("dotted")].Rung)
	late := keys[ahead.Key("accents")]
	assert.Equal(t, []any{"warn", "", 1, 0}, []any{late.Band, late.Rung, len(late.Fixes), len(late.Accept)}, "a late one waits for its week; its rung is not placed yet")
	assert.NotContains(t, keys, ahead.Key("swell"), "what waits is not said")
	assert.NotContains(t, keys, ahead.Key("voicing"), "nor what is ready")
	new := plain(func(w *Way) {
		w.Standing.Rungs = lane[:1]
		w.Jumps = []climb.Jump{{Rung: rung("proposed", shelf.Book, "", ""), Bridge: &bridge}}
	})
	assert.Contains(t, new.Suggestions()[0].Accept, fact.RungAdded{Item: "bridge", Strand: "book", After: fact.Top, Revision: 2}, "of a piece that is only proposed: on top")
	tune := shelf.Item{ID: "tune", Strand: shelf.Repertoire}
	assert.Equal(t, fact.RungAdded{Item: "tune", Strand: "repertoire"}, w.before(lane[2], tune), "a piece never stands in the lane of technique or another's")
	first := w.Starts()
	require.Len(t, first, 1)
	assert.Equal(t, []string{"Dotted", "b"}, []string{first[0].Args["skill"], first[0].Args["do"]})
}

// Of head starts that come too late the first three are said; those that run all are.
func TestLateHeadStartsDoNotCrowd(t *testing.T) {
	w := plain(func(w *Way) {
		for _, id := range []string{"dotted", "accents", "swell", "voicing"} {
			w.Ahead = append(w.Ahead, ahead.HeadStart{Skill: id, State: ahead.Late, Start: 2, Tasks: []skill.Link{{Do: "a"}}})
		}
		w.Ahead = append(w.Ahead, ahead.HeadStart{Skill: "skips", State: ahead.Running, Tasks: []skill.Link{{Do: "a"}}})
	})
	var said []string
	for _, s := range w.Suggestions() {
		if strings.HasPrefix(s.Key, ahead.Key("")) {
			said = append(said, s.Key)
		}
	}
	assert.Equal(t, []string{ahead.Key("dotted"), ahead.Key("accents"), ahead.Key("swell"), ahead.Key("skips")}, said)
}

// The heaviest load ahead is that of what has not been taught.
func TestTheLoadThatIsKeptLow(t *testing.T) {
	w := plain(func(w *Way) {
		w.Approach = w.Approach.With(approach.Approach{approach.NewSkills: approach.OneSkill})
		w.Rungs = []ladder.Rung{rung("taught", shelf.Book, "2026-11-11", ""), rung("a", shelf.Book, "", ""), rung("b", shelf.Book, "", "")}
		w.Loads = map[string]climb.Load{"taught": {Total: 9}, "a": {Total: 2.25}, "b": {Total: 1}}
		w.Usual = 1.5
	})
	got := find(t, w.Suggestions(), "load-kept-low").Why.Args
	assert.Equal(t, []string{"2.2", "1.5"}, []string{got["heaviest"], got["usual"]})
}

// Of old pieces the most nearly forgotten is named, and the one that carries most of
// what is being learnt, if it is not fresh.
func TestWhichOldPieceIsNamed(t *testing.T) {
	old := func(id, foothold string, skills ...string) ladder.Rung {
		r := rung(id, shelf.Repertoire, "2026-06-01", foothold, skills...)
		return r
	}
	s := ladder.Standing{Rungs: []ladder.Rung{
		old("older", "2026-08-01"), old("oldest", "2026-06-10"), old("carries", "2026-09-20", "dotted"), old("carries-two", "2026-09-20", "dotted", "accents"), old("fresh", "2026-11-18", "dotted", "accents", "swell"),
		rung("now", shelf.Book, "2026-11-11", "", "dotted", "accents", "swell"),
	}}
	w := someone(s)
	fading := find(t, w.Suggestions(), "fading")
	least := ""
	for _, id := range []string{"older", "oldest", "carries", "carries-two", "fresh"} {
		if least == "" || w.Known.Recall[id] < w.Known.Recall[least] {
			least = id
		}
	}
	assert.Equal(t, "upkeep:"+least, fading.Key)
	carries := find(t, w.Suggestions(), "carries")
	assert.Equal(t, "upkeep:carries-two", carries.Key, "two skills rather than one, and not what was heard today")
	w.Approach = w.Approach.With(approach.Approach{approach.Upkeep: approach.ThreeQuarters})
	share := find(t, w.Suggestions(), "upkeep-share").Why.Args
	pieces := upkeep.Pieces(w.Standing, w.Known, w.Now, upkeep.Once(9))
	assert.Equal(t, []string{"75", "5"}, []string{share["share"], share["pieces"]})
	assert.Equal(t, share["weeks"], weeks(float64(upkeep.Limit(pieces, week.Budget(9)*3))), "half of six days' minutes")
}

// Forecasts that moved: by a week and a half and more, the most first, three at most.
func TestForecastsThatMoved(t *testing.T) {
	lanes := []shelf.Strand{shelf.Book, shelf.Technique, shelf.Reading, shelf.Repertoire}
	var before, after []ladder.Rung
	for i, lane := range lanes {
		r := rung(string(lane), lane, "2026-11-04", "")
		r.Item.Different = 6
		before = append(before, r)
		heavy := r
		heavy.Item.Brings = []string{"dotted", "accents", "swell", "voicing", "six-levels"}[:i+2]
		heavy.Item.Different = 40 + 20*i
		after = append(after, heavy)
	}
	w := someone(ladder.Standing{Rungs: after})
	was := someone(ladder.Standing{Rungs: before}).Student
	was.Now = *day("2026-11-11")
	shifts := 0
	last := 1 << 10
	for _, r := range w.Since(was) {
		if r.Code == "shifted-later" {
			shifts++
			n := int(r.Args["weeks"][0] - '0')
			assert.LessOrEqual(t, n, last, "the most first")
			last = n
		}
	}
	assert.Equal(t, 3, shifts)
	met := make([]ladder.Rung, len(after))
	for i, r := range after {
		met[i] = r
		met[i].Points = []ladder.Point{{Key: "tone", State: ladder.Met}, {Key: "rhythm", State: ladder.Met}}
	}
	heavier := someone(ladder.Standing{Rungs: after}).Student
	heavier.Now = *day("2026-11-11")
	sooner := 0
	for _, r := range someone(ladder.Standing{Rungs: met}).Since(heavier) {
		if r.Code == "shifted-sooner" {
			sooner++
			assert.NotContains(t, r.Args["weeks"], "-")
		}
	}
	assert.Equal(t, 3, sooner, "points that were met bring it nearer")
}

// Effects on head starts and the next proposals.
func TestEffectsOnTheLadder(t *testing.T) {
	head := func(skill string, ready int) ahead.HeadStart {
		return ahead.HeadStart{Skill: skill, Name: skill, Ready: ready}
	}
	base := Try{Way: Way{Age: 9, Ahead: []ahead.HeadStart{head("a", 3), head("b", 4)}, Path: climb.Path{Proposals: []climb.Proposal{{Item: shelf.Item{Title: "A"}}, {Item: shelf.Item{Title: "B"}}}}},
		Sheet: week.Sheet{Days: []week.Day{{Tasks: []week.Task{{Title: "A", Hands: "right"}, {Title: "B", Hands: "left"}}}}}}
	for _, c := range []struct {
		name   string
		change func(*Try)
		code   string
		args   map[string]string
	}{
		{"another second proposal", func(w *Try) { w.Proposals = []climb.Proposal{w.Proposals[0], {Item: shelf.Item{Title: "C"}}} }, "effect-order", map[string]string{"place": "2", "title": "C"}},
		{"a third", func(w *Try) { w.Proposals = append(w.Proposals[:2:2], climb.Proposal{Item: shelf.Item{Title: "C"}}) }, "effect-order", map[string]string{"place": "3", "title": "C"}},
		{"a head start ready later", func(w *Try) { w.Ahead = []ahead.HeadStart{head("a", 3), head("b", 5)} }, "effect-ready", map[string]string{"skill": "b", "weeks": "5"}},
		{"one that is ready now", func(w *Try) { w.Ahead = []ahead.HeadStart{head("a", 3), head("b", 0)} }, "effect-none", nil},
		{"another skill in its place", func(w *Try) { w.Ahead = []ahead.HeadStart{head("a", 3), head("c", 5)} }, "effect-none", nil},
		{"one more", func(w *Try) { w.Ahead = append(w.Ahead[:2:2], head("c", 5)) }, "effect-none", nil},
		{"hands of the first piece", func(w *Try) {
			w.Sheet.Days = []week.Day{{Tasks: []week.Task{{Title: "A", Hands: "together"}, {Title: "B", Hands: "left"}}}}
		}, "effect-hands", map[string]string{"first": "A: together"}},
		{"two tasks of head starts", func(w *Try) {
			w.Sheet.Days = []week.Day{{Tasks: []week.Task{{Title: "A", Hands: "right", Skill: "a"}, {Title: "B", Hands: "left", Skill: "b"}}}}
		}, "effect-head-starts", map[string]string{"from": "0", "to": "2"}},
		{"share", func(w *Try) { w.Sheet.Share = 0.254 }, "effect-share", map[string]string{"from": "0", "to": "25"}},
		{"a share of three in a hundred is told", func(w *Try) { w.Sheet.Share = 0.03 }, "effect-share", map[string]string{"from": "0", "to": "3"}},
		{"a lesson's block that was not there", func(w *Try) { w.Lesson.Blocks = []lesson.Block{{Kind: lesson.Kinds[0], Minutes: 2}} }, "effect-lesson", map[string]string{"kind": string(lesson.Kinds[0]), "from": "0", "to": "2"}},
	} {
		is := base
		c.change(&is)
		got := Effects(base, is)
		require.Len(t, got, 1, c.name)
		assert.Equal(t, c.code, got[0].Code, c.name)
		for k, v := range c.args {
			assert.Equal(t, v, got[0].Args[k], c.name)
		}
	}
}

// The foothold that is due is that of the first part without one.
func TestThePartThatIsDue(t *testing.T) {
	r := rung("piece", shelf.Book, "2026-11-11", "")
	part := func(acts []fact.Act) string {
		for _, a := range acts {
			if a.Do == "grant" {
				return a.Tell[0].(fact.FootholdTried).Part
			}
		}
		return "none"
	}
	assert.Empty(t, part(OnPiece(&r, nil)))
	r.Parts = []ladder.Part{{ID: "one"}, {ID: "two"}}
	assert.Equal(t, "one", part(OnPiece(&r, nil)))
	r.Parts[0].Foothold = day("2026-11-11")
	assert.Equal(t, "two", part(OnPiece(&r, nil)))
}
