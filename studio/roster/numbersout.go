package roster

import (
	"context"
	"fmt"
	"slices"
	"strconv"

	"patientladder/core/fact"
	"patientladder/core/ladder"
	"patientladder/core/record"
	"patientladder/core/table"
	"patientladder/studio"
	"patientladder/studio/places"
)

// tabled is a line of the tables of numbers.
type tabled struct {
	student, day, at, by, kind, of, says string
	minutes                              int
}

// column makes a column that is only written.
func column(name string, write func(tabled) string) table.Column[tabled] {
	return table.Field(name, write, nil)
}

var (
	whoColumn = column("student", func(t tabled) string { return t.student })
	dayColumn = column("day", func(t tabled) string { return t.day })
	ofColumn  = column("of", func(t tabled) string { return t.of })

	// numbers are the tables that a studio gives out, with their columns.
	numbers = map[string][]table.Column[tabled]{
		"facts": {whoColumn, dayColumn, column("time", func(t tabled) string { return t.at }), column("by", func(t tabled) string { return t.by }),
			column("kind", func(t tabled) string { return t.kind }), ofColumn, column("body", func(t tabled) string { return t.says })},
		"footholds": {whoColumn, dayColumn, column("strand", func(t tabled) string { return t.kind }), ofColumn, column("part", func(t tabled) string { return t.says })},
		"practice": {whoColumn, dayColumn, column("minutes", func(t tabled) string {
			if t.minutes == 0 {
				return ""
			}
			return strconv.Itoa(t.minutes)
		}), column("felt", func(t tabled) string { return t.says })},
	}
)

// Numbers writes what was told of all students, their footholds or their practice as a table.
func Numbers(ctx context.Context, a *studio.App, who studio.Who, of string) (studio.Archive, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return studio.Archive{}, err
	}
	columns, there := numbers[of]
	if !there {
		return studio.Archive{}, studio.Refuse("There is no table called %q.", of)
	}
	students, err := r.Students(ctx)
	if err != nil {
		return studio.Archive{}, studio.Failed(err, "studio")
	}
	var out []tabled
	for _, st := range students {
		p, err := a.Pupil(ctx, who, st.ID)
		if err != nil {
			return studio.Archive{}, err
		}
		name := st.Name()
		switch of {
		case "facts":
			back := ladder.TakenBack(p.Facts)
			for _, f := range p.Facts {
				if _, gone := back[f.ID]; gone || studio.IsRetraction(f) {
					continue
				}
				body, err := fact.Encode(f.Body)
				if err != nil {
					return studio.Archive{}, err
				}
				one := tabled{student: name, day: f.At.Format("2006-01-02"), at: f.At.Format("15:04"), by: string(f.By), kind: string(f.Kind()), says: string(body)}
				one.of, _ = places.Named(&p, f.Body)
				for _, ref := range fact.Refs(f.Body) {
					if rung, on := p.Standing.Rung(ref.ID); on && ref.To == "rung" {
						one.of = rung.Item.Title
					}
				}
				out = append(out, one)
			}
		case "footholds":
			for _, w := range record.Footholds(p.Standing) {
				out = append(out, tabled{student: name, day: w.At.Format("2006-01-02"), kind: string(w.Strand), of: w.Title, says: w.Part})
			}
		case "practice":
			days := slices.Clone(p.Standing.Practice)
			slices.SortStableFunc(days, func(a, b ladder.Practice) int { return a.Day.Sub(b.Day) })
			for _, d := range days {
				out = append(out, tabled{student: name, day: string(d.Day), minutes: d.Minutes, says: d.Feel})
			}
		}
	}
	return studio.Archive{Name: fmt.Sprintf("%s-%s.csv", of, r.Today()), Data: table.Of(columns, out)}, nil
}
