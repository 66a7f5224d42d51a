package year

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"

	"patientladder/core/calendar"
	"patientladder/core/climb"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
	"patientladder/core/week"
	"patientladder/studio/places"
)

// says is what each rule means, as a teacher would say it.
var says = map[string]string{
	"01 words":    "words fit the student: instrument, hand, reader; only what can be heard is listened to",
	"02 notes":    "technique, reading and games name their notes or steps, and no two things read the same",
	"03 shown":    "a head start on a sheet was shown before; one shown and not finished is on the sheet",
	"04 days":     "the sheet covers every day to the next lesson, and each day of practice holds something",
	"05 lines":    "no more things a day than the age has room for",
	"05 minutes":  "the minutes of a day add up to no more than its budget",
	"05 fits":     "each task fits its minutes at three fifths of the tempo",
	"06 whole":    "the whole stood on a sheet before the foothold",
	"06 ready":    "a piece with all points met is asked for whole",
	"06 hands":    "the left hand does not come before a second lesson on the piece",
	"07 same":     "the same lines of an unfinished piece stand on at most two sheets running",
	"07 stuck":    "when a piece is said to stick, the next sheet differs",
	"08 thin":     "after a thin week fewer days, and a thing less a day than there is room for",
	"08 share":    "upkeep is within five points of the share asked for, where there is work in hand",
	"09 kept":     "what was given reads the same ever after, and ticks keep their line",
	"10 minutes":  "the minutes of a plan add up",
	"11 opener":   "the opener changes within three lessons, and is a piece where there is one",
	"11 again":    "no old piece or activity four lessons running",
	"12 break":    "at most one lesson after a break is without a new piece",
	"12 next":     "after a foothold the next piece of the lane begins within two lessons",
	"13 passed":   "what was passed is not probed again",
	"14 false":    "nothing is said to stick for weeks in which it had no lesson",
	"14 agree":    "a piece said to stick is past its usual range",
	"16 ahead":    "a head start is done at most four lesson weeks before its piece, and its last step comes again",
	"17 fit":      "no proposal asks for three things that are unknown",
	"17 lanes":    "each lane has something to come, or says why not",
	"18 silence":  "ladder and lesson say the same of how long a piece was silent",
	"20 polished": "a secure piece with a day near is asked for polished",
	"22 sheet":    "on every day of term the family has a sheet, whatever became of the lesson",
	"24 waits":    "no area waits for more than three lessons for its first without a word",
	"25 back":     "after a pain at most half of the minutes before, then a third more each week",
	"25 pain":     "while playing is forbidden: no thin week, nothing ready, no habit, no forecast that moves",
	"26 newly":    "what is newly secure was secured in the last six weeks",
	"26 points":   "what has all its points met has points",
	"27 truth":    "every reason is true when it is shown",
	"27 words":    "every reason has its words",
	"28 twice":    "no two lines of a day read the same",
	"29 games":    "no game four lessons running",
	"30 learns":   "what was left out of three lessons is no longer planned",
	"21 closed":   "what was found missing is closed within twelve lessons, or brought by what is in hand",
	"21 found":    "what a student from elsewhere lacks is found within three lessons",
}

// seen is what was read on the way.
type seen struct {
	lessons   int
	lesson    calendar.Date // the last, and the one before
	before    calendar.Date
	heads     map[string]string // skill to what was shown of it last
	fresh     map[string]calendar.Date
	begun     map[string]calendar.Date
	whole     map[string]bool           // by rung: stood whole on a sheet
	sheets    map[string]int            // by rung: sheets since it was begun
	lines     map[string][]string       // by rung: its lines on each sheet
	practised []int                     // days, a week
	given     map[string][]byte         // by document
	ticked    map[[2]string]bool        // document and line
	heard     map[string]calendar.Date  // by rung
	openers   []string                  // titles
	passed    map[string]bool           // probes
	gaps      map[string]bool           // by skill that was found missing: still open
	chosen    map[calendar.Date]bool    // the teacher changed the plan of that day
	runs      map[string]int            // by old piece or activity: lessons running
	noNew     int                       // lessons of a break without a new piece
	free      map[shelf.Strand]int      // lessons since a lane lost its piece
	told      map[string]climb.Expected // by rung: the forecast of its first lesson
	sticks    map[string]bool           // by rung: said to stick on the last ladder
	ache      bool
	mixture   bool // on the last ladder: it is before the first book
	refused   int  // suggestions turned down or put off
	faulted   calendar.Date
	days      int     // asked for on the sheet before
	told3     []spent // minutes told of days at home
	budget    int     // of the last sheet
	hurt      hurt
	waits     map[string]int           // by rung: lessons in hand without its first
	games     map[string]int           // by id: lessons running
	dropped   int                      // lessons of which a game was left out
	drops     calendar.Date            // the last of them
	longer    int                      // lessons in which a piece was made longer
	due       map[string]int           // by skill: weeks to its piece on the ladder before
	finished  map[string]calendar.Date // by skill: the last step of its head start
}

// spent is the minutes told of a day at home.
type spent struct {
	day     calendar.Date
	minutes int
}

func newSeen() seen {
	return seen{heads: map[string]string{}, fresh: map[string]calendar.Date{}, begun: map[string]calendar.Date{}, whole: map[string]bool{}, sheets: map[string]int{}, lines: map[string][]string{},
		given: map[string][]byte{}, ticked: map[[2]string]bool{}, heard: map[string]calendar.Date{}, passed: map[string]bool{}, gaps: map[string]bool{}, chosen: map[calendar.Date]bool{}, runs: map[string]int{},
		free: map[shelf.Strand]int{}, told: map[string]climb.Expected{}, sticks: map[string]bool{}, finished: map[string]calendar.Date{}, due: map[string]int{}, waits: map[string]int{}, games: map[string]int{}}
}

func (s *seen) shown(skill, cue string, day calendar.Date) { s.heads[skill], s.fresh[skill] = cue, day }

// room is how many things a day an age has room for. Common practice, no source.
func room(age int) int {
	switch {
	case age < 7:
		return 4
	case age < 10:
		return 6
	}
	return 8
}

// wrong are words that do not belong on a sheet, by what the student plays and who reads.
func wrong(l life, text string) string {
	text = " " + strings.ToLower(text)
	list := []string{"%!", "{", "}", " nil", "Tidelines:"}
	if l.age >= 10 {
		list = append(list, "the child", "grown-up")
	}
	if !strings.Contains("piano", string(l.instrument)) {
		list = append(list, "black key", "white key", "pedal", "bench", "thumb early", "middle c")
	}
	for _, w := range list {
		if strings.Contains(text, w) {
			return w
		}
	}
	return ""
}

// onSheet holds a sheet, just given, against the rules of sheets.
func (r *run) onSheet(k int, v places.WeekView, lv places.LadderView) {
	sh, l := *v.Sheet, r.life
	name := fmt.Sprintf("%s, sheet of %s", l.name, sh.From)
	if data, err := json.Marshal(unfolded(v.Sheet)); err == nil {
		r.seen.given[v.Document.ID] = data
	}
	if r.show {
		text := fmt.Sprintf("%s, budget %d, share %.2f of %.2f", name, sh.Budget, sh.Share, sh.Asked)
		for _, d := range sh.Days {
			text += fmt.Sprintf("\n   %s off %t", d.Date, d.Off)
			for _, t := range d.Tasks {
				text += fmt.Sprintf("\n      %2d %s %s: %s", t.Minutes, t.Band, t.Title, t.Says.What)
			}
		}
		fmt.Println(text)
	}
	rungs := map[string]places.RungView{}
	for _, rv := range lv.Rungs {
		rungs[rv.ID] = rv
	}
	for _, line := range sh.Lines {
		w := wrong(l, line.Says)
		r.ledger.hold("01 words", w == "", func() string { return fmt.Sprintf("%s: %q in %q", name, w, line.Says) })
	}
	r.days(name, sh)
	whats := map[string]string{}
	byRung := map[string][]string{}
	minutes := map[string]int{}
	for _, d := range sh.Days {
		things := map[string]bool{}
		sum := 0
		for _, t := range d.Tasks {
			rv := rungs[t.Rung]
			r.task(name, t, rv)
			if !t.Listen {
				what := t.Title + ": " + t.Says.What
				if other, there := whats[t.Says.What]; there && other != t.Title && (t.Band == "now" || t.Band == "ahead") && t.From == 0 && t.Spot == "" {
					r.ledger.hold("02 notes", t.Says.What == "whole" || strings.HasPrefix(t.Says.What, "whole"), func() string {
						return fmt.Sprintf("%s: %q and %q read the same: %q", name, other, t.Title, t.Says.What)
					})
				}
				whats[t.Says.What] = t.Title
				if t.Band == "now" && !slices.Contains(byRung[t.Rung], what) {
					byRung[t.Rung] = append(byRung[t.Rung], what)
				}
			}
			things[t.Rung+" "+t.Skill] = true
			if strings.HasPrefix(t.Key, "own ") {
				delete(things, t.Rung+" "+t.Skill)
			} else {
				sum += t.Minutes
			}
			if !d.Thin && !d.Lesson && t.Game == "" {
				minutes[t.Band] += t.Minutes
			}
			if t.From == 0 && t.Spot == "" && t.Band == "now" && (t.Hands == "" || t.Hands == "together") {
				r.seen.whole[t.Rung] = true
			}
		}
		if !d.Lesson {
			r.ledger.hold("05 lines", len(things) <= room(r.age(sh.From)), func() string {
				return fmt.Sprintf("%s, %s: %d things for %d years", name, d.Date, len(things), r.age(sh.From))
			})
			r.ledger.hold("05 minutes", sum <= sh.Budget, func() string { return fmt.Sprintf("%s, %s: %d minutes of %d", name, d.Date, sum, sh.Budget) })
		}
		r.ledger.Count("minutes asked", float64(sum))
	}
	r.pieces(name, rungs, byRung)
	r.heads(name, sh)
	r.thinness(k, name, sh)
	if all := minutes["now"] + minutes["upkeep"] + minutes["ahead"]; minutes["now"] > 0 && minutes["upkeep"] > 0 && all > 0 {
		share := float64(minutes["upkeep"]) / float64(all)
		r.ledger.hold("08 share", share > sh.Asked-0.0501 && share < sh.Asked+0.0501, func() string { return fmt.Sprintf("%s: upkeep %.2f of %.2f", name, share, sh.Asked) })
	}
}

// unfolded is a sheet as it is kept, on whatever day it is shown.
func unfolded(sh *week.Sheet) week.Sheet {
	out := *sh
	out.Days = slices.Clone(sh.Days)
	for i := range out.Days {
		out.Days[i].Folded = false
	}
	return out
}

// days: the sheet reaches the next lesson, and no day of practice is empty.
func (r *run) days(name string, sh week.Sheet) {
	if sh.Next == "" || len(sh.Days) == 0 {
		return
	}
	until := min(sh.Next, sh.From.Add(43))
	last := sh.Days[len(sh.Days)-1].Date
	r.ledger.hold("04 days", last >= until.Add(-1), func() string { return fmt.Sprintf("%s ends on %s, next lesson %s", name, last, sh.Next) })
	for _, d := range sh.Days[1:] {
		if !d.Off {
			r.ledger.hold("04 days", len(d.Tasks) > 0, func() string { return fmt.Sprintf("%s: nothing on %s", name, d.Date) })
		}
	}
}

// task: its words, its notes, its minutes.
func (r *run) task(name string, t week.Task, rv places.RungView) {
	for _, text := range []string{t.Says.What, t.Says.Why, t.Title} {
		w := wrong(r.life, text)
		r.ledger.hold("01 words", w == "", func() string { return fmt.Sprintf("%s: %q in %q", name, w, text) })
	}
	it := r.items[rv.Item]
	if t.Listen {
		r.ledger.hold("01 words", it.HasScore, func() string { return fmt.Sprintf("%s: listen to %s, which has no notes", name, t.Title) })
		return
	}
	if t.Band == "now" && (it.Strand == shelf.Technique || it.Strand == shelf.Reading) {
		r.ledger.hold("02 notes", len(t.Plays)+len(t.Cards)+len(t.Steps) > 0 || it.HasScore || strings.HasPrefix(t.Key, "own "), func() string { return fmt.Sprintf("%s: %s reads only %q", name, t.Title, t.Says.What) })
	}
	if t.Hands == "left" && t.From > 0 && !r.seen.ache { // while the right hand hurts the left has its work
		p := r.mind.pieces[t.Rung]
		r.ledger.hold("06 hands", p == nil || p.lessons >= 2, func() string { return fmt.Sprintf("%s: %s, left hand after its first lesson", name, t.Title) })
	}
	if t.Band == "now" && it.HasScore && it.Bars > 0 && it.Tempo > 0 && t.Spot == "" && !t.Listen {
		bars := it.Bars
		if t.From > 0 {
			bars = t.To - t.From + 1
		}
		// of quarter notes a bar at least two are reckoned, so that no meter is judged too hard
		seconds := float64(t.Count) * (float64(bars)*2*60/(0.6*it.Tempo) + 2)
		r.ledger.hold("05 fits", seconds <= 60*(float64(t.Minutes)+0.75), func() string {
			return fmt.Sprintf("%s: %s, %s: %.0f s in %d′", name, t.Title, t.Says.What, seconds, t.Minutes)
		})
	}
	if t.Band == "now" && rv.Ready && it.Strand.Piece() && t.Spot == "" && !strings.HasPrefix(t.Key, "own ") {
		r.ledger.hold("06 ready", t.From == 0, func() string {
			return fmt.Sprintf("%s: %s has all its points, and reads %q", name, t.Title, t.Says.What)
		})
	}
}

// pieces: what changes from sheet to sheet.
func (r *run) pieces(name string, rungs map[string]places.RungView, byRung map[string][]string) {
	for id, lines := range byRung {
		rv := rungs[id]
		if rv.State != ladder.Current || rv.Taught == nil {
			continue
		}
		r.seen.sheets[id]++
		slices.Sort(lines)
		text := strings.Join(lines, "; ")
		past := r.seen.lines[id]
		it := r.items[rv.Item]
		if n := len(past); n >= 2 && it.Strand.Piece() {
			r.ledger.hold("07 same", !(past[n-1] == text && past[n-2] == text), func() string { return fmt.Sprintf("%s: for the third time running %s", name, text) })
		}
		if n := len(past); n >= 1 && r.seen.sticks[id] && it.Strand.Piece() {
			r.ledger.hold("07 stuck", past[n-1] != text, func() string { return fmt.Sprintf("%s: said to stick, and again %s", name, text) })
		}
		r.seen.lines[id] = append(past, text)
	}
}

// heads: head starts go home as they were shown.
func (r *run) heads(name string, sh week.Sheet) {
	on := map[string]bool{}
	for _, d := range sh.Days {
		for _, t := range d.Tasks {
			if t.Skill == "" {
				continue
			}
			on[t.Skill] = true
			cue, shown := r.seen.heads[t.Skill]
			r.ledger.hold("03 shown", shown && strings.HasPrefix(cue, strings.TrimSuffix(t.Do, ".")), func() string { return fmt.Sprintf("%s: %s “%s” was not shown (%q)", name, t.Title, t.Do, cue) })
		}
	}
	if r.seen.ache || sh.Budget < 8 {
		return
	}
	for skill, day := range r.seen.fresh {
		if day == sh.From {
			left := slices.ContainsFunc(sh.Days, func(d week.Day) bool { return len(d.Tasks) > 0 })
			r.ledger.hold("03 shown", on[skill] || !left, func() string { return fmt.Sprintf("%s: %s was shown and is not on it", name, skill) })
		}
	}
}

// thinness: after a week with under half its days, fewer days, and a thing less a day than
// the age has room for.
func (r *run) thinness(k int, name string, sh week.Sheet) {
	days, most := 0, 0
	for _, d := range sh.Days[1:] {
		if d.Off || d.Thin || d.Again {
			continue
		}
		days++
		things := map[string]bool{}
		for _, t := range d.Tasks {
			things[t.Rung+" "+t.Skill] = true
		}
		most = max(most, len(things))
	}
	if n := len(r.seen.practised); n > 0 && r.seen.days > 0 && !r.seen.ache && sh.Next != "" {
		done := r.seen.practised[n-1]
		if done > 0 && 2*done < r.seen.days && r.seen.days >= 5 && sh.Next.Sub(sh.From) >= 7 && r.seen.before != "" && sh.From.Sub(r.seen.before) == 7 {
			r.ledger.hold("08 thin", days < r.seen.days, func() string {
				return fmt.Sprintf("%s: %d of %d days were kept, and %d are asked for", name, done, r.seen.days, days)
			})
			r.ledger.hold("08 thin", most < room(r.age(sh.From)), func() string { return fmt.Sprintf("%s: %d things a day after a thin week", name, most) })
		}
	}
	r.seen.days = days
}

// end reads every sheet once more.
func (r *run) end() error {
	v, err := places.Week(r.ctx, r.app, r.who, r.id, "", 0)
	if err != nil {
		return err
	}
	for _, day := range v.Given {
		w, err := places.Week(r.ctx, r.app, r.who, r.id, day, 0)
		if err != nil {
			return err
		}
		keys := map[string]bool{}
		for _, doc := range w.Revisions {
			old, err := places.Week(r.ctx, r.app, r.who, r.id, day, doc.Revision)
			if err != nil {
				return err
			}
			now, err := json.Marshal(unfolded(old.Sheet))
			if err != nil {
				return err
			}
			for _, d := range old.Sheet.Days {
				for _, t := range d.Tasks {
					keys[doc.ID+" "+t.Key] = true
				}
			}
			if was, there := r.seen.given[doc.ID]; there {
				r.ledger.hold("09 kept", string(was) == string(now), func() string { return fmt.Sprintf("%s, sheet of %s reads otherwise", r.life.name, day) })
			}
			for at := range r.seen.ticked {
				if at[0] == doc.ID {
					r.ledger.hold("09 kept", keys[doc.ID+" "+at[1]], func() string { return fmt.Sprintf("%s, sheet of %s lost the line %s", r.life.name, day, at[1]) })
				}
			}
		}
	}
	alive, all := 0, 0
	for _, p := range r.mind.pieces {
		if p.secure && p.item.Strand.Piece() {
			all++
			if p.recall(r.day) >= 0.6 {
				alive++
			}
		}
	}
	r.ledger.Count("pieces secure", float64(all))
	r.ledger.Count("pieces alive at the end", float64(alive))
	r.ledger.Count("met unprepared", float64(r.mind.met))
	return nil
}
