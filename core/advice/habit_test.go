package advice

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/ladder"
)

// What a teacher does to three sheets is offered to be kept, or is kept already.
func TestWhatIsChangedAgainAndAgain(t *testing.T) {
	change := func(day calendar.Date, line, sort string, count int, hands string) fact.Body {
		return fact.LineChanged{Day: day, Line: line, Sort: sort, Count: count, Hands: hands}
	}
	timed := func(day calendar.Date, was, is int) fact.Body {
		return fact.BlockTimed{Day: day, Block: "current:a", Minutes: is, Sort: "current", Was: was}
	}
	const one, two, three, four = "2026-09-07", "2026-09-14", "2026-09-21", "2026-09-28"
	for _, c := range []struct {
		name string
		told []fact.Body
		want []string // code, count or sort, act
	}{
		{"two sheets are no habit", []fact.Body{change(one, "a", "piece", 5, ""), change(two, "a", "piece", 5, "")}, nil},
		{"three are", []fact.Body{change(one, "a", "piece", 5, ""), change(two, "b", "piece", 5, ""), change(three, "a", "piece", 5, "")}, []string{"habit-count 5 piece keep"}},
		{"two lines of a sheet are one sheet", []fact.Body{change(one, "a", "piece", 5, ""), change(one, "b", "piece", 5, ""), change(two, "a", "piece", 5, "")}, nil},
		{"what a line came to counts, not each touch", []fact.Body{change(one, "a", "scale", 4, ""), change(one, "a", "scale", 5, ""), change(two, "a", "scale", 4, ""), change(two, "a", "scale", 5, ""), change(three, "a", "scale", 5, "")}, []string{"habit-count 5 scale keep"}},
		{"each sort by itself", []fact.Body{change(one, "a", "piece", 5, ""), change(two, "a", "scale", 5, ""), change(three, "a", "pattern", 5, "")}, nil},
		{"other numbers are no habit", []fact.Body{change(one, "a", "piece", 5, ""), change(two, "a", "piece", 6, ""), change(three, "a", "piece", 7, "")}, nil},
		{"the newest habit is offered", []fact.Body{change(one, "a", "piece", 5, ""), change(two, "a", "piece", 5, ""), change(three, "a", "piece", 5, ""), change(one, "b", "piece", 2, ""), change(two, "b", "piece", 2, ""), change(four, "b", "piece", 2, "")}, []string{"habit-count 2 piece keep"}},
		{"kept, it is not offered again", []fact.Body{change(one, "a", "piece", 5, ""), change(two, "a", "piece", 5, ""), change(three, "a", "piece", 5, ""), fact.CountKept{Sort: "piece", Count: 5}}, []string{"habit-count-kept 5 piece let-go"}},
		{"hands together", []fact.Body{change(one, "a", "piece", 0, "together"), change(two, "a", "piece", 0, "together"), change(three, "a", "piece", 0, "together")}, []string{"habit-hands   keep"}},
		{"already so", []fact.Body{change(one, "a", "piece", 0, "together"), change(two, "a", "piece", 0, "together"), change(three, "a", "piece", 0, "together"), fact.ApproachSet{Question: "hands", School: "together"}}, nil},
		{"one hand is no school", []fact.Body{change(one, "a", "piece", 0, "left"), change(two, "a", "piece", 0, "left"), change(three, "a", "piece", 0, "left")}, nil},
		{"struck from three", []fact.Body{fact.LineStruck{Day: one, Sort: "listen"}, fact.LineStruck{Day: two, Sort: "listen"}, fact.LineStruck{Day: three, Sort: "listen"}}, []string{"habit-sort  listen draft-again"}},
		{"from two", []fact.Body{fact.LineStruck{Day: one, Sort: "listen"}, fact.LineStruck{Day: two, Sort: "listen"}}, nil},
		{"three head starts are one sort", []fact.Body{fact.LineStruck{Day: one, Sort: "head-start staccato"}, fact.LineStruck{Day: two, Sort: "head-start"}, fact.LineStruck{Day: three, Sort: "head-start legato"}}, []string{"habit-sort  head-start draft-again"}},
		{"three games too", []fact.Body{fact.LineStruck{Day: one, Sort: "rung "}, fact.LineStruck{Day: two, Sort: "game"}, fact.LineStruck{Day: three, Sort: "game"}}, []string{"habit-sort  game draft-again"}},
		{"wanted again", []fact.Body{fact.LineStruck{Day: one, Sort: "cards"}, fact.LineStruck{Day: two, Sort: "cards"}, fact.LineStruck{Day: three, Sort: "cards"}, fact.SortKept{Sort: "cards"}}, nil},
		{"left out of three lessons", []fact.Body{fact.BlockDropped{Day: one, Block: "activity:a", Sort: "activity"}, fact.BlockDropped{Day: two, Block: "activity:b", Sort: "activity"}, fact.BlockDropped{Day: three, Block: "activity:a", Sort: "activity"}}, []string{"habit-block   draft-again"}},
		{"of two lessons, however many blocks", []fact.Body{fact.BlockDropped{Day: one, Block: "activity:a", Sort: "activity"}, fact.BlockDropped{Day: one, Block: "activity:b", Sort: "activity"}, fact.BlockDropped{Day: two, Block: "activity:a", Sort: "activity"}}, nil},
		{"before it was told of what sort", []fact.Body{fact.BlockDropped{Day: one, Block: "activity:a"}, fact.BlockDropped{Day: two, Block: "activity:b"}, fact.BlockDropped{Day: three, Block: "activity:a"}}, nil},
		{"made longer in three", []fact.Body{timed(one, 9, 12), timed(two, 9, 11), timed(three, 9, 13)}, []string{"habit-length 12  let-go"}},
		{"touch by touch", []fact.Body{timed(one, 9, 10), timed(one, 10, 12), timed(two, 9, 12), timed(three, 9, 12)}, []string{"habit-length 12  let-go"}},
		{"once shorter", []fact.Body{timed(one, 9, 12), timed(two, 9, 8), timed(three, 9, 12)}, nil},
		{"in two", []fact.Body{timed(one, 9, 12), timed(two, 9, 12)}, nil},
		{"the last three count", []fact.Body{timed(one, 9, 4), timed(two, 9, 12), timed(three, 9, 12), timed(four, 9, 12)}, []string{"habit-length 12  let-go"}},
		{"let go", []fact.Body{timed(one, 9, 12), timed(two, 9, 12), timed(three, 9, 12), fact.SortKept{Sort: ladder.Timed("current")}}, nil},
	} {
		var facts []fact.Fact
		for i, b := range c.told {
			facts = append(facts, fact.Fact{ID: string(rune('a' + i)), At: calendar.Date("2026-10-01").Time(), Body: b})
		}
		s := ladder.Fold(facts, nil)
		a := approach.Default(9).With(s.Approach)
		var got []string
		for _, h := range Habits(s, a) {
			got = append(got, h.Says.Code+" "+h.Says.Args["count"]+h.Says.Args["minutes"]+" "+h.Says.Args["sort"]+" "+h.Acts[0].Do)
		}
		assert.Equal(t, c.want, got, c.name)
	}
}
