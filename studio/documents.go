package studio

import (
	"context"
	"crypto/sha256"
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"runtime/debug"
	"slices"
	"time"

	"github.com/oklog/ulid/v2"

	"patientladder/core/calendar"
	"patientladder/core/document"
	"patientladder/core/fact"
	"patientladder/core/ladder"
	"patientladder/core/lesson"
	"patientladder/core/notation"
	"patientladder/core/reading"
	"patientladder/core/week"
	"patientladder/store"
)

// Program is the version of this program, as documents name it.
var Program = func() string {
	version := "dev"
	if info, ok := debug.ReadBuildInfo(); ok {
		for _, s := range info.Settings {
			if s.Key == "vcs.revision" {
				version = s.Value[:min(len(s.Value), 12)]
			}
		}
	}
	return version
}()

// A SheetSummary is what the record shows of a week sheet.
type SheetSummary struct {
	Lines   []SheetLine `json:"lines"`
	Minutes int         `json:"minutes" doc:"asked for in all"`
}

// A SheetLine is a line of a sheet with the days on which it stands.
type SheetLine struct {
	Key   string        `json:"key"`
	Says  string        `json:"says" doc:"what to do, as the sheet says it"`
	Title string        `json:"title"`
	Days  int           `json:"days" doc:"on which it stands"`
	First calendar.Date `json:"first,omitempty" doc:"of them; empty of sheets from before that was kept"`
}

// owed makes the documents that the facts call for and that are not kept yet: of
// the lesson that is open or was closed last, and of the day that a lesson is about.
func (p *Pupil) owed(ctx context.Context) ([]store.KeptDocument, error) {
	var out []store.KeptDocument
	for _, kind := range []document.Kind{document.Plan, document.Sheet} {
		day := Latest(p.held(kind))
		if day == "" {
			continue
		}
		d, owed, err := p.document(ctx, kind, day)
		if err != nil {
			return nil, err
		}
		if owed {
			out = append(out, d)
		}
	}
	return out, nil
}

// held are the lessons in which a kind of document is given, with when: the plan at
// the beginning, the sheet at the end.
func (p *Pupil) held(kind document.Kind) map[calendar.Date]time.Time {
	if kind == document.Sheet {
		return p.Standing.Closed
	}
	return p.Standing.Opened
}

// Latest is the last day of some lessons; empty for none.
func Latest(lessons map[calendar.Date]time.Time) calendar.Date {
	last := calendar.Date("")
	for day := range lessons {
		last = max(last, day)
	}
	return last
}

// document returns the newest revision of what was given in a lesson, and whether it
// was only made now and is still to be kept. Of a lesson before the last it is what
// was kept; one from before documents were kept is made from the facts of then.
func (p *Pupil) document(ctx context.Context, kind document.Kind, day calendar.Date) (store.KeptDocument, bool, error) {
	last, err := p.Studio.Document(ctx, p.ID, kind, day, 0)
	there := err == nil
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return last, false, Failed(err, "document")
	}
	lessons := p.held(kind)
	cause, given := document.CauseOf(kind, day, p.Facts)
	if given && kind == document.Sheet && day == Latest(lessons) {
		if err := p.through(day, &cause, &last, there); err != nil {
			return last, false, err
		}
	}
	if !given || there && day != Latest(lessons) {
		if !there {
			return last, false, &Error{Kind: Missing, Says: "Nothing was given in a lesson on that day."}
		}
		return last, false, nil
	}
	before := &last.Document
	if !there {
		before = nil
	}
	why, by, owed := document.Owed(kind, before, cause)
	if !owed {
		return last, false, nil
	}
	d := store.KeptDocument{Document: document.Document{ID: DocumentID(p.ID, kind, day, last.Revision+1, lessons[day]), Student: p.ID, Kind: kind, Day: day, Revision: last.Revision + 1, Reason: why, By: by,
		At: p.Room.Now, Program: Program, Cause: cause}}
	at := lessons[day]
	then := p.Until(at)
	app := p.ApproachAt(then, day)
	var body any
	if why == document.Edited {
		return p.edited(d, last)
	}
	switch kind {
	case document.Plan:
		body, d.Summary = p.Plan(p.Way(then, app, at), day), struct{}{}
	case document.Sheet:
		if day == Latest(lessons) { // what was said since, of the days at home and of a pain, holds at once
			then.HomeDays, then.Ache, then.Rests = p.Standing.HomeDays, p.Standing.Ache, p.Standing.Rests
		}
		if err := p.cut(ctx, then); err != nil {
			return d, false, err
		}
		if err := p.pins(ctx, then); err != nil {
			return d, false, err
		}
		home := p.atHome()
		sheet := home.Sheet(home.Way(then, app, at), day)
		if why == document.NextLesson {
			var was week.Sheet
			if err := json.Unmarshal(last.Body, &was); err != nil {
				return d, false, err
			}
			sheet = week.Extend(was, sheet)
		}
		sheet = week.Edit(sheet, p.edits(day), p.adds(day))
		body, d.Summary = sheet, Summarize(sheet)
	}
	d.Body, err = json.Marshal(body)
	return d, true, err
}

// through adds to the cause of the newest sheet the day that it must reach to. One that was given
// before that was kept reached to its last day. Who has left is written no more days.
func (p *Pupil) through(day calendar.Date, now *document.Cause, last *store.KeptDocument, there bool) error {
	_, now.Through = p.reach(day)
	if !there {
		return nil
	}
	if last.Cause.Through == "" {
		var sheet week.Sheet
		if err := json.Unmarshal(last.Body, &sheet); err != nil {
			return err
		}
		last.Cause.Through = sheet.Ends()
	}
	if away, is := p.Standing.AwayOn(p.Today()); is && away.Left {
		now.Through = last.Cause.Through
	}
	return nil
}

// reach is to which lesson the sheet of a lesson runs as things stand, and its last day.
func (p *Pupil) reach(day calendar.Date) (next, through calendar.Date) {
	return week.Reach(p.Calendar(), p.Slot, day, p.Today())
}

// pins fetches the lines of sheets before that go on, as they were given.
func (p *Pupil) pins(ctx context.Context, s ladder.Standing) error {
	p.pinned = map[string][]week.Task{}
	var ids []string
	for _, pin := range s.Pinned {
		ids = append(ids, pin.Document)
	}
	if len(ids) == 0 {
		return nil
	}
	docs, err := p.DocumentsNamed(ctx, ids)
	if err != nil {
		return Failed(err, "document")
	}
	for _, line := range slices.Sorted(maps.Keys(s.Pinned)) {
		i := slices.IndexFunc(docs, func(d store.KeptDocument) bool { return d.ID == s.Pinned[line].Document })
		if i < 0 {
			continue
		}
		var sheet week.Sheet
		if err := json.Unmarshal(docs[i].Body, &sheet); err != nil {
			return err
		}
		if t, there := sheet.Line(line); there {
			p.pinned[t.Rung] = append(p.pinned[t.Rung], t)
		}
	}
	return nil
}

// edited makes the revision of a sheet that the teacher's word calls for: the same sheet
// as it was drafted, with all that was said on it.
func (p *Pupil) edited(d, last store.KeptDocument) (store.KeptDocument, bool, error) {
	var sheet week.Sheet
	if err := json.Unmarshal(last.Body, &sheet); err != nil {
		return d, false, err
	}
	sheet = week.Edit(sheet, p.edits(d.Day), p.adds(d.Day))
	d.Summary = Summarize(sheet)
	var err error
	d.Body, err = json.Marshal(sheet)
	return d, true, err
}

// edits are the teacher's words on the sheet of a day, in order, without those taken back.
func (p *Pupil) edits(day calendar.Date) []fact.Fact {
	var out []fact.Fact
	ladder.InOrder(p.Facts, func(f fact.Fact) {
		if on, is := fact.SheetDay(f.Body); is && on == day {
			out = append(out, f)
		}
	})
	return out
}

// adds is what added lines of the sheet of a day are written from.
func (p *Pupil) adds(day calendar.Date) week.Adds {
	out := week.Adds{Titles: make(map[string]string, len(p.Standing.Rungs)), Items: p.Items, All: slices.Concat(p.Voice().Games(), p.Own),
		Ask: week.Ask{Standing: p.Standing, Approach: p.Approach, Plays: p.Plays, Age: Age(p.Student, day), At: p.Standing.Closed[day], Voice: p.Voice()}}
	for _, r := range p.Standing.Rungs {
		out.Titles[r.ID] = r.Item.Title
	}
	return out
}

// DocumentID names a revision after what it is, so that two copies of the program
// that make it at the same moment make one.
func DocumentID(student string, kind document.Kind, day calendar.Date, revision int, at time.Time) string {
	sum := sha256.Sum256(fmt.Appendf(nil, "%s %s %s %d", student, kind, day, revision))
	var id ulid.ULID
	_ = id.SetTime(ulid.Timestamp(at)) // a time in bounds and ten bytes are always taken
	_ = id.SetEntropy(sum[:10])
	return id.String()
}

// keep is document, kept if it was only made now.
func (p *Pupil) keep(ctx context.Context, kind document.Kind, day calendar.Date) (store.KeptDocument, error) {
	d, owed, err := p.document(ctx, kind, day)
	if err == nil && owed {
		err = Failed(p.AddTold(ctx, nil, []store.KeptDocument{d}, DailyLimits), "student")
	}
	return d, err
}

// Summarize is what the record shows of a sheet.
func Summarize(sheet week.Sheet) SheetSummary {
	out := SheetSummary{Lines: []SheetLine{}}
	at := map[string]int{}
	for _, day := range sheet.Days {
		for _, t := range day.Tasks {
			out.Minutes += t.Minutes
			if i, there := at[t.Key]; there {
				out.Lines[i].Days++
				continue
			}
			at[t.Key] = len(out.Lines)
			out.Lines = append(out.Lines, SheetLine{t.Key, t.Says.What, t.Title, 1, day.Date})
		}
	}
	return out
}

// SheetOf is the week sheet that was given in the lesson of a day, the newest
// revision for 0; nil and no error where no lesson was closed on the empty day.
func (p *Pupil) SheetOf(ctx context.Context, day calendar.Date, revision int) (*document.Document, *week.Sheet, error) {
	if day == "" {
		if day = Latest(p.Standing.Closed); day == "" {
			return nil, nil, nil
		}
	}
	d, err := p.keep(ctx, document.Sheet, day)
	if err == nil && revision > 0 && revision != d.Revision {
		d, err = p.Studio.Document(ctx, p.ID, document.Sheet, day, revision)
		err = Failed(err, "revision")
	}
	if err != nil {
		return nil, nil, err
	}
	var sheet week.Sheet
	err = json.Unmarshal(d.Body, &sheet)
	sheet.Drafted = nil // what was struck is not sent out
	return &d.Document, &sheet, err
}

// Changed says what the sheet that holds asks otherwise than the revision that the family
// had last: the newest that was there when something was last sent to it or told by it.
func (p *Pupil) Changed(ctx context.Context, sheet week.Sheet, revisions []document.Document, sent []store.Mailing) ([]week.Line, error) {
	var last time.Time
	for _, m := range sent {
		if m.Student == p.ID && m.Day == sheet.From && m.At.After(last) {
			last = m.At
		}
	}
	for _, f := range p.Facts {
		if f.By == fact.Family && f.At.After(last) {
			last = f.At
		}
	}
	had := 0
	for _, r := range revisions {
		if !r.At.After(last) {
			had = r.Revision
		}
	}
	if had == 0 || had == len(revisions) {
		return []week.Line{}, nil
	}
	d, err := p.Studio.Document(ctx, p.ID, document.Sheet, sheet.From, had)
	if err != nil {
		return nil, Failed(err, "sheet")
	}
	var before week.Sheet
	if err := json.Unmarshal(d.Body, &before); err != nil {
		return nil, err
	}
	return List(week.Changed(p.Voice(), before, sheet)), nil
}

// PlanOf is the plan as it was agreed when the lesson of a day was opened, with
// what was changed in it since.
func (p *Pupil) PlanOf(ctx context.Context, day calendar.Date) (document.Document, lesson.Plan, error) {
	var plan lesson.Plan
	d, err := p.keep(ctx, document.Plan, day)
	if err != nil {
		return d.Document, plan, err
	}
	return d.Document, plan, json.Unmarshal(d.Body, &plan)
}

// CheckDay checks a day that was asked for; the empty one is fine.
func CheckDay(day calendar.Date) error {
	if day == "" {
		return nil
	}
	if _, err := calendar.ParseDate(string(day)); err != nil {
		return Refuse("That day cannot be shown: %v.", err)
	}
	return nil
}

// cut reads the chunk trees of the rungs in hand in a standing off their scores.
func (p *Pupil) cut(ctx context.Context, s ladder.Standing) error {
	var ids []string
	rungs := map[string]string{} // by item
	for _, r := range s.In(ladder.Current) {
		if r.Item.HasScore && r.Taught != nil {
			ids = append(ids, r.Item.ID)
			rungs[r.Item.ID] = r.ID
		}
	}
	files, err := p.Scores(ctx, ids)
	if err != nil {
		return Failed(err, "scores")
	}
	p.trees, p.inTurn, p.tempos = make(map[string][]reading.Chunk, len(files)), map[string]bool{}, map[string]reading.Tempo{}
	size := reading.Size(Age(p.Student, p.Today()), p.Standing.ReadsSolidly())
	for id, f := range files {
		if err := ctx.Err(); err != nil {
			return err
		}
		sc, err := notation.Read(f.Name, f.Data)
		if err != nil {
			return err // it was read when it came onto the shelf
		}
		page := reading.Read(sc, p.Plays)
		p.trees[rungs[id]], p.inTurn[rungs[id]], p.tempos[rungs[id]] = page.Chunks(size), page.InTurn(), page.Tempo()
	}
	return p.remember(ctx)
}

// remember gathers the sheets that were given before, with what was ticked of them.
func (p *Pupil) remember(ctx context.Context) error {
	weeks, err := p.Weeks(ctx)
	if err != nil {
		return err
	}
	p.past = p.past[:0]
	for _, w := range slices.Backward(weeks) {
		past := week.Past{Day: w.Day, Ticked: map[string]int{}, First: map[string]calendar.Date{}}
		for _, l := range w.Lines {
			past.Ticked[l.Key], past.First[l.Key] = l.Ticked, l.First
		}
		p.past = append(p.past, past)
	}
	return nil
}

// A RecordWeek is a week sheet as it was given last, beside what came back.
type RecordWeek struct {
	Day       calendar.Date `json:"day" doc:"of the lesson"`
	Revisions int           `json:"revisions"`
	Minutes   int           `json:"minutes" doc:"asked for in all"`
	Lines     []AskedLine   `json:"lines"`
}

// An AskedLine is a line of a sheet and how often it was ticked.
type AskedLine struct {
	SheetLine
	Ticked int `json:"ticked"`
}

// Weeks lists the sheets that were given, each in its newest revision, with the
// ticks of all of them.
func (p *Pupil) Weeks(ctx context.Context) ([]RecordWeek, error) {
	docs, err := p.Documents(ctx, p.ID, document.Sheet)
	if err != nil {
		return nil, Failed(err, "student")
	}
	ticks := map[string]int{} // by document and line
	for _, t := range p.Standing.Ticks {
		ticks[t.Document+" "+t.Line]++
	}
	out := []RecordWeek{}
	var ids []string // of the revisions of one day
	for i, d := range docs {
		if ids = append(ids, d.ID); i+1 < len(docs) && docs[i+1].Day == d.Day {
			continue
		}
		var sum SheetSummary
		if err := json.Unmarshal(d.Summary, &sum); err != nil {
			return nil, err
		}
		w := RecordWeek{Day: d.Day, Revisions: d.Revision, Minutes: sum.Minutes, Lines: []AskedLine{}}
		for _, l := range sum.Lines {
			n := 0
			for _, id := range ids {
				n += ticks[id+" "+l.Key]
			}
			w.Lines = append(w.Lines, AskedLine{l, n})
		}
		out, ids = append(out, w), nil
	}
	slices.Reverse(out)
	return out, nil
}
