package year

import (
	"context"
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/internal/full"
	"patientladder/store/storetest"
	"patientladder/studio/places"
)

// A presser touches whatever the program offers.
type presser struct {
	*run
	t    *testing.T
	sort string // of the lines that it strikes whenever it sees one
}

// offered are the acts of every place as they stand now, by place and code.
func (p *presser) offered(day calendar.Date) map[string][]fact.Bodies {
	out := map[string][]fact.Bodies{}
	put := func(place string, b fact.Bodies) {
		if len(b) > 0 {
			out[place] = append(out[place], b)
		}
	}
	lesson, err := places.Lesson(p.ctx, p.app, p.who, p.id, day)
	require.NoError(p.t, err)
	for _, b := range lesson.Plan.Blocks {
		for _, a := range b.Acts {
			put("block "+a.Do, a.Tell)
		}
	}
	for _, rv := range lesson.Rungs {
		for _, a := range rv.Piece {
			put("piece "+a.Do, a.Tell)
		}
	}
	lv, err := places.Ladder(p.ctx, p.app, p.who, p.id)
	require.NoError(p.t, err)
	for _, s := range lv.Suggestions {
		put("accept "+s.Why.Code, s.Accept)
		for _, m := range s.Remedies {
			put("remedy "+m.Do, m.Accept)
		}
		if s.Key != "" {
			put("put off", fact.Bodies{fact.Overruled{Suggestion: s.Key, Until: "later"}})
			put("dismiss", fact.Bodies{fact.Overruled{Suggestion: s.Key, Until: "never"}})
		}
	}
	for _, a := range lv.Aside {
		put("have back", fact.Bodies{fact.Retracted{Ref: a.Fact}})
	}
	for _, rv := range lv.Rungs {
		for _, a := range rv.Acts {
			put("rung "+a.Do, a.Tell)
		}
	}
	week, err := places.Week(p.ctx, p.app, p.who, p.id, "", 0)
	require.NoError(p.t, err)
	for _, l := range week.Lines {
		for _, a := range l.Acts {
			if s, is := a.Tell[0].(fact.LineStruck); is {
				put("strike "+strings.Fields(s.Sort + " none")[0], a.Tell)
				continue
			}
			put("line "+a.Do, a.Tell)
		}
	}
	settings, err := places.Approach(p.ctx, p.app, p.who, p.id)
	require.NoError(p.t, err)
	for _, h := range settings.Habits {
		for _, a := range h.Acts {
			put("habit "+a.Do, a.Tell)
		}
	}
	return out
}

// press touches one thing that is offered, and looks at every place after it.
func (p *presser) press(day calendar.Date) {
	p.t.Helper()
	all := p.offered(day)
	var codes []string
	for code := range all {
		codes = append(codes, code)
	}
	if len(codes) == 0 {
		return
	}
	slices.Sort(codes)
	code := codes[p.rng.IntN(len(codes))]
	if list := "strike " + p.sort; len(all[list]) > 0 {
		code = list
	}
	act := all[code][p.rng.IntN(len(all[code]))]
	for _, b := range act {
		p.say(b)
	}
	require.NoError(p.t, p.deliver(fact.Teacher), "%s offers %s: %v", p.life.name, code, act)
	p.ledger.Count("acts", 1)
}

// Whatever the program itself offers may be touched, in whatever order: no later request fails, and every lesson
// can be finished. Each student touches something at each lesson for twenty weeks, and strikes one sort of line
// from each sheet.
func TestWhateverIsOffered(t *testing.T) {
	names := full.Or([]string{"Odo", "Bo", "Eve", "Maud", "Tove", "Veit", "Ivo"}, Names())
	for i, name := range names {
		for n, sort := range full.Or([]string{[]string{"listen", "head-start", "cards", "game", "rung"}[i%5]}, []string{"listen", "head-start", "cards", "game", "rung"}) {
			t.Run(name+" strikes "+sort, func(t *testing.T) {
				t.Parallel()
				ctx := context.Background()
				st, err := Open(ctx, storetest.New(t))
				require.NoError(t, err)
				_, err = st.live(ctx, name, uint64(100+n), 20, ByPath, func(r *run, k int) {
					p := presser{run: r, t: t, sort: sort}
					p.rng = rand.New(rand.NewPCG(uint64(k), uint64(i)))
					r.at = r.at.Add(time.Minute)
					for range full.Or(3, 8) {
						p.press(r.day)
					}
				})
				require.NoError(t, err, fmt.Sprint(name, " ", sort))
			})
		}
	}
}
