package week

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/ladder"
	"patientladder/core/reading"
	"patientladder/core/reason"
	"patientladder/core/upkeep"
)

func TestWordsOfTasks(t *testing.T) {
	chunk := &Start{StartOf: reading.StartOf{Finger: "3", Key: "F#4"}}
	both := &Start{StartOf: reading.StartOf{Finger: "5", Key: "G4"}, Starts: []reading.HandStart{
		{Hand: reading.Right, StartOf: reading.StartOf{Finger: "5", Key: "G4"}}, {Hand: reading.Left, StartOf: reading.StartOf{Finger: "1", Key: "Eb3"}}}}
	unheld := &Start{StartOf: reading.StartOf{Key: "C6"}, Starts: []reading.HandStart{
		{Hand: reading.Right, StartOf: reading.StartOf{Key: "C6"}}, {Hand: reading.Left, StartOf: reading.StartOf{Finger: "2", Key: "D3"}}}}
	for _, c := range []struct {
		name string
		task Task
		want string
	}{
		{"a chunk", Task{Band: "now", From: 1, To: 4, Hands: "right", Start: chunk, Count: 6}, "bars 1–4, right hand, finger 3 on F sharp, 6 times"},
		{"one bar, once", Task{Band: "now", From: 5, To: 5, Count: 1}, "bar 5, 1 time"},
		{"an open string", Task{Band: "now", From: 2, To: 3, Start: &Start{StartOf: reading.StartOf{Finger: "0", Key: "D3"}}, Count: 3}, "bars 2–3, open on D, 3 times"},
		{"a flat", Task{Band: "now", From: 2, To: 3, Start: &Start{StartOf: reading.StartOf{Finger: "1", Key: "Bb2"}}, Count: 3}, "bars 2–3, finger 1 on B flat, 3 times"},
		{"each hand begins by itself", Task{Band: "now", From: 5, To: 6, Hands: "together", Start: both, Count: 6}, "bars 5–6, both hands, right finger 5 on G, left finger 1 on E flat, 6 times"},
		{"a hand that no position holds is not told", Task{Band: "now", From: 5, To: 6, Hands: "together", Start: unheld, Count: 1}, "bars 5–6, both hands, left finger 2 on D, 1 time"},
		{"the whole needs no finger", Task{Band: "now", Hands: "together", Start: chunk, Count: 3}, "whole, both hands, 3 times"},
		{"a spot, with no word of hands", Task{Band: "now", Spot: "bar 11", Hands: "left", Count: 5, InRow: true}, "bar 11, 5 in a row"},
		{"a scale of one hand", Task{Band: "now", Count: 3, Plays: []Play{{Title: "E flat major", Hand: "right", Fingers: "3 1 2 3 4 1 2 3", How: "up and down"}}}, "E flat major, up and down, right hand 3 1 2 3 4 1 2 3; 3 times"},
		{"each hand of a cycle, once", Task{Band: "now", Count: 1, Plays: []Play{{Title: "C major", Hand: "right", Fingers: "1 2 3 1", How: "up and down"}, {Title: "C major", Hand: "left", Fingers: "5 4 3 2", How: "up and down"}}}, "C major, up and down, right hand 1 2 3 1; then left hand 5 4 3 2; once, slowly, with full attention"},
		{"a pattern without fingers", Task{Band: "now", Count: 5, InRow: true, Plays: []Play{{Title: "Five fingers from C", How: "five neighbours up and down"}}}, "Five fingers from C, five neighbours up and down; 5 in a row"},
		{"cards", Task{Band: "now", Count: 1, Cards: []CardLine{{"landmarks C4", "Line 1", "Which landmark is it, and where does it lie?", "C, the middle C"}}}, "Line 1. Which landmark is it, and where does it lie? → C, the middle C"},
		{"a game", Task{Band: "now", Count: 1, Steps: []string{"Clap four beats", "Wait for the echo"}}, "Clap four beats. Wait for the echo"},
		{"an old piece", Task{Band: "upkeep", Count: 1}, "once through"},
		{"an old piece with time to spare", Task{Band: "upkeep", Count: 2}, "twice through, the second time slowly"},
		{"an old piece with much", Task{Band: "upkeep", Count: 3}, "three times through, each with another thing in mind"},
		{"an old piece with more", Task{Band: "upkeep", Count: 5}, "three times through, each with another thing in mind"},
		{"a head start", Task{Band: "ahead", Do: "Say it on one word that limps"}, "Say it on one word that limps"},
		{"listening", Task{Band: "ahead", Listen: true}, "listen to it"},
	} {
		assert.Equal(t, c.want, c.task.words(teller{english, "student"}).What, c.name)
	}
}

// A bracket over the notes has room for the first note only.
func TestTheMarkOnABracket(t *testing.T) {
	for says, start := range map[string]reading.StartOf{"5 on G": {Finger: "5", Key: "G4"}, "open on D": {Finger: "0", Key: "D3"}, "": {Key: "C6"}} {
		task := Task{Band: "now", From: 1, To: 2, Start: &Start{StartOf: start}}
		assert.Equal(t, says, task.words(teller{english, "parent"}).Mark)
	}
}

// A parent, a student and an adult are told the same thing in words of their own.
func TestWordsForTheReader(t *testing.T) {
	ready := reason.Of("ready-to-try", "title", "Rope Walk")
	assert.Equal(t, "Every point is met: it may get its foothold at the lesson.", teller{english, "parent"}.told(ready))
	assert.Equal(t, "Every point is met: try for the foothold at the lesson.", teller{english, "student"}.told(ready))
	assert.Equal(t, "It carries “Dotted rhythm”, which is being learnt now.", teller{english, "adult"}.told(reason.Of("carries", "skill", "Dotted rhythm")))
}

// In pain nothing is asked but listening, and the sheet says so first.
func TestPainIsSaidFirst(t *testing.T) {
	s := only(rung("now", 8, 1, at(from), nil))
	s.Ache = &ladder.Ache{Side: "left"}
	lines := sheet(s, approach.Default(12), 12, from, next).Lines
	require.Len(t, lines, 1)
	assert.Contains(t, lines[0].Says, "left side")
	assert.Contains(t, lines[0].Says, "licensed clinician")
}

func TestTheWayBackToAnEarlierHelp(t *testing.T) {
	jig, old := rung("jig", 8, 1, at(from), nil), rung("old", 8, 1, at("2026-09-01"), at("2026-10-01"))
	jig.Item.Needs, old.Item.Brings = []string{"dotted"}, []string{"dotted"}
	var says []string
	for _, l := range sheet(only(old, jig), approach.Default(10), 10, from, next).Lines {
		says = append(says, l.Says)
	}
	assert.Contains(t, says, "If “Dotted rhythms” is lost: go back to “T old”, where it was new.")
}

// A year of weeks in which all that the sheet asks of old pieces is played: none
// is silent longer than its limit, each chosen piece has its turn, and upkeep's
// share of the minutes stays within five points of what is asked.
func TestNoOldPieceIsForgotten(t *testing.T) {
	for _, c := range []struct {
		pieces, age int
		upkeep      approach.School
	}{{8, 7, "half"}, {25, 12, "half"}, {40, 15, "three-quarters"}, {14, 34, "third"}} {
		t.Run(fmt.Sprintf("%d pieces at %d", c.pieces, c.age), func(t *testing.T) {
			rng := rand.New(rand.NewPCG(uint64(c.pieces), 7))
			s := only(rung("now", 12, 1, at(from), nil))
			for i := range c.pieces {
				done := from.Add(-7 * (1 + rng.IntN(30)))
				s.Rungs = append(s.Rungs, rung(fmt.Sprint("old", i), 4+rng.IntN(28), 1, at(done.Add(-21)), at(done)))
				s.Rungs[i+1].Home = []time.Time{from.Add(-rng.IntN(14)).Time()}
			}
			a := approach.Default(c.age)
			a["upkeep"] = c.upkeep
			for week := range 40 {
				day := from.Add(7 * week)
				s.Closed = map[calendar.Date]time.Time{day: day.Time()}
				in := ask(s, a, c.age, day, day.Add(7))
				pieces := upkeep.Pieces(s, in.Path.Known, day.Time(), upkeep.Once(c.age))
				sh := Make(in)
				minutes := 0
				heard := map[string]bool{}
				for _, d := range sh.Days {
					for _, task := range d.Tasks {
						if task.Band == "upkeep" {
							minutes += task.Minutes
							heard[task.Rung] = true
							for i := range s.Rungs {
								if s.Rungs[i].ID == task.Rung {
									s.Rungs[i].Home = append(s.Rungs[i].Home, d.Date.Time())
								}
							}
						}
					}
				}
				require.InDelta(t, a.UpkeepShare(), sh.Share, 0.05, "share in week %d", week)
				limit := upkeep.Limit(pieces, minutes)
				for _, p := range pieces {
					require.LessOrEqual(t, p.Silent, 7*(limit+1), "%s in week %d", p.ID, week)
				}
				chosen := upkeep.Choose(pieces, minutes-6) // a day loses up to a minute to whole pieces
				room := 6 * (LinesADay(c.age) - 3)         // things of six days beside one in hand, one for later, and the newest again
				require.GreaterOrEqual(t, len(heard), min(len(chosen), room), "what is chosen has its turn in week %d", week)
			}
		})
	}
}

// How a whole piece goes, with what supports it. Common practice, no source.
func TestWhatStandsAtItsHead(t *testing.T) {
	for _, c := range []struct {
		tempo reading.Tempo
		want  string
	}{
		{reading.Tempo{Word: "Lively"}, "whole, 3 times. At its head stands “Lively”"},
		{reading.Tempo{Word: "Lively", Clue: "jig", In: "title"}, "whole, 3 times. At its head stands “Lively”, and “jig” in the title says why"},
		{reading.Tempo{Word: "Gently", Clue: "sleep", In: "words"}, "whole, 3 times. At its head stands “Gently”, and “sleep” in its words says why"},
		{reading.Tempo{Clue: "march", In: "title"}, "whole, 3 times. How it goes: “march” in the title says it"},
		{reading.Tempo{Clue: "sleep", In: "words"}, "whole, 3 times. How it goes: “sleep” in its words says it"},
		{reading.Tempo{}, "whole, 3 times"},
	} {
		w := writer{Ask: Ask{Voice: english, Tempos: map[string]reading.Tempo{"r": c.tempo}}}
		task := Task{Band: "now", Rung: "r", Count: 3, Tempo: w.tempo(ladder.Rung{ID: "r"})}
		assert.Equal(t, c.want, task.words(teller{english, "student"}).What)
	}
	w := writer{Ask: Ask{Voice: english, Tempos: map[string]reading.Tempo{"r": {Word: "Lively", Clue: "jig", In: "title"}}}}
	task := Task{Band: "now", Rung: "r", Count: 3, Tempo: w.tempo(ladder.Rung{ID: "r"})}
	assert.Equal(t, "whole, 3 times. Ask first: at its head stands “Lively”; which word of the title says why (“jig”)?", task.words(teller{english, "parent"}).What, "a parent asks before telling")
	task.Start = &Start{Say: "G, down"}
	assert.Contains(t, task.words(teller{english, "parent"}).What, "(“jig”)? Say while pointing: G, down")
}

// What is said of praise, by school and reader; grown-ups are told nothing of it.
func TestPraiseOnTheSheet(t *testing.T) {
	for _, c := range []struct {
		age    int
		school approach.School
		want   string
	}{
		{6, "", "Praise every chunk that goes, and say what went."}, // usual of the young
		{7, "", "Name one thing that went well, and let the child name two."},
		{6, "specific", "Name one thing that went well, and let the child name two."},
		{12, "generous", "After each chunk that goes, say what went."},
		{12, "specific", "Afterwards, name two things that went well."},
		{40, "specific", ""},
	} {
		a := approach.Default(c.age)
		if c.school != "" {
			a = a.With(approach.Approach{approach.Praise: c.school})
		}
		said := ""
		for _, l := range sheet(only(rung("one", 8, 1, at(from), nil)), a, c.age, from, next).Lines {
			if strings.HasPrefix(l.Code, "praise-") {
				said = l.Says
			}
		}
		assert.Equal(t, c.want, said, "%d %s", c.age, c.school)
	}
}
