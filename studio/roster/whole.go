package roster

import (
	"context"
	"encoding/json"
	"errors"
	"slices"
	"strings"
	"time"

	"patientladder/core/activity"
	"patientladder/core/calendar"
	"patientladder/core/document"
	"patientladder/core/gather"
	"patientladder/core/instrument"
	"patientladder/core/programme"
	"patientladder/core/reading"
	"patientladder/core/shelf"
	"patientladder/core/skill"
	"patientladder/core/week"
	"patientladder/store"
	"patientladder/studio"
	"patientladder/studio/account"
	"patientladder/studio/diary"
	"patientladder/studio/library"
	"patientladder/words"
)

// archiveFormat names the form of a studio's archive.
const archiveFormat = "patient-ladder studio 1"

// A StudioArchive is all that a studio holds beside accounts, links and letters.
type StudioArchive struct {
	Format      string               `json:"format" enum:"patient-ladder studio 1"`
	Name        string               `json:"name" maxLength:"200"`
	Zone        string               `json:"zone" maxLength:"60"`
	Language    string               `json:"language,omitempty" maxLength:"35" doc:"as BCP 47 names it; empty for that of the studio that it comes into"`
	Calendar    calendar.Calendar    `json:"calendar"`
	Home        shelf.Home           `json:"home"`
	Words       reading.Words        `json:"words" doc:"for rhythms"`
	Titles      shelf.Titles         `json:"titles" doc:"of books that were renamed"`
	Instruments []instrument.Profile `json:"instruments" doc:"of the studio's own"`
	Skills      []skill.Skill        `json:"skills" doc:"of the studio's own"`
	Activities  []activity.Activity  `json:"activities" doc:"of the studio's own"`
	Events      []programme.Event    `json:"events,omitempty" doc:"days on which students play before others"`
	Hours       []gather.Hour        `json:"hours,omitempty" doc:"that several students share"`
	Items       []ArchivedItem       `json:"items" doc:"in the order of the shelf"`
	Students    []StudentArchive     `json:"students" doc:"by name"`
}

// An ArchivedItem is an item with its score file.
type ArchivedItem struct {
	Item  shelf.Item `json:"item"`
	File  string     `json:"file,omitempty" doc:"name of the score file"`
	Score []byte     `json:"score,omitempty" doc:"the file, base64"`
}

// ExportStudio gathers all that the studio holds.
func ExportStudio(ctx context.Context, a *studio.App, who studio.Who) (StudioArchive, error) {
	r, items, err := library.Shelved(ctx, a, who)
	if err != nil {
		return StudioArchive{}, err
	}
	students, err1 := r.Students(ctx)
	activities, err2 := r.Activities(ctx)
	events, err3 := diary.EventsOf(ctx, r)
	hours, err4 := diary.HoursOf(ctx, r)
	if err := errors.Join(err1, err2, err3, err4); err != nil {
		return StudioArchive{}, studio.Failed(err, "studio")
	}
	terms := calendar.Calendar{Terms: studio.List(r.Row.Calendar.Terms), Free: studio.List(r.Row.Calendar.Free)}
	out := StudioArchive{Format: archiveFormat, Name: r.Row.Name, Zone: r.Row.Zone, Language: r.Row.Language, Calendar: terms, Home: r.Row.Home, Words: r.Row.Words, Titles: r.Row.Titles,
		Instruments: studio.List(r.Row.Instruments), Skills: studio.List(r.Row.Skills), Activities: studio.List(activities), Events: events, Hours: hours, Items: []ArchivedItem{}, Students: []StudentArchive{}}
	for _, it := range items {
		one := ArchivedItem{Item: it.Listing()}
		if it.HasScore {
			f, err := r.Score(ctx, it.ID)
			if err != nil {
				return out, studio.Failed(err, "score")
			}
			one.File, one.Score = f.Name, f.Data
		}
		out.Items = append(out.Items, one)
	}
	for _, st := range students {
		one, err := archived(ctx, r, st)
		if err != nil {
			return out, err
		}
		out.Students = append(out.Students, one)
	}
	return out, nil
}

// ImportStudio brings an archive into a studio that holds nothing yet, all or none.
func ImportStudio(ctx context.Context, a *studio.App, who studio.Who, in StudioArchive) error {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return err
	}
	if in.Format != archiveFormat {
		return studio.Refuse("This is no archive of a studio: its format is %q, not %q.", in.Format, archiveFormat)
	}
	if _, err := time.LoadLocation(in.Zone); err != nil || in.Zone == "" {
		return studio.Refuse("%q is not a time zone such as Europe/London.", in.Zone)
	}
	if in.Language != "" && !slices.Contains(words.Languages, in.Language) {
		in.Language = "" // of a program that knew more
	}
	if err := in.Calendar.Check(); err != nil {
		return studio.Refuse("The calendar does not work: %v.", err)
	}
	w := store.Whole{Row: store.StudioRow{Name: in.Name, Zone: in.Zone, Language: in.Language, Calendar: in.Calendar, Home: in.Home, Words: in.Words, Titles: in.Titles, Instruments: in.Instruments, Skills: in.Skills}, Activities: in.Activities, Events: in.Events, Hours: in.Hours}
	instruments := instrument.Shipped.With(in.Instruments)
	for _, one := range in.Items {
		if err := one.Item.Check(instruments); err != nil {
			return studio.Refuse("%q cannot be brought in: %v.", one.Item.Title, err)
		}
		item := store.NewItem{Item: one.Item}
		if one.File != "" {
			item.File = &store.ScoreFile{Name: one.File, Data: one.Score}
		}
		w.Items = append(w.Items, item)
	}
	for _, one := range in.Students {
		st, err := one.unpacked(r.Now)
		if err != nil {
			return err
		}
		w.Students = append(w.Students, st)
	}
	err = a.Store.In(who.Studio).AddWhole(ctx, w)
	a.Forget(r.Row.ID, "")
	switch {
	case errors.Is(err, store.ErrNotEmpty):
		return &studio.Error{Kind: studio.Conflict, Says: "This studio holds students or items already. An archive is brought into an empty one, so that nothing is mixed.", Cause: err}
	case errors.Is(err, store.ErrTaken):
		return studio.Refuse("Something stands twice in the archive, so nothing was brought in.")
	}
	return studio.Failed(err, "studio")
}

// unpacked checks an archived student and gives it the form of the store.
func (s StudentArchive) unpacked(now time.Time) (store.WholeStudent, error) {
	out := store.WholeStudent{Student: store.Student{ID: s.ID, FirstName: s.FirstName, FamilyName: s.FamilyName, BirthYear: s.BirthYear, BirthMonth: s.BirthMonth, Instrument: s.Instrument,
		Slot: s.Slot, Approach: s.Approach, Home: s.Home, Contact: s.Contact, Language: s.Language, Person: s.Person}, Facts: s.Facts}
	if err := s.Slot.Check(); err != nil {
		return out, studio.Refuse("The lesson time of %s does not work: %v.", s.FirstName, err)
	}
	for i, f := range s.Facts {
		if err := f.Check(now); err != nil || f.Student != s.ID {
			return out, studio.Refuse("Mark %d of %s cannot be brought in: %v.", i+1, s.FirstName, err)
		}
	}
	for _, d := range s.Documents {
		kept := store.KeptDocument{Document: d.Document, Body: d.Body, Summary: struct{}{}}
		kept.Kind, kept.Cause, kept.Student = d.Kind, document.ParseCause(d.Cause), s.ID
		if d.Kind == document.Sheet {
			var sheet week.Sheet
			if err := json.Unmarshal(d.Body, &sheet); err != nil {
				return out, studio.Refuse("The sheet of %s of %s cannot be read: %v.", s.FirstName, d.Day, err)
			}
			kept.Summary = studio.Summarize(sheet)
		}
		out.Documents = append(out.Documents, kept)
	}
	return out, nil
}

// EmptyStudio deletes all students, items and games of a studio: what an import brought, or
// all to begin anew.
func EmptyStudio(ctx context.Context, a *studio.App, who studio.Who, name, password string) error {
	r, err := mayDelete(ctx, a, who, name, password)
	if err != nil {
		return err
	}
	a.Forget(r.Row.ID, "")
	return studio.Failed(r.Empty(ctx), "studio")
}

// DeleteStudio deletes the studio, its accounts and all that is in it.
func DeleteStudio(ctx context.Context, a *studio.App, who studio.Who, name, password string) error {
	r, err := mayDelete(ctx, a, who, name, password)
	if err != nil {
		return err
	}
	a.Forget(r.Row.ID, "")
	return studio.Failed(r.Delete(ctx), "studio")
}

// mayDelete asks for the studio's name and the password before all is deleted.
func mayDelete(ctx context.Context, a *studio.App, who studio.Who, name, password string) (studio.Room, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return r, err
	}
	if !strings.EqualFold(strings.TrimSpace(name), r.Row.Name) {
		return r, studio.Refuse("Nothing was deleted: write the studio's name, %s, to go on.", r.Row.Name)
	}
	_, err = account.Knows(ctx, a, who, password)
	return r, err
}
