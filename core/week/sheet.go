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

	"patientladder/core/activity"
	"patientladder/core/ahead"
	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/climb"
	"patientladder/core/instrument"
	"patientladder/core/judgement"
	"patientladder/core/ladder"
	"patientladder/core/reading"
	"patientladder/core/reason"
	"patientladder/core/shelf"
	"patientladder/core/skill"
)

// A Task is one thing to do on one day.
type Task struct {
	Key     string         `json:"key" doc:"of the task among those of its day; the same in every revision of the sheet"`
	Band    string         `json:"band" enum:"now,upkeep,ahead"`
	Rung    string         `json:"rung"`
	Item    string         `json:"item,omitempty" doc:"of what the teacher added from the shelf"`
	Title   string         `json:"title"`
	From    int            `json:"from" doc:"first bar; 0 for the whole or no bars"`
	To      int            `json:"to" doc:"last bar"`
	Spot    string         `json:"spot,omitempty" doc:"the place of a spot"`
	Skill   string         `json:"skill,omitempty" doc:"of a head start"`
	Do      string         `json:"do,omitempty" doc:"what to do, of a head start"`
	Hands   string         `json:"hands,omitempty" enum:"right,left,together" doc:"of a two-hand piece"`
	Plays   []Play         `json:"plays,omitempty" doc:"of an exercise: what each hand plays"`
	Cards   []CardLine     `json:"cards,omitempty" doc:"of reading and theory: what is asked, and when it is right"`
	Steps   []string       `json:"steps,omitempty" doc:"of a game: how it goes"`
	Game    string         `json:"game,omitempty" doc:"id of an activity that is played at home"`
	Way     string         `json:"way,omitempty" enum:"own-tempo,by-heart,to-someone" doc:"how the whole is played, where it has been asked for before"`
	Tempo   *reason.Reason `json:"tempo,omitempty" doc:"of a whole piece: what says how it goes"`
	Think   *reason.Reason `json:"think,omitempty" doc:"the one thing that the last take asks to think of"`
	Start   *Start         `json:"start,omitempty" doc:"of a chunk that was read off the score"`
	Count   int            `json:"count" doc:"times; in a row for a spot or a pattern"`
	InRow   bool           `json:"inRow"`
	Listen  bool           `json:"listen" doc:"only listening; success is not asked"`
	Minutes int            `json:"minutes"`
	Why     reason.Reason  `json:"why"`
	Says    Words          `json:"says"`

	fresh bool    // a small chunk that is learnt
	lasts float64 // seconds of one playing, slowly; 0 where that is not known
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
	Keys   bool                `json:"keys,omitempty" doc:"of a keyboard"`
	Draw   bool                `json:"draw,omitempty" doc:"where the hand begins is drawn"`
	Label  bool                `json:"label,omitempty" doc:"the keys carry their names"`
	Say    string              `json:"say,omitempty" doc:"said while pointing, for the grown-up"`
	Rhythm string              `json:"rhythm,omitempty" doc:"words in its rhythm, said before it is played"`
	Notes  int                 `json:"notes"`
	Level  int                 `json:"level" doc:"0 for a smallest chunk, more for one that is joined from others"`
}

// A Day of the sheet.
type Day struct {
	Date   calendar.Date `json:"date"`
	Lesson bool          `json:"lesson" doc:"the day of the lesson: listening only"`
	Off    bool          `json:"off" doc:"no day of practice in this family"`
	Thin   bool          `json:"thin,omitempty" doc:"after the first week, in the holidays: lighter"`
	Again  bool          `json:"again,omitempty" doc:"after the first week, in term: as a day of that week"`
	Folded bool          `json:"folded,omitempty" doc:"not told one by one, where a sheet is shown on a day"`
	Tasks  []Task        `json:"tasks"`
}

// A Sheet is the assignment until the next lesson.
type Sheet struct {
	From     calendar.Date   `json:"from"`
	Next     calendar.Date   `json:"next" doc:"the next lesson; empty where none is known"`
	Budget   int             `json:"budget" doc:"minutes a day"`
	Counting string          `json:"counting" enum:"by-age,correct-only,quality"`
	Reader   string          `json:"reader" enum:"parent,student,adult" doc:"whom the sheet speaks to"`
	Word     string          `json:"word,omitempty" doc:"a sentence of the teacher's to the family"`
	Drafted  []Day           `json:"drafted,omitempty" doc:"the days before the teacher's word; empty where there was none"`
	Gone     []Gone          `json:"gone,omitempty" doc:"lines that the teacher struck"`
	Lines    []Line          `json:"lines" doc:"what holds for every practice: the seat first, rests, cards to reread"`
	Share    float64         `json:"share" doc:"of the minutes on this sheet that are upkeep"`
	Asked    float64         `json:"asked" doc:"share of upkeep that the approach asks for"`
	Days     []Day           `json:"days"`
	LeftOut  []reason.Reason `json:"leftOut"`
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

// practice is how many days of a usual week may be practised: all but the lesson's.
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
	Stuck    map[string]bool            // by rung: it sticks
	InTurn   map[string]bool            // by rung: its hands take turns
	Tempos   map[string]reading.Tempo   // by rung: what stands at its head, and what supports it
	Seat     []reason.Reason            // how to sit at the home's instrument, as measured; none where it was not
	Past     []Past                     // sheets given before, the first first
	Words    reading.Words              // for rhythms
	Pinned   map[string][]Task          // by rung: lines of sheets before that go on as they are
	Games    []activity.Activity        // played in the lesson
	Bank     []activity.Activity        // that may be played
	Beyond   bool                       // the student began beyond the first book
	Age      int                        // years
	From     calendar.Date              // day of the lesson
	Next     calendar.Date              // of the next; empty where none is known
	Through  calendar.Date              // the sheet's last day (Reach)
	Calendar calendar.Calendar          // of terms and holidays
	At       time.Time                  // of the lesson's end
	Voice    Voice                      // in the language of the home
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

// tell is how the sheet speaks.
func (w *writer) tell() teller { return teller{w.Voice, w.sheet.Reader} }

// key names a task by what it asks.
func (t Task) key() string {
	parts := []string{t.Band, t.Rung, t.Skill, t.Hands, t.Spot}
	if t.Start != nil {
		parts = append(parts, t.Start.Hand, t.Start.From, t.Start.To)
	}
	parts = append(parts, strconv.Itoa(t.From), strconv.Itoa(t.To))
	if t.Game != "" {
		parts = append(parts, t.Game)
	}
	return strings.Join(parts, " ")
}

// Make writes the sheet from a lesson's day to its last (Reach). After the first week it
// goes on: in term as that week went, with the pieces in hand as far as they have come by
// then; in the holidays lighter. A day on which the family does not practise is off.
func Make(ask Ask) (sh Sheet) {
	sh = Sheet{From: ask.From, Next: ask.Next, Budget: Budget(ask.Age), Counting: string(ask.Approach[approach.Counts]), Asked: ask.Approach.UpkeepShare(), Reader: reader(ask.Age),
		LeftOut: []reason.Reason{}, Lines: []Line{}}
	defer func() { sh.say(ask.Voice) }()
	ask.Past = lived(ask.Past, ask.From)
	w := writer{Ask: ask, sheet: &sh, plans: map[string][][]bit{}, rungs: map[ladder.State][]ladder.Rung{}}
	sh.Days = append(sh.Days, Day{Date: ask.From, Lesson: true, Tasks: []Task{}})
	last := ask.Through.Sub(ask.From)
	for d := 1; d <= min(last, practice); d++ {
		day := Day{Date: ask.From.Add(d), Tasks: []Task{}}
		if day.Off = !ask.Standing.HomeDays.On(day.Date); !day.Off {
			w.days = append(w.days, d)
		}
		sh.Days = append(sh.Days, day)
	}
	w.budget()
	w.lines()
	if ask.Standing.Ache != nil {
		w.spare = sh.Budget
		w.rest()
		w.goOn(last)
		return sh
	}
	w.ahead()
	if w.meeting() && w.anything() && len(w.goHome()) > 0 {
		w.spare -= playsLong // for the game beside the piece
	}
	w.now()
	w.games()
	w.upkeep()
	w.few()
	w.goOn(last)
	for _, d := range sh.Days { // new work while fresh, then old friends
		slices.SortStableFunc(d.Tasks, func(a, b Task) int { return slices.Index(bands, a.Band) - slices.Index(bands, b.Band) })
	}
	sh.share()
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
	days  []int              // indices of the days of practice
	light bool               // after a thin week: fewer lines, fewer days
	spare int                // minutes a day that are left for now and upkeep
	early map[int]int        // minutes a day that went to what comes later
	later float64            // the same of a day in the middle
	plans map[string][][]bit // of pieces in hand, by rung

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

// put adds a task to a day of practice, counted from 1; 0 is the lesson's own day. What
// the teacher strikes again and again is not put; then it reports false.
func (w *writer) put(turn int, t Task) bool {
	if w.Standing.Strikes(t.Sort()) >= int(judgement.StruckOften) {
		out := reason.Of("struck-often", "title", t.Title)
		if !slices.ContainsFunc(w.sheet.LeftOut, func(r reason.Reason) bool { return r.Code == out.Code && r.Args["title"] == t.Title }) {
			w.sheet.LeftOut = append(w.sheet.LeftOut, out)
		}
		return false
	}
	if kept := w.Standing.Counts[t.Counted()]; kept.Times > 0 {
		t.Count = kept.Times
	}
	d := &w.sheet.Days[0]
	if turn > 0 {
		d = &w.sheet.Days[w.days[turn-1]]
	}
	if t.Key == "" { // a pinned line keeps its own
		t.Key = t.key()
	}
	d.Tasks = append(d.Tasks, t)
	return true
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
		if w.allowed() != "" && !w.oneHanded(r) {
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
	inHand := float64(w.spare)
	if len(w.in(ladder.Secure)) > 0 { // what comes later takes from the work in hand, not from the old friends
		inHand = max(1, float64(w.sheet.Budget)*(1-w.Approach.UpkeepShare())-w.later)
	}
	minutes := int(math.Round(inHand))
	others := 0 // things of a day that are not in hand
	if len(w.in(ladder.Secure)) > 0 {
		others++
	}
	if len(w.early) > 0 {
		others++
	}
	if w.meeting() && len(w.goHome()) > 0 {
		others++
	}
	days := turns(len(rungs), min(minutes/2, max(w.most()-others, 1)), len(w.days))
	total := make([]int, len(rungs))
	for _, list := range days {
		for _, i := range list {
			total[i]++
		}
	}
	turn := make([]int, len(rungs))
	for d, list := range days {
		// parts of minutes add up over the days
		minutes := int(math.Floor(inHand*float64(d+1)+0.5)) - int(math.Floor(inHand*float64(d)+0.5))
		minutes = min(minutes, w.sheet.Budget-w.early[d+1])
		for k, i := range list {
			share := minutes / len(list)
			if k < minutes%len(list) {
				share++
			}
			turn[i]++
			w.rung(rungs[i], d+1, turn[i], total[i], share, max(int(inHand)/len(list), 1))
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

// isPiece reports whether an item is a piece by its notes, in whatever lane it stands.
func isPiece(it shelf.Item) bool {
	return it.HasScore && it.Exercise == "" && it.Cards == "" && len(it.Steps) == 0 && it.Strand.Piece()
}

// rung writes one current rung's tasks of a day: its turn-th of total this week, in so many
// minutes, of which it can count on room on each day.
func (w *writer) rung(r ladder.Rung, day, turn, total, minutes, room int) {
	t := Task{Band: "now", Rung: r.ID, Title: r.Item.Title, Count: Times(w.Age), Hands: w.hands(r)}
	if take, fresh := w.Standing.LastTake(r.ID, w.At); fresh && take.Figure != ladder.Even {
		think := take.Said().Think()
		t.Think = &think
	}
	if (r.Strand == shelf.Technique || r.Strand == shelf.Reading) && !isPiece(r.Item) {
		t = w.drill(r, t)
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
			spot.From, spot.To = s.Bars()
			spot.Why = reason.Of("spot-first", "where", s.Where, "done", strconv.Itoa(s.Done), "goal", strconv.Itoa(s.Goal))
			tasks = append(tasks, spot)
		}
	}
	switch pinned := w.Pinned[r.ID]; {
	case len(pinned) > 0: // instead of what would be asked
		for _, p := range pinned {
			p.Why = reason.Of("pinned")
			tasks = append(tasks, p)
		}
	case len(trees) > 0:
		tasks = append(tasks, w.fromScore(r, t, trees, turn, total, max(room-len(tasks), 1))...)
	default:
		tasks = append(tasks, w.fromBars(r, t, day, turn, total, room-len(tasks))...)
	}
	spots := len(tasks) - len(slices.DeleteFunc(slices.Clone(tasks), func(t Task) bool { return t.Spot != "" }))
	list := fit(slices.Clone(tasks), minutes)
	if crowded := !slices.ContainsFunc(list, func(t Task) bool { return t.Spot == "" }); crowded && spots < len(tasks) && (turn == total && total > 1 || (turn+len(w.Past))%2 == 0) {
		list = fit(tasks[spots:], minutes) // no room for both: the spot and the piece take turns
	}
	for _, t := range list {
		if t.From == 0 && t.Spot == "" {
			t.Tempo = w.tempo(r)
		}
		w.put(day, t)
	}
}

// tempo says what stands at the head of a piece, and what supports it; nil where neither
// does.
func (w *writer) tempo(r ladder.Rung) *reason.Reason {
	t := w.Tempos[r.ID]
	var says reason.Reason
	switch {
	case t.Word != "" && t.In != "":
		says = reason.Of("tempo-"+t.In, "word", t.Word, "clue", t.Clue)
	case t.Word != "":
		says = reason.Of("tempo-word", "word", t.Word)
	case t.In != "":
		says = reason.Of("tempo-clue-"+t.In, "clue", t.Clue)
	default:
		return nil
	}
	return &says
}
