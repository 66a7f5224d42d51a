package ladder

import (
	"slices"

	"patientladder/core/fact"
)

// Rehome takes marks that were told of the wrong student over to the right one, in order: each
// with the time it had and an id that newID makes, on the rungs and spots of the same items. It
// returns what to tell, a retraction after each, and those that have no place with the other:
// on an item that is not on the ladder, a point of the student's own, a line of a sheet.
func Rehome(facts []fact.Fact, from, to Standing, student string, newID func(fact.Fact) string) (tell, left []fact.Fact) {
	spots := map[string]string{} // of the one, by those of the other
	rung := func(id string) (Rung, bool) {
		was, there := from.Rung(id)
		if !there {
			return Rung{}, false
		}
		best := -1
		for i, r := range to.Rungs {
			if r.Item.ID == was.Item.ID && (best < 0 || to.Rungs[best].Parked) {
				best = i
			}
		}
		if best < 0 {
			return Rung{}, false
		}
		return to.Rungs[best], true
	}
	for _, f := range facts {
		var on Rung
		body, known := fact.Referring(f.Body, func(r fact.Ref) (string, bool) {
			switch r.To {
			case "rung":
				var there bool
				on, there = rung(r.ID)
				return on.ID, there
			case "point":
				return r.ID, slices.ContainsFunc(on.Points, func(p Point) bool { return p.Key == r.ID && !p.Own })
			case "spot":
				if id := spots[r.ID]; id != "" {
					return id, true
				}
				was := spotOf(from, r.ID)
				i := slices.IndexFunc(on.Spots, func(s Spot) bool { return s.Where == was })
				if was == "" || i < 0 {
					return "", false
				}
				return on.Spots[i].ID, true
			case "document", "question", "fact":
				return "", false
			}
			return r.ID, true
		})
		if !known {
			left = append(left, f)
			continue
		}
		moved := fact.Fact{ID: newID(f), Student: student, At: f.At, Body: body}
		if _, spot := body.(fact.SpotNoted); spot {
			spots[f.ID] = moved.ID
		}
		tell = append(tell, moved, fact.Fact{ID: newID(f), Student: f.Student, At: f.At, Body: fact.Retracted{Ref: f.ID}})
	}
	return tell, left
}

// spotOf is the place of a spot; empty where there is none.
func spotOf(s Standing, id string) string {
	for _, r := range s.Rungs {
		for _, p := range r.Spots {
			if p.ID == id {
				return p.Where
			}
		}
	}
	return ""
}
