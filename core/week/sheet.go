// Package week writes the week sheet: what to practise on each day until the
// next lesson, from the standing after a closed lesson.
//
// A sheet has seven days from the lesson's own, which only listens. Small
// chunks come first, are joined through the week, and the whole stands on the
// last two days. Minutes a day, counts and the share of secure pieces are
// common practice, no source.
package week

import (
	"math"
	"slices"
	"sort"
	"strconv"
	"strings"
	"time"

	"patientladder/core/ahead"
	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/climb"
	"patientladder/core/instrument"
	"patientladder/core/ladder"
	"patientladder/core/reading"
	"patientladder/core/reason"
	"patientladder/core/shelf"
	"patientladder/core/skill"
)

// A Task is one thing to do on one day.
type Task struct {
	Key     string        `json:"key" doc:"of the task among those of its day; the same in every revision of the sheet"`
	Band    string        `json:"band" enum:"now,upkeep,ahead"`
	Rung    string        `json:"rung"`
	Title   string        `json:"title"`
	From    int           `json:"from" doc:"first bar; 0 for the whole or no bars"`
	To      int           `json:"to" doc:"last bar"`
	Spot    string        `json:"spot,omitempty" doc:"the place of a spot"`
	Skill   string        `json:"skill,omitempty" doc:"of a head start"`
	Do      string        `json:"do,omitempty" doc:"what to do, of a head start"`
	Hands   string        `json:"hands,omitempty" enum:"right,left,together" doc:"of a two-hand piece"`
	Start   *Start        `json:"start,omitempty" doc:"of a chunk that was read off the score"`
	Count   int           `json:"count" doc:"times; in a row for a spot or a pattern"`
	InRow   bool          `json:"inRow"`
	Listen  bool          `json:"listen" doc:"only listening; success is not asked"`
	Minutes int           `json:"minutes"`
	Why     reason.Reason `json:"why"`
	Says    Words         `json:"says"`
}

// bands in the order in which a day takes them.
var bands = []string{"now", "upkeep", "ahead"}

// A Start tells where a chunk stands on the page and how the hand begins it.
type Start struct {
	From string `json:"from" doc:"id of its first note in the score"`
	To   string `json:"to" doc:"id of its last"`
	Hand string `json:"hand" enum:",right,left,both"`
	reading.StartOf
	Starts []reading.HandStart `json:"starts,omitempty" doc:"of both hands: of each that plays in it"`
	Notes  int                 `json:"notes"`
	Level  int                 `json:"level" doc:"0 for a smallest chunk, more for one that is joined from others"`
}

// A Day of the sheet.
type Day struct {
	Date   calendar.Date `json:"date"`
	Lesson bool          `json:"lesson" doc:"the day of the lesson: listening only"`
	Off    bool          `json:"off" doc:"no day of practice in this family"`
	Tasks  []Task        `json:"tasks" nullable:"false"`
}

// A Sheet is the assignment until the next lesson.
type Sheet struct {
	From     calendar.Date   `json:"from"`
	Next     calendar.Date   `json:"next" doc:"the next lesson; empty when the calendar ends"`
	Budget   int             `json:"budget" doc:"minutes a day"`
	Counting string          `json:"counting" enum:"by-age,correct-only,quality"`
	Reader   string          `json:"reader" enum:"parent,student,adult" doc:"whom the sheet speaks to"`
	Lines    []Line          `json:"lines" nullable:"false" doc:"what holds for every practice: the seat first, rests, cards to reread"`
	Share    float64         `json:"share" doc:"of the minutes on this sheet that are upkeep"`
	Asked    float64         `json:"asked" doc:"share of upkeep that the approach asks for"`
	Days     []Day           `json:"days" nullable:"false"`
	LeftOut  []reason.Reason `json:"leftOut" nullable:"false"`
}

// Budget returns the minutes of practice a day at an age: about twice the age
// for the young, 25 from nine, 40 from thirteen, 30 for adults.
func Budget(age int) int {
	switch {
	case age < 9:
		return 2 * max(age, 3)
	case age < 13:
		return 25
	case age < 19:
		return 40
	}
	return 30
}

// Times returns how often a piece is played a day: as many times as a young
// child has years, three times from nine.
func Times(age int) int {
	if age < 9 {
		return max(age, 3)
	}
	return 3
}

// practice is how many days of the sheet may be practised: all but the lesson's.
const practice = 6

// An Ask is what a sheet is written from.
type Ask struct {
	Standing ladder.Standing
	Graph    skill.Graph
	Path     climb.Path
	Ahead    []ahead.HeadStart
	Approach approach.Approach
	Home     shelf.Home
	Plays    instrument.Profile
	Trees    map[string][]reading.Chunk // by rung: a tree a hand, of two hands a third for both
	Age      int                        // years
	From     calendar.Date              // day of the lesson
	Next     calendar.Date              // of the next; empty when the calendar ends
	At       time.Time                  // of the lesson's end
}

// Keys lists the keys of the sheet's tasks, each once.
func (sh Sheet) Keys() []string {
	keys := []string{}
	for _, d := range sh.Days {
		for _, t := range d.Tasks {
			if !slices.Contains(keys, t.Key) {
				keys = append(keys, t.Key)
			}
		}
	}
	return keys
}

// key names a task by what it asks.
func (t Task) key() string {
	parts := []string{t.Band, t.Rung, t.Skill, t.Hands, t.Spot}
	if t.Start != nil {
		parts = append(parts, t.Start.Hand, t.Start.From, t.Start.To)
	}
	return strings.Join(append(parts, strconv.Itoa(t.From), strconv.Itoa(t.To)), " ")
}

// Make writes the sheet of the seven days from a lesson's day. A day on which the
// family does not practise is off.
func Make(ask Ask) (sh Sheet) {
	sh = Sheet{From: ask.From, Next: ask.Next, Budget: Budget(ask.Age), Counting: string(ask.Approach[approach.Counts]), Asked: ask.Approach.UpkeepShare(), Reader: reader(ask.Age),
		LeftOut: []reason.Reason{}, Lines: []Line{}}
	defer sh.say()
	w := writer{Ask: ask, sheet: &sh, rungs: map[ladder.State][]ladder.Rung{}}
	sh.Days = append(sh.Days, Day{Date: ask.From, Lesson: true, Tasks: []Task{}})
	for d := 1; d <= practice; d++ {
		day := Day{Date: ask.From.Add(d), Tasks: []Task{}}
		if day.Off = !ask.Standing.HomeDays.On(day.Date); !day.Off {
			w.days = append(w.days, d)
		}
		sh.Days = append(sh.Days, day)
	}
	w.budget()
	w.lines()
	if ask.Standing.Ache != nil {
		w.rest()
		return sh
	}
	w.ahead()
	w.now()
	w.upkeep()
	for _, d := range sh.Days { // new work while fresh, then old friends
		slices.SortStableFunc(d.Tasks, func(a, b Task) int { return slices.Index(bands, a.Band) - slices.Index(bands, b.Band) })
	}
	now, kept := 0, 0
	for _, d := range sh.Days[1:] {
		for _, t := range d.Tasks {
			switch t.Band {
			case "now":
				now += t.Minutes
			case "upkeep":
				kept += t.Minutes
			}
		}
	}
	if now+kept > 0 {
		sh.Share = float64(kept) / float64(now+kept)
	}
	return sh
}

// reader says whom a sheet speaks to: a parent is the practice partner up to about
// nine. Common practice, no source.
func reader(age int) string {
	switch {
	case age < 10:
		return "parent"
	case age < 18:
		return "student"
	}
	return "adult"
}

type writer struct {
	Ask
	sheet *Sheet
	days  []int       // indices of the days of practice
	spare int         // minutes a day that are left for now and upkeep
	early map[int]int // minutes a day that went to what comes later

	rungs map[ladder.State][]ladder.Rung // gathered when first asked for
}

// in returns the rungs of a state.
func (w *writer) in(s ladder.State) []ladder.Rung {
	list, gathered := w.rungs[s]
	if !gathered {
		list = w.Standing.In(s)
		w.rungs[s] = list
	}
	return list
}

// put adds a task to a day of practice, counted from 1; 0 is the lesson's own day.
func (w *writer) put(turn int, t Task) {
	d := &w.sheet.Days[0]
	if turn > 0 {
		d = &w.sheet.Days[w.days[turn-1]]
	}
	t.Key = t.key()
	d.Tasks = append(d.Tasks, t)
}

// least is the budget below which a day has no minute for what comes later.
const least = 8

// ahead gives a minute or two on alternate days to the head starts of this
// week, or else to hearing what comes next, which also stands on the lesson's
// own day.
func (w *writer) ahead() {
	w.spare = w.sheet.Budget
	w.early = map[int]int{}
	put := func(day int, t Task) {
		w.put(day, t)
		if day > 0 {
			w.early[day] += t.Minutes
		}
	}
	coming := w.in(ladder.Ahead)
	if len(coming) > 0 && w.fits(coming[0]) {
		r := coming[0]
		t := Task{Band: "ahead", Rung: r.ID, Title: r.Item.Title, Count: 1, Listen: true, Minutes: 1, Why: reason.Of("hear-it-early", "title", r.Item.Title)}
		put(0, t)
		if w.sheet.Budget < least {
			w.sheet.LeftOut = append(w.sheet.LeftOut, reason.Of("no-room-for", "title", r.Item.Title))
		}
	}
	if far := len(coming) - 1; far > 1 && w.Home.Lacks(w.Plays, coming[far].Item) == nil {
		title := coming[far].Item.Title
		put(0, Task{Band: "ahead", Rung: coming[far].ID, Title: title, Count: 1, Listen: true, Minutes: 1, Why: reason.Of("hear-far-ahead", "title", title)})
	}
	if w.sheet.Budget < least || w.Path.Break.Light() {
		return
	}
	any := false
	for i, h := range w.Ahead {
		task, now := h.Now()
		if !now || task.Minutes > w.sheet.Budget/6 {
			continue
		}
		any = true
		t := Task{Band: "ahead", Title: h.Name, Skill: h.Skill, Do: task.Do, Count: 1, Minutes: task.Minutes, Why: h.Why(w.Path, w.Graph)}
		for d := 1 + i%2; d <= len(w.days); d += 2 {
			put(d, t)
		}
	}
	if !any && len(coming) > 0 && w.fits(coming[0]) {
		for d := 2; d <= len(w.days); d += 2 {
			put(d, w.sheet.Days[0].Tasks[0])
		}
	}
	most := 0
	for _, m := range w.early {
		most = max(most, m)
	}
	w.spare -= most
}

// fits reports whether the home instrument can do a rung; one that it cannot
// do is told as left out.
func (w *writer) fits(r ladder.Rung) bool {
	lacks := w.Home.Lacks(w.Plays, r.Item)
	if lacks != nil && !slices.ContainsFunc(w.sheet.LeftOut, func(o reason.Reason) bool { return o.Args["title"] == r.Item.Title }) {
		w.sheet.LeftOut = append(w.sheet.LeftOut, *lacks)
	}
	return lacks == nil
}

// now shares the minutes that upkeep leaves among the taught current rungs, two
// minutes each at least. Where that is too many for a day, the book's rung
// comes every day and the others take turns.
func (w *writer) now() {
	var rungs []ladder.Rung
	for _, r := range w.in(ladder.Current) {
		if r.Taught == nil {
			// only what was shown
			if !w.Standing.BeforeBook {
				w.sheet.LeftOut = append(w.sheet.LeftOut, reason.Of("waits-for-its-lesson", "title", r.Item.Title))
			}
			continue
		}
		if w.fits(r) {
			rungs = append(rungs, r)
		}
	}
	if len(rungs) == 0 {
		return
	}
	sort.SliceStable(rungs, func(i, j int) bool { return rungs[i].Taught.After(*rungs[j].Taught) }) // newest first
	if i := slices.IndexFunc(rungs, func(r ladder.Rung) bool { return r.Strand == shelf.Book }); i > 0 {
		rungs = slices.Insert(slices.Delete(slices.Clone(rungs), i, i+1), 0, rungs[i])
	}
	minutes := w.spare
	if len(w.in(ladder.Secure)) > 0 {
		minutes = max(2, int(math.Round(float64(w.spare)*(1-w.Approach.UpkeepShare()))))
	}
	days := turns(len(rungs), minutes/2, len(w.days))
	total := make([]int, len(rungs))
	for _, list := range days {
		for _, i := range list {
			total[i]++
		}
	}
	turn := make([]int, len(rungs))
	for d, list := range days {
		for k, i := range list {
			share := minutes / len(list)
			if k < minutes%len(list) {
				share++
			}
			turn[i]++
			w.rung(rungs[i], d+1, turn[i], total[i], share)
		}
	}
	w.spare -= minutes
}

// turns says which of n rungs each day of practice holds, at most room a day:
// the first as often as it can, the others in turn.
func turns(n, room, of int) [][]int {
	days := make([][]int, of)
	room = max(room, 1)
	next := 1
	for d := range days {
		if n <= room || room > 1 || d%2 == 0 || n == 1 {
			days[d] = append(days[d], 0)
		}
		for len(days[d]) < min(room, n) {
			days[d] = append(days[d], next)
			if next++; next == n {
				next = 1
			}
		}
	}
	return days
}

// rung writes one current rung's tasks of a day: its turn-th of total this week.
func (w *writer) rung(r ladder.Rung, day, turn, total, minutes int) {
	t := Task{Band: "now", Rung: r.ID, Title: r.Item.Title, Count: Times(w.Age), Hands: w.hands(r)}
	if r.Strand == shelf.Technique || r.Strand == shelf.Reading {
		t.Count, t.InRow = 5, true
		t.Why = reason.Of("a-pattern", "title", r.Item.Title)
		t.Minutes = minutes
		w.put(day, t)
		return
	}
	var tasks []Task
	trees := w.Trees[r.ID]
	for _, s := range r.Spots {
		if !s.Met() {
			spot := t
			spot.Spot, spot.Count, spot.InRow = s.Where, s.Goal, true
			spot.Why = reason.Of("spot-first", "where", s.Where, "done", strconv.Itoa(s.Done), "goal", strconv.Itoa(s.Goal))
			tasks = append(tasks, spot)
		}
	}
	if len(trees) > 0 {
		tasks = append(tasks, w.fromScore(r, t, trees, turn, total, max(minutes-len(tasks), 1))...)
	} else {
		tasks = append(tasks, w.fromBars(r, t, day, turn, total)...)
	}
	// more pieces of work than minutes: the spots and chunks that come first
	// get a minute each, the rest wait for another day
	tasks = tasks[:min(len(tasks), max(minutes, 1))]
	for i := range tasks {
		tasks[i].Minutes = minutes / len(tasks)
		if i < minutes%len(tasks) {
			tasks[i].Minutes++
		}
		w.put(day, tasks[i])
	}
}

// aDay is how many chunks of one piece a day holds: up to two pairs. Common
// practice, no source.
const aDay = 4

// fromScore writes the chunks that were read off a rung's score.
func (w *writer) fromScore(r ladder.Rung, t Task, trees []reading.Chunk, turn, total, room int) []Task {
	which := trees[0]
	for _, c := range trees {
		if hand := map[string]reading.Hand{"right": reading.Right, "left": reading.Left, "together": reading.Both}[t.Hands]; c.Hand == hand {
			which = c
		}
	}
	alone := t.Hands == "right" || t.Hands == "left"
	week := w.lessons(r)
	if t.Hands == "together" && w.Approach[approach.Hands] != approach.Together {
		week -= 2 // each hand had its week
	}
	if alone {
		week = 1
	}
	var out []Task
	for _, b := range bits(which, week, total, min(room, aDay), alone)[turn-1] {
		task := t
		task.Start = &Start{From: b.chunk.FromID, To: b.chunk.ToID, Hand: string(b.chunk.Hand), StartOf: b.chunk.Start, Starts: b.chunk.Starts, Notes: b.chunk.Notes, Level: height(b.chunk)}
		if !b.whole {
			task.From, task.To = b.bars[0], b.bars[1]
		}
		task.Why = w.whyChunk(r, b.whole, b.joined)
		out = append(out, task)
	}
	return out
}

func (w *writer) whyChunk(r ladder.Rung, whole, joined bool) reason.Reason {
	switch {
	case whole && len(r.Missing()) > 0:
		return reason.Of("hold-this", "point", r.Missing()[0])
	case whole:
		return reason.Of("ready-to-try", "title", r.Item.Title)
	case joined:
		return reason.Of("join-two")
	}
	return reason.Of("small-first")
}

// lessons counts the closed lessons since the rung was first taught, that one
// included.
func (w *writer) lessons(r ladder.Rung) int {
	n := 1
	taught := calendar.On(*r.Taught)
	for day := range w.Standing.Closed {
		if day > taught {
			n++
		}
	}
	return n
}

// hands is the rule of a two-hand piece: right hand a week, left hand a week,
// then together, unless the approach begins together.
func (w *writer) hands(r ladder.Rung) string {
	if r.Item.Staves < 2 {
		return ""
	}
	switch n := w.lessons(r); {
	case w.Approach[approach.Hands] == approach.Together || n > 2 || r.Ready():
		return "together"
	case n == 2:
		return "left"
	}
	return "right"
}
