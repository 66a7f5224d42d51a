package witness

import (
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"net/http"
	"slices"
	"time"
)

// editors is how many devices change the one calendar of the studio, each its own free day, which it
// puts in and takes out again and again: no device's change may undo another's.
const editors = 3

// A freeDay is what a device made of its day.
type freeDay struct {
	acked, in   bool // something was acknowledged; the day is in then
	open        bool // a change is on its way that was not acknowledged
	edits, gone int  // acknowledged changes; those that were not there when it looked right afterwards
}

type span struct {
	Name string `json:"name"`
	From string `json:"from"`
	To   string `json:"to"`
}

type terms struct {
	Terms []span `json:"terms"`
	Free  []span `json:"free"`
}

func dayOf(i int) string { return fmt.Sprintf("2027-03-%02d", 1+i) }

func (c terms) has(day string) bool {
	return slices.ContainsFunc(c.Free, func(s span) bool { return s.From == day })
}

// edit has a device put its free day in and take it out until the context ends.
func (w *Witness) edit(ctx context.Context, i int) {
	b := w.signIn(ctx, i%len(w.base))
	day := dayOf(i)
	for ctx.Err() == nil {
		var was terms
		if _, err := b.Do(ctx, http.MethodGet, "/api/calendar", nil, &was); err != nil {
			b.Base = w.after(b.Base)
			wait(ctx, 50*time.Millisecond)
			continue
		}
		now := terms{was.Terms, slices.DeleteFunc(slices.Clone(was.Free), func(s span) bool { return s.From == day })}
		in := !was.has(day)
		if in {
			now.Free = append(now.Free, span{"free", day, day})
		}
		w.changed(i, func(d *freeDay) { d.open = true })
		status, err := b.Do(ctx, http.MethodPut, "/api/calendar", map[string]any{"was": was, "now": now}, nil)
		if err != nil {
			if status == http.StatusPreconditionFailed || status == http.StatusUnprocessableEntity || status == http.StatusInternalServerError {
				w.mu.Lock()
				w.wrong[fmt.Sprintf("a change of the calendar, %d: %.160s", status, err)]++
				w.mu.Unlock()
			}
			wait(ctx, 50*time.Millisecond)
			continue // what became of it is seen at the next look
		}
		var after terms
		_, err = b.Do(ctx, http.MethodGet, "/api/calendar", nil, &after)
		w.changed(i, func(d *freeDay) {
			d.acked, d.in, d.open = true, in, false
			if d.edits++; err == nil && after.has(day) != in {
				d.gone++
			}
		})
		wait(ctx, 20*time.Millisecond)
	}
}

func (w *Witness) changed(i int, change func(*freeDay)) {
	w.mu.Lock()
	defer w.mu.Unlock()
	change(&w.free[i])
}

// judgeEdits holds the calendar in the tables against what each device made of its day.
func (w *Witness) judgeEdits(ctx context.Context, db *sql.DB, f *Finding) error {
	var data []byte
	if err := db.QueryRowContext(ctx, `SELECT s.calendar FROM studios s JOIN teachers t ON t.studio_id = s.id WHERE t.email = ?`, w.email).Scan(&data); err != nil {
		return err
	}
	var is terms
	if err := json.Unmarshal(data, &is); err != nil {
		return err
	}
	for i, d := range w.free {
		f.Edits += d.edits
		f.Overwritten += d.gone
		if d.acked && !d.open && is.has(dayOf(i)) != d.in {
			f.Overwritten++
		}
	}
	return nil
}
