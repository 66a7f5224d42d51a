package programme

import "patientladder/core/reason"

// Why says what speaks for an order of pieces: only what is so in it.
func Why(pieces []Piece) []reason.Reason {
	young, moves, apart := true, 0, true
	instruments := map[string]bool{}
	for i, p := range pieces {
		instruments[p.Instrument] = true
		if i == 0 {
			continue
		}
		before := pieces[i-1]
		young = young && before.Age <= p.Age
		if before.Instrument != p.Instrument {
			moves++
		}
		if before.Student != p.Student {
			apart = apart && (before.Key == "" || before.Key != p.Key) && (before.Mood == "" || before.Mood != p.Mood)
		}
	}
	out := []reason.Reason{}
	if len(pieces) < 2 {
		return out
	}
	if young {
		out = append(out, reason.Of("order-young"))
	}
	if moves == len(instruments)-1 {
		out = append(out, reason.Of("order-moves"))
	}
	if apart {
		out = append(out, reason.Of("order-apart"))
	}
	if pieces[len(pieces)-1].Mood == "lively" {
		out = append(out, reason.Of("order-lively"))
	}
	return out
}
