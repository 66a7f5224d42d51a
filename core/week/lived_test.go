package week

import (
	"cmp"
	"flag"
	"fmt"
	"maps"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/ahead"
	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/climb"
	"patientladder/core/instrument"
	"patientladder/core/ladder"
	"patientladder/core/notation"
	"patientladder/core/reading"
	"patientladder/core/reason"
	"patientladder/core/shelf"
)

var update = flag.Bool("update", false, "write testdata/lived.txt anew")

// A learner takes a new piece every three weeks and keeps the old ones.
type learner struct {
	name   string
	age    int
	plays  instrument.ID
	pieces []string // of the demo's scores
	school approach.Approach
	ticks  int             // of ten lines, how many are ticked
	home   ladder.HomeDays // when the family practises
	gaps   map[int]int     // days to the next lesson after some weeks; seven after the others
	old    []string        // pieces that were secure before
	ahead  bool            // the pieces to come stand on the ladder already
	stuck  int             // from this week on the piece in hand sticks; 0 for never
	every  int             // weeks to a new piece; three where it does not say
	shown  string          // a skill whose head start is shown in the second week
}

var learners = []learner{
	{name: "six, piano, ticks everything", age: 6, plays: "piano", pieces: []string{"shore-gulls", "shore-lights", "shore-kelp"}, ticks: 10, gaps: map[int]int{2: 3, 5: 21}},
	{name: "nine, piano, practises on three days", age: 9, plays: "piano", pieces: []string{"harbour-fathoms", "folk-aura", "harbour-mole"}, school: approach.Approach{"hands": "together"}, ticks: 6,
		home: ladder.HomeDays{Days: []time.Weekday{1, 3, 6}, Minutes: 15}},
	{name: "eleven, cello, tells nothing", age: 11, plays: "cello", pieces: []string{"bow-coil", "folk-skye", "bow-sandbar"}, gaps: map[int]int{3: 14}},
	{name: "forty, guitar", age: 40, plays: "guitar", pieces: []string{"low-chord", "low-eel", "low-creek"}, school: approach.Approach{"upkeep": "third"}, ticks: 8},
	{name: "eight, piano, many old friends", age: 8, plays: "piano", pieces: []string{"folk-london", "folk-michael", "folk-alouette"}, ticks: 7, ahead: true, shown: "dotted",
		old: []string{"shore-gulls", "shore-lights", "shore-kelp", "shore-crabs", "folk-kookaburra", "folk-cuckoo", "folk-jacques", "folk-clair"}},
	{name: "thirteen, piano, stuck", age: 13, plays: "piano", pieces: []string{"folk-susanna"}, every: 9, stuck: 3, ticks: 8, ahead: true, old: []string{"folk-aura", "folk-saints"}},
	{name: "ten, piano, a short piece that sticks", age: 10, plays: "piano", pieces: []string{"folk-alouette", "folk-drunken"}, every: 5, stuck: 2, ticks: 9, shown: "syncopation"},
}

// Eight weeks of four learners, every line of every sheet: whoever changes a rule of the week
// sees which lines it changes, and can ask of each whether a teacher would write it so.
func TestWeeksAsTheyAreLived(t *testing.T) {
	var out strings.Builder
	for _, l := range learners {
		l.live(t, &out)
	}
	if *update {
		require.NoError(t, os.MkdirAll("testdata", 0o755))
		require.NoError(t, os.WriteFile("testdata/lived.txt", []byte(out.String()), 0o644))
	}
	want, err := os.ReadFile("testdata/lived.txt")
	require.NoError(t, err)
	assert.Equal(t, strings.Split(string(want), "\n"), strings.Split(out.String(), "\n"))
}

func (l learner) live(t *testing.T, out *strings.Builder) {
	plays, g := instrument.Shipped.Of(l.plays), english.SkillsAtHome("")
	a := approach.Default(l.age).With(l.school)
	s := ladder.Standing{Lessons: ladder.Lessons{Closed: map[calendar.Date]time.Time{}}, HomeDays: l.home}
	trees, tempos := map[string][]reading.Chunk{}, map[string]reading.Tempo{}
	var past []Past
	every := cmp.Or(l.every, 3)
	day := calendar.Date("2026-09-07")
	for i, name := range l.old {
		r := l.piece(t, name, plays, day.Add(-30*(i+2)), trees, tempos)
		r.Foothold = at(day.Add(-10 * (i + 1)))
		if i == 1 {
			r.Target = day.Add(20)
		}
		s.Rungs = append(s.Rungs, r)
	}
	first := len(s.Rungs)
	if l.ahead {
		for _, name := range l.pieces {
			r := l.piece(t, name, plays, day, trees, tempos)
			r.Taught = nil
			s.Rungs = append(s.Rungs, r)
		}
	}
	for week := range 8 {
		if week%every == 0 {
			n := first + week/every
			if n > first {
				s.Rungs[n-1].Foothold = at(day)
			}
			if !l.ahead {
				s.Rungs = append(s.Rungs, l.piece(t, l.pieces[week/every], plays, day, trees, tempos))
			}
			s.Rungs[n].Taught = at(day)
		}
		now := &s.Rungs[first+week/every]
		now.Worked = append(now.Worked, day)
		if week == 1 && l.shown != "" {
			s.Prepared = map[string]ladder.HeadStart{l.shown: {Done: 1, Last: day.Time()}}
		}
		stuck := map[string]bool{}
		if l.stuck > 0 && week >= l.stuck {
			stuck[now.ID] = true
		}
		switch week % every {
		case 1:
			now.Points[0].State = ladder.Met
			now.Spots = []ladder.Spot{{ID: "spot", Where: "bar 3", Goal: 5, Done: 2}}
		case 2:
			now.Points[1].State = ladder.Met
			now.Spots[0].Done = 5
		}
		s.Closed[day] = day.Time()
		step := 7
		if gap, odd := l.gaps[week]; odd {
			step = gap
		}
		next := day.Add(step)
		p := climb.Reckon(climb.Student{Standing: s, Graph: g, Approach: a, Plays: plays, Slot: calendar.Slot{Weekday: day.Weekday(), Start: "16:00", Minutes: 30}, Now: day.Time()})
		sh := Make(Ask{Voice: english, Standing: s, Graph: g, Path: p, Ahead: ahead.Plan(s, g, p, a.HeadStarts(), day.Time()), Approach: a, Plays: plays, Trees: trees, Tempos: tempos,
			Stuck: stuck, Past: past, Words: reading.OwnWords, Age: l.age, From: day, Next: next, Through: next.Add(-1), At: day.Time(),
			Calendar: calendar.Calendar{Free: []calendar.Span{{Name: "holidays", From: day.Add(7), To: next}}}})
		fmt.Fprintf(out, "== %s, week %d, %s to %s, %d minutes, upkeep %.2f\n", l.name, week+1, day, next, sh.Budget, sh.Share)
		for _, line := range sh.Lines {
			fmt.Fprintln(out, "  ", written(line.Reason))
		}
		given := Past{Day: day, Ticked: map[string]int{}}
		n := 0
		for _, d := range sh.Days {
			for _, task := range d.Tasks {
				fmt.Fprintln(out, lineOf(d, task))
				if n++; n%10 < l.ticks {
					given.Ticked[task.Key]++
					s.Ticks = append(s.Ticks, ladder.Tick{Day: d.Date, Line: task.Key})
				}
			}
		}
		for _, r := range sh.LeftOut {
			fmt.Fprintln(out, "   left out:", written(r))
		}
		past, day = append(past, given), next
	}
}

func (l learner) piece(t *testing.T, name string, plays instrument.Profile, day calendar.Date, trees map[string][]reading.Chunk, tempos map[string]reading.Tempo) ladder.Rung {
	files, err := filepath.Glob("../../demo/scores/" + name + ".*")
	require.NoError(t, err)
	require.Len(t, files, 1, name)
	data, err := os.ReadFile(files[0])
	require.NoError(t, err)
	sc, err := notation.Read(files[0], data)
	require.NoError(t, err)
	page := reading.Read(sc, plays)
	trees[name], tempos[name] = page.Chunks(reading.Size(l.age, l.age > 7)), page.Tempo()
	it := shelf.Item{ID: name, Title: sc.Title, HasScore: true}
	it.Take(shelf.PrintedOf(sc, plays))
	return ladder.Rung{ID: name, Strand: shelf.Book, Taught: at(day), Item: it,
		Points: []ladder.Point{{Key: "rhythm", Name: "Rhythm"}, {Key: "tone", Name: "Tone"}}}
}

func lineOf(d Day, t Task) string {
	says := fmt.Sprintf("%s %s %s %d-%d %s %d times, %d′: %s", d.Date, t.Band, t.Title, t.From, t.To, t.Hands, t.Count, t.Minutes, written(t.Why))
	if t.Start != nil {
		says += fmt.Sprintf(" | %s finger %s on %s, level %d, rhythm %q, say %q, draw %t", t.Start.Hand, t.Start.Finger, t.Start.Key, t.Start.Level, t.Start.Rhythm, t.Start.Say, t.Start.Draw)
	}
	if t.Spot != "" {
		says += fmt.Sprintf(" | spot %s, in a row %t", t.Spot, t.InRow)
	}
	if t.Skill != "" {
		says += " | " + t.Skill + ": " + t.Do
	}
	if t.Way != "" {
		says += " | " + t.Way
	}
	if t.Tempo != nil {
		says += " | " + written(*t.Tempo)
	}
	if t.Listen {
		says += " | listen"
	}
	return says
}

func written(r reason.Reason) string {
	out := []string{r.Code}
	for _, k := range slices.Sorted(maps.Keys(r.Args)) {
		out = append(out, k+"="+r.Args[k])
	}
	return strings.Join(out, " ")
}
